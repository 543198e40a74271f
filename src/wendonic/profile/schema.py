"""What a profile may hold: every field with its unit, range and default."""

from typing import Annotated, Any, Literal, Self

from pydantic import BeforeValidator, Field, model_validator

from wendonic.errors import WendonicError, none_such
from wendonic.profile.budget import Budget
from wendonic.profile.channels import LookTable, Move, Rise, Throttle, Turn
from wendonic.profile.claims import double_claims
from wendonic.profile.comfort import Comfort
from wendonic.profile.gait import USUAL_GAITS, Gait, begun_with_usual
from wendonic.profile.goal_binds import GoalTable
from wendonic.profile.mode_gaits import gait_faults, idle_gait_faults
from wendonic.profile.named import unknown_names
from wendonic.profile.press_binds import PressTable
from wendonic.profile.steer import AnySteer, CameraSteer, DriveSteer, Faced, GotoSteer, MapSteer
from wendonic.profile.table import Table, own_fault, own_faults
from wendonic.profile.window import Window
from wendonic.world_axes import WorldAxes

SignedAxis = Literal["+x", "-x", "+y", "-y", "+z", "-z"]


class World(Table):
    """The game's own axes: which signed axis is right, ahead and up.

    A 2-D game seen from above leaves `up` out, one seen from the side `ahead`. `handed` says which hand the axes are
    of, so that a wrong sign among them is found.
    """

    right: SignedAxis
    ahead: SignedAxis | None = None
    up: SignedAxis | None = None
    handed: Literal["right", "left"] | None = None

    @model_validator(mode="after")
    def _independent(self) -> Self:
        axes = [axis for axis in (self.right, self.ahead, self.up) if axis]
        letters = {axis[1] for axis in axes}
        if len(letters) < len(axes):
            words = f"found {', '.join(axes)}; allowed: a different letter for each"
            raise own_fault(words)
        if len(axes) == 1:
            raise own_fault(f"found {self.right} alone; a game from above also says ahead, one from the side up")
        if len(axes) == 2 and "z" in letters:
            missing = "up" if self.up is None else "ahead"
            words = (
                f"found {', '.join(axes)} and no {missing}; a 2-D game uses x and y, a 3-D one also says {missing}"
            )
            raise own_fault(words)
        if self.handed is not None:
            right_handed = WorldAxes(self.right, self.ahead, self.up).right_handed
            if right_handed is None:
                raise own_faults([("handed", "a 2-D game has no handedness; take it out")])
            if right_handed != (self.handed == "right"):
                hand = "right" if right_handed else "left"
                words = (
                    f'"{self.handed}" does not fit: {", ".join(axes)} are {hand}-handed; one of the signs is wrong'
                )
                raise own_faults([("handed", words)])
        return self


