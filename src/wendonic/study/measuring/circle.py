"""Turning circles of bodies that are turned by steering: how to drive them, and how wide they are."""

import math

import numpy as np

from wendonic.batch import Engine
from wendonic.profile.schema.axis_binds import ThrottleTriggers, ThrottleTriggersBind, TurnTriggers, TurnTriggersBind
from wendonic.profile.schema.axis_channels import Throttle, Turn
from wendonic.profile.schema.curve import LINEAR_CURVE
from wendonic.profile.schema.dead_zone import DeadZone
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.steer.drive import DriveSteer
from wendonic.profile.schema.steer.facing import FacingSteer
from wendonic.profile.schema.steer.sprite import Faced
from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import hold_s
from wendonic.study.motion import level_speeds_m_s
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps, Walker, turned_by
from wendonic.study.unmeasured import NotHere, Unmeasured

HZ = 240.0
LAST_S = 0.5
"""Last part of a walk (s), in which its circle is measured."""

LONGEST_TURN_S = 60.0
HALF = 0.5


def circling(bench: Bench) -> Walker:
    """Return what drives in circles; raises `NotHere` if steering does not turn the body."""
    steer = bench.table.steer
    if not (isinstance(steer, DriveSteer) or (isinstance(steer, FacingSteer) and steer.face in ("travel", "turn"))):
        raise NotHere("nothing drives in circles")
    return turning(bench)


def turning(bench: Bench) -> Walker:
    """Return what turns the body, by steering or by the channel `turn`; raises `NotHere` if nothing does."""
    steer, walker = bench.table.steer, bench.walker
    if isinstance(steer, Faced) and steer.face == "turn":
        walker = turned_by(bench.table, walker)
    elif not isinstance(steer, DriveSteer) and not (isinstance(steer, FacingSteer) and steer.face == "travel"):
        raise NotHere("nothing turns the body")
    if not walker.goes("right"):
        raise NotHere(f"{walker.name}: no turn to the right")
    return walker


def full_lock(profile: Profile, walker: Walker) -> tuple[str, ...]:
    """Return what is held at full lock; if going sideways turns the body, that alone is enough."""
    steer = profile.mode[profile.first_mode].steer
    sideways = isinstance(steer, FacingSteer) and steer.face == "travel"
    return ("right",) if sideways or not walker.goes("forward") else ("forward", "right")


def circle_m(profile: Profile, walker: Walker, engine: Engine = "auto", throttle: float = 1.0) -> float:
    """Return the width (m) of the circle that a body settles into, 2 v / w: v its speed, w its turn rate.

    Raises `Unmeasured` if it does not turn.
    """
    held_s = math.ceil(hold_s(profile))
    locked = full_lock(profile, walker)
    steps: Steps = []
    if "forward" in locked:
        steps.append((0.0, walker.full("forward", amount=throttle)))
    turn = walker.changes(("forward",), locked)
    if throttle < 1.0:
        # Turning uses another control; the throttle stays where it is.
        turn = walker.full("right")
    steps.append((held_s, turn))
    walk = Walk(profile, walker, steps, 2.0 * held_s + 2.0, HZ, engine)
    last = round(LAST_S * HZ)
    faces = np.unwrap(np.radians(walk["face_deg"][-last:]))
    turned = abs(float(faces[-1] - faces[0]))
    covered_m = float(level_speeds_m_s(walk)[-last + 1 :].sum() / HZ)
    if turned <= 1e-6 or covered_m <= 0.0:
        raise Unmeasured("steered to the right, it does not turn")
    return 2.0 * covered_m / turned


def half_throttle(bench: Bench) -> tuple[Profile, Walker]:
    """Return the profile driven by two triggers without dead zone, curve or ramp, and the walker for them: the
    turning circle of a cart does not depend on what it is driven by.
    """
    if not isinstance(bench.table.steer, DriveSteer):
        raise NotHere("nothing is driven")
    bench.need_gait()
    zone = DeadZone(form="none")
    throttle = ThrottleTriggersBind(
        triggers=ThrottleTriggers(forward="pad.right_trigger"), dead_zone=zone, curve=LINEAR_CURVE
    )
    turn = TurnTriggersBind(triggers=TurnTriggers(right="pad.left_trigger"), dead_zone=zone, curve=LINEAR_CURVE)
    mode = bench.table.staying().model_copy(
        update={
            "move": None,
            "throttle": Throttle(bind=(throttle,)),
            "turn": Turn(bind=(turn,)),
            "look": None,
            "leave_to": None,
        }
    )
    profile = bench.moving.model_copy(update={"mode": {bench.mode: mode}})
    walker = Walker({"throttle": throttle, "turn": turn}, profile.window, lead=bench.lead)
    return profile, walker
