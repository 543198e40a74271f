"""From a profile to what the tick runs on: the kernels' numbers of one mode."""

import math
from typing import NamedTuple

from wendonic.kernels.axis_channel import NO_AXIS, AxisTuning
from wendonic.kernels.body.comfort import NO_COMFORT
from wendonic.kernels.look.displacement import PLAIN_DISPLACEMENT, DisplacementTuning
from wendonic.kernels.look.gyro import GyroTuning
from wendonic.kernels.look.look import (
    LOOK_DISPLACEMENT,
    LOOK_RATE,
    LOOK_STICK,
    NO_LOOK,
    PLAIN_LOOK_SOURCE,
    LookSourceTuning,
    LookTuning,
)
from wendonic.kernels.look.stick import StickLookTuning
from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FACTOR, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.kernels.move.merge import MERGE_LATEST, MERGE_STRONGEST, MERGE_SUM
from wendonic.kernels.move.move import (
    NO_MOVE,
    SMOOTHING_HALF_LIFE,
    SMOOTHING_NONE,
    SMOOTHING_ONE_EURO,
    MoveTuning,
    PressAmount,
)
from wendonic.kernels.move.one_euro import NO_ONE_EURO, OneEuroTuning
from wendonic.kernels.move.paces import PaceTuning
from wendonic.kernels.press.press import (
    SILENT_PRESS,
    STYLE_DOUBLE,
    STYLE_HOLD,
    STYLE_LONG,
    STYLE_TAP,
    STYLE_TOGGLE,
    PressTuning,
)
from wendonic.kernels.source.source import SOURCE_KEYS
from wendonic.kernels.tick import Tuning
from wendonic.look_units import CM_PER_INCH, zoom_ratio
from wendonic.profile.channels import LookTable, Move, Rise, Throttle, Turn
from wendonic.profile.look_binds import GyroBind, LookBind, LookStickBind, MouseBind, TouchDragBind
from wendonic.profile.press_binds import PressTable
from wendonic.profile.schema import Profile
from wendonic.profile.source_tuning import Tables, source_tuning, stick_tuning
from wendonic.profile.steer import HandsSteer
from wendonic.profile.steer_tuning import comfort_tuning, frame_tuning, gait_tuning, turns_within_a_tick

_DIAGONALS = {
    "cap": DIAGONAL_CAP,
    "unit": DIAGONAL_UNIT,
    "free": DIAGONAL_FREE,
    "factor": DIAGONAL_FACTOR,
}
_MERGES = {"strongest": MERGE_STRONGEST, "sum": MERGE_SUM, "latest": MERGE_LATEST}
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
NO_PRESS = -1
DIAGONAL_FACTOR_USUAL = math.sqrt(0.5)
PACE_MARGIN = 0.08
NOTCH_PULL = 0.5
SECTOR_MARGIN_DEG = 6.0
HOLD_S = 0.25
TREMBLING_DEG_S = 4.0
"""Numbers that count where a profile names none, and something else in it asks for them."""


class ModeTuning(NamedTuple):
    """Every number of one mode: those of its tick, and the measured rims and curves through points that these point
    into. `gyros` says which source of `look` a rate sensor is.
    """

    tick: Tuning
    tables: tuple[float, ...]
    gyros: dict[str, int]


def _press_number(names: tuple[str, ...], press: str | None) -> int:
    return NO_PRESS if press is None else names.index(press)


