"""The part of an export's page about changing modes."""

from collections.abc import Iterable
from textwrap import wrap
from typing import TYPE_CHECKING

from wendonic.export.package import Crossing, Package

if TYPE_CHECKING:
    from wendonic.export.targets import Target

WIDTH = 110

CALLS = {
    "c99": "{stem}_enter_{new}_from_{old}(&{new}_state, &{new}_result, &{old}_state, &{old}_result, &{old}_input)",
    "javascript": "{newCamel} = enter{New}From{Old}({oldCamel}, {oldCamel}Input)",
    "csharp": "{newCamel} = {Stem}.Enter{New}From{Old}({oldCamel}, {oldCamel}Input)",
    "lua": "{new}_state = profile.enter_{new}_from_{old}({old}_state, {old}_result, {old}_input)",
    "python": "{new}_state = enter_{new}_from_{old}({old}_state, {old}_result, {old}_given)",
}
"""How a mode is entered; the variables are the caller's own."""


def changes_of_mode(package: Package, target: "Target") -> list[str]:
    """Return the lines about entering each mode, and what the game has to do then; none if there is only one mode."""
    if not package.crossings:
        return []
    lines = ["## From one mode to another", ""]
    words = (
        "Each mode has raw inputs, a state and results of its own. To change modes, call the first of these that "
        "applies after a tick, and tick the new mode from then on:"
    )
    lines += [*wrap(words, WIDTH), ""]
    for crossing in package.crossings:
        lines.append(f"- `{_call(package, target, crossing)}`: {_what(target, crossing)}")
    view = " and ".join(f"`{target.field_name(name)}`" for name in ("view_yaw_deg", "view_pitch_deg"))
    words = (
        "Body, view and presses go over by the profile's rules. Before the first tick of the new mode, set its own "
        f"raw inputs: what is held, and {view} where it has them, to where the camera looks now, which is what the "
        "last result says."
    )
    if any(made.press_words for made in package.modes):
        down = target.field_name("jump_down").replace(target.field_name("jump"), "…", 1)
        words += (
            " A press whose control is held, and that does not go on, counts again once it has been released: leave "
            f"its `{down}` at 0 until then (a game that calls the function of a press in every frame passes 0). "
            "A press that goes on, but whose control is not held in the new mode, is released with one edge."
        )
    return [*lines, "", *wrap(words, WIDTH), ""]


def _call(package: Package, target: "Target", crossing: Crossing) -> str:
    from wendonic.export.languages.csharp import pascal
    from wendonic.export.languages.javascript import camel

    old, new = package.word(crossing.old), package.word(crossing.new)
    return CALLS[target.name].format(
        stem=package.stem,
        Stem=pascal(package.stem),
        old=old,
        new=new,
        Old=pascal(old),
        New=pascal(new),
        oldCamel=camel(old),
        newCamel=camel(new),
    )


def _what(target: "Target", crossing: Crossing) -> str:
    """Return when the profile enters a mode, and what continues then."""
    signals = " or ".join(f"`{target.field_name(name)}`" for name in crossing.signals)
    when = f"when {signals} is above 0" if signals else "when the game wants it"
    goes_on = _listed(crossing.carried)
    return f"{when}; {f'{goes_on} {_goes(crossing.carried)} on while held' if goes_on else 'held presses end'}"


def _listed(names: Iterable[str]) -> str:
    *first, last = [f"`{name}`" for name in names] or [""]
    return f"{', '.join(first)} and {last}" if first else last


def _goes(names: list[str]) -> str:
    return "goes" if len(names) == 1 else "go"
