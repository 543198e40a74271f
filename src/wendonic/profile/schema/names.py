"""Types of control names in fields of a profile, and of numbers that many fields share."""

from typing import Annotated

from pydantic import AfterValidator, Field

from wendonic.devices.controls import CONTROLS, PADS, find_key, find_kind
from wendonic.devices.sources.names import find_axis, find_switch
from wendonic.errors import ControlError, did_you_mean
from wendonic.profile.schema.field_words import Holds
from wendonic.profile.schema.table import own_fault


def _key_code(code: str) -> str:
    try:
        return find_key(code).name.removeprefix("key.")
    except ControlError as error:
        raise own_fault(str(error)) from None


def _stick_name(name: str) -> str:
    try:
        return find_kind(name, "stick").name
    except ControlError as error:
        raise own_fault(str(error)) from None


def _gyro_name(name: str) -> str:
    try:
        control = find_kind(name, "rates")
    except ControlError as error:
        raise own_fault(str(error)) from None
    if not control.name.endswith(".gyro"):
        raise own_fault(f"{control.name} is not a rate sensor; allowed: {control.unit}.gyro")
    return control.name


def _switch_name(name: str) -> str:
    try:
        return find_switch(name).name
    except ControlError as error:
        raise own_fault(str(error)) from None


def _chord(names: str) -> str:
    """Check "ControlLeft+KeyC": keys or buttons that are down together."""
    return "+".join(_switch_name(name.strip()) for name in names.split("+"))


def _axis_name(name: str) -> str:
    try:
        control, _, _ = find_axis(name)
    except ControlError as error:
        raise own_fault(str(error)) from None
    return control.name if control.kind == "button" else f"{control.name}.{name[-1]}"


def _trigger_name(name: str) -> str:
    found = _switch_name(name)
    if CONTROLS[found].kind == "key":
        raise own_fault(
            f'"{name}" is a key; allowed: a trigger or button such as pad.right_trigger; keys go under keys'
        )
    return found


def _pad_name(name: str) -> str:
    pad = "pad" if name == "pad0" else name
    if pad not in PADS:
        raise own_fault(f'found "{name}"{did_you_mean(name, PADS) or ";"} allowed: {", ".join(PADS)}')
    return pad


def _dpad_name(name: str) -> str:
    pad, dot, last = name.partition(".")
    if (pad not in PADS and pad != "pad0") or f"{dot}{last}" != ".dpad":
        raise own_fault(f'found "{name}"; allowed: pad.dpad, or pad1.dpad up to {PADS[-1]}.dpad')
    return "pad.dpad" if pad == "pad0" else name


PadName = Annotated[str, AfterValidator(_pad_name), Holds("pad")]
DpadName = Annotated[str, AfterValidator(_dpad_name), Holds("d-pad")]
KeyCode = Annotated[str, AfterValidator(_key_code), Holds("key")]
KeyList = Annotated[tuple[KeyCode, ...], Field(strict=False)]
StickName = Annotated[str, AfterValidator(_stick_name), Holds("stick")]
GyroName = Annotated[str, AfterValidator(_gyro_name), Holds("motion sensor")]
SwitchName = Annotated[str, AfterValidator(_switch_name), Holds("key or button")]
ChordName = Annotated[str, AfterValidator(_chord), Holds("control or chord")]
TriggerName = Annotated[str, AfterValidator(_trigger_name), Holds("trigger or button")]
AxisName = Annotated[str, AfterValidator(_axis_name), Holds("axis")]
GaitName = Annotated[str, Holds("gait")]
ModeName = Annotated[str, Holds("mode")]
PressName = Annotated[str, Holds("press")]
SeatName = Annotated[str, Holds("seat")]
ZoneName = Annotated[str, Holds("zone")]
Seconds = Annotated[float, Field(ge=0.0, le=10.0)]
Fraction = Annotated[float, Field(ge=0.0, le=1.0)]
