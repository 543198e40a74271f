"""Exports a tuned profile as readable source in a game's own language, with test vectors that prove it."""
