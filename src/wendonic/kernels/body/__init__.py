"""The body: gait, gravity and jump, ground, walls, slopes, facing, comfort."""
