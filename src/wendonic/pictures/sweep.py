"""A quantity of the feel sheet, or a number of a corpus, over one setting as a line, or over two as a map."""

from typing import TYPE_CHECKING

import numpy as np
from matplotlib.axes import Axes
from matplotlib.colors import LinearSegmentedColormap
from matplotlib.ticker import MaxNLocator

from wendonic.errors import WendonicError
from wendonic.length_unit import METRES, LengthUnit
from wendonic.pictures.style import FOG, HONEY, INK, MOSS, PAPER, SLATE, blank_axes, dress_axes
from wendonic.profile.units import metre_name, spelled_in
from wendonic.significant import significant
from wendonic.study.quantities import QUANTITIES
from wendonic.study.solve.differences import UNITS
from wendonic.study.solve.sweep import ERROR

if TYPE_CHECKING:
    import pandas as pd

LINES = 9
EDGE = 0.03
"""Share of the range below which a line would be in a corner, without room for its number."""
SHADES = LinearSegmentedColormap.from_list("paper to honey", [PAPER, HONEY])


def _levels(least: float, most: float) -> list[float]:
    """Return round values for contour lines, about LINES of them; between two close ones, the middle."""
    edge = EDGE * (most - least)
    levels = [level for level in MaxNLocator(LINES).tick_values(least, most) if least + edge < level < most - edge]
    return levels or [0.5 * (least + most)]


def draw_sweep(frame: "pd.DataFrame", quantity: str, ax: Axes | None = None, length: LengthUnit = METRES) -> Axes:
    """Draw a quantity from the result of `wendonic.study.solve.sweep`: over one setting a line, over two a map with
    labelled contour lines; lengths in the unit `length`. Returns the axes. Raises `WendonicError` for more settings,
    for a quantity that the result does not have, and if nothing was measured.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study.solve.sweep import sweep
    >>> frame = sweep(demo_profile(), {"gait.walk.brake_m_s2": [10.0, 20.0, 30.0]}, ["stop_distance_m"])
    >>> draw_sweep(frame, "stop_distance_m").get_title(loc="left")
    'stop_distance_m: 0.171 to 0.512 m'
    """
    if quantity not in frame:
        raise WendonicError(f"the sweep did not measure {quantity}")
    units = {name: one.unit for name, one in QUANTITIES.items()} | UNITS
    settings = [str(name) for name in frame if name != ERROR and metre_name(str(name)) not in units]
    if not 1 <= len(settings) <= 2:
        raise WendonicError(f"found {len(settings)} settings; a picture shows one or two")
    in_metres = units[metre_name(quantity)]
    # A quantity requested in the game's own unit is in it already.
    factor = length.factor(in_metres) if quantity in units else 1.0
    values = frame[quantity].to_numpy() * factor
    if not np.isfinite(values).any():
        raise WendonicError(f"{quantity} could not be measured anywhere in this sweep")
    unit = length.label(in_metres)
    quantity = spelled_in(length, quantity)
    ax = blank_axes(ax)
    title = f"{quantity}: {significant(np.nanmin(values), 3)} to {significant(np.nanmax(values), 3)} {unit}".rstrip()
    if len(settings) == 1:
        dress_axes(ax, title, settings[0], f"{quantity} ({unit})" if unit else quantity)
        ax.plot(frame[settings[0]], values, color=HONEY, linewidth=1.8, marker="o", markersize=4)
        ax.grid(color=FOG, linewidth=0.5, alpha=0.6)
        return ax
    first, second = settings
    dress_axes(ax, title, second, first)
    grid = frame.assign(value=values).pivot(index=first, columns=second, values="value")
    x, y, z = grid.columns.to_numpy(float), grid.index.to_numpy(float), np.ma.masked_invalid(grid.to_numpy())
    if min(z.shape) < 2:
        raise WendonicError("a map needs two values or more of each setting")
    if float(z.max() - z.min()) <= 1e-9 * max(abs(float(z.max())), 1e-9):
        alike = significant(z.max(), 4)
        raise WendonicError(f"{quantity} is {alike} everywhere in this sweep; there is no line to draw")
    ax.contourf(x, y, z, levels=LINES * 4, cmap=SHADES)
    lines = ax.contour(x, y, z, levels=_levels(float(z.min()), float(z.max())), colors=[SLATE], linewidths=1.3)
    ax.clabel(lines, fmt=lambda value: f"{significant(value, 3)} {unit}".rstrip(), fontsize=9, colors=[INK])
    if z.mask.any():
        missing = np.argwhere(z.mask)
        ax.plot(x[missing[:, 1]], y[missing[:, 0]], "x", color=MOSS, markersize=4, label="not measured")
        ax.legend(loc="upper left", bbox_to_anchor=(1.0, 1.0), frameon=False, labelcolor=INK)
    return ax
