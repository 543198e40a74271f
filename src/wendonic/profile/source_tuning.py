"""From `bind` entries to the kernels' numbers: sources, and the tables that these point into."""

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
from wendonic.kernels.source.dead_zone import (
    JUST_OUT,
    NO_DEAD_ZONE,
    ZONE_AXES,
    ZONE_CUT,
    ZONE_NONE,
    ZONE_ROUND,
    ZONE_ROUND_WEDGE,
    ZONE_WEDGE,
    DeadZoneTuning,
)
from wendonic.kernels.source.gate import GATE_CIRCLE, GATE_MEASURED, GATE_SQUARE
from wendonic.kernels.source.keys import KeysTuning
from wendonic.kernels.source.opposites import OPPOSITES_CANCEL, OPPOSITES_EARLIEST, OPPOSITES_LATEST
from wendonic.kernels.source.source import (
    PLAIN_SOURCE,
    SOURCE_AXES,
    SOURCE_KEYS,
    SOURCE_STICK,
    SOURCE_SWING,
    SourceTuning,
)
from wendonic.kernels.source.stick import PLAIN_STICK, StickTuning
from wendonic.kernels.source.swing import SwingTuning
from wendonic.profile.axis_binds import AxisBind, TriggersBind
from wendonic.profile.binds import Centred, Ramped, Tilted
from wendonic.profile.look_binds import LookStickBind
from wendonic.profile.move_binds import AxesBind, HandsBind
from wendonic.profile.shapes import Curve, DeadZone, ExpoCurve, KneeCurve, PointsCurve, PowerCurve, SCurve

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


def curve_tuning(curve: Curve, tables: Tables) -> CurveTuning:
    """Return a curve as the kernels' numbers; what is of any length goes into `tables`."""
    tuning = LINEAR._replace(
        form=_CURVES[curve.form],
        ends=int((curve.floor, curve.ceiling) != (0.0, 1.0)),
        per_axis=int(curve.per_axis),
        floor=curve.floor,
        ceiling=curve.ceiling,
    )
    match curve:
        case PowerCurve():
            tuning = tuning._replace(exponent=curve.exponent)
        case ExpoCurve() | SCurve():
            tuning = tuning._replace(amount=curve.amount)
        case KneeCurve(at=at):
            tuning = tuning._replace(knee_tilt=at[0], amount=at[1])
        case PointsCurve():
            pieces = curve_pieces(curve)
            tuning = tuning._replace(points=tables.add(len(pieces) // PIECE_WIDTH, pieces))
    return tuning


def dead_zone_tuning(zone: DeadZone) -> DeadZoneTuning:
    """Return a dead zone as the kernels' numbers."""
    if zone.form == "none":
        return NO_DEAD_ZONE
    inner = zone.inner if zone.form == "wedge" else max(zone.inner, JUST_OUT)
    release = 0.0 if zone.release is None else max(zone.release, JUST_OUT)
    return DeadZoneTuning(_ZONES[zone.form], int(zone.release is not None), inner, zone.outer, release)


def stick_tuning(bind: Tilted | LookStickBind, tables: Tables) -> StickTuning:
    """Return gate, rest point, dead zone and curve of a `bind` entry as the kernels' numbers."""
    tuning = PLAIN_STICK._replace(dead_zone=dead_zone_tuning(bind.dead_zone), curve=curve_tuning(bind.curve, tables))
    if isinstance(bind, Centred):
        # A device's y is towards the player.
        x, y = bind.centre
        tuning = tuning._replace(gate=_GATES[bind.gate], centred=int(any(bind.centre)), centre_x=x, centre_y=0.0 - y)
        if bind.rim is not None:
            tuning = tuning._replace(rim=tables.add(len(bind.rim), list(bind.rim)))
    return tuning


def source_tuning(bind: Ramped | Tilted, tables: Tables) -> SourceTuning:
    """Return the numbers of one `bind` entry of `move`, `rise`, `throttle` or `turn`."""
    if isinstance(bind, Ramped):
        keys = KeysTuning(
            OPPOSITES[getattr(bind, "opposites", "cancel")],
            int(bind.rise_s > 0.0 or bind.fall_s > 0.0),
            int(bind.reversal == "at_once"),
            bind.rise_s,
            bind.fall_s,
        )
        return PLAIN_SOURCE._replace(kind=SOURCE_KEYS, keys=keys)
    stick = stick_tuning(bind, tables)
    if isinstance(bind, HandsBind):
        swing = SwingTuning(bind.full_swing_m_s, bind.boost, bind.steady_half_life_s, bind.release_half_life_s, stick)
        return PLAIN_SOURCE._replace(kind=SOURCE_SWING, swing=swing)
    of_axes = isinstance(bind, AxesBind | AxisBind | TriggersBind)
    return PLAIN_SOURCE._replace(kind=SOURCE_AXES if of_axes else SOURCE_STICK, stick=stick)
