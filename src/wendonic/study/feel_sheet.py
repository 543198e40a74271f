"""The feel sheet: a profile's feel in milliseconds, metres, degrees and ratios, as probes measure it."""

import math
import random
from collections.abc import Collection
from typing import Any, NamedTuple

import numpy as np

from wendonic.batch import Engine, shape
from wendonic.devices.event import Event
from wendonic.profile.look_binds import LookStickBind, MouseBind
from wendonic.profile.move_binds import StickBind
from wendonic.profile.schema import Mode, Profile
from wendonic.runtime.helm import Helm
from wendonic.study.alone import alone, only_moving
from wendonic.study.directions import (
    direction_error_deg,
    faces_travel,
    facing_lag_deg,
    rest_drift_m_per_min,
    sector_flicker_per_min,
    speeds_all_round,
    spread,
    turn_circle_m,
)
from wendonic.study.jumps import jump_rows
from wendonic.study.look_response import USUAL_HAND_CM_S, swipe_deg, yaw_rate_deg_s
from wendonic.study.probes import Steps, Walker, key_driver, key_walker, probe, stick_walker
from wendonic.study.response import StickResponse
from wendonic.study.step_response import step_response
from wendonic.study.walking import answer_s

DISC_HEADINGS = 72
RESPONSE_QUANTITIES = frozenset(("first_response_s", "reach90_s", "stop_time_s", "stop_distance_m", "reversal_s"))
STICK_QUANTITIES = frozenset(
    ("dead_share", "first_tilt", "small_tilt_slope", "quarter_steps_8bit", "quarter_steps_16bit")
)
JUMP_QUANTITIES = frozenset(("jump_height_m", "jump_aloft_s", "jump_buffer_s", "jump_grace_s"))
"""What is measured in one go."""

SLOPE_FROM, SLOPE_TO = 0.095, 0.105


class FeelSheet(NamedTuple):
    """What was measured; what a profile does not have is None. Times count from the raw change."""

    first_response_s: float | None
    reach90_s: float | None
    stop_time_s: float | None
    stop_distance_m: float | None
    reversal_s: float | None
    diagonal_ratio: float | None
    speed_spread_keys: float | None
    speed_spread_stick: float | None
    direction_error_deg: float | None
    facing_lag_deg: float | None
    sector_flicker_per_min: float | None
    turn_circle_m: float | None
    dead_share: float | None
    first_tilt: float | None
    small_tilt_slope: float | None
    quarter_steps_8bit: int | None
    quarter_steps_16bit: int | None
    rest_drift_m_per_min: float | None
    mouse_deg_per_10cm: float | None
    look_deg_s_half_tilt: float | None
    look_deg_s_full_tilt: float | None
    look_first_tilt: float | None
    tick_dependence: float | None
    smoothing_delay_s: float | None
    jump_height_m: float | None
    jump_aloft_s: float | None
    jump_buffer_s: float | None
    jump_grace_s: float | None


DEFINITIONS: dict[str, tuple[str, str]] = {
    "first_response_s": ("s", "from a full press to the first intent"),
    "reach90_s": ("s", "from a full press to 90 % of top speed"),
    "stop_time_s": ("s", "from letting go at top speed to rest"),
    "stop_distance_m": ("m", "way from letting go at top speed to rest"),
    "reversal_s": ("s", "from top speed ahead, the other way pressed, to 90 % of top speed back"),
    "diagonal_ratio": ("", "keys: speed aslant to speed straight"),
    "speed_spread_keys": ("", "keys: largest deviation from the mean speed of eight directions"),
    "speed_spread_stick": ("", "stick at its rim: largest deviation from the mean speed of eight directions"),
    "direction_error_deg": ("deg", "stick: largest angle between a slow tilt and what it asks for, 16 directions"),
    "facing_lag_deg": ("deg", "stick round its rim once in 2 s: how far the face is behind"),
    "sector_flicker_per_min": ("/min", "changes of facing while a trembling stick is held on a border"),
    "turn_circle_m": ("m", "width of the smallest circle at top speed"),
    "dead_share": ("", "part of the stick's disc that gives nothing"),
    "first_tilt": ("", "smallest tilt ahead that moves"),
    "small_tilt_slope": ("", "how much a little more tilt changes, a tenth past the dead zone"),
    "quarter_steps_8bit": ("steps", "steps of an 8-bit stick within the first quarter of speed"),
    "quarter_steps_16bit": ("steps", "steps of a 16-bit stick within the first quarter of speed"),
    "rest_drift_m_per_min": ("m/min", "drift while a usual worn stick lies untouched"),
    "mouse_deg_per_10cm": ("deg", "turn by 10 cm of mouse, at 20 cm/s"),
    "look_deg_s_half_tilt": ("deg/s", "turn rate of the look stick at half tilt"),
    "look_deg_s_full_tilt": ("deg/s", "turn rate of the look stick at full tilt"),
    "look_first_tilt": ("", "smallest tilt of the look stick that turns"),
    "tick_dependence": (
        "",
        "largest difference of the path at 30, 60, 144 Hz and uneven ticks, as a share of the way",
    ),
    "smoothing_delay_s": ("s", "from a full tilt of the stick to half of it"),
    "jump_height_m": ("m", "height of a jump whose press is held"),
    "jump_aloft_s": ("s", "how long that jump is off the ground"),
    "jump_buffer_s": ("s", "how long before landing a press still counts"),
    "jump_grace_s": ("s", "how long after the edge a press still counts"),
}
"""Unit and definition of every quantity."""


