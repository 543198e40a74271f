"""Exact stimuli: what they press or tilt, and the probes that have names."""
