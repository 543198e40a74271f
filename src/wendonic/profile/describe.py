"""What a profile holds, in words."""

from wendonic.intent import WorldAxes
from wendonic.profile.schema import Gait, KeysBind, Mode, PowerCurve, Profile, StickBind, World

_DIAGONALS = {
    "cap": "diagonals capped at full speed",
    "unit": "any input is full speed",
    "free": "diagonals free (41 % too fast with keys)",
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
    for name, mode in profile.mode.items():
        lines += _mode_lines(name, mode, profile.gait_of(name), starts=name == profile.first_mode)
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
    move = mode.move
    smoothing = f"half-life {move.half_life_s:g} s" if move.half_life_s else "no smoothing"
    count = len(move.bind)
    sources = "1 source" if count == 1 else f"the strongest of {count} sources"
    lines = [
        f"  mode {name}{' (starts here)' if starts else ''}",
        f"    steer: {_FRAMES[mode.steer.frame]}",
        f"    face: the way of travel, turning at up to {mode.steer.turn_deg_s:g} deg/s",
        f"    move: {sources}, {_DIAGONALS[move.diagonal]}, {smoothing}",
    ]
    lines += [f"      {_source_words(bind)}" for bind in move.bind]
    stop_m = gait.top_speed_m_s**2 / (2.0 * gait.brake_m_s2)
    lines.append(
        f"    gait {mode.gait}: top speed {gait.top_speed_m_s:g} m/s, speeds up at {gait.accel_m_s2:g} m/s², "
        f"brakes at {gait.brake_m_s2:g} m/s² (stops from top speed in {stop_m:.2f} m)"
    )
    if mode.leave_to is not None:
        lines.append(f"    leaves to: {', '.join(mode.leave_to) or 'nowhere'}")
    return lines


def _source_words(bind: KeysBind | StickBind) -> str:
    if isinstance(bind, KeysBind):
        lists = bind.keys.model_dump().items()
        keys = ", ".join(f"{name} {' '.join(codes)}" for name, codes in lists if codes)
        times = f"full {bind.rise_s:g} s after a press, none {bind.fall_s:g} s after letting go"
        return f"keys: {keys}; {times}; opposites cancel"
    zone, curve = bind.dead_zone, bind.curve
    shape = f"power curve, exponent {curve.exponent:g}" if isinstance(curve, PowerCurve) else "linear"
    return f"{bind.stick}: nothing up to tilt {zone.inner:g}, full from {zone.outer:g} on; {shape}"
