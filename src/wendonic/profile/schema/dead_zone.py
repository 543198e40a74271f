"""Dead zones."""

from math import atan, degrees
from typing import Annotated, Self

from pydantic import Field, model_validator

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
from wendonic.profile.schema.names import Fraction
from wendonic.profile.schema.table import Table, entry, own_fault
from wendonic.profile.schema.words import Word, Words

_ALL = ("inner", "outer", "release")
DEAD_ZONE_FORMS = Words(
    Word("none", "no dead zone", ZONE_NONE, meaning="Nothing is ignored."),
    Word(
        "round",
        "nothing up to tilt {inner:g}, full from tilt {outer:g}",
        ZONE_ROUND,
        _ALL,
        meaning="The length of the tilt is rescaled from inner..outer to 0..1; the direction is kept.",
    ),
    Word(
        "axes",
        "each axis: nothing up to tilt {inner:g}, full from tilt {outer:g}",
        ZONE_AXES,
        _ALL,
        meaning="Each axis is rescaled from inner..outer to 0..1 by itself.",
    ),
    Word(
        "wedge",
        "directions within {table.straight_deg:.2g} deg of an axis go along it, full from tilt {outer:g}",
        ZONE_WEDGE,
        ("inner", "outer"),
        meaning="Each axis is damped in proportion to the other one, so that nearly straight becomes straight.",
    ),
    Word(
        "round+wedge",
        "nothing up to tilt {inner:g}, directions within {table.straight_deg:.2g} deg of an axis go along it, "
        "full from tilt {outer:g}",
        ZONE_ROUND_WEDGE,
        _ALL,
        meaning="The length is rescaled first, then each axis is damped in proportion to the other one.",
    ),
    Word(
        "cut",
        "nothing up to tilt {inner:g}, then the raw tilt (a jump)",
        ZONE_CUT,
        ("inner", "release"),
        meaning="The raw tilt passes once it is above inner: there is a jump at the edge.",
    ),
)


USUAL_SHARE = 0.9
"""Share of `inner` at which a stick counts as back: a thumb trembles by less than a tenth of a usual dead zone."""


class DeadZone(Table):
    """The dead zone of a stick: 0 below `inner`, 1 above `outer` (tilt, 0..1), rescaled between.

    `round` works on the length of the tilt, `axes` on each axis by itself, `wedge` on each axis in proportion to the
    other one, `round+wedge` on the length first; `cut` passes the raw tilt above `inner`, with a jump; `none`
    ignores nothing. A tilted stick counts as tilted until it is back at `release`, so that a lightly held one does
    not flicker; a `release` equal to `inner` has no such margin.
    """

    form: Annotated[str, DEAD_ZONE_FORMS] = entry(
        "Shape of the dead zone: round keeps every direction, axes and wedge make straight lines easier to hold.",
        "round",
    )
    inner: Annotated[float, Field(ge=0.0, lt=1.0)] = entry(
        "Tilt below which nothing happens: raise it until a worn stick rests, lower it so that small tilts count.",
        0.14,
        unit="tilt",
    )
    outer: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "Tilt that counts as full (saturation, outer dead zone): lower it if the stick never "
        "reaches full speed, raise it for finer control.",
        0.96,
        unit="tilt",
    )
    release: Fraction | None = entry(
        "Tilt (less than inner) at which a tilted stick counts as released: lower it if a slightly "
        "tilted stick flickers on and off.",
        None,
        example=0.11,
        unit="tilt",
        otherwise="nine tenths of inner",
    )

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.inner >= self.outer:
            words = f"inner {self.inner:g} is not below outer {self.outer:g}; nothing of the stick would be left"
            raise own_fault(words)
        if self.release is not None and self.release > self.inner:
            raise own_fault(f"release {self.release:g} is above inner {self.inner:g}; allowed: up to it")
        return self

    @property
    def back(self) -> float:
        """Tilt at which a stick that is out counts as back."""
        return USUAL_SHARE * self.inner if self.release is None else self.release

    @property
    def straight_deg(self) -> float:
        """Angle from an axis up to which a wedge puts a direction on it."""
        return degrees(atan(self.inner))

    @property
    def releases(self) -> bool:
        """Whether a stick that is out comes back at a lower limit."""
        return "release" in DEAD_ZONE_FORMS[self.form].fields and self.back < self.inner

    def sentence(self, comes_back: bool = True) -> str:
        """Say what it does; `comes_back` says whether a release counts there.

        >>> DeadZone(form="cut", inner=0.2, release=0.1).sentence()
        'nothing up to tilt 0.2, then the raw tilt (a jump), released at 0.1'
        """
        release = f", released at {self.back:.3g}" if comes_back and self.releases else ""
        return f"{DEAD_ZONE_FORMS.sentence(self.form, self)}{release}"

    def tuning(self, comes_back: bool = True) -> DeadZoneTuning:
        """Return the kernels' numbers for it."""
        number = DEAD_ZONE_FORMS.number(self.form)
        if number == ZONE_NONE:
            return NO_DEAD_ZONE
        inner = self.inner if number == ZONE_WEDGE else max(self.inner, JUST_OUT)
        if not comes_back or not self.releases:
            return DeadZoneTuning(number, 0, inner, self.outer, 0.0)
        return DeadZoneTuning(number, 1, inner, self.outer, max(self.back, JUST_OUT))
