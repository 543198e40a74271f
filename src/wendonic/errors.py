"""Errors, whose messages tell the reader what to do next."""

from collections.abc import Iterable, Sequence
from difflib import SequenceMatcher, get_close_matches
from pathlib import Path
from typing import NamedTuple

SHOWN_FAULTS = 20
"""Number of faults that a message lists; the others are counted."""


def escaped(text: str) -> str:
    r"""Return a text from a file with everything escaped that could control a terminal: control characters except
    line ends, and marks that change the direction of writing.

    >>> escaped("honey\x1b[31m\u202e")
    'honey\\x1b[31m\\u202e'
    """
    return "".join(
        sign if sign == "\n" or sign.isprintable() or sign == "\t" else sign.encode("unicode_escape").decode()
        for sign in text
    )


class WendonicError(Exception):
    """The base of every error that Wendonic raises on purpose. Its text is meant for people.

    >>> from wendonic import Helm
    >>> from wendonic.demo import demo_profile
    >>> try:
    ...     Helm(demo_profile()).enter("cart")
    ... except WendonicError as error:
    ...     print(error)
    no mode "cart"; there are: foot
    """


class ControlError(WendonicError):
    """A control that does not exist, or a value that does not fit its control.

    >>> from wendonic import Helm
    >>> from wendonic.demo import demo_profile
    >>> Helm(demo_profile()).button("pad.lb", 1.0)
    Traceback (most recent call last):
    wendonic.errors.ControlError: unknown control "pad.lb"; did you mean "pad.left_bumper"?
    """


class DeviceError(WendonicError):
    """A missing device, such as a window without a screen."""


class Fault(NamedTuple):
    """One thing wrong in a file: its line (None where there is none), its field path, and what to do."""

    line: int | None
    where: str
    what: str

    def __str__(self) -> str:
        """Return the fault as one line."""
        place = ", ".join(part for part in (f"line {self.line}" if self.line else "", self.where) if part)
        return f"{place}: {self.what}" if place else self.what


class FileError(WendonicError):
    """A faulty file, with all its faults in `faults`."""

    def __init__(self, path: str | Path, faults: Sequence[Fault]) -> None:
        """Keep the path and the faults; the text lists them, the first `SHOWN_FAULTS` in full."""
        self.path = Path(path)
        self.faults = tuple(faults)
        if len(self.faults) == 1:
            super().__init__(f"{path}: {self.faults[0]}")
            return
        lines = [f"{path}: {len(self.faults)} faults"]
        lines += [f"  {fault}" for fault in self.faults[:SHOWN_FAULTS]]
        if len(self.faults) > SHOWN_FAULTS:
            lines.append(f"  and {len(self.faults) - SHOWN_FAULTS} more")
        super().__init__("\n".join(lines))

    def in_words(self) -> str:
        """Return all its faults as one line, without the file.

        >>> ProfileError("bee.toml", [Fault(3, "max_dt_s", "found -1"), Fault(None, "mode", "is missing")]).in_words()
        'line 3, max_dt_s: found -1; mode: is missing'
        """
        return "; ".join(map(str, self.faults))

    def __reduce__(self) -> tuple[type["FileError"], tuple[Path, tuple[Fault, ...]]]:
        """Return what pickle needs; otherwise an exception is recreated from its text alone."""
        return type(self), (self.path, self.faults)


class ProfileError(FileError):
    """A profile with faults: `faults` has each with its line, its field path and what to do.

    >>> from wendonic import profile_from_text
    >>> try:
    ...     profile_from_text('format = "wendonic-profile"\\nversion = 1\\nmax_dt_s = -1\\n')
    ... except ProfileError as error:
    ...     print(*error.faults, sep="\\n")
    line 3, max_dt_s: found -1; allowed: above 0, up to 10
    mode: is missing
    """


class RecordingError(FileError):
    """A recording with faults: `faults` has each with its line and what to do.

    >>> from wendonic import Event, Recording
    >>> Recording([Event(0.0, "pad.left_stick", (0.5,))])
    Traceback (most recent call last):
    wendonic.errors.RecordingError: events: event 0: pad.left_stick: found (0.5,); allowed: two finite numbers
    """


