"""Estimates from a recording how its devices behave, with confidence intervals."""
