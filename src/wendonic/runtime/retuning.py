"""A mode under another profile: what both have goes on as it was."""

from collections.abc import Sequence
from typing import Any

from wendonic.compiler.layout import Path
from wendonic.compiler.ready import Record
from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.mode_run import ModeRun

CHANNELS = ("move", "rise", "throttle", "turn", "look")


def retuned_record(
    old: ModeRun, new: ModeRun, before: Profile, after: Profile, record: Record, row: Sequence[float]
) -> Record:
    """Return the record in which a mode goes on under another profile; `row` is the last sample.

    Presses are known by their names, sources by their controls; everything else by what it is. What only the new
    profile has begins at rest, but for smoothing and ramps, which begin at what came out last: the intent does not
    jump for it.
    """
    presses = _places(before.press_names, after.press_names)
    sources = {
        channel: _same_sources(_binds(before, old, channel), _binds(after, new, channel)) for channel in CHANNELS
    }
    made = list(new.record_at_rest)
    for path, place in new.layout.places.items():
        if place < 0:
            continue
        there = _old_path(path, presses, sources)
        value = None if there is None else _number(old, record, there)
        if value is None and there is not None:
            value = _seeded(there[1:], old, record, row)
        if value is not None:
            made[place] = value
    _keep_last_source(made, new, old, record, sources["move"])
    return tuple(made)


def _places(old: Sequence[str], new: Sequence[str]) -> dict[int, int]:
    """Return for each new number the old one of the same name."""
    return {number: old.index(name) for number, name in enumerate(new) if name in old}


def _binds(profile: Profile, run: ModeRun, channel: str) -> Sequence[Bind]:
    table: Any = getattr(profile.mode[run.name], channel)
    found: Sequence[Bind] = table.bind if table else ()
    return found


def _same_sources(old: Sequence[Bind], new: Sequence[Bind]) -> dict[int, int]:
    """Return for each new entry the old one of the same kind with a control in common; each old one once."""
    found: dict[int, int] = {}
    for number, bind in enumerate(new):
        for there, other in enumerate(old):
            if type(bind) is type(other) and there not in found.values() and {*bind.controls()} & {*other.controls()}:
                found[number] = there
                break
    return found


def _old_path(path: Path, presses: dict[int, int], sources: dict[str, dict[int, int]]) -> Path | None:
    """Return where a number of the new record is in the old one; None for what is new."""
    first, *rest = path[1:]
    at, known = -1, {}
    if first == "presses":
        at, known = 2, presses
    elif first == "look" and len(rest) > 1:
        at, known = 2, sources["look"]
    elif first == "move" and rest[0] == "sources":
        at, known = 3, sources["move"]
    elif first == "axes" and len(rest) > 1:
        at, known = 3, sources[rest[0]]
    if at < 0:
        return path
    number = known.get(int(path[at]))
    return None if number is None else (*path[:at], str(number), *path[at + 1 :])


def _number(run: ModeRun, record: Record, path: Path) -> float | None:
    place = run.layout.places.get(path, -1)
    return record[place] if place >= 0 else None


def _seeded(path: Path, old: ModeRun, record: Record, row: Sequence[float]) -> float | None:
    """Return what a number that the old structure does not carry begins with: what came out last, or what is held."""
    axis = {"right": "x", "forward": "y", "was_x": "x", "was_y": "y"}.get(path[-1])
    if path[0] == "move" and axis and path[1] in ("right", "forward", "filter"):
        return _number(old, record, ("outcome", "local", axis))
    if path[-2:-1] == ("keys",) and path[-1] in "xy":
        # Without a ramp all of it counted at once.
        channel = "move" if path[0] == "move" else path[1]
        start = old.sampler.places.channels[channel][int(path[2])] + (2 if path[-1] == "y" else 0)
        return float(row[start] > 0.0) - float(row[start + 1] > 0.0)
    return None


def _keep_last_source(made: list[float], new: ModeRun, old: ModeRun, record: Record, sources: dict[int, int]) -> None:
    """Number the source that was used last as the new profile does."""
    place = new.layout.place("memory", "move", "last_source")
    last = _number(old, record, ("memory", "move", "last_source"))
    if place >= 0 and last is not None:
        numbers = {float(there): float(number) for number, there in sources.items()}
        made[place] = numbers.get(last, -1.0)
