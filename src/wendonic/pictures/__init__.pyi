# Written by docs/write_reference.py; change the pictures, not this file.
from collections.abc import Mapping

from wendonic.pictures.calibration import draw_calibration as draw_calibration
from wendonic.pictures.comparison import draw_comparison as draw_comparison
from wendonic.pictures.corpus import draw_corpus as draw_corpus
from wendonic.pictures.curve import draw_curve as draw_curve
from wendonic.pictures.devices import draw_devices as draw_devices
from wendonic.pictures.diagonals import draw_diagonals as draw_diagonals
from wendonic.pictures.feel import draw_feel as draw_feel
from wendonic.pictures.frame import draw_frame as draw_frame
from wendonic.pictures.look import draw_look as draw_look
from wendonic.pictures.path import draw_path as draw_path
from wendonic.pictures.picture import Picture
from wendonic.pictures.stick import draw_stick as draw_stick
from wendonic.pictures.style import save_picture as save_picture
from wendonic.pictures.sweep import draw_sweep as draw_sweep
from wendonic.pictures.timeline import draw_timeline as draw_timeline

PICTURES: Mapping[str, Picture]
