"""Response curves: one class for each form, with its integer, its numbers and its sentence."""

from itertools import pairwise
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Discriminator, Field, model_validator

from wendonic.kernels.source.curve import (
    CURVE_EXPO,
    CURVE_KNEE,
    CURVE_LINEAR,
    CURVE_POINTS,
    CURVE_POWER,
    CURVE_S,
    LINEAR,
    PIECE_WIDTH,
    CurveTuning,
)
from wendonic.profile.schema.names import Fraction
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.table import Choice, entry, own_fault


class CurveTable(Choice):
    """What all curves have: any tilt that is out gives at least `floor`, full tilt gives `ceiling`.

    `per_axis` takes the curve of each axis by itself instead of the tilt's length.
    """

    chosen_by: ClassVar[str] = "form"

    form: str
    floor: Annotated[float, Field(ge=0.0, lt=1.0)] = entry(
        "Amount at the edge of the dead zone (anti dead zone): raise it if the game has a dead zone"
        " of its own, lower it for slower first steps.",
        0.0,
        unit="amount",
    )
    ceiling: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "Amount at full tilt: lower it to keep the stick below full speed.", 1.0, unit="amount"
    )
    per_axis: bool = entry(
        "Whether each axis has the curve to itself, which bends diagonals towards the axes.", False
    )

    @model_validator(mode="after")
    def _rising(self) -> Self:
        if self.floor >= self.ceiling:
            raise own_fault(f"floor {self.floor:g} is not below ceiling {self.ceiling:g}; the curve would not rise")
        return self

    def form_sentence(self) -> str:
        """Describe its form with its numbers."""
        return self.form

    def form_tuning(self, tuning: CurveTuning, rows: NumberRows) -> CurveTuning:  # noqa: ARG002
        """Return the tuning with the numbers of its form; lists of any length go into `rows`."""
        return tuning

    def sentence(self) -> str:
        """Describe it."""
        limited = (self.floor, self.ceiling) != (0.0, 1.0)
        ends = f", from {self.floor:g} to {self.ceiling:g}" if limited else ""
        return f"{self.form_sentence()}{ends}{', each axis by itself' if self.per_axis else ''}"

    def tuning(self, rows: NumberRows) -> CurveTuning:
        """Return the kernels' numbers for it."""
        common = LINEAR._replace(
            form=self.number,
            ends=int((self.floor, self.ceiling) != (0.0, 1.0)),
            per_axis=int(self.per_axis),
            floor=self.floor,
            ceiling=self.ceiling,
        )
        return self.form_tuning(common, rows)


def form_entry(form: str) -> Any:
    """Declare the field that names a curve's form."""
    return entry("Form of the response curve.", example=form)


class LinearCurve(CurveTable):
    """Amount = tilt."""

    number: ClassVar[int] = CURVE_LINEAR
    form: Literal["linear"] = form_entry("linear")


class PowerCurve(CurveTable):
    """Amount = tilt ** exponent; above 1 small tilts are finer."""

    number: ClassVar[int] = CURVE_POWER
    form: Literal["power"] = form_entry("power")
    exponent: Annotated[float, Field(gt=0.0, le=10.0)] = entry(
        "Exponent of the curve: raise it for finer control near rest, lower it for a quicker answer; 1 is linear.",
        1.6,
        unit="exponent",
    )

    def form_sentence(self) -> str:
        """Describe its form with its numbers."""
        return f"power curve, exponent {self.exponent:g}"

    def form_tuning(self, tuning: CurveTuning, rows: NumberRows) -> CurveTuning:  # noqa: ARG002
        """Return the tuning with the numbers of its form."""
        return tuning._replace(exponent=self.exponent)


class _BlendedCurve(CurveTable):
    """A straight line blended with a bent one."""

    amount: Fraction = entry(
        "Share of the bent curve: raise it for finer control near rest, lower it for a quicker answer; 0 is linear.",
        0.5,
        unit="share",
    )

    def form_sentence(self) -> str:
        """Describe its form with its numbers."""
        return f"{self.form} curve, amount {self.amount:g}"

    def form_tuning(self, tuning: CurveTuning, rows: NumberRows) -> CurveTuning:  # noqa: ARG002
        """Return the tuning with the numbers of its form."""
        return tuning._replace(amount=self.amount)


