"""What runs in a window of its own (extra `live`)."""
