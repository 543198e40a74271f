"""A tuned profile as readable source in a game's own language, with proof that it does the same."""
