"""Sticks and other sources that tilt: centre, gate, dead zone and curve, steps 1 to 4 of shaping."""

import math
from typing import NamedTuple

from wendonic.kernels.row import Row
from wendonic.kernels.source.curve import LINEAR, CurveTuning, curve_amount
from wendonic.kernels.source.dead_zone import NO_DEAD_ZONE, ZONE_AXES, DeadZoneTuning, dead_zone_output
from wendonic.kernels.source.gate import GATE_CIRCLE, gated
from wendonic.kernels.vector import Vec2

BOTH_AXES = 0
X_ALONE = 1
Y_ALONE = 2


class StickTuning(NamedTuple):
    """Gate and rest point (raw, x right and y forward; `centred` is 0 if that is the middle), dead zone, curve.

    `axes` says which of its axes count, `rim` is the index of a measured rim in the tables. If `within` is 1, both
    axes together request no more than the ceiling of the curve.
    """

    axes: int
    gate: int
    rim: int
    centred: int
    centre_x: float
    centre_y: float
    dead_zone: DeadZoneTuning
    curve: CurveTuning
    within: int


PLAIN_STICK = StickTuning(BOTH_AXES, GATE_CIRCLE, 0, 0, 0.0, 0.0, NO_DEAD_ZONE, LINEAR, 0)


class StickOutput(NamedTuple):
    """The request of a stick: amount, x right and y forward."""

    length: float
    x: float
    y: float


def centred(tuning: StickTuning, tables: Row, x: float, y: float) -> Vec2:
    """Return a raw position relative to the rest point, with the rim mapped to a circle: steps 1 and 2. Exactly (0,
    0) is the report of a missing or lost stick, and counts as the rest point. If only one axis of a stick counts, the
    other one is taken to be at rest.

    >>> stick = PLAIN_STICK._replace(centred=1, centre_x=0.25)
    >>> centred(stick, (), 0.75, 0.0), centred(stick, (), 0.0, 0.0)
    (Vec2(x=0.5, y=0.0), Vec2(x=0.0, y=0.0))
    >>> centred(stick._replace(axes=X_ALONE), (), 0.75, -0.5)
    Vec2(x=0.5, y=0.0)
    """
    # The rim is measured from the rest point, so that is subtracted first.
    if tuning.centred > 0 and (x != 0.0 or y != 0.0):
        x -= tuning.centre_x
        y -= tuning.centre_y
    if tuning.axes == X_ALONE:
        y = 0.0
    elif tuning.axes == Y_ALONE:
        x = 0.0
    x, y = gated(x, y, tuning.gate, tables, tuning.rim)
    return Vec2(x, y)


def stick_output(tuning: StickTuning, tables: Row, was: Vec2, x: float, y: float) -> StickOutput:
    """Return the request of a stick at (x, y), raw, right and forward.

    `was` is its request a tick ago: if that is not zero, the stick stays out until it is back at its release.

    >>> from wendonic.kernels.source.dead_zone import ZONE_ROUND
    >>> from wendonic.kernels.vector import ZERO2
    >>> stick = PLAIN_STICK._replace(dead_zone=NO_DEAD_ZONE._replace(form=ZONE_ROUND, inner=0.2))
    >>> length, x, y = stick_output(stick, (), ZERO2, 0.0, 0.6)
    >>> x, round(y, 12) == round(length, 12) == 0.5
    (0.0, True)
    """
    x, y = centred(tuning, tables, x, y)
    length, x, y, norm = dead_zone_output(tuning.dead_zone, was, x, y)
    if length == 0.0:
        return StickOutput(0.0, 0.0, 0.0)
    curve = tuning.curve
    if curve.per_axis > 0:
        scale = length / norm
        across = axis_amount(curve, tables, x * scale)
        along = axis_amount(curve, tables, y * scale)
        return together(tuning, across, along)
    beyond = 1.0
    if tuning.dead_zone.form == ZONE_AXES and length > 1.0:
        # A corner beyond the rim stays beyond it; the diagonal rule limits it.
        beyond = length if tuning.within == 0 else 1.0
        length = 1.0
    length = curve_amount(curve, tables, length) * beyond
    scale = length / norm
    return StickOutput(length, x * scale, y * scale)


def axis_amount(curve: CurveTuning, tables: Row, along: float) -> float:
    """Return the result of a curve for one coordinate, -1..1.

    >>> axis_amount(LINEAR, (), -0.5), axis_amount(LINEAR, (), 0.0)
    (-0.5, 0.0)
    """
    if along > 0.0:
        return curve_amount(curve, tables, along)
    if along < 0.0:
        return 0.0 - curve_amount(curve, tables, -along)
    return 0.0


def axes_output(tuning: StickTuning, tables: Row, was: Vec2, x: float, y: float) -> StickOutput:
    """Return the request of two axes with a separate dead zone and curve each.

    >>> from wendonic.kernels.source.dead_zone import ZONE_ROUND
    >>> axes = PLAIN_STICK._replace(dead_zone=NO_DEAD_ZONE._replace(form=ZONE_ROUND, inner=1e-12, outer=0.5))
    >>> _, x, y = axes_output(axes, (), Vec2(0.0, 0.0), 0.25, -0.5)
    >>> round(x, 9), y
    (0.5, -1.0)
    """
    across = stick_output(tuning, tables, Vec2(was.x, 0.0), x, 0.0)
    along = stick_output(tuning, tables, Vec2(0.0, was.y), 0.0, y)
    return together(tuning, across.x, along.y)


def together(tuning: StickTuning, x: float, y: float) -> StickOutput:
    """Return the request of two axes with a separate curve each: under a cap, no more than its ceiling.

    Formula: both times ceiling / hypot(x, y) if that is below 1.

    >>> half = PLAIN_STICK._replace(curve=LINEAR._replace(ends=1, ceiling=0.5))
    >>> together(half, 0.3, 0.4), together(half, 0.6, 0.8).length
    (StickOutput(length=0.5, x=0.3, y=0.4), 1.0)
    >>> together(half._replace(within=1), 0.6, 0.8)
    StickOutput(length=0.5, x=0.3, y=0.4)
    """
    length = math.hypot(x, y)
    if tuning.within > 0 and length > tuning.curve.ceiling:
        # ceiling / length
        scale = tuning.curve.ceiling / length
        return StickOutput(tuning.curve.ceiling, x * scale, y * scale)
    return StickOutput(length, x, y)
