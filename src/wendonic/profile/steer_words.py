"""A `steer` table in words."""

from wendonic.profile.comfort import Comfort
from wendonic.profile.steer import (
    CameraSteer,
    DriveSteer,
    Faced,
    FacingSteer,
    FlySteer,
    GotoSteer,
    GridSteer,
    HandsSteer,
    MapSteer,
    Slope,
    Steer,
)
from wendonic.profile.steer_tuning import CART_RADIUS_M
from wendonic.profile.tuning import SECTOR_MARGIN_DEG

_FACES = {
    "travel": "the way of travel",
    "view": "where the view looks",
    "aim": "the point that is aimed at",
    "turn": "by the channel turn",
    "hold": "held as it is",
}
_HANDS = {
    "head": "where the head points",
    "hand.left": "where the left hand points",
    "hand.right": "where the right hand points",
    "hands": "half-way between where both hands point",
}


def steer_lines(steer: Steer) -> list[str]:
    """Return lines about what ahead means, which way the body faces, and how it walks on slopes."""
    lines = [f"    steer: {_frame_words(steer)}"]
    if isinstance(steer, Faced):
        face = f"    face: {_FACES[steer.face]}"
        if isinstance(steer, FacingSteer) and steer.face == "travel":
            face = "    face: turned as move goes sideways"
        if steer.face != "hold":
            face += f", turning at up to {steer.turn_rate_deg_s:g} deg/s"
        lines.append(f"{face}{_sector_words(steer)}")
    elif steer.sectors:
        lines.append(f"    face: its heading{_sector_words(steer)}")
    slope: Slope | None = getattr(steer, "slope", None)
    if slope is not None:
        words = (
            f"up to {slope.limit_deg:g} deg; on steeper ground nobody gets up, and slides at {slope.slide_m_s:g} m/s"
        )
        lines.append(f"    slopes: {words}; leans with a half-life of {slope.lean_half_life_s:g} s")
    return lines


def comfort_lines(comfort: Comfort) -> list[str]:
    """Return lines about the vignette and the play space."""
    vignette, room = comfort.vignette, comfort.room
    closes = f"full from {vignette.full_accel_m_s2:g} m/s² or {vignette.full_turn_deg_s:g} deg/s on"
    lives = f"closes with a half-life of {vignette.close_half_life_s:g} s, opens with {vignette.open_half_life_s:g} s"
    safe = f"safe while out of walls and level within {room.level_m:g} m"
    return [
        f"    vignette: {closes}; {lives}",
        f"    play space: {room.width_m:g} x {room.depth_m:g} m, {safe}; out of a wall after {room.return_s:g} s",
    ]


def _frame_words(steer: Steer) -> str:
    match steer:
        case CameraSteer():
            return "ahead is where the camera looks, flattened"
        case MapSteer(side_view=True):
            return "right and left on the plan, seen from the side"
        case MapSteer():
            return "ahead is the plan's +y, whatever the camera does"
        case FacingSteer():
            return "ahead is where the body faces"
        case DriveSteer():
            return _drive_words(steer)
        case FlySteer():
            climbs = "flattened" if steer.level else "pitch included"
            return f"flying ahead where the camera looks, {climbs}"
        case GridSteer():
            return _grid_words(steer)
        case GotoSteer():
            new = "takes a new goal on the way" if steer.retarget else "takes a new goal only once it is there"
            slow = f"slower from {steer.slow_down_m:g} m on, " if steer.slow_down_m else ""
            return f"to the pointed place: {slow}there within {steer.arrival_m:g} m; {new}; keys steer as on a map"
        case HandsSteer():
            words = f"ahead is {_HANDS[steer.ahead]}"
            if steer.teleport:
                jump = steer.teleport
                words += (
                    f"; while {jump.press} is held, {jump.hand} points at a place to be at, {jump.speed_m_s:g} m/s"
                )
            return words
    raise AssertionError(steer)


def _drive_words(steer: DriveSteer) -> str:
    fast = f", {steer.fast_turn_deg_s:g} deg/s at top speed" if steer.fast_turn_deg_s is not None else ""
    radius_m = CART_RADIUS_M if steer.turn_radius_m is None else steer.turn_radius_m
    circle = "on the spot too" if steer.on_the_spot else f"in no circle below {2.0 * radius_m:g} m across"
    back = "the other way round" if steer.reverse == "flips" else "the same way"
    return (
        f"throttle and turn drive: turns at up to {steer.turn_deg_s:g} deg/s{fast}, {circle}; backwards at "
        f"{steer.reverse_ratio:g} of top speed, turning {back}"
    )


def _grid_words(steer: GridSteer) -> str:
    speed = steer.square_m / steer.step_s
    words = f"squares of {steer.square_m:g} m, a step takes {steer.step_s:g} s ({speed:.3g} m/s)"
    words += ", eased" if steer.eased else ""
    if not steer.repeats:
        words += "; one step a press"
    else:
        again = f"every {steer.repeat_s:g} s, or " if steer.repeat_s else ""
        first = f", first after {steer.delay_s:g} s" if steer.delay_s else ""
        words += f"; held on, steps again {again}as soon as the last one is done{first}"
    return f"{words}; {'diagonal steps, sqrt(2) times as long' if steer.diagonals else 'no diagonal steps'}"


def _sector_words(steer: Steer) -> str:
    if steer.sectors is None:
        return ""
    margin_deg = SECTOR_MARGIN_DEG if steer.sector_margin_deg is None else steer.sector_margin_deg
    return f"; one of {steer.sectors} facings, left {margin_deg:g} deg beyond its border"
