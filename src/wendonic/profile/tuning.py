"""From a profile to what the tick runs on: the kernels' numbers of one mode."""

import math
from typing import NamedTuple

from wendonic.kernels.axis_channel import AxisTuning
from wendonic.kernels.diagonal import DIAGONAL_CAP, DIAGONAL_FACTOR, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.kernels.drag_look import PLAIN_DRAG, DragTuning
from wendonic.kernels.formed_source import FormTuning
from wendonic.kernels.gyro_look import GyroTuning
from wendonic.kernels.look import (
    LOOK_DISPLACEMENT,
    LOOK_RATE,
    LOOK_STICK,
    SILENT_LOOK_SOURCE,
    LookSourceTuning,
    LookTuning,
)
from wendonic.kernels.loop import Gaits
from wendonic.kernels.merge import MERGE_LATEST, MERGE_STRONGEST, MERGE_SUM
from wendonic.kernels.move_rules import NO_RULES, MoveRules
from wendonic.kernels.one_euro import OneEuroTuning
from wendonic.kernels.paces import MOST_PACES, PaceTuning
from wendonic.kernels.pipeline import GaitTuning, MoveTuning, SteerTuning, Tuning
from wendonic.kernels.places import (
    AXIS_SOURCES,
    GAIT,
    GAITS,
    LOOK_PAUSED,
    LOOK_SOURCE_WIDTH,
    LOOK_SOURCES,
    LOOK_START,
    POINT_START,
    RISE_PLACE,
    SOURCE_WIDTH,
    SOURCES,
    TAKEN_OFF,
    THROTTLE_PLACE,
    TURN_PLACE,
    ZOOMED,
)
from wendonic.kernels.press import (
    SILENT_PRESS,
    STYLE_DOUBLE,
    STYLE_HOLD,
    STYLE_LONG,
    STYLE_TAP,
    STYLE_TOGGLE,
    PressTuning,
)
from wendonic.kernels.source import SILENT_SOURCE, SourceTuning
from wendonic.kernels.steer_frame import FRAME_BESIDE
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.stick_look import StickLookTuning
from wendonic.kernels.swing import SwingTuning
from wendonic.look_units import CM_PER_INCH, zoom_ratio
from wendonic.profile.binds import Ramped, Tilted
from wendonic.profile.channels import LookTable, Move, Rise, Throttle, Turn
from wendonic.profile.look_binds import GyroBind, LookBind, LookStickBind, MouseBind, TouchDragBind
from wendonic.profile.move_binds import HandsBind
from wendonic.profile.press_binds import PressTable
from wendonic.profile.schema import Mode, Profile
from wendonic.profile.source_tuning import Tables, shape_of, source_tuning, swing_tuning
from wendonic.profile.steer import Faced, HandsSteer
from wendonic.profile.steer_tuning import FRAMES, stays_in_tick, steering_tuning

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


class HeldFlag(NamedTuple):
    """What a held press puts into the sample: at `place`, `value`; of several the largest counts."""

    press: int
    place: int
    value: float


class ModeTuning(NamedTuple):
    """Every number of one mode.

    `forms` are the sources that are shaped before the tick, each with where its numbers begin in the sample; `axes`
    are `rise`, `throttle` and `turn`; `gyros` says which source of `look` a rate sensor is; `presses` those of the
    whole profile, silent where the mode does not bind them; `tables` holds measured rims and curves through points;
    `sectors` is 0 for none, its margin in rad. `swing` says the same of hands that swing, None without any;
    `steering` is None where the tick itself does all the steering; `gaits` are its numbers with each of the mode's
    gaits, `steering` first; `jump` is the place of the press that jumps, -1 for none.
    """

    tick: Tuning
    forms: tuple[tuple[int, FormTuning], ...]
    swing: tuple[int, SwingTuning] | None
    steering: SteeringTuning | None
    gaits: Gaits | None
    jump: int
    axes: tuple[AxisTuning, AxisTuning, AxisTuning]
    look: LookTuning
    gyros: dict[str, int]
    presses: tuple[PressTuning, ...]
    flags: tuple[HeldFlag, ...]
    sectors: int
    sector_margin: float
    tables: tuple[float, ...]


