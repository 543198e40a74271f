"""Functions that convert fingers on a touch screen and poses of a headset into the raw inputs of a mode, as
statements over them.

Sticks, keys and mice report what a tick takes. A finger has to be followed from where it landed, and a hand from pose
to pose: these functions do that, like the door of a helm.
"""

import ast
import textwrap
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from wendonic.compiler.kernel_functions import kernel_functions
from wendonic.compiler.trees import names_in
from wendonic.devices.sources.hands import SQUEEZED, HandsSource
from wendonic.devices.sources.touch import TouchDragSource, TouchStickSource, TouchZonesSource
from wendonic.devices.sources.zone import Zone
from wendonic.export.inputs import WINDOW, WINDOW_WORDS, Inputs
from wendonic.export.kinds import find_types
from wendonic.export.naming import unique
from wendonic.export.program import Field, Function, ModeProgram, plain_function
from wendonic.kernels.view_axes import pose_forward, turned_ahead

POINTING = [f"pointing_{of}_{to}" for of in ("from", "to") for to in ("right", "forward", "up")]


@dataclass
class Feed:
    """A function that a game calls when a device reports something: the structs that it takes, and its statements."""

    about: str
    structs: tuple[str, ...]
    function: Function

    @property
    def unread(self) -> list[str]:
        """Parameters that this mode does not use."""
        return [name for name in self.function.parameters if name not in self._names]

    @property
    def idle(self) -> list[str]:
        """Structs that this mode does not use."""
        used = {name.partition(".")[0] for name in self._names}
        return [name for name in self.structs if name not in used]

    @property
    def _names(self) -> set[str]:
        return {part.id for part in names_in(self.function.body)}


@dataclass
class Door:
    """All such functions of a mode, those that they call, and the fields that they keep."""

    feeds: list[Feed] = field(default_factory=list)
    functions: list[Function] = field(default_factory=list)
    finger: list[Field] = field(default_factory=list)
    """Fields of each finger: where it is, and what it moves."""
    inputs: list[Field] = field(default_factory=list)
    """Fields of the raw inputs that no tick reads."""


class _Dotted(ast.NodeTransformer):
    """Turns `raw.move_thumb_right` into one name, as a program writes a field of a struct."""

    def visit_Attribute(self, node: ast.Attribute) -> ast.expr:
        assert isinstance(node.value, ast.Name)
        return ast.Name(f"{node.value.id}.{node.attr}", node.ctx)


def _statements(text: str) -> list[ast.stmt]:
    return [_Dotted().visit(one) for one in ast.parse(textwrap.dedent(text)).body]


def _holds(zone: Zone) -> str:
    return f"{zone.left!r} <= x <= {zone.right!r} and {zone.top!r} <= y <= {zone.bottom!r}"


def _any_holds(zones: Sequence[Zone]) -> str:
    return " or ".join(f"({_holds(zone)})" for zone in zones)


