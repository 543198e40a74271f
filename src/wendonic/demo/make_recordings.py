"""Makes the shipped recordings from stand-ins: `python -m wendonic.demo.make_recordings [FOLDER]`."""

import math
import sys
from pathlib import Path
from tempfile import TemporaryDirectory

from wendonic.atomic_file import atomic_file
from wendonic.demo import CAPTURE_PATH, FOLDER, demo_profile
from wendonic.devices.event import Event
from wendonic.devices.standins import (
    GyroStandIn,
    HandsStandIn,
    MouseStandIn,
    StickStandIn,
    Stroke,
    TouchStandIn,
    TrackingLoss,
    Typist,
    hand_path,
)
from wendonic.devices.standins.hand import HandPath
from wendonic.recording.linux_capture import linux_capture
from wendonic.recording.recording import Recording
from wendonic.runtime.helm import Helm

VIEW_HZ = 60.0

FENCE_M = 9.0
"""How far ahead the fence of the rounds is."""


def view_events(keyframes: list[tuple[float, float, float]]) -> list[Event]:
    """Return the camera's path through `keyframes` of (t, yaw_deg, pitch_deg), at `VIEW_HZ` while it moves."""
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
    # Once round the compass, one side of an octagon in each direction; diagonals hold two keys.
    for step, codes in enumerate(("W", "WD", "D", "DS", "S", "SA", "A", "AW")):
        start_s = 1.0 + 1.5 * step
        strokes += [Stroke(f"Key{letter}", start_s, start_s + 1.45) for letter in codes]
    # Forward while the camera turns a full circle, with short steps sideways.
    strokes += [Stroke("KeyW", 14.0, 25.0), Stroke("KeyA", 17.0, 17.8), Stroke("ArrowRight", 21.0, 21.9)]
    # Both opposite pairs: forward with back, then left with right.
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
    # Slow partial tilts: forward, right, back, left, each a third or a half, and slowly back.
    for step, (right, forward) in enumerate(((0.0, 0.35), (0.5, 0.0), (0.0, -0.6), (-0.75, 0.0))):
        start_s = 1.5 + 2.5 * step
        hand += [(start_s + 1.0, right, forward), (start_s + 1.6, right, forward), (start_s + 2.5, 0.0, 0.0)]
    # Once round the rim at full tilt.
    hand += [
        (12.0 + 3.2 * turn / 32, math.sin(math.tau * turn / 32), math.cos(math.tau * turn / 32)) for turn in range(33)
    ]
    # Full tilt forward while the camera turns a full circle.
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


def beekeeper_mouse() -> Recording:
    """Return 20 s with keyboard and mouse: looking round, jumps, a sprint, smoke, frames lifted by the wheel."""
    strokes = [
        Stroke("KeyW", 1.0, 6.5),
        Stroke("KeyD", 3.0, 4.2),
        Stroke("ShiftLeft", 4.4, 4.6),
        Stroke("Space", 5.2, 5.35),
        Stroke("ShiftLeft", 7.0, 7.2),
        Stroke("KeyW", 9.0, 14.0),
        Stroke("Space", 10.0, 10.1),
        Stroke("Space", 10.5, 10.6),
        Stroke("KeyA", 12.0, 13.5),
        Stroke("KeyW", 15.0, 19.0),
    ]
    mouse = MouseStandIn(counts_per_inch=800, poll_hz=250, tremor_mm=0.03, seed=14)
    looks = mouse.swipe(cm=8.5, start_s=2.0, duration_s=0.5)
    looks += mouse.swipe(cm=3.0, start_s=5.0, duration_s=0.4, direction_deg=0.0)
    looks += mouse.swipe(cm=17.0, start_s=9.5, duration_s=1.2, direction_deg=270.0)
    looks += mouse.swipe(cm=12.0, start_s=15.5, duration_s=0.9, direction_deg=100.0)
    clicks = [Event(t, "mouse.left", down) for t, down in ((7.4, 1.0), (8.1, 0.0), (14.2, 1.0), (14.6, 0.0))]
    wheel = [Event(round(8.2 + 0.15 * notch, 6), "mouse.wheel", 1.0) for notch in range(4)]
    wheel += [Event(14.8, "mouse.wheel", -1.0)]
    loss = [Event(18.0, "lost.focus", 1.0)]
    marks = mark_events({1.0: "down to the hives", 7.4: "smoke, then four frames", 18.0: "somebody at the door"})
    typed = [event for event in Typist(seed=13).events(strokes) if event.t < 18.0]
    return joined("Beekeeper with keys and mouse", typed, looks, clicks, wheel, loss, marks)