class Mode(Table):
    """A named part of a profile, with its own bindings, steering and gait.

    While a press of `press_gaits` is held, its gait counts; of several, the one that stands last in the table.
    `held_presses` says what becomes of presses that are held when it is entered: they are carried over, or dropped
    until they are let go and pressed again.
    """

    gait: str = "walk"
    press_gaits: dict[str, str] = Field(default_factory=dict)
    leave_to: Annotated[tuple[str, ...], Field(strict=False)] | None = None
    held_presses: Literal["carry", "drop"] = "carry"
    steer: AnySteer = CameraSteer()
    move: Move | None = None
    rise: Rise | None = None
    throttle: Throttle | None = None
    turn: Turn | None = None
    look: LookTable | None = None
    goal: GoalTable | None = None
    comfort: Comfort | None = None
    press: dict[str, PressTable] = Field(default_factory=dict)

    @model_validator(mode="before")
    @classmethod
    def _crisp_on_a_grid(cls, content: Any) -> Any:
        """On squares a press counts at once: what the file says nothing about has no ramp and no smoothing."""
        steer = content.get("steer") if isinstance(content, dict) else None
        move = content.get("move") if isinstance(steer, dict) and steer.get("frame") == "grid" else None
        binds = move.get("bind") if isinstance(move, dict) else None
        if not isinstance(move, dict) or not isinstance(binds, list | tuple):
            return content
        ramped = ("keys", "dpad", "touch_zones")
        crisp = [
            {"rise_s": 0.0, "fall_s": 0.0, **bind}
            if isinstance(bind, dict) and any(key in bind for key in ramped)
            else bind
            for bind in binds
        ]
        smoothing = {} if "one_euro" in move else {"half_life_s": 0.0}
        return {**content, "move": {**smoothing, **move, "bind": crisp}}

    @model_validator(mode="after")
    def _steers(self) -> Self:
        wrong: list[tuple[str, str]] = []
        steer = self.steer
        if isinstance(steer, Faced) and steer.face == "turn" and self.turn is None:
            wrong.append(("steer.face", '"turn" is the channel turn, which this mode does not bind'))
        if isinstance(steer, DriveSteer) and self.throttle is None and self.move is None:
            wrong.append(("steer.frame", '"drive" needs the channel throttle, or move'))
        if steer.frame == "grid" and self.press_gaits:
            wrong.append(("press_gaits", 'does nothing under frame "grid", whose steps have a time of their own'))
        if steer.frame == "grid" and "gait" in self.model_fields_set:
            wrong.append(("gait", 'does nothing under frame "grid", whose steps have a time of their own'))
        if self.goal is not None and not isinstance(steer, GotoSteer):
            wrong.append(("goal.bind.0", f'does nothing under frame "{steer.frame}"; it goes with frame "goto"'))
        if isinstance(steer, MapSteer) and steer.side_view:
            for index, bind in enumerate(self.move.bind if self.move else ()):
                ways = getattr(bind, "keys", None) or getattr(bind, "touch_zones", None)
                for way in ("ahead", "back"):
                    if ways is not None and getattr(ways, way):
                        where = "keys" if hasattr(bind, "keys") else "touch_zones"
                        words = "does nothing in a side view; up and down are a press there, or the channel rise"
                        wrong.append((f"move.bind.{index}.{where}.{way}", words))
        hands = [index for index, bind in enumerate(self.move.bind if self.move else ()) if hasattr(bind, "hands")]
        wrong += [(f"move.bind.{index}", "hands swing in one entry; give it both of them") for index in hands[1:]]
        if wrong:
            raise own_faults(wrong)
        return self

    @model_validator(mode="after")
    def _bindings(self) -> Self:
        tables = {name: getattr(self, name) for name in ("move", "rise", "throttle", "turn", "look", "goal")}
        channels = {name: table.bind for name, table in tables.items() if table}
        if not self.press and not channels:
            raise own_fault("binds nothing; give it [[….move.bind]], or another channel, or a press")
        wrong = double_claims(channels, self.press)
        if wrong:
            raise own_faults(wrong)
        return self


class Profile(Table):
    """One profile: every tuned number. Load it with `load_profile`; the first mode is where a helm starts.

    `budget` has limits for the feel sheet of the first mode, which `wendonic check` holds it against.
    """

    format: Literal["wendonic-profile"]
    version: Literal[1]
    title: str = ""
    max_dt_s: Annotated[float, Field(gt=0.0, le=10.0)] = 0.1
    world: World = World(right="+x", ahead="+y", up="+z")
    window: Window = Window()
    mode: Annotated[dict[str, Mode], Field(min_length=1)]
    gait: Annotated[dict[str, Gait], BeforeValidator(begun_with_usual)] = Field(default_factory=dict)

    budget: Budget = Field(default_factory=dict)

    @model_validator(mode="after")
    def _names_exist(self) -> Self:
        wrong = unknown_names(self.model_dump())
        for name, mode in self.mode.items():
            if self.world.ahead is None and not (isinstance(mode.steer, MapSteer) and mode.steer.side_view):
                words = 'the world has no ahead; allowed: frame "map" with side_view = true'
                wrong.append((f"mode.{name}.steer", words))
            if mode.goal is not None and self.window.plan is None:
                words = "points into the window, but [window.plan] does not say what that shows"
                wrong.append((f"mode.{name}.goal.bind.0", words))
            wrong += gait_faults(name, mode, self.gaits_of(name))
        wrong += idle_gait_faults(self.mode, self.gait)
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
        """Return the gait of a mode; a usual one, such as `walk`, need not stand in the file."""
        return self.gaits_of(mode_name)[self.mode[mode_name].gait]

    def gaits_of(self, mode_name: str) -> dict[str, Gait]:
        """Return the gaits of a mode by name: its own first, then those that held presses switch to, in order."""
        mode = self.mode[mode_name]
        names = dict.fromkeys([mode.gait, *mode.press_gaits.values()])
        return {name: self.gait.get(name) or USUAL_GAITS.get(name) or Gait() for name in names}
