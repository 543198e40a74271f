"""Tilt entries: sticks, axes, triggers, a thumb on the touch screen, the pointer, swinging hands."""

import math
from typing import Annotated, Self

from pydantic import Field, model_validator

from wendonic.kernels.source.gate import GATE_CIRCLE, GATE_MEASURED, GATE_SQUARE, rim_length
from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_STICK, SourceTuning
from wendonic.kernels.source.stick import PLAIN_STICK, StickTuning
from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.curve import DEFAULT_CURVE, Curve
from wendonic.profile.schema.dead_zone import DeadZone
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.table import Table, entry, own_faults
from wendonic.profile.schema.words import Word, Words

RestPoint = Annotated[float, Field(ge=-0.5, le=0.5)]
RimLength = Annotated[float, Field(ge=0.25, le=1.5)]

GATES = Words(
    Word("circle", "", GATE_CIRCLE, meaning="The rim is the unit circle."),
    Word(
        "square",
        "; square gate",
        GATE_SQUARE,
        meaning="The rim is a square, mapped onto the circle with its direction kept.",
    ),
    Word(
        "measured",
        "; measured gate",
        GATE_MEASURED,
        ("rim",),
        meaning="The rim is as far out as rim says at each heading.",
    ),
)


class Shaped(Table):
    """What every tilt goes through: a dead zone and a curve."""

    dead_zone: DeadZone = entry("How much of the tilt is ignored at rest and at the rim.", DeadZone())
    curve: Curve = entry("Response curve: how the tilt past the dead zone becomes an amount.", DEFAULT_CURVE)

    @property
    def comes_back(self) -> bool:
        """Whether a tilt that is out stays out until the release: it need not where a border has almost no effect."""
        return True

    def shape_sentence(self) -> str:
        """Describe the shaping of a tilt."""
        return f"{self.dead_zone.sentence(self.comes_back)}; {self.curve.sentence()}"

    def stick_tuning(self, rows: NumberRows) -> StickTuning:
        """Return the kernels' numbers for it."""
        return PLAIN_STICK._replace(dead_zone=self.dead_zone.tuning(self.comes_back), curve=self.curve.tuning(rows))


class Centred(Shaped):
    """A stick as the device has it: its gate, and where it rests (raw, x right, y towards the player).

    A `measured` gate has a `rim`: how far the stick goes at equal steps of heading, clockwise from forward.
    """

    gate: Annotated[str, GATES] = entry(
        "Outline of the stick's rim: a square or measured one is mapped onto the circle, so that "
        "diagonals reach 1 and no more.",
        "circle",
    )
    rim: Annotated[tuple[RimLength, ...], Field(strict=False, min_length=4, max_length=360)] | None = entry(
        "How far the stick really reaches, at equal steps of heading, clockwise from forward. calibrate measures it.",
        None,
        example=[1.0, 0.96, 0.98, 0.95],
        unit="raw",
        otherwise="1 all round",
    )
    centre: Annotated[tuple[RestPoint, RestPoint], Field(strict=False)] = entry(
        "Where the stick rests, in raw values; subtracted first, so that a worn stick does not "
        "drift. calibrate measures it. A stick that is not there reports exactly 0, 0, and counts as at rest.",
        (0.0, 0.0),
        unit="raw",
    )

    @model_validator(mode="after")
    def _rim_of_a_measured_gate(self) -> Self:
        if self.gate == "measured" and self.rim is None:
            raise own_faults([("rim", 'is missing; gate "measured" needs its lengths, clockwise from forward')])
        return self

    def shape_sentence(self) -> str:
        """Describe the shaping of a tilt."""
        return f"{super().shape_sentence()}{self.device_sentence()}"

    def device_sentence(self) -> str:
        """Describe its rim and its rest point, each after a semicolon, unless they are the usual ones."""
        device = GATES.sentence(self.gate)
        device += f" of {len(self.rim)} lengths" if self.rim else ""
        return device + (f"; rest point {self.centre[0]:g}, {self.centre[1]:g}" if any(self.centre) else "")

    def tilted(self, heading: float, tilt: float) -> tuple[float, float]:
        """Return the raw position of a stick that is held this far from where it rests, as a share of the distance to
        its rim in that direction: the rim of its gate, or the one that was measured.

        >>> Centred(gate="square", centre=(0.1, 0.0)).tilted(math.pi / 4.0, 1.0)
        (1.0, -0.9)
        """
        x, y = self.centre
        right, forward = math.sin(heading), math.cos(heading)
        if self.gate == "measured" and self.rim:
            rim = rim_length(right, forward, (float(len(self.rim)), *self.rim), 0)
        elif self.gate == "square":
            axes = ((x, right), (y, -forward))
            rim = min((math.copysign(1.0, slope) - at) / slope for at, slope in axes if abs(slope) > 1e-12)
        else:
            # From where it rests to the unit circle: |centre + rim d| = 1.
            along = x * right - y * forward
            rim = -along + math.sqrt(along * along + 1.0 - x * x - y * y)
        return round(x + rim * tilt * right, 12), round(y - rim * tilt * forward, 12)

    def stick_tuning(self, rows: NumberRows) -> StickTuning:
        """Return the kernels' numbers for it; a device's y is towards the player."""
        x, y = self.centre
        tuning = super().stick_tuning(rows)
        tuning = tuning._replace(
            gate=GATES.number(self.gate), centred=int(any(self.centre)), centre_x=x, centre_y=0.0 - y
        )
        return tuning if self.rim is None else tuning._replace(rim=rows.add(len(self.rim), list(self.rim)))


class Tilted(Shaped, Bind):
    """A tilt entry, 0..1 in each direction."""

    def what(self) -> str:
        """Return a text for its controls."""
        raise NotImplementedError

    def sentence(self) -> str:
        """Describe it: its controls, then its numbers."""
        return f"{self.what()}: {self.shape_sentence()}"

    def tuning(self, rows: NumberRows) -> SourceTuning:
        """Return the kernels' numbers for it."""
        return PLAIN_SOURCE._replace(kind=SOURCE_STICK, stick=self.stick_tuning(rows))
