"""What a profile may hold: every field with its unit, range and default."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, model_validator

from wendonic.devices.sources import Zone
from wendonic.errors import WendonicError, none_such
from wendonic.kernels.places import AXIS_SOURCES, LOOK_SOURCES, SOURCES
from wendonic.profile.axis_binds import RiseBind, ThrottleBind, TurnBind
from wendonic.profile.claims import double_claims
from wendonic.profile.look_binds import AnyLookBind
from wendonic.profile.move_binds import MoveBind
from wendonic.profile.press_binds import PressTable
from wendonic.profile.table import Fraction, Seconds, Table, own_fault, own_faults

SignedAxis = Literal["+x", "-x", "+y", "-y", "+z", "-z"]

USUAL_ZONES = {
    "left edge": Zone(0.0, 0.0, 0.25, 1.0),
    "right edge": Zone(0.75, 0.0, 1.0, 1.0),
    "upper part": Zone(0.0, 0.0, 1.0, 0.4),
    "lower part": Zone(0.0, 0.6, 1.0, 1.0),
    "left half": Zone(0.0, 0.0, 0.5, 1.0),
    "right half": Zone(0.5, 0.0, 1.0, 1.0),
}
"""Zones that every profile has without writing them; one of its own of the same name takes their place."""


class World(Table):
    """The game's own axes: which signed axis is right, ahead and up. A 2-D game leaves `up` out."""

    right: SignedAxis
    ahead: SignedAxis
    up: SignedAxis | None = None

    @model_validator(mode="after")
    def _independent(self) -> Self:
        axes = [axis for axis in (self.right, self.ahead, self.up) if axis]
        letters = {axis[1] for axis in axes}
        if len(letters) < len(axes):
            words = f"found {', '.join(axes)}; allowed: a different letter for each"
            raise own_fault(words)
        if self.up is None and "z" in letters:
            words = f"found {', '.join(axes)} and no up; a 2-D game uses x and y, a 3-D one also says up"
            raise own_fault(words)
        return self


class ZoneTable(Table):
    """A rectangle of the window, in fractions of its width and height; y grows downwards."""

    left: Fraction
    top: Fraction
    right: Fraction
    bottom: Fraction

    @model_validator(mode="after")
    def _not_empty(self) -> Self:
        if self.left >= self.right or self.top >= self.bottom:
            raise own_fault("is empty; allowed: left below right, and top below bottom (y grows downwards)")
        return self


class Window(Table):
    """What touches and the pointer are measured by: the window's width over its height, and its zones by name."""

    aspect_ratio: Annotated[float, Field(gt=0.0, le=100.0)] = 16.0 / 9.0
    zone: dict[str, ZoneTable] = Field(default_factory=dict)

    def zone_of(self, name: str) -> Zone:
        """Return a zone by its name."""
        own = self.zone.get(name)
        return Zone(own.left, own.top, own.right, own.bottom) if own else USUAL_ZONES[name]


class Move(Table):
    """The channel `move`: its sources and what happens once they are merged."""

    later: ClassVar[frozenset[str]] = frozenset(
        {"diagonal_factor", "paces", "pace_margin", "notches", "notch_pull", "one_euro"}
    )

    merge: Literal["strongest", "sum", "latest"] = "strongest"
    diagonal: Literal["cap", "unit", "free"] = "cap"
    half_life_s: Seconds = 0.02
    bind: Annotated[tuple[MoveBind, ...], Field(strict=False, min_length=1, max_length=SOURCES)]


class Rise(Table):
    """The channel `rise`, -1 down to 1 up."""

    merge: Literal["strongest", "sum"] = "strongest"
    bind: Annotated[tuple[RiseBind, ...], Field(strict=False, min_length=1, max_length=AXIS_SOURCES)]


class Throttle(Table):
    """The channel `throttle`, -1 back to 1 ahead."""

    merge: Literal["strongest", "sum"] = "strongest"
    bind: Annotated[tuple[ThrottleBind, ...], Field(strict=False, min_length=1, max_length=AXIS_SOURCES)]


class Turn(Table):
    """The channel `turn`, -1 left to 1 right."""

    merge: Literal["strongest", "sum"] = "strongest"
    bind: Annotated[tuple[TurnBind, ...], Field(strict=False, min_length=1, max_length=AXIS_SOURCES)]


class LookTable(Table):
    """The channel `look`: its sources add up; the pitch stays within its limits."""

    pitch_limits_deg: Annotated[
        tuple[Annotated[float, Field(ge=-90.0, le=90.0)], Annotated[float, Field(ge=-90.0, le=90.0)]],
        Field(strict=False),
    ] = (-75.0, 75.0)
    bind: Annotated[tuple[AnyLookBind, ...], Field(strict=False, min_length=1, max_length=LOOK_SOURCES)]

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        low, high = self.pitch_limits_deg
        if low >= high:
            raise own_fault(f"pitch limits {low:g} and {high:g}; allowed: the lower one first")
        return self


class Steer(Table):
    """What "ahead" means, and how fast the body turns to face the way it travels."""

    later: ClassVar[frozenset[str]] = frozenset({"sectors", "sector_margin_deg"})

    frame: Literal["camera", "map"] = "camera"
    face: Literal["travel"] = "travel"
    turn_deg_s: Annotated[float, Field(gt=0.0, le=100_000.0)] = 540.0


