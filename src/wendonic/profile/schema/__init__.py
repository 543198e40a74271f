"""What a profile may hold: one file for each table, with its fields, their descriptions, and what `info` says."""
