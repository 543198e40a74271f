"""Makes the shipped recordings from stand-ins: `python -m wendonic.demo.make_recordings [FOLDER]`."""

import math
import sys
from pathlib import Path

from wendonic.demo import FOLDER
from wendonic.devices.event import Event
from wendonic.devices.standins import StickStandIn, Stroke, Typist, hand_path
from wendonic.recording.recording import Recording

VIEW_HZ = 60.0


def view_events(keyframes: list[tuple[float, float, float]]) -> list[Event]:
    """Return the camera's way through `keyframes` of (t, yaw_deg, pitch_deg), told of at `VIEW_HZ` while it moves."""
    path = hand_path(keyframes)
    events: list[Event] = []
    last = None
    for frame in range(math.ceil(keyframes[-1][0] * VIEW_HZ) + 1):
        t = round(frame / VIEW_HZ, 6)
        yaw_deg, pitch_deg = path(t)
        view = (round(yaw_deg, 3), round(pitch_deg, 3))
        if view != last:
            events.append(Event(t, "view", view))
            last = view
    return events


def mark_events(marks: dict[float, str]) -> list[Event]:
    """Return the beekeeper's notes."""
    return [Event(t, "mark", text) for t, text in marks.items()]


def joined(title: str, *parts: list[Event]) -> Recording:
    """Return all events in the order of time."""
    return Recording(sorted((event for part in parts for event in part), key=lambda event: event.t), title=title)


def beekeeper_keys() -> Recording:
    """Return 36 s with the keyboard: eight directions, the hives' ring, opposite keys, reversals, hands off."""
    strokes: list[Stroke] = []
    # Once round the compass, a side of the octagon for each direction; diagonals hold two keys.
    for step, codes in enumerate(("W", "WD", "D", "DS", "S", "SA", "A", "AW")):
        start_s = 1.0 + 1.5 * step
        strokes += [Stroke(f"Key{letter}", start_s, start_s + 1.45) for letter in codes]
    # Ahead all the while the camera goes full circle, slipping sideways now and then.
    strokes += [Stroke("KeyW", 14.0, 25.0), Stroke("KeyA", 17.0, 17.8), Stroke("ArrowRight", 21.0, 21.9)]
    # Both opposite pairs at once: ahead with back, then left with right.
    strokes += [Stroke("KeyW", 26.0, 27.4), Stroke("KeyS", 26.7, 28.1)]
    strokes += [Stroke("KeyA", 28.4, 29.6), Stroke("KeyD", 29.0, 30.2)]
    # Fast reversals, dodging bees.
    strokes += [Stroke("KeyA" if turn % 2 else "KeyD", 30.5 + 0.22 * turn, 30.7 + 0.22 * turn) for turn in range(8)]
    marks = {
        1.0: "round the smoker bench, eight ways",
        14.0: "along the ring of hives, camera full circle",
        26.0: "both opposite pairs at once",
        30.5: "dodging bees",
        33.0: "hands off",
        36.0: "end",
    }
    view = view_events([(0.0, 0.0, -8.0), (14.0, 0.0, -8.0), (19.5, 180.0, -35.0), (25.0, 360.0, -8.0)])
    return joined(
        "Beekeeper with keys, once round the hives", view, Typist(seed=11).events(strokes), mark_events(marks)
    )


def beekeeper_pad() -> Recording:
    """Return 36 s with a worn 8-bit pad: partial tilts, once round the rim, the hives' ring, reversals, hands off."""
    hand = [(0.0, 0.0, 0.0), (1.5, 0.0, 0.0)]
    # Slow partial tilts: ahead, right, back, left, each a third of the way or half of it and slowly home.
    for step, (right, ahead) in enumerate(((0.0, 0.35), (0.5, 0.0), (0.0, -0.6), (-0.75, 0.0))):
        start_s = 1.5 + 2.5 * step
        hand += [(start_s + 1.0, right, ahead), (start_s + 1.6, right, ahead), (start_s + 2.5, 0.0, 0.0)]
    # Once round the rim at full tilt.
    hand += [
        (12.0 + 3.2 * turn / 32, math.sin(math.tau * turn / 32), math.cos(math.tau * turn / 32)) for turn in range(33)
    ]
    # Full tilt ahead while the camera goes full circle.
    hand += [(26.0, 0.0, 1.0), (26.4, 0.0, 0.0), (26.8, 0.0, 0.0)]
    # Fast reversals.
    for turn in range(8):
        side = 1.0 if turn % 2 else -1.0
        hand += [(26.95 + 0.35 * turn, side, 0.0), (27.15 + 0.35 * turn, side, 0.0)]
    hand += [(30.0, 0.0, 0.0)]
    marks = {
        1.5: "slow tilts between the boxes",
        12.0: "once round the rim",
        15.2: "along the ring of hives, camera full circle",
        26.8: "dodging bees",
        30.0: "hands off",
        36.0: "end",
    }
    stick = StickStandIn(
        rest=(0.031, -0.024), noise=0.004, rim_power=2.3, rim_reach=0.985, bits=8, poll_hz=125, seed=12
    )
    view = view_events([(0.0, 0.0, -8.0), (15.2, 0.0, -8.0), (20.6, 180.0, -35.0), (26.0, 360.0, -8.0)])
    return joined(
        "Beekeeper with a worn pad, once round the hives",
        view,
        stick.events(hand_path(hand), 0.0, 36.0),
        mark_events(marks),
    )


MAKERS = {"beekeeper_keys": beekeeper_keys, "beekeeper_pad": beekeeper_pad}


def main(folder: Path = FOLDER) -> None:
    """Write every recording into `folder`."""
    for name, make in MAKERS.items():
        make().write(folder / f"{name}.jsonl")


if __name__ == "__main__":
    main(*map(Path, sys.argv[1:2]))