def value_words(value: float | None) -> str:
    """Return a value of the sheet as it is shown: four digits, a dash for what a profile does not have.

    >>> value_words(0.123456), value_words(3e-17), value_words(44), value_words(None)
    ('0.1235', '0', '44', '-')
    """
    if value is None or isinstance(value, int):
        return "-" if value is None else str(value)
    # What only rounding left is nothing.
    return f"{round(value, 9):.4g}"


def measure(
    profile: Profile, mode: str | None = None, engine: Engine = "auto", only: Collection[str] | None = None
) -> FeelSheet:
    """Return the feel sheet of a mode, the first one by default; raises `WendonicError` for one that does not exist.

    `engine` is that of `wendonic.shape`. With `only`, no more is
    measured than what these quantities take, and the others are None.

    >>> from wendonic.demo import demo_profile
    >>> sheet = measure(demo_profile())
    >>> round(sheet.stop_distance_m, 3), round(sheet.mouse_deg_per_10cm, 3)
    (0.195, 105.882)
    """
    name = profile.mode_name(mode)
    moving, table = only_moving(profile, name), profile.mode[name]
    wanted = frozenset(FeelSheet._fields if only is None else only)
    values: dict[str, Any] = {}
    if table.steer.frame != "grid":
        values |= _motion(moving, table, engine, wanted)
    stick = stick_walker(table)
    if stick is not None:
        if "smoothing_delay_s" in wanted:
            values["smoothing_delay_s"] = answer_s(profile, name)
        if "direction_error_deg" in wanted:
            values["direction_error_deg"] = direction_error_deg(moving, stick.stick, engine)
        if "sector_flicker_per_min" in wanted:
            values["sector_flicker_per_min"] = sector_flicker_per_min(moving, stick.stick, engine)
    binds = [bind for bind in (table.move.bind if table.move else ()) if isinstance(bind, StickBind)]
    if binds and wanted & STICK_QUANTITIES:
        values |= _stick(StickResponse(binds[0]))
    values |= _look(table)
    if wanted & JUMP_QUANTITIES:
        values |= jump_rows(alone(profile, name), name, engine)
    return FeelSheet(**{field: values.get(field) if field in wanted else None for field in FeelSheet._fields})


def probe_walker(table: Mode) -> Walker | None:
    """Return what a mode is walked or driven by when it is measured: keys, else a stick, else the keys of a cart."""
    driver = key_driver(table) if table.steer.frame == "drive" else None
    return key_walker(table) or stick_walker(table) or driver


