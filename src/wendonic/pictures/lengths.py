"""Axes of lengths and speeds, which are drawn in metres and labelled in a game's own unit."""

from collections.abc import Sequence

from matplotlib.axis import Axis
from matplotlib.ticker import AutoLocator, FuncFormatter

from wendonic.length_unit import LengthUnit
from wendonic.pictures.style import INK


class _UnitLocator(AutoLocator):
    """Ticks at round numbers of a unit of which there are `per_m` in a metre."""

    def __init__(self, per_m: float) -> None:
        super().__init__()
        self._per_m = per_m

    def tick_values(self, vmin: float, vmax: float) -> Sequence[float]:
        return [tick / self._per_m for tick in super().tick_values(vmin * self._per_m, vmax * self._per_m)]


def label_axis(axis: Axis, words: str, unit: str, length: LengthUnit) -> None:
    """Label an axis whose numbers are in `unit`, such as "m" or "m/s", in a game's own unit; numbers that are not
    lengths stay.
    """
    per_m = length.factor(unit)
    axis.set_label_text(f"{words} ({length.label(unit)})", color=INK)
    if per_m != 1.0:
        axis.set_major_locator(_UnitLocator(per_m))
        axis.set_major_formatter(
            FuncFormatter(lambda value, _: f"{round(value * per_m, 6):g}".replace("-", "\N{MINUS SIGN}"))
        )
