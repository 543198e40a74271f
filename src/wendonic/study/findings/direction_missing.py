"""A direction that no control gives, whose opposite one gives."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding

SIDES = {
    "move": ((1.0, 0.0, "right", "left"), (0.0, 1.0, "forward", "back")),
    "throttle": (),
    "turn": ((1.0, 0.0, "right", "left"),),
    "rise": ((1.0, 0.0, "up", "down"),),
}


@finding(45, "notice", "A player who goes that way by mistake cannot come back.")
def direction_missing(case: Case) -> Iterator[Found]:
    """Look for directions whose opposite is there; a throttle without a back is a cart without one. What flies level
    and has no `rise` goes neither up nor down.
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
    for channel, sides in SIDES.items():
        entries = list(case.entries(channel))
        if any(bind.called() == "hands" for _, bind in entries):
            continue
        for x, y, towards, away in sides:
            if channel == "move" and case.from_side and y:
                continue
            window = case.profile.window
            there = any(bind.pushes(x, y, window) is not None for _, bind in entries)
            back = any(bind.pushes(0.0 - x, 0.0 - y, window) is not None for _, bind in entries)
            if there != back:
                missing, given = (away, towards) if there else (towards, away)
                yield Found(
                    f"{case.where}.{channel}.bind",
                    f"there is a control for {given} and none for {missing}",
                    (),
                    f"bind a control for {missing}",
                )
