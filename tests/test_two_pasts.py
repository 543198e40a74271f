"""Whatever was played before: from the same place, at rest, with the same numbers, the same follows."""

import math
import random

import pytest

from every_export import number_fields, random_profile, words_known
from wendonic import Event, Helm, WendonicError
from wendonic.export.play_events import Hands, controls_of

REMEMBERS = {"lookout", "headset", "tablet"}
"""Where a motion sensor is known to be off by so much, or where a head is, stays known."""


def played(helm, controls, seed, ticks):
    """Use every control, and return what came of it, tick by tick."""
    rng, found = random.Random(seed), []
    hands = Hands(controls, (0.5,), (), rng)
    for number in range(ticks):
        used = [control.name for control in controls if rng.random() < 0.7]
        for event in hands.events(used, number / 60, 1 / 60):
            helm.apply(event)
        intent = helm.tick(1 / 60)
        view, face = intent.view, math.radians(intent.face_deg)
        presses = [intent.press(name).held for name in helm.profile.mode[helm.mode].press]
        angles = (view.yaw_deg, view.pitch_deg, math.sin(face), math.cos(face))
        found.append([*intent.motion[:6], intent.amount, *angles, *map(float, presses)])
    return found


def happened(helm, other, controls, rng):
    """Let the game do something in between."""
    numbers = [rng.uniform(-3.0, 3.0) for _ in helm.tick(0.0).position()]
    match rng.randrange(6):
        case 0:
            exits = [mode for mode in helm.profile.mode if (helm.mode, mode) in helm._crossings]
            if exits:
                helm.enter(rng.choice(exits))
        case 1:
            helm.retune(other)
        case 2:
            helm.push(*numbers)
        case 3:
            helm.place(*numbers, velocity=numbers)
        case 4:
            helm.restart()
        case 5:
            before = helm.snapshot()
            played(helm, controls, 5, 20)
            helm.restore(before)


def changed_somewhere(profile, rng):
    while True:
        path, value = rng.choice(list(number_fields(profile.file_content())))
        try:
            return profile.changed({path: value * rng.choice((0.5, 1.3))})
        except WendonicError:
            continue


@pytest.mark.long
def test_two_pasts_that_come_to_the_same_rest_have_the_same_future():
    tried, words = 0, words_known()
    for seed in range(60):
        rng = random.Random(seed)
        stem, profile = random_profile(rng, words)
        mode = rng.choice(list(profile.mode))
        # A toggle is on for as long as nobody switches it.
        toggles = [
            f"mode.{name}.press.{press}.style"
            for name, table in profile.mode.items()
            for press, one in table.press.items()
            if one.style == "toggle"
        ]
        profile = profile.changed(dict.fromkeys(toggles, "hold"))
        frames = {table.steer.frame for table in profile.mode.values()}
        if stem in REMEMBERS or frames & {"hands", "goto"}:
            continue
        old, new = Helm(profile, mode=mode), Helm(profile, mode=mode)
        controls = controls_of(old._run.sampler.sources)
        other = changed_somewhere(profile, rng)
        for number in range(rng.randrange(2, 6)):
            played(old, controls, 100 * seed + number, rng.randrange(10, 60))
            happened(old, other, controls, rng)
        old.retune(profile)
        for helm in (old, new):
            helm.apply(Event(0.0, "lost.focus", 1.0))
            for _ in range(1800):
                helm.tick(1 / 60)
        if old.mode != mode:
            continue
        for _ in range(2):
            for helm in (old, new):
                origin = [0.0] * len(helm.tick(1 / 60).position())
                helm.place(*origin, velocity=origin, facing=helm.axes.from_plan(0.0, 1.0))
                helm.apply(Event(0.0, "view", (0.0, 0.0)))
        follows = [played(helm, controls, seed + 2, 120) for helm in (old, new)]
        for tick, (one, same) in enumerate(zip(*follows, strict=True)):
            assert one == pytest.approx(same, abs=1e-6), (seed, stem, mode, tick)
        tried += 1
    assert tried > 20
