"""Probes by name: exactly known input for a mode, made from its own controls."""

import math
from collections.abc import Callable

from wendonic.devices.event import Event
from wendonic.devices.standins.stick import StickStandIn
from wendonic.errors import WendonicError, none_such
from wendonic.look_units import CM_PER_INCH
from wendonic.profile.schema.look_binds import LookStickBind, MouseBind
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.profile import Profile
from wendonic.recording.recording import Recording
from wendonic.study.directions import EIGHT_DIRECTIONS
from wendonic.study.jumps import jump_press_name
from wendonic.study.probes.press_entry import entry_changes
from wendonic.study.probes.stick_paths import NOISE, RAMP_S, REST, slow_ramps
from wendonic.study.probes.walker import AFTER_S, Steps, Walker, probe, probe_walker, stick_walker

HELD_S = 1.0
CIRCLE_S = 2.0
STICK_HZ = 120
SWIPE_CM, SWIPE_S = 10.0, 0.5


def _walker(mode: Mode) -> Walker:
    walker = probe_walker(mode)
    if walker is None:
        raise WendonicError("this mode has no keys, d-pad or stick that walks")
    return walker


def _stick(mode: Mode) -> str:
    walker = stick_walker(mode)
    if walker is None:
        raise WendonicError("this mode has no stick that walks")
    return walker.stick


def _along(stick: str, path: Callable[[float], tuple[float, float]], end_s: float) -> Recording:
    """Return a recording of a stick that goes along a path: right and forward at each moment."""
    places = ((k / STICK_HZ, path(k / STICK_HZ)) for k in range(round(end_s * STICK_HZ)))
    events = [Event(t, stick, (right, -forward)) for t, (right, forward) in places]
    return Recording([*events, Event(end_s, stick, (0.0, 0.0)), Event(end_s + HELD_S, "mark", "end")])


def each_direction(profile: Profile, name: str) -> Recording:
    """Press each of eight directions in turn, of two as seen from the side, and release it."""
    walker = _walker(profile.mode[name])
    steps: Steps = []
    directions = ((walker.ahead,), (walker.opposite,)) if walker.across else EIGHT_DIRECTIONS
    for number, together in enumerate(directions):
        steps.append((2.0 * HELD_S * number, walker.full(*together)))
        steps.append((2.0 * HELD_S * number + HELD_S, walker.rest(*together)))
    return probe(steps, 2.0 * HELD_S * len(directions))


def tap(profile: Profile, name: str) -> Recording:
    """Press forward for 80 ms."""
    walker = _walker(profile.mode[name])
    return probe([(0.1, walker.full(walker.ahead)), (0.18, walker.rest(walker.ahead))], 0.1 + HELD_S)


def reversal(profile: Profile, name: str) -> Recording:
    """Go forward, and straight back."""
    walker = _walker(profile.mode[name])
    ahead, opposite = walker.ahead, walker.opposite
    turn = [*walker.rest(ahead), *walker.full(opposite)]
    return probe([(0.1, walker.full(ahead)), (1.1, turn), (2.1, walker.rest(opposite))], 3.1)


def quarter_turn(profile: Profile, name: str) -> Recording:
    """Go forward, and to the right from one moment to the next, everything pressed or tilted all the way."""
    walker = _walker(profile.mode[name])
    if walker.across:
        raise WendonicError("this mode has no forward to turn from: it is seen from the side")
    turn = [*walker.rest("forward"), *walker.full("right")]
    return probe([(0.1, walker.full("forward")), (1.1, turn), (2.1, walker.rest("right"))], 3.1)


def slow_ramps_of(profile: Profile, name: str) -> Recording:
    """Tilt the stick slowly from rest to its rim, in each of 16 directions."""
    return slow_ramps(_stick(profile.mode[name]), RAMP_S + HELD_S)


def _circle(tilt: float) -> Callable[[Profile, str], Recording]:
    def circle(profile: Profile, name: str) -> Recording:
        def path(t: float) -> tuple[float, float]:
            angle = math.tau * t / CIRCLE_S
            return tilt * math.sin(angle), tilt * math.cos(angle)

        return _along(_stick(profile.mode[name]), path, 2.0 * CIRCLE_S)

    circle.__doc__ = f"Take the stick round twice at {tilt:.0%} of its tilt, two seconds a turn."
    return circle


def hands_off(profile: Profile, name: str) -> Recording:
    """Let a usual worn stick lie for ten seconds."""
    held = StickStandIn(_stick(profile.mode[name]), rest=REST, noise=NOISE)
    return Recording([*held.events(lambda _: (0.0, 0.0), 0.0, 10.0), Event(10.0, "mark", "end")])


def swipe(profile: Profile, name: str) -> Recording:
    """Move the mouse 10 cm to the right in half a second."""
    look = profile.mode[name].look
    for bind in look.bind if look else ():
        if isinstance(bind, MouseBind):
            count = round(SWIPE_S * 1000)
            total = SWIPE_CM / CM_PER_INCH * bind.dpi
            counts = [round(total * (k + 1) / count) - round(total * k / count) for k in range(count)]
            events = [Event(k / 1000, "mouse.move", (float(count), 0.0)) for k, count in enumerate(counts)]
            return Recording([*events, Event(SWIPE_S + HELD_S, "mark", "end")])
    raise WendonicError("this mode has no mouse that looks")


