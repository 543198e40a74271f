"""What the `bind` entries of all channels have in common.

An entry is known by the key that names its controls: `keys`, `stick`, `mouse`, and so on.
"""

from collections.abc import Callable
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from wendonic.profile.shapes import DEFAULT_CURVE, Curve, DeadZone
from wendonic.profile.table import Seconds, Table, own_fault, own_faults

ZoneNames = Annotated[tuple[str, ...], Field(strict=False)]
Degrees = Annotated[float, Field(gt=0.0, le=100_000.0)]
OppositesRule = Literal["cancel", "latest", "earliest"]


RestPoint = Annotated[float, Field(ge=-0.5, le=0.5)]
RimLength = Annotated[float, Field(ge=0.25, le=1.5)]


def refuse_idle_release(zone: DeadZone, curve: Curve) -> None:
    """Refuse a release that could not be seen: without a jump, there is nothing to hold on to."""
    if zone.release is not None and zone.form != "cut" and curve.floor == 0.0:
        words = 'does nothing here; it goes with form "cut", or with a curve that has a floor'
        raise own_faults([("dead_zone.release", words)])


class Bind(Table):
    """What all entries have: `shared` allows a control that is bound to something else of the mode, too."""

    shared: bool = False


class Ramped(Bind):
    """An entry of on and off: `rise_s` from 0 to 1 after a press, `fall_s` from 1 to 0 after letting go.

    When the other side is pressed, the value falls to zero first (`through_zero`), or drops to zero (`at_once`).
    """

    rise_s: Seconds = 0.06
    fall_s: Seconds = 0.04
    reversal: Literal["through_zero", "at_once"] = "through_zero"


class Tilted(Bind):
    """An entry of tilt, 0..1 each way."""

    dead_zone: DeadZone = DeadZone()
    curve: Curve = DEFAULT_CURVE

    @model_validator(mode="after")
    def _release_shows(self) -> Self:
        refuse_idle_release(self.dead_zone, self.curve)
        return self


class Centred(Table):
    """A stick as the device has it: its gate, and where it rests (raw, x right, y towards the player).

    A `measured` gate has a `rim`: how far the stick goes at equal steps of heading, clockwise from ahead.
    """

    gate: Literal["circle", "square", "measured"] = "circle"
    rim: Annotated[tuple[RimLength, ...], Field(strict=False, min_length=4, max_length=360)] | None = None
    centre: Annotated[tuple[RestPoint, RestPoint], Field(strict=False)] = (0.0, 0.0)

    @model_validator(mode="after")
    def _rim_of_a_measured_gate(self) -> Self:
        if self.gate == "measured" and self.rim is None:
            raise own_faults([("rim", 'is missing; gate "measured" needs its lengths, clockwise from ahead')])
        if self.gate != "measured" and self.rim is not None:
            raise own_faults([("rim", f'does nothing under gate "{self.gate}"; it goes with gate "measured"')])
        return self


class WayLists(Table):
    """Lists of names, one for each way; at least one holds something, and nothing stands in two of them."""

    @model_validator(mode="after")
    def _each_once(self) -> Self:
        lists: dict[str, tuple[str, ...]] = self.model_dump()
        if not any(lists.values()):
            raise own_fault(f"nothing in any list; give at least one of {', '.join(lists)}")
        seen: dict[str, str] = {}
        for way, names in lists.items():
            for name in names:
                if name in seen:
                    raise own_fault(f'"{name}" stands under {seen[name]} and again under {way}; it pulls one way')
                seen[name] = way
        return self


def by_key(*keys: str) -> Callable[[Any], str | None]:
    """Return a chooser: which of `keys` an entry has."""

    def kind(entry: Any) -> str | None:
        found = entry if isinstance(entry, dict) else type(entry).model_fields if isinstance(entry, Table) else ()
        return next((key for key in keys if key in found), None)

    return kind
