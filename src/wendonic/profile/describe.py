"""What a profile holds, in words."""

from typing import Any

from wendonic.intent import WorldAxes
from wendonic.look_units import zoom_ratio
from wendonic.profile.binds import Centred, Ramped, Tilted
from wendonic.profile.channels import LookTable, Move, Rise, Throttle, Turn
from wendonic.profile.look_binds import GyroBind, LookBind, LookStickBind, MouseBind, TouchDragBind
from wendonic.profile.move_binds import AxesBind, DpadBind, HandsBind, PointerBind, TouchStickBind
from wendonic.profile.press_binds import PressEntry, PressTable, TriggerEntry, WheelEntry, ZoneEntry
from wendonic.profile.schema import Gait, Mode, Profile, Steer, World
from wendonic.profile.shapes import DeadZone, ExpoCurve, KneeCurve, PointsCurve, PowerCurve, SCurve
from wendonic.profile.tuning import (
    DIAGONAL_FACTOR_USUAL,
    DOUBLE_S,
    HOLD_S,
    LONG_S,
    NOTCH_PULL,
    PACE_MARGIN,
    SECTOR_MARGIN_DEG,
    TAP_S,
)
from wendonic.profile.window import Window

_DIAGONALS = {
    "cap": "diagonals capped at full speed",
    "unit": "any input is full speed",
    "free": "diagonals free (41 % too fast with keys)",
    "factor": "both axes of a diagonal multiplied by",
}
_FRAMES = {
    "camera": "ahead is where the camera looks, flattened",
    "map": "ahead is the plan's +y, whatever the camera does",
}


def describe_profile(profile: Profile) -> list[str]:
    """Return lines of text: the axes, then every mode with its steering, sources and gait."""
    lines = [
        f'Profile "{profile.title}"' if profile.title else "Profile without a title",
        f"  axes: {describe_world(profile.world)}",
    ]
    lines += _window_lines(profile.window)
    for name, mode in profile.mode.items():
        lines += _mode_lines(name, mode, profile.gait_of(name), starts=name == profile.first_mode)
    return lines


def _window_lines(window: Window) -> list[str]:
    """Tell of the window where the profile does."""
    if window == Window():
        return []
    lines = [f"  window: {window.aspect_ratio:.4g} times as wide as high"]
    for name, zone in window.zone.items():
        across, down = (
            f"{zone.left:g} to {zone.right:g} of the width",
            f"{zone.top:g} to {zone.bottom:g} of the height",
        )
        lines.append(f'    zone "{name}": {across}, {down} from the top')
    return lines


def describe_world(world: World) -> str:
    """Return what the axes mean.

    >>> describe_world(World(right="+x", ahead="-z", up="+y"))
    'right is +x, ahead is -z, up is +y (right-handed)'
    >>> describe_world(World(right="+x", ahead="-y"))
    'right is +x, ahead is -y (2-D)'
    """
    handed = WorldAxes(world.right, world.ahead, world.up).right_handed
    up = f", up is {world.up}" if world.up else ""
    kind = "2-D" if handed is None else "right-handed" if handed else "left-handed"
    return f"right is {world.right}, ahead is {world.ahead}{up} ({kind})"


def _mode_lines(name: str, mode: Mode, gait: Gait, starts: bool) -> list[str]:
    lines = [
        f"  mode {name}{' (starts here)' if starts else ''}",
        f"    steer: {_FRAMES[mode.steer.frame]}",
        f"    face: the way of travel, turning at up to {mode.steer.turn_deg_s:g} deg/s{_sector_words(mode.steer)}",
    ]
    if mode.move:
        lines += [f"    move: {_merged(mode.move)}, {_move_words(mode.move)}"]
        lines += [f"      {source_words(bind)}" for bind in mode.move.bind]
    for channel, what in (("rise", mode.rise), ("throttle", mode.throttle), ("turn", mode.turn)):
        if what:
            lines += [f"    {channel}: {_merged(what)}", *(f"      {source_words(bind)}" for bind in what.bind)]
    if mode.look:
        lines.append(f"    look: {_look_table_words(mode.look)}")
        lines += [f"      {_look_words(bind)}" for bind in mode.look.bind]
    lines += [f"    press {press}: {_press_words(table)}" for press, table in mode.press.items()]
    stop_m = gait.top_speed_m_s**2 / (2.0 * gait.brake_m_s2)
    lines.append(
        f"    gait {mode.gait}: top speed {gait.top_speed_m_s:g} m/s, speeds up at {gait.accel_m_s2:g} m/s², "
        f"brakes at {gait.brake_m_s2:g} m/s² (stops from top speed in {stop_m:.2f} m)"
    )
    if mode.leave_to is not None:
        lines.append(f"    leaves to: {', '.join(mode.leave_to) or 'nowhere'}")
    if mode.held_presses == "drop":
        lines.append("    entered with presses held: they end, and count again once let go")
    return lines


def _sector_words(steer: Steer) -> str:
    if steer.sectors is None:
        return ""
    margin_deg = SECTOR_MARGIN_DEG if steer.sector_margin_deg is None else steer.sector_margin_deg
    return f"; one of {steer.sectors} facings, left {margin_deg:g} deg beyond its border"


