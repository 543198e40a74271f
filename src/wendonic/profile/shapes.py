"""Dead zones and response curves, as a profile writes them."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Discriminator, Field, model_validator

from wendonic.profile.table import Table, own_fault


class DeadZone(Table):
    """A stick's dead zone: nothing up to `inner`, everything from `outer` on (tilt, 0..1)."""

    later: ClassVar[frozenset[str]] = frozenset({"release"})

    form: Literal["round"] = "round"
    inner: Annotated[float, Field(ge=0.0, lt=1.0)] = 0.14
    outer: Annotated[float, Field(gt=0.0, le=1.0)] = 0.96

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.inner >= self.outer:
            words = f"inner {self.inner:g} is not below outer {self.outer:g}; nothing of the stick would be left"
            raise own_fault(words)
        return self


class LinearCurve(Table):
    """Amount = tilt."""

    later: ClassVar[frozenset[str]] = frozenset({"floor", "ceiling", "per_axis"})

    form: Literal["linear"]


class PowerCurve(Table):
    """Amount = tilt ** exponent; above 1 small tilts are finer."""

    later: ClassVar[frozenset[str]] = frozenset({"floor", "ceiling", "per_axis"})

    form: Literal["power"]
    exponent: Annotated[float, Field(gt=0.0, le=10.0)] = 1.6


Curve = Annotated[LinearCurve | PowerCurve, Discriminator("form")]


DEFAULT_CURVE = PowerCurve(form="power")
LINEAR_CURVE = LinearCurve(form="linear")
