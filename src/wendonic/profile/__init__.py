"""Profiles: one TOML file with every tuned number."""
