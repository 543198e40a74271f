"""Presses, as a profile writes them."""

from typing import Annotated, Any, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from wendonic.profile.table import ChordName, Fraction, Seconds, SwitchName, Table, own_fault


class TriggerEntry(Table):
    """A trigger: down from `above` on, until it is back at `release`."""

    control: SwitchName
    above: Annotated[float, Field(gt=0.0, le=1.0)] = 0.5
    release: Fraction = 0.4

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.release >= self.above:
            raise own_fault(f"release {self.release:g} is not below above {self.above:g}; it would never let go")
        return self


class ZoneEntry(Table):
    """A finger that lands in a zone of the touch screen."""

    zone: str


class WheelEntry(Table):
    """A notch of the wheel, away from the user or towards the user."""

    wheel: Literal["away", "towards"]


def _entry_kind(entry: Any) -> str | None:
    if isinstance(entry, str):
        return "name"
    found = entry if isinstance(entry, dict) else type(entry).model_fields if isinstance(entry, Table) else ()
    return next((key for key in ("control", "zone", "wheel") if key in found), None)


PressEntry = Annotated[
    Annotated[ChordName, Tag("name")]
    | Annotated[TriggerEntry, Tag("control")]
    | Annotated[ZoneEntry, Tag("zone")]
    | Annotated[WheelEntry, Tag("wheel")],
    Discriminator(_entry_kind),
]


class PressTable(Table):
    """One press: what makes it, and how.

    `style`: `hold` is on while held; `toggle` changes with every press; `tap` is one let go within `tap_s`; `long` is
    on from `long_s` on; `double` is on from the second press within `double_s` of the first. With `buffer_s` or
    `grace_s` it waits for the ground: one asked for so early stays wanted, one so late after the ground is gone is
    still given.
    """

    bind: Annotated[tuple[PressEntry, ...], Field(strict=False, min_length=1)]
    style: Literal["hold", "toggle", "tap", "long", "double"] = "hold"
    tap_s: Seconds | None = None
    long_s: Seconds | None = None
    double_s: Seconds | None = None
    buffer_s: Seconds | None = None
    grace_s: Seconds | None = None
    shared: bool = False

    @model_validator(mode="after")
    def _limit_of_its_style(self) -> Self:
        for style in ("tap", "long", "double"):
            if getattr(self, f"{style}_s") is not None and self.style != style:
                raise own_fault(f'{style}_s does nothing under style "{self.style}"; it goes with style "{style}"')
        return self

    @property
    def waits_for_ground(self) -> bool:
        """Whether it begins on the ground only, early or late as it may be asked for."""
        return self.buffer_s is not None or self.grace_s is not None
