"""Comparing profiles, sweeping numbers over a range, and fitting them to targets."""
