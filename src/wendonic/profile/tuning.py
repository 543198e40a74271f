"""Turns a mode of a profile into the numbers of the kernels."""

from collections.abc import Iterable
from typing import NamedTuple

from wendonic.arithmetic import radians
from wendonic.kernels.axis_channel import NO_AXIS
from wendonic.kernels.body.comfort import NO_COMFORT
from wendonic.kernels.look.look import NO_LOOK
from wendonic.kernels.move.move import NO_MOVE
from wendonic.kernels.press.press import SILENT_PRESS
from wendonic.kernels.tuning import Tuning
from wendonic.profile.schema.gait import Gait
from wendonic.profile.schema.look_binds import GyroBind
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.steer.hands import HandsSteer
from wendonic.profile.schema.steer.sprite import SECTORS_BY, TIES, Faced

NO_PRESS = -1


class ModeTuning(NamedTuple):
    """Every number of one mode: those of its tick, and the tables of measured rims and curves through points that
    they refer to. `gyros` says which sources of `look` are rate sensors.
    """

    tick: Tuning
    tables: tuple[float, ...]
    gyros: dict[str, int]


def turns_within_a_tick(mode: Mode, gaits: Iterable[Gait], on_course: bool) -> bool:
    """Return whether the direction may turn within a tick, so that the tick is cut into parts. It does not turn on
    level ground, with the frames camera and map, facing the travel, with a plain gait; squares keep their own time.
    """
    steer = mode.steer
    if steer.frame == "grid":
        return False
    if on_course or mode.comfort is not None or mode.press_gaits or not all(gait.plain for gait in gaits):
        return True
    usual = steer.frame in ("camera", "map") and isinstance(steer, Faced) and steer.face == "travel"
    return not usual or steer.slopes is not None


def mode_tuning(profile: Profile, mode_name: str, on_course: bool = False) -> ModeTuning:
    """Return every number of one mode. Angles in radians; `on_course` says whether there are walls or heights."""
    mode = profile.mode[mode_name]
    steer = mode.steer
    gaits = profile.gaits_of(mode_name)
    names = profile.press_names
    rows = NumberRows()
    jumps = [each.jump.press for each in gaits.values() if each.jump]
    loses = any(each.turn_loss > 0.0 for each in gaits.values())
    walled = steer.frame != "grid"
    heavy = on_course and steer.frame not in ("grid", "fly")
    tracked = heavy and (mode.comfort is not None or isinstance(steer, HandsSteer))
    teleport = steer.teleport if isinstance(steer, HandsSteer) else None
    tick = Tuning(
        profile.max_dt_s,
        tuple(mode.press[name].tuning(name in jumps) if name in mode.press else SILENT_PRESS for name in names),
        mode.rise.tuning(rows) if mode.rise else NO_AXIS,
        mode.throttle.tuning(rows) if mode.throttle else NO_AXIS,
        mode.turn.tuning(rows) if mode.turn else NO_AXIS,
        mode.look.tuning(rows, names) if mode.look else NO_LOOK,
        mode.move.tuning(rows, names, steer.seen_from_side) if mode.move else NO_MOVE,
        steer.tuning(mode),
        (
            gaits[mode.gait].tuning(NO_PRESS, walled, tracked, loses),
            *(
                gaits[gait].tuning(names.index(press), walled, tracked, loses)
                for press, gait in mode.press_gaits.items()
            ),
        ),
        names.index(jumps[0]) if jumps else NO_PRESS,
        int(turns_within_a_tick(mode, gaits.values(), on_course)),
        int(walled and on_course),
        mode.comfort.tuning() if mode.comfort else NO_COMFORT,
        names.index(teleport.press) if teleport else NO_PRESS,
        teleport.speed_m_s if teleport else 0.0,
        steer.sectors or 0,
        radians(steer.sector_margin_deg),
        TIES.number(steer.sector_tie),
        SECTORS_BY.number(steer.sector_by),
    )
    gyros = {bind.gyro: k for k, bind in enumerate(mode.look.bind if mode.look else ()) if isinstance(bind, GyroBind)}
    return ModeTuning(tick, tuple(rows.numbers), gyros)
