"""What a mode binds, as the page's door reads it: kinds, slots of the held state, and numbers, all in JSON."""

from collections.abc import Sequence
from typing import Any

from wendonic.devices.controls import CONTROLS, RELEASES, Control, find_kind
from wendonic.devices.sampler import CHANNELS, Sampler
from wendonic.devices.sources.axes import AxesSource, TriggersSource
from wendonic.devices.sources.base import Source
from wendonic.devices.sources.goal import GoalSource, PointedGoal
from wendonic.devices.sources.gyro import GyroSource
from wendonic.devices.sources.hands import HAND_OFFSETS, SQUEEZED, HandsSource
from wendonic.devices.sources.keys import KeysSource
from wendonic.devices.sources.mouse import MouseSource
from wendonic.devices.sources.names import find_axis, find_switch
from wendonic.devices.sources.pointer import PointerSource
from wendonic.devices.sources.presses import TOWARDS, StickBind, SwitchBind, UnlessBind, WheelBind, ZoneBind
from wendonic.devices.sources.silent import SilentSource
from wendonic.devices.sources.stick import StickSource
from wendonic.devices.sources.touch import TouchDragSource, TouchStickSource, TouchZonesSource

Content = dict[str, Any]


def control_table() -> Content:
    """Return every control, and what each loss releases."""
    known: dict[str, Control] = {control.name: control for control in CONTROLS.values()}
    return {
        "table": [
            [one.name, one.kind, one.device, one.unit, one.slot, one.width, one.low, one.high]
            for one in known.values()
        ],
        "releases": {loss: list(units) for loss, units in RELEASES.items()},
    }


def bindings(sampler: Sampler) -> Content:
    """Return what a sampler reads."""
    sources, layout = sampler.sources, sampler.layout
    return {
        "channels": {
            channel: [_source(source, start) for source, start in zip(of_channel, starts, strict=True)]
            for (channel, starts), of_channel in zip(layout.channels.items(), sources.channels, strict=True)
        },
        "presses": [[_press(bind) for bind in binds] for binds in sources.presses],
        "goal": None if sources.goal is None else _goal(sources.goal, sources.goals_wait),
        "aims": sources.aims,
        "tracks": sources.tracks,
        "points": CONTROLS[f"{sources.points}.pose"].slot if sources.points else -1,
        "devices": sampler.devices,
        "atRest": list(layout.at_rest),
        "starts": {
            name: getattr(layout, name) for name in "presses view ground goal aim pointers head pointing wall".split()
        }
        | {"channels": {channel: list(layout.channels[channel]) for channel in CHANNELS}},
    }


def _slots(names: Sequence[str]) -> list[int]:
    return [find_switch(name).slot for name in names]


def _source(source: Source, start: int) -> Content:
    match source:
        case SilentSource():
            return {"kind": "silent"}
        case KeysSource():
            order = source.opposites if source.in_order else ""
            return {
                "kind": "keys",
                "start": start,
                "lists": [list(slots) for slots in source.slots()],
                "order": order,
            }
        case StickSource():
            return {"kind": "stick", "start": start, "slot": source.slot()}
        case MouseSource():
            return {"kind": "mouse", "start": start}
        case GyroSource(control=name):
            control = find_kind(name, "rates")
            accel = find_kind(f"{control.unit}.accel", "rates")
            return {"kind": "rates", "start": start, "gyro": control.slot, "accel": accel.slot}
        case AxesSource(x=first, y=second) | TriggersSource(positive=first, negative=second):
            found = [(start + index, *find_axis(name)[1:]) for index, name in enumerate((first, second)) if name]
            return {"kind": "axes", "start": start, "axes": [list(one) for one in found]}
        case PointerSource():
            held = _slots(source.while_held)
            shape = {"reach": source.reach, "aspectRatio": source.aspect_ratio}
            return {"kind": "pointer", "start": start, "held": held, **shape}
        case TouchStickSource():
            shape = {"radius": source.radius, "drag": source.drag, "aspectRatio": source.aspect_ratio}
            zone, middle = list(source.zone), source.middle and list(source.middle)
            return {"kind": "thumb", "start": start, "zone": zone, "middle": middle, **shape}
        case TouchDragSource():
            zone = list(source.zone)
            return {"kind": "drag", "start": start, "zone": zone, "aspectRatio": source.aspect_ratio}
        case TouchZonesSource():
            sides = (source.right, source.left, source.forward, source.back)
            return {"kind": "zones", "start": start, "lists": [[list(zone) for zone in zones] for zones in sides]}
        case HandsSource():
            hands = [
                {
                    "pose": CONTROLS[f"{name}.pose"].slot,
                    "squeeze": CONTROLS[f"{name}.squeeze"].slot,
                    "index": start + HAND_OFFSETS[name],
                }
                for name in source.hands
            ]
            return {"kind": "hands", "start": start, "hands": hands, "least": SQUEEZED if source.squeezed else 0.0}
    raise TypeError(f"{source!r} is not a source that the page knows")


def _press(bind: Any) -> Content:
    match bind:
        case SwitchBind(controls=controls, above=above, release=release):
            device = find_switch(controls[-1]).device or "keys"
            return {
                "kind": "switches",
                "slots": _slots(controls),
                "above": above,
                "release": release,
                "device": device,
            }
        case ZoneBind(zone=zone):
            return {"kind": "zone", "zone": list(zone)}
        case WheelBind(towards=towards):
            return {"kind": "wheel", "towards": towards}
        case StickBind(stick=stick, towards=towards, above=above, release=release):
            control = find_kind(stick, "stick")
            axis, sign = TOWARDS[towards]
            limits = {"above": above, "release": release, "device": control.device or "pad"}
            return {"kind": "stick", "slot": control.slot, "index": axis, "sign": sign, **limits}
        case UnlessBind(controls=controls):
            return {"kind": "unless", "slots": _slots(controls)}
    raise TypeError(f"{bind!r} is not a binding that the page knows")


def _goal(sources: Sequence[GoalSource], wait: bool) -> Content:
    pointed = [
        {"held": _slots(one.while_held), "plan": list(one.plan)} for one in sources if isinstance(one, PointedGoal)
    ]
    touched = [
        {"zone": list(one.zone), "plan": list(one.plan)} for one in sources if not isinstance(one, PointedGoal)
    ]
    return {"wait": wait, "pointed": pointed, "touched": touched}
