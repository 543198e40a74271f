"""The part that a game calls: raw input in, one intent per tick out."""
