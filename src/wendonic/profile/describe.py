"""What a profile holds, in words."""

from wendonic.look_units import zoom_ratio
from wendonic.profile.bind_words import goal_words, look_source_words, source_words
from wendonic.profile.channels import LookTable, Move, Rise, Throttle, Turn
from wendonic.profile.gait import GRAVITY_M_S2, Gait
from wendonic.profile.press_binds import PressEntry, PressTable, TriggerEntry, WheelEntry, ZoneEntry
from wendonic.profile.schema import Mode, Profile, World
from wendonic.profile.steer_tuning import RISE_M_S
from wendonic.profile.steer_words import comfort_lines, steer_lines
from wendonic.profile.tuning import (
    DIAGONAL_FACTOR_USUAL,
    DOUBLE_S,
    LONG_S,
    NOTCH_PULL,
    PACE_MARGIN,
    TAP_S,
)
from wendonic.profile.window import Window
from wendonic.world_axes import WorldAxes

_DIAGONALS = {
    "cap": "diagonals capped at full speed",
    "unit": "any input is full speed",
    "free": "diagonals free (41 % too fast with keys)",
    "factor": "both axes of a diagonal multiplied by",
}


def describe_profile(profile: Profile) -> list[str]:
    """Return lines of text: the axes, then every mode with its steering, sources and gait."""
    lines = [
        f'Profile "{profile.title}"' if profile.title else "Profile without a title",
        f"  axes: {describe_world(profile.world)}",
    ]
    lines += _window_lines(profile.window)
    for name, mode in profile.mode.items():
        lines += _mode_lines(name, mode, profile.gaits_of(name), starts=name == profile.first_mode)
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
    if window.plan:
        plan = window.plan
        across, along = f"{plan.left_m:g} to {plan.right_m:g} m", f"{plan.back_m:g} to {plan.ahead_m:g} m"
        lines.append(f"    shows the plan from {across} to the right and from {along} ahead")
    return lines


def describe_world(world: World) -> str:
    """Return what the axes mean.

    >>> describe_world(World(right="+x", ahead="-z", up="+y"))
    'right-handed, y up; ahead is -z, right is +x'
    >>> describe_world(World(right="+x", ahead="-y")), describe_world(World(right="+x", up="-y"))
    ('2-D from above; ahead is -y, right is +x', '2-D from the side, y down; right is +x')
    """
    upright = "" if world.up is None else f", {world.up[1]} {'up' if world.up[0] == '+' else 'down'}"
    if world.ahead is None:
        return f"2-D from the side{upright}; right is {world.right}"
    handed = WorldAxes(world.right, world.ahead, world.up).right_handed
    kind = "2-D from above" if handed is None else "right-handed" if handed else "left-handed"
    return f"{kind}{upright}; ahead is {world.ahead}, right is {world.right}"


def _mode_lines(name: str, mode: Mode, gaits: dict[str, Gait], starts: bool) -> list[str]:
    lines = [
        f"  mode {name}{' (starts here)' if starts else ''}",
        *steer_lines(mode.steer),
    ]
    if mode.move:
        lines += [f"    move: {_merged(mode.move)}, {_move_words(mode.move)}"]
        lines += [f"      {source_words(bind)}" for bind in mode.move.bind]
    for channel, what in (("rise", mode.rise), ("throttle", mode.throttle), ("turn", mode.turn)):
        if what:
            lines += [f"    {channel}: {_merged(what)}", *(f"      {source_words(bind)}" for bind in what.bind)]
    if mode.goal:
        lines += ["    goal: the latest of", *(f"      {goal_words(bind)}" for bind in mode.goal.bind)]
    if mode.comfort:
        lines += comfort_lines(mode.comfort)
    if mode.look:
        lines.append(f"    look: {_look_table_words(mode.look)}")
        lines += [f"      {look_source_words(bind)}" for bind in mode.look.bind]
    lines += [f"    press {press}: {_press_words(table)}" for press, table in mode.press.items()]
    if mode.steer.frame != "grid":
        switches = {gait: press for press, gait in mode.press_gaits.items()}
        for gait_name, gait in gaits.items():
            while_held = f" while {switches[gait_name]} is held" if gait_name in switches else ""
            lines.append(f"    {_gait_words(gait_name + while_held, gait, mode.steer.frame == 'fly')}")
    if mode.leave_to is not None:
        lines.append(f"    leaves to: {', '.join(mode.leave_to) or 'nowhere'}")
    if mode.held_presses == "drop":
        lines.append("    entered with presses held: they end, and count again once let go")
    return lines


def _gait_words(name: str, gait: Gait, flies: bool) -> str:
    words = f"gait {name}: top speed {gait.top_speed_m_s:g} m/s, "
    if gait.drag_per_s is not None:
        words += f"{gait.thrust_m_s2:g} m/s² of thrust against a drag of {gait.drag_per_s:g} /s"
    elif gait.coast_half_life_s is not None:
        words += f"speeds up at {gait.accel_m_s2:g} m/s², coasts with a half-life of {gait.coast_half_life_s:g} s"
    else:
        stop_m = gait.top_speed_m_s**2 / (2.0 * gait.brake_m_s2)
        words += (
            f"speeds up at {gait.accel_m_s2:g} m/s², brakes at {gait.brake_m_s2:g} m/s² "
            f"(stops from top speed in {stop_m:.2f} m)"
        )
    if gait.reverse_m_s2 is not None:
        words += f", back the other way at {gait.reverse_m_s2:g} m/s²"
    if gait.turn_loss:
        words += f", loses up to {100.0 * gait.turn_loss:g} % of it in turns"
    if flies:
        words += f", rises at {RISE_M_S if gait.rise_m_s is None else gait.rise_m_s:g} m/s"
    if gait.jump is not None:
        gravity = GRAVITY_M_S2 if gait.gravity_m_s2 is None else gait.gravity_m_s2
        start_m_s, rising_m_s2 = gait.jump.start_m_s(gravity), gait.jump.rising_m_s2(gravity)
        height_m, top_s = start_m_s**2 / (2.0 * rising_m_s2), start_m_s / rising_m_s2
        words += f"; by {gait.jump.press} it jumps {height_m:.2f} m high, {top_s:.2f} s up"
    elif gait.falls:
        words += f"; falls at {gait.gravity_m_s2:g} m/s²"
    return words


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
