"""Steer frames: a file each, with its integer, its fields, its numbers and its sentence."""
