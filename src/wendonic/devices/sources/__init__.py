"""Sources that feed a channel: one file for each kind, with its reader."""
