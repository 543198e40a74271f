"""Pictures of profiles, recordings and traces. Every function takes `ax=None` and returns what it drew."""

from wendonic.pictures.calibration import draw_calibration
from wendonic.pictures.comparison import draw_comparison
from wendonic.pictures.curve import draw_curves
from wendonic.pictures.devices import draw_devices
from wendonic.pictures.diagonals import draw_diagonals
from wendonic.pictures.feel import draw_feel
from wendonic.pictures.frame import draw_frame
from wendonic.pictures.look import draw_look
from wendonic.pictures.path import draw_path
from wendonic.pictures.stick import draw_stick
from wendonic.pictures.style import save_picture
from wendonic.pictures.sweep import draw_sweep
from wendonic.pictures.timeline import draw_timeline

__all__ = [
    "draw_calibration",
    "draw_comparison",
    "draw_curves",
    "draw_devices",
    "draw_diagonals",
    "draw_feel",
    "draw_frame",
    "draw_look",
    "draw_path",
    "draw_stick",
    "draw_sweep",
    "draw_timeline",
    "save_picture",
]
