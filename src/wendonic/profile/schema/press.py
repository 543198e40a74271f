"""Presses: what makes them, and the styles, each with its integer, its limit, its sentence, and how it is tried."""

from collections.abc import Iterator, Sequence
from typing import Annotated, Any, Literal, NamedTuple, Self, TypeVar

from pydantic import Discriminator, Field, Tag, model_validator

from wendonic.devices.sources.presses import (
    PressBind,
    StickBind,
    SwitchBind,
    UnlessBind,
    WheelBind,
    ZoneBind,
)
from wendonic.kernels.press.press import (
    STYLE_DOUBLE,
    STYLE_HOLD,
    STYLE_LONG,
    STYLE_REPEAT,
    STYLE_TAP,
    STYLE_TOGGLE,
    PressTuning,
)
from wendonic.profile.schema.bind import zone_control
from wendonic.profile.schema.names import ChordName, Fraction, Seconds, StickName, SwitchName
from wendonic.profile.schema.seat import Seat
from wendonic.profile.schema.table import Table, entry, own_fault
from wendonic.profile.schema.window import Window
from wendonic.profile.schema.words import Word, Words

DOWN, UP = "down", "up"


class TriedStep(NamedTuple):
    """One step of trying a press: it goes down or up, and stays so for a share of its style's limit, or a tick."""

    edge: str
    share: float


PRESSED = (TriedStep(DOWN, 0.0),)
TAPPED = (TriedStep(DOWN, 0.25), TriedStep(UP, 0.0))
HELD_ON = (TriedStep(DOWN, 1.1),)
TWICE = (TriedStep(DOWN, 0.25), TriedStep(UP, 0.25), TriedStep(DOWN, 0.0))

STYLES = Words(
    Word("hold", "on while held", STYLE_HOLD, trial=PRESSED),
    Word("toggle", "on and off in turns", STYLE_TOGGLE, trial=PRESSED),
    Word("tap", "released within {tap_s:g} s", STYLE_TAP, ("tap_s",), TAPPED),
    Word("long", "on from {long_s:g} s on", STYLE_LONG, ("long_s",), HELD_ON),
    Word("double", "on from the second press within {double_s:g} s", STYLE_DOUBLE, ("double_s",), TWICE),
    Word(
        "repeat",
        "at once, then again from {repeat_delay_s:g} s on every {repeat_interval_s:g} s",
        STYLE_REPEAT,
        ("repeat_delay_s", "repeat_interval_s"),
        PRESSED,
    ),
)

ENTER_AT = Words(Word("begin", "enters {enter}"), Word("end", "enters {enter} when it ends"))

Changes = TypeVar("Changes")


class LimitedEntry(Table):
    """What is down from `above` on, until it is back at `release`."""

    above: float
    release: float

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.release >= self.above:
            raise own_fault(f"release {self.release:g} is not below above {self.above:g}; it would never release")
        return self


Limit = Annotated[float, Field(gt=0.0, le=1.0)]


class TriggerEntry(LimitedEntry):
    """A trigger: down from `above` on, until it is back at `release`."""

    control: SwitchName = entry("Which trigger or button presses.", example="pad.right_trigger")
    above: Limit = entry(
        "Travel from which it counts as down: raise it against presses by accident.", 0.5, unit="travel"
    )
    release: Fraction = entry(
        "Travel, below above, at which it counts as up again: keeps a trembling finger from pressing twice.",
        0.4,
        unit="travel",
    )


class StickEntry(LimitedEntry):
    """A stick tilted one way: down from `above` on, until it is back at `release`."""

    stick: StickName = entry("Which stick presses.", example="pad.left_stick")
    towards: Literal["up", "down", "left", "right"] = entry("Which way the stick is tilted.", example="up")
    above: Limit = entry("Tilt from which it counts as down: raise it against presses by accident.", 0.6, unit="tilt")
    release: Fraction = entry(
        "Tilt, below above, at which it counts as up again: keeps a trembling thumb from pressing twice.",
        0.4,
        unit="tilt",
    )


class ZoneEntry(Table):
    """A finger that lands in a zone of the touch screen."""

    zone: str = entry("Zone in which a landing finger presses.", example="right half")


