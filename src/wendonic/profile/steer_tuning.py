"""From a `steer` table and a gait to the kernels' numbers."""

import math
from collections.abc import Iterable

from wendonic.kernels.body.comfort import ComfortTuning
from wendonic.kernels.body.facing import FACE_AIM, FACE_HOLD, FACE_TRAVEL, FACE_TURN, FACE_VIEW
from wendonic.kernels.body.fall import NO_FALL, FallTuning
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.body.slope import LEVEL_ONLY, SlopeTuning
from wendonic.kernels.frames.drive_tuning import NO_DRIVE, DriveTuning
from wendonic.kernels.frames.frame import (
    FRAME_CAMERA,
    FRAME_DRIVE,
    FRAME_FACING,
    FRAME_FLY,
    FRAME_GOTO,
    FRAME_GRID,
    FRAME_HANDS,
    FRAME_MAP,
    FrameTuning,
)
from wendonic.kernels.frames.goal import NO_GOTO, GotoTuning
from wendonic.kernels.frames.hands import FORWARD_BOTH, FORWARD_HEAD, FORWARD_LEFT, FORWARD_RIGHT
from wendonic.kernels.frames.squares import NO_GRID, GridTuning
from wendonic.kernels.source.opposites import OPPOSITES_CANCEL
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
_FACES = {"travel": FACE_TRAVEL, "view": FACE_VIEW, "aim": FACE_AIM, "turn": FACE_TURN, "hold": FACE_HOLD}
_FORWARDS = {"head": FORWARD_HEAD, "hand.left": FORWARD_LEFT, "hand.right": FORWARD_RIGHT, "hands": FORWARD_BOTH}
RISE_M_S = 2.0
"""How fast a gait rises that names no speed for it."""

LEAST_RATE = 1e-9

CART_RADIUS_M = 2.0
"""The smallest circle of a cart whose profile names none."""


def slope_of(mode: Mode) -> Slope | None:
    """Return how a mode walks on slopes, None where it does not."""
    return getattr(mode.steer, "slope", None)


def turns_within_a_tick(mode: Mode, gaits: Iterable[Gait], on_course: bool) -> bool:
    """Return whether the direction may turn within a tick, so that it is cut into parts. It does not on level ground,
    by camera or map, facing the travel, with a plain gait; squares keep their own time.
    """
    steer = mode.steer
    if steer.frame == "grid":
        return False
    if on_course or mode.comfort is not None or mode.press_gaits or not all(gait.plain for gait in gaits):
        return True
    usual = steer.frame in ("camera", "map") and isinstance(steer, Faced) and steer.face == "travel"
    return not usual or slope_of(mode) is not None


def gait_tuning(gait: Gait, press: int, walled: bool) -> GaitTuning:
    """Return the numbers of a gait; `press` is the number of the press that switches to it, -1 for the mode's own."""
    air_accel = gait.accel_m_s2 if gait.air_accel_m_s2 is None else gait.air_accel_m_s2
    air_brake = gait.brake_m_s2 if gait.air_brake_m_s2 is None else gait.air_brake_m_s2
    # No rate is 0: kernels divide by it.
    return GaitTuning(
        press,
        gait.top_speed_m_s,
        gait.accel_m_s2,
        gait.brake_m_s2,
        int(gait.reverse_m_s2 is not None),
        gait.brake_m_s2 if gait.reverse_m_s2 is None else gait.reverse_m_s2,
        int((air_accel, air_brake) != (gait.accel_m_s2, gait.brake_m_s2)),
        max(air_accel, LEAST_RATE),
        max(air_brake, LEAST_RATE),
        int(gait.drag_per_s is not None),
        gait.drag_per_s or 1.0,
        int(gait.coast_half_life_s is not None),
        gait.coast_half_life_s or 1.0,
        int(gait.turn_loss > 0.0),
        gait.turn_loss,
        RISE_M_S if gait.rise_m_s is None else gait.rise_m_s,
        gait.body_m / 2.0 if walled else 0.0,
        fall_tuning(gait),
    )


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


def frame_tuning(mode: Mode) -> FrameTuning:
    """Return the numbers of a mode's steer frame and its facing."""
    steer = mode.steer
    drive, grid, goto = NO_DRIVE, NO_GRID, NO_GOTO
    level, forward = 1, FORWARD_HEAD
    match steer:
        case DriveSteer():
            fast = steer.turn_deg_s if steer.fast_turn_deg_s is None else steer.fast_turn_deg_s
            drive = DriveTuning(
                math.radians(steer.turn_deg_s),
                math.radians(fast),
                int(not steer.on_the_spot),
                CART_RADIUS_M if steer.turn_radius_m is None else steer.turn_radius_m,
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
            forward = _FORWARDS[steer.ahead]
    slope = slope_of(mode)
    slopes = LEVEL_ONLY
    if slope is not None:
        steepest = math.tan(math.radians(slope.limit_deg))
        slopes = SlopeTuning(1, steepest, slope.slide_m_s, slope.lean_half_life_s)
    face, turn_deg_s = "travel", 0.0
    if isinstance(steer, Faced):
        face, turn_deg_s = steer.face, steer.turn_rate_deg_s
    return FrameTuning(
        FRAMES[steer.frame],
        _FACES[face],
        math.radians(turn_deg_s),
        slopes,
        drive,
        level,
        int(mode.move is None or mode.move.diagonal != "free"),
        grid,
        goto,
        forward,
    )
