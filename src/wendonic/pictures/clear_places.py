"""Finds clear places for short labels beside marks, away from lines, edges and each other."""

import math
from collections.abc import Iterable, Sequence

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure
from matplotlib.quiver import Quiver
from matplotlib.text import Annotation
from matplotlib.transforms import Bbox

STEP_PX = 4.0
"""Distance of the points by which lines are represented."""

MARGIN_PX = 3.0
"""Space around a label."""

TURNS_DEG = (0.0, 180.0, 30.0, -30.0, 150.0, -150.0, 60.0, -60.0, 120.0, -120.0, 90.0, -90.0)
REACH = (1.0, 1.35, 1.8)
"""Directions, from the preferred one, and distances that are tried; the first of equally clear ones is taken."""

OVERLAP = 200.0
"""Number of line points that an overlapping label counts as."""


def place_clear(ax: Axes, labels: Sequence[Annotation]) -> None:
    """Move labels, one after the other, to the clearest places around their marks, at about the same distance, on any
    side. Everything else has to be on the axes already.
    """
    if not labels:
        return
    figure = ax.get_figure(root=True)
    if not isinstance(figure, Figure):
        raise AssertionError("axes stand on a figure")
    figure.draw_without_rendering()
    others = [text for text in ax.texts if text not in labels and text.get_text()]
    taken = [text.get_window_extent() for text in others]
    obstacles = np.vstack([np.zeros((0, 2)), *_outlines(ax)])
    points_per_px = 72.0 / figure.dpi
    for label in labels:
        box = label.get_window_extent()
        mark = ax.transData.transform(label.xy)
        wanted = np.array([box.x0 + box.x1, box.y0 + box.y1]) / 2.0 - mark
        tried = [(reach, turn_deg) for reach in REACH for turn_deg in TURNS_DEG]
        offsets = [_turned(wanted, reach, turn_deg, box.height / max(box.width, 1.0)) for reach, turn_deg in tried]
        costs = [_cost(_box_at(mark + offset, box), ax.bbox, obstacles, taken) for offset in offsets]
        best = int(np.argmin(costs))
        taken.append(_box_at(mark + offsets[best], box))
        label.set_position(tuple(points_per_px * offsets[best]))


def _turned(offset: np.ndarray, reach: float, turn_deg: float, flatness: float) -> np.ndarray:
    """Return an offset turned about its mark; a label is wider than it is high, and needs less room above it."""
    turn = math.radians(turn_deg)
    x, y = offset[0], offset[1] / flatness
    turned = (x * math.cos(turn) - y * math.sin(turn), (x * math.sin(turn) + y * math.cos(turn)) * flatness)
    return reach * np.array(turned)


def _box_at(middle: np.ndarray, box: Bbox) -> Bbox:
    half = np.array([box.width, box.height]) / 2.0 + MARGIN_PX
    return Bbox([middle - half, middle + half])


def _cost(box: Bbox, axes: Bbox, obstacles: np.ndarray, taken: Iterable[Bbox]) -> float:
    inside = ((obstacles >= box.min) & (obstacles <= box.max)).all(axis=1).sum()
    within = axes.contains(box.x0, box.y0) and axes.contains(box.x1, box.y1)
    return float(inside) + OVERLAP * (sum(box.overlaps(other) for other in taken) + (not within))


def _outlines(ax: Axes) -> Iterable[np.ndarray]:
    """Yield the points of all lines, edges and arrows, in pixels."""
    shapes = [(line.get_path(), line.get_transform()) for line in ax.lines]
    shapes += [(patch.get_path(), patch.get_transform()) for patch in ax.patches]
    for path, transform in shapes:
        for polygon in path.transformed(transform).to_polygons(closed_only=False):
            yield _along(np.asarray(polygon))
    for arrows in ax.collections:
        if isinstance(arrows, Quiver):
            tails, shafts = np.asarray(arrows.XY), np.stack([arrows.U, arrows.V], axis=1) / (arrows.scale or 1.0)
            ends = ax.transData.transform(np.vstack([tails, tails + shafts]))
            for tail, tip in zip(ends[: len(shafts)], ends[len(shafts) :], strict=True):
                yield _along(np.stack([tail, tip]))


def _along(vertices: np.ndarray) -> np.ndarray:
    """Return points along a line, close enough that no label fits between them."""
    pieces = [vertices]
    steps = np.hypot(*np.diff(vertices, axis=0).T)
    for index in np.flatnonzero(steps > STEP_PX).tolist():
        share = np.linspace(0.0, 1.0, int(steps[index] / STEP_PX) + 2)[1:-1, None]
        pieces.append(vertices[index] * (1.0 - share) + vertices[index + 1] * share)
    return np.vstack(pieces)
