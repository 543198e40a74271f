"""One mode of a profile on the bench: what its probes are made of, and what several quantities are read from."""

from functools import cached_property

from wendonic.batch import Engine
from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.move_binds import StickBind
from wendonic.profile.schema.profile import Profile
from wendonic.study.directions import speeds_all_round
from wendonic.study.jumps import Flight, JumpPress, jump_press
from wendonic.study.one_mode import one_mode, only_moving
from wendonic.study.probes.walker import Walker, key_walker, probe_walker, stick_walker
from wendonic.study.step_response import StepResponse, step_response
from wendonic.study.stick_response import StickResponse


class Bench:
    """What the quantities of one mode share; everything is made when it is first asked for, and once.

    `walker`, `keys` and `stick` are None where the mode has no such thing, or is on squares, whose steps have a time
    of their own; `any_stick` is there on squares too. A mode that is seen from the side (`from_side`) has no `keys`,
    which go in four directions, and is measured to the right.
    """

    def __init__(self, profile: Profile, mode: str, engine: Engine = "auto") -> None:
        """Take one mode; the engine is that of `wendonic.shape`."""
        self.profile = profile
        self.mode = mode
        self.engine = engine
        self.table: Mode = profile.mode[mode]
        self.on_squares = self.table.steer.frame == "grid"
        self.from_side = self.table.steer.seen_from_side

    @cached_property
    def moving(self) -> Profile:
        """The profile with what moves the body in this mode, and nothing else."""
        return only_moving(self.profile, self.mode)

    @cached_property
    def one_mode(self) -> Profile:
        """The profile with this mode, and no other."""
        return one_mode(self.profile, self.mode)

    @cached_property
    def walker(self) -> Walker | None:
        """What the mode is walked or driven by: keys, else a stick, else the keys of a cart."""
        return None if self.on_squares else probe_walker(self.table)

    @cached_property
    def keys(self) -> Walker | None:
        """Keys or a d-pad with all four directions."""
        return None if self.on_squares or self.from_side else key_walker(self.table)

    @cached_property
    def stick(self) -> Walker | None:
        """A stick that walks."""
        return None if self.on_squares else self.any_stick

    @cached_property
    def any_stick(self) -> Walker | None:
        """A stick of `move`."""
        return stick_walker(self.table)

    @cached_property
    def step_response(self) -> StepResponse | None:
        """The answer to everything pressed at once; None where nothing moves, or never comes to its top speed."""
        return step_response(self.moving, self.walker, self.engine) if self.walker else None

    @cached_property
    def key_speeds(self) -> list[float]:
        """Steady speed (m/s) in eight directions by keys, clockwise from forward; empty without keys."""
        return speeds_all_round(self.moving, self.keys, self.engine) if self.keys else []

    @cached_property
    def stick_response(self) -> StickResponse | None:
        """What the first stick of `move` asks for at each tilt."""
        binds = [bind for bind in (self.table.move.bind if self.table.move else ()) if isinstance(bind, StickBind)]
        return StickResponse(binds[0], self.table.move, self.from_side) if binds else None

    @cached_property
    def look_stick(self) -> LookStickBind | None:
        """The first stick of `look` that turns by a rate."""
        binds = self.table.look.bind if self.table.look else ()
        return next((bind for bind in binds if isinstance(bind, LookStickBind) and bind.snap_deg is None), None)

    @cached_property
    def jump(self) -> JumpPress | None:
        """The press that jumps or waits for the ground, ready to be pressed."""
        return jump_press(self.moving, self.mode)

    @cached_property
    def flight(self) -> Flight | None:
        """A jump whose press stays held."""
        return self.jump.flight(self.engine) if self.jump else None