def tablet_walk() -> Recording:
    """Return 12 s on a tablet: the left thumb walks, the right one looks and taps."""
    left = TouchStandIn(finger=0, poll_hz=60, noise=0.0004, seed=15)
    right = TouchStandIn(finger=1, poll_hz=60, noise=0.0004, seed=16)
    walks = left.events(
        hand_path([(1.0, 0.2, 0.7), (1.4, 0.2, 0.52), (3.0, 0.21, 0.5), (4.0, 0.32, 0.55), (5.0, 0.2, 0.75)]),
        1.0,
        5.5,
    )
    walks += left.events(hand_path([(6.5, 0.15, 0.6), (7.0, 0.15, 0.4), (9.5, 0.3, 0.35)]), 6.5, 9.8)
    looks = right.drag((0.6, 0.4), (0.9, 0.35), t=2.0, duration_s=0.8)
    looks += right.drag((0.9, 0.3), (0.5, 0.5), t=7.0, duration_s=1.0)
    taps = [*right.tap(0.9, 0.85, t=3.5), *right.tap(0.9, 0.85, t=10.2), *right.tap(0.91, 0.84, t=10.4)]
    marks = mark_events({1.0: "thumb lands", 10.2: "two taps: jump", 12.0: "end"})
    return joined("Beekeeper on a tablet", walks, looks, taps, marks)


def headset_walk() -> Recording:
    """Return 12 s with a headset: both smokers swung, the left one out of sight for a while, two snap turns, three
    puffs, a place pointed at, and a step into the wall of the shed."""
    hands = HandsStandIn(cadence_hz=0.9, amplitude_m=0.28, tremor_m=0.0015, poll_hz=60, seed=17)
    walk = hands.walk(1.0, 7.0, losses=[TrackingLoss("hand.left", 3.5, 4.3)])
    puffs = [
        Event(round(start_s + share * 0.2, 6), "hand.right.trigger", pull)
        for start_s in (2.0, 5.0, 7.3)
        for share, pull in ((0.0, 0.3), (0.3, 0.8), (0.6, 1.0), (0.9, 0.5), (1.0, 0.0))
    ]
    turns = [
        Event(t, "hand.right.stick", (x, 0.0))
        for t, x in ((2.6, 0.9), (2.8, 0.5), (2.9, 0.0), (5.2, -0.95), (5.4, 0.0), (5.7, -0.95), (5.9, 0.0))
    ]
    beam = [Event(7.6, "hand.right.lower", 1.0), Event(8.4, "hand.right.lower", 0.0)]
    # A step to the side of the room, into the wall, and back out of it too late.
    lean = hand_path([(9.0, 0.0, 0.0), (9.6, 0.9, 0.0), (11.2, 0.9, 0.0), (11.8, 0.0, 0.0)])
    steps = [
        Event(t, "head.pose", (round(lean(t)[0], 4), 1.65, 0.0, 0.0, 0.0, 0.0, 1.0))
        for t in (round(9.0 + poll / 60.0, 6) for poll in range(169))
    ]
    marks = {1.0: "swinging", 3.5: "left hand unseen", 7.6: "pointing", 9.0: "a step aside", 12.0: "end"}
    return joined("Walking by swinging the two smokers", walk, puffs, turns, beam, steps, mark_events(marks))