def move_tuning(move: Move | None, tables: Tables, press_names: tuple[str, ...]) -> MoveTuning:
    """Return the numbers of the channel `move`."""
    if move is None:
        return NO_MOVE
    sources = tuple(source_tuning(bind, tables) for bind in move.bind)
    smoothing = SMOOTHING_HALF_LIFE if move.half_life_s > 0.0 else SMOOTHING_NONE
    one_euro = NO_ONE_EURO
    if move.one_euro:
        numbers = move.one_euro
        smoothing = SMOOTHING_ONE_EURO
        one_euro = OneEuroTuning(numbers.min_cutoff_hz, numbers.beta, numbers.d_cutoff_hz)
    # The other rules are straight in a ramp, or have a closed form under it.
    bent = (
        move.diagonal in ("factor", "unit")
        or move.merge == "sum"
        or bool(move.paces or move.press_amounts or move.notches or move.one_euro)
    )
    ramps = any(source.kind == SOURCE_KEYS and source.keys.ramps > 0 for source in sources)
    return MoveTuning(
        sources,
        _MERGES[move.merge],
        _DIAGONALS[move.diagonal],
        move.diagonal_factor or DIAGONAL_FACTOR_USUAL,
        tuple(PaceTuning(pace.above, pace.amount) for pace in move.paces or ()),
        PACE_MARGIN if move.pace_margin is None else move.pace_margin,
        tuple(PressAmount(press_names.index(name), amount) for name, amount in move.press_amounts.items()),
        move.notches or 0,
        NOTCH_PULL if move.notch_pull is None else move.notch_pull,
        smoothing,
        move.half_life_s,
        one_euro,
        int(bent and ramps),
    )


def axis_tuning(channel: Rise | Throttle | Turn | None, tables: Tables) -> AxisTuning:
    """Return the numbers of a channel of one number."""
    if channel is None:
        return NO_AXIS
    return AxisTuning(tuple(source_tuning(bind, tables) for bind in channel.bind), _MERGES[channel.merge])


def look_tuning(look: LookTable | None, tables: Tables, press_names: tuple[str, ...]) -> LookTuning:
    """Return the numbers of the channel `look`. Angles in radians."""
    if look is None:
        return NO_LOOK
    low_deg, high_deg = look.pitch_limits_deg
    press, scale = NO_PRESS, 1.0
    if look.zoom:
        press = press_names.index(look.zoom.press)
        scale = zoom_ratio(look.zoom.fov_deg, look.zoom.zoom_fov_deg, look.zoom.match_at)
    sources = tuple(_look_source(bind, tables, press_names) for bind in look.bind)
    return LookTuning(sources, math.radians(low_deg), math.radians(high_deg), press, scale)


def _look_source(bind: LookBind, tables: Tables, press_names: tuple[str, ...]) -> LookSourceTuning:
    """Return the numbers of one `bind` entry of `look`; an inverted axis has a negative one."""
    source = PLAIN_LOOK_SOURCE
    yaw = pitch = 0.0
    match bind:
        case MouseBind():
            yaw = math.radians(bind.count_deg)
            pitch = yaw * bind.pitch_ratio
            source = source._replace(kind=LOOK_DISPLACEMENT, displacement=mouse_tuning(bind))
        case TouchDragBind():
            yaw = pitch = math.radians(bind.deg_per_width)
            drag = PLAIN_DISPLACEMENT._replace(smooths=int(bind.half_life_s > 0.0), half_life_s=bind.half_life_s)
            source = source._replace(kind=LOOK_DISPLACEMENT, displacement=drag)
        case GyroBind():
            yaw = pitch = bind.turn_ratio
            gyro = GyroTuning(
                int(bind.levelled),
                int(bind.steady_below_deg_s > 0.0),
                int(bind.still_deg_s > 0.0),
                _press_number(press_names, bind.pause_press),
                math.radians(bind.steady_below_deg_s),
                math.radians(bind.still_deg_s),
            )
            least = math.radians(TREMBLING_DEG_S) * bind.turn_ratio
            source = source._replace(kind=LOOK_RATE, least=least, gyro=gyro)
        case LookStickBind():
            yaw, pitch = math.radians(bind.yaw_deg_s), math.radians(bind.pitch_deg_s)
            snaps = bind.snap_deg is not None
            snap_at, rearm_at = bind.snap_tilts
            if bind.snap_deg is not None:
                yaw = math.radians(bind.snap_deg)
            stick = StickLookTuning(
                stick_tuning(bind, tables),
                int(bind.ease_s > 0.0),
                int(bind.rim_boost > 0.0),
                int(snaps),
                bind.ease_s,
                bind.rim_boost,
                HOLD_S if bind.hold_s is None else bind.hold_s,
                snap_at,
                rearm_at,
            )
            source = source._replace(kind=LOOK_STICK, stick=stick)
    yaw_sign = -1.0 if bind.invert_yaw else 1.0
    pitch_sign = -1.0 if bind.invert_pitch else 1.0
    return source._replace(yaw=yaw * yaw_sign, pitch=pitch * pitch_sign)


