"""The languages that a profile is printed in."""