def scout_flight() -> Recording:
    """Return 14 s as the scout bee: climbs, dives, opposite keys in every order, taps and long presses."""
    strokes = [
        Stroke("Space", 0.5, 2.0),
        Stroke("KeyC", 1.5, 2.6),
        Stroke("KeyW", 1.0, 6.0),
        Stroke("KeyA", 2.0, 3.5),
        Stroke("KeyD", 2.6, 3.1),
        Stroke("KeyA", 4.0, 4.6),
        Stroke("KeyD", 4.3, 5.4),
        Stroke("KeyS", 5.0, 5.5),
        Stroke("KeyE", 6.5, 6.6),
        Stroke("KeyE", 7.0, 7.9),
        Stroke("ControlLeft", 8.4, 9.2),
        Stroke("KeyH", 8.7, 8.9),
    ]
    stick = StickStandIn("pad.left_stick", rest=(0.02, 0.01), noise=0.003, bits=8, poll_hz=60, seed=18)
    flight = stick.events(
        hand_path([(9.0, 0.0, 0.0), (9.8, 0.6, 0.8), (11.5, -0.7, 0.6), (12.5, 0.0, 0.0)]), 9.0, 14.0
    )
    turning = StickStandIn("pad.right_stick", rest=(-0.01, 0.0), noise=0.002, bits=8, poll_hz=60, seed=19)
    turns = turning.events(hand_path([(9.5, 0.0, 0.0), (10.5, 0.9, 0.3), (11.5, 0.0, 0.0)]), 9.0, 14.0)
    pull = hand_path([(10.0, 0.0, 0.0), (10.8, 1.0, 0.0), (11.6, 0.0, 0.0), (12.4, 0.0, 1.0), (13.2, 0.0, 0.0)])
    triggers: list[Event] = []
    for poll in range(240):
        t = round(10.0 + poll / 60.0, 6)
        triggers += [
            Event(t, f"pad.{side}_trigger", round(level, 4))
            for side, level in zip(("right", "left"), pull(t), strict=True)
        ]
    changes = [
        event
        for before, event in zip([*triggers[:2], *triggers], triggers, strict=False)
        if before.value != event.value
    ]
    marks = mark_events({0.5: "up over the orchard", 2.0: "left against right", 9.0: "with the pad", 14.0: "end"})
    return joined("Scout bee over the orchard", Typist(seed=20).events(strokes), flight, turns, changes, marks)


def store_room_walk() -> Recording:
    """Return 14 s in the store room: reversals, a crate carried, the stick along its square rim and on a border."""
    strokes = [
        Stroke("KeyD", 0.5, 2.0),
        Stroke("KeyA", 1.4, 2.6),
        Stroke("KeyD", 2.65, 3.4),
        Stroke("KeyA", 3.42, 4.2),
        Stroke("KeyW", 4.5, 7.0),
        Stroke("KeyD", 5.0, 6.0),
        Stroke("Space", 5.5, 6.6),
    ]
    rim = [(1.0, 0.0), (1.0, 1.0), (0.0, 1.0), (-1.0, 1.0), (-1.0, 0.0), (-1.0, -1.0), (0.0, -1.0), (1.0, -1.0)]
    hand = [(7.5, 0.0, 0.0)] + [(8.0 + 0.3 * step, *place) for step, place in enumerate([*rim, rim[0]])]
    # Held on the border between two facings, and between two paces.
    hand += [(10.8, 0.0, 0.0), (11.0, 0.52, 0.52), (12.4, 0.52, 0.52), (12.6, 0.0, 0.0)]
    stick = StickStandIn(rest=(0.01, -0.01), noise=0.012, rim_power=40.0, bits=8, poll_hz=60, seed=24)
    pad = [Event(9.2, "pad.dpad_left", 1.0), Event(9.9, "pad.dpad_left", 0.0)]
    marks = mark_events({0.5: "left against right", 5.5: "with a crate", 11.0: "on the border", 14.0: "end"})
    typed = Typist(seed=25).events(strokes)
    return joined("Crates in the store room", typed, stick.events(hand_path(hand), 7.4, 13.0), pad, marks)


