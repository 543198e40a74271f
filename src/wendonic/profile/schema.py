"""What a profile may hold: every field with its unit, range and default."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from wendonic.errors import WendonicError, none_such
from wendonic.profile.channels import LookTable, Move, Rise, Throttle, Turn
from wendonic.profile.claims import double_claims
from wendonic.profile.named import unknown_names
from wendonic.profile.press_binds import PressTable
from wendonic.profile.table import Table, own_fault, own_faults
from wendonic.profile.window import Window

SignedAxis = Literal["+x", "-x", "+y", "-y", "+z", "-z"]


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


class Steer(Table):
    """What "ahead" means, and how fast the body turns to face the way it travels.

    A sprite with `sectors` facings leaves one only `sector_margin_deg` beyond its border.
    """

    frame: Literal["camera", "map"] = "camera"
    face: Literal["travel"] = "travel"
    turn_deg_s: Annotated[float, Field(gt=0.0, le=100_000.0)] = 540.0
    sectors: Literal[2, 4, 8, 16] | None = None
    sector_margin_deg: Annotated[float, Field(ge=0.0, le=45.0)] | None = None

    @model_validator(mode="after")
    def _margin_of_sectors(self) -> Self:
        if self.sector_margin_deg is None:
            return self
        if self.sectors is None:
            raise own_faults([("sector_margin_deg", "does nothing without sectors")])
        width_deg = 360.0 / self.sectors
        if self.sector_margin_deg >= width_deg / 2.0:
            words = f"{self.sector_margin_deg:g} is half a sector or more; allowed: below {width_deg / 2.0:g}"
            raise own_faults([("sector_margin_deg", words)])
        return self


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
