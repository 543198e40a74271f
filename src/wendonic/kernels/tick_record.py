"""What a tick carries to the next one, and what it reports."""

from typing import NamedTuple

from wendonic.kernels.body.body import BODY_AT_REST, Body
from wendonic.kernels.body.comfort import COMFORT_AT_REST, ComfortState
from wendonic.kernels.body.fall import STANDING, FallState
from wendonic.kernels.body.landing import NO_POINTING, Pointing
from wendonic.kernels.body.sector import NONE_REQUESTED, RequestedFacing
from wendonic.kernels.frames.frame import FRAME_AT_REST, FrameState
from wendonic.kernels.look.look import LOOK_SOURCE_AT_REST, LookSourceState
from wendonic.kernels.move.move import MOVE_AT_REST, MoveState
from wendonic.kernels.press.press import PRESS_AT_REST, PressState
from wendonic.kernels.request import NO_MOTION, WantedMotion
from wendonic.kernels.source.source import SOURCE_AT_REST, SourceState
from wendonic.kernels.tuning import Tuning
from wendonic.kernels.vector import UP, ZERO2, Vec2, Vec3


class AxisStates(NamedTuple):
    """The states of the sources of each axis channel."""

    rise: tuple[SourceState, ...]
    throttle: tuple[SourceState, ...]
    turn: tuple[SourceState, ...]


class View(NamedTuple):
    """Where the player looks (rad)."""

    yaw: float
    pitch: float


class Memory(NamedTuple):
    """What is carried from tick to tick: the channels' states, the view, the body and its parts, the facing of its
    sprite (-1 for none yet), what settles a tie between two facings, and the normal of the course's wall that stopped
    it, (0, 0) for none.
    """

    presses: tuple[PressState, ...]
    axes: AxisStates
    look: tuple[LookSourceState, ...]
    view: View
    move: MoveState
    body: Body
    fall: FallState
    up: Vec3
    frame: FrameState
    comfort: ComfortState
    pointing: Pointing
    sector: float
    requested_facing: RequestedFacing
    wall: Vec2


class Axes(NamedTuple):
    """The values of the axis channels, -1..1."""

    rise: float
    throttle: float
    turn: float


class Outcome(NamedTuple):
    """What a tick reports; every field a float, in the plan frame, angles in radians.

    `source` is the number of the source in use, counted through `move`, `rise`, `throttle`, `turn` and `look`, -1 for
    none. `heading` is 0 at rest, when `amount` is 0. `look` is how far the view turned. `gait` is the number of the
    gait, `grounded` whether the body stands, `contact` the normal of the obstacle that stopped it, (0, 0) for none.
    The rest is what the tick left in `memory`, but see `arriving`.
    """

    source: float
    raw: Vec2
    local: Vec2
    move: Vec2
    amount: float
    heading: float
    axes: Axes
    look: View
    view: View
    presses: tuple[PressState, ...]
    gait: float
    grounded: float
    wanted: WantedMotion
    body: Body
    up: Vec3
    frame: FrameState
    comfort: ComfortState
    pointing: Pointing
    sector: float
    contact: Vec2


class Tick(NamedTuple):
    """One tick: what it carries on, and what it reports."""

    memory: Memory
    outcome: Outcome


def tick_at_rest(tuning: Tuning) -> Tick:
    """Return the tick before the first one: at rest, at the origin, facing and looking along +y."""
    move = MOVE_AT_REST._replace(sources=(SOURCE_AT_REST,) * len(tuning.move.sources))
    axes = [(SOURCE_AT_REST,) * len(channel.sources) for channel in (tuning.rise, tuning.throttle, tuning.turn)]
    ahead = View(0.0, 0.0)
    memory = Memory(
        (PRESS_AT_REST,) * len(tuning.presses),
        AxisStates(*axes),
        (LOOK_SOURCE_AT_REST,) * len(tuning.look.sources),
        ahead,
        move,
        BODY_AT_REST,
        STANDING,
        UP,
        FRAME_AT_REST._replace(waiting=(ZERO2,) * tuning.frame.goto.waiting),
        COMFORT_AT_REST,
        NO_POINTING,
        -1.0,
        NONE_REQUESTED,
        ZERO2,
    )
    outcome = Outcome(
        -1.0,
        ZERO2,
        ZERO2,
        ZERO2,
        0.0,
        0.0,
        Axes(0.0, 0.0, 0.0),
        ahead,
        ahead,
        memory.presses,
        0.0,
        1.0,
        NO_MOTION,
        memory.body,
        memory.up,
        memory.frame,
        memory.comfort,
        memory.pointing,
        memory.sector,
        ZERO2,
    )
    return Tick(memory, outcome)
