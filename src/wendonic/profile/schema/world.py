"""The game's own axes and unit of length."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from wendonic.length_unit import LengthUnit
from wendonic.profile.schema.table import Table, entry, own_fault, own_faults
from wendonic.world_axes import WorldAxes

SignedAxis = Literal["+x", "-x", "+y", "-y", "+z", "-z"]


class World(Table):
    """The game's own axes (which signed axis points right, forward and up) and its own unit of length.

    A 2-D game seen from above leaves `up` out, one seen from the side `forward`. With `handed`, a wrong sign among
    the axes is an error. With `units_per_m`, any length, speed or acceleration can be written in the game's own
    `unit`, with `_u` in place of `_m` (`top_speed_u_s = 200`), and everything a game passes in or gets back is in
    that unit.
    """

    right: SignedAxis = entry("The game's axis that points right.", example="+x")
    forward: SignedAxis | None = entry(
        "The game's axis that points forward.", None, example="-z", otherwise="none, in a game seen from the side"
    )
    up: SignedAxis | None = entry(
        "The game's axis that points up.", None, example="+y", otherwise="none, in a game seen from above"
    )
    handed: Literal["right", "left"] | None = entry(
        "Handedness of the axes. Once written, a wrong sign among them is an error.",
        None,
        example="right",
        otherwise="not checked",
    )

    unit: str | None = entry(
        "Name of the game's unit of length, for people to read.",
        None,
        example="px",
        otherwise='"m", or "u" with units_per_m',
    )
    units_per_m: Annotated[float, Field(gt=0.0, le=1e6)] = entry(
        "How many of the game's units make a metre. Once written, fields may end in _u instead of _m.",
        1.0,
        unit="units",
        example=50.0,
    )

    @model_validator(mode="after")
    def _independent(self) -> Self:
        axes = [axis for axis in (self.right, self.forward, self.up) if axis]
        letters = {axis[1] for axis in axes}
        if len(letters) < len(axes):
            words = f"found {', '.join(axes)}; allowed: a different letter for each"
            raise own_fault(words)
        if len(axes) == 1:
            raise own_fault(f"found {self.right} alone; seen from above a game also needs forward, from the side up")
        if len(axes) == 2 and "z" in letters:
            missing = "up" if self.up is None else "forward"
            words = (
                f"found {', '.join(axes)} and no {missing}; a 2-D game uses x and y, a 3-D game also needs {missing}"
            )
            raise own_fault(words)
        if self.unit not in (None, "m") and "units_per_m" not in self.model_fields_set:
            raise own_faults([("unit", f"does nothing without units_per_m, the number of {self.unit} per metre")])
        if self.unit == "m" and self.units_per_m != 1.0:
            words = f'found "m" for a unit of which {self.units_per_m:g} are a metre; allowed: any other name'
            raise own_faults([("unit", words)])
        if self.handed is not None:
            right_handed = WorldAxes(self.right, self.forward, self.up).right_handed
            if right_handed is None:
                raise own_faults([("handed", "a 2-D game has no handedness; remove it")])
            if right_handed != (self.handed == "right"):
                hand = "right" if right_handed else "left"
                words = (
                    f'"{self.handed}" does not fit: {", ".join(axes)} are {hand}-handed; one of the signs is wrong'
                )
                raise own_faults([("handed", words)])
        return self

    @property
    def length(self) -> LengthUnit:
        """The unit in which people read lengths."""
        return LengthUnit(self.unit or ("m" if self.units_per_m == 1.0 else "u"), self.units_per_m)

    @property
    def axes(self) -> WorldAxes:
        """The conversion between the plan frame and the game's own axes and unit."""
        return WorldAxes(self.right, self.forward, self.up, self.units_per_m, self.length.name)

    def sentence(self) -> str:
        """Describe the axes.

        >>> World(right="+x", forward="-z", up="+y").sentence()
        'right-handed, y up; forward is -z, right is +x'
        >>> World(right="+x", forward="-y").sentence(), World(right="+x", up="-y").sentence()
        ('2-D from above; forward is -y, right is +x', '2-D from the side, y down; right is +x')
        """
        upright = "" if self.up is None else f", {self.up[1]} {'up' if self.up[0] == '+' else 'down'}"
        unit = "" if self.units_per_m == 1.0 else f"; {self.units_per_m:g} {self.length.name} per metre"
        if self.forward is None:
            return f"2-D from the side{upright}; right is {self.right}{unit}"
        handed = WorldAxes(self.right, self.forward, self.up).right_handed
        kind = "2-D from above" if handed is None else "right-handed" if handed else "left-handed"
        return f"{kind}{upright}; forward is {self.forward}, right is {self.right}{unit}"
