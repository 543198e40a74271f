"""A game seen from the side: two keys run, a third jumps, up is -y, and lengths are in pixels."""

SHELF_JUMPER = """
format = "wendonic-profile"
version = 1
title = "Shelf jumper"
[world]
right = "+x"
up = "-y"
unit = "px"
units_per_m = 48
[mode.shelf]
gait = "hopper"
steer = { frame = "map", side_view = true }
[[mode.shelf.move.bind]]
keys = { left = ["KeyA"], right = ["KeyD"] }
[mode.shelf.press]
jump = { bind = ["key.Space"], buffer_s = 0.1 }
[gait.hopper]
gravity_u_s2 = 1500
jump = { height_u = 96 }
"""
