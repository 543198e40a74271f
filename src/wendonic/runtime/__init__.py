"""What a game calls: raw input in, one intent a tick out."""
