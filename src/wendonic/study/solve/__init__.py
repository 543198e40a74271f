"""Comparing profiles, sweeping settings over a range, and fitting them to targets."""
