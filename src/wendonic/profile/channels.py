"""The channels, as a profile writes them: their sources, and what happens once these are merged."""

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from wendonic.profile.axis_binds import RiseBind, ThrottleBind, TurnBind
from wendonic.profile.look_binds import AnyLookBind
from wendonic.profile.move_binds import MoveBind
from wendonic.profile.table import Fraction, Seconds, Table, own_fault, own_faults


class Pace(Table):
    """A length above which everything is one amount."""

    above: Annotated[float, Field(ge=0.0, lt=1.0)]
    amount: Annotated[float, Field(gt=0.0, le=1.0)]


class OneEuro(Table):
    """Smoothing with a cutoff that rises with speed (Casiez, Roussel, Vogel, CHI 2012); `beta` in Hz per 1/s."""

    min_cutoff_hz: Annotated[float, Field(gt=0.0, le=1000.0)] = 2.0
    beta: Annotated[float, Field(ge=0.0, le=1000.0)] = 1.0
    d_cutoff_hz: Annotated[float, Field(gt=0.0, le=1000.0)] = 1.0


class Move(Table):
    """The channel `move`: its sources and what happens once they are merged.

    `diagonal_factor` multiplies both axes where they are alike. `paces` make the length one of a few; one is left
    only `pace_margin` below where it begins. While a press of `press_amounts` is held, the amount is multiplied by
    its number, the smallest where several are. The direction is drawn to `notches` compass points, wholly at a
    `notch_pull` of 1. Smoothing is by half-life or by `one_euro`.
    """

    merge: Literal["strongest", "sum", "latest"] = "strongest"
    diagonal: Literal["cap", "unit", "free", "factor"] = "cap"
    diagonal_factor: Annotated[float, Field(gt=0.0, le=1.0)] | None = None
    paces: Annotated[tuple[Pace, ...], Field(strict=False, min_length=1)] | None = None
    pace_margin: Annotated[float, Field(ge=0.0, le=0.5)] | None = None
    press_amounts: dict[str, Fraction] = Field(default_factory=dict)
    notches: Annotated[int, Field(ge=2, le=64)] | None = None
    notch_pull: Fraction | None = None
    half_life_s: Seconds = 0.02
    one_euro: OneEuro | None = None
    bind: Annotated[tuple[MoveBind, ...], Field(strict=False, min_length=1)]

    @model_validator(mode="after")
    def _nothing_idle(self) -> Self:
        wrong: list[tuple[str, str]] = []
        if self.diagonal_factor is not None and self.diagonal != "factor":
            words = f'does nothing under diagonal "{self.diagonal}"; it goes with diagonal "factor"'
            wrong.append(("diagonal_factor", words))
        for name, of in (("pace_margin", "paces"), ("notch_pull", "notches")):
            if getattr(self, name) is not None and getattr(self, of) is None:
                wrong.append((name, f"does nothing without {of}"))
        if self.one_euro is not None and "half_life_s" in self.model_fields_set:
            wrong.append(("half_life_s", "found beside one_euro; allowed: one way of smoothing"))
        for index, (one, other) in enumerate(pairwise(self.paces or ()), 1):
            for name in ("above", "amount"):
                before, after = getattr(one, name), getattr(other, name)
                if after <= before:
                    words = f"{after:g} is not above the {before:g} of the pace before; paces rise"
                    wrong.append((f"paces.{index}.{name}", words))
        if wrong:
            raise own_faults(wrong)
        return self


class Rise(Table):
    """The channel `rise`, -1 down to 1 up."""

    merge: Literal["strongest", "sum"] = "strongest"
    bind: Annotated[tuple[RiseBind, ...], Field(strict=False, min_length=1)]


class Throttle(Table):
    """The channel `throttle`, -1 back to 1 ahead."""

    merge: Literal["strongest", "sum"] = "strongest"
    bind: Annotated[tuple[ThrottleBind, ...], Field(strict=False, min_length=1)]


class Turn(Table):
    """The channel `turn`, -1 left to 1 right."""

    merge: Literal["strongest", "sum"] = "strongest"
    bind: Annotated[tuple[TurnBind, ...], Field(strict=False, min_length=1)]


FieldOfView = Annotated[float, Field(gt=0.0, lt=180.0)]


class Zoom(Table):
    """A narrower field of view while `press` is held, from `fov_deg` to `zoom_fov_deg`, both along the same axis.

    The turn is scaled so that what is seen at `match_at` (0 the middle, 1 the edge, along that axis) moves equally
    far on the screen for the same motion of the hand.
    """

    press: str
    fov_deg: FieldOfView = 80.0
    zoom_fov_deg: FieldOfView = 40.0
    match_at: Fraction = 0.0


class LookTable(Table):
    """The channel `look`: its sources add up; the pitch stays within its limits."""

    pitch_limits_deg: Annotated[
        tuple[Annotated[float, Field(ge=-90.0, le=90.0)], Annotated[float, Field(ge=-90.0, le=90.0)]],
        Field(strict=False),
    ] = (-75.0, 75.0)
    zoom: Zoom | None = None
    bind: Annotated[tuple[AnyLookBind, ...], Field(strict=False, min_length=1)]

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        low, high = self.pitch_limits_deg
        if low >= high:
            raise own_fault(f"pitch limits {low:g} and {high:g}; allowed: the lower one first")
        return self
