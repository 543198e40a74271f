"""From a `steer` table to the kernels' numbers."""

import math
from collections.abc import Iterable

from wendonic.kernels.comfort import NO_COMFORT, ComfortTuning
from wendonic.kernels.drive import NO_DRIVE, DriveTuning
from wendonic.kernels.facing import FACE_AIM, FACE_HOLD, FACE_TRAVEL, FACE_TURN, FACE_VIEW
from wendonic.kernels.fall import NO_FALL, FallTuning
from wendonic.kernels.gait_forms import GaitForms
from wendonic.kernels.goto import NO_GOTO, GotoTuning
from wendonic.kernels.grid import NO_GRID, GridTuning
from wendonic.kernels.opposites import OPPOSITES_CANCEL
from wendonic.kernels.slope import LEVEL_ONLY, SlopeTuning
from wendonic.kernels.steer_frame import (
    AHEAD_BOTH,
    AHEAD_HEAD,
    AHEAD_LEFT,
    AHEAD_RIGHT,
    FRAME_CAMERA,
    FRAME_DRIVE,
    FRAME_FACING,
    FRAME_FLY,
    FRAME_GOTO,
    FRAME_GRID,
    FRAME_HANDS,
    FRAME_MAP,
)
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.profile.comfort import Comfort
from wendonic.profile.gait import GRAVITY_M_S2, TERMINAL_M_S, Gait
from wendonic.profile.schema import Mode
from wendonic.profile.source_tuning import OPPOSITES
from wendonic.profile.steer import (
    DriveSteer,
    Faced,
    FlySteer,
    GotoSteer,
    GridSteer,
    HandsSteer,
    Slope,
)

FRAMES = {
    "map": FRAME_MAP,
    "camera": FRAME_CAMERA,
    "facing": FRAME_FACING,
    "drive": FRAME_DRIVE,
    "fly": FRAME_FLY,
    "grid": FRAME_GRID,
    "goto": FRAME_GOTO,
    "hands": FRAME_HANDS,
}
_FACES = {"travel": FACE_TRAVEL, "view": FACE_VIEW, "aim": FACE_AIM, "hold": FACE_HOLD, "turn": FACE_TURN}
_AHEADS = {"head": AHEAD_HEAD, "hand.left": AHEAD_LEFT, "hand.right": AHEAD_RIGHT, "hands": AHEAD_BOTH}
RISE_M_S = 2.0
"""How fast a gait rises that names no speed for it."""

LEAST_RATE = 1e-9

CART_RADIUS_M = 2.0
"""The smallest circle of a cart whose profile names none."""


def slope_of(mode: Mode) -> Slope | None:
    """Return how a mode walks on slopes, None where it does not."""
    return getattr(mode.steer, "slope", None)


def stays_in_tick(mode: Mode, gaits: Iterable[Gait]) -> bool:
    """Return whether the tick itself does all the steering: level ground, by camera or map, facing the travel, with
    one plain gait.
    """
    steer = mode.steer
    if mode.comfort is not None or mode.press_gaits or not all(gait.plain for gait in gaits):
        return False
    usual = steer.frame in ("camera", "map") and isinstance(steer, Faced) and steer.face == "travel"
    return usual and slope_of(mode) is None


def gait_forms(gait: Gait) -> GaitForms:
    """Return the numbers of what a gait has besides its top speed and two rates."""
    air_accel = gait.accel_m_s2 if gait.air_accel_m_s2 is None else gait.air_accel_m_s2
    air_brake = gait.brake_m_s2 if gait.air_brake_m_s2 is None else gait.air_brake_m_s2
    in_air = (air_accel, air_brake) != (gait.accel_m_s2, gait.brake_m_s2)
    # No rate is 0: kernels divide by it.
    return GaitForms(
        int(not gait.plain and (in_air or gait.turn_loss > 0.0 or _has_forms(gait))),
        gait.brake_m_s2 if gait.reverse_m_s2 is None else gait.reverse_m_s2,
        max(air_accel, LEAST_RATE),
        max(air_brake, LEAST_RATE),
        gait.drag_per_s or 0.0,
        gait.coast_half_life_s or 0.0,
        gait.turn_loss,
    )