def lookout_watch() -> Recording:
    """Return 16 s on the lookout: the pad on the table, turned in a tilted grip, the mouse, the stick at its rim."""
    pad = GyroStandIn(bias=(0.02, -0.015, 0.01), noise=0.002, accel_noise=0.05, roll_deg=25.0, poll_hz=125, seed=26)
    turned = hand_path(
        [(2.5, 0.0, 0.0), (3.3, 25.0, 4.0), (3.6, 25.0, 4.0), (4.4, 0.0, 0.0), (5.2, -20.0, -6.0), (6.0, -20.0, -6.0)]
    )
    buttons = [Event(3.55, "pad.right_bumper", 1.0), Event(4.5, "pad.right_bumper", 0.0)]
    buttons += [Event(7.6, "mouse.right", 1.0), Event(9.2, "mouse.right", 0.0)]
    mouse = MouseStandIn(counts_per_inch=800, poll_hz=125, tremor_mm=0.03, seed=27)
    swipes = mouse.swipe(cm=5.0, start_s=6.5, duration_s=0.15) + mouse.swipe(cm=5.0, start_s=6.8, duration_s=0.8)
    swipes += mouse.swipe(cm=4.0, start_s=7.8, duration_s=0.4, direction_deg=300.0)
    look = StickStandIn("pad.right_stick", noise=0.003, bits=8, poll_hz=60, seed=28)
    tilts = hand_path([(9.5, 0.0, 0.0), (9.7, 1.0, 0.0), (11.0, 1.0, 0.0), (11.2, -0.4, 0.2), (12.0, 0.0, 0.0)])
    walk = StickStandIn(rest=(0.031, -0.024), noise=0.004, rim_power=2.3, bits=8, poll_hz=60, seed=29)
    steps = hand_path([(12.0, 0.0, 0.0), (12.6, 0.2, 0.5), (13.6, 0.9, 0.4), (14.2, -0.8, 0.5), (14.8, 0.0, 0.0)])
    finger = TouchStandIn(finger=0, poll_hz=60, noise=0.0003, seed=30)
    drag = finger.drag((0.6, 0.5), (0.85, 0.45), t=15.0, duration_s=0.5)
    typed = Typist(seed=31).events([Stroke("KeyW", 13.0, 14.0), Stroke("KeyD", 13.5, 14.4)])
    marks = mark_events(
        {0.0: "pad on the table", 2.5: "held at a slant", 6.5: "quick, then slow", 7.6: "aiming", 16.0: "end"}
    )
    return joined(
        "On the lookout with an old pad",
        pad.events(turned, 0.0, 6.2),
        buttons,
        swipes,
        look.events(tilts, 9.4, 12.1),
        walk.events(steps, 11.8, 15.0),
        drag,
        typed,
        marks,
    )


def lookout_devices() -> Recording:
    """Return 38 s to calibrate by: both sticks free, round their rims, and released ten times, three swipes of 20 cm,
    the pad at rest.
    """
    sticks = []
    for name, start_s, rest, power in (("left", 6.0, (0.031, -0.018), 2.4), ("right", 13.0, (-0.012, 0.022), 2.0)):
        control = f"pad.{name}_stick"
        faults = {"rim_power": power, "rim_reach": 0.96, "scatter": 0.01}
        stick = StickStandIn(control, rest, 0.004, bits=10, poll_hz=60, seed=51, **faults)
        sticks.append(stick.events(_rim_and_pushes(start_s, 20.0), 0.0, 34.0))
    mouse = MouseStandIn(counts_per_inch=792, poll_hz=125, seed=53)
    swipes = [mouse.swipe(cm=20.0, start_s=34.2 + 1.2 * k, duration_s=0.5) for k in range(3)]
    pad = GyroStandIn(bias=(0.012, -0.007, 0.003), noise=0.004, accel_noise=0.02, poll_hz=60, seed=54)
    lies = pad.events(lambda _: (0.0, 0.0), 0.0, 5.0)
    marks = {0.0: "hands off", 6.0: "left rim", 13.0: "right rim", 20.0: "let go ten times", 34.2: "swipes of 20 cm"}
    marks[38.0] = "end"
    return joined("Devices of the lookout", *sticks, *swipes, lies, mark_events(marks))


