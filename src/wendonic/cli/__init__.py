"""The command line: parses, calls and prints; it computes nothing."""
