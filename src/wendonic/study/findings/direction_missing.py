"""A direction that no control gives, although its opposite has one."""

from collections.abc import Iterator
from typing import Any

from wendonic.study.finding import Case, Found, finding
from wendonic.study.probes.walker import walker_of
from wendonic.study.seated import seated

SIDES = {
    "move": ((1.0, 0.0, "right", "left"), (0.0, 1.0, "forward", "back")),
    "turn": ((1.0, 0.0, "right", "left"),),
    "rise": ((1.0, 0.0, "up", "down"),),
}
"""Channels whose negative side may be missing: a throttle without reverse is a cart without reverse."""

OF_MANY = {"keys": "key", "touch_zones": "touch zone"}
"""Names of the controls of devices that have one for each direction."""


@finding(45, "notice", "A player who goes that way by mistake cannot come back.")
def direction_missing(case: Case) -> Iterator[Found]:
    """Look for directions without a control whose opposite has one, among the keys of each player, the touch zones
    and all other sources. A body that flies level without `rise` cannot climb or sink; one that drives without `turn`
    can only go straight.
    """
    steer = case.table.steer
    if steer is not None and steer.frame == "fly" and steer.level and not list(case.entries("rise")):
        yield Found(
            f"{case.where}.rise",
            "it flies, and nothing moves it up or down",
            (),
            "bind controls for rise, or write level = false so that forward follows the view",
            "It stays at the height where the game puts it.",
        )
    if steer is not None and steer.frame == "drive" and _only_straight_on(case):
        yield Found(
            f"{case.where}.turn",
            "it drives, and nothing turns it",
            (),
            "bind controls for turn",
            "It can only go straight on.",
        )
    players: list[str | None] = [*case.profile.seat] or [None]
    missed: dict[tuple[str, str, str, str], list[str]] = {}
    for player in players:
        for one in _missing(case, player):
            missed.setdefault(one, []).append(player or "")
    for (channel, control, given, missing), who in missed.items():
        seats = f"seat{'s' if len(who) > 1 else ''} {' and '.join(who)}: " if len(who) < len(players) else ""
        yield Found(
            f"{case.where}.{channel}.bind",
            f"{seats}there is a {control} for {given} and none for {missing}",
            (),
            f"bind a {control} for {missing}",
        )


def _only_straight_on(case: Case) -> bool:
    """Return whether a mode drives without anything that turns; swinging hands do not count."""
    walker = walker_of(case.table, case.profile.window)
    turns = case.table.turn is not None or (walker is not None and walker.goes("right"))
    return not turns and any(True for _ in case.entries("move", "throttle"))


def _missing(case: Case, player: str | None) -> Iterator[tuple[str, str, str, str]]:
    """Yield a player's channels with the directions that have a control although their opposites have none."""
    mode = seated(case.profile, player).mode[case.mode] if player else case.table
    for channel, sides in SIDES.items():
        table: Any = getattr(mode, channel)
        devices: dict[str, list[Any]] = {}
        for bind in table.bind if table else ():
            devices.setdefault(OF_MANY.get(bind.called(), "control"), []).append(bind)
        if any(bind.called() == "hands" for bind in devices.get("control", ())):
            continue
        for control, binds in devices.items():
            for x, y, towards, away in sides:
                if channel == "move" and case.from_side and y:
                    continue
                window = case.profile.window
                there = any(bind.pushes(x, y, window) is not None for bind in binds)
                back = any(bind.pushes(0.0 - x, 0.0 - y, window) is not None for bind in binds)
                if there != back:
                    given, missing = (towards, away) if there else (away, towards)
                    yield channel, control, given, missing
