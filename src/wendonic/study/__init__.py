"""The bench: what a trace shows about how a profile feels."""
