"""A mode: a named part of a profile, with its own bindings, steering and gait."""

from collections.abc import Iterator
from typing import Annotated, Any, Self

from pydantic import Field, model_validator

from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.double_bindings import double_bindings
from wendonic.profile.schema.axis_channels import AxisChannel, Rise, Throttle, Turn
from wendonic.profile.schema.comfort import Comfort
from wendonic.profile.schema.gait import Gait
from wendonic.profile.schema.goal import GoalTable
from wendonic.profile.schema.look import LookTable
from wendonic.profile.schema.move import Move
from wendonic.profile.schema.move_binds import HandsBind, KeysBind, TouchZonesBind
from wendonic.profile.schema.names import GaitName, ModeName
from wendonic.profile.schema.press import PressTable
from wendonic.profile.schema.steer.any_steer import AnySteer
from wendonic.profile.schema.steer.camera import CameraSteer
from wendonic.profile.schema.steer.drive import DriveSteer
from wendonic.profile.schema.steer.goto import GotoSteer
from wendonic.profile.schema.steer.sprite import Faced
from wendonic.profile.schema.table import Table, entry, goes_with_words, own_fault, own_faults
from wendonic.profile.schema.words import Word, Words

HELD_PRESSES = Words(
    Word("carry", "", meaning="Held presses go on."),
    Word(
        "drop",
        "held presses end as it is entered, and count again once released",
        meaning="Held presses end, and count again once they are released and pressed.",
    ),
)
MOVEMENT = Words(
    Word("drop", "", meaning="Ramps, pace and smoothing start from rest."),
    Word(
        "carry",
        "ramps and smoothing go on as it is entered, if both modes have them",
        meaning="Ramps, pace and smoothing go on, for entries that both modes have.",
    ),
)
STEERING = ("move", "rise", "throttle", "turn", "goal")
CHANNELS = ("move", "rise", "throttle", "turn", "look", "goal")


