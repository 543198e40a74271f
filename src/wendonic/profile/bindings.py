"""From a profile to what a sampler reads: names of controls and places of zones."""

from typing import Any

from wendonic.devices.controls import PADS
from wendonic.devices.sources import (
    AxesSource,
    AxisSource,
    GoalSource,
    GyroSource,
    HandsSource,
    KeysSource,
    LookSource,
    ModeSources,
    MouseSource,
    MoveSource,
    PointedGoal,
    PointerSource,
    PressBind,
    ShownPlan,
    StickSource,
    SwitchBind,
    TouchDragSource,
    TouchedGoal,
    TouchStickSource,
    TouchZonesSource,
    TriggersSource,
    WheelBind,
    ZoneBind,
)
from wendonic.errors import ControlError, did_you_mean
from wendonic.profile.axis_binds import (
    AxisBind,
    RiseKeysBind,
    RiseTriggersBind,
    ThrottleKeysBind,
    ThrottleTriggersBind,
    TurnKeysBind,
    TurnTriggersBind,
)
from wendonic.profile.goal_binds import GoalBind, TouchGoalBind
from wendonic.profile.look_binds import GyroBind, LookBind, LookStickBind, TouchDragBind
from wendonic.profile.move_binds import (
    AxesBind,
    DpadBind,
    HandsBind,
    KeysBind,
    PointerBind,
    StickBind,
    TouchStickBind,
    TouchZonesBind,
)
from wendonic.profile.press_binds import PressEntry, TriggerEntry, WheelEntry, ZoneEntry
from wendonic.profile.schema import Profile
from wendonic.profile.steer import Faced, GotoSteer, GridSteer, HandsSteer, MapSteer
from wendonic.profile.window import Window


class _Seat:
    """A player's place: where the profile says `pad`, this one has another pad."""

    def __init__(self, seat: str | None) -> None:
        pad = "pad" if seat in (None, "pad0") else str(seat)
        if pad not in PADS:
            raise ControlError(f'unknown seat "{seat}"{did_you_mean(pad, PADS) or ";"} seats: {", ".join(PADS)}')
        self._prefix = f"{pad}."

    def own(self, name: str | None) -> str:
        """Return the control that `name` means in this seat."""
        if not name:
            return ""
        return self._prefix + name[4:] if name.startswith("pad.") else name

    def all_own(self, names: Any) -> tuple[str, ...]:
        """Return the controls that `names` mean."""
        return tuple(map(self.own, names))


def _move_source(bind: Any, window: Window, seat: _Seat) -> MoveSource:
    match bind:
        case KeysBind(keys=keys, opposites=opposites):
            return KeysSource(keys.right, keys.left, keys.ahead, keys.back, opposites)
        case DpadBind(dpad=dpad, opposites=opposites):
            right, left, up, down = ((f"{seat.own(dpad)}_{way}",) for way in ("right", "left", "up", "down"))
            return KeysSource(right, left, up, down, opposites)
        case StickBind(stick=stick):
            return StickSource(seat.own(stick))
        case AxesBind(axes=axes):
            return AxesSource(seat.own(axes.x), seat.own(axes.y))
        case TouchZonesBind(touch_zones=zones):
            lists = (zones.right, zones.left, zones.ahead, zones.back)
            return TouchZonesSource(*(tuple(map(window.zone_of, names)) for names in lists))
        case TouchStickBind(touch_stick=zone):
            return TouchStickSource(window.zone_of(zone), bind.radius, bind.past_rim == "drag", window.aspect_ratio)
        case PointerBind(while_held=names):
            return PointerSource(seat.all_own(names), bind.reach, window.aspect_ratio)
        case HandsBind(hands=hands):
            return HandsSource(hands)
    raise AssertionError(bind)


def _axis_source(bind: Any, seat: _Seat) -> AxisSource:
    match bind:
        case AxisBind(axis=axis):
            return AxesSource(x=seat.own(axis))
        case RiseKeysBind(keys=keys, opposites=opposites):
            return KeysSource(keys.up, keys.down, opposites=opposites)
        case ThrottleKeysBind(keys=keys, opposites=opposites):
            return KeysSource(keys.ahead, keys.back, opposites=opposites)
        case TurnKeysBind(keys=keys, opposites=opposites):
            return KeysSource(keys.right, keys.left, opposites=opposites)
        case RiseTriggersBind(triggers=pair):
            return TriggersSource(seat.own(pair.up), seat.own(pair.down))
        case ThrottleTriggersBind(triggers=pair):
            return TriggersSource(seat.own(pair.ahead), seat.own(pair.back))
        case TurnTriggersBind(triggers=pair):
            return TriggersSource(seat.own(pair.right), seat.own(pair.left))
    raise AssertionError(bind)


def _look_source(bind: LookBind, window: Window, seat: _Seat) -> LookSource:
    match bind:
        case LookStickBind(stick=stick):
            return StickSource(seat.own(stick))
        case TouchDragBind(touch_drag=zone):
            return TouchDragSource(window.zone_of(zone), window.aspect_ratio)
        case GyroBind(gyro=gyro):
            return GyroSource(seat.own(gyro))
    return MouseSource()


def _goal_source(bind: GoalBind, window: Window, seat: _Seat) -> GoalSource:
    if window.plan is None:
        raise AssertionError("a profile whose goals are pointed at has a plan")
    plan = ShownPlan(window.plan.left_m, window.plan.back_m, window.plan.right_m, window.plan.ahead_m)
    if isinstance(bind, TouchGoalBind):
        return TouchedGoal(window.zone_of(bind.touch), plan)
    return PointedGoal(seat.all_own(bind.while_held), plan)


def _press_bind(entry: PressEntry, window: Window, seat: _Seat) -> PressBind:
    match entry:
        case TriggerEntry():
            return SwitchBind((seat.own(entry.control),), entry.above, entry.release)
        case ZoneEntry():
            return ZoneBind(window.zone_of(entry.zone))
        case WheelEntry():
            return WheelBind(towards=entry.wheel == "towards")
    return SwitchBind(seat.all_own(entry.split("+")))


def mode_sources(profile: Profile, mode_name: str, seat: str | None = None) -> ModeSources:
    """Return what one mode binds, channel by channel, in the order of the file.

    In a `seat` such as "pad1" the profile's `pad` is that pad. Raises `ControlError` for a seat that does not exist.
    """
    own = _Seat(seat)
    mode = profile.mode[mode_name]
    window = profile.window
    steer = mode.steer
    going = isinstance(steer, GotoSteer)

    def entries(channel: Any) -> Any:
        return channel.bind if channel else ()

    return ModeSources(
        move=tuple(_move_source(bind, window, own) for bind in entries(mode.move)),
        rise=tuple(_axis_source(bind, own) for bind in entries(mode.rise)),
        throttle=tuple(_axis_source(bind, own) for bind in entries(mode.throttle)),
        turn=tuple(_axis_source(bind, own) for bind in entries(mode.turn)),
        look=tuple(_look_source(bind, window, own) for bind in entries(mode.look)),
        presses=tuple(
            tuple(_press_bind(entry, window, own) for entry in entries(mode.press.get(name)))
            for name in profile.press_names
        ),
        goal=tuple(_goal_source(bind, window, own) for bind in entries(mode.goal)) if going else None,
        aims=isinstance(steer, Faced) and steer.face == "aim",
        tracks=isinstance(steer, HandsSteer) or mode.comfort is not None,
        points=steer.teleport.hand if isinstance(steer, HandsSteer) and steer.teleport else "",
        across=isinstance(steer, MapSteer) and steer.side_view,
        taps=isinstance(steer, GridSteer),
    )