class WheelEntry(Table):
    """A notch of the wheel, away from the user or towards the user."""

    wheel: Literal["away", "towards"] = entry("Direction of the wheel whose notches press.", example="towards")


def _entry_kind(found: Any) -> str | None:
    if isinstance(found, str):
        return "name"
    fields: Any = ()
    if isinstance(found, dict):
        fields = found
    elif isinstance(found, Table):
        fields = type(found).model_fields
    return next((key for key in ("control", "zone", "wheel", "stick") if key in fields), None)


PressEntry = Annotated[
    Annotated[ChordName, Tag("name")]
    | Annotated[TriggerEntry, Tag("control")]
    | Annotated[ZoneEntry, Tag("zone")]
    | Annotated[WheelEntry, Tag("wheel")]
    | Annotated[StickEntry, Tag("stick")],
    Discriminator(_entry_kind),
]


def entry_controls(found: PressEntry) -> frozenset[str]:
    """Return the controls of one entry, which are down together."""
    match found:
        case TriggerEntry(control=control):
            return frozenset({control})
        case ZoneEntry(zone=zone):
            return frozenset({zone_control(zone)})
        case WheelEntry(wheel=direction):
            return frozenset({f"mouse.wheel {direction}"})
        case StickEntry(stick=stick, towards=towards):
            return frozenset({f"{stick} {towards}"})
    return frozenset(found.split("+"))


def entry_source(found: PressEntry, window: Window, seat: Seat) -> PressBind | None:
    """Return what a sampler reads of one entry; None where one of its keys is another player's."""
    match found:
        case TriggerEntry():
            return SwitchBind((seat.own(found.control),), found.above, found.release)
        case ZoneEntry():
            return ZoneBind(window.zone_of(found.zone))
        case WheelEntry():
            return WheelBind(towards=found.wheel == "towards")
        case StickEntry():
            return StickBind(seat.own(found.stick), found.towards, found.above, found.release)
    names = found.split("+")
    own = seat.all_own(names)
    return SwitchBind(own) if len(own) == len(names) else None


def entry_sentence(found: PressEntry) -> str:
    """Say what one entry is."""
    match found:
        case TriggerEntry():
            return f"{found.control} from {found.above:g} until {found.release:g}"
        case ZoneEntry(zone=zone):
            return f'a finger in "{zone}"'
        case WheelEntry(wheel=direction):
            return f"a wheel notch {'away from' if direction == 'away' else 'towards'} the user"
        case StickEntry():
            return f"{found.stick} {found.towards} from {found.above:g} until {found.release:g}"
    return found.replace("+", " with ")


