"""From a profile to what the tick runs on: numbers, and the sources' controls."""

import math

from wendonic.devices.sources import KeysSource, Source, StickSource
from wendonic.kernels.curve import CURVE_LINEAR, CURVE_POWER
from wendonic.kernels.diagonal import DIAGONAL_CAP, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.kernels.pipeline import SOURCES, GaitTuning, MoveTuning, SteerTuning, Tuning
from wendonic.kernels.source import SILENT_SOURCE, SOURCE_KEYS, SOURCE_STICK, SourceTuning
from wendonic.kernels.steer_frame import FRAME_CAMERA, FRAME_MAP
from wendonic.profile.schema import KeysBind, PowerCurve, Profile, StickBind

_DIAGONALS = {"cap": DIAGONAL_CAP, "unit": DIAGONAL_UNIT, "free": DIAGONAL_FREE}
_FRAMES = {"camera": FRAME_CAMERA, "map": FRAME_MAP}


def source_tuning(bind: KeysBind | StickBind) -> SourceTuning:
    """Return the numbers of one `bind` entry."""
    if isinstance(bind, KeysBind):
        return SILENT_SOURCE._replace(kind=SOURCE_KEYS, rise_s=bind.rise_s, fall_s=bind.fall_s)
    curve = bind.curve
    return SILENT_SOURCE._replace(
        kind=SOURCE_STICK,
        inner=bind.dead_zone.inner,
        outer=bind.dead_zone.outer,
        curve_form=CURVE_POWER if isinstance(curve, PowerCurve) else CURVE_LINEAR,
        curve_exponent=curve.exponent if isinstance(curve, PowerCurve) else 1.0,
    )


def mode_tuning(profile: Profile, mode_name: str) -> Tuning:
    """Return every number of one mode, degrees turned to radians; its type is the same for all profiles."""
    mode = profile.mode[mode_name]
    gait = profile.gait_of(mode_name)
    sources = [source_tuning(bind) for bind in mode.move.bind]
    first, second, third, fourth = sources + [SILENT_SOURCE] * (SOURCES - len(sources))
    return Tuning(
        profile.max_dt_s,
        MoveTuning(
            len(sources), (first, second, third, fourth), _DIAGONALS[mode.move.diagonal], mode.move.half_life_s
        ),
        SteerTuning(_FRAMES[mode.steer.frame], math.radians(mode.steer.turn_deg_s)),
        GaitTuning(gait.top_speed_m_s, gait.accel_m_s2, gait.brake_m_s2),
    )


def mode_sources(profile: Profile, mode_name: str) -> tuple[Source, ...]:
    """Return the controls of one mode's sources of `move`, in the order of the file."""
    sources: list[Source] = []
    for bind in profile.mode[mode_name].move.bind:
        if isinstance(bind, KeysBind):
            keys = bind.keys
            sources.append(KeysSource(keys.right, keys.left, keys.ahead, keys.back))
        else:
            sources.append(StickSource(bind.stick))
    return tuple(sources)