def _rim_and_pushes(start_s: float, pushes_s: float) -> HandPath:
    """Return a hand that takes a stick to its rim, three times round it, and lets it go; and later pushes it aside
    ten times, each time in another direction.
    """

    def hand(t: float) -> tuple[float, float]:
        number, since = divmod(t - pushes_s, 1.4)
        if 0.0 <= number < 10.0:
            tilt = min(since / 0.1, max((0.3 - since) / 0.05, 0.0), 1.0)
            return tilt * math.sin(2.4 * number), tilt * math.cos(2.4 * number)
        since = t - start_s
        tilt = min(max(since / 0.3, 0.0), max((6.9 - since) / 0.3, 0.0), 1.0)
        angle = math.tau * min(max(since - 0.3, 0.0), 6.3) / 2.1
        return tilt * math.sin(angle), tilt * math.cos(angle)

    return hand


def terraces_walk() -> Recording:
    """Return 20 s on the terraces: up the slope, against the bank, up the path beside it, and down the bank."""
    strokes = [
        Stroke("KeyW", 0.5, 5.4),
        Stroke("KeyA", 4.6, 7.6),
        Stroke("KeyW", 7.4, 10.2),
        Stroke("KeyD", 10.0, 12.6),
        Stroke("KeyS", 12.4, 15.4),
        Stroke("KeyD", 15.2, 18.0),
        Stroke("KeyS", 17.0, 18.6),
    ]
    view = view_events([(0.0, 0.0, -20.0), (12.0, 0.0, -20.0), (13.0, 15.0, -30.0), (20.0, 15.0, -30.0)])
    marks = {
        0.5: "up the slope",
        4.0: "the bank is too steep",
        7.4: "up the path",
        12.7: "down the bank",
        20.0: "end",
    }
    return joined("Up and down the terraces", view, Typist(seed=32).events(strokes), mark_events(marks))


def harvest_run() -> Recording:
    """Return 20 s of harvest: up onto a terrace and down again, over the hives, along the shed, and to the fence."""
    strokes = [
        Stroke("KeyW", 0.5, 4.4),
        Stroke("Space", 2.2, 2.8),
        Stroke("KeyD", 4.6, 6.6),
        Stroke("KeyS", 6.4, 7.0),
        Stroke("KeyD", 7.2, 8.1),
        Stroke("KeyS", 8.3, 12.0),
        Stroke("Space", 10.1, 10.5),
        Stroke("ShiftLeft", 12.4, 15.6),
        Stroke("KeyA", 12.6, 15.6),
        Stroke("Space", 13.2, 13.25),
        Stroke("Space", 14.4, 14.8),
        Stroke("KeyC", 16.0, 18.6),
        Stroke("KeyW", 16.2, 18.0),
    ]
    marks = {
        2.2: "up the terrace",
        4.6: "along the shed",
        10.1: "onto the hives",
        12.4: "run to the fence",
        20.0: "end",
    }
    return joined("Harvest day", Typist(seed=61).events(strokes), mark_events(marks))


def smoker_rounds() -> Recording:
    """Return 14 s along the hives: strafing in a ring round one while the mouse keeps it in view, then back off."""
    strokes = [
        Stroke("KeyW", 0.5, 2.0),
        Stroke("KeyA", 2.4, 8.4),
        Stroke("KeyW", 8.8, 10.2),
        Stroke("KeyD", 9.4, 11.0),
        Stroke("KeyS", 11.2, 13.2),
    ]
    mouse = MouseStandIn(counts_per_inch=800, poll_hz=125, tremor_mm=0.03, seed=34)
    ring = mouse.swipe(cm=30.0, start_s=2.4, duration_s=6.0)
    ring += mouse.swipe(cm=9.0, start_s=9.0, duration_s=0.6, direction_deg=270.0)
    marks = {0.5: "to the hive", 2.4: "once round it", 8.8: "off to the side", 11.2: "backing off", 14.0: "end"}
    return joined("Round a hive with the smoker", Typist(seed=33).events(strokes), ring, mark_events(marks))


