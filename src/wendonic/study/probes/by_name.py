"""Probes by name: exactly known input for a mode, made with its own controls."""

import math
from collections.abc import Callable
from pathlib import Path

from wendonic.devices.event import Event
from wendonic.errors import WendonicError, none_such
from wendonic.look_units import CM_PER_INCH
from wendonic.profile.schema.look_binds import LookStickBind, MouseBind
from wendonic.profile.schema.move_binds import StickBind
from wendonic.profile.schema.profile import Profile
from wendonic.recording.recording import Recording
from wendonic.study.measuring.directions import EIGHT_DIRECTIONS
from wendonic.study.measuring.jumps import jump_press_name
from wendonic.study.probes.places import PLACE_PROBES, goes_to_places
from wendonic.study.probes.press_entry import entry_changes
from wendonic.study.probes.stick_paths import RAMP_S, slow_ramps, untouched
from wendonic.study.probes.walker import AFTER_S, Steps, Walker, probe, stick_of, walker_of
from wendonic.study.seated import seated

HELD_S = 1.0
CIRCLE_S = 2.0
STICK_HZ = 120
SWIPE_CM, SWIPE_S = 10.0, 0.5


def _walker(profile: Profile, mode: str) -> Walker:
    walker = walker_of(profile.mode[mode], profile.window)
    if walker is None:
        raise WendonicError("this mode has no control that can be held to move the body")
    return walker


def _stick(profile: Profile, mode: str) -> StickBind:
    walker = stick_of(profile.mode[mode], profile.window)
    if walker is None:
        raise WendonicError("this mode has no stick that moves the body")
    bind: StickBind = walker.main
    return bind


def _along(stick: str, path: Callable[[float], tuple[float, float]], end_s: float) -> list[Event]:
    """Return the events of a stick that goes along a path of raw positions."""
    return [Event(k / STICK_HZ, stick, path(k / STICK_HZ)) for k in range(round(end_s * STICK_HZ))]


def _with_rest(events: list[Event], bind: StickBind | LookStickBind, end_s: float) -> Recording:
    return Recording([*events, Event(end_s, bind.stick, bind.centre), Event(end_s + HELD_S, "mark", "end")])


def each_direction(profile: Profile, name: str) -> Recording:
    """Press and release each of eight directions in turn, or as many as the mode has."""
    walker = _walker(profile, name)
    directions = [together for together in EIGHT_DIRECTIONS if walker.goes(*together)]
    steps: Steps = []
    for number, together in enumerate(directions):
        steps.append((2.0 * HELD_S * number, walker.full(*together)))
        steps.append((2.0 * HELD_S * number + HELD_S, walker.rest(*together)))
    return probe(steps, 2.0 * HELD_S * len(directions))


def tap(profile: Profile, name: str) -> Recording:
    """Press forward for 80 ms."""
    walker = _walker(profile, name)
    return probe([(0.1, walker.full(walker.ahead)), (0.18, walker.rest(walker.ahead))], 0.1 + HELD_S)


def reversal(profile: Profile, name: str) -> Recording:
    """Go forward, then straight back."""
    walker = _walker(profile, name)
    ahead, opposite = walker.ahead, walker.opposite
    if opposite is None:
        raise WendonicError(f"this mode has no control that goes straight back from {ahead}")
    turn = walker.changes((ahead,), (opposite,))
    return probe([(0.1, walker.full(ahead)), (1.1, turn), (2.1, walker.rest(opposite))], 3.1)


def quarter_turn(profile: Profile, name: str) -> Recording:
    """Go forward at full input, then switch to the right at once."""
    walker = _walker(profile, name)
    if walker.across:
        raise WendonicError("this mode has no forward to turn from: it is seen from the side")
    if not (walker.goes("forward") and walker.goes("right")):
        raise WendonicError(f"this mode has no turn from forward to right: it goes {', '.join(walker.directions)}")
    turn = walker.changes(("forward",), ("right",))
    return probe([(0.1, walker.full("forward")), (1.1, turn), (2.1, walker.rest("right"))], 3.1)


def slow_ramps_of(profile: Profile, name: str) -> Recording:
    """Tilt the stick slowly from rest to its rim, in each of 16 directions."""
    return slow_ramps(_stick(profile, name), RAMP_S + HELD_S)


def _circle(tilt: float) -> Callable[[Profile, str], Recording]:
    def circle(profile: Profile, name: str) -> Recording:
        bind = _stick(profile, name)
        turn = math.tau / CIRCLE_S
        end_s = 2.0 * CIRCLE_S
        return _with_rest(_along(bind.stick, lambda t: bind.tilted(turn * t, tilt), end_s), bind, end_s)

    circle.__doc__ = f"Take the stick round twice at {100.0 * tilt:.0f} % of its tilt, two seconds a turn."
    return circle


def hands_off(profile: Profile, name: str) -> Recording:
    """Leave a usual stick alone for ten seconds, at the rest point of its profile."""
    return untouched(_stick(profile, name), 10.0, 250.0)


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
    raise WendonicError("this mode has no mouse that turns the view")


def look_ramp(profile: Profile, name: str) -> Recording:
    """Tilt the look stick to the right, from rest to the rim in two seconds."""
    look = profile.mode[name].look
    for bind in look.bind if look else ():
        if isinstance(bind, LookStickBind):
            return _ramp_to_right(bind)
    raise WendonicError("this mode has no stick that turns the view")


