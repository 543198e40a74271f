"""What feeds a channel: a file a kind of source, each with its reader."""
