"""Pages of the reference, made from the definitions themselves."""