class Mode(Table):
    """A named part of a profile, with its own bindings, steering and gait.

    `held_presses` says what becomes of presses that are held when it is entered: they are carried over, or dropped
    until they are let go and pressed again.
    """

    gait: str = "walk"
    leave_to: Annotated[tuple[str, ...], Field(strict=False)] | None = None
    held_presses: Literal["carry", "drop"] = "carry"
    steer: Steer = Steer()
    move: Move | None = None
    rise: Rise | None = None
    throttle: Throttle | None = None
    turn: Turn | None = None
    look: LookTable | None = None
    press: dict[str, PressTable] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _bindings(self) -> Self:
        tables = {name: getattr(self, name) for name in ("move", "rise", "throttle", "turn", "look")}
        channels = {name: table.bind for name, table in tables.items() if table}
        if not self.press and not channels:
            raise own_fault("binds nothing; give it [[….move.bind]], or another channel, or a press")
        wrong = double_claims(channels, self.press)
        if wrong:
            raise own_faults(wrong)
        return self


class Gait(Table):
    """The constants that turn intent into motion."""

    top_speed_m_s: Annotated[float, Field(gt=0.0, le=1000.0)] = 3.2
    accel_m_s2: Annotated[float, Field(gt=0.0, le=100_000.0)] = 22.0
    brake_m_s2: Annotated[float, Field(gt=0.0, le=100_000.0)] = 30.0


def _zone_fields(mode: dict[str, Any], path: str) -> Iterator[tuple[str, str]]:
    """Go through the zones that a mode names: field path and name. What is not of the right type is passed over."""
    for channel in ("move", "look"):
        table = mode.get(channel)
        binds = table.get("bind") if isinstance(table, dict) else None
        for index, bind in enumerate(binds if isinstance(binds, list | tuple) else ()):
            for key, named in bind.items() if isinstance(bind, dict) else ():
                where = f"{path}.{channel}.bind.{index}.{key}"
                if key in ("touch_stick", "touch_drag") and isinstance(named, str):
                    yield where, named
                if key == "touch_zones" and isinstance(named, dict):
                    for way, names in named.items():
                        for name in names if isinstance(names, list | tuple) else ():
                            if isinstance(name, str):
                                yield f"{where}.{way}", name
    presses = mode.get("press")
    for press, table in presses.items() if isinstance(presses, dict) else ():
        entries = table.get("bind") if isinstance(table, dict) else None
        for index, entry in enumerate(entries if isinstance(entries, list | tuple) else ()):
            if isinstance(entry, dict) and isinstance(entry.get("zone"), str):
                yield f"{path}.press.{press}.bind.{index}.zone", entry["zone"]


def unknown_names(content: dict[str, Any]) -> list[tuple[str, str]]:
    """Return (field path, what is wrong) for each gait, mode or zone that is named but not there.

    `content` may have other faults: what is not of the right type is passed over.
    """
    wrong: list[tuple[str, str]] = []
    modes, gaits, window = content.get("mode"), content.get("gait", {}), content.get("window", {})
    if not isinstance(modes, dict) or not isinstance(gaits, dict):
        return wrong
    gait_names = dict.fromkeys([*gaits, "walk"])
    zones = window.get("zone", {}) if isinstance(window, dict) else {}
    zone_names = dict.fromkeys([*(zones if isinstance(zones, dict) else ()), *USUAL_ZONES])
    for name, mode in modes.items():
        if not isinstance(mode, dict):
            continue
        gait = mode.get("gait", "walk")
        if isinstance(gait, str) and gait not in gait_names:
            wrong.append((f"mode.{name}.gait", none_such("gait", gait, gait_names)))
        leave_to = mode.get("leave_to")
        for other in leave_to if isinstance(leave_to, list | tuple) else ():
            if isinstance(other, str) and other not in modes:
                wrong.append((f"mode.{name}.leave_to", none_such("mode", other, modes)))
        for where, zone in _zone_fields(mode, f"mode.{name}"):
            if zone not in zone_names:
                wrong.append((where, none_such("zone", zone, zone_names)))
    return wrong


class Profile(Table):
    """One profile: every tuned number. Load it with `load_profile`; the first mode is where a helm starts."""

    later: ClassVar[frozenset[str]] = frozenset({"budget"})

    format: Literal["wendonic-profile"]
    version: Literal[1]
    title: str = ""
    max_dt_s: Annotated[float, Field(gt=0.0, le=10.0)] = 0.1
    world: World = World(right="+x", ahead="+y", up="+z")
    window: Window = Window()
    mode: Annotated[dict[str, Mode], Field(min_length=1)]
    gait: dict[str, Gait] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _names_exist(self) -> Self:
        wrong = unknown_names(self.model_dump())
        if wrong:
            raise own_faults(wrong)
        return self

    @property
    def first_mode(self) -> str:
        """Name of the mode where a helm starts."""
        return next(iter(self.mode))

    @property
    def press_names(self) -> tuple[str, ...]:
        """Names of the presses of all modes, in the order of the file."""
        return tuple(dict.fromkeys(name for mode in self.mode.values() for name in mode.press))

    def mode_name(self, name: str | None) -> str:
        """Return `name` if there is such a mode, the first one for None; raises `WendonicError` otherwise."""
        if name is None:
            return self.first_mode
        if name not in self.mode:
            raise WendonicError(none_such("mode", name, self.mode))
        return name

    def gait_of(self, mode_name: str) -> Gait:
        """Return the gait of a mode; a `walk` that the file leaves out has every default."""
        return self.gait.get(self.mode[mode_name].gait) or Gait()
