"""From kernels and the structure of a profile to a tick function: read, fold, inline, tidy, print."""