def _move_words(move: Move) -> str:
    """Return steps 7 to 10 in the order in which they are taken; what jumps is said to."""
    words = [_DIAGONALS[move.diagonal]]
    if move.diagonal == "factor":
        words = [f"{words[0]} {move.diagonal_factor or DIAGONAL_FACTOR_USUAL:.4g}"]
    if move.paces:
        paces = ", ".join(f"{pace.amount:g} above {pace.above:g}" for pace in move.paces)
        margin = PACE_MARGIN if move.pace_margin is None else move.pace_margin
        words.append(f"paces {paces}, left {margin:g} lower (jumps)")
    words += [f"times {amount:g} while {press} is held" for press, amount in move.press_amounts.items()]
    if move.notches:
        pull = NOTCH_PULL if move.notch_pull is None else move.notch_pull
        words.append(f"drawn to {move.notches} directions by {pull:g}{' (jumps)' if pull == 1.0 else ''}")
    if move.one_euro:
        one = move.one_euro
        cutoffs = f"cutoff {one.min_cutoff_hz:g} Hz and {one.beta:g} Hz more per 1/s of speed"
        words.append(f"one-euro filter, {cutoffs}, speed behind {one.d_cutoff_hz:g} Hz")
    else:
        words.append(f"half-life {move.half_life_s:g} s" if move.half_life_s else "no smoothing")
    return ", ".join(words)


def _look_table_words(look: LookTable) -> str:
    low, high = look.pitch_limits_deg
    count = len(look.bind)
    words = f"{'1 source' if count == 1 else f'{count} sources, added'}, pitch {low:g} to {high:g} deg"
    if look.zoom is None:
        return words
    zoom = look.zoom
    ratio = zoom_ratio(zoom.fov_deg, zoom.zoom_fov_deg, zoom.match_at)
    where = {0.0: "the middle", 1.0: "the edge"}.get(zoom.match_at, f"{zoom.match_at:g} of the way to the edge")
    view = f"from {zoom.fov_deg:g} to {zoom.zoom_fov_deg:g} deg of view"
    return f"{words}; times {ratio:.4g} while {zoom.press} is held ({view}, alike at {where})"


def _merged(channel: Move | Rise | Throttle | Turn) -> str:
    count = len(channel.bind)
    ways = {"strongest": "the strongest of", "sum": "the sum of", "latest": "the latest of"}
    return "1 source" if count == 1 else f"{ways[channel.merge]} {count} sources"


def source_words(bind: Ramped | Tilted) -> str:
    """Return one source of `move`, `rise`, `throttle` or `turn` in words: its controls, then its numbers."""
    what = ""
    match bind:
        case AxesBind(axes=axes):
            what = f"axes: right {axes.x}, ahead {axes.y}"
        case HandsBind(hands=hands):
            what = f"{' and '.join(hands)} swung while squeezed, full at {bind.full_swing_m_s:g} m/s"
        case PointerBind(while_held=held):
            when = f" while {' or '.join(held)} is held" if held else ""
            what = f"pointer from the window's middle{when}, full at {bind.reach:g} of its height"
        case TouchStickBind(touch_stick=zone):
            rim = "is dragged along" if bind.past_rim == "drag" else "stays"
            away = f"full {bind.radius:g} of the height away from where it landed"
            what = f'thumb landing in "{zone}": {away}, which {rim} past that'
        case DpadBind(dpad=name):
            what = name
        case _:
            for key in ("keys", "touch_zones", "triggers"):
                table = getattr(bind, key, None)
                if table is not None:
                    what = f"{key.replace('_', ' ')}: {_listed(table.model_dump())}"
            what = what or getattr(bind, "stick", "") or getattr(bind, "axis", "")
    if isinstance(bind, Ramped):
        opposites = {"cancel": "opposites cancel", "latest": "the later wins", "earliest": "the earlier wins"}
        times = f"full {bind.rise_s:g} s after a press, none {bind.fall_s:g} s after letting go"
        times += ", the other side at once" if bind.reversal == "at_once" else ""
        return f"{what}; {times}; {opposites[getattr(bind, 'opposites', 'cancel')]}"
    return f"{what}: {_tilt_words(bind)}"


def _listed(lists: dict[str, Any]) -> str:
    return ", ".join(
        f"{way} {names if isinstance(names, str) else ' '.join(names)}" for way, names in lists.items() if names
    )


def _tilt_words(bind: Tilted | LookStickBind) -> str:
    zone, curve = bind.dead_zone, bind.curve
    match curve:
        case PowerCurve():
            form = f"power curve, exponent {curve.exponent:g}"
        case ExpoCurve() | SCurve():
            form = f"{curve.form} curve, amount {curve.amount:g}"
        case KneeCurve(at=at):
            form = f"knee at tilt {at[0]:g}, value {at[1]:g}"
        case PointsCurve(points=points):
            form = f"curve through {len(points)} points"
        case _:
            form = "linear"
    ends = f", from {curve.floor:g} to {curve.ceiling:g}" if (curve.floor, curve.ceiling) != (0.0, 1.0) else ""
    axes = ", each axis by itself" if curve.per_axis else ""
    device = ""
    if isinstance(bind, Centred):
        device = "" if bind.gate == "circle" else f"; {bind.gate} gate"
        device += f" of {len(bind.rim)} lengths" if bind.rim else ""
        device += f"; rests at {bind.centre[0]:g}, {bind.centre[1]:g}" if any(bind.centre) else ""
    return f"{_zone_words(zone)}; {form}{ends}{axes}{device}"


