"""Mirrored input gives a mirrored walk, in every steer frame, with all that shapes it, on mirrored ground."""

import math
import random

import pytest

from test_every_number import FRAMES, GAITS, everything
from wendonic import Helm
from wendonic.course.course import Course
from wendonic.profile.load import profile_from_text

MIRRORED = {"KeyA": "KeyD", "KeyD": "KeyA", "KeyX": "KeyV", "KeyV": "KeyX"}
KEYS = "KeyW KeyA KeyS KeyD KeyX KeyV KeyI KeyK KeyU KeyN KeyZ Space".split()
NOTCHES = ("notches = 8\nnotch_pull = 0.6", "notches = 8\nnotch_pull = 1", "notches = 6\nnotch_pull = 0.5", "")
DIAGONALS = ('"factor"\ndiagonal_factor = 0.8', '"cap"', '"unit"', '"free"')


def course_of(side):
    """Two ramps, a terrace, a mound and two walls; `side` is 1, or -1 for their mirror image."""

    def edges(left_m, right_m, back_m, forward_m):
        left_m, right_m = sorted((side * left_m, side * right_m))
        return {"left_m": left_m, "right_m": right_m, "back_m": back_m, "forward_m": forward_m}

    up = "right" if side > 0.0 else "left"
    pieces = [
        {"form": "ramp", **edges(1.0, 3.0, 0.5, 4.0), "up": up, "to_height_m": 1.0},
        {"form": "ramp", **edges(-4.0, -1.0, 1.2, 3.0), "up": "forward", "to_height_m": 2.5},
        {"form": "flat", **edges(3.0, 6.0, 0.5, 4.0), "height_m": 1.0},
        {"form": "mound", "at": [side * 0.5, -2.0], "radius_m": 1.0, "height_m": 0.5},
    ]
    walls = [{**edges(-1.4, -0.6, -1.6, -0.5), "height_m": 2}, {**edges(2.2, 2.6, -3.0, -1.5), "height_m": 2}]
    return Course(format="wendonic-course", version=1, piece=pieces, wall=walls)


class Player:
    """Plays two helms at once, the second one mirrored."""

    def __init__(self, frame, profile, rng):
        self.frame, self.rng = frame, rng
        self.helms = [(Helm(profile, course=course_of(side)), side) for side in (1.0, -1.0)]
        self.held = set()

    def keys(self):
        code = self.rng.choice(KEYS)
        self.held ^= {code}
        for helm, side in self.helms:
            helm.key(code if side > 0.0 else MIRRORED.get(code, code), code in self.held)

    def sticks(self):
        for control in ("pad.left_stick", "pad.right_stick", "pad1.left_stick"):
            tilt, angle = self.rng.choice((0.0, self.rng.random(), 1.0)), self.rng.uniform(-math.pi, math.pi)
            x, y = tilt * math.sin(angle), tilt * math.cos(angle)
            for helm, side in self.helms:
                # Of the second pad, x is the throttle and y the turn of a vehicle, and x the rise of a flight.
                axes = (side, 1.0)
                if control == "pad1.left_stick":
                    axes = {"drive": (1.0, side), "fly": (1.0, 1.0)}.get(self.frame, axes)
                helm.stick(control, axes[0] * x, axes[1] * y)

    def others(self, t):
        dx, dy = self.rng.randint(-60, 60), self.rng.randint(-30, 30)
        goal = self.rng.uniform(-4.0, 4.0), self.rng.uniform(-4.0, 4.0)
        moves = self.rng.random() < 0.2
        goes = self.frame == "goto" and self.rng.random() < 0.03
        for helm, side in self.helms:
            if moves:
                helm.mouse(side * dx, dy)
            if goes:
                helm.go_to(side * goal[0], goal[1], 0.0)
            if self.frame == "hands":
                for number, hand in enumerate(("left", "right") if side > 0.0 else ("right", "left")):
                    yaw = side * 0.3 * math.sin(t + number)
                    place = side * (0.3 * number - 0.2), 1.1, 0.3 * math.sin(9.0 * t + 2.0 * number)
                    helm.pose(f"hand.{hand}.pose", place, (0.0, math.sin(yaw), 0.0, math.cos(yaw)))
                    helm.button(f"hand.{hand}.squeeze", t > 0.3)


USUAL = ("drive", "fly")


@pytest.mark.parametrize(
    ("frame", "gait", "seed"),
    [
        pytest.param(
            frame, gait, seed, marks=[] if (gait, seed) == ("rates", 1) and frame in USUAL else [pytest.mark.long]
        )
        for frame in FRAMES
        for gait in GAITS
        for seed in (1, 2)
        if (frame, gait) != ("goto", "keeps")
    ],
)
def test_mirrored_input_gives_a_mirrored_walk(frame, gait, seed):
    """Places and velocities; a body that turns right round turns to the right, in a mirror as well."""
    rng = random.Random(f"{frame} {gait} {seed}")
    text = everything(frame, gait).replace(NOTCHES[0], rng.choice(NOTCHES))
    text = text.replace(DIAGONALS[0], rng.choice(DIAGONALS))
    text = text.replace("half_life_s = 0.03", rng.choice(("half_life_s = 0.03", "")))
    if rng.random() < 0.5:
        text = "\n".join(line for line in text.splitlines() if not line.startswith("pace"))
    player, t = Player(frame, profile_from_text(text), rng), 0.0
    for _ in range(120):
        dt = rng.choice((1 / 60, 1 / 60, 1 / 60, 0.05, 0.013, 0.15))
        if rng.random() < 0.3:
            player.keys()
        if rng.random() < 0.15:
            player.sticks()
        player.others(t)
        t += dt
        one, other = (helm.tick(dt) for helm, _ in player.helms)
        x, y, z, vel_x, vel_y, vel_z, grounded = other.motion
        mirror = (-x, y, z, -vel_x, vel_y, vel_z, grounded)
        assert one.motion == pytest.approx(mirror, abs=1e-6)
        assert (one.device, one.footing) == (other.device, other.footing)
        assert tuple(one.look) == pytest.approx((-other.look.yaw_deg, other.look.pitch_deg), abs=1e-9)
