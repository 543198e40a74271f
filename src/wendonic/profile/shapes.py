"""Dead zones and response curves, as a profile writes them."""

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Discriminator, Field, model_validator

from wendonic.profile.table import Fraction, Table, own_fault

ZoneForm = Literal["none", "round", "axes", "wedge", "round+wedge", "cut"]

TAKES_NOTHING = {"none": ("inner", "outer"), "cut": ("outer",)}
"""Fields that do nothing under a form of dead zone."""


class DeadZone(Table):
    """A stick's dead zone: nothing up to `inner`, everything from `outer` on (tilt, 0..1).

    `round` works on the length of the tilt, `axes` on each axis by itself, `wedge` on each axis in proportion to the
    other one, `round+wedge` round first; `cut` lets the raw tilt pass once it is above `inner`; `none` takes nothing.
    With `release`, a stick that is out stays out until it is back there.
    """

    form: ZoneForm = "round"
    inner: Annotated[float, Field(ge=0.0, lt=1.0)] = 0.14
    outer: Annotated[float, Field(gt=0.0, le=1.0)] = 0.96
    release: Fraction | None = None

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.inner >= self.outer:
            words = f"inner {self.inner:g} is not below outer {self.outer:g}; nothing of the stick would be left"
            raise own_fault(words)
        for name in TAKES_NOTHING.get(self.form, ()):
            if name in self.model_fields_set:
                raise own_fault(f'{name} does nothing under form "{self.form}"; take it out')
        if self.release is not None and self.release >= self.inner:
            raise own_fault(f"release {self.release:g} is not below inner {self.inner:g}; allowed: below it")
        return self


class CurveTable(Table):
    """What all curves have: any tilt that is out gives at least `floor`, full tilt gives `ceiling`.

    `per_axis` takes the curve of each axis by itself instead of the tilt's length.
    """

    floor: Annotated[float, Field(ge=0.0, lt=1.0)] = 0.0
    ceiling: Annotated[float, Field(gt=0.0, le=1.0)] = 1.0
    per_axis: bool = False

    @model_validator(mode="after")
    def _rising(self) -> Self:
        if self.floor >= self.ceiling:
            raise own_fault(f"floor {self.floor:g} is not below ceiling {self.ceiling:g}; the curve would not rise")
        return self


class LinearCurve(CurveTable):
    """Amount = tilt."""

    form: Literal["linear"]


class PowerCurve(CurveTable):
    """Amount = tilt ** exponent; above 1 small tilts are finer."""

    form: Literal["power"]
    exponent: Annotated[float, Field(gt=0.0, le=10.0)] = 1.6


class ExpoCurve(CurveTable):
    """Amount = (1 - a) tilt + a tilt³: finer at small tilts, the more so the larger `amount` (a) is."""

    form: Literal["expo"]
    amount: Fraction = 0.5


class SCurve(CurveTable):
    """Amount = (1 - a) tilt + a (3 tilt² - 2 tilt³): finer at both ends."""

    form: Literal["s"]
    amount: Fraction = 0.5


Inside = Annotated[float, Field(gt=0.0, lt=1.0)]


class KneeCurve(CurveTable):
    """Two straight rates that meet at [tilt, value]."""

    form: Literal["knee"]
    at: Annotated[tuple[Inside, Inside], Field(strict=False)] = (0.6, 0.3)


MOST_POINTS = 32

Point = Annotated[tuple[Fraction, Fraction], Field(strict=False)]


class PointsCurve(CurveTable):
    """A smooth curve through points [tilt, value] that rises wherever they do (monotone PCHIP), from [0, 0] to [1,
    1].
    """

    form: Literal["points"]
    points: Annotated[tuple[Point, ...], Field(strict=False, min_length=2, max_length=MOST_POINTS)]

    @model_validator(mode="after")
    def _rising_points(self) -> Self:
        first, last = self.points[0], self.points[-1]
        if first != (0.0, 0.0) or last != (1.0, 1.0):
            raise own_fault(f"points run from {_shown(first)} to {_shown(last)}; allowed: from [0, 0] to [1, 1]")
        for one, other in pairwise(self.points):
            if other[0] <= one[0]:
                words = f"tilt does not rise from {_shown(one)} to {_shown(other)}; allowed: each tilt above the last"
                raise own_fault(words)
            if other[1] < one[1]:
                words = f"value falls from {_shown(one)} to {_shown(other)}; allowed: never below the last"
                raise own_fault(words)
        return self


def _shown(point: tuple[float, float]) -> str:
    return f"[{point[0]:g}, {point[1]:g}]"


Curve = Annotated[LinearCurve | PowerCurve | ExpoCurve | SCurve | KneeCurve | PointsCurve, Discriminator("form")]

DEFAULT_CURVE = PowerCurve(form="power")
LINEAR_CURVE = LinearCurve(form="linear")
