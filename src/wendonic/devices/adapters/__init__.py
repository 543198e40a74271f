"""Windows of other libraries: their events become ours. Each imports its library inside functions only."""
