"""Ramps and smoothing for a page without a server, whose forms are fixed, even if its file has 0 s."""

import contextlib
import re
from collections.abc import Mapping

from wendonic.errors import WendonicError
from wendonic.profile.field_path import path_parts
from wendonic.profile.schema.profile import Profile

LEAST = 1e-9
"""What the page uses instead of 0: too little to make a difference."""

SOFTENERS = ("half_life_s", "rise_s", "fall_s", "ease_s", "diagonal_hold_s", "turn_loss")
"""Numbers of which 0 means none, and the smallest values have no noticeable effect."""


def softened(profile: Profile, values: Mapping[str, float]) -> Profile:
    """Return a profile in which every ramp or smoothing of 0 that could have an effect is LEAST; `values` are all
    numbers by field path. On squares nothing ramps.

    >>> from wendonic.demo import demo_profile
    >>> found = softened(demo_profile(), {"mode.foot.move.half_life_s": 0.0, "gait.walk.accel_m_s2": 22.0})
    >>> found.mode["foot"].move.half_life_s
    1e-09
    """
    on_squares = {name for name, mode in profile.mode.items() if mode.steer.frame == "grid"}
    for path, value in values.items():
        parts = path_parts(path)
        if value == 0.0 and parts[-1] in SOFTENERS and not (parts[0] == "mode" and parts[1] in on_squares):
            # If it conflicts with others, such as a half-life with another filter, it stays 0.
            with contextlib.suppress(WendonicError):
                profile = profile.changed({path: LEAST})
    return profile


def with_least(text: str, indices: frozenset[int]) -> str:
    """Return formulas in JavaScript that use LEAST for a value of 0 at some indices.

    >>> with_least("v[12] > 0.0 && v[1] > v[2]", frozenset({12}))
    '(v[12] || 1e-09) > 0.0 && v[1] > v[2]'
    """

    def least(found: re.Match[str]) -> str:
        return f"({found[0]} || {LEAST})" if int(found[1]) in indices else found[0]

    return re.sub(r"\bv\[(\d+)\]", least, text)
