"""The effect of a stick's shaping on each position, without ticks."""

import math
from bisect import bisect_left
from collections.abc import Sequence

from wendonic.devices.controls import CONTROLS
from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FREE
from wendonic.kernels.move.move import MOVE_AT_REST, MoveTuning, move_output
from wendonic.kernels.source.curve import CURVE_LINEAR, CURVE_POWER, curve_amount
from wendonic.kernels.source.dead_zone import ZONE_ROUND
from wendonic.kernels.source.source import SOURCE_AT_REST
from wendonic.kernels.source.stick import PLAIN_STICK, X_ALONE, StickTuning, stick_output
from wendonic.kernels.vector import ZERO2
from wendonic.profile.schema.curve import Curve
from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.profile.schema.move import Move
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.tilted import Centred, Tilted
from wendonic.study.thresholds import THRESHOLDS

QUARTER = THRESHOLDS.quarter
PLAIN_RULES = (DIAGONAL_CAP, DIAGONAL_FREE)
_AT_REST = MOVE_AT_REST._replace(sources=(SOURCE_AT_REST,))


class StickResponse:
    """A stick's gate, centre, dead zone and curve, starting from rest each time: raw position in, shaped position
    out. With the channel `move` that it steers, this includes the rule for diagonals, paces and notches.

    Positions are right and forward, as the device reports them; a tilt is a share of the distance from the rest point
    to the rim. Seen from the side (`across`), or if only its sideways axis counts, straight ahead is to the right.
    `scale` is the factor of a held press.

    >>> from wendonic.demo import demo_profile
    >>> stick = StickResponse(demo_profile().mode["foot"].move.bind[1])
    >>> stick.amount(0.0, 0.14), round(stick.amount(0.0, 0.55), 3), stick.amount(0.6, 0.8)
    (0.0, 0.33, 1.0)
    """

    def __init__(
        self, bind: Tilted | LookStickBind, move: Move | None = None, across: bool = False, scale: float = 1.0
    ) -> None:
        """Take the numbers of a `bind` entry that has a dead zone and a curve, and of its channel."""
        rows = NumberRows()
        self.bind = bind
        self.scale = scale
        self.tuning: StickTuning = bind.stick_tuning(rows)
        self.across = across or self.tuning.axes == X_ALONE
        self.paces = (move.paces or ()) if move else ()
        self._channel: MoveTuning | None = None
        if move is not None:
            only_this = {"bind": (bind,), "press_amounts": {}, "half_life_s": 0.0, "one_euro": None}
            self._channel = move.model_copy(update=only_this).tuning(rows, (), across)
        self._tables = tuple(rows.numbers)

    @property
    def usual(self) -> bool:
        """Whether directions stay as they are and all of them are alike: a circular gate about the middle, a round
        dead zone, one smooth curve, and a channel that leaves amount and direction alone.
        """
        channel = self._channel
        if channel and (self.across or self.paces or channel.notches or channel.diagonal not in PLAIN_RULES):
            return False
        usual = PLAIN_STICK._replace(dead_zone=self.tuning.dead_zone, curve=self.tuning.curve)
        smooth = self.tuning.curve.form in (CURVE_LINEAR, CURVE_POWER) and self.tuning.curve.ends == 0
        round_zone = self.tuning.dead_zone.form == ZONE_ROUND
        return self.tuning == usual and round_zone and smooth and self.tuning.curve.per_axis == 0

    def at(self, x: float, y: float) -> tuple[float, float]:
        """Return the shaped position of a raw position."""
        if self._channel is not None:
            _, moved = move_output(self._channel, self._tables, _AT_REST, ((x, y),), (), 1.0)
            return moved.right * self.scale, moved.forward * self.scale
        _, right, forward = stick_output(self.tuning, self._tables, ZERO2, x, y)
        return right * self.scale, forward * self.scale

    def held(self, tilt: float, heading_deg: float | None = None) -> tuple[float, float]:
        """Return the position, right and forward, of a stick that is tilted in a direction, straight ahead by
        default.
        """
        if heading_deg is None:
            heading_deg = 90.0 if self.across else 0.0
        heading = math.radians(heading_deg)
        if isinstance(self.bind, Centred):
            x, y = self.bind.tilted(heading, tilt)
            return x, 0.0 - y
        return tilt * math.sin(heading), tilt * math.cos(heading)

    def amount(self, x: float, y: float) -> float:
        """Return how much a raw position requests, 0..1 under the usual diagonal rule."""
        return min(math.hypot(*self.at(x, y)), 1.0)

    def ahead(self, tilt: float) -> float:
        """Return how much a tilt straight ahead requests."""
        return self.amount(*self.held(tilt))

    def tilt_for(self, amount: float, heading_deg: float | None = None, within: float = 1e-12) -> float | None:
        """Return the tilt in a direction (deg, clockwise from forward; straight ahead by default) that first gives
        `amount`, or None if none up to 1 does. It is too large by at most `within` (tilt), and never too small.
        """
        low, high = 0.0, 1.0
        if self.amount(*self.held(1.0, heading_deg)) < amount:
            return None
        # The amount never falls as the tilt grows, so bisection finds the place.
        while high - low > within:
            middle = (low + high) / 2.0
            small = self.amount(*self.held(middle, heading_deg)) < amount
            low, high = (middle, high) if small else (low, middle)
        return high

    def tilts_for(self, amount: float, headings_deg: Sequence[float], within: float) -> list[float | None]:
        """Return the tilt that first gives `amount` in each of several directions (deg), see `tilt_for`.

        >>> from wendonic.demo import demo_profile
        >>> stick = StickResponse(demo_profile().mode["foot"].move.bind[1])
        >>> stick.tilts_for(0.33, [0.0, 77.0], within=0.25)
        [0.75, 0.75]
        """
        if self.usual:
            # All directions are alike.
            return [self.tilt_for(amount, within=within)] * len(headings_deg)
        return [self.tilt_for(amount, heading_deg, within) for heading_deg in headings_deg]

    def steps_to_rim(self, bits: int = 8) -> int:
        """Return the number of steps from rest to full tilt on a device with that many bits; 0 for a source without
        steps: a thumb on the touch screen, the pointer, swinging hands.

        A stick has half of its steps on either side of its rest point, a trigger all of them on one side.

        >>> from wendonic.demo import demo_profile
        >>> StickResponse(demo_profile().mode["foot"].move.bind[1]).steps_to_rim(bits=8)
        127
        """
        if self.bind.called() == "hands":
            return 0
        controls = [control for control in self.bind.controls() if control.startswith(("pad", "joystick", "hand."))]
        if not controls:
            return 0
        one_sided = all(control in CONTROLS and CONTROLS[control].kind == "button" for control in controls)
        return int(2**bits - 1 if one_sided else 2 ** (bits - 1) - 1)

    def steps_in_first_quarter(self, bits: int = 8) -> int:
        """Return how many steps straight ahead request more than 0 and at most a quarter, see `steps_to_rim`.

        >>> from wendonic.demo import demo_profile
        >>> StickResponse(demo_profile().mode["foot"].move.bind[1]).steps_in_first_quarter()
        44
        """
        # The amount never falls as the tilt grows, so bisection finds both ends.
        to_rim = self.steps_to_rim(bits)
        steps = range(1, to_rim + 1)
        first = bisect_left(steps, True, key=lambda step: self.ahead(step / to_rim) > 0.0)
        beyond = bisect_left(steps, True, key=lambda step: self.ahead(step / to_rim) > QUARTER)
        return max(beyond - first, 0)


class CurveResponse:
    """A response curve by itself: from the tilt after the dead zone (0..1) to the amount.

    >>> from wendonic.profile.schema.curve import ExpoCurve
    >>> CurveResponse(ExpoCurve(form="expo", amount=0.6)).amount(0.5)
    0.275
    """

    def __init__(self, curve: Curve) -> None:
        """Take a curve of a profile."""
        rows = NumberRows()
        self._tuning = curve.tuning(rows)
        self._tables = tuple(rows.numbers)

    def amount(self, tilt: float) -> float:
        """Return the amount at a tilt of 0..1."""
        return curve_amount(self._tuning, self._tables, tilt) if tilt > 0.0 else 0.0
