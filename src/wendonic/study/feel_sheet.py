"""The feel sheet: a profile's feel in milliseconds, metres, degrees and ratios, as probes measure it."""

import math
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np

from wendonic.batch import shape
from wendonic.profile.look_binds import LookStickBind, MouseBind
from wendonic.profile.move_binds import StickBind
from wendonic.profile.schema import Profile
from wendonic.study.alone import alone
from wendonic.study.look_response import USUAL_HAND_CM_S, swipe_deg, yaw_rate_deg_s
from wendonic.study.probes import Walker, key_driver, key_walker, probe, stick_walker
from wendonic.study.response import StickResponse
from wendonic.study.travelled import speeds_m_s
from wendonic.study.walking import answer_s

if TYPE_CHECKING:
    import pandas as pd

HZ = 1000.0
LEAD_S = 0.1
LONGEST_HOLD_S = 30.0
SHARE = 0.9
STEADY_S, STEADY = 0.1, 1e-3
"""A speed that changes by no more than this share in so long is the top speed."""
RESTS_M_S = 1e-3
WAYS = (
    ("ahead",),
    ("ahead", "right"),
    ("right",),
    ("back", "right"),
    ("back",),
    ("back", "left"),
    ("left",),
    ("ahead", "left"),
)


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
    dead_share: float | None
    first_tilt: float | None
    small_tilt_slope: float | None
    quarter_steps_8bit: int | None
    quarter_steps_16bit: int | None
    mouse_deg_per_10cm: float | None
    look_deg_s_half_tilt: float | None
    look_deg_s_full_tilt: float | None
    look_first_tilt: float | None
    tick_dependence: float | None
    smoothing_delay_s: float | None


DEFINITIONS: dict[str, tuple[str, str]] = {
    "first_response_s": ("s", "from a full press to the first intent"),
    "reach90_s": ("s", "from a full press to 90 % of top speed"),
    "stop_time_s": ("s", "from letting go at top speed to rest"),
    "stop_distance_m": ("m", "way from letting go at top speed to rest"),
    "reversal_s": ("s", "from top speed ahead, the other way pressed, to 90 % of top speed back"),
    "diagonal_ratio": ("", "keys: speed aslant to speed straight"),
    "speed_spread_keys": ("", "keys: largest deviation from the mean speed of eight directions"),
    "speed_spread_stick": ("", "stick at its rim: largest deviation from the mean speed of eight directions"),
    "dead_share": ("", "part of the stick's disc that gives nothing"),
    "first_tilt": ("", "smallest tilt ahead that moves"),
    "small_tilt_slope": ("", "how much a little more tilt changes, a tenth past the dead zone"),
    "quarter_steps_8bit": ("steps", "steps of an 8-bit stick within the first quarter of speed"),
    "quarter_steps_16bit": ("steps", "steps of a 16-bit stick within the first quarter of speed"),
    "mouse_deg_per_10cm": ("deg", "turn by 10 cm of mouse, at 20 cm/s"),
    "look_deg_s_half_tilt": ("deg/s", "turn rate of the look stick at half tilt"),
    "look_deg_s_full_tilt": ("deg/s", "turn rate of the look stick at full tilt"),
    "look_first_tilt": ("", "smallest tilt of the look stick that turns"),
    "tick_dependence": ("", "largest difference of the path at 30, 60 and 144 Hz, as a share of the way"),
    "smoothing_delay_s": ("s", "from a full tilt of the stick to half of it"),
}
"""Unit and definition of every quantity."""


def measure(profile: Profile, mode: str | None = None) -> FeelSheet:
    """Return the feel sheet of a mode, the first one by default; raises `WendonicError` for one that does not exist.

    >>> from wendonic.demo import demo_profile
    >>> sheet = measure(demo_profile())
    >>> round(sheet.stop_distance_m, 3), round(sheet.mouse_deg_per_10cm, 3)
    (0.195, 105.882)
    """
    name = profile.mode_name(mode)
    only = alone(profile, name)
    table = only.mode[name]
    keys, stick = key_walker(table), stick_walker(table)
    walker = keys or stick or (key_driver(table) if table.steer.frame == "drive" else None)
    values: dict[str, Any] = dict.fromkeys(FeelSheet._fields)
    if walker is not None and table.steer.frame != "grid":
        values |= _response(only, walker)
        values["tick_dependence"] = _tick_dependence(only, walker)
    if keys is not None and table.steer.frame != "grid":
        speeds = _speeds(only, keys)
        values["diagonal_ratio"] = float(np.mean(speeds[1::2]) / np.mean(speeds[::2]))
        values["speed_spread_keys"] = _spread(speeds)
    if stick is not None:
        if table.steer.frame != "grid":
            values["speed_spread_stick"] = _spread(_speeds(only, stick))
        values["smoothing_delay_s"] = answer_s(profile, name)
    for bind in table.move.bind if table.move else ():
        if isinstance(bind, StickBind):
            values |= _stick(StickResponse(bind))
            break
    for look in table.look.bind if table.look else ():
        if isinstance(look, MouseBind) and values["mouse_deg_per_10cm"] is None:
            values["mouse_deg_per_10cm"] = swipe_deg(look, [10.0], USUAL_HAND_CM_S)[0]
        if isinstance(look, LookStickBind) and look.snap_deg is None and values["look_first_tilt"] is None:
            half, full = yaw_rate_deg_s(look, [0.5, 1.0])
            values |= {"look_deg_s_half_tilt": half, "look_deg_s_full_tilt": full}
            values["look_first_tilt"] = StickResponse(look).tilt_for(1e-9, 90.0)
    return FeelSheet(**values)


