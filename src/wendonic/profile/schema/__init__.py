"""What a profile may hold: a file a table, with its fields, their descriptions, and what `info` says of it."""
