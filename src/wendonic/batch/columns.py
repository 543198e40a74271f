"""The columns of a trace: the numbers of a tick that each one reads, and how it is computed from them."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from wendonic.compiler.layout import Path
from wendonic.devices.controls import DEVICES
from wendonic.kernels.frames.steer import FRAME_GOTO, FRAME_GRID
from wendonic.kernels.tuning import Tuning

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray


@dataclass(frozen=True)
class Column:
    """One column: the paths of the numbers of an outcome that it reads, and the function that computes it from one
    array of each.
    """

    paths: tuple[Path, ...]
    made: Callable[..., Any] = lambda numbers: numbers

    @property
    def kind(self) -> str:
        """A word for its computation, for code that does the same in another language."""
        return "number" if self.made.__name__ == "<lambda>" else self.made.__name__.strip("_")


def columns_of(tuning: Tuning, press_names: Sequence[str]) -> dict[str, Column]:
    """Return the columns of a mode's trace, in their order."""
    # The first four columns and `device` come from the samples, not from the ticks.
    columns = {name: Column(()) for name in ("tick", "t", "dt", "mode")}
    columns["device"] = Column((("source",),))
    for name in ("raw", "local", "move"):
        columns |= {f"{name}_{axis}": Column(((name, axis),)) for axis in ("x", "y")}
    columns["amount"] = Column((("amount",),))
    columns["heading_deg"] = Column((("move", "x"), ("move", "y"), ("heading",)), _heading_deg)
    columns |= {axis: Column((("axes", axis),)) for axis in ("rise", "turn", "throttle")}
    for name in ("look", "view"):
        columns |= {f"{name}_{angle}_deg": Column(((name, angle),), _degrees) for angle in ("yaw", "pitch")}
    columns["face_deg"] = Column((("body", "face"),), _compass_deg)
    columns["sector"] = Column((("sector",),)) if tuning.sectors > 0 else Column((("amount",),), _missing)
    for short, of in (("pos", "position"), ("vel", "velocity")):
        columns |= {f"{short}_{axis}": Column((("body", of, axis),)) for axis in ("x", "y", "z")}
    columns["grounded"] = Column((("grounded",),), _flag)
    for number, press in enumerate(press_names):
        for flag in ("held", "began", "ended"):
            columns[f"{press}_{flag}"] = Column((("presses", str(number), flag),), _flag)
    return columns | _frame_columns(tuning)


def _frame_columns(tuning: Tuning) -> dict[str, Column]:
    """Return the columns that only some steer frames have."""
    columns: dict[str, Column] = {}
    if tuning.frame.frame == FRAME_GRID:
        grid = ("frame", "grid")
        columns |= {f"step_{axis}": Column(((*grid, "step", f"to_{axis}"),), _whole) for axis in ("x", "y")}
        for axis in ("x", "y"):
            paths = ((*grid, "refused"), (*grid, "step", axis), (*grid, f"refused_{axis}"))
            columns[f"refused_{axis}"] = Column(paths, _refused)
        columns |= {f"step_{flag}": Column(((*grid, flag),), _flag) for flag in ("began", "ended")}
    if tuning.frame.slope.follows:
        columns["refused"] = Column((("wanted", "refused"),), _flag)
    if tuning.frame.frame == FRAME_GOTO:
        goal = ("frame", "goal")
        columns |= {f"goal_{axis}": Column(((*goal, "there"), (*goal, axis)), _where) for axis in ("x", "y")}
        columns["arrived"] = Column((("frame", "arrived"),), _flag)
    if tuning.comfort.used:
        columns["vignette"] = Column((("comfort", "shown"),))
        columns["returned"] = Column((("comfort", "returned"),), _flag)
    if tuning.point_press >= 0:
        columns["teleported"] = Column((("pointing", "teleported"),), _flag)
    return columns


def device_column(devices: "NDArray[np.intp]") -> Any:
    """Return the column `device`, of indices in `DEVICES` or -1 for none."""
    import numpy as np
    import pandas as pd

    used = sorted(set(np.unique(devices).tolist()) - {-1})
    codes = np.searchsorted(used, devices) if used else devices
    names = pd.Index([DEVICES[index] for index in used], dtype=str)
    return pd.Categorical.from_codes(np.where(devices >= 0, codes, -1), names)


def _flag(numbers: "NDArray[np.float64]") -> "NDArray[np.bool_]":
    return numbers > 0.0


def _whole(numbers: "NDArray[np.float64]") -> "NDArray[np.int_]":
    return numbers.astype(int)


def _degrees(angles: "NDArray[np.float64]") -> "NDArray[np.float64]":
    import numpy as np

    return np.degrees(angles)


def _compass_deg(angles: "NDArray[np.float64]") -> "NDArray[np.float64]":
    """Return `intent.compass_deg` of every angle."""
    import numpy as np

    degrees = np.degrees(angles)
    degrees = np.where(degrees < 0.0, degrees + 360.0, degrees)
    return np.where(degrees < 360.0, degrees, 0.0)


def _heading_deg(
    move_x: "NDArray[np.float64]", move_y: "NDArray[np.float64]", heading: "NDArray[np.float64]"
) -> "NDArray[np.float64]":
    import numpy as np

    return np.where((move_x == 0.0) & (move_y == 0.0), math.nan, _compass_deg(heading))


def _missing(numbers: "NDArray[np.float64]") -> "NDArray[np.float64]":
    import numpy as np

    return np.full(len(numbers), math.nan)


def _where(there: "NDArray[np.float64]", numbers: "NDArray[np.float64]") -> "NDArray[np.float64]":
    import numpy as np

    return np.where(_flag(there), numbers, math.nan)


def _refused(
    refused: "NDArray[np.float64]", square: "NDArray[np.float64]", step: "NDArray[np.float64]"
) -> "NDArray[np.float64]":
    return _where(refused, square + step)
