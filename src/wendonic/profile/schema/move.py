"""The channel `move`: its sources, and the steps after they are merged."""

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import Annotated, Self

from pydantic import Field, model_validator

from wendonic.arithmetic import radians
from wendonic.kernels.move.merge import MERGE_LATEST, MERGE_STRONGEST, MERGE_SUM
from wendonic.kernels.move.move import (
    SMOOTHING_HALF_LIFE,
    SMOOTHING_NONE,
    SMOOTHING_ONE_EURO,
    MoveTuning,
    PressAmount,
)
from wendonic.kernels.move.one_euro import NO_ONE_EURO, OneEuroTuning
from wendonic.kernels.move.paces import PaceTuning
from wendonic.kernels.source.source import (
    SOURCE_AXES,
    SOURCE_KEYS,
    SOURCE_STICK,
    SOURCE_SWING,
    SourceTuning,
    within_circle,
)
from wendonic.profile.schema.bind import seat_words
from wendonic.profile.schema.diagonals import DIAGONALS
from wendonic.profile.schema.keyed import Ramped, joined_keys
from wendonic.profile.schema.move_binds import MoveBind
from wendonic.profile.schema.names import Fraction, Seconds
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.table import Table, entry, own_faults
from wendonic.profile.schema.words import Word, Words

MERGES = Words(
    Word("strongest", "the strongest of", MERGE_STRONGEST, meaning="The source with the largest amount counts."),
    Word(
        "sum",
        "the sum of",
        MERGE_SUM,
        meaning="The sources are added, under the diagonal rule of the one with the largest amount.",
    ),
    Word(
        "latest",
        "the latest of",
        MERGE_LATEST,
        meaning="The source that began last counts until it is back at rest, then the one with the largest amount.",
    ),
)
STRAIGHT_IN_RAMPS = ("cap", "free")
"""Diagonal rules that are linear during a key's ramp, or have a closed form for it."""


def merged_words(merge: str, count: int) -> str:
    """Return in words how sources are merged.

    >>> merged_words("sum", 2), merged_words("strongest", 1)
    ('the sum of 2 sources', '1 source')
    """
    return "1 source" if count == 1 else f"{MERGES.sentence(merge)} {count} sources"


PACE_MARGIN = 0.08
NOTCH_MARGIN_DEG = 6.0


class Pace(Table):
    """One pace: an amount, and the threshold above which it counts."""

    above: Annotated[float, Field(ge=0.0, lt=1.0)] = entry(
        "Amount above which this pace counts.", example=0.7, unit="amount"
    )
    amount: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "Amount of this pace: its share of top speed.", example=1.0, unit="amount"
    )


class OneEuro(Table):
    """A low-pass filter whose cutoff rises with speed (Casiez, Roussel, Vogel, CHI 2012); `beta` in Hz per 1/s."""

    min_cutoff_hz: Annotated[float, Field(ge=0.01, le=1000.0)] = entry(
        "Cutoff frequency at rest: lower it if a resting hand trembles, raise it if slow motions lag.", 2.0
    )
    beta: Annotated[float, Field(ge=0.0, le=1000.0)] = entry(
        "How much the cutoff rises with speed: raise it if quick motions lag, lower it if they tremble.",
        1.0,
        unit="Hz per 1/s",
    )
    d_cutoff_hz: Annotated[float, Field(ge=0.01, le=1000.0)] = entry(
        "Cutoff frequency of the speed estimate. Rarely changed.", 1.0
    )


