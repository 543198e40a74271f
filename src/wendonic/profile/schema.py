"""What a profile may hold: every field with its unit, range and default.

`later` on a table names what the format knows but this version does not shape yet: such a key is refused
in words of its own, never ignored.
"""

from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import AfterValidator, BaseModel, ConfigDict, Discriminator, Field, Tag, model_validator
from pydantic_core import PydanticCustomError

from wendonic.devices.controls import find_control, find_key
from wendonic.errors import ControlError, WendonicError, none_such
from wendonic.kernels.pipeline import SOURCES

OWN_WORDS: Literal["own_words"] = "own_words"
"""Type of those errors whose words are said here, as `words` of their context."""

OWN_FAULTS: Literal["own_faults"] = "own_faults"
"""The same, with a line for each fault that begins with its field path."""


def _fault(words: str) -> PydanticCustomError:
    return PydanticCustomError(OWN_WORDS, "{words}", {"words": words})


class Table(BaseModel):
    """A table of the file: unknown keys are errors, numbers are finite, nothing changes after loading."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, allow_inf_nan=False)
    later: ClassVar[frozenset[str]] = frozenset()


def _key_code(code: str) -> str:
    try:
        return find_key(code).name.removeprefix("key.")
    except ControlError as error:
        raise _fault(str(error)) from None


def _stick_name(name: str) -> str:
    try:
        control = find_control(name)
    except ControlError as error:
        raise _fault(str(error)) from None
    if control.kind != "stick":
        raise _fault(f"{name} is no stick; allowed: pad.left_stick, pad.right_stick")
    return control.name


KeyCode = Annotated[str, AfterValidator(_key_code)]
KeyList = Annotated[tuple[KeyCode, ...], Field(strict=False)]
StickName = Annotated[str, AfterValidator(_stick_name)]
SignedAxis = Literal["+x", "-x", "+y", "-y", "+z", "-z"]
Seconds = Annotated[float, Field(ge=0.0, le=10.0)]


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
            raise _fault(words)
        if self.up is None and "z" in letters:
            words = f"found {', '.join(axes)} and no up; a 2-D game uses x and y, a 3-D one also says up"
            raise _fault(words)
        return self


class KeyLists(Table):
    """Which keys pull which way, as W3C codes; at least one list holds a key."""

    ahead: KeyList = ()
    back: KeyList = ()
    left: KeyList = ()
    right: KeyList = ()

    @model_validator(mode="after")
    def _any_key(self) -> Self:
        lists = {"ahead": self.ahead, "back": self.back, "left": self.left, "right": self.right}
        if not any(lists.values()):
            words = 'no key in any list; give at least one, such as ahead = ["KeyW"]'
            raise _fault(words)
        seen: dict[str, str] = {}
        for name, codes in lists.items():
            for code in codes:
                if code in seen:
                    words = f'"{code}" stands under {seen[code]} and again under {name}; a key pulls one way'
                    raise _fault(words)
                seen[code] = name
        return self


class KeysBind(Table):
    """Keys as a source of `move`: `rise_s` from 0 to 1 after a press, `fall_s` from 1 to 0 after letting go."""

    later: ClassVar[frozenset[str]] = frozenset({"reversal"})

    keys: KeyLists
    opposites: Literal["cancel"] = "cancel"
    rise_s: Seconds = 0.06
    fall_s: Seconds = 0.04


class DeadZone(Table):
    """A stick's dead zone: nothing up to `inner`, everything from `outer` on (tilt, 0..1)."""

    later: ClassVar[frozenset[str]] = frozenset({"release"})

    form: Literal["round"] = "round"
    inner: Annotated[float, Field(ge=0.0, lt=1.0)] = 0.14
    outer: Annotated[float, Field(gt=0.0, le=1.0)] = 0.96

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.inner >= self.outer:
            words = f"inner {self.inner:g} is not below outer {self.outer:g}; nothing of the stick would be left"
            raise _fault(words)
        return self


class LinearCurve(Table):
    """Amount = tilt."""

    later: ClassVar[frozenset[str]] = frozenset({"floor", "ceiling", "per_axis"})

    form: Literal["linear"]


