"""What forward means in each steer frame, moment by moment."""

from collections.abc import Callable
from functools import partial
from typing import Any

import matplotlib.pyplot as plt

from pictures.panels import SIZE
from wendonic import shape
from wendonic.demo import demo_profile, demo_recording
from wendonic.pictures import draw_frame
from wendonic.pictures.style import PAPER

SHOWN: dict[str, tuple[str, str, tuple[float, ...]]] = {
    "camera": ("beekeeper", "beekeeper_mouse", (3.0, 8.0, 14.0)),
    "map": ("store_room", "store_room_walk", (2.0, 5.0, 9.0)),
    "facing": ("smoker", "smoker_rounds", (2.0, 5.0, 9.0)),
    "drive": ("cart", "cart_ride", (1.3, 6.5, 18.9)),
    "fly": ("scout", "scout_flight", (2.0, 3.5, 5.0)),
    "grid": ("crates", "crates_push", (2.0, 5.0, 9.0)),
    "goto": ("orchard", "orchard_errands", (3.0, 8.0, 14.0)),
    "hands": ("headset", "headset_walk", (2.0, 5.0, 8.0)),
}
"""For each frame a shipped profile that has it, a recording, and some moments (s)."""


def frame(name: str) -> Any:
    """Return the compass roses of a frame."""
    of, recording, moments = SHOWN[name]
    profile = demo_profile(of)
    played = demo_recording(recording)
    trace = shape(played, profile)
    begins = float(trace["t"].iloc[0])
    figure, axes = plt.subplots(figsize=SIZE, facecolor=PAPER, layout="constrained")
    draw_frame(trace, profile, [begins + moment for moment in moments], played.title, ax=axes)
    return figure


PICTURES: dict[str, Callable[[], Any]] = {f"frame_{name}": partial(frame, name) for name in SHOWN}
"""Every picture by its name."""
