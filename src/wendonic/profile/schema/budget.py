"""A budget: limits for what the feel sheet measures, kept with the profile."""

import functools
from importlib.resources import files
from typing import Annotated, Self

from pydantic import AfterValidator, model_validator

from wendonic.errors import none_such
from wendonic.profile.schema.names import PressName, SeatName
from wendonic.profile.schema.table import Table, entry, own_fault


class Limits(Table):
    """The limits of one quantity of the feel sheet, in its own unit."""

    min: float | None = entry(
        "Smallest value allowed.", None, example=0.1, unit="the quantity's", otherwise="no limit"
    )
    max: float | None = entry(
        "Largest value allowed.", None, example=0.2, unit="the quantity's", otherwise="no limit"
    )
    by: str | None = entry(
        "Device it is measured by: keys, pad, pad.left_stick and so on.",
        None,
        example="pad.left_stick",
        otherwise="the one with the most directions, keys first",
    )
    press: PressName | None = entry(
        "Press that is held while it is measured.", None, example="sprint", otherwise="none"
    )
    seat: SeatName | None = entry(
        "Player by whose controls it is measured, one of [seat].", None, example="one", otherwise="everybody's"
    )

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if self.min is None and self.max is None:
            raise own_fault("says neither min nor max")
        if self.min is not None and self.max is not None and self.min > self.max:
            raise own_fault(f"min {self.min:g} is above max {self.max:g}")
        return self


@functools.cache
def quantity_names() -> tuple[str, ...]:
    """Return the names of the quantities of the feel sheet, which are those of their files; none in a frozen game
    that left them out.
    """
    # Only names are looked up here, since profiles must not import the study.
    folder = files("wendonic") / "study" / "quantities"
    if not folder.is_dir():
        return ()
    names = (file.name.removesuffix(".py") for file in folder.iterdir() if file.name.endswith(".py"))
    return tuple(sorted(name for name in names if name != "__init__"))


def _quantity(name: str) -> str:
    names = quantity_names()
    if names and name not in names:
        raise own_fault(none_such("quantity of the feel sheet", name, names))
    return name


Budget = dict[Annotated[str, AfterValidator(_quantity)], Limits]
