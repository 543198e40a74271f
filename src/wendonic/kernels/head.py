"""A player with a headset: movement applies to the head, which also walks about in the play space."""

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.comfort import is_inside
from wendonic.kernels.body.fall import FallState
from wendonic.kernels.body.ground import height_at
from wendonic.kernels.body.landing import NO_LANDING, NO_POINTING, Pointing, landing
from wendonic.kernels.frames.steer import FRAME_GRID, FRAME_HANDS
from wendonic.kernels.row import Row
from wendonic.kernels.sample import Sample
from wendonic.kernels.tick_record import Memory
from wendonic.kernels.tuning import Tuning
from wendonic.kernels.vector import ZERO3, Vec2, Vec3, turned


def has_head(tuning: Tuning) -> bool:
    """Return whether the head, rather than the middle of the play space, is what moves, is stopped by walls and has
    the ground under it.

    >>> from wendonic.kernels.frames.frame import PLAIN_FRAME
    >>> from wendonic.kernels.tuning import PLAIN_TUNING
    >>> has_head(PLAIN_TUNING), has_head(PLAIN_TUNING._replace(frame=PLAIN_FRAME._replace(frame=FRAME_HANDS)))
    (False, True)
    """
    frame = tuning.frame.frame
    return (tuning.comfort.used > 0 or frame == FRAME_HANDS) and frame != FRAME_GRID


def moved_by(body: Body, x: float, y: float) -> Body:
    """Return the body moved to the right and forward (m).

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> moved_by(BODY_AT_REST, 1.0, -2.0).position
    Vec3(x=1.0, y=-2.0, z=0.0)
    """
    place = body.position
    return body._replace(position=Vec3(place.x + x, place.y + y, place.z))


def out_of_wall(tuning: Tuning, course: Row, was: Memory, body: Body, fall: FallState) -> tuple[Body, FallState]:
    """Return the body and its fall; while the head is inside a wall the body does not move: the player steps out, or
    is brought out.
    """
    place = was.body.position
    under = height_at(course, place.x, place.y)
    if is_inside(course, tuning.frame.slope.step_m, was.comfort, place, under):
        return Body(body.face, place, ZERO3), was.fall
    return body, fall


def pointed(
    tuning: Tuning,
    course: Row,
    was: Pointing,
    body: Body,
    sample: Sample,
    points: float,
    view_yaw: float,
    offset: Vec2,
) -> tuple[Pointing, Body]:
    """Return the landing of a pointing hand, and the body: when the press is released, the head is moved there, at
    rest.

    A hand that is lost while it points does not land. `points` is 1 while it points, `view_yaw` (rad) is the yaw of
    the play space, and `offset` (m) is the head's offset from the body, right and forward on the plan.
    """
    place, direction = sample.pointing
    seen = direction.x != 0.0 or direction.y != 0.0 or direction.z != 0.0
    if points > 0.0 and seen:
        at = turned(place.x, place.y, view_yaw)
        to = turned(direction.x, direction.y, view_yaw)
        hand = Vec3(body.position.x + at.x, body.position.y + at.y, body.position.z + place.z)
        along = Vec3(to.x, to.y, direction.z)
        found = landing(course, hand, along, tuning.arc_m_s, tuning.frame.slope.steepest_tangent)
        return Pointing(1.0, hand, along, found, 0.0), body
    if points <= 0.0 and was.held > 0.0 and seen and was.landing.there > 0.0:
        there = was.landing.place
        landed = Body(body.face, Vec3(there.x - offset.x, there.y - offset.y, there.z), ZERO3)
        return Pointing(0.0, was.place, was.direction, NO_LANDING, 1.0), landed
    return NO_POINTING, body
