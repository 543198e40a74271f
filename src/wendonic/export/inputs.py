"""The raw inputs of a mode as named fields, each in its device's own standard, and their relation to a sample."""

import ast
import functools
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from wendonic.compiler.trees import cloned, names_in
from wendonic.devices.sources.axes import AxesSource, TriggersSource
from wendonic.devices.sources.base import Source
from wendonic.devices.sources.gyro import GyroSource
from wendonic.devices.sources.hands import SQUEEZED, HandsSource
from wendonic.devices.sources.keys import KeysSource
from wendonic.devices.sources.mode import ModeSources
from wendonic.devices.sources.mouse import MouseSource
from wendonic.devices.sources.names import find_axis
from wendonic.devices.sources.pointer import PointerSource
from wendonic.devices.sources.presses import StickBind, SwitchBind, UnlessBind, WheelBind, ZoneBind
from wendonic.devices.sources.silent import SilentSource
from wendonic.devices.sources.stick import StickSource
from wendonic.devices.sources.touch import TouchDragSource, TouchStickSource, TouchZonesSource
from wendonic.devices.sources.zone import Zone
from wendonic.export.game_axes import letters_of, minus, plan_letters
from wendonic.export.naming import identifiers, in_comment, snake, unique
from wendonic.kernels.body.fall import GROUND_UNKNOWN
from wendonic.world_axes import WorldAxes

TouchSource = TouchStickSource | TouchDragSource | TouchZonesSource
Kind = Literal["switch", "order", "axis", "counts", "rate", "share", "metres", "number", "press"]
DEG = 0.017453292519943295
WINDOW, WINDOW_WORDS = "window_aspect_ratio", "width of the window over its height; write it anew when that changes"


@dataclass
class Input:
    """One raw input: its name, its meaning with unit and sign, and its value at rest."""

    name: str
    about: str
    rest: float = 0.0
    kind: Kind = "number"
    is_held: bool = False
    """Whether the loss of a device releases it."""


@dataclass
class Inputs:
    """All raw inputs of a mode.

    `numbers` has the expression for each number of a sample; `back` has, for each input, the index of the sample's
    number (and a factor) from which it can be recovered. `sides` has the directions of keys, `touched` the sources
    that fingers move, by the prefix of their inputs, `press_zones` the zones of presses that have nothing else,
    `presses` the prefixes of all other presses, `turned` those of them that the wheel triggers, `hands` the hands
    whose swing is read, and `points` the hand that points at places to teleport to.
    """

    fields: dict[str, Input] = field(default_factory=dict)
    numbers: list[ast.expr] = field(default_factory=list)
    back: dict[str, Callable[[Sequence[float]], float]] = field(default_factory=dict)
    sides: dict[frozenset[str], str] = field(default_factory=dict)
    touched: dict[str, TouchSource] = field(default_factory=dict)
    press_zones: dict[str, list[Zone]] = field(default_factory=dict)
    presses: list[str] = field(default_factory=list)
    turned: list[str] = field(default_factory=list)
    hands: HandsSource | None = None
    points: str = ""

    @functools.cached_property
    def _row_maker(self) -> Callable[[Mapping[str, float]], list[float]]:
        parts = [cloned(node, _of_given(node)) for node in self.numbers]
        text = ast.unparse(ast.fix_missing_locations(ast.Expression(ast.List(parts, ast.Load()))))
        maker: Callable[[Mapping[str, float]], list[float]] = eval(f"lambda given: {text}", {})
        return maker

    def row_from(self, values: Mapping[str, float]) -> list[float]:
        """Return the sample for some raw inputs."""
        return self._row_maker(values)

    def values_from(self, row: Sequence[float]) -> dict[str, float]:
        """Return raw inputs that give a sample."""
        return {name: self.back[name](row) for name in self.fields}


def _of_given(node: ast.expr) -> dict[str, ast.expr]:
    """Return the values of the fields in an expression, from inputs by name."""
    return {
        part.id: ast.Subscript(ast.Name("given", ast.Load()), ast.Constant(part.id.removeprefix("raw.")), ast.Load())
        for part in names_in(node)
    }


def raw(name: str) -> ast.expr:
    """Return the expression of the input with this name."""
    return ast.Name(f"raw.{name}", ast.Load())