def _ramp_to_right(bind: LookStickBind) -> Recording:
    def path(t: float) -> tuple[float, float]:
        return bind.tilted(math.pi / 2.0, min(t / 2.0, 1.0))

    return _with_rest(_along(bind.stick, path, 2.5), bind, 2.5)


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


JUMPS = ((0.5, 0.6), (1.6, 0.05), (3.0, 0.6), (4.6, 0.05))
"""When the jumps of the figure of eight begin, and how long each press is held (s)."""

_MIRRORED = {"right": "left", "left": "right"}


def figure_of_eight(profile: Profile, name: str) -> Recording:
    """Go once round to the right and once to the left. If the view steers, hold forward while it turns, and forward
    and right the second time; a vehicle turns by itself; otherwise go through the eight directions. With only two
    directions, go back and forth, seen from the side with a long and a short jump each time.
    """
    mode = profile.mode[name]
    walker = _walker(profile, name)
    steer = mode.steer
    everywhere = walker.goes("forward", "right") and walker.goes("back", "left")
    if everywhere and (steer.turns_with == "view" or (steer.frame == "facing" and steer.face == "view")):
        # The second time the view is 45 deg to the left, so that forward and right points where forward did before.
        turns = [(k / 60, min(k, 480 - k) / 240 * 360.0 - (45.0 if k > 240 else 0.0)) for k in range(481)]
        views = [Event(t, "view", ((yaw + 180.0) % 360.0 - 180.0, 0.0)) for t, yaw in turns]
        also = walker.changes(("forward",), ("forward", "right"))
        walks = list(probe([(0.0, walker.full("forward")), (4.0, also), (8.0, walker.rest("forward", "right"))], 9.0))
        return Recording(sorted([*views, *walks], key=lambda event: event.t))
    if steer.turns_with == "body" and walker.goes("forward", "right") and walker.goes("forward", "left"):
        to_left = walker.changes(("forward", "right"), ("forward", "left"))
        ends = walker.rest("forward", "left")
        return probe([(0.0, walker.full("forward", "right")), (4.0, to_left), (8.0, ends)], 9.0)
    round_twice: list[tuple[str, ...]] = [
        *EIGHT_DIRECTIONS,
        *(tuple(_MIRRORED.get(name, name) for name in names) for names in EIGHT_DIRECTIONS),
    ]
    if not everywhere:
        there, back = walker.ahead, walker.opposite or walker.ahead
        round_twice = [(side,) for side in 4 * [there] + 8 * [back] + 4 * [there]]
    steps: Steps = []
    before: tuple[str, ...] = ()
    for number, together in enumerate(round_twice):
        steps.append((0.5 * number, walker.changes(before, together)))
        before = together
    walk = probe([*steps, (8.0, walker.rest(*before))], 9.0)
    press = jump_press_name(profile, name) if walker.across else None
    if press is None:
        return walk
    down, up = entry_changes(profile, mode.press[press].bind[0])
    jumps = [
        event._replace(t=at_s + AFTER_S)
        for begin_s, held_s in JUMPS
        for at_s, events in ((begin_s, down), (begin_s + held_s, up))
        for event in events
    ]
    return Recording(sorted([*walk, *jumps], key=lambda event: event.t))


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
"""Every probe by name, for a body that walks, drives or flies; for modes with goals see `PLACE_PROBES`."""


def probe_of(profile: Profile, name: str, mode: str | None = None, seat: str | None = None) -> Recording:
    """Return a probe for a mode, the first one by default, with the controls of the player in a seat.

    Raises `WendonicError` for a probe, a mode or a seat that does not exist, and if the mode lacks what the probe
    needs.

    >>> from wendonic.demo import demo_profile
    >>> [event.control for event in probe_of(demo_profile(), "tap")]
    ['mark', 'key.KeyW', 'key.KeyW', 'mark']
    """
    if name not in PROBES:
        raise WendonicError(none_such("probe", name, PROBES))
    in_mode = profile.mode_name(mode)
    try:
        made = PLACE_PROBES.get(name) if goes_to_places(profile.mode[in_mode]) else None
        found = (made or PROBES[name])(seated(profile, seat) if seat else profile, in_mode)
    except WendonicError as error:
        where = f'mode "{in_mode}"' + (f', seat "{seat}"' if seat else "")
        raise WendonicError(f"probe {name}, {where}: {error}") from None
    return Recording(found, title=name.replace("_", " ").capitalize())


def is_probe(name: str) -> bool:
    """Return whether a name is that of a probe; a file of that name takes precedence.

    >>> is_probe("tap"), is_probe("walk.jsonl")
    (True, False)
    """
    return name in PROBES and not Path(name).exists()


def recording_or_probe(name: str, profile: Profile, mode: str | None = None, seat: str | None = None) -> Recording:
    """Return the recording in a file, or the probe of that name for a mode, the first one by default, in a seat.

    Raises `RecordingError` for a file that cannot be read, and `WendonicError` as `probe_of` does, or for a name that
    is neither.

    >>> from wendonic.demo import demo_profile
    >>> recording_or_probe("tap", demo_profile()).duration_s
    1.1
    """
    if is_probe(name):
        return probe_of(profile, name, mode, seat)
    if not Path(name).suffix and not Path(name).exists():
        raise WendonicError(f"{name} is neither a recording nor a probe; probes: {', '.join(PROBES)}")
    return Recording.read(name)