class _Builder:
    """Makes the numbers of one mode, channel by channel."""

    def __init__(self) -> None:
        self.tables = Tables()
        self.forms: list[tuple[int, FormTuning]] = []
        self.swing: tuple[int, SwingTuning] | None = None

    def _sources(
        self, binds: tuple[Ramped | Tilted, ...], first_place: int, half_life_s: float = 0.0, capped: bool = False
    ) -> list[SourceTuning]:
        sources = []
        for place, bind in enumerate(binds, first_place):
            source, form = source_tuning(bind, self.tables, half_life_s, capped)
            sources.append(source)
            if form:
                self.forms.append((place * SOURCE_WIDTH, form))
            if isinstance(bind, HandsBind):
                self.swing = (place * SOURCE_WIDTH, swing_tuning(bind, self.tables))
        return sources

    def move(self, move: Move | None) -> MoveTuning:
        sources: list[SourceTuning] = []
        if move:
            capped = move.diagonal == "cap" and move.merge != "sum"
            sources = self._sources(move.bind, 0, 0.0 if move.one_euro else move.half_life_s, capped)
        first, second, third, fourth = sources + [SILENT_SOURCE] * (SOURCES - len(sources))
        four = (first, second, third, fourth)
        if move is None:
            return MoveTuning(0, four, MERGE_STRONGEST, DIAGONAL_CAP, 0.0)
        merge, diagonal, rules = _MERGES[move.merge], _DIAGONALS[move.diagonal], move_rules(move)
        # The other rules are straight in a ramp, or have a closed form under it.
        bent = rules.any > 0 or diagonal == DIAGONAL_UNIT or merge == MERGE_SUM
        ramps = any(source.rise_s + source.fall_s > 0.0 for source in sources)
        return MoveTuning(len(sources), four, merge, diagonal, move.half_life_s, rules, int(bent and ramps))

    def axis(self, channel: Rise | Throttle | Turn | None, first_place: int) -> AxisTuning:
        sources = self._sources(channel.bind, first_place) if channel else []
        first, second, third = sources + [SILENT_SOURCE] * (AXIS_SOURCES - len(sources))
        merge = _MERGES[channel.merge] if channel else MERGE_STRONGEST
        return AxisTuning(len(sources), (first, second, third), merge)

    def look(self, look: LookTable | None) -> LookTuning:
        sources = [self._look_source(bind) for bind in look.bind] if look else []
        first, second, third, fourth = sources + [SILENT_LOOK_SOURCE] * (LOOK_SOURCES - len(sources))
        low_deg, high_deg = look.pitch_limits_deg if look else (-90.0, 90.0)
        scale = 1.0
        if look and look.zoom:
            scale = zoom_ratio(look.zoom.fov_deg, look.zoom.zoom_fov_deg, look.zoom.match_at)
        four = (first, second, third, fourth)
        return LookTuning(len(sources), four, math.radians(low_deg), math.radians(high_deg), scale)

    def _look_source(self, bind: LookBind) -> LookSourceTuning:
        """Return the numbers of one `bind` entry of `look`; an inverted axis has a negative one."""
        silent = SILENT_LOOK_SOURCE
        yaw = pitch = 0.0
        match bind:
            case MouseBind():
                yaw = math.radians(bind.count_deg)
                pitch = yaw * bind.pitch_ratio
                silent = silent._replace(kind=LOOK_DISPLACEMENT, drag=mouse_drag(bind))
            case TouchDragBind():
                yaw = pitch = math.radians(bind.deg_per_width)
                drag = PLAIN_DRAG._replace(half_life_s=bind.half_life_s)
                silent = silent._replace(kind=LOOK_DISPLACEMENT, drag=drag)
            case GyroBind():
                yaw = pitch = bind.turn_ratio
                steady, still = math.radians(bind.steady_below_deg_s), math.radians(bind.still_deg_s)
                gyro = GyroTuning(int(bind.levelled), steady, still)
                least = math.radians(TREMBLING_DEG_S) * bind.turn_ratio
                silent = silent._replace(kind=LOOK_RATE, least=least, gyro=gyro)
            case LookStickBind():
                yaw, pitch = math.radians(bind.yaw_deg_s), math.radians(bind.pitch_deg_s)
                hold_s = HOLD_S if bind.hold_s is None else bind.hold_s
                snaps = (0.0, 0.0)
                if bind.snap_deg is not None:
                    snaps, yaw = bind.snap_tilts, math.radians(bind.snap_deg)
                stick = StickLookTuning(*shape_of(bind, self.tables), bind.ease_s, bind.rim_boost, hold_s, *snaps)
                silent = silent._replace(kind=LOOK_STICK, stick=stick)
        yaw_sign = -1.0 if bind.invert_yaw else 1.0
        pitch_sign = -1.0 if bind.invert_pitch else 1.0
        return silent._replace(yaw=yaw * yaw_sign, pitch=pitch * pitch_sign)


def mouse_drag(bind: MouseBind) -> DragTuning:
    """Return smoothing and gain of a mouse as the kernels' numbers."""
    drag = PLAIN_DRAG._replace(half_life_s=bind.half_life_s)
    gain = bind.hand_gain
    if gain is None:
        return drag
    return drag._replace(
        cm_per_count=CM_PER_INCH / bind.counts_per_inch,
        slow_cm_s=gain.from_cm_s,
        slow_gain=gain.slow,
        fast_cm_s=gain.to_cm_s,
        fast_gain=gain.fast,
    )