class _Maker:
    """Collects the statements for a finger that lands, moves and is lifted."""

    def __init__(self, bound: set[str]) -> None:
        self.bound = bound
        self.door = Door()
        self.down: list[str] = []
        self.move: list[str] = []
        self.up: list[str] = []

    def finger(self, name: str, about: str) -> None:
        self.door.finger.append(Field(name, 0.0, about))

    def keeps(self, name: str, about: str) -> None:
        self.door.inputs.append(Field(name, 0.0, about))

    def window(self, aspect_ratio: float) -> None:
        """Keep the shape of the window, unless the tick reads it as well."""
        if WINDOW not in {*self.bound, *(one.name for one in self.door.inputs)}:
            self.door.inputs.append(Field(WINDOW, aspect_ratio, WINDOW_WORDS))

    def sets(self, **values: str) -> list[str]:
        """Return statements that set those of some inputs that the mode has."""
        return [f"raw.{name} = {value}" for name, value in values.items() if name in self.bound]

    def stick(self, name: str, source: TouchStickSource) -> None:
        right, forward = f"{name}_right", f"{name}_forward"
        if not {right, forward} & self.bound:
            return
        held, x, y = f"{name}_held", f"{name}_from_x", f"{name}_from_y"
        self.keeps(held, "1 while a finger moves it, else 0")
        self.keeps(x, "where its middle is, in window fractions, to the right")
        self.keeps(y, "where its middle is, in window fractions, down")
        self.finger(name, "1 while it moves that stick, else 0")
        self.window(source.aspect_ratio)
        at_rest = self.sets(**{right: "0.0", forward: "0.0"})
        radius = source.radius
        from_x, from_y = map(repr, source.middle) if source.middle else ("x", "y")
        dragged = [
            f"        raw.{x} = x - right * {radius!r} / raw.{WINDOW}",
            f"        raw.{y} = y + forward * {radius!r}",
        ]
        tilted = [
            f"    right = (x - raw.{x}) * raw.{WINDOW} / {radius!r}",
            f"    forward = (raw.{y} - y) / {radius!r}",
            "    length = hypot(right, forward)",
            "    if length > 1.0:",
            "        right = right / length",
            "        forward = forward / length",
            *(dragged if source.drag else []),
            *[f"    {line}" for line in self.sets(**{right: "right", forward: "forward"})],
        ]
        begins = (f"finger.{name} = 1.0", f"raw.{held} = 1.0", f"raw.{x} = {from_x}", f"raw.{y} = {from_y}")
        self.down += [
            f"if raw.{held} == 0.0 and {_holds(source.zone)}:",
            *[f"    {line}" for line in begins],
            *(tilted if source.middle else [f"    {line}" for line in at_rest]),
        ]
        self.move += [f"if finger.{name} > 0.0:", *tilted]
        self.up += [
            f"if finger.{name} > 0.0:",
            *[f"    {line}" for line in (f"finger.{name} = 0.0", f"raw.{held} = 0.0", *at_rest)],
        ]

    def drag(self, name: str, source: TouchDragSource) -> None:
        right, up = f"{name}_right", f"{name}_up"
        moved = {
            right: f"raw.{right} + (x - finger.x)",
            up: f"raw.{up} + (finger.y - y) / raw.{WINDOW}",
        }
        if not moved.keys() & self.bound:
            return
        if up in self.bound:
            self.window(source.aspect_ratio)
        self.finger(name, "1 while it drags in that zone, else 0")
        self.down += [f"if {_holds(source.zone)}:", f"    finger.{name} = 1.0"]
        self.move += [f"if finger.{name} > 0.0:", *[f"    {line}" for line in self.sets(**moved)]]
        self.up.append(f"finger.{name} = 0.0")

    def zones(self, name: str, zones: Sequence[Zone]) -> None:
        """Count fingers that are in one of some zones, wherever they landed."""
        if not zones or name not in self.bound:
            return
        fingers = f"{name}_fingers"
        self.keeps(fingers, "how many fingers are in that zone")
        self.finger(name, "1 while it is in that zone, else 0")
        inside = [
            f"inside = 1.0 if {_any_holds(zones)} else 0.0",
            f"raw.{fingers} = raw.{fingers} + inside - finger.{name}",
            f"finger.{name} = inside",
            f"raw.{name} = 1.0 if raw.{fingers} > 0.0 else 0.0",
        ]
        self.down += inside
        self.move += inside
        self.up += [
            f"raw.{fingers} = raw.{fingers} - finger.{name}",
            f"finger.{name} = 0.0",
            f"raw.{name} = 1.0 if raw.{fingers} > 0.0 else 0.0",
        ]

    def press(self, name: str, zones: Sequence[Zone]) -> None:
        """Count fingers that landed in one of some zones."""
        down, edges = f"{name}_down", f"{name}_edges"
        if not {down, edges} & self.bound:
            return
        fingers = f"{name}_fingers"
        self.keeps(fingers, "how many fingers hold it")
        self.finger(name, "1 while it holds that press, else 0")
        edge = self.sets(**{edges: f"raw.{edges} + 1.0"})
        self.down += [
            f"if {_any_holds(zones)}:",
            f"    finger.{name} = 1.0",
            f"    raw.{fingers} = raw.{fingers} + 1.0",
            f"    if raw.{fingers} == 1.0:",
            *[f"        {line}" for line in [*self.sets(**{down: "1.0"}), *edge]],
        ]
        self.up += [
            f"if finger.{name} > 0.0:",
            f"    finger.{name} = 0.0",
            f"    raw.{fingers} = raw.{fingers} - 1.0",
            f"    if raw.{fingers} == 0.0:",
            *[f"        {line}" for line in [*self.sets(**{down: "0.0"}), *edge]],
        ]

    def level(self, base: str, is_turned: bool, taken: set[str]) -> None:
        """Add the function for a press, unless only fingers trigger it."""
        down, edges, lost = (f"{base}_{name}" for name in ("down", "edges", "lost"))
        if not {down, edges} <= self.bound:
            return
        about = f"Set whether {base} is down (1) or up (0), and count the edge if that changes."
        about += " A notch of the wheel is a 1, then a 0." if is_turned else ""
        changed = [f"raw.{down} = level", f"raw.{edges} = raw.{edges} + 1.0"]
        if lost in self.bound:
            changed += ["if level == 0.0:", f"    raw.{lost} = 0.0"]
        # Languages that distinguish true from 1 must not count an edge for it.
        lines = [
            "level = 1.0 if down > 0.0 else 0.0",
            f"if raw.{down} != level:",
            *[f"    {line}" for line in changed],
        ]
        self.feed(unique(f"press_{base}", taken), about, ("raw",), ["down"], lines)

    def fingers(self) -> None:
        """Add the functions for fingers, if they do anything."""
        if not self.door.finger:
            return
        place = [
            Field("x", 0.0, "where it is, in window fractions, to the right"),
            Field("y", 0.0, "where it is, in window fractions, down"),
        ]
        self.door.finger = [*place, *self.door.finger]
        here = ["finger.x = x", "finger.y = y"]
        said = "in window fractions, 0 to 1, y down"
        each = f"A finger lands, {said}. Each finger has a struct of its own, zero at first."
        self.feed("touch_down", each, ("finger", "raw"), "xy", [*here, *self.down])
        self.feed("touch_move", f"A finger moves, {said}.", ("finger", "raw"), "xy", [*self.move, *here])
        self.feed("touch_up", "A finger is lifted, or lost.", ("finger", "raw"), "", self.up)

    def feed(self, name: str, about: str, structs: tuple[str, ...], given: Sequence[str], lines: list[str]) -> None:
        body = _statements("\n".join(lines))
        if body:
            self.door.feeds.append(Feed(about, structs, Function(name, list(given), body, 0)))

    def poses(self, hands: HandsSource | None, points: str) -> None:
        """Add the functions for the poses of head and hands; `points` is the hand that points at places to teleport
        to.
        """
        said = "its place (m) and unit quaternion, in WebXR's axes: x to the right, y up, z towards the player"
        pose = ("x", "y", "z", "quaternion_x", "quaternion_y", "quaternion_z", "quaternion_w")
        swings = [name.replace(".", "_") for name in hands.hands] if hands else []
        swings = [name for name in swings if f"{name}_counts" in self.bound]
        head = [
            *self.directed("head", pose),
            *self.sets(head_right_m="x", head_forward_m="0.0 - z"),
        ]
        if swings:
            for axis, to in (("x", "to the right"), ("y", "up"), ("z", "towards the player")):
                self.keeps(f"head_{axis}", f"where the head is (m), {to}; hands are seen from there")
            self.keeps("head_known", "1 while the head is tracked, else 0")
            forget = [f"    raw.{name}_known = 0.0" for name in swings]
            head += [
                "if raw.head_known == 0.0:",
                *forget,
                *[f"raw.head_{axis} = {axis}" for axis in "xyz"],
                "raw.head_known = 1.0",
            ]
        self.feed("head_pose", f"Pose of the head: {said}.", ("raw",), pose, head)
        if swings:
            lost = ["raw.head_known = 0.0", *[f"raw.head_{axis} = 0.0" for axis in "xyz"]]
            lost += [line.strip() for line in forget]
            lost += [line for name in swings for line in self.sets(**{f"{name}_counts": "0.0"})]
            self.feed("head_lost", "The head is no longer tracked.", ("raw",), "", lost)
        for hand in ("hand_left", "hand_right"):
            lines = self.directed(hand, pose)
            given = list(pose)
            if hands and hand in swings:
                given += ["squeeze"] if hands.squeezed else []
                lines += self.swing(hand, hands.squeezed)
            ends: list[str] = []
            if hand == points.replace(".", "_"):
                lines += self.points(pose)
                ends = self.sets(**dict.fromkeys(POINTING, "0.0"))
            words = hand.removeprefix("hand_")
            squeezed = "; and how far it is squeezed, 0 to 1" if "squeeze" in given else ""
            self.feed(f"{hand}_pose", f"Pose of the {words} hand: {said}{squeezed}.", ("raw",), given, lines)
            if hand in swings:
                ends += [f"raw.{hand}_known = 0.0", *self.sets(**{f"{hand}_counts": "0.0"})]
            self.feed(f"{hand}_lost", f"The {words} hand is no longer tracked.", ("raw",), "", ends)

    def points(self, pose: Sequence[str]) -> list[str]:
        """Return statements that set the position and direction of a hand."""
        if not {*POINTING} & self.bound:
            return []
        ahead = self.sets(pointing_to_right="across", pointing_to_forward="0.0 - back", pointing_to_up="up")
        return [
            *self.sets(pointing_from_right="x", pointing_from_forward="0.0 - z", pointing_from_up="y"),
            f"if {self.turned(pose)}:",
            f"    across, up, back = {self.calls(turned_ahead)}({', '.join(pose[3:])})",
            *[f"    {line}" for line in ahead],
            "else:",
            *[f"    {line}" for line in self.sets(**dict.fromkeys(POINTING[3:], "0.0"))],
        ]

    def directed(self, thing: str, pose: Sequence[str]) -> list[str]:
        """Return statements that set the horizontal direction of a pose; without one, the last direction stays."""
        name = thing if thing == "head" else f"{thing.removeprefix('hand_')}_hand"
        right, forward = f"{name}_points_right", f"{name}_points_forward"
        if not {right, forward} & self.bound:
            return []
        return [
            f"if {self.turned(pose)}:",
            f"    right, forward = {self.calls(pose_forward)}({', '.join(pose[3:])})",
            *[f"    {line}" for line in self.sets(**{right: "right", forward: "forward"})],
        ]

    def turned(self, pose: Sequence[str]) -> str:
        """Return the test whether a pose has a direction: its quaternion is not all zeros."""
        return " or ".join(f"{part} != 0.0" for part in pose[3:])

    def calls(self, kernel: Callable[..., Any]) -> str:
        """Return the name of a kernel, and add it to the functions with those that it calls."""
        functions = [plain_function(one) for one in kernel_functions(kernel)]
        known = {one.name for one in self.door.functions}
        self.door.functions += [one for one in functions if one.name not in known]
        return functions[-1].name

    def swing(self, hand: str, squeezed: bool) -> list[str]:
        """Return statements that add a hand's motion relative to the head."""
        self.keeps(f"{hand}_known", "1 while the hand is tracked, else 0")
        for axis, to in (("x", "to the right"), ("y", "up"), ("z", "towards the player")):
            self.keeps(f"{hand}_{axis}", f"where the hand was seen from the head (m), {to}")
        moved = {
            f"{hand}_moved_{axis}": f"raw.{hand}_moved_{axis} + (from_{axis} - raw.{hand}_{axis})" for axis in "xyz"
        }
        counts = f"squeeze >= {SQUEEZED!r}" if squeezed else ""
        return [
            *[f"from_{axis} = {axis} - raw.head_{axis}" for axis in "xyz"],
            f"if raw.{hand}_known > 0.0{f' and {counts}' if counts else ''}:",
            *[f"    {line}" for line in self.sets(**moved)],
            f"raw.{hand}_counts = {f'2.0 if {counts} else 0.0' if counts else '2.0'}",
            *[f"raw.{hand}_{axis} = from_{axis}" for axis in "xyz"],
            f"raw.{hand}_known = 1.0",
        ]


