"""The swing of both hands under a walk: their speeds, when they count, and the request."""

import math
from typing import TYPE_CHECKING

from matplotlib.axes import Axes

from wendonic.pictures.style import FOG, HEATHER, HONEY, INK, SLATE, dress_axes, label_lines
from wendonic.recording.recording import Recording
from wendonic.study.motion import speeds_m_s

if TYPE_CHECKING:
    import pandas as pd

HANDS = (("hand.left", "left hand", HONEY, "-"), ("hand.right", "right hand", HEATHER, (0, (4, 1.5))))
SMOOTHED_S = 0.05
"""Speeds are averaged over this time, since poses tremble."""


def hand_speeds(recording: Recording, hand: str) -> tuple[list[float], list[float]]:
    """Return times (s) and speeds (m/s) of a hand, each over at least SMOOTHED_S; a loss is a gap.

    >>> from wendonic.demo import demo_recording
    >>> times, speeds = hand_speeds(demo_recording("headset_walk"), "hand.right")
    >>> round(max(speeds), 1)
    1.7
    """
    times: list[float] = []
    speeds: list[float] = []
    last: tuple[float, tuple[float, ...]] | None = None
    for event in recording:
        if event.control == f"lost.{hand}":
            last = None
            times.append(event.t)
            speeds.append(math.nan)
        if event.control == f"{hand}.pose" and isinstance(event.value, tuple):
            place = event.value[:3]
            if last is None:
                last = (event.t, place)
            elif event.t - last[0] >= SMOOTHED_S:
                times.append(event.t)
                speeds.append(math.dist(place, last[1]) / (event.t - last[0]))
                last = (event.t, place)
    return times, speeds


def add_swing(ax: Axes, recording: Recording, trace: "pd.DataFrame") -> None:
    """Draw the speed of each hand and of the walk, over time."""
    for hand, words, color, dashes in HANDS:
        ax.plot(*hand_speeds(recording, hand), color=color, linestyle=dashes, linewidth=1.3, label=words)
    ax.plot(trace["t"], speeds_m_s(trace), color=SLATE, linewidth=1.8, linestyle=(0, (1, 1)), label="walk")
    dress_axes(ax, "", "t (s)", "speed (m/s)")
    ax.set_ylim(bottom=0.0)
    ax.grid(color=FOG, linewidth=0.5, alpha=0.6)
    ax.tick_params(colors=INK)
    label_lines(ax)
