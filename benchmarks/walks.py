"""The same walk for everyone who is measured: the shipped pad recording, with keys on top."""

import math
from typing import NamedTuple

import numpy as np

from wendonic import Profile, Recording
from wendonic.batch.run import Run
from wendonic.batch.samples import samples_of
from wendonic.demo import demo_profile, demo_recording
from wendonic.devices.sample_layout import SampleLayout, sample_layout
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import ModeTuning, mode_tuning

HZ = 60.0
NAMES = ("beekeeper_keys", "beekeeper_pad")


class Walk(NamedTuple):
    """Raw numbers per tick, as the batch takes them, and as who writes the maths by hand would: keys (right, left,
    forward, back), stick (right, forward) and the camera's yaw.
    """

    rows: np.ndarray
    by_hand: list[tuple[float, ...]]
    layout: SampleLayout


def walk_profile() -> Profile:
    """Return the beekeeper's profile with nothing but `move`, which is what the ways by hand do, and with ramps and
    smoothing.
    """
    keys = "mode.foot.move.bind[0]"
    softened = {f"{keys}.rise_s": 0.03, f"{keys}.fall_s": 0.02, "mode.foot.move.half_life_s": 0.008}
    return only_move(demo_profile().changed(softened))


def plain_profile() -> Profile:
    """Return it without ramps and smoothing, as it is shipped."""
    return only_move(demo_profile())


def only_move(profile: Profile) -> Profile:
    """Return a profile whose mode on foot has nothing but `move`."""
    foot = profile.mode["foot"]
    steer = foot.steer.model_copy(update={"sectors": None})
    foot = foot.model_copy(update={"look": None, "press": {}, "steer": steer})
    return profile.model_copy(update={"mode": {"foot": foot}})


def both_recordings() -> Recording:
    """Return both shipped recordings at once, so that keys and stick both work in every part of it."""
    events = [event for name in NAMES for event in demo_recording(name) if event.control != "mark"]
    return Recording(sorted(events, key=lambda event: event.t))


def beekeeper_walk() -> Walk:
    """Return the walk's raw numbers, tick by tick."""
    sources = mode_sources(walk_profile(), "foot", None)
    rows = samples_of(both_recordings(), HZ, sources).rows
    layout = sample_layout(sources)
    keys, stick = layout.channels["move"][:2]
    # The view is given now and then and stands until it is given again.
    yaws, yaw = [], 0.0
    for given, new in rows[:, layout.view : layout.view + 2].tolist():
        yaw = new if given else yaw
        yaws.append(yaw)
    by_hand = [
        (*row[keys : keys + 4], *row[stick : stick + 2], yaw) for row, yaw in zip(rows.tolist(), yaws, strict=True)
    ]
    return Walk(np.ascontiguousarray(rows), by_hand, layout)


def beekeeper_tuning(profile: Profile | None = None) -> ModeTuning:
    """Return the numbers of the on-foot mode."""
    return mode_tuning(profile or walk_profile(), "foot", False)


def beekeeper_run(walk: Walk, profile: Profile | None = None) -> Run:
    """Return the on-foot mode ready to run from rest."""
    return Run(beekeeper_tuning(profile), walk.layout.sample, NO_COURSE, "foot")


def c_tuning() -> np.ndarray:
    """Return the same numbers in the order in which the C loop takes them."""
    tuning = beekeeper_tuning().tick
    keys, stick = tuning.move.sources[:2]
    assert math.isclose(tuning.frame.turn_rate, 9.42477796076938)
    gait = tuning.gaits[0]
    return np.array(
        [
            keys.keys.rise_s,
            keys.keys.fall_s,
            stick.stick.dead_zone.inner,
            stick.stick.dead_zone.outer,
            stick.stick.dead_zone.release,
            stick.stick.curve.exponent,
            tuning.move.half_life_s,
            tuning.frame.turn_rate,
            gait.top_speed_m_s,
            gait.accel_m_s2,
            gait.brake_m_s2,
        ]
    )
