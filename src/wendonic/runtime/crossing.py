"""What is carried over from one mode's record into another's, determined once for each pair of modes."""

from collections.abc import Callable, Iterable, Mapping, Sequence

from wendonic.compiler.layout import Path, paths_of
from wendonic.compiler.ready import Record, getter
from wendonic.kernels.body.comfort import COMFORT_AT_REST
from wendonic.kernels.frames.steer import FRAME_GOTO
from wendonic.kernels.look.look import LOOK_SOURCE_AT_REST
from wendonic.kernels.press.press import PressState
from wendonic.kernels.vector import Vec2
from wendonic.runtime.cells import Cells, cells_of
from wendonic.runtime.kept_numbers import KeptNumbers
from wendonic.runtime.mode_run import ModeRun
from wendonic.runtime.reader import BODY, VIEW

_OF_STYLE = tuple(PressState._fields.index(field) for field in ("on", "first_s", "wanted_s"))
_ALWAYS_KEPT = tuple(PressState._fields.index(field) for field in ("held", "held_s", "air_s", "air_count", "begun_s"))
_HELD = tuple(PressState._fields.index(field) for field in ("held", "held_s"))
_BODY_AND_VIEW = [*BODY, *VIEW]
_FLIGHT = [("fall", "airborne"), ("fall", "jumping"), *(("up", axis) for axis in "xyz"), ("wall", "x"), ("wall", "y")]
_LOOK = paths_of(LOOK_SOURCE_AT_REST)
_COMFORT = [
    *((("comfort", "velocity", axis), ("body", "velocity", axis)) for axis in "xyz"),
    *(
        (("comfort", index, axis), ("body", "position", axis))
        for index in ("safe", "head", "outside")
        for axis in "xy"
    ),
    (("comfort", "yaw"), ("view", "yaw")),
]
_ALL_COMFORT = [("comfort", *path) for path in paths_of(COMFORT_AT_REST)]
_MOVEMENT = ("move", "axes", "local", "raw", "amount", "heading")
_FACING = ("last_direction", "towards", "against_s")


def _is_movement(old: ModeRun, new: ModeRun) -> Callable[[Path], bool]:
    """Return a test for the paths that are movement in both modes: squares only if they are the same, goals only if
    both modes have them and as many can wait.
    """
    had, has = old.tuning.frame, new.tuning.frame
    squares = same_squares(old, new)
    goals = had.frame == has.frame == FRAME_GOTO and had.goto.waiting == has.goto.waiting

    def kept(path: Path) -> bool:
        if path[1] == "frame":
            return path[2] in _FACING or (squares if path[2] == "grid" else goals)
        return path[1] in _MOVEMENT

    return kept


def same_squares(old: ModeRun, new: ModeRun) -> bool:
    """Return whether two modes step on the same squares at the same speed, so that a step under way can continue."""

    def squares(run: ModeRun) -> tuple[float, Vec2, float]:
        grid = run.tuning.frame.grid
        return grid.square_m, grid.middle, grid.step_s

    return old.on_squares and new.on_squares and squares(old) == squares(new)


class Crossing:
    """Makes the record with which a mode is entered from another one.

    Body and view stay, with a jump that is under way, and sources of `look` that both modes have continue: what
    smoothing still has to hand out is not lost, and a stick that has snapped does not snap again. A press that is
    carried on keeps everything; other presses of the same style keep their toggled state, the first of two taps, what
    waits, and the times since. A press that was held and is not carried on ends. Movement continues only if it is
    carried.
    """

    __slots__ = ("_base", "_fixed", "_new", "_old", "movement", "sources")

    def __init__(
        self,
        old: ModeRun,
        new: ModeRun,
        sources: Mapping[str, Mapping[int, int]] | None = None,
        movement: bool = False,
    ) -> None:
        """Find the origin and the target of each number; `sources` are those that both modes have, see
        `same_sources`. Without them the mode begins anew, and only the bias of gyros is kept. With `movement`, the
        state of the channels continues.
        """
        self._old, self._new = old, new
        anew = sources is None
        same = sources or {"look": {number: number for number in range(len(new.tuning.look.sources))}}
        self.movement = KeptNumbers(old, new, {}, same, _is_movement(old, new)) if movement else None
        fixed = list(new.record_at_rest)
        # A new record is gathered in one call from the old one with the fixed numbers appended.
        indices = [old.layout.width + index for index in range(new.layout.width)]

        def carry(source: Cells, target: Cells, numbers: Iterable[int]) -> None:
            for number in numbers:
                for index in target.targets[number]:
                    if source.sources[number] >= 0:
                        indices[index] = source.sources[number]
                    else:
                        fixed[index] = source.constants[number]

        def carry_all(source_paths: Sequence[Path], target_paths: Sequence[Path]) -> None:
            source, target = (
                cells_of(run.layout, tuple(paths)) for run, paths in ((old, source_paths), (new, target_paths))
            )
            carry(source, target, range(len(source_paths)))

        carry_all(_BODY_AND_VIEW, _BODY_AND_VIEW)
        if new.tuning.comfort.used > 0 and old.tuning.comfort.used > 0 and not anew:
            carry_all(_ALL_COMFORT, _ALL_COMFORT)
        elif new.tuning.comfort.used > 0:
            carry_all([source for _, source in _COMFORT], [target for target, _ in _COMFORT])
        if not anew:
            carry_all(_FLIGHT, _FLIGHT)
            if new.tuning.sectors == old.tuning.sectors:
                carry_all([("sector",)], [("sector",)])
        looks = [path for path in _LOOK if not anew or path[0] == "gyro"]
        for here, there in same["look"].items():
            carry_all([("look", str(there), *path) for path in looks], [("look", str(here), *path) for path in looks])
        for number, (had, has) in enumerate(zip(old.presses, new.presses, strict=True)):
            keeps = not anew and new.carries and new.press_styles[number] == old.press_styles[number]
            carry(had, has, _HELD if anew else (*_ALWAYS_KEPT, *_OF_STYLE) if keeps else _ALWAYS_KEPT)
        self.sources = [index if index < old.layout.width else -1 for index in indices]
        """The index of each number of the new record in the old one, or -1 if it is in `fixed`."""
        self._base = getter(indices)
        self._fixed = tuple(fixed)

    @property
    def fixed(self) -> Record:
        """Numbers of the new record that the old one does not have."""
        return self._fixed

    def record(self, record: Record, carried: Sequence[bool], row: Sequence[float] = ()) -> Record:
        """Return the record with which the new mode is entered, with the presses that are carried on; `row` is the
        last sample of the old mode.
        """
        new = self._new
        base = self._base(record + self._fixed)
        if not (self.movement or new.airborne or new.on_squares or True in carried):
            return base
        after = list(base)
        if self.movement:
            self.movement.write(after, record, row)
        for number, carries_on in enumerate(carried):
            if carries_on:
                new.presses[number].write(after, self._old.presses[number].read(record))
        _, x, y, _, _, _, speed_up = self._old.body.read(record)
        if new.airborne and speed_up != 0.0:
            new.airborne.write(after, (1.0,))
        if new.on_squares:
            new.stand_on_square(after, x, y)
        return tuple(after)