def cart_ride() -> Recording:
    """Return 22 s in the honey cart: a start, a curve to each side, a full circle, backing out of it, and a turn at
    rest, which has no effect.
    """
    strokes = [
        Stroke("KeyW", 0.5, 8.4),
        Stroke("KeyD", 1.8, 2.8),
        Stroke("KeyA", 3.4, 4.6),
        Stroke("KeyD", 5.4, 8.2),
        Stroke("KeyS", 10.0, 13.0),
        Stroke("KeyD", 10.6, 12.4),
        Stroke("KeyA", 14.6, 15.4),
    ]
    stick = StickStandIn(rest=(0.01, 0.0), noise=0.003, bits=8, poll_hz=60, seed=36)
    turns = stick.events(
        hand_path([(16.0, 0.0, 0.0), (17.0, 0.8, 0.0), (18.6, 0.8, 0.0), (19.4, -0.6, 0.0), (20.6, 0.0, 0.0)]),
        15.8,
        21.0,
    )
    pull = hand_path([(16.0, 0.0, 0.0), (16.8, 1.0, 0.0), (20.2, 1.0, 0.0), (20.8, 0.0, 0.0)])
    trigger = [
        Event(round(16.0 + k / 60.0, 6), "pad.right_trigger", round(pull(16.0 + k / 60.0)[0], 4)) for k in range(300)
    ]
    steady = [
        now for before, now in zip([None, *trigger], trigger, strict=False) if not before or before.value != now.value
    ]
    marks = {
        0.5: "off",
        5.4: "once round",
        10.0: "backing",
        14.6: "a turn at rest",
        16.0: "with the pad",
        22.0: "end",
    }
    return joined("A ride in the honey cart", Typist(seed=35).events(strokes), turns, steady, mark_events(marks))


def apiary_rounds() -> Recording:
    """Return 24 s of a game with a fence 9 m ahead that only the game knows: to the hives, bent over a frame, up to
    the fence, into the cart, round the yard and out of it; a ram's knock on the way. The helm recorded it.
    """
    strokes = [
        Stroke("KeyW", 0.5, 7.0),
        Stroke("KeyE", 8.0, 8.12),
        Stroke("KeyS", 8.6, 11.0),
        Stroke("KeyW", 11.6, 18.0),
        Stroke("KeyD", 12.0, 15.4),
        Stroke("KeyE", 19.2, 19.3),
        Stroke("KeyD", 20.0, 22.4),
    ]
    held = [Event(2.5, "mouse.right", 1.0), Event(4.5, "mouse.right", 0.0)]
    swipe = MouseStandIn(counts_per_inch=800, poll_hz=125, seed=37).swipe(cm=1.5, start_s=2.8, duration_s=0.8)
    marks = {
        0.0: "to the hives",
        2.5: "bent over a frame",
        5.5: "a knock by the ram",
        8.0: "into the cart",
        19.2: "out of it",
        24.0: "hands off",
    }
    given = joined("", Typist(seed=38).events(strokes), held, swipe, mark_events(marks))
    helm = Helm(demo_profile("rounds"))
    with TemporaryDirectory() as folder:
        with helm.record(Path(folder) / "rounds.jsonl", "Rounds of the apiary, as a game recorded them") as recorder:
            place = helm.tick(0.0).position()
            for number, (_, events) in enumerate(given.ticks(VIEW_HZ)):
                for event in events:
                    helm.apply(event)
                if number == round(5.5 * VIEW_HZ):
                    helm.push(2.5, 0.0, 0.0)
                intent = helm.tick(1.0 / VIEW_HZ)
                place = tuple(at + speed / VIEW_HZ for at, speed in zip(place, intent.velocity(), strict=True))
                if place[2] < -FENCE_M:
                    place = (place[0], place[1], -FENCE_M)
                    helm.place(*place)
                    helm.contact(0.0, 0.0, 1.0)
        return Recording.read(recorder.path)


def crates_push() -> Recording:
    """Return 12 s in the store room: a held direction, taps, a press during a step, a corner, a shelf in the way."""
    strokes = [
        Stroke("KeyD", 0.5, 1.9),
        Stroke("KeyW", 2.4, 2.45),
        Stroke("KeyW", 2.9, 2.95),
        Stroke("KeyD", 3.0, 3.06),
        Stroke("KeyW", 3.6, 5.2),
        Stroke("KeyA", 4.3, 6.05),
        Stroke("KeyS", 6.8, 6.84),
        Stroke("KeyD", 7.2, 8.4),
        Stroke("KeyS", 8.8, 9.9),
    ]
    dpad = [Event(t, "pad.dpad_left", down) for t, down in ((10.3, 1.0), (10.36, 0.0), (10.7, 1.0), (11.3, 0.0))]
    marks = {0.5: "held on", 2.4: "taps", 3.6: "round the corner", 7.2: "against the shelf", 12.0: "end"}
    return joined("Crates pushed square by square", Typist(seed=37).events(strokes), dpad, mark_events(marks))