def move_rules(move: Move) -> MoveRules:
    """Return steps 7 to 10 where they ask for more than a diagonal rule and a half-life; else none."""
    rules = NO_RULES
    if move.diagonal == "factor":
        rules = rules._replace(any=1, diagonal_factor=move.diagonal_factor or DIAGONAL_FACTOR_USUAL)
    if move.paces:
        spare = [0.0] * (MOST_PACES - len(move.paces))
        a, b, c, d = [pace.above for pace in move.paces] + spare
        e, f, g, h = [pace.amount for pace in move.paces] + spare
        margin = PACE_MARGIN if move.pace_margin is None else move.pace_margin
        rules = rules._replace(any=1, paces=PaceTuning(len(move.paces), (a, b, c, d), (e, f, g, h), margin))
    if move.press_amounts:
        rules = rules._replace(any=1)
    if move.notches:
        pull = NOTCH_PULL if move.notch_pull is None else move.notch_pull
        rules = rules._replace(any=1, notches=move.notches, notch_pull=pull)
    if move.one_euro:
        numbers = move.one_euro
        one_euro = OneEuroTuning(numbers.min_cutoff_hz, numbers.beta, numbers.d_cutoff_hz)
        rules = rules._replace(any=1, one_euro=one_euro)
    return rules


def held_flags(mode: Mode, press_names: tuple[str, ...]) -> tuple[HeldFlag, ...]:
    """Return what the presses of a mode put into the sample while they are held."""
    flags: list[HeldFlag] = []
    if mode.move:
        for name, amount in mode.move.press_amounts.items():
            flags.append(HeldFlag(press_names.index(name), TAKEN_OFF, 1.0 - amount))
    if mode.look:
        for index, bind in enumerate(mode.look.bind):
            if isinstance(bind, GyroBind) and bind.pause_press is not None:
                place = LOOK_START + index * LOOK_SOURCE_WIDTH + LOOK_PAUSED
                flags.append(HeldFlag(press_names.index(bind.pause_press), place, 1.0))
        if mode.look.zoom:
            flags.append(HeldFlag(press_names.index(mode.look.zoom.press), ZOOMED, 1.0))
    if isinstance(mode.steer, HandsSteer) and mode.steer.teleport:
        flags.append(HeldFlag(press_names.index(mode.steer.teleport.press), POINT_START, 1.0))
    return tuple(flags)


def gait_flags(mode: Mode, press_names: tuple[str, ...]) -> list[HeldFlag]:
    """Return what the presses put into the sample that switch gaits: of several, the last in the table counts."""
    return [
        HeldFlag(press_names.index(press), GAIT, float(place))
        for place, press in enumerate(mode.press_gaits, start=1)
    ]


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
    """Return every number of one mode; the kernels' types are the same for all profiles. Angles in radians.

    `on_course` tells of walls or heights, which only `steering` knows of.
    """
    mode = profile.mode[mode_name]
    gait = profile.gait_of(mode_name)
    build = _Builder()
    steer = mode.steer
    gaits = profile.gaits_of(mode_name)
    beside: Gaits | None = None
    if on_course or not stays_in_tick(mode, gaits.values()):
        # One for each press, so that of several held ones the last in the table has the largest place.
        first, *others = [steering_tuning(mode, gaits[name]) for name in (mode.gait, *mode.press_gaits.values())]
        second, third, fourth = others + [first] * (GAITS - 1 - len(others))
        beside = (first, second, third, fourth)
    steering = beside[0] if beside else None
    jumps = [each.jump.press for each in gaits.values() if each.jump]
    turn_deg_s = steer.turn_rate_deg_s if isinstance(steer, Faced) else 0.0
    tick = Tuning(
        profile.max_dt_s,
        build.move(mode.move),
        SteerTuning(FRAME_BESIDE if steering else FRAMES[steer.frame], math.radians(turn_deg_s)),
        GaitTuning(gait.top_speed_m_s, gait.accel_m_s2, gait.brake_m_s2),
    )
    axes = (
        build.axis(mode.rise, RISE_PLACE),
        build.axis(mode.throttle, THROTTLE_PLACE),
        build.axis(mode.turn, TURN_PLACE),
    )
    look = build.look(mode.look)
    names = profile.press_names
    jump = names.index(jumps[0]) if jumps else NO_PRESS
    margin_deg = SECTOR_MARGIN_DEG if steer.sector_margin_deg is None else steer.sector_margin_deg
    return ModeTuning(
        tick,
        tuple(build.forms),
        build.swing,
        steering,
        beside,
        jump,
        axes,
        look,
        {bind.gyro: k for k, bind in enumerate(mode.look.bind if mode.look else ()) if isinstance(bind, GyroBind)},
        tuple(
            press_tuning(mode.press[name], name in jumps) if name in mode.press else SILENT_PRESS for name in names
        ),
        (*held_flags(mode, names), *gait_flags(mode, names)),
        steer.sectors or 0,
        math.radians(margin_deg),
        tuple(build.tables.numbers),
    )
