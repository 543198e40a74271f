"""Looking by turning the pad: how far the view turns, how much of a slow turn is lost, and the drift of a pad that
lies still.
"""

import functools
import math

from wendonic.batch.trace import shaped
from wendonic.devices.event import Event
from wendonic.devices.standins.gyro import GyroStandIn
from wendonic.errors import WendonicError
from wendonic.profile.schema.look_binds import GyroBind
from wendonic.profile.schema.profile import Profile
from wendonic.recording.recording import Recording
from wendonic.study.bench import Bench
from wendonic.study.held_press import held_press
from wendonic.study.probes.walker import lead_steps
from wendonic.study.unmeasured import NotHere, Unmeasured, once_each

HZ = 120.0
POLL_HZ = 250.0
TURN_DEG = 60.0
AIM_S = 4.0
LIES_S = 60.0
HAND_SHAKES_M_S2 = 0.3
"""Spread of the accelerometer's readings of a pad in the hand; on a table it is a tenth of that."""


def gyro_bind(bench: Bench) -> GyroBind:
    """Return the entry of the rate sensor that turns the view; raises `NotHere` without one."""
    bind = bench.look_entry(GyroBind)
    if bind is None:
        raise NotHere("no motion sensor turns the view")
    return bind


@functools.cache
def _pad_turned(
    pad: str, bias_deg_s: float, noise_deg_s: float, shakes: float, rate_deg_s: float, begins_s: float, end_s: float
) -> tuple[Event, ...]:
    """Return the events of a pad that is turned to the right at a rate (deg/s) from `begins_s` on."""
    bias, noise = (0.0, math.radians(bias_deg_s), 0.0), math.radians(noise_deg_s)
    hands = GyroStandIn(pad, bias, noise, accel_noise=shakes, poll_hz=POLL_HZ, seed=1)
    return tuple(hands.events(lambda t: (rate_deg_s * max(t - begins_s, 0.0), 0.0), 0.0, end_s))


@once_each
def _presses_held(bench: Bench) -> tuple[tuple[Event, ...], float]:
    """Return the changes that hold the presses needed while the pad turns, and when (s), in whole ticks, the turn may
    begin.
    """
    lead, wanted = [*bench.lead], gyro_bind(bench).while_press
    if wanted is not None and wanted != bench.held:
        try:
            lead += held_press(bench.looking, wanted)
        except WendonicError as reason:
            raise Unmeasured(f"{reason}, so the motion sensor never turns the view") from None
    steps, lead_s = lead_steps(lead)
    events = (Event(at_s, control, value) for at_s, changes in steps for control, value in changes)
    return tuple(events), math.ceil(lead_s * HZ) / HZ


@once_each
def _sideways(bench: Bench) -> Profile:
    """Return the profile to look with. In it, a motion sensor that turns the view only up and down turns it sideways
    instead, where no pitch limit ends the turn: for everything measured here, a pad's two axes behave alike.
    """
    if gyro_bind(bench).sideways:
        return bench.looking
    mode = bench.looking.mode[bench.mode]
    if mode.look is None:
        raise AssertionError("a mode whose motion sensor turns the view looks")
    binds = [
        bind.model_copy(update={"turns": "yaw", "invert_yaw": bind.invert_pitch})
        if isinstance(bind, GyroBind)
        else bind
        for bind in mode.look.bind
    ]
    look = mode.look.model_copy(update={"bind": tuple(binds)})
    return bench.looking.model_copy(update={"mode": {bench.mode: mode.model_copy(update={"look": look})}})


def _turned_deg(
    bench: Bench,
    rate_deg_s: float,
    end_s: float,
    from_s: float = 0.0,
    bias_deg_s: float = 0.0,
    shakes: float = HAND_SHAKES_M_S2,
) -> float:
    pad, noise_deg_s = gyro_bind(bench).gyro.split(".")[0], bench.thresholds.gyro_noise_deg_s
    presses, begins_s = _presses_held(bench)
    turned = _pad_turned(pad, bias_deg_s, noise_deg_s, shakes, rate_deg_s, begins_s, begins_s + end_s)
    recording = Recording(sorted([*presses, *turned], key=lambda event: event.t))
    trace = shaped(recording, _sideways(bench), hz=HZ, engine=bench.engine)
    return float(trace["look_yaw_deg"][trace["t"] > begins_s + from_s + 1e-9].sum())


@once_each
def turned_share(bench: Bench, rate_deg_s: float, turn_deg: float = TURN_DEG) -> float:
    """Return how far the view turns for each degree that the pad turns to the right."""
    return _turned_deg(bench, rate_deg_s, turn_deg / rate_deg_s) / turn_deg


def slow_loss(bench: Bench) -> float:
    """Return the share of a slow turn that is lost, compared with a quick turn by the same angle."""
    limits = bench.thresholds
    aimed_deg = limits.gyro_aim_deg_s * AIM_S
    quick = turned_share(bench, limits.gyro_turn_deg_s)
    return 1.0 - turned_share(bench, limits.gyro_aim_deg_s, aimed_deg) / quick


def drift_deg_per_min(bench: Bench) -> float:
    """Return how fast (deg a minute) the view drifts while a biased pad lies on a table."""
    half_s, bias_deg_s = LIES_S / 2.0, bench.thresholds.gyro_drift_deg_s
    return abs(_turned_deg(bench, 0.0, LIES_S, half_s, bias_deg_s, 0.1 * HAND_SHAKES_M_S2)) * 60.0 / half_s