def orchard_errands() -> Recording:
    """Return 24 s on the plan: a far place, a near one, a change of mind on the way, a key, the pointer dragged, a
    finger."""
    clicks = [(0.5, 0.78, 0.3), (6.0, 0.8, 0.42), (8.0, 0.3, 0.2), (10.0, 0.25, 0.8), (15.2, 0.6, 0.75)]
    pointed: list[Event] = []
    for t, x, y in clicks:
        pointed += [
            Event(t, "pointer.at", (x, y)),
            Event(t, "mouse.left", 1.0),
            Event(round(t + 0.1, 6), "mouse.left", 0.0),
        ]
    dragged = [Event(round(17.0 + 0.02 * k, 6), "pointer.at", (round(0.6 - 0.004 * k, 4), 0.75)) for k in range(51)]
    dragged += [Event(17.0, "mouse.left", 1.0), Event(18.05, "mouse.left", 0.0)]
    finger = TouchStandIn(finger=0, poll_hz=60, noise=0.0003, seed=39).tap(0.55, 0.5, t=20.5)
    typed = Typist(seed=38).events([Stroke("KeyD", 13.6, 14.6)])
    marks = {0.5: "far", 6.0: "near", 10.0: "a change of mind", 13.6: "by hand", 17.0: "dragged", 24.0: "end"}
    return joined(
        "Errands on the orchard plan",
        pointed,
        sorted(dragged, key=lambda event: event.t),
        finger,
        typed,
        mark_events(marks),
    )


def beekeeper_capture() -> bytes:
    """Return 4 s of keyboard, mouse and pad as the kernel of Linux hands them out."""
    typed = Typist(seed=21).events([Stroke("KeyW", 0.2, 1.5), Stroke("KeyD", 0.8, 1.2), Stroke("Space", 1.0, 1.1)])
    swipe = MouseStandIn(poll_hz=125, seed=22).swipe(cm=6.0, start_s=1.5, duration_s=0.5)
    stick = StickStandIn(rest=(0.02, -0.02), noise=0.003, bits=8, poll_hz=60, seed=23)
    tilted = stick.events(hand_path([(2.2, 0.0, 0.0), (2.8, 0.6, 0.8), (3.4, 0.0, 0.0)]), 2.0, 4.0)
    buttons = [Event(3.5, "mouse.left", 1.0), Event(3.6, "mouse.left", 0.0), Event(3.7, "mouse.wheel", 1.0)]
    buttons += [Event(2.4, "pad.south", 1.0), Event(2.5, "pad.south", 0.0)]
    events = [event for part in (typed, swipe, tilted, buttons) for event in part]
    return linux_capture(sorted(events, key=lambda event: event.t))


MAKERS = {
    "beekeeper_keys": beekeeper_keys,
    "beekeeper_pad": beekeeper_pad,
    "beekeeper_mouse": beekeeper_mouse,
    "tablet_walk": tablet_walk,
    "headset_walk": headset_walk,
    "scout_flight": scout_flight,
    "store_room_walk": store_room_walk,
    "lookout_watch": lookout_watch,
    "lookout_devices": lookout_devices,
    "terraces_walk": terraces_walk,
    "harvest_run": harvest_run,
    "smoker_rounds": smoker_rounds,
    "cart_ride": cart_ride,
    "apiary_rounds": apiary_rounds,
    "crates_push": crates_push,
    "orchard_errands": orchard_errands,
}


def main(folder: Path = FOLDER) -> None:
    """Write every recording, and the capture, into `folder`."""
    for name, make in MAKERS.items():
        make().write(folder / f"{name}.jsonl")
    with atomic_file(folder / CAPTURE_PATH.name) as beside:
        beside.write_bytes(beekeeper_capture())


if __name__ == "__main__":
    main(*map(Path, sys.argv[1:2]))