class PressTable(Table):
    """One press: what makes it, and how.

    `style`: `hold` is on while held; `toggle` changes with every press; `tap` is one released within `tap_s`; `long`
    is on from `long_s` on; `double` is on from the second press within `double_s` of the first; `repeat` begins again
    while held, from `repeat_delay_s` on, every `repeat_interval_s`. With `buffer_s` or `grace_s` it waits for the
    ground: one requested so early stays wanted, one so late after the ground is gone is still given; `air_jumps` more
    are given in the air. With `enter` it brings the player into another mode; of several in one tick, one that begins
    counts before one that ends, then the first in the table.
    """

    bind: Annotated[tuple[PressEntry, ...], Field(strict=False, min_length=1)] = entry(
        "Keys, buttons, triggers, sticks, zones or wheel notches, alone or together (ControlLeft+KeyC).",
        example=["key.Space", "pad.south"],
    )
    unless: Annotated[tuple[SwitchName, ...], Field(strict=False)] = entry(
        "Keys or buttons that keep it from going down while one of them is held: C, but not with ControlLeft.",
        (),
        example=["key.ControlLeft"],
    )
    style: Annotated[str, STYLES] = entry("What the player has to do for the press to count.", "hold")
    tap_s: Seconds = entry("Time within which a tap has to end: raise it for slower thumbs.", 0.2)
    long_s: Seconds = entry("Time from which a press counts as long: lower it for a quicker answer.", 0.5)
    double_s: Seconds = entry("Time within which the second press has to follow: raise it for slower thumbs.", 0.3)
    repeat_delay_s: Annotated[float, Field(gt=0.0, le=10.0)] = entry(
        "Time held until it begins again: raise it if menus run away, lower it for a quicker answer.", 0.4
    )
    repeat_interval_s: Annotated[float, Field(ge=0.01, le=10.0)] = entry(
        "Time between one repetition and the next: lower it to go faster through long lists.", 0.1
    )
    buffer_s: Seconds | None = entry(
        "How early before landing it still counts (jump buffering, input buffer): raise it if early jumps are lost.",
        None,
        example=0.12,
        otherwise="does not wait for the ground",
    )
    grace_s: Seconds | None = entry(
        "How late after an edge it still counts (coyote time): raise it if jumps at edges are lost.",
        None,
        example=0.08,
        otherwise="does not wait for the ground",
    )
    air_jumps: Annotated[int, Field(ge=0, le=100)] = entry(
        "How many more times it begins before the ground is there again: 1 for a double jump.",
        0,
        unit="count",
        example=1,
    )
    enter: str = entry(
        "Mode that it enters, from the next tick on, so that the game need not; none for a press that enters none.",
        "none",
        example="cart",
    )
    enter_at: Annotated[str, ENTER_AT] = entry(
        "Whether it enters the mode when it begins, or when it ends: aiming while a trigger is held.", "begin"
    )
    seat: str | None = entry("Player for whom it counts, one of [seat].", None, example="one", otherwise="everybody")
    shared: bool = entry("Whether its controls may also be bound to another channel or press of the mode.", False)

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Give the fields that are written and do nothing, and why."""
        yield from super().idle_fields()
        if not self.enters and "enter_at" in self.model_fields_set:
            yield "enter_at", "does nothing without enter"

    @property
    def enters(self) -> bool:
        """Whether it enters another mode."""
        return self.enter != "none"

    @property
    def waits_for_ground(self) -> bool:
        """Whether it begins on the ground only, however early or late it is requested."""
        return self.buffer_s is not None or self.grace_s is not None or self.air_jumps > 0

    def sentence(self) -> str:
        """Say what makes it, and how."""
        words = f"{', '.join(map(entry_sentence, self.bind))}; {STYLES.sentence(self.style, self)}"
        if self.unless:
            words += f"; not with {' or '.join(self.unless)}"
        if self.waits_for_ground:
            words += f"; waits {self.buffer_s or 0:g} s for the ground, is given {self.grace_s or 0:g} s after it"
        if self.air_jumps:
            words += f", {self.air_jumps} more in the air"
        if self.enters:
            words += f"; {ENTER_AT.sentence(self.enter_at, self)}"
        return words

    def trial(self, down: Changes, up: Changes) -> list[tuple[Changes, float]]:
        """Return what to do, and for how long (s) to wait after it, so that the press begins.

        >>> PressTable(bind=("key.Space",), style="tap").trial("down", "up")
        [('down', 0.05), ('up', 0.0)]
        """
        limits = STYLES[self.style].fields
        limit_s = getattr(self, limits[0]) if limits else 0.0
        return [(down if step.edge == DOWN else up, step.share * limit_s) for step in STYLES[self.style].trial]

    def tuning(self, jumps: bool = False) -> PressTuning:
        """Return it as the kernels' numbers; one that `jumps` waits for the ground, whatever it says of that."""
        return PressTuning(
            STYLES.number(self.style),
            self.tap_s,
            self.long_s,
            self.double_s,
            self.repeat_delay_s,
            self.repeat_interval_s,
            int(self.waits_for_ground or jumps),
            self.buffer_s or 0.0,
            self.grace_s or 0.0,
            int(self.air_jumps > 0),
            float(self.air_jumps),
        )

    def sources(self, window: Window, seat: Seat) -> Sequence[PressBind]:
        """Return what a sampler reads."""
        if not seat.sits(self.seat):
            return ()
        found = [source for one in self.bind if (source := entry_source(one, window, seat))]
        return (*found, UnlessBind(seat.all_own(self.unless))) if self.unless else tuple(found)