class Mode(Table):
    """A named part of a profile, with its own bindings, steering and gait.

    While a press of `press_gaits` is held, its gait counts; if several are held, the last one in the table. As the
    mode is entered, held presses go on or (`held_presses`) end until they are pressed again, and ramps, pace and
    smoothing start from rest or (`movement`) go on, for entries that both modes have. A mode that steers nothing or
    steps on squares has the gait "none" unless it names one.
    """

    like: ModeName | None = entry(
        "Mode that this one is a copy of: write only what differs. A list such as bind is written in full.",
        None,
        example="foot",
        otherwise="begins with the defaults",
    )
    gait: GaitName = entry(
        'Gait that turns intent into motion; "none" if the game moves the body and wants directions only: without '
        "a game, as on the live page, the body then moves as walk does.",
        "walk",
    )
    press_gaits: dict[str, GaitName] = entry(
        "Presses that switch to another gait while held. If several are held, the last one in the table counts.",
        {},
        example={"sprint": "run"},
    )
    leave_to: Annotated[tuple[ModeName, ...], Field(strict=False)] | None = entry(
        "Modes that can be entered from this one.", None, example=["cart"], otherwise="any mode"
    )
    held_presses: Annotated[str, HELD_PRESSES] = entry(
        "Whether presses that are held as the mode is entered go on, or end until they are pressed again.", "carry"
    )
    movement: Annotated[str, MOVEMENT] = entry(
        "Whether ramps, pace and smoothing start from rest as the mode is entered, or go on.", "drop"
    )
    steer: AnySteer = entry("Steer frame: what forward means, and where the body faces.", CameraSteer())
    move: Move | None = entry(
        "Moving on the plan: sources, diagonals, paces, notches and smoothing.",
        None,
        example={"bind": [{"stick": "pad.left_stick"}]},
        otherwise="not bound",
    )
    rise: Rise | None = entry(
        "Moving up and down.", None, example={"bind": [{"keys": {"up": ["KeyE"]}}]}, otherwise="not bound"
    )
    throttle: Throttle | None = entry(
        "Driving forward and back.", None, example={"bind": [{"keys": {"forward": ["KeyW"]}}]}, otherwise="not bound"
    )
    turn: Turn | None = entry(
        "Turning right and left.", None, example={"bind": [{"axis": "pad.left_stick.x"}]}, otherwise="not bound"
    )
    look: LookTable | None = entry(
        "Turning the view: sources, pitch limits and zoom.",
        None,
        example={"bind": [{"mouse": "mouse.move"}]},
        otherwise="not bound",
    )
    goal: GoalTable | None = entry(
        "Pointing at a place to walk to.", None, example={"bind": [{"pointer": "pointer.at"}]}, otherwise="not bound"
    )
    comfort: Comfort | None = entry(
        "Comfort in a headset: vignette and play space.", None, example={"room": {"width_m": 2.0}}, otherwise="none"
    )
    press: dict[str, PressTable] = entry(
        "Presses by name: everything the player switches on and off.", {}, example={"jump": {"bind": ["key.Space"]}}
    )

    @model_validator(mode="before")
    @classmethod
    def _without_gait(cls, content: Any) -> Any:
        """A menu, or steps on squares, need no gait, and the needs of gaits do not concern them."""
        if not isinstance(content, dict) or "gait" in content:
            return content
        steer = content.get("steer")
        frame = steer.get("frame") if isinstance(steer, dict) else None
        # The game may set all goals itself, with nothing bound.
        steers = content.keys() & set(STEERING) or frame == "goto"
        return {**content, "gait": "none"} if frame == "grid" or not steers else content

    @model_validator(mode="before")
    @classmethod
    def _crisp_on_a_grid(cls, content: Any) -> Any:
        """On squares a press counts at once: by default there are no ramps and no smoothing."""
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

    @model_validator(mode="before")
    @classmethod
    def _apart_in_a_vehicle(cls, content: Any) -> Any:
        """Forward drives and right turns: by default neither reduces the other."""
        steer = content.get("steer") if isinstance(content, dict) else None
        move = content.get("move") if isinstance(steer, dict) and steer.get("frame") == "drive" else None
        return {**content, "move": {"diagonal": "free", **move}} if isinstance(move, dict) else content

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        if self.steer.frame == "grid":
            for name in ("press_gaits", "gait"):
                if name in self.model_fields_set and getattr(self, name) not in ({}, "none"):
                    yield name, 'does nothing under frame "grid", whose steps have a time of their own'
        elif self.press_gaits and set(self.press_gaits.values()) == {self.gait}:
            yield "press_gaits", f'does nothing: "{self.gait}" is the gait of the mode anyway'
        if self.goal is not None and not isinstance(self.steer, GotoSteer):
            yield "goal", goes_with_words("frame", self.steer.frame, ["goto"])

    def at_rest(self, name: str) -> Any:
        """Return the value of a field without effect: no gait, or its default."""
        return "none" if name == "gait" else super().at_rest(name)

    @model_validator(mode="after")
    def _steers(self) -> Self:
        wrong: list[tuple[str, str]] = []
        steer = self.steer
        if isinstance(steer, Faced) and steer.face == "turn" and self.turn is None:
            wrong.append(("steer.face", '"turn" is the channel turn, which this mode does not bind'))
        if isinstance(steer, DriveSteer) and self.throttle is None and self.move is None:
            wrong.append(("steer.frame", '"drive" needs the channel throttle, or move'))
        if steer.seen_from_side:
            for index, bind in enumerate(self.move.bind if self.move else ()):
                if not isinstance(bind, KeysBind | TouchZonesBind):
                    continue
                where, lists = (
                    ("keys", bind.keys) if isinstance(bind, KeysBind) else ("touch_zones", bind.touch_zones)
                )
                for direction, names in lists.lists().items():
                    if direction in ("forward", "back") and names:
                        words = "does nothing in a side view; up and down are a press there, or the channel rise"
                        wrong.append((f"move.bind.{index}.{where}.{direction}", words))
        binds = enumerate(self.move.bind if self.move else ())
        hands = [index for index, bind in binds if isinstance(bind, HandsBind)]
        wrong += [(f"move.bind.{index}", "hands swing in one entry; give it both of them") for index in hands[1:]]
        if wrong:
            raise own_faults(wrong)
        return self

    @model_validator(mode="after")
    def _bindings(self) -> Self:
        channels = self.bound_channels
        if not self.press and not channels and not isinstance(self.steer, GotoSteer):
            raise own_fault("binds nothing; give it [[….move.bind]], or another channel, or a press")
        wrong = double_bindings(channels, self.press)
        if wrong:
            raise own_faults(wrong)
        return self

    def staying(self) -> "Mode":
        """Return the mode with presses that do not enter other modes."""
        presses = {name: press.model_copy(update={"enter": "none"}) for name, press in self.press.items()}
        return self.model_copy(update={"press": presses})

    @property
    def bound_channels(self) -> dict[str, Any]:
        """The `bind` entries of each channel that is bound."""
        tables = {name: getattr(self, name) for name in CHANNELS}
        return {name: table.bind for name, table in tables.items() if table}

    @property
    def axis_channels(self) -> Iterator[AxisChannel]:
        """The axis channels that are bound."""
        return (channel for channel in (self.rise, self.throttle, self.turn) if channel is not None)

    def sentences(self, gaits: dict[str, Gait], length: LengthUnit = METRES) -> list[str]:
        """Describe it, line by line, in the order of the data; the first of `gaits` is its own."""
        walks_to_goals = isinstance(self.steer, GotoSteer)
        steers = walks_to_goals or bool(self.bound_channels.keys() & set(STEERING))
        lines = self.steer.sentences(length) if steers else ["steers nothing"]
        lines += self.move.sentences(self.steer.frame == "drive") if self.move else []
        for channel in self.axis_channels:
            lines += channel.sentences()
        lines += ["goal: set by the game"] if walks_to_goals and not self.goal else []
        lines += self.goal.sentences() if self.goal else []
        lines += self.comfort.sentences(length) if self.comfort else []
        lines += self.look.sentences() if self.look else []
        lines += [f"press {name}: {press.sentence()}" for name, press in self.press.items()]
        if self.gait == "none" and not self.press_gaits:
            directed = steers and self.steer.frame != "grid"
            lines += (
                ["gait none: directions only, for a game that moves the body; without one, it moves as walk does"]
                if directed
                else []
            )
        else:
            switches = {gait: press for press, gait in self.press_gaits.items()}
            jumps = any(gait.jump for gait in gaits.values())
            for name, gait in gaits.items():
                while_held = f" while {switches[name]} is held" if name in switches else ""
                grounded = "; no jump" if jumps and gait.jump is None else ""
                lines.append(gait.sentence(name + while_held, self.steer.frame == "fly", length) + grounded)
        if self.leave_to is not None:
            lines.append(f"can be left for: {', '.join(self.leave_to) or 'no mode'}")
        entered = (MOVEMENT.sentence(self.movement), HELD_PRESSES.sentence(self.held_presses))
        begins = f"a copy of mode {self.like}, with its own changes:" if self.like else ""
        return [*filter(None, [begins]), *lines, *filter(None, entered)]
