"""Exact stimuli, and the probes that have names."""
