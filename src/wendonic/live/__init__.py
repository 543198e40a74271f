"""Live recording in a window, and the server of the live page (extra `live`)."""
