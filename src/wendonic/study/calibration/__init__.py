"""What a recording says about the devices in it, with confidence intervals."""