class ExpoCurve(_BlendedCurve):
    """Amount = (1 - a) tilt + a tilt³: finer at small tilts, the more so the larger `amount` (a) is."""

    number: ClassVar[int] = CURVE_EXPO
    form: Literal["expo"] = form_entry("expo")


class SCurve(_BlendedCurve):
    """Amount = (1 - a) tilt + a (3 tilt² - 2 tilt³): finer at both ends."""

    number: ClassVar[int] = CURVE_S
    form: Literal["s"] = form_entry("s")


Inside = Annotated[float, Field(gt=0.0, lt=1.0)]


class KneeCurve(CurveTable):
    """Two straight lines that meet at [tilt, amount]."""

    number: ClassVar[int] = CURVE_KNEE
    form: Literal["knee"] = form_entry("knee")
    at: Annotated[tuple[Inside, Inside], Field(strict=False)] = entry(
        "Tilt and amount of the knee, where the slow straight part ends and the fast one begins.",
        (0.6, 0.3),
        unit="[tilt, amount]",
    )

    def form_sentence(self) -> str:
        """Describe its form with its numbers."""
        return f"knee at tilt {self.at[0]:g}, value {self.at[1]:g}"

    def form_tuning(self, tuning: CurveTuning, rows: NumberRows) -> CurveTuning:  # noqa: ARG002
        """Return the tuning with the numbers of its form."""
        return tuning._replace(knee_tilt=self.at[0], amount=self.at[1])


MOST_POINTS = 32

Point = Annotated[tuple[Fraction, Fraction], Field(strict=False)]


class PointsCurve(CurveTable):
    """A smooth curve through points [tilt, amount] that rises wherever they do (monotone PCHIP), from [0, 0] to
    [1, 1].
    """

    number: ClassVar[int] = CURVE_POINTS
    form: Literal["points"] = form_entry("points")
    points: Annotated[tuple[Point, ...], Field(strict=False, min_length=2, max_length=MOST_POINTS)] = entry(
        "Points [tilt, amount] that the curve passes through, from [0, 0] to [1, 1], each above the last.",
        ((0.0, 0.0), (0.4, 0.1), (1.0, 1.0)),
        example=[[0.0, 0.0], [0.4, 0.1], [1.0, 1.0]],
        unit="[tilt, amount]",
    )

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

    def form_sentence(self) -> str:
        """Describe its form with its numbers."""
        return f"curve through {len(self.points)} points"

    def form_tuning(self, tuning: CurveTuning, rows: NumberRows) -> CurveTuning:
        """Return the tuning with the numbers of its form."""
        pieces = curve_pieces(self)
        return tuning._replace(points=rows.add(len(pieces) // PIECE_WIDTH, pieces))


def curve_pieces(curve: PointsCurve) -> list[float]:
    """Return the cubic pieces of a curve through points, as `kernels.source.curve.points_curve` reads them.

    SciPy's monotone interpolation (PCHIP) gives the coefficients, so the curve is SciPy's own and no sample of it.
    """
    from scipy.interpolate import PchipInterpolator

    tilts, values = zip(*curve.points, strict=True)
    spline = PchipInterpolator(tilts, values)
    pieces: list[float] = []
    for begin, coefficients in zip(spline.x.tolist(), spline.c.T.tolist(), strict=False):
        pieces += [begin, *coefficients]
    return pieces


def _shown(point: tuple[float, float]) -> str:
    return f"[{point[0]:g}, {point[1]:g}]"


Curve = Annotated[LinearCurve | PowerCurve | ExpoCurve | SCurve | KneeCurve | PointsCurve, Discriminator("form")]

DEFAULT_CURVE = PowerCurve(form="power")
LINEAR_CURVE = LinearCurve(form="linear")