def times(node: ast.expr, factor: float) -> ast.expr:
    """Return a multiple of an expression."""
    return ast.BinOp(node, ast.Mult(), ast.Constant(factor))


def _taken(index: int, factor: float) -> Callable[[Sequence[float]], float]:
    """Return a function that reads a multiple of a number from a sample."""
    return lambda row: row[index] * factor + 0.0


def _placed(index: int, factor: float) -> Callable[[Sequence[float]], float]:
    """Return a function that recovers a window fraction from its distance from the middle."""
    return lambda row: row[index] * factor + 0.5


def _either(index: int, factor: float) -> Callable[[Sequence[float]], float]:
    """Return a function that reads from a sample whether one of two numbers is not 0."""
    return lambda row: factor * float(row[index] != 0.0 or row[index + 1] != 0.0)


class _Maker:
    """Collects the fields, number by number."""

    def __init__(self) -> None:
        self.made = Inputs()

    def field(self, name: str, about: str, kind: Kind, rest: float = 0.0, is_held: bool = False) -> ast.expr:
        """Add an input, unless it exists already."""
        self.made.fields.setdefault(name, Input(name, about, rest, kind, is_held))
        return raw(name)

    def add(self, node: ast.expr) -> None:
        """Set the expression of the next number of the sample."""
        self.made.numbers.append(node)

    def plain(
        self, name: str, about: str, kind: Kind, sign: float = 1.0, rest: float = 0.0, is_held: bool = False
    ) -> None:
        """Add an input that equals a number of the sample, or its negative."""
        here = len(self.made.numbers)
        node = self.field(name, about, kind, rest, is_held)
        self.add(node if sign > 0.0 else minus(node))
        self.made.back.setdefault(name, _taken(here, sign))

    def scaled(self, name: str, about: str, kind: Kind, factor: float) -> None:
        """Add an input that a number of the sample is a multiple of."""
        here = len(self.made.numbers)
        self.add(times(self.field(name, about, kind), factor))
        self.made.back.setdefault(name, _taken(here, 1.0 / factor))

    def source(self, source: Source, channel: str) -> None:
        """Add the inputs of one source."""
        match source:
            case SilentSource():
                for _ in range(source.width):
                    self.add(ast.Constant(0.0))
            case KeysSource():
                self.keys(source)
            case StickSource(control=control):
                self.stick(control)
            case MouseSource():
                self.plain("mouse_dx", "counts since the last tick, to the right positive", "counts")
                self.plain("mouse_dy", "counts since the last tick, towards the user positive", "counts", -1.0)
            case GyroSource(control=control):
                self.rates(control)
            case AxesSource(x=x, y=y):
                self.axes((x, y))
            case TriggersSource(positive=positive, negative=negative):
                self.axes((positive, negative))
            case PointerSource():
                self.pointer(source)
            case TouchStickSource(zone=zone, radius=radius):
                start = self.touched(f"{channel}_thumb", source)
                middle = "the middle of its zone" if source.middle else "where it landed"
                said = f"how far the thumb is {{}} {middle}, in window {{}}"
                rim = "the middle " + ("follows the thumb" if source.drag else "stays")
                end = f"; only a thumb that landed at {_zone(zone)} counts. "
                end += f"The length of both is at most 1; beyond that {rim}"
                right, up = said.format("to the right of", "widths"), said.format("above", "heights")
                self.plain(f"{start}_right", f"{right}, * {WINDOW} / {radius:g}{end}", "axis")
                self.plain(f"{start}_forward", f"{up}, / {radius:g}{end}", "axis")
            case TouchDragSource(zone=zone):
                start = self.touched(f"{channel}_drag", source)
                said = "how far the finger moved {} since the last tick, in window {}"
                end = f"; only a finger that landed at {_zone(zone)} counts"
                right, up = said.format("to the right", "widths"), said.format("up", "heights")
                self.plain(f"{start}_right", f"{right}{end}", "share")
                self.plain(f"{start}_up", f"{up}, / {WINDOW}{end}", "share")
            case TouchZonesSource():
                start = self.touched(f"{channel}_zone", source)
                for name in ("right", "left", "forward", "back"):
                    zones = " or at ".join(_zone(zone) for zone in getattr(source, name))
                    if zones:
                        self.plain(f"{start}_{name}", f"1 while a finger is at {zones}, else 0", "switch")
                    else:
                        self.add(ast.Constant(0.0))
            case HandsSource():
                self.made.hands = source
                self.hands(source.squeezed)
            case _:
                for number in range(source.width):
                    self.plain(f"{channel}_{number + 1}", "a raw number of its source", "number")

    def stick(self, control: str) -> None:
        """Add both axes of a stick."""
        name, said = snake(control), f"{control}, -1 to 1,"
        self.plain(f"{name}_x", f"{said} to the right positive", "axis", is_held=True)
        self.plain(f"{name}_y", f"{said} towards the player positive", "axis", -1.0, is_held=True)

    def touched(self, wanted: str, source: TouchSource) -> str:
        """Note a source that fingers move; return the prefix of its inputs."""
        name = unique(wanted, set(self.made.touched))
        self.made.touched[name] = source
        return name

    def keys(self, source: KeysSource) -> None:
        """Add four lists of keys."""
        said = (
            "while it is held, a number above those of all keys pressed before it (1, 2, …), else 0; "
            "a tap counts for one tick"
            if source.in_order
            else "1 while it is held or was pressed since the last tick, else 0"
        )
        for side in ("right", "left", "forward", "back"):
            names = getattr(source, side)
            here = len(self.made.numbers)
            kind: Kind = "order" if source.in_order else "switch"
            parts = [
                self.field(_switch(name), f"{name if '.' in name else f'key.{name}'}: {said}", kind, is_held=True)
                for name in names
            ]
            self.add(_one_of(parts, source.opposites))
            if names:
                self.made.sides[frozenset(f"raw.{_switch(name)}" for name in names)] = side
            for number, name in enumerate(names):
                # The sample has what counts for several keys, not which of them it was.
                self.made.back.setdefault(_switch(name), _taken(here, 1.0 if number == 0 else 0.0))

    def pointer(self, source: PointerSource) -> None:
        """Add the position of the pointer, and the controls that have to be held for it to count."""
        start = len(self.made.numbers)
        held = [
            self.field(_switch(name), f"{name}: 1 while it is held, else 0", "switch", is_held=True)
            for name in source.while_held
        ]
        said = "pointer.at in window fractions, 0 to 1, "
        place = [
            self.field("pointer_x", f"{said}to the right", "share", 0.5),
            self.field("pointer_y", f"{said}down", "share", 0.5),
        ]
        half = ast.Constant(0.5)
        shape = self.field(WINDOW, WINDOW_WORDS, "number", source.aspect_ratio)
        self.made.back.setdefault(WINDOW, lambda _: source.aspect_ratio)
        across = ast.BinOp(ast.BinOp(place[0], ast.Sub(), half), ast.Mult(), shape)
        factors = source.reach / source.aspect_ratio, -source.reach
        for number, away in enumerate((across, ast.BinOp(half, ast.Sub(), place[1]))):
            node: ast.expr = ast.BinOp(away, ast.Div(), ast.Constant(source.reach))
            if held:
                down: list[ast.expr] = [ast.Compare(one, [ast.Gt()], [ast.Constant(0.0)]) for one in held]
                test = down[0] if len(down) == 1 else ast.BoolOp(ast.Or(), down)
                node = ast.IfExp(test, node, ast.Constant(0.0))
            self.add(node)
            self.made.back.setdefault(f"pointer_{'xy'[number]}", _placed(start + number, factors[number]))
        for number, name in enumerate(source.while_held):
            # The sample has whether something is held, not which of several.
            self.made.back.setdefault(_switch(name), _either(start, 1.0 if number == 0 else 0.0))

    def axes(self, names: Sequence[str]) -> None:
        """Add single axes."""
        for name in names:
            if not name:
                self.add(ast.Constant(0.0))
                continue
            _, _, sign = find_axis(name)
            trigger = "trigger" in name
            side = "to the right" if name.endswith("x") else "towards the player"
            said = "0 to 1" if trigger else f"-1 to 1, positive {side}"
            self.plain(snake(name), f"{name}, {said}", "share" if trigger else "axis", sign, is_held=True)

    def rates(self, control: str) -> None:
        """Add a rate sensor and its accelerometer."""
        unit = control.rpartition(".")[0]
        for sensor, said in (("gyro", "rad/s about the axis"), ("accel", "m/s² along the axis")):
            for axis, to in (("x", "to the right"), ("y", "up"), ("z", "towards the player")):
                self.plain(f"{snake(f'{unit}.{sensor}')}_{axis}", f"{said} {to}", "rate", is_held=True)

    def hands(self, squeezed: bool) -> None:
        """Add the swings of both hands."""
        counts = f"is tracked and squeezed by {SQUEEZED:g} or more" if squeezed else "is tracked"
        for hand in ("left", "right"):
            for axis, to in (("x", "to the right"), ("y", "up"), ("z", "towards the player")):
                said = f"m that the {hand} hand moved since the last tick, less what the head moved, in the axes of "
                said += f"the play space, {to} positive"
                self.plain(f"hand_{hand}_moved_{axis}", said, "metres")
            said = f"1 while the {hand} hand {counts}, 2 in a tick with a new pose of it, else 0"
            self.plain(f"hand_{hand}_counts", said, "number")

    def press(self, name: str, base: str, binds: Sequence[Any]) -> None:
        """Add one press: held, number of changes, and whether it was lost."""
        if not binds:
            for _ in range(3):
                self.add(ast.Constant(0.0))
            return
        zones = [bind.zone for bind in binds if isinstance(bind, ZoneBind)]
        if len(zones) == len(binds):
            self.made.press_zones[base] = zones
        else:
            self.made.presses.append(base)
        notches = " or ".join(_bound(bind) for bind in binds if isinstance(bind, WheelBind))
        if notches:
            self.made.turned.append(base)
        binds = [bind for bind in binds if not isinstance(bind, WheelBind)]
        kept_up = " or ".join(control for bind in binds if isinstance(bind, UnlessBind) for control in bind.controls)
        bound = " or ".join(_bound(bind) for bind in binds if not isinstance(bind, UnlessBind))
        unless = f"; it does not go down while {kept_up} is held" if kept_up else ""
        held = f"1 while {bound} is held, else 0{unless}" if bound else "0, as a notch of the wheel is not held"
        whose = "" if base == name else f'press "{in_comment(name)}": '
        self.plain(f"{base}_down", f"{whose}{held}", "press")
        said = "how often it went down or up since the last tick" + (f"; {notches} is both" if notches else "")
        self.plain(f"{base}_edges", said, "press")
        lost = "1 if it went up because its device was lost, 2 if that was lost while it was up, else 0"
        self.plain(f"{base}_lost", lost, "press")