class PowerCurve(Table):
    """Amount = tilt ** exponent; above 1 small tilts are finer."""

    later: ClassVar[frozenset[str]] = frozenset({"floor", "ceiling", "per_axis"})

    form: Literal["power"]
    exponent: Annotated[float, Field(gt=0.0, le=10.0)] = 1.6


Curve = Annotated[LinearCurve | PowerCurve, Discriminator("form")]


class StickBind(Table):
    """A stick as a source of `move`."""

    later: ClassVar[frozenset[str]] = frozenset({"centre"})

    stick: StickName
    gate: Literal["circle"] = "circle"
    dead_zone: DeadZone = DeadZone()
    curve: Curve = PowerCurve(form="power")


def _source_kind(entry: Any) -> str | None:
    if isinstance(entry, KeysBind):
        return "keys"
    if isinstance(entry, StickBind):
        return "stick"
    return next((kind for kind in ("keys", "stick") if isinstance(entry, dict) and kind in entry), None)


Bind = Annotated[
    Annotated[KeysBind, Tag("keys")] | Annotated[StickBind, Tag("stick")],
    Discriminator(_source_kind),
]


class Move(Table):
    """The channel `move`: its sources and what happens once they are merged."""

    later: ClassVar[frozenset[str]] = frozenset(
        {"diagonal_factor", "paces", "pace_margin", "notches", "notch_pull", "one_euro"}
    )

    merge: Literal["strongest"] = "strongest"
    diagonal: Literal["cap", "unit", "free"] = "cap"
    half_life_s: Seconds = 0.02
    bind: Annotated[tuple[Bind, ...], Field(strict=False, min_length=1, max_length=SOURCES)]


class Steer(Table):
    """What "ahead" means, and how fast the body turns to face the way it travels."""

    later: ClassVar[frozenset[str]] = frozenset({"sectors", "sector_margin_deg"})

    frame: Literal["camera", "map"] = "camera"
    face: Literal["travel"] = "travel"
    turn_deg_s: Annotated[float, Field(gt=0.0, le=100_000.0)] = 540.0


class Mode(Table):
    """A named part of a profile, with its own bindings, steering and gait."""

    later: ClassVar[frozenset[str]] = frozenset({"look", "rise", "throttle", "turn", "press", "carry"})

    gait: str = "walk"
    leave_to: Annotated[tuple[str, ...], Field(strict=False)] | None = None
    steer: Steer = Steer()
    move: Move


class Gait(Table):
    """The constants that turn intent into motion."""

    top_speed_m_s: Annotated[float, Field(gt=0.0, le=1000.0)] = 3.2
    accel_m_s2: Annotated[float, Field(gt=0.0, le=100_000.0)] = 22.0
    brake_m_s2: Annotated[float, Field(gt=0.0, le=100_000.0)] = 30.0


def unknown_names(content: dict[str, Any]) -> list[tuple[str, str]]:
    """Return (field path, what is wrong) for each gait or mode that is named but not there.

    `content` may have other faults: what is not of the right type is passed over.
    """
    wrong: list[tuple[str, str]] = []
    modes, gaits = content.get("mode"), content.get("gait", {})
    if not isinstance(modes, dict) or not isinstance(gaits, dict):
        return wrong
    gait_names = dict.fromkeys([*gaits, "walk"])
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
    return wrong


class Profile(Table):
    """One profile: every tuned number. Load it with `load_profile`; the first mode is where a helm starts."""

    later: ClassVar[frozenset[str]] = frozenset({"budget"})

    format: Literal["wendonic-profile"]
    version: Literal[1]
    title: str = ""
    max_dt_s: Annotated[float, Field(gt=0.0, le=10.0)] = 0.1
    world: World = World(right="+x", ahead="+y", up="+z")
    mode: Annotated[dict[str, Mode], Field(min_length=1)]
    gait: dict[str, Gait] = {}

    @model_validator(mode="after")
    def _names_exist(self) -> Self:
        wrong = unknown_names(self.model_dump())
        if wrong:
            raise PydanticCustomError(OWN_FAULTS, "{words}", {"words": "\n".join(map(": ".join, wrong))})
        return self

    @property
    def first_mode(self) -> str:
        """Name of the mode where a helm starts."""
        return next(iter(self.mode))

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