def none_such(kind: str, name: object, known: Iterable[str]) -> str:
    """Return the message that there is no `kind` with that name, with the nearest spelling and the existing names.

    >>> none_such("mode", "crt", ["foot", "cart"])
    'no mode "crt"; did you mean "cart"? there are: foot, cart'
    >>> none_such("press", "jump", [])
    'no press "jump"; there are: none'
    """
    names = list(known)
    return f'no {kind} "{name}"{did_you_mean(str(name), names) or ";"} there are: {", ".join(names) or "none"}'


LEAST_LETTERS = 3
"""A shorter word resembles too many others for a guess."""

NEAREST, LEAST_ALIKE = 5, 0.5
"""Number of near spellings that are examined, and how similar their differing parts have to be."""

MIRRORED = (("left", "right"), ("up", "down"), ("forward", "back"), ("north", "south"), ("east", "west"), ("+", "-"))
"""Opposites, which must not be confused."""

SURE = 0.06
"""How much more similar a word must be to one of two opposite names for the other one not to be suggested as well."""


def did_you_mean(word: str, known: Iterable[str], meant: str | None = None, alike: float = 0.6) -> str:
    """Return `; did you mean "..."?` for `meant`, if that is known for certain, otherwise for the nearest spelling
    among `known`, or nothing. If the opposite of that is nearly as near (left for right), it names both. `alike` is
    the share of common letters that a spelling needs.

    >>> did_you_mean("diagnal", ["merge", "diagonal"])
    '; did you mean "diagonal"?'
    >>> did_you_mean("xyz", ["merge", "diagonal"])
    ''
    >>> did_you_mean("pad.trigger", ["pad.left_trigger", "pad.right_trigger"])
    '; did you mean "pad.left_trigger" or "pad.right_trigger"?'
    >>> did_you_mean("pad.lbb", ["pad.accel"]), did_you_mean("pad.start2", ["body.restart", "pad.south"])
    ('', '')
    >>> did_you_mean("x", ["+x", "-x"], "+x")
    '; did you mean "+x"?'
    """
    choices = {choice.lower(): choice for choice in known}
    if meant is not None and meant.lower() in choices:
        return f'; did you mean "{choices[meant.lower()]}"?'
    lower = word.lower()
    device, dot, _ = lower.rpartition(".")
    of_device = [choice for choice in choices if dot and choice.startswith(f"{device}.")]
    near = (
        get_close_matches(lower, of_device or choices, n=NEAREST, cutoff=alike) if len(word) >= LEAST_LETTERS else []
    )
    # A device that both names contain says nothing about the part after the dot.
    near = [name for name in near if _alike(*_without_common_part(lower, name)) >= LEAST_ALIKE]
    if not near:
        return ""
    mirrored = next((other for other in _mirror_images(near[0]) if other in choices), None)
    if mirrored and _alike(lower, near[0]) - _alike(lower, mirrored) < SURE:
        return f'; did you mean "{choices[near[0]]}" or "{choices[mirrored]}"?'
    return f'; did you mean "{choices[near[0]]}"?'


def _without_common_part(word: str, name: str) -> tuple[str, str]:
    """Return two names without the common part up to the last dot.

    >>> _without_common_part("pad.sout", "pad.south"), _without_common_part("sout", "pad.south")
    (('sout', 'south'), ('sout', 'pad.south'))
    """
    (common, dot, end), (other, _, other_end) = word.rpartition("."), name.rpartition(".")
    return (end, other_end) if dot and common == other else (word, name)


def _mirror_images(name: str) -> Iterable[str]:
    for one, other in MIRRORED:
        if one in name:
            yield name.replace(one, other)
        elif other in name:
            yield name.replace(other, one)


def _alike(word: str, name: str) -> float:
    return SequenceMatcher(None, word, name).ratio()


def first_of(names: Sequence[str], shown: int) -> str:
    """Return the first of some names, and how many more there are.

    >>> first_of(["south", "east", "west"], 2), first_of(["south"], 2)
    ('south, east and 1 more', 'south')
    """
    more = len(names) - shown
    return f"{', '.join(names[:shown])} and {more} more" if more > 0 else ", ".join(names)