def door_of(program: ModeProgram, inputs: Inputs) -> Door:
    """Return the functions that a game calls for the devices of a mode."""
    maker = _Maker({one.name for one in program.inputs})
    for name, source in inputs.touched.items():
        match source:
            case TouchStickSource():
                maker.stick(name, source)
            case TouchDragSource():
                maker.drag(name, source)
            case TouchZonesSource():
                for side in ("right", "left", "forward", "back"):
                    maker.zones(f"{name}_{side}", getattr(source, side))
    for name, zones in inputs.press_zones.items():
        maker.press(name, zones)
    taken = {one.name for one in program.functions}
    for base in inputs.presses:
        maker.level(base, base in inputs.turned, taken)
    maker.fingers()
    maker.poses(inputs.hands, inputs.points)
    maker.feed(
        "discard_counts",
        "Clear counts, edges and what else holds for one tick only: after each tick of more than 0 s, and when a "
        "menu closes.",
        ("raw",),
        "",
        _discarded(program),
    )
    lifted = " A finger is lifted by touch_up." if maker.door.finger else ""
    maker.feed(
        "release",
        f"Release what is held: when the window loses the focus, or a device is unplugged.{lifted}",
        ("raw",),
        "",
        _released(program, inputs),
    )
    find_types([*maker.door.functions, *[feed.function for feed in maker.door.feeds]])
    return maker.door