def _bound(bind: Any) -> str:
    match bind:
        case SwitchBind(controls=controls, above=above, release=release):
            graded = f" (pressed at {above:g}, released at {release:g})"
            return " with ".join(name + graded * ("trigger" in name or "squeeze" in name) for name in controls)
        case StickBind(stick=stick, towards=towards, above=above, release=release):
            return f"{stick} tilted {towards} (pressed at {above:g}, released at {release:g})"
        case WheelBind(towards=towards):
            return f"a notch of the wheel {'towards' if towards else 'away from'} the user"
        case ZoneBind(zone=zone):
            return f"a finger that landed at {_zone(zone)}"
    return "something"


def _zone(zone: Zone) -> str:
    x, y = f"x {zone.left:g} to {zone.right:g}", f"y {zone.top:g} to {zone.bottom:g}"
    return f"{x}, {y} (window fractions, y down)"


def _switch(name: str) -> str:
    return snake(name if "." in name else f"key.{name}")


def _one_of(parts: Sequence[ast.expr], opposites: str) -> ast.expr:
    """Return the expression that counts for several keys: any of them, or the latest or earliest one."""
    if not parts:
        return ast.Constant(0.0)
    zero = ast.Constant(0.0)
    result = parts[0]
    for part in parts[1:]:
        if opposites == "earliest":
            # The smaller number if both are held, otherwise that of the held one.
            both = ast.BoolOp(
                ast.Or(),
                [
                    ast.Compare(result, [ast.Eq()], [zero]),
                    ast.BoolOp(
                        ast.And(),
                        [ast.Compare(part, [ast.Gt()], [zero]), ast.Compare(part, [ast.Lt()], [result])],
                    ),
                ],
            )
            result = ast.IfExp(both, part, result)
        else:
            result = ast.IfExp(ast.Compare(part, [ast.Gt()], [result]), part, result)
    return result


