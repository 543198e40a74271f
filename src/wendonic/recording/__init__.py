"""Recordings: a log of events, in memory and on disk."""
