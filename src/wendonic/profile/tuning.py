"""From a profile to what the tick runs on: the kernels' numbers."""

import math
from typing import Any

from wendonic.kernels.axis_channel import AxisTuning
from wendonic.kernels.curve import CURVE_EXPO, CURVE_KNEE, CURVE_LINEAR, CURVE_POWER, CURVE_S
from wendonic.kernels.dead_zone import ZONE_AXES, ZONE_CUT, ZONE_NONE, ZONE_ROUND, ZONE_ROUND_WEDGE, ZONE_WEDGE
from wendonic.kernels.diagonal import DIAGONAL_CAP, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.kernels.gate import GATE_CIRCLE, GATE_SQUARE
from wendonic.kernels.look import (
    LOOK_DISPLACEMENT,
    LOOK_RATE,
    LOOK_STICK,
    SILENT_LOOK_SOURCE,
    LookSourceTuning,
    LookTuning,
)
from wendonic.kernels.merge import MERGE_LATEST, MERGE_STRONGEST, MERGE_SUM
from wendonic.kernels.opposites import OPPOSITES_CANCEL, OPPOSITES_EARLIEST, OPPOSITES_LATEST
from wendonic.kernels.pipeline import GaitTuning, MoveTuning, SteerTuning, Tuning
from wendonic.kernels.places import AXIS_SOURCES, LOOK_SOURCES, SOURCES
from wendonic.kernels.press import (
    SILENT_PRESS,
    STYLE_DOUBLE,
    STYLE_HOLD,
    STYLE_LONG,
    STYLE_TAP,
    STYLE_TOGGLE,
    PressTuning,
)
from wendonic.kernels.source import (
    SILENT_SOURCE,
    SOURCE_AXES,
    SOURCE_FORMED,
    SOURCE_KEYS,
    SOURCE_STICK,
    SOURCE_SWING,
    SourceTuning,
)
from wendonic.kernels.steer_frame import FRAME_CAMERA, FRAME_MAP
from wendonic.kernels.stick import USUAL_FORM
from wendonic.profile.axis_binds import AxisBind, TriggersBind
from wendonic.profile.binds import Centred, Ramped, Tilted
from wendonic.profile.look_binds import GyroBind, LookBind, LookStickBind, MouseBind, TouchDragBind
from wendonic.profile.move_binds import AxesBind, HandsBind
from wendonic.profile.press_binds import PressTable
from wendonic.profile.schema import LookTable, Move, Profile, Rise, Throttle, Turn
from wendonic.profile.shapes import ExpoCurve, KneeCurve, PowerCurve, SCurve

_DIAGONALS = {"cap": DIAGONAL_CAP, "unit": DIAGONAL_UNIT, "free": DIAGONAL_FREE}
_ZONES = {
    "none": ZONE_NONE,
    "round": ZONE_ROUND,
    "axes": ZONE_AXES,
    "wedge": ZONE_WEDGE,
    "round+wedge": ZONE_ROUND_WEDGE,
    "cut": ZONE_CUT,
}
_GATES = {"circle": GATE_CIRCLE, "square": GATE_SQUARE}
_CURVES = {"linear": CURVE_LINEAR, "power": CURVE_POWER, "expo": CURVE_EXPO, "s": CURVE_S, "knee": CURVE_KNEE}
_FRAMES = {"camera": FRAME_CAMERA, "map": FRAME_MAP}
_MERGES = {"strongest": MERGE_STRONGEST, "sum": MERGE_SUM, "latest": MERGE_LATEST}
_OPPOSITES = {"cancel": OPPOSITES_CANCEL, "latest": OPPOSITES_LATEST, "earliest": OPPOSITES_EARLIEST}
_STYLES = {
    "hold": STYLE_HOLD,
    "toggle": STYLE_TOGGLE,
    "tap": STYLE_TAP,
    "long": STYLE_LONG,
    "double": STYLE_DOUBLE,
}

TAP_S = 0.2
LONG_S = 0.5
DOUBLE_S = 0.3
"""Limits of the styles where a profile names none."""


def _shape(bind: Tilted | LookStickBind) -> dict[str, Any]:
    """Return dead zone and curve of a `bind` entry as the kernels' numbers."""
    zone, curve = bind.dead_zone, bind.curve
    numbers = {
        "inner": zone.inner if zone.form != "none" else 0.0,
        "outer": zone.outer if zone.form != "none" else 1.0,
        "curve_form": _CURVES[curve.form],
        "curve_exponent": curve.exponent if isinstance(curve, PowerCurve) else 1.0,
    }
    form = USUAL_FORM._replace(
        zone=_ZONES[zone.form],
        release=-1.0 if zone.release is None else zone.release,
        floor=curve.floor,
        ceiling=curve.ceiling,
        per_axis=int(curve.per_axis),
    )
    if isinstance(curve, ExpoCurve | SCurve):
        form = form._replace(amount=curve.amount)
    if isinstance(curve, KneeCurve):
        form = form._replace(knee_tilt=curve.at[0], amount=curve.at[1])
    if isinstance(bind, Centred):
        # A device's y is towards the player.
        x, y = bind.centre
        form = form._replace(gate=_GATES[bind.gate], centre_x=x, centre_y=0.0 - y)
    return numbers | {"form": form}