def inputs_of(sources: ModeSources, press_names: Sequence[str], axes: WorldAxes) -> Inputs:
    """Return the raw inputs of a mode, in the order of `kernels.sample.Sample`.

    Directions of heads and hands are level unit vectors, right and forward. Places, normals and velocities are in the
    game's own axes and unit.
    """
    maker = _Maker()
    maker.made.points = sources.points
    for channel, of_channel in zip(("move", "rise", "throttle", "turn", "look"), sources.channels, strict=True):
        for source in of_channel:
            maker.source(source, channel)
    for name, base, binds in zip(press_names, identifiers(press_names, "press"), sources.presses, strict=True):
        maker.press(name, base, binds)
    maker.plain("view_given", "1 in a tick in which the game says where the camera looks, else 0", "switch")
    maker.scaled(
        "view_yaw_deg",
        "where the camera looks before this tick's look (deg), clockwise seen from above",
        "number",
        DEG,
    )
    maker.scaled("view_pitch_deg", "where the camera looks before this tick's look (deg), up positive", "number", DEG)
    known = "1 while the body stands on the ground, 0 while it does not, 2 where the game does not say"
    maker.plain("grounded", known, "number", rest=GROUND_UNKNOWN)
    _vector(maker, "ground_normal", "normal of the ground under the body", axes, (0.0, 0.0, 1.0), False)
    maker.plain("goal_given", "1 in a tick in which a goal is given, -1 in later parts of a hitch, else 0", "number")
    _vector(maker, "goal", "place to walk to", axes, (0.0, 0.0), True)
    maker.plain("aim_known", "1 once there is a point to aim at, else 0", "switch")
    _vector(maker, "aim", "the point to aim at", axes, (0.0, 0.0), True)
    for thing in ("head", "left hand", "right hand"):
        for to, said in (("right", "to the right"), ("forward", "forward")):
            name = f"{thing.replace(' ', '_')}_points_{to}"
            maker.plain(name, f"level direction of the {thing}, of length 1, how far {said}", "number")
    for to in ("right", "forward"):
        maker.plain(f"head_{to}_m", f"where the head is in the play space (m), {to}", "metres")
    for thing, said in (("pointing_from", "where the hand that points is (m)"), ("pointing_to", "its direction")):
        for to in ("right", "forward", "up"):
            maker.plain(f"{thing}_{to}", f"{said}, {to}", "number")
    _vector(
        maker, "wall", "normal of a wall that took the body's speed, zeros for none", axes, (0.0, 0.0, 0.0), False
    )
    return maker.made


