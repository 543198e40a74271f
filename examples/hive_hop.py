"""A platform game seen from the side, y down: gravity and collisions are the game's, the helm says run and jump."""

import sys

from matplotlib import pyplot

from wendonic import Helm, profile_from_text

LEDGES = [(0, 6, 8.0), (8, 13, 7.0), (15, 20, 6.5)]  # from x to x (m), top at y
DEPTH_M, GRAVITY_M_S2, JUMP_M_S, DT = 12.0, 25.0, 9.0, 1 / 60
PROFILE = """
format = "wendonic-profile"
version = 1
[world]
right = "+x"
up = "-y"
[mode.run]
steer = { frame = "map", side_view = true }
[[mode.run.move.bind]]
keys = { left = ["KeyA"], right = ["KeyD"] }
[mode.run.press]
jump = { bind = ["Space", "pad.south"], buffer_s = 0.12, grace_s = 0.1, air_jumps = 1 }
[gait.walk]
top_speed_m_s = 5
"""
PLAYED = {  # at (s): which keys go down or up
    0.2: [("KeyD", True)],
    1.37: [("Space", True)],  # just over the edge: still given
    1.7: [("Space", False), ("Space", True)],  # once more in the air
    2.42: [("Space", False), ("Space", True)],  # just before landing: waits for the ground
    3.2: [("KeyD", False), ("Space", False)],
    3.6: [("KeyA", True)],  # back over the edge, and down
}


class Keeper:
    """The beekeeper: where he is and how fast is the game's to say."""

    helm = Helm(profile_from_text(PROFILE))

    def respawn(self) -> None:
        """Begin a new life, with nothing of the last one left."""
        self.x, self.y, self.fall_m_s, self.on_ground = 1.0, 8.0, 0.0, True
        self.helm.restart(self.x, self.y)

    def step(self) -> str:
        """Take one frame; return what happened in it."""
        self.helm.ground(self.on_ground)
        intent = self.helm.tick(DT)
        run_m_s, was_on_ground, happened = intent.velocity()[0], self.on_ground, ""
        if intent.press("jump").began:
            self.fall_m_s, happened = -JUMP_M_S, "jump" if was_on_ground else "jump off the ground"
        self.fall_m_s += GRAVITY_M_S2 * DT
        before, self.x, self.y = self.y, self.x + run_m_s * DT, self.y + self.fall_m_s * DT
        tops = [top for left, right, top in LEDGES if left <= self.x <= right and before <= top <= self.y]
        self.on_ground = bool(tops)
        if tops:
            self.y, self.fall_m_s, happened = tops[0], 0.0, "" if was_on_ground else "land"
        self.helm.place(self.x, self.y, velocity=(run_m_s, self.fall_m_s))
        if self.y > DEPTH_M:
            self.respawn()
            happened = "fall, and a new life"
        return happened


keeper = Keeper()
keeper.respawn()
for frame in range(275):
    for code, down in PLAYED.get(round(frame * DT, 2), []):
        keeper.helm.key(code, down)
    if happened := keeper.step():
        print(f"{frame * DT:.2f} s  x {keeper.x:5.2f} m  y {keeper.y:.2f} m  {happened}")
    pyplot.plot(keeper.x, keeper.y, ".", color="#4E7A51")
    pyplot.annotate(happened if "jump" in happened else "", (keeper.x + 0.2, keeper.y))
lefts, rights, tops = zip(*LEDGES, strict=True)
pyplot.hlines(tops, lefts, rights, color="#1F2430")
pyplot.gca().set(xlabel="x (m)", ylabel="y (m), down", ylim=(12.2, 4.0))
if "--picture" in sys.argv:
    pyplot.savefig("hive_hop.png", dpi=200)