def mouse_tuning(bind: MouseBind) -> DisplacementTuning:
    """Return smoothing and gain of a mouse as the kernels' numbers."""
    drag = PLAIN_DISPLACEMENT._replace(smooths=int(bind.half_life_s > 0.0), half_life_s=bind.half_life_s)
    gain = bind.hand_gain
    if gain is None:
        return drag
    return drag._replace(
        follows_hand=1,
        cm_per_count=CM_PER_INCH / bind.counts_per_inch,
        slow_cm_s=gain.from_cm_s,
        slow_gain=gain.slow,
        fast_cm_s=gain.to_cm_s,
        fast_gain=gain.fast,
    )


def press_tuning(press: PressTable, jumps: bool = False) -> PressTuning:
    """Return the numbers of one press; one that `jumps` waits for the ground, whatever it says of that."""
    return PressTuning(
        _STYLES[press.style],
        TAP_S if press.tap_s is None else press.tap_s,
        LONG_S if press.long_s is None else press.long_s,
        DOUBLE_S if press.double_s is None else press.double_s,
        int(press.waits_for_ground or jumps),
        press.buffer_s or 0.0,
        press.grace_s or 0.0,
    )


def mode_tuning(profile: Profile, mode_name: str, on_course: bool = False) -> ModeTuning:
    """Return every number of one mode. Angles in radians; `on_course` tells of a course with walls or heights."""
    mode = profile.mode[mode_name]
    steer = mode.steer
    gaits = profile.gaits_of(mode_name)
    names = profile.press_names
    tables = Tables()
    jumps = [each.jump.press for each in gaits.values() if each.jump]
    walled = steer.frame != "grid" and mode.comfort is None
    turning = turns_within_a_tick(mode, gaits.values(), on_course)
    teleport = steer.teleport if isinstance(steer, HandsSteer) else None
    margin_deg = SECTOR_MARGIN_DEG if steer.sector_margin_deg is None else steer.sector_margin_deg
    tick = Tuning(
        profile.max_dt_s,
        tuple(
            press_tuning(mode.press[name], name in jumps) if name in mode.press else SILENT_PRESS for name in names
        ),
        axis_tuning(mode.rise, tables),
        axis_tuning(mode.throttle, tables),
        axis_tuning(mode.turn, tables),
        look_tuning(mode.look, tables, names),
        move_tuning(mode.move, tables, names),
        frame_tuning(mode),
        (
            gait_tuning(gaits[mode.gait], NO_PRESS, walled),
            *(gait_tuning(gaits[gait], names.index(press), walled) for press, gait in mode.press_gaits.items()),
        ),
        _press_number(names, jumps[0] if jumps else None),
        int(turning),
        int(walled and on_course),
        comfort_tuning(mode.comfort) if mode.comfort else NO_COMFORT,
        _press_number(names, teleport.press if teleport else None),
        teleport.speed_m_s if teleport else 0.0,
        steer.sectors or 0,
        math.radians(margin_deg),
    )
    gyros = {bind.gyro: k for k, bind in enumerate(mode.look.bind if mode.look else ()) if isinstance(bind, GyroBind)}
    return ModeTuning(tick, tuple(tables.numbers), gyros)