class Move(Table):
    """The channel `move`: its sources, and what happens after they are merged.

    `diagonal_factor` multiplies both axes on a diagonal. `paces` round the amount to one of a few; a pace ends only
    `pace_margin` below its threshold. While presses of `press_amounts` are held, the amount is multiplied by the
    smallest of their factors. The direction is pulled to `notches` compass directions, entirely with a `notch_pull`
    of 1, when one ends only `notch_margin_deg` past its border. Smoothing is by half-life or by `one_euro`.
    """

    merge: Annotated[str, MERGES] = entry(
        "How several sources become one: the strongest wins, they add up, or the latest wins.", "strongest"
    )
    diagonal: Annotated[str, DIAGONALS] = entry(
        "What two directions at once give: cap keeps partial tilt, unit is always full speed, free runs 41 % faster. "
        "Left out in a vehicle, where one axis drives and the other one turns, it is free.",
        "cap",
    )
    diagonal_factor: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "What both axes of a diagonal are multiplied by: lower it if diagonals are too fast, raise "
        "it if they are too slow.",
        math.sqrt(0.5),
        unit="times",
    )
    paces: Annotated[tuple[Pace, ...], Field(strict=False, min_length=1)] | None = entry(
        "Fixed amounts that a tilt is rounded to, such as stroll, walk and run.",
        None,
        example=[{"above": 0.0, "amount": 0.45}, {"above": 0.7, "amount": 1.0}],
        otherwise="any amount",
    )
    pace_margin: Annotated[float, Field(ge=0.0, le=0.5)] | None = entry(
        "How far below its threshold a pace lasts: raise it if the pace flickers, lower it if it slows down late.",
        None,
        unit="amount",
        example=0.08,
        otherwise="0.08, or half the step to the first pace if that is less",
    )
    press_amounts: dict[str, Fraction] = entry(
        "Presses that scale the amount while held, each with its factor: also that of a rise in the air and of a "
        "throttle, and on the way to a goal.",
        {},
        example={"stroll": 0.4},
        unit="times",
    )
    notches: Annotated[int, Field(ge=2, le=64)] | None = entry(
        "Number of compass directions that the heading is pulled to.",
        None,
        example=8,
        unit="directions",
        otherwise="none",
    )
    notch_pull: Fraction = entry(
        "How strong the pull is: raise it to hold straight lines more easily, lower it to steer "
        "freely; 1 allows these directions only.",
        0.5,
        unit="share",
    )
    notch_margin_deg: Annotated[float, Field(ge=0.0, lt=90.0)] | None = entry(
        "With a pull of 1, how far past its border a direction lasts: raise it if the direction "
        "flickers, lower it if it changes late.",
        None,
        example=6,
        otherwise="6, or a quarter of the angle between two directions if that is less",
    )
    half_life_s: Seconds = entry(
        "Half-life of the smoothing of movement: raise it for a softer feel, lower it for a quicker"
        " answer; 0 for none.",
        0.0,
    )
    one_euro: OneEuro | None = entry(
        "One-euro filter in place of half_life_s: smooths strongly at rest and weakly in motion.",
        None,
        example={"min_cutoff_hz": 2.0, "beta": 1.0},
        otherwise="none",
    )
    bind: Annotated[tuple[MoveBind, ...], Field(strict=False, min_length=1)] = entry(
        "Sources of movement: one entry for each device.", example=[{"stick": "pad.left_stick"}]
    )

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        by_entry = any(bind.diagonal == "factor" for bind in self.bind)
        yield from (idle for idle in super().idle_fields() if not (by_entry and idle[0] == "diagonal_factor"))
        for name, of in (("pace_margin", "paces"), ("notch_pull", "notches"), ("notch_margin_deg", "notches")):
            if name in self.model_fields_set and getattr(self, of) is None:
                yield name, f"does nothing without {of}"
        if self.notches and self.notch_pull < 1.0 and self.notch_margin_deg is not None:
            yield (
                "notch_margin_deg",
                f"does nothing at a pull of {self.notch_pull:g}; it goes with 1",
            )

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        wrong: list[tuple[str, str]] = []
        if self.one_euro is not None and "half_life_s" in self.model_fields_set:
            wrong.append(("half_life_s", "found together with one_euro; allowed: one kind of smoothing"))
        first = self.paces[0].above if self.paces else 0.0
        if self.pace_margin is not None and self.pace_margin >= first > 0.0:
            words = f"{self.pace_margin:g} is not below the {first:g} where the first pace begins; it would never end"
            wrong.append(("pace_margin", words))
        half_deg = 180.0 / (self.notches or 2)
        if self.notch_margin_deg is not None and self.notch_margin_deg >= half_deg:
            words = f"{self.notch_margin_deg:g} reaches the next direction; allowed: below {half_deg:g}"
            wrong.append(("notch_margin_deg", words))
        for index, (one, other) in enumerate(pairwise(self.paces or ()), 1):
            for name in ("above", "amount"):
                before, after = getattr(one, name), getattr(other, name)
                if after <= before:
                    words = f"{after:g} is not above the {before:g} of the pace before; paces rise"
                    wrong.append((f"paces.{index}.{name}", words))
        if wrong:
            raise own_faults(wrong)
        return self

    def uses(self, name: str) -> bool:
        """Return whether a field has an effect: there is only one kind of smoothing."""
        return super().uses(name) and not (self.one_euro is not None and name == "half_life_s")

    @property
    def margin(self) -> float:
        """How far below its beginning a pace ends."""
        if self.pace_margin is not None:
            return self.pace_margin
        first = self.paces[0].above if self.paces else 0.0
        return min(PACE_MARGIN, first / 2.0) if first > 0.0 else PACE_MARGIN

    @property
    def notch_margin(self) -> float:
        """How far beyond its border (deg) a compass point ends; 0 if nothing jumps."""
        if not self.notches or self.notch_pull < 1.0:
            return 0.0
        return min(NOTCH_MARGIN_DEG, 90.0 / self.notches) if self.notch_margin_deg is None else self.notch_margin_deg

    def pace_tunings(self) -> tuple[PaceTuning, ...]:
        """Return the paces as the kernels' numbers."""
        return tuple(PaceTuning(pace.above, pace.amount) for pace in self.paces or ())

    def rule_of(self, bind: MoveBind) -> str:
        """Return the diagonal rule of an entry: its own, or the channel's. A tilt already has an amount and a
        direction, so "unit" and "factor" are for keys unless a tilt's own entry sets them.
        """
        if bind.diagonal is not None:
            return bind.diagonal
        return self.diagonal if isinstance(bind, Ramped) or self.diagonal in STRAIGHT_IN_RAMPS else "cap"

    def sentences(self, drives: bool = False) -> list[str]:
        """Describe steps 6 to 10 in order, mentioning jumps, then each source."""
        apart = drives and self.diagonal == "free"
        words = ["each axis by itself" if apart else DIAGONALS.sentence(self.diagonal, self)]
        if self.paces:
            paces = ", ".join(f"{pace.amount:g} above {pace.above:g}" for pace in self.paces)
            words.append(f"paces {paces}, each lasting {self.margin:g} below its threshold (jumps)")
        words += [f"times {amount:g} while {press} is held" for press, amount in self.press_amounts.items()]
        if self.notches:
            jumps = (
                f", each lasting {self.notch_margin:g} deg past its border (jumps)" if self.notch_pull == 1.0 else ""
            )
            words.append(f"pulled to {self.notches} directions by {self.notch_pull:g}{jumps}")
        if self.one_euro:
            one = self.one_euro
            cutoffs = f"cutoff {one.min_cutoff_hz:g} Hz and {one.beta:g} Hz more per 1/s of speed"
            words.append(f"one-euro filter, {cutoffs}, speed estimate with {one.d_cutoff_hz:g} Hz")
        else:
            words.append(f"half-life {self.half_life_s:g} s" if self.half_life_s else "no smoothing")
        first = f"move: {merged_words(self.merge, len(self.bind))}, {', '.join(words)}"
        lines = [first]
        for bind in self.bind:
            rule = self.rule_of(bind)
            own = f"; {DIAGONALS.sentence(rule, self)}" if rule != self.diagonal else ""
            lines.append(f"  {bind.sentence()}{own}{seat_words(bind.seat)}")
        return lines

    def _within(self, bind: MoveBind, source: SourceTuning, across: bool) -> SourceTuning:
        """Return a source that stays within its ceiling if the cap at full speed comes too late for that."""
        late = source.stick.curve.ends > 0 and not within_circle(source) and not across
        if late and source.kind in (SOURCE_STICK, SOURCE_AXES) and self.rule_of(bind) == "cap":
            return source._replace(stick=source.stick._replace(within=1))
        return source

    def tuning(self, rows: NumberRows, press_names: tuple[str, ...], across: bool = False) -> MoveTuning:
        """Return the kernels' numbers for it; `across` in a game that is seen from the side."""
        sources = tuple(self._within(bind, bind.tuning(rows), across) for bind in self.bind)
        smoothing, one_euro = SMOOTHING_HALF_LIFE if self.half_life_s > 0.0 else SMOOTHING_NONE, NO_ONE_EURO
        if self.one_euro:
            smoothing = SMOOTHING_ONE_EURO
            one_euro = OneEuroTuning(self.one_euro.min_cutoff_hz, self.one_euro.beta, self.one_euro.d_cutoff_hz)
        rules = tuple(DIAGONALS.number(self.rule_of(bind)) for bind in self.bind)
        of_keys = {self.rule_of(bind) for bind in self.bind if isinstance(bind, Ramped)}
        bent = (
            not of_keys.issubset(STRAIGHT_IN_RAMPS)
            or self.merge == "sum"
            or bool(self.paces or self.press_amounts or self.notches or self.one_euro)
        )
        ramps = any(source.kind == SOURCE_KEYS and source.keys.ramps > 0 for source in sources)
        return MoveTuning(
            sources,
            MERGES.number(self.merge),
            rules[0],
            self.diagonal_factor,
            self.pace_tunings(),
            self.margin,
            tuple(PressAmount(press_names.index(name), amount) for name, amount in self.press_amounts.items()),
            self.notches or 0,
            self.notch_pull,
            radians(self.notch_margin),
            smoothing,
            self.half_life_s,
            one_euro,
            # The positions of hands are known once per tick, so their speed is that of the whole tick.
            int(bent and ramps and not any(source.kind == SOURCE_SWING for source in sources)),
            int(across),
            *joined_keys(self.bind),
            () if len(set(rules)) == 1 else rules,
        )
