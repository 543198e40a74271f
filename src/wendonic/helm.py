"""The runtime: events in, one intent out per tick."""

import math

from wendonic.devices.controls import CONTROLS, find_control, find_key
from wendonic.devices.event import Event
from wendonic.devices.sources import Sampler
from wendonic.devices.state import DeviceState
from wendonic.errors import ControlError, WendonicError, none_such
from wendonic.intent import Intent, View, WorldAxes
from wendonic.kernels.pipeline import MEMORY_AT_REST, SAMPLE_WIDTH, tick
from wendonic.profile.schema import Profile
from wendonic.profile.tuning import mode_sources, mode_tuning

_VIEW = CONTROLS["view"]


class _ModeRun:
    """One mode of a profile, made ready to run."""

    __slots__ = ("devices", "name", "sampler", "tuning")

    def __init__(self, profile: Profile, name: str) -> None:
        sources = mode_sources(profile, name)
        self.name = name
        self.tuning = mode_tuning(profile, name)
        self.sampler = Sampler(sources)
        # One more than there are sources, so that index -1, "none yet", finds None.
        self.devices = [*(source.device for source in sources), None]


class Helm:
    """Takes raw input as it comes and gives one `Intent` per tick.

    Raw values are given in their device's own standard: W3C key codes, stick y positive towards the player.
    A helm starts in the profile's first mode, at rest, at the origin, facing and looking along +y.

    >>> from wendonic.profile.load import profile_from_text
    >>> helm = Helm(profile_from_text('''
    ... format = "wendonic-profile"
    ... version = 1
    ... [[mode.foot.move.bind]]
    ... keys = { ahead = ["KeyW"], right = ["KeyD"] }
    ... '''))
    >>> helm.key("KeyW", down=True)
    >>> for _ in range(30):
    ...     intent = helm.tick(1 / 60)
    >>> print(intent)
    tick 30, 0.500 s, foot: amount 1.00, heading   0.0 deg, facing   0.0 deg, 3.20 m/s
    """

    def __init__(self, profile: Profile) -> None:
        """Make every mode ready; nothing is looked up by name while ticking."""
        world = profile.world
        self.profile = profile
        self.axes = WorldAxes(world.right, world.ahead, world.up)
        self.state = DeviceState()
        self._modes = {name: _ModeRun(profile, name) for name in profile.mode}
        self._mode = self._modes[profile.first_mode]
        self._memory = MEMORY_AT_REST
        self._row = [0.0] * SAMPLE_WIDTH
        self._changes_seen = -1
        self._view_row = (0.0, 0.0)
        self._view = View()
        self._ticks = 0
        self._t = 0.0
        self._t_rest = 0.0

    @property
    def mode(self) -> str:
        """Name of the mode it is in."""
        return self._mode.name

    @property
    def health(self) -> dict[str, dict[str, int]]:
        """How often a raw value was cut to its range (`clamped`) or was no finite number (`refused`), by control."""
        return {"clamped": dict(self.state.clamped), "refused": dict(self.state.refused)}

    def apply(self, event: Event) -> None:
        """Take one event of any kind; raises `ControlError` for an unknown control or a value that does not fit."""
        self.state.apply(event)

    def key(self, code: str, down: bool) -> None:
        """Take a key going down or up, by its W3C code such as "KeyW". A repeated down changes nothing."""
        self.state.set(find_key(code), 1.0 if down else 0.0)

    def button(self, control: str, value: float | bool) -> None:
        """Take a button or trigger such as "pad.south": 0 or False is up, 1 or True all the way down."""
        known = find_control(control)
        if known.kind != "button":
            raise ControlError(f"{known.name} is no button")
        self.state.set(known, float(value))

    def stick(self, control: str, x: float, y: float) -> None:
        """Take a stick such as "pad.left_stick": each axis -1..1, x to the right, y towards the player."""
        known = find_control(control)
        if known.kind != "stick":
            raise ControlError(f"{known.name} is no stick")
        self.state.set(known, (x, y))

    def view(self, yaw_deg: float, pitch_deg: float = 0.0) -> None:
        """Take where the camera looks; it stands until it is given anew. See `View` for the signs."""
        self.state.set(_VIEW, (yaw_deg, pitch_deg))

    def enter(self, mode: str) -> None:
        """Go over to another mode of the profile.

        Where and how fast the body is stays. The wish to move does not: ramps and smoothing begin anew, so a
        key that is still held rises from zero. Raises `WendonicError` for a mode that does not exist or that
        `leave_to` does not allow from here. Entering the mode it is in changes nothing.
        """
        new = self._modes.get(mode)
        if new is None:
            raise WendonicError(none_such("mode", mode, self._modes))
        if new is self._mode:
            return
        allowed = self.profile.mode[self._mode.name].leave_to
        if allowed is not None and mode not in allowed:
            ways = ", ".join(allowed) or "nowhere"
            raise WendonicError(f'mode "{self._mode.name}" leaves to {ways}, not to "{mode}"; see its leave_to')
        old = self._memory[1]
        states_at_rest, at_rest = MEMORY_AT_REST
        body = at_rest._replace(face=old.face, pos_x=old.pos_x, pos_y=old.pos_y, vel_x=old.vel_x, vel_y=old.vel_y)
        self._mode = new
        self._memory = (states_at_rest, body)
        self._row = [0.0] * SAMPLE_WIDTH
        self._changes_seen = -1
        new.sampler.forget()

    def tick(self, dt: float, view: View | None = None) -> Intent:
        """Return the intent after `dt` seconds (0 or more; 0 changes nothing), steered by `view` if it is given.

        A hitch, a `dt` above the profile's `max_dt_s`, is cut into equal parts. A `dt` that is negative or
        not finite raises `WendonicError`.
        """
        if not 0.0 <= dt < math.inf:
            raise WendonicError(f"dt: found {dt!r}; allowed: a finite number of seconds, 0 or more")
        state = self.state
        mode = self._mode
        if view is not None:
            state.set(_VIEW, view)
        if state.changes != self._changes_seen:
            self._changes_seen = state.changes
            mode.sampler.fill(state, self._row)
            self._view = View(state.values[_VIEW.slot], state.values[_VIEW.slot + 1])
            self._view_row = (math.radians(self._view.yaw_deg), math.radians(self._view.pitch_deg))
        self._memory, outcome = tick(mode.tuning, self._memory, self._row, self._view_row, dt)
        self._ticks += 1
        # Compensated summation (Kahan 1965): after a day of ticks the clock is still right to the microsecond.
        added = dt - self._t_rest
        total = self._t + added
        self._t_rest = (total - self._t) - added
        self._t = total
        device = mode.devices[int(outcome.source)]
        return Intent(self._ticks, total, dt, mode.name, device, self._view, outcome, self.axes)
