"""Frame `grid`."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, PrivateAttr, model_validator

from wendonic.arithmetic import radians
from wendonic.kernels.frames.frame import FrameTuning
from wendonic.kernels.frames.squares import GridTuning
from wendonic.kernels.frames.steer import FRAME_GRID
from wendonic.kernels.vector import Vec2
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.keyed import OPPOSITES, Opposed
from wendonic.profile.schema.names import Seconds
from wendonic.profile.schema.release import released_at
from wendonic.profile.schema.steer.sprite import Faced, frame_entry
from wendonic.profile.schema.table import entry, own_faults
from wendonic.world_axes import WorldAxes

Place = Annotated[float, Field(ge=-1e9, le=1e9)]


class GridSteer(Faced):
    """Steps of one square of `square_m`, each taking `step_s`, evenly or `eased`.

    With `repeats`, a held direction steps again `delay_s` after the press and then every `repeat_s`, or as soon as
    the step is done. Without `diagonals`, the larger axis of a stick wins; of two keys, the one that `opposites` of
    the first entry that has them says. With `turn_first_s`, a tap turns the body, and a direction that is held for
    longer steps. Walls of a course refuse a step as blocked squares do. A press that scales `move` makes steps
    slower.
    """

    number: ClassVar[int] = FRAME_GRID
    forward_by: ClassVar[Literal["plan", "view", "body", "other"]] = "plan"
    forward_name: ClassVar[str] = "that of [world]"
    weightless: ClassVar[str] = "a body that steps from square to square"
    glides: ClassVar[bool] = True
    frame: Literal["grid"] = frame_entry("grid")
    square_m: Annotated[float, Field(gt=0.0, le=1000.0)] = entry("Width of a square.", 1.0)
    origin_m: Annotated[tuple[Place, Place], Field(strict=False)] | None = entry(
        "Corner of square (0, 0), along the game's own horizontal axes: where the tile map begins.",
        None,
        example=[0.0, 0.0],
        otherwise="the middle of square (0, 0) is at the origin",
    )
    step_s: Annotated[float, Field(ge=0.01, le=10.0)] = entry(
        "Duration of a step: raise it for a slower walk, lower it for a quicker one.", 0.22
    )
    repeats: bool = entry("Whether a held direction keeps stepping.", True)
    delay_s: Seconds = entry(
        "Time from the press to the second step: raise it if one press steps twice, lower it for a "
        "quicker walk; 0 goes on as soon as a step is done.",
        0.0,
    )
    repeat_s: Seconds = entry(
        "Time between steps while held: raise it for a slower repeat, lower it for a quicker one; 0"
        " goes on as soon as a step is done.",
        0.0,
    )
    diagonals: bool = entry("Whether two directions at once step diagonally.", False)
    above: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "Tilt from which a stick steps: raise it if it steps by accident, lower it for shorter travel.",
        0.5,
        unit="tilt",
    )
    release: Annotated[float, Field(ge=0.0, le=1.0)] = entry(
        "Tilt (less than above) at which a stick stops stepping: lower it if a trembling thumb steps twice. "
        "Left out, it is at most 0.8 times above.",
        0.4,
        unit="tilt",
    )
    margin_deg: Annotated[float, Field(ge=0.0, le=20.0)] = entry(
        "How far past its border a stick's direction lasts: raise it if steps change direction by "
        "accident, lower it if they change late.",
        6.0,
    )
    turn_first_s: Seconds = entry(
        "How long a direction is held before the first step if the body faces elsewhere, so that a "
        "tap only turns: raise it if taps step; 0 steps at once.",
        0.0,
    )
    eased: bool = entry("Whether a step starts and ends softly.", False)

    _middle: Vec2 = PrivateAttr(Vec2(0.0, 0.0))

    @property
    def middle(self) -> Vec2:
        """Where the middle of square (0, 0) is on the plan (m)."""
        return self._middle

    def lay_out(self, axes: WorldAxes) -> None:
        """Find the middle of square (0, 0), half a square further than its corner along both of the game's axes."""
        if self.origin_m is not None:
            first, second = (corner + self.square_m / 2.0 for corner in self.origin_m)
            self._middle = Vec2(*axes.level_to_plan(first, second))

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if "release" not in self.model_fields_set:
            self.__dict__["release"] = released_at(self.release, self.above)
        if self.release >= self.above:
            words = f"{self.release:g} is not below above {self.above:g}; it would never release"
            raise own_faults([("release", words)])
        return self

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        for name in ("delay_s", "repeat_s"):
            if not self.repeats and name in self.model_fields_set:
                yield name, "does nothing under repeats = false"

    def sentence(self, length: LengthUnit = METRES) -> str:
        """Say how it steps."""
        speed = self.square_m / self.step_s
        words = f"squares of {length.m(self.square_m)}, {self.step_s:g} s per step ({length.m_s(speed, '.3g')})"
        if self.origin_m is not None:
            words += (
                f", counted from the corner ({', '.join(f'{place * length.per_m:g}' for place in self.origin_m)})"
            )
        words += ", eased" if self.eased else ""
        if not self.repeats:
            words += "; one step per press"
        else:
            again = f"every {self.repeat_s:g} s, or " if self.repeat_s else ""
            first = f", first after {self.delay_s:g} s" if self.delay_s else ""
            words += f"; while held, steps again {again}as soon as the last step is done{first}"
        if self.turn_first_s:
            words += f"; turns first, and steps after {self.turn_first_s:g} s"
        return f"{words}; {'diagonal steps, sqrt(2) times as long' if self.diagonals else 'no diagonal steps'}"

    def frame_tuning(self, tuning: FrameTuning, mode: Any) -> FrameTuning:
        """Return the tuning with the numbers of this frame."""
        rules = [bind.opposites for bind in (mode.move.bind if mode.move else ()) if isinstance(bind, Opposed)]
        grid = GridTuning(
            self.square_m,
            self.step_s,
            int(self.repeats),
            self.delay_s,
            self.repeat_s,
            self.above,
            self.release,
            radians(self.margin_deg),
            int(self.diagonals),
            OPPOSITES.number(rules[0] if rules else "cancel"),
            int(self.turn_first_s > 0.0),
            self.turn_first_s,
            int(self.eased),
            self.middle,
        )
        return tuning._replace(grid=grid)