def _zone_words(zone: DeadZone) -> str:
    release = f", out until back at {zone.release:g}" if zone.release is not None else ""
    nothing = f"nothing up to tilt {zone.inner:g}"
    full = f"full from {zone.outer:g} on"
    return {
        "none": "no dead zone",
        "round": f"{nothing}, {full}{release}",
        "axes": f"each axis {nothing}, {full}{release}",
        "wedge": f"within {zone.inner:g} of an axis put on it, {full}{release}",
        "round+wedge": f"{nothing}, within {zone.inner:g} of an axis put on it, {full}{release}",
        "cut": f"{nothing}, then the raw tilt (a jump){release}",
    }[zone.form]


def _look_words(bind: LookBind) -> str:
    turned = [axis for axis, inverted in (("yaw", bind.invert_yaw), ("pitch", bind.invert_pitch)) if inverted]
    inverted = f"; {' and '.join(turned)} inverted" if turned else ""
    match bind:
        case MouseBind():
            if bind.deg_per_count is None:
                cm, dpi = bind.cm_per_turn or 34.0, bind.dpi or 800.0
                words = f"{cm:g} cm a turn at {dpi:g} dpi ({bind.count_deg:.4g} deg a count)"
            else:
                words = f"{bind.count_deg:g} deg a count"
            words += f", pitch {bind.pitch_ratio:g} of yaw" if bind.pitch_ratio != 1.0 else ""
            if bind.hand_gain:
                gain = bind.hand_gain
                ends = f"from {gain.slow:g} at {gain.from_cm_s:g} cm/s to {gain.fast:g} at {gain.to_cm_s:g} cm/s"
                words += f", gain {ends} of the hand"
            return f"mouse: {words}{_smoothed(bind.half_life_s)}{inverted}"
        case LookStickBind(stick=stick):
            rates = f"{bind.yaw_deg_s:g} deg/s yaw and {bind.pitch_deg_s:g} deg/s pitch at full tilt"
            rates += f", eased in over {bind.ease_s:g} s" if bind.ease_s else ""
            if bind.rim_boost:
                hold_s = HOLD_S if bind.hold_s is None else bind.hold_s
                rates += f", {bind.rim_boost:.0%} more after {hold_s:g} s at the rim"
            return f"{stick}: {rates}; {_tilt_words(bind)}{inverted}"
        case TouchDragBind(touch_drag=zone):
            words = f"{bind.deg_per_width:g} deg a window width{_smoothed(bind.half_life_s)}"
            return f'finger dragged from "{zone}": {words}{inverted}'
        case GyroBind(gyro=gyro):
            words = f"{gyro}: turns {bind.turn_ratio:g} times as far as the hand"
            words += ", about the world's up" if bind.levelled else ", about the pad's own axes"
            words += f", fading out below {bind.steady_below_deg_s:g} deg/s" if bind.steady_below_deg_s else ""
            words += f", bias found while within {bind.still_deg_s:g} deg/s" if bind.still_deg_s else ", bias kept"
            words += f", paused while {bind.pause_press} is held" if bind.pause_press else ""
            return f"{words}{inverted}"
    raise AssertionError(bind)


def _smoothed(half_life_s: float) -> str:
    return f", half-life {half_life_s:g} s" if half_life_s else ""


def _press_words(press: PressTable) -> str:
    limits = {"tap": (press.tap_s, TAP_S), "long": (press.long_s, LONG_S), "double": (press.double_s, DOUBLE_S)}
    own, usual = limits.get(press.style, (None, 0.0))
    limit_s = usual if own is None else own
    how = {
        "hold": "on while held",
        "toggle": "on and off in turns",
        "tap": f"let go within {limit_s:g} s",
        "long": f"on from {limit_s:g} s on",
        "double": f"on from the second press within {limit_s:g} s",
    }[press.style]
    words = [f"{', '.join(map(_entry_words, press.bind))}; {how}"]
    if press.buffer_s is not None or press.grace_s is not None:
        words.append(f"waits {press.buffer_s or 0:g} s for the ground, is given {press.grace_s or 0:g} s after it")
    return "; ".join(words)


def _entry_words(entry: PressEntry) -> str:
    match entry:
        case TriggerEntry():
            return f"{entry.control} from {entry.above:g} until {entry.release:g}"
        case ZoneEntry(zone=zone):
            return f'a finger in "{zone}"'
        case WheelEntry(wheel=way):
            return f"a wheel notch {'away from' if way == 'away' else 'towards'} the user"
    return entry.replace("+", " with ")
