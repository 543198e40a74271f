"""Compiles kernels and the structure of a profile into a tick function: read, fold, inline, tidy, print."""
