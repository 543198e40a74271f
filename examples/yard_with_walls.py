"""A game with walls of its own, seen from above, y down: the game moves the body, the helm says what is wanted."""

from wendonic import Event, Helm, profile_from_text
from wendonic.devices.next_control import next_control

YARD = [  # a metre a square
    "#########",
    "#.......#",
    "#..H.H..#",
    "#.......#",
    "#########",
]
RADIUS_M = 0.3
DT = 1 / 60
PROFILE = """
format = "wendonic-profile"
version = 1
[world]
right = "+x"
forward = "-y"
[mode.yard]
steer = { frame = "map", face = "travel" }
[[mode.yard.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
[gait.walk]
top_speed_m_s = 4
accel_m_s2 = 8
brake_m_s2 = 12
"""


class Beekeeper:
    """Who the game moves, by the helm's velocity and as far as the fences allow."""

    def __init__(self, reports: bool) -> None:
        """Begin in the corner of the yard."""
        self.helm = Helm(profile_from_text(PROFILE))
        self.place, self.reports = [2.5, 1.5], reports
        self.helm.place(*self.place)

    def step(self) -> float:
        """Take one frame, tell the helm what came of it, and return where he is along x."""
        velocity = list(self.helm.tick(DT).velocity())
        for axis in (0, 1):
            moved = self.place.copy()
            moved[axis] += velocity[axis] * DT
            if is_free(*moved):
                self.place = moved
            else:
                velocity[axis] = 0.0
        if self.reports:
            self.helm.place(*self.place, velocity=velocity)
        return self.place[0]


def is_free(x: float, y: float) -> bool:
    """Return whether he fits there."""
    corners = [(x + dx, y + dy) for dx in (-RADIUS_M, RADIUS_M) for dy in (-RADIUS_M, RADIUS_M)]
    return all(YARD[int(corner_y)][int(corner_x)] == "." for corner_x, corner_y in corners)


for reports in (False, True):
    keeper = Beekeeper(reports)
    keeper.helm.key("KeyD", down=True)
    at_wall = [keeper.step() for _ in range(180)][-1]
    keeper.helm.key("KeyD", down=False)
    keeper.helm.key("KeyA", down=True)
    ticks = next(tick for tick in range(1, 99) if keeper.step() != at_wall)
    words = "reports position and velocity" if reports else "reports nothing"
    print(f"3 s against the fence at x {at_wall:.2f} m, helm {words}: off it in tick {ticks}")

# A settings menu: the player picks another key for "left", and the game goes on under it.
helm = keeper.helm
control = next_control(Event(0.0, "key.ArrowLeft", 1.0))
helm.retune(helm.profile.changed({"mode.yard.move.bind[0].keys.left": [control]}))
helm.key("KeyA", down=False)
helm.key("ArrowLeft", down=True)
before, after = [keeper.step() for _ in range(30)][-2:]
print(f"{control} for left: {(after - before) / DT:+.2f} m/s along x")
