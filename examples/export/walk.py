"""A walk by the exported beekeeper: forward, then to the right up to a fence, then no keys; on
the way a puff of smoke.

wendonic export demo-out/beekeeper.toml --as python --out beekeeper_py
PYTHONPATH=beekeeper_py python walk.py
"""

import math

import beekeeper  # type: ignore[import-not-found]

FENCE_X = 2.0

state, given, result = beekeeper.State(), beekeeper.Input(), beekeeper.Result()
for tick in range(1, 121):
    # W is held for a second, D from half a second on; after a second and a half nothing is.
    given.key_w = float(tick <= 60)
    given.key_d = float(30 < tick <= 90)
    # The game says in each tick whether it is held, or only when that changes.
    beekeeper.press_smoke(given, float(45 < tick <= 55))
    beekeeper.step(state, given, 1 / 60, result)
    beekeeper.discard_counts(given)
    if result.smoke_began:
        print(f"{tick / 60:.2f} s: smoke")
    x = min(result.game_position_x, FENCE_X)
    if result.game_position_x > FENCE_X:
        # The game has a fence: it says where the body is, and that its speed to the right is gone.
        beekeeper.place(state, x, result.game_position_y, result.game_position_z)
        beekeeper.set_velocity(state, 0.0, result.game_velocity_y, result.game_velocity_z)
    if tick % 15 == 0:
        place = f"{x:.3f} {result.game_position_y:.3f} {result.game_position_z:.3f}"
        speed = math.hypot(result.game_velocity_x, result.game_velocity_z)
        print(f"{tick / 60:.2f} s: at {place}, {speed:.3f} m/s, facing {result.face_deg:.1f} deg")
