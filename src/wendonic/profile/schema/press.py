"""Presses: their controls, and the styles, each with its integer, its limit, its sentence, and how it is tried."""

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
from wendonic.profile.schema.bind import seat_words, zone_control
from wendonic.profile.schema.names import (
    ChordName,
    Fraction,
    ModeName,
    SeatName,
    Seconds,
    StickName,
    SwitchName,
    ZoneName,
)
from wendonic.profile.schema.release import released_at
from wendonic.profile.schema.seat import Seat
from wendonic.profile.schema.table import Table, entry, own_fault
from wendonic.profile.schema.window import Window
from wendonic.profile.schema.words import Word, Words

DOWN, UP = "down", "up"


class TriedStep(NamedTuple):
    """One step of trying a press: it goes down or up, and stays there for a share of its style's limit, or a tick."""

    edge: str
    share: float


PRESSED = (TriedStep(DOWN, 0.0),)
TAPPED = (TriedStep(DOWN, 0.25), TriedStep(UP, 0.0))
HELD_ON = (TriedStep(DOWN, 1.1),)
TWICE = (TriedStep(DOWN, 0.25), TriedStep(UP, 0.25), TriedStep(DOWN, 0.0))

STYLES = Words(
    Word("hold", "on while held", STYLE_HOLD, trial=PRESSED, meaning="On while held."),
    Word(
        "toggle", "switched by each press", STYLE_TOGGLE, trial=PRESSED, meaning="Each press switches it on or off."
    ),
    Word(
        "tap",
        "released within {tap_s:g} s",
        STYLE_TAP,
        ("tap_s",),
        TAPPED,
        meaning="Begins and ends in the tick of its release, if that comes within tap_s.",
    ),
    Word(
        "long",
        "on after {long_s:g} s",
        STYLE_LONG,
        ("long_s",),
        HELD_ON,
        meaning="On once held for long_s, until released.",
    ),
    Word(
        "double",
        "on from the second press within {double_s:g} s",
        STYLE_DOUBLE,
        ("double_s",),
        TWICE,
        meaning="On from the second press within double_s of the first, of any of its controls, until released.",
    ),
    Word(
        "repeat",
        "at once, again after {repeat_delay_s:g} s, then every {repeat_interval_s:g} s",
        STYLE_REPEAT,
        ("repeat_delay_s", "repeat_interval_s"),
        PRESSED,
        meaning="On while held; begins again after repeat_delay_s and then every repeat_interval_s.",
    ),
)

ENTER_AT = Words(
    Word("begin", "enters {enter}", meaning="The mode is entered as the press begins."),
    Word("end", "enters {enter} when it ends", meaning="The mode is entered as the press ends."),
)

Changes = TypeVar("Changes")


class LimitedEntry(Table):
    """An entry that is down from `above` on, until it is back at `release`."""

    above: float
    release: float

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if "release" not in self.model_fields_set:
            self.__dict__["release"] = released_at(self.release, self.above)
        if self.release >= self.above:
            raise own_fault(f"release {self.release:g} is not below above {self.above:g}; it would never release")
        return self


Limit = Annotated[float, Field(gt=0.0, le=1.0)]


class TriggerEntry(LimitedEntry):
    """A trigger: down from `above`, until it is back at `release`."""

    control: SwitchName = entry("Trigger or button that presses.", example="pad.right_trigger")
    above: Limit = entry(
        "Travel from which it counts as down: raise it if it presses by accident, lower it for a quicker answer.",
        0.5,
        unit="travel",
    )
    release: Fraction = entry(
        "Travel (less than above) at which it counts as up again: lower it if a trembling finger presses twice. "
        "Left out, it is at most 0.8 times above.",
        0.4,
        unit="travel",
    )


class StickEntry(LimitedEntry):
    """A stick tilted in one direction: down from `above`, until it is back at `release`."""

    stick: StickName = entry("Stick that presses.", example="pad.left_stick")
    towards: Literal["up", "down", "left", "right"] = entry("Direction of tilt that presses.", example="up")
    above: Limit = entry(
        "Tilt from which it counts as down: raise it if it presses by accident, lower it for a quicker answer.",
        0.6,
        unit="tilt",
    )
    release: Fraction = entry(
        "Tilt (less than above) at which it counts as up again: lower it if a trembling thumb presses twice. "
        "Left out, it is at most 0.8 times above.",
        0.4,
        unit="tilt",
    )


class ZoneEntry(Table):
    """A finger that lands in a zone of the touch screen."""

    zone: ZoneName = entry("Zone in which a finger presses as it lands.", example="right half")


