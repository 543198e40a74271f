"""Whether right goes right and ahead goes ahead: measured, device by device, and told against the declared axes."""

import math
from collections.abc import Iterator
from typing import Any

from wendonic.devices.event import Event, Value
from wendonic.devices.key_places import KEY_PLACES
from wendonic.profile.axis_binds import AxisBind
from wendonic.profile.look_binds import GyroBind, LookBind, LookStickBind, MouseBind, TouchDragBind
from wendonic.profile.move_binds import AxesBind
from wendonic.profile.schema import Profile
from wendonic.runtime.helm import Helm
from wendonic.runtime.intent import Intent
from wendonic.study.alone import alone
from wendonic.study.finding import Finding
from wendonic.world_axes import WorldAxes

OPPOSITE = -0.5
"""Cosine of the angle from which on a key goes the other way: more than 120 deg from where it lies."""

SETTLE_S = 3.0
TICK_S = 0.05

MIRRORED = "A player who turns to one side goes to the other: no tuning helps against that."
_WAYS = {(1, 0): "right", (-1, 0): "left", (0, 1): "ahead", (0, -1): "back"}


def side_findings(profile: Profile) -> list[Finding]:
    """Return what is mirrored in a profile: keys, axes and look that go against where they lie, and undeclared axes.

    A key lies where its code says it does on the keyboard, seen from the others of its entry; an axis of a stick is
    tilted to the right and ahead; a mouse is moved to the right. What comes out is measured with a helm.

    >>> from wendonic.demo import demo_profile
    >>> side_findings(demo_profile())
    []
    """
    return [*_handedness(profile), *(finding for mode in profile.mode for finding in _mode_findings(profile, mode))]


def _handedness(profile: Profile) -> Iterator[Finding]:
    world = profile.world
    axes = WorldAxes(world.right, world.ahead, world.up)
    if axes.right_handed is False and world.handed is None:
        flipped = ("-" if world.right[0] == "+" else "+") + world.right[1]
        yield Finding(
            "left-handed-axes",
            "notice",
            "world",
            f"right {world.right}, ahead {world.ahead}, up {world.up} are left-handed axes",
            "If the game's axes are right-handed, left and right are swapped, and every turn goes the other way.",
            f'handed = "left" in [world] if they are meant to be; else right = "{flipped}"',
        )


def _mode_findings(profile: Profile, name: str) -> Iterator[Finding]:
    mode = profile.mode[name]
    for channel in ("move", "throttle", "turn"):
        table = getattr(mode, channel)
        for index, bind in enumerate(table.bind if table else ()):
            where = f"mode.{name}.{channel}.bind[{index}]"
            yield from _key_findings(profile, name, channel, bind, where)
            yield from _axis_findings(profile, name, channel, bind, where)
    for index, look in enumerate(mode.look.bind if mode.look else ()):
        yield from _look_findings(profile, name, look, f"mode.{name}.look.bind[{index}]")


def _asked(intent: Intent, channel: str) -> tuple[float, float]:
    """Return what came out of a channel, to the right and ahead."""
    if channel == "move":
        return intent.local
    return (intent.turn, 0.0) if channel == "turn" else (0.0, intent.throttle)


def _settled(profile: Profile, mode: str, control: str, value: Value) -> Intent:
    """Return the intent after a control was held for a while."""
    helm = Helm(alone(profile, mode))
    helm.apply(Event(0.0, control, value))
    for _ in range(round(SETTLE_S / TICK_S)):
        intent = helm.tick(TICK_S)
    return intent


def _key_findings(profile: Profile, mode: str, channel: str, bind: Any, where: str) -> Iterator[Finding]:
    lists = getattr(bind, "keys", None)
    if lists is None:
        return
    keys = [(way, code) for way, codes in lists.model_dump().items() for code in codes if code in KEY_PLACES]
    for way, code in keys:
        place = KEY_PLACES[code]
        block = [KEY_PLACES[other] for _, other in keys if KEY_PLACES[other].block == place.block]
        x = place.x - sum(other.x for other in block) / len(block)
        y = place.y - sum(other.y for other in block) / len(block)
        right, ahead = _asked(_settled(profile, mode, f"key.{code}", 1.0), channel)
        length = math.hypot(x, y) * math.hypot(right, ahead)
        if length > 0.0 and (x * right + y * ahead) / length < OPPOSITE:
            lies, goes = _way_words(x, y), _way_words(right, ahead)
            yield Finding(
                "mirrored-keys",
                "fault",
                f"{where}.keys.{way}",
                f"{code} lies {lies} of the others, and goes {goes}",
                MIRRORED,
                f'{lies} = ["{code}"] in keys',
            )


def _way_words(x: float, y: float) -> str:
    across = abs(x) >= abs(y)
    return _WAYS[(int(math.copysign(1, x)), 0) if across else (0, int(math.copysign(1, y)))]


def _axis_findings(profile: Profile, mode: str, channel: str, bind: Any, where: str) -> Iterator[Finding]:
    """Tilt each axis that an entry names to its right or ahead."""
    named: list[tuple[str, str]] = []
    if isinstance(bind, AxesBind):
        named = [("axes.x", bind.axes.x), ("axes.y", bind.axes.y)]
    elif isinstance(bind, AxisBind):
        named = [("axis", bind.axis)]
    for field, axis in named:
        stick, _, letter = axis.rpartition(".")
        if letter not in ("x", "y"):
            continue
        tilt = (1.0, 0.0) if letter == "x" else (0.0, -1.0)
        asked = _asked(_settled(profile, mode, stick, tilt), channel)
        along = 0 if letter == "x" else 1
        if abs(asked[1 - along]) > abs(asked[along]) and channel == "move":
            to = "to the right" if letter == "x" else "ahead"
            yield Finding(
                "crossed-axes",
                "fault",
                f"{where}.{field}",
                f"{stick} tilted {to} goes {_way_words(*asked)}",
                "Across and along are swapped.",
                f'axes = {{ x = "{stick}.x", y = "{stick}.y" }}',
            )


def _look_findings(profile: Profile, mode: str, bind: LookBind, where: str) -> Iterator[Finding]:
    helm = Helm(alone(profile, mode))
    match bind:
        case MouseBind():
            helm.mouse(40.0, 0.0)
        case LookStickBind(stick=stick):
            helm.stick(stick, 1.0, 0.0)
        case GyroBind(gyro=gyro):
            helm.sensor(gyro, 0.0, -1.0, 0.0)
        case TouchDragBind(touch_drag=name):
            zone = profile.window.zone_of(name)
            for x in (zone.left, zone.right):
                helm.touch(0, x, (zone.top + zone.bottom) / 2.0)
    turned_deg = helm.tick(TICK_S).look.yaw_deg
    if turned_deg < 0.0:
        yield Finding(
            "mirrored-look",
            "fault",
            f"{where}.invert_yaw",
            f"a turn of the hand to the right turns the view to the left ({turned_deg:.2g} deg)",
            MIRRORED,
            "invert_yaw = false",
        )
