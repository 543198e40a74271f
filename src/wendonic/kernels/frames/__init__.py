"""Steer frames: a file each, with one signature."""
