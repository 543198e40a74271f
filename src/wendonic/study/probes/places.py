"""Goals set one after another, for a mode that walks to goals and has no controls to hold."""

import math
from collections.abc import Callable, Iterable, Sequence

from wendonic.devices.event import Event
from wendonic.errors import WendonicError
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.profile import Profile
from wendonic.recording.recording import Recording
from wendonic.study.measuring.directions import EIGHT_DIRECTIONS
from wendonic.study.probes.walker import AFTER_S, entries_of

Leg = tuple[float, float, float]
"""When a goal is set (s), and how far right and forward it is from the previous one, in seconds at top speed."""

UNIT = {"right": (1.0, 0.0), "left": (-1.0, 0.0), "forward": (0.0, 1.0), "back": (0.0, -1.0)}


def goes_to_places(mode: Mode) -> bool:
    """Return whether only goals move a mode: its steer frame is `goto`, and nothing else moves the body."""
    return mode.steer.frame == "goto" and not any(entries_of(mode))


def leg(t: float, directions: Sequence[str], seconds: float) -> Leg:
    """Return a leg in one direction, or diagonally between two directions.

    >>> leg(0.5, ("back",), 2.0)
    (0.5, 0.0, -2.0)
    """
    right, forward = (sum(UNIT[name][axis] for name in directions) for axis in (0, 1))
    length = math.hypot(right, forward) / seconds
    return t, right / length, forward / length


def places_in_turn(profile: Profile, mode: str, legs: Iterable[Leg], end_s: float) -> Recording:
    """Return a recording from 0 to `end_s` that sets goals, each relative to the one before, the first to the origin.
    Seen from the side, there is no forward.

    >>> from wendonic.demo import demo_profile
    >>> orchard = demo_profile("orchard")
    >>> recording = places_in_turn(orchard, orchard.first_mode, [leg(0.5, ("right",), 2.0)], 3.0)
    >>> [event.value for event in recording if event.control == "goal"]
    [(6.0, 0.0)]
    """
    top_speed_m_s = profile.gait_of(mode).top_speed_m_s
    from_side = profile.mode[mode].steer.seen_from_side
    x = y = 0.0
    events = [Event(0.0, "mark", "begin")]
    for t, right, forward in legs:
        x += right * top_speed_m_s
        y += 0.0 if from_side else forward * top_speed_m_s
        events.append(Event(t + AFTER_S, "goal", (x, y)))
    return Recording([*events, Event(end_s, "mark", "end")])


_MIRRORED = {"right": "left", "left": "right"}


def _sides(profile: Profile, mode: str) -> tuple[tuple[str, ...], ...]:
    """Return eight directions; from the side, right and left, twice each."""
    if not profile.mode[mode].steer.seen_from_side:
        return EIGHT_DIRECTIONS
    return (("right",), ("right",), ("left",), ("left",))


def each_direction(profile: Profile, mode: str) -> Recording:
    """Set a goal in each direction, a second away, and wait for the body to arrive."""
    sides = _sides(profile, mode)
    legs = [leg(3.0 * number, together, 1.0) for number, together in enumerate(sides)]
    return places_in_turn(profile, mode, legs, 3.0 * len(sides))


def reversal(profile: Profile, mode: str) -> Recording:
    """Go to a goal ahead, and turn straight back before reaching it."""
    there, back = ("right", "left") if profile.mode[mode].steer.seen_from_side else ("forward", "back")
    return places_in_turn(profile, mode, [leg(0.1, (there,), 4.0), leg(1.1, (back,), 4.0)], 4.1)


def quarter_turn(profile: Profile, mode: str) -> Recording:
    """Go to a goal ahead, and turn right halfway."""
    if profile.mode[mode].steer.seen_from_side:
        raise WendonicError("this mode has no forward to turn from: it is seen from the side")
    # The second goal is directly to the right of where a nimble body is by then.
    return places_in_turn(profile, mode, [leg(0.1, ("forward",), 4.0), (1.1, 3.0, -3.0)], 4.1)


def figure_of_eight(profile: Profile, mode: str) -> Recording:
    """Go once round to the right and once to the left, with a new goal every half second."""
    sides = _sides(profile, mode)
    rounds = [*sides, *(tuple(_MIRRORED.get(side, side) for side in together) for together in sides)]
    legs = [leg(0.5 * number, together, 0.5) for number, together in enumerate(rounds)]
    return places_in_turn(profile, mode, legs, 0.5 * len(rounds) + 2.0)


PLACE_PROBES: dict[str, Callable[[Profile, str], Recording]] = {
    "each_direction": each_direction,
    "reversal": reversal,
    "quarter_turn": quarter_turn,
    "figure_of_eight": figure_of_eight,
}
"""Replacements for the probes of these names in modes with goals."""