def _motion(moving: Profile, table: Mode, engine: Engine, wanted: frozenset[str]) -> dict[str, Any]:
    """Measure what the body does."""
    values: dict[str, Any] = {}
    walker, keys, stick = probe_walker(table), key_walker(table), stick_walker(table)
    if walker is not None:
        answer = step_response(moving, walker, engine) if wanted & RESPONSE_QUANTITIES else None
        if answer is not None:
            values |= {name: getattr(answer, name) for name in RESPONSE_QUANTITIES}
        if "tick_dependence" in wanted:
            values["tick_dependence"] = tick_dependence(moving, walker, engine)
        if "turn_circle_m" in wanted:
            values["turn_circle_m"] = turn_circle_m(moving, walker, engine)
    if keys is not None and wanted & {"diagonal_ratio", "speed_spread_keys"}:
        speeds = speeds_all_round(moving, keys, engine)
        straight = float(np.mean(speeds[::2]))
        values["diagonal_ratio"] = float(np.mean(speeds[1::2])) / straight if straight > 0.0 else None
        values["speed_spread_keys"] = spread(speeds)
    if stick is not None:
        if "speed_spread_stick" in wanted:
            values["speed_spread_stick"] = spread(speeds_all_round(moving, stick, engine))
        if "rest_drift_m_per_min" in wanted:
            values["rest_drift_m_per_min"] = rest_drift_m_per_min(moving, stick.stick, engine)
        if "facing_lag_deg" in wanted and faces_travel(moving):
            values["facing_lag_deg"] = facing_lag_deg(moving, stick.stick, engine)
    return values


def _look(table: Mode) -> dict[str, Any]:
    values: dict[str, Any] = {}
    for look in table.look.bind if table.look else ():
        if isinstance(look, MouseBind) and "mouse_deg_per_10cm" not in values:
            values["mouse_deg_per_10cm"] = swipe_deg(look, [10.0], USUAL_HAND_CM_S)[0]
        if isinstance(look, LookStickBind) and look.snap_deg is None and "look_first_tilt" not in values:
            half, full = yaw_rate_deg_s(look, [0.5, 1.0])
            values |= {"look_deg_s_half_tilt": half, "look_deg_s_full_tilt": full}
            values["look_first_tilt"] = StickResponse(look).tilt_for(1e-9, 90.0)
    return values


def _stick(stick: StickResponse) -> dict[str, float | int | None]:
    first = stick.tilt_for(1e-9)
    # What gives nothing reaches from the middle to an edge in every direction: its area is the mean of r².
    edges = [stick.tilt_for(1e-9, 360.0 * step / DISC_HEADINGS) for step in range(DISC_HEADINGS)]
    low, high = (first or 0.0) + SLOPE_FROM, (first or 0.0) + SLOPE_TO
    return {
        "dead_share": math.fsum(1.0 if edge is None else edge * edge for edge in edges) / DISC_HEADINGS,
        "first_tilt": first,
        "small_tilt_slope": (stick.amount(0.0, high) - stick.amount(0.0, low)) / (high - low),
        "quarter_steps_8bit": stick.steps_in_first_quarter(127),
        "quarter_steps_16bit": stick.steps_in_first_quarter(32767),
    }


def tick_dependence(profile: Profile, walker: Walker, engine: Engine = "auto") -> float | None:
    """Return by how much a figure of straight walks, turns and a stop differs between 30, 60 and 144 ticks a second
    and uneven ticks, as a share of its way; None if nothing moves. Its changes fall on ticks of all of them.
    """
    figure = [
        (0.5, walker.full("ahead")),
        (1.5, [*walker.rest("ahead"), *walker.full("right")]),
        (2.0, [*walker.rest("right"), *walker.full("back")]),
        (2.5, walker.rest("back")),
    ]
    recording = probe(figure, 3.5)
    paths = []
    for hz in (30, 60, 144):
        trace = shape(recording, profile, hz=hz, engine=engine)
        # Every half second is the end of a tick at each rate.
        paths.append(trace[["pos_x", "pos_y"]].to_numpy()[hz // 2 - 1 :: hz // 2][:7])
    paths.append(_uneven_path(figure, profile))
    way_m = float(np.linalg.norm(np.diff(paths[2], axis=0), axis=1).sum())
    if way_m == 0.0:
        return None
    return max(float(np.linalg.norm(path - paths[2], axis=1).max()) for path in paths) / way_m


def _uneven_path(figure: Steps, profile: Profile) -> Any:
    """Return the places at every half second of a figure, walked in ticks of every length from 7 to 33 ms."""
    helm = Helm(profile)
    changes = dict(figure)
    uneven = random.Random(1)
    places: list[tuple[float, float]] = []
    for half in range(7):
        for control, value in changes.get(half / 2.0, []):
            helm.apply(Event(half / 2.0, control, value))
        left_s = 0.5
        while left_s > 0.0:
            dt = min(uneven.uniform(1.0 / 144.0, 1.0 / 30.0), left_s)
            intent = helm.tick(dt)
            left_s -= dt
        places.append(intent.motion[:2])
    return np.array(places)
