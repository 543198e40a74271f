"""The channel `move`: merge, diagonal rule, paces, notches, smoothing."""
