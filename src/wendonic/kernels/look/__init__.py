"""The channel `look`: displacements, sticks, rate sensors, pitch limits."""
