"""What two structures have in common: where each number of the new record is in the old one."""

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from wendonic.compiler.layout import Path
from wendonic.compiler.ready import Record
from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.mode import Mode
from wendonic.runtime.mode_run import ModeRun

CHANNELS = ("move", "rise", "throttle", "turn", "look")
_SMOOTHED = {"right": "x", "forward": "y", "was_x": "x", "was_y": "y"}


class KeptNumbers:
    """Carries numbers of a mode's record over into a record of another structure.

    Presses are matched by number, sources by their controls, everything else by its path. What only the new structure
    has begins at rest, except smoothing and ramps, which begin at the last output or at what is held.
    """

    __slots__ = ("copied", "held", "last_source", "source_numbers")

    def __init__(
        self,
        old: ModeRun,
        new: ModeRun,
        presses: Mapping[int, int],
        sources: Mapping[str, Mapping[int, int]],
        wanted: Callable[[Path], bool],
    ) -> None:
        """Find them; `presses` and `sources` have the old number for each new one, `wanted` selects the paths to
        keep.
        """
        self.copied: list[tuple[int, int]] = []
        self.held: list[tuple[int, int]] = []
        indices = old.layout.indices
        for path, index in new.layout.indices.items():
            there = _old_path(path, presses, sources) if index >= 0 and wanted(path) else None
            if there is None:
                continue
            start = indices.get(there, -1)
            if start < 0 and there[1] == "move" and there[2] in ("right", "forward", "filter"):
                axis = _SMOOTHED.get(there[-1])
                start = indices.get(("outcome", "local", axis), -1) if axis else -1
            if start >= 0:
                self.copied.append((index, start))
            elif there[-2:-1] == ("keys",) and there[-1] in "xy":
                # Without a ramp, the whole input counted at once.
                channel = "move" if there[1] == "move" else there[2]
                row_index = old.sampler.layout.channels[channel][int(there[3])]
                self.held.append((index, row_index + (2 if there[-1] == "y" else 0)))
        last = ("memory", "move", "last_source")
        self.last_source = new.layout.index(*last) if wanted(last) and indices.get(last, -1) >= 0 else -1
        self.source_numbers = {float(there): float(number) for number, there in sources["move"].items()}

    def write(self, made: list[float], record: Record, row: Sequence[float]) -> None:
        """Write them into a new record; `row` is the last sample of the old structure."""
        for index, start in self.copied:
            made[index] = record[start]
        for index, start in self.held:
            made[index] = float(row[start] > 0.0) - float(row[start + 1] > 0.0)
        if self.last_source >= 0:
            made[self.last_source] = self.source_numbers.get(made[self.last_source], -1.0)


def same_sources(old: Mode, new: Mode) -> dict[str, dict[int, int]]:
    """Return for each channel, and each new entry of it, an old entry of the same kind that shares a control; each
    old entry is used once.
    """
    return {channel: _same_entries(_binds(old, channel), _binds(new, channel)) for channel in CHANNELS}


def _binds(mode: Mode, channel: str) -> Sequence[Bind]:
    table: Any = getattr(mode, channel)
    found: Sequence[Bind] = table.bind if table else ()
    return found


def _same_entries(old: Sequence[Bind], new: Sequence[Bind]) -> dict[int, int]:
    found: dict[int, int] = {}
    for number, bind in enumerate(new):
        for there, other in enumerate(old):
            if type(bind) is type(other) and there not in found.values() and {*bind.controls()} & {*other.controls()}:
                found[number] = there
                break
    return found


def _old_path(path: Path, presses: Mapping[int, int], sources: Mapping[str, Mapping[int, int]]) -> Path | None:
    """Return the path of a number of the new record in the old one; None if it is new."""
    first, *rest = path[1:]
    at, known = -1, presses
    if first == "presses":
        at = 2
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
