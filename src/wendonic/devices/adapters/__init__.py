"""Adapters for the windows of other libraries, each of which imports its library only inside functions."""
