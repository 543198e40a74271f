"""Presses: styles, buffer and grace."""
