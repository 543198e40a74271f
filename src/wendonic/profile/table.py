"""What every table of a profile has in common, and the words and numbers that stand in many of them."""

from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

from wendonic.devices.controls import find_key, find_kind
from wendonic.devices.sources import find_axis, find_switch
from wendonic.errors import ControlError

OWN_WORDS: Literal["own_words"] = "own_words"
"""Type of those errors whose words are said here, as `words` of their context."""

OWN_FAULTS: Literal["own_faults"] = "own_faults"
"""The same, with a line for each fault that begins with its field path."""


def own_fault(words: str) -> PydanticCustomError:
    """Return an error of one's own words."""
    return PydanticCustomError(OWN_WORDS, "{words}", {"words": words})


def own_faults(faults: list[tuple[str, str]]) -> PydanticCustomError:
    """Return an error of several faults: (field path from the table's own, words) each."""
    return PydanticCustomError(OWN_FAULTS, "{words}", {"words": "\n".join(map(": ".join, faults))})


class Table(BaseModel):
    """A table of the file: unknown keys are errors, numbers are finite, nothing changes after loading."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, allow_inf_nan=False)


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
        raise own_fault(f"{control.name} tells of no turning; allowed: {control.unit}.gyro")
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


KeyCode = Annotated[str, AfterValidator(_key_code)]
KeyList = Annotated[tuple[KeyCode, ...], Field(strict=False)]
StickName = Annotated[str, AfterValidator(_stick_name)]
GyroName = Annotated[str, AfterValidator(_gyro_name)]
SwitchName = Annotated[str, AfterValidator(_switch_name)]
ChordName = Annotated[str, AfterValidator(_chord)]
AxisName = Annotated[str, AfterValidator(_axis_name)]
Seconds = Annotated[float, Field(ge=0.0, le=10.0)]
Fraction = Annotated[float, Field(ge=0.0, le=1.0)]
