"""A double press that a change of direction makes."""

from collections.abc import Iterator
from itertools import combinations

from wendonic.study.finding import Case, Found, finding


@finding(161, "notice", "A player who turns round quickly sets it off by accident.")
def double_of_two(case: Case) -> Iterator[Found]:
    """Look for double presses bound to keys of different directions: pressing one and then the other counts as a
    double press.
    """
    sides: dict[str, str] = {}
    for _, bind in case.entries("move", "turn", "throttle", "rise"):
        if bind.called() == "keys":
            sides |= {f"key.{code}": side for side, codes in bind.keys.lists().items() for code in codes}
    for name, press in case.table.press.items():
        keys = [entry for entry in press.bind if isinstance(entry, str) and entry in sides]
        apart = [pair for pair in combinations(keys, 2) if sides[pair[0]] != sides[pair[1]]]
        if press.style == "double" and apart:
            first, second = (key.removeprefix("key.") for key in apart[0])
            yield Found(
                f"{case.where}.press.{name}.bind",
                f"{first} and {second} within {press.double_s:g} s of each other are a double press of {name}",
                (),
                "give each direction a press of its own; all of them may switch to the same gait",
            )