def _speed_ahead(trace: "pd.DataFrame") -> Any:
    return trace["vel_y"].to_numpy()


def _crossing(t: Any, values: Any, level: float, rising: bool = True) -> float | None:
    """Return when values first reach a level, interpolated between two ticks; None if they never do."""
    beyond = values >= level if rising else values <= level
    if not beyond.any():
        return None
    index = int(np.argmax(beyond))
    if index == 0:
        return float(t[0])
    before, after = values[index - 1], values[index]
    share = 1.0 if after == before else (level - before) / (after - before)
    return float(t[index - 1] + share * (t[index] - t[index - 1]))


def _hold_s(profile: Profile) -> float:
    """Return for how long a way has to be held until everything is steady: the gait, ramps, and smoothing."""
    mode = profile.mode[profile.first_mode]
    gait = profile.gait_of(profile.first_mode)
    slowest = min(gait.accel_m_s2, gait.brake_m_s2)
    shaping_s = 0.5 + (14.0 * mode.move.half_life_s if mode.move else 0.0)
    binds = [bind for channel in (mode.move, mode.throttle, mode.turn) if channel for bind in channel.bind]
    ramps_s = max((getattr(bind, "rise_s", 0.0) + getattr(bind, "fall_s", 0.0) for bind in binds), default=0.0)
    return min(2.2 * gait.top_speed_m_s / slowest + shaping_s + ramps_s, LONGEST_HOLD_S)


def _response(profile: Profile, walker: Walker) -> dict[str, float | None]:
    hold_s = math.ceil(_hold_s(profile) * 10.0) / 10.0
    let_go_s = LEAD_S + hold_s
    end_s = let_go_s + hold_s
    held = shape(probe([(LEAD_S, walker.full("ahead")), (let_go_s, walker.rest("ahead"))], end_s), profile, hz=HZ)
    t, speed = held["t"].to_numpy(), _speed_ahead(held)
    top = float(np.interp(let_go_s, t, speed))
    before = float(np.interp(let_go_s - STEADY_S, t, speed))
    if top <= 0.0 or abs(top - before) > STEADY * top:
        # Nothing moves, or a gait is so slow that its top speed was not seen.
        return {}
    first = _crossing(t, held["amount"].to_numpy(), 1e-3)
    reach = _crossing(t, speed, SHARE * top)
    after = t > let_go_s
    rest = _crossing(t[after], speed[after], RESTS_M_S, rising=False)
    way = held["pos_y"].to_numpy()
    steps = [(LEAD_S, walker.full("ahead")), (let_go_s, [*walker.rest("ahead"), *walker.full("back")])]
    back = shape(probe(steps, end_s), profile, hz=HZ)
    backwards = _speed_ahead(back)[after]
    turned = _crossing(t[after], backwards, SHARE * float(backwards[-1]), rising=False)
    return {
        "first_response_s": None if first is None else first - LEAD_S,
        "reach90_s": None if reach is None else reach - LEAD_S,
        "stop_time_s": None if rest is None else rest - let_go_s,
        "stop_distance_m": float(way[-1] - np.interp(let_go_s, t, way)),
        "reversal_s": None if turned is None else turned - let_go_s,
    }


def _speeds(profile: Profile, walker: Walker) -> list[float]:
    """Return the steady speed (m/s) in each of eight directions."""
    speeds: list[float] = []
    hold_s = _hold_s(profile)
    for ways in WAYS:
        end = shape(probe([(0.0, walker.full(*ways))], hold_s), profile, hz=60).iloc[-1:]
        speeds.append(float(speeds_m_s(end)[0]))
    return speeds


def _spread(speeds: list[float]) -> float | None:
    mean = float(np.mean(speeds))
    return float(np.max(np.abs(np.array(speeds) - mean)) / mean) if mean > 0.0 else None


def _stick(stick: StickResponse) -> dict[str, float | int | None]:
    first = stick.tilt_for(1e-9)
    steps = np.linspace(-1.0, 1.0, 201)
    disc = [(x, y) for x in steps for y in steps if x * x + y * y <= 1.0]
    dead = sum(stick.amount(x, y) == 0.0 for x, y in disc)
    low, high = (first or 0.0) + 0.095, (first or 0.0) + 0.105
    slope = (stick.amount(0.0, high) - stick.amount(0.0, low)) / 0.01

    return {
        "dead_share": dead / len(disc),
        "first_tilt": first,
        "small_tilt_slope": slope,
        "quarter_steps_8bit": stick.steps_in_first_quarter(127),
        "quarter_steps_16bit": stick.steps_in_first_quarter(32767),
    }


def _tick_dependence(profile: Profile, walker: Walker) -> float | None:
    """Walk the same figure at three tick rates; its changes fall on ticks of all of them."""
    figure = [
        (0.5, walker.full("ahead")),
        (1.5, [*walker.rest("ahead"), *walker.full("right")]),
        (2.0, [*walker.rest("right"), *walker.full("back")]),
        (2.5, walker.rest("back")),
    ]
    recording = probe(figure, 3.5)
    paths = []
    for hz in (30, 60, 144):
        trace = shape(recording, profile, hz=hz)
        # Every half second is the end of a tick at each rate.
        paths.append(trace[["pos_x", "pos_y"]].to_numpy()[hz // 2 - 1 :: hz // 2][:7])
    way_m = float(np.linalg.norm(np.diff(paths[2], axis=0), axis=1).sum())
    if way_m == 0.0:
        return None
    return max(float(np.linalg.norm(path - paths[2], axis=1).max()) for path in paths[:2]) / way_m
