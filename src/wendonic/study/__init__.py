"""The bench: what a trace tells about how a profile feels."""
