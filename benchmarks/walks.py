"""The same walk for everyone who is measured: the shipped pad recording, with keys on top."""

import math
from typing import NamedTuple

import numpy as np
from wendonic.kernels.places import MOVE_WIDTH

from wendonic import Profile, Recording
from wendonic.batch import Shaper, sampled
from wendonic.demo import demo_profile, demo_recording
from wendonic.devices.sampler import Sampler
from wendonic.profile.bindings import mode_sources
from wendonic.profile.tuning import mode_tuning

HZ = 60.0
NAMES = ("beekeeper_keys", "beekeeper_pad")


class Walk(NamedTuple):
    """Raw numbers per tick: the rows that the batch takes."""

    samples: np.ndarray
    views: np.ndarray
    dts: np.ndarray


def walk_profile() -> Profile:
    """Return the beekeeper's profile with nothing but `move`, which is what the ways by hand do."""
    profile = demo_profile()
    foot = profile.mode["foot"]
    steer = foot.steer.model_copy(update={"sectors": None})
    foot = foot.model_copy(update={"look": None, "press": {}, "steer": steer})
    return profile.model_copy(update={"mode": {"foot": foot}})


def beekeeper_walk() -> Walk:
    """Return both shipped recordings at once, so that keys and stick both work in every part of it."""
    events = [event for name in NAMES for event in demo_recording(name) if event.control != "mark"]
    both = Recording(sorted(events, key=lambda event: event.t))
    (stretch,) = sampled(both, HZ, Sampler(mode_sources(walk_profile(), "foot")))
    shaper = Shaper(walk_profile(), "foot")
    views = np.ascontiguousarray(shaper.run(stretch).looks[:, -2:])
    return Walk(np.ascontiguousarray(stretch.samples[:, :MOVE_WIDTH]), views, stretch.dts)


def beekeeper_tuning():
    """Return the numbers of the on-foot mode."""
    return mode_tuning(walk_profile(), "foot").tick


def c_tuning(tuning) -> np.ndarray:
    """Return the same numbers in the order in which the C loop takes them."""
    keys, stick = tuning.move.sources[:2]
    assert math.isclose(tuning.steer.turn_rate, 9.42477796076938)
    return np.array(
        [
            keys.rise_s,
            keys.fall_s,
            stick.inner,
            stick.outer,
            stick.curve_exponent,
            tuning.move.half_life_s,
            tuning.steer.turn_rate,
            tuning.gait.top_speed_m_s,
            tuning.gait.accel_m_s2,
            tuning.gait.brake_m_s2,
        ]
    )
