"""What the `bind` entries of all channels have in common.

An entry is known by the key that names its controls: `keys`, `stick`, `mouse`, and so on.
"""

from collections.abc import Callable
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, model_validator

from wendonic.profile.shapes import DEFAULT_CURVE, Curve, DeadZone
from wendonic.profile.table import Seconds, Table, own_fault

ZoneNames = Annotated[tuple[str, ...], Field(strict=False)]
Degrees = Annotated[float, Field(gt=0.0, le=100_000.0)]
OppositesRule = Literal["cancel", "latest", "earliest"]


class Bind(Table):
    """What all entries have: `shared` allows a control that is bound to something else of the mode, too."""

    shared: bool = False


class Ramped(Bind):
    """An entry of on and off: `rise_s` from 0 to 1 after a press, `fall_s` from 1 to 0 after letting go."""

    later: ClassVar[frozenset[str]] = frozenset({"reversal"})

    rise_s: Seconds = 0.06
    fall_s: Seconds = 0.04


class Tilted(Bind):
    """An entry of tilt, 0..1 each way."""

    later: ClassVar[frozenset[str]] = frozenset({"centre"})

    dead_zone: DeadZone = DeadZone()
    curve: Curve = DEFAULT_CURVE


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