def _discarded(program: ModeProgram) -> list[str]:
    rest = {one.name: one.rest for one in program.inputs}
    lines = [f"raw.{name} = {rest[name]!r}" for name in dict.fromkeys([*program.shared, *program.once])]
    for hand in ("hand_left", "hand_right"):
        if f"{hand}_counts" in rest:
            lines = [line for line in lines if not line.startswith(f"raw.{hand}_counts")]
            lines += [f"if raw.{hand}_counts == 2.0:", f"    raw.{hand}_counts = 1.0"]
    return lines


def _released(program: ModeProgram, inputs: Inputs) -> list[str]:
    """Return statements that release keys, sticks and presses, as a helm does after a loss."""
    bound = {one.name: one.rest for one in program.inputs}
    lines = [f"raw.{name} = {rest!r}" for name, rest in bound.items() if inputs.fields[name].is_held]
    for base in inputs.presses:
        down, edges, lost = (f"{base}_{name}" for name in ("down", "edges", "lost"))
        if down in bound:
            went_up = {down: "0.0", edges: f"raw.{edges} + 1.0", lost: "1.0"}
            lines.append(f"if raw.{down} > 0.0:")
            lines += [f"    raw.{name} = {value}" for name, value in went_up.items() if name in bound]
            if lost in bound:
                lines += [f"elif raw.{lost} == 0.0:", f"    raw.{lost} = 2.0"]
    return lines