class WheelEntry(Table):
    """A notch of the wheel, away from the user or towards the user."""

    wheel: Literal["away", "towards"] = entry("Direction of the wheel notches that press.", example="towards")


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
    """Return the source of one entry for a sampler; None if one of its keys belongs to another player."""
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
    """Describe one entry."""
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
    """One press: which controls make it, and how.

    The style `hold` is on while held; `toggle` switches with every press; `tap` is a press released within `tap_s`;
    `long` is on after `long_s`; `double` is on from the second press within `double_s` of the first; `repeat` begins
    again while held, after `repeat_delay_s` and then every `repeat_interval_s`. With `buffer_s` or `grace_s` the
    press waits for the ground: it still counts if it comes that long before landing, or that long after leaving the
    ground; `air_jumps` more count in the air. With `enter` it enters another mode. Of several in one tick, a press
    that begins counts before one that ends, then the first in the table.
    """

    bind: Annotated[tuple[PressEntry, ...], Field(strict=False, min_length=1)] = entry(
        "Keys, buttons, triggers, sticks, zones or wheel notches that press, alone or as a chord (ControlLeft+KeyC).",
        example=["key.Space", "pad.south"],
    )
    unless: Annotated[tuple[SwitchName, ...], Field(strict=False)] = entry(
        "Keys or buttons that keep the press from beginning while one of them is held: C, but not with ControlLeft.",
        (),
        example=["key.ControlLeft"],
    )
    style: Annotated[str, STYLES] = entry("What the player does for the press to count.", "hold")
    tap_s: Seconds = entry(
        "Longest tap: raise it if slow taps are missed, lower it if short holds count as taps.", 0.2
    )
    long_s: Seconds = entry(
        "Time after which a press is long: raise it if it happens by accident, lower it for a quicker answer.", 0.5
    )
    double_s: Seconds = entry(
        "Longest time between the two presses: raise it if slow double presses are missed, lower it"
        " if two single ones count as double.",
        0.3,
    )
    repeat_delay_s: Annotated[float, Field(gt=0.0, le=10.0)] = entry(
        "Time held before the press repeats: raise it if menus run away, lower it for a quicker answer.", 0.4
    )
    repeat_interval_s: Annotated[float, Field(ge=0.01, le=10.0)] = entry(
        "Time between repeats: raise it if menus run away, lower it to go faster through long lists.", 0.1
    )
    buffer_s: Seconds | None = entry(
        "How long before landing a press still counts (jump buffering, input buffer): raise it if "
        "early jumps are lost, lower it if jumps happen unasked.",
        None,
        example=0.12,
        otherwise="does not wait for the ground",
    )
    grace_s: Seconds | None = entry(
        "How long after leaving the ground a press still counts (coyote time): raise it if jumps at"
        " edges are lost, lower it if players jump from thin air.",
        None,
        example=0.08,
        otherwise="does not wait for the ground",
    )
    air_jumps: Annotated[int, Field(ge=0, le=100)] = entry(
        "How many more times it can begin before landing: 1 for a double jump.",
        0,
        unit="count",
        example=1,
    )
    enter: ModeName = entry(
        'Mode that the press enters from the next tick on; "none" if it enters none.',
        "none",
        example="cart",
    )
    enter_at: Annotated[str, ENTER_AT] = entry(
        "Whether the mode is entered as the press begins or as it ends.", "begin"
    )
    seat: SeatName | None = entry("Player it belongs to, one of [seat].", None, example="one", otherwise="everybody")
    shared: bool = entry("Whether its controls may also be bound to another channel or press of the mode.", False)

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        if not self.enters and "enter_at" in self.model_fields_set:
            yield "enter_at", "does nothing without enter"

    @property
    def enters(self) -> bool:
        """Whether it enters another mode."""
        return self.enter != "none"

    @property
    def waits_for_ground(self) -> bool:
        """Whether it begins on the ground only, allowing for early and late requests."""
        return self.buffer_s is not None or self.grace_s is not None or self.air_jumps > 0

    def sentence(self) -> str:
        """Describe its controls and its style."""
        words = f"{', '.join(map(entry_sentence, self.bind))}; {STYLES.sentence(self.style, self)}"
        if self.unless:
            words += f"; not with {' or '.join(self.unless)}"
        if self.waits_for_ground:
            words += (
                f"; waits {self.buffer_s or 0:g} s for the ground, counts {self.grace_s or 0:g} s after leaving it"
            )
        if self.air_jumps:
            words += f", {self.air_jumps} more in the air"
        if self.enters:
            words += f"; {ENTER_AT.sentence(self.enter_at, self)}"
        return words + seat_words(self.seat)

    def trial(self, down: Changes, up: Changes) -> list[tuple[Changes, float]]:
        """Return the steps that begin the press, and how long (s) to wait after each.

        >>> PressTable(bind=("key.Space",), style="tap").trial("down", "up")
        [('down', 0.05), ('up', 0.0)]
        """
        return [(down if step.edge == DOWN else up, step.share * self.limit_s) for step in STYLES[self.style].trial]

    @property
    def limit_s(self) -> float:
        """The limit (s) of its style; 0 for a style without one."""
        limits = STYLES[self.style].fields
        return float(getattr(self, limits[0])) if limits else 0.0

    def tuning(self, jumps: bool = False) -> PressTuning:
        """Return the kernels' numbers for it; a press that `jumps` waits for the ground in any case."""
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
        """Return the source that a sampler reads."""
        if not seat.sits(self.seat):
            return ()
        found = [source for one in self.bind if (source := entry_source(one, window, seat))]
        return (*found, UnlessBind(seat.all_own(self.unless))) if self.unless else tuple(found)