def _vector(maker: _Maker, name: str, about: str, axes: WorldAxes, rest: tuple[float, ...], is_length: bool) -> None:
    """Add a vector in the game's own axes, which becomes one of the plan."""
    count = len(rest)
    start = len(maker.made.numbers)
    units = axes.units_per_m if is_length else 1.0
    letters = letters_of(axes)
    said = f"{about}, in the game's axes" + (f" ({axes.unit})" if is_length else "")
    at_rest = axes.from_plan(*(*rest, 0.0)[:3])
    on_plan = plan_letters(axes)[:count]
    named = {axis[0] for axis in on_plan if axis is not None}
    for letter, value in zip(letters, at_rest, strict=True):
        if letter in named:
            # In the order of the game's own axes.
            maker.field(f"{name}_{letter}", said, "number", value * units)
    for plan, axis in enumerate(on_plan):
        if axis is None:
            # The game's axes do not have it: it stays as it is.
            maker.add(ast.Constant(rest[plan]))
            continue
        letter, sign = axis
        node = raw(f"{name}_{letter}")
        node = node if sign > 0.0 else minus(node)
        maker.add(node if units == 1.0 else ast.BinOp(node, ast.Div(), ast.Constant(units)))
        maker.made.back.setdefault(f"{name}_{letter}", _taken(start + plan, sign * units))