def look_ramp(profile: Profile, name: str) -> Recording:
    """Tilt the look stick to the right, from rest to the rim in two seconds."""
    look = profile.mode[name].look
    for bind in look.bind if look else ():
        if isinstance(bind, LookStickBind):
            return _along(bind.stick, lambda t: (min(t / 2.0, 1.0), 0.0), 2.5)
    raise WendonicError("this mode has no stick that looks")


def _jump(held_s: float) -> Callable[[Profile, str], Recording]:
    def jump(profile: Profile, name: str) -> Recording:
        press = jump_press_name(profile, name)
        if press is None:
            raise WendonicError("this mode has no press that jumps")
        down, up = entry_changes(profile, profile.mode[name].press[press].bind[0])
        pressed = [event._replace(t=0.1 + AFTER_S) for event in down]
        released = [event._replace(t=0.1 + held_s + AFTER_S) for event in up]
        ends = Event(0.1 + held_s + 1.5, "mark", "end")
        return Recording([Event(0.0, "mark", "begin"), *pressed, *released, ends])

    jump.__doc__ = f"Press the jump for {held_s * 1000.0:.0f} ms."
    return jump


_MIRRORED = {"right": "left", "left": "right"}


def figure_of_eight(profile: Profile, name: str) -> Recording:
    """Go once round to the right and once to the left: where the view steers, forward while it turns, and diagonally
    the second time; where a body drives, by its own turning; else in each of eight directions; seen from the side, to
    and fro.
    """
    mode = profile.mode[name]
    walker = _walker(mode)
    steer = mode.steer
    if steer.turns_with == "view" or (steer.frame == "facing" and steer.face == "view"):
        # The second time the view is 45 deg to the left, so that diagonally to the right of it is where forward was.
        turns = [(k / 60, min(k, 480 - k) / 240 * 360.0 - (45.0 if k > 240 else 0.0)) for k in range(481)]
        views = [Event(t, "view", ((yaw + 180.0) % 360.0 - 180.0, 0.0)) for t, yaw in turns]
        also = walker.full("forward", "right")
        walks = list(probe([(0.0, walker.full("forward")), (4.0, also), (8.0, walker.rest("forward", "right"))], 9.0))
        return Recording(sorted([*views, *walks], key=lambda event: event.t))
    if steer.turns_with == "body":
        if walker.stick:
            both = [(0.0, walker.full("forward", "right")), (4.0, walker.full("forward", "left"))]
            return probe([*both, (8.0, walker.rest("forward"))], 9.0)
        turn = [*walker.rest("right"), *walker.full("left")]
        ends = [*walker.rest("forward"), *walker.rest("left")]
        return probe([(0.0, walker.full("forward", "right")), (4.0, turn), (8.0, ends)], 9.0)
    to_right = [*EIGHT_DIRECTIONS]
    round_twice: list[tuple[str, ...]] = [
        *to_right,
        *(tuple(_MIRRORED.get(name, name) for name in names) for names in to_right),
    ]
    if walker.across:
        round_twice = [(side,) for side in 4 * ["right"] + 8 * ["left"] + 4 * ["right"]]
    steps: Steps = []
    for number, together in enumerate(round_twice):
        before = walker.rest(*round_twice[number - 1]) if number and not walker.stick else []
        steps.append((0.5 * number, [*before, *walker.full(*together)]))
    return probe([*steps, (8.0, walker.rest(*round_twice[-1]))], 9.0)


PROBES: dict[str, Callable[[Profile, str], Recording]] = {
    "each_direction": each_direction,
    "tap": tap,
    "reversal": reversal,
    "quarter_turn": quarter_turn,
    "slow_ramps": slow_ramps_of,
    "circle_30": _circle(0.3),
    "circle_60": _circle(0.6),
    "circle_90": _circle(0.9),
    "hands_off": hands_off,
    "swipe": swipe,
    "look_ramp": look_ramp,
    "jump_tap": _jump(0.05),
    "jump_hold": _jump(1.0),
    "figure_of_eight": figure_of_eight,
}
"""Every probe by its name."""


def probe_of(profile: Profile, name: str, mode: str | None = None) -> Recording:
    """Return a probe for a mode, the first one by default.

    Raises `WendonicError` for a probe or a mode that does not exist, and where the mode lacks what the probe needs.

    >>> from wendonic.demo import demo_profile
    >>> [event.control for event in probe_of(demo_profile(), "tap")]
    ['mark', 'key.KeyW', 'key.KeyW', 'mark']
    """
    if name not in PROBES:
        raise WendonicError(none_such("probe", name, PROBES))
    in_mode = profile.mode_name(mode)
    try:
        return PROBES[name](profile, in_mode)
    except WendonicError as error:
        raise WendonicError(f'probe {name}, mode "{in_mode}": {error}') from None