def _is_usual(numbers: dict[str, Any]) -> bool:
    """Return whether the short way through the kernels does: a round zone, and a curve from 0 to 1."""
    return numbers["form"] == USUAL_FORM and numbers["curve_form"] in (CURVE_LINEAR, CURVE_POWER)


def source_tuning(bind: Ramped | Tilted) -> SourceTuning:
    """Return the numbers of one `bind` entry of `move`, `rise`, `throttle` or `turn`."""
    if isinstance(bind, Ramped):
        opposites = _OPPOSITES[getattr(bind, "opposites", "cancel")]
        return SILENT_SOURCE._replace(kind=SOURCE_KEYS, rise_s=bind.rise_s, fall_s=bind.fall_s, opposites=opposites)
    if isinstance(bind, HandsBind):
        return SILENT_SOURCE._replace(kind=SOURCE_SWING, full_m_s=bind.full_swing_m_s, **_shape(bind))
    numbers = _shape(bind)
    kind = SOURCE_STICK if _is_usual(numbers) else SOURCE_FORMED
    if isinstance(bind, AxesBind | AxisBind | TriggersBind):
        kind = SOURCE_AXES
    return SILENT_SOURCE._replace(kind=kind, **numbers)


def look_source_tuning(bind: LookBind) -> LookSourceTuning:
    """Return the numbers of one `bind` entry of `look`; an inverted axis has a negative one."""
    yaw_sign = -1.0 if bind.invert_yaw else 1.0
    pitch_sign = -1.0 if bind.invert_pitch else 1.0
    kind = LOOK_DISPLACEMENT
    yaw = pitch = 0.0
    match bind:
        case MouseBind():
            yaw = math.radians(bind.count_deg)
            pitch = yaw * bind.pitch_ratio
        case TouchDragBind():
            yaw = pitch = math.radians(bind.deg_per_width)
        case GyroBind():
            kind = LOOK_RATE
            yaw = pitch = bind.turn_ratio
        case LookStickBind():
            kind = LOOK_STICK
            yaw, pitch = math.radians(bind.yaw_deg_s), math.radians(bind.pitch_deg_s)
    tuning = SILENT_LOOK_SOURCE._replace(kind=kind, yaw=yaw * yaw_sign, pitch=pitch * pitch_sign)
    return tuning._replace(**_shape(bind)) if isinstance(bind, LookStickBind) else tuning


def _move_tuning(move: Move | None) -> MoveTuning:
    sources = [source_tuning(bind) for bind in move.bind] if move else []
    first, second, third, fourth = sources + [SILENT_SOURCE] * (SOURCES - len(sources))
    four = (first, second, third, fourth)
    if move is None:
        return MoveTuning(0, four, MERGE_STRONGEST, DIAGONAL_CAP, 0.0)
    return MoveTuning(len(sources), four, _MERGES[move.merge], _DIAGONALS[move.diagonal], move.half_life_s)


def axis_tuning(channel: Rise | Throttle | Turn | None) -> AxisTuning:
    """Return the numbers of a channel of one number; silent where a mode binds nothing to it."""
    sources = [source_tuning(bind) for bind in channel.bind] if channel else []
    first, second, third = sources + [SILENT_SOURCE] * (AXIS_SOURCES - len(sources))
    return AxisTuning(len(sources), (first, second, third), _MERGES[channel.merge] if channel else MERGE_STRONGEST)


def look_tuning(look: LookTable | None) -> LookTuning:
    """Return the numbers of the channel `look`; silent where a mode binds nothing to it."""
    sources = [look_source_tuning(bind) for bind in look.bind] if look else []
    first, second, third, fourth = sources + [SILENT_LOOK_SOURCE] * (LOOK_SOURCES - len(sources))
    low_deg, high_deg = look.pitch_limits_deg if look else (-90.0, 90.0)
    return LookTuning(len(sources), (first, second, third, fourth), math.radians(low_deg), math.radians(high_deg))


def mode_tuning(profile: Profile, mode_name: str) -> Tuning:
    """Return every number that moving takes in one mode; its type is the same for all profiles. Angles in radians."""
    mode = profile.mode[mode_name]
    gait = profile.gait_of(mode_name)
    return Tuning(
        profile.max_dt_s,
        _move_tuning(mode.move),
        SteerTuning(_FRAMES[mode.steer.frame], math.radians(mode.steer.turn_deg_s)),
        GaitTuning(gait.top_speed_m_s, gait.accel_m_s2, gait.brake_m_s2),
    )


def press_tuning(press: PressTable) -> PressTuning:
    """Return the numbers of one press."""
    return PressTuning(
        _STYLES[press.style],
        TAP_S if press.tap_s is None else press.tap_s,
        LONG_S if press.long_s is None else press.long_s,
        DOUBLE_S if press.double_s is None else press.double_s,
        int(press.buffer_s is not None or press.grace_s is not None),
        press.buffer_s or 0.0,
        press.grace_s or 0.0,
    )


def press_tunings(profile: Profile, mode_name: str) -> tuple[PressTuning, ...]:
    """Return the numbers of every press of the profile; one that the mode does not bind is silent."""
    presses = profile.mode[mode_name].press
    return tuple(press_tuning(presses[name]) if name in presses else SILENT_PRESS for name in profile.press_names)
