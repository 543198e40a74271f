"""One `bind` entry in words: its controls, then its numbers."""

from typing import Any

from wendonic.profile.binds import Centred, Ramped, Tilted
from wendonic.profile.goal_binds import GoalBind, TouchGoalBind
from wendonic.profile.look_binds import GyroBind, LookBind, LookStickBind, MouseBind, TouchDragBind
from wendonic.profile.move_binds import AxesBind, DpadBind, HandsBind, PointerBind, TouchStickBind
from wendonic.profile.shapes import DeadZone, ExpoCurve, KneeCurve, PointsCurve, PowerCurve, SCurve
from wendonic.profile.tuning import HOLD_S


def source_words(bind: Ramped | Tilted) -> str:
    """Return one source of `move`, `rise`, `throttle` or `turn` in words: its controls, then its numbers."""
    what = ""
    match bind:
        case AxesBind(axes=axes):
            what = f"axes: right {axes.x}, ahead {axes.y}"
        case HandsBind(hands=hands):
            what = f"{' and '.join(hands)} swung while squeezed, full at {bind.full_swing_m_s:g} m/s"
            what += f", {bind.boost:g} times as much with both" if len(hands) > 1 else ""
            what += f", slowing with a half-life of {bind.release_half_life_s:g} s"
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
        times = "at once" if bind.rise_s == bind.fall_s == 0.0 else times
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


def look_source_words(bind: LookBind) -> str:
    """Return one source of `look` in words."""
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
            if bind.snap_deg is not None:
                snap_at, rearm_at = bind.snap_tilts
                words = f"turns {bind.snap_deg:g} deg at once from tilt {snap_at:g}, again once back at {rearm_at:g}"
                return f"{stick}: {words}; {_tilt_words(bind)}{inverted}"
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


def goal_words(bind: GoalBind) -> str:
    """Return in words what gives a goal."""
    if isinstance(bind, TouchGoalBind):
        return f'a finger that landed in "{bind.touch}"'
    return f"the pointer while {' or '.join(bind.while_held)} is held" if bind.while_held else "the pointer"


def _smoothed(half_life_s: float) -> str:
    return f", half-life {half_life_s:g} s" if half_life_s else ""
