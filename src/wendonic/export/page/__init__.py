"""What the live page runs on: tick functions in JavaScript, the numbers they take, and how controls are read."""
