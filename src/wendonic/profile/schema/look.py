"""The channel `look`: its sources, its limits, and the zoom."""

from typing import Annotated, Self

from pydantic import Field, model_validator

from wendonic.arithmetic import radians
from wendonic.kernels.look.look import LookTuning
from wendonic.look_units import zoom_ratio
from wendonic.profile.schema.look_binds import AnyLookBind
from wendonic.profile.schema.names import Fraction, PressName
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.table import Table, entry, own_fault

FieldOfView = Annotated[float, Field(gt=0.0, lt=180.0)]
Pitch = Annotated[float, Field(ge=-90.0, le=90.0)]


class Zoom(Table):
    """A narrower field of view while `press` is held: from `fov_deg` to `zoom_fov_deg`, both along the same axis.

    Turns are scaled so that what is seen at `match_at` (0 the middle, 1 the edge, along that axis) moves equally far
    on the screen for the same motion of the hand.
    """

    press: PressName = entry("Press that zooms in while held.", example="spyglass")
    fov_deg: FieldOfView = entry("Field of view without the zoom.", 80.0)
    zoom_fov_deg: FieldOfView = entry(
        "Field of view with the zoom, along the same axis: lower it to turn more slowly while zoomed.", 40.0
    )
    match_at: Fraction = entry(
        "Where on the screen the same hand motion covers the same distance with and without zoom: 0"
        " is the middle, 1 the edge.",
        0.0,
        unit="share",
    )

    @property
    def scale(self) -> float:
        """The factor of turns."""
        return zoom_ratio(self.fov_deg, self.zoom_fov_deg, self.match_at)

    def sentence(self) -> str:
        """Describe it."""
        where = {0.0: "the middle", 1.0: "the edge"}.get(self.match_at, f"{self.match_at:g} of the way to the edge")
        view = f"from {self.fov_deg:g} to {self.zoom_fov_deg:g} deg of view"
        return f"times {self.scale:.4g} while {self.press} is held ({view}, matched at {where})"


class LookTable(Table):
    """The channel `look`: its sources add up, and the pitch stays within its limits."""

    pitch_limits_deg: Annotated[tuple[Pitch, Pitch], Field(strict=False)] = entry(
        "Lowest and highest pitch of the view.", (-75.0, 75.0)
    )
    zoom: Zoom | None = entry(
        "Turns the view more slowly while a press zooms in.", None, example={"press": "spyglass"}, otherwise="none"
    )
    bind: Annotated[tuple[AnyLookBind, ...], Field(strict=False, min_length=1)] = entry(
        "Sources of turning the view: one entry for each device. They add up.", example=[{"mouse": "mouse.move"}]
    )

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        low, high = self.pitch_limits_deg
        if low >= high:
            raise own_fault(f"pitch limits {low:g} and {high:g}; allowed: the lower one first")
        return self

    def sentences(self) -> list[str]:
        """Describe the channel, then each source."""
        low, high = self.pitch_limits_deg
        count = len(self.bind)
        words = f"look: {'1 source' if count == 1 else f'{count} sources, added'}, pitch {low:g} to {high:g} deg"
        words += f"; {self.zoom.sentence()}" if self.zoom else ""
        return [words, *(f"  {bind.seated_sentence()}" for bind in self.bind)]

    def tuning(self, rows: NumberRows, press_names: tuple[str, ...]) -> LookTuning:
        """Return the kernels' numbers for it, angles in radians."""
        low_deg, high_deg = self.pitch_limits_deg
        press, scale = (-1, 1.0) if self.zoom is None else (press_names.index(self.zoom.press), self.zoom.scale)
        sources = tuple(bind.tuning(rows, press_names) for bind in self.bind)
        return LookTuning(sources, radians(low_deg), radians(high_deg), press, scale)