def _has_forms(gait: Gait) -> bool:
    # In the air nothing coasts, even where both rates are the same there.
    return any(value is not None for value in (gait.reverse_m_s2, gait.drag_per_s, gait.coast_half_life_s))


def fall_tuning(gait: Gait) -> FallTuning:
    """Return the numbers of a gait's weight."""
    if not gait.falls:
        return NO_FALL
    gravity = GRAVITY_M_S2 if gait.gravity_m_s2 is None else gait.gravity_m_s2
    rising = gait.jump.rising_m_s2(gravity) if gait.jump else gravity
    ratio = 1.0 if gait.fall_ratio is None else gait.fall_ratio
    return FallTuning(
        1,
        rising,
        rising * ratio,
        TERMINAL_M_S if gait.terminal_fall_m_s is None else gait.terminal_fall_m_s,
        gait.jump.start_m_s(gravity) if gait.jump else 0.0,
        gait.jump.cut_ratio if gait.jump else 1.0,
    )


def comfort_tuning(comfort: Comfort) -> ComfortTuning:
    """Return the numbers of comfort in a headset."""
    vignette, room = comfort.vignette, comfort.room
    return ComfortTuning(
        1,
        vignette.full_accel_m_s2,
        math.radians(vignette.full_turn_deg_s),
        vignette.close_half_life_s,
        vignette.open_half_life_s,
        room.width_m / 2.0,
        room.depth_m / 2.0,
        room.level_m,
        room.return_s,
    )


def steering_tuning(mode: Mode, gait: Gait) -> SteeringTuning:
    """Return the numbers of a mode's steering."""
    steer = mode.steer
    drive, grid, goto = NO_DRIVE, NO_GRID, NO_GOTO
    level, ahead, arc_m_s = 1, AHEAD_HEAD, 0.0
    walled = steer.frame != "grid" and mode.comfort is None
    match steer:
        case DriveSteer():
            fast = steer.turn_deg_s if steer.fast_turn_deg_s is None else steer.fast_turn_deg_s
            radius_m = CART_RADIUS_M if steer.turn_radius_m is None else steer.turn_radius_m
            drive = DriveTuning(
                math.radians(steer.turn_deg_s),
                math.radians(fast),
                0.0 if steer.on_the_spot else radius_m,
                steer.reverse_ratio,
                int(steer.reverse == "flips"),
            )
        case FlySteer():
            level = int(steer.level)
        case GridSteer():
            rules = [
                OPPOSITES[bind.opposites]
                for bind in (mode.move.bind if mode.move else ())
                if hasattr(bind, "opposites")
            ]
            grid = GridTuning(
                steer.square_m,
                steer.step_s,
                int(steer.repeats),
                steer.delay_s or 0.0,
                steer.repeat_s or 0.0,
                int(steer.diagonals),
                rules[0] if rules else OPPOSITES_CANCEL,
                int(steer.eased),
            )
        case GotoSteer():
            goto = GotoTuning(steer.arrival_m, steer.slow_down_m, int(steer.retarget))
        case HandsSteer():
            ahead = _AHEADS[steer.ahead]
            arc_m_s = steer.teleport.speed_m_s if steer.teleport else 0.0
    slope = slope_of(mode)
    slopes = LEVEL_ONLY
    if slope is not None:
        slopes = SlopeTuning(1, math.tan(math.radians(slope.limit_deg)), slope.slide_m_s)
    face, turn_deg_s = "travel", 0.0
    if isinstance(steer, Faced):
        face, turn_deg_s = steer.face, steer.turn_rate_deg_s
    return SteeringTuning(
        FRAMES[steer.frame],
        _FACES[face],
        math.radians(turn_deg_s),
        gait.top_speed_m_s,
        gait.accel_m_s2,
        gait.brake_m_s2,
        drive,
        level,
        RISE_M_S if gait.rise_m_s is None else gait.rise_m_s,
        int(mode.move is None or mode.move.diagonal != "free"),
        grid,
        goto,
        ahead,
        slopes,
        comfort_tuning(mode.comfort) if mode.comfort else NO_COMFORT,
        arc_m_s,
        slope.lean_half_life_s if slope else 0.0,
        gait_forms(gait),
        fall_tuning(gait),
        gait.body_m / 2.0 if walled else 0.0,
        mode.move.half_life_s if mode.move and not mode.move.one_euro else 0.0,
    )
