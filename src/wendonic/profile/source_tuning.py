"""From `bind` entries to the kernels' numbers: sources, their forms, and the tables that these point into."""

from typing import NamedTuple

from wendonic.kernels.curve import (
    CURVE_EXPO,
    CURVE_KNEE,
    CURVE_LINEAR,
    CURVE_POINTS,
    CURVE_POWER,
    CURVE_S,
    PIECE_WIDTH,
)
from wendonic.kernels.dead_zone import ZONE_AXES, ZONE_CUT, ZONE_NONE, ZONE_ROUND, ZONE_ROUND_WEDGE, ZONE_WEDGE
from wendonic.kernels.formed_source import FORM_AXES, FORM_STICK, FormTuning
from wendonic.kernels.gate import GATE_CIRCLE, GATE_MEASURED, GATE_SQUARE
from wendonic.kernels.opposites import OPPOSITES_CANCEL, OPPOSITES_EARLIEST, OPPOSITES_LATEST
from wendonic.kernels.source import SILENT_SOURCE, SOURCE_FORMED, SOURCE_KEYS, SOURCE_STICK, SourceTuning
from wendonic.kernels.stick import USUAL_FORM, StickForm
from wendonic.kernels.swing import SwingTuning
from wendonic.profile.axis_binds import AxisBind, TriggersBind
from wendonic.profile.binds import Centred, Ramped, Tilted
from wendonic.profile.look_binds import LookStickBind
from wendonic.profile.move_binds import AxesBind, HandsBind
from wendonic.profile.shapes import Curve, ExpoCurve, KneeCurve, PointsCurve, PowerCurve, SCurve

_ZONES = {
    "none": ZONE_NONE,
    "round": ZONE_ROUND,
    "axes": ZONE_AXES,
    "wedge": ZONE_WEDGE,
    "round+wedge": ZONE_ROUND_WEDGE,
    "cut": ZONE_CUT,
}
_GATES = {"circle": GATE_CIRCLE, "square": GATE_SQUARE, "measured": GATE_MEASURED}
_CURVES = {
    "linear": CURVE_LINEAR,
    "power": CURVE_POWER,
    "expo": CURVE_EXPO,
    "s": CURVE_S,
    "knee": CURVE_KNEE,
    "points": CURVE_POINTS,
}
OPPOSITES = {"cancel": OPPOSITES_CANCEL, "latest": OPPOSITES_LATEST, "earliest": OPPOSITES_EARLIEST}


class Tables:
    """Collects what is of any length into one row of numbers, and says where each begins."""

    def __init__(self) -> None:
        """Begin with none."""
        self.numbers: list[float] = []

    def add(self, count: int, numbers: list[float]) -> int:
        """Take a table of `count` entries; return its place."""
        place = len(self.numbers)
        self.numbers += [float(count), *numbers]
        return place


class Shape(NamedTuple):
    """Dead zone and curve of a `bind` entry as the kernels' numbers."""

    inner: float
    outer: float
    curve_form: int
    curve_exponent: float
    form: StickForm

    @property
    def usual(self) -> bool:
        """Whether the short way through the kernels does: a round zone, and a linear or power curve from 0 to 1."""
        return self.form == USUAL_FORM and self.curve_form in (CURVE_LINEAR, CURVE_POWER)


def curve_pieces(curve: PointsCurve) -> list[float]:
    """Return the cubic pieces of a curve through points, as `kernels.curve.points_curve` reads them.

    SciPy's monotone interpolation (PCHIP) gives the coefficients, so the curve is SciPy's own and no sample of it.
    """
    from scipy.interpolate import PchipInterpolator

    tilts, values = zip(*curve.points, strict=True)
    spline = PchipInterpolator(tilts, values)
    pieces: list[float] = []
    for begin, coefficients in zip(spline.x.tolist(), spline.c.T.tolist(), strict=False):
        pieces += [begin, *coefficients]
    return pieces


def curve_form(curve: Curve, tables: Tables) -> tuple[int, float, StickForm]:
    """Return a curve as the kernels' numbers: its form, its exponent, and the rest in a form that is usual else."""
    form = USUAL_FORM._replace(floor=curve.floor, ceiling=curve.ceiling, per_axis=int(curve.per_axis))
    match curve:
        case ExpoCurve() | SCurve():
            form = form._replace(amount=curve.amount)
        case KneeCurve(at=at):
            form = form._replace(knee_tilt=at[0], amount=at[1])
        case PointsCurve():
            pieces = curve_pieces(curve)
            form = form._replace(points=tables.add(len(pieces) // PIECE_WIDTH, pieces))
    return _CURVES[curve.form], curve.exponent if isinstance(curve, PowerCurve) else 1.0, form


def shape_of(bind: Tilted | LookStickBind, tables: Tables) -> Shape:
    """Return dead zone and curve of a `bind` entry; what is of any length goes into `tables`."""
    zone = bind.dead_zone
    number, exponent, form = curve_form(bind.curve, tables)
    form = form._replace(zone=_ZONES[zone.form], release=-1.0 if zone.release is None else zone.release)
    if isinstance(bind, Centred):
        # A device's y is towards the player.
        x, y = bind.centre
        form = form._replace(gate=_GATES[bind.gate], centre_x=x, centre_y=0.0 - y)
        if bind.rim is not None:
            form = form._replace(rim=tables.add(len(bind.rim), list(bind.rim)))
    if zone.form == "none":
        return Shape(0.0, 1.0, number, exponent, form)
    return Shape(zone.inner, zone.outer, number, exponent, form)


def source_tuning(
    bind: Ramped | Tilted, tables: Tables, half_life_s: float = 0.0, capped: bool = False
) -> tuple[SourceTuning, FormTuning | None]:
    """Return the numbers of one `bind` entry of `move`, `rise`, `throttle` or `turn`.

    `half_life_s` is that of the smoothing which follows, `capped` whether the cap comes in between. The second are
    those of steps 1 to 4, for a source that comes into the tick shaped; None for the others.
    """
    if isinstance(bind, Ramped):
        keys = SILENT_SOURCE._replace(
            kind=SOURCE_KEYS,
            rise_s=bind.rise_s,
            fall_s=bind.fall_s,
            opposites=OPPOSITES[getattr(bind, "opposites", "cancel")],
            at_once=int(bind.reversal == "at_once"),
            half_life_s=half_life_s,
            capped=int(capped and half_life_s > 0.0),
        )
        return keys, None
    shape = shape_of(bind, tables)
    kind = FORM_STICK
    if isinstance(bind, HandsBind):
        return SILENT_SOURCE._replace(kind=SOURCE_FORMED), None
    if isinstance(bind, AxesBind | AxisBind | TriggersBind):
        kind = FORM_AXES
    elif shape.usual:
        inner, outer, number, exponent, _ = shape
        stick = SILENT_SOURCE._replace(
            kind=SOURCE_STICK, inner=inner, outer=outer, curve_form=number, curve_exponent=exponent
        )
        return stick, None
    inner, outer, number, exponent, form = shape
    return SILENT_SOURCE._replace(kind=SOURCE_FORMED), FormTuning(kind, inner, outer, number, exponent, form)


def swing_tuning(bind: HandsBind, tables: Tables) -> SwingTuning:
    """Return the numbers of hands that swing; they come into the tick shaped, too."""
    inner, outer, number, exponent, form = shape_of(bind, tables)
    return SwingTuning(
        bind.full_swing_m_s,
        bind.boost,
        bind.steady_half_life_s,
        bind.release_half_life_s,
        inner,
        outer,
        number,
        exponent,
        form,
    )
