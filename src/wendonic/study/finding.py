"""Findings, and the kinds of finding that `check` looks for."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import suppress
from functools import cached_property
from typing import Any, Literal, NamedTuple

import tomlkit

from wendonic.errors import WendonicError
from wendonic.profile.edit_text import inlined
from wendonic.profile.field_path import dotted, path_parts
from wendonic.profile.schema.gait import Gait
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.steer.sprite import Faced
from wendonic.profile.units import as_written
from wendonic.study.bench import Bench
from wendonic.study.envelope import Envelope, envelopes
from wendonic.study.feel_sheet import sheet_of
from wendonic.study.quantity import Value

Severity = Literal["fault", "notice"]
Changes = Mapping[str, Any]
"""Values by field path; None removes a field, so that its default counts again."""


class Finding(NamedTuple):
    """The slug of its kind, its severity, the field path, what was measured, and why a player feels it.

    `changes` is a proven fix: applied to a copy of the profile it removed the finding and caused no new one; empty if
    there is none. `advice` says what else can be done, and which fixes were tried without success.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study import check
    >>> found, *_ = check(demo_profile().changed({"mode.foot.move.diagonal": "free"}))
    >>> found.severity, found.where, found.fix
    ('fault', 'mode.foot.move.diagonal', 'mode.foot.move.diagonal = "cap"')
    """

    slug: str
    severity: Severity
    where: str
    measured: str
    why: str
    changes: Changes
    advice: str = ""

    @property
    def fix(self) -> str:
        """The fix as TOML, "" without one."""
        return changes_words(self.changes)

    def __repr__(self) -> str:
        """Return the slug and what was measured."""
        return f"<Finding {self.severity}: {self.slug}, {self.where}: {self.measured}>"

    def __str__(self) -> str:
        """Return it as a few lines of text."""
        lines = [f"{self.severity}: {self.slug}, {self.where}", f"  {self.measured}", f"  {self.why}"]
        lines += [f"  fix: {self.fix}"] if self.changes else []
        lines += [f"  advice: {self.advice}"] if self.advice else []
        return "\n".join(lines)


def changes_words(changes: Changes) -> str:
    """Return changes as TOML, by their whole field paths.

    >>> changes_words({"mode.foot.move.diagonal": "cap", "mode.foot.move.diagonal_factor": None})
    'mode.foot.move.diagonal = "cap", and mode.foot.move.diagonal_factor removed'
    """
    words = [
        f"{path} removed" if value is None else f"{path} = {tomlkit.item(inlined(value)).as_string()}"
        for path, value in changes.items()
    ]
    return ", and ".join(words)


class Found(NamedTuple):
    """What a kind of finding found: field path, what was measured, fixes to try, best first, what else can be done,
    and the reason if it differs from that of its kind.
    """

    where: str
    measured: str
    fixes: Sequence[Changes] = ()
    advice: str = ""
    why: str = ""


class Case(Bench):
    """One mode of a profile that is checked."""

    def value(self, quantity: str) -> Value:
        """Return a quantity of the mode, measured on first use; None where it has no value."""
        return sheet_of(self, [quantity])[quantity]

    @cached_property
    def envelopes(self) -> list[Envelope]:
        """What each source of `move` requests at 16 headings, see `wendonic.study.envelope`."""
        return envelopes(self.profile, self.mode, steps=16)

    def glides(self, gait: Gait) -> bool:
        """Return whether a gait may roll out: it belongs to a vehicle, a flyer or a body that the channel `turn`
        turns, such as a ship, and only drag or coasting slows it.
        """
        turned = isinstance(self.table.steer, Faced) and self.table.steer.face == "turn"
        return self.table.steer.glides or (turned and (gait.drag_per_s or gait.coast_half_life_s) is not None)

    @property
    def where(self) -> str:
        """The field path of the mode."""
        return f"mode.{self.mode}"

    def entries(self, *channels: str) -> Iterator[tuple[str, Any]]:
        """Give the `bind` entries of channels, each with its field path."""
        for channel in channels:
            table = getattr(self.table, channel)
            for index, bind in enumerate(table.bind if table else ()):
                yield f"{self.where}.{channel}.bind[{index}]", bind

    @cached_property
    def gaits(self) -> list[tuple[str, Gait, "Case"]]:
        """Every gait that can be reached in the mode: its name, its numbers, and the mode while its press is held."""
        if not self.moves_body or self.on_squares:
            return []
        numbers = self.profile.gaits_of(self.mode)
        found = [(self.table.gait, numbers[self.table.gait], self)] if self.table.gait != "none" else []
        for press, name in self.table.press_gaits.items():
            # A press that cannot be held is a finding of its own.
            with suppress(WendonicError):
                found.append((name, numbers[name], Case(self.profile, self.mode, self.engine, held=press)))
        return found

    @cached_property
    def _content(self) -> dict[str, Any]:
        return self.profile.file_content()

    def says(self, path: str) -> bool:
        """Return whether the profile's file has a field."""
        content: Any = self._content
        for part in as_written(content, path_parts(path))[0]:
            try:
                content = content[part]
            except (KeyError, IndexError, TypeError):
                return False
        return True

    def out(self, *paths: str) -> dict[str, Any]:
        """Return changes that remove those of some fields that the file has."""
        return {path: None for path in paths if self.says(path)}


def as_in_file(profile: Profile, changes: Changes) -> dict[str, Any]:
    """Return changes as the profile's file spells them: in the game's own unit where the file uses it.

    >>> from wendonic.demo import demo_profile
    >>> as_in_file(demo_profile(), {"gait.walk.brake_m_s2": 40})
    {'gait.walk.brake_m_s2': 40}
    """
    spelled: dict[str, Any] = {}
    for path, value in changes.items():
        written, units = as_written(profile.written, path_parts(path)) if profile.written else (path_parts(path), 1.0)
        own = float(f"{value * units:.6g}") if units != 1.0 and isinstance(value, int | float) else value
        spelled[dotted(written)] = own
    return spelled


def where_in_file(profile: Profile, where: str) -> str:
    """Return a field path as the profile's file spells it."""
    return dotted(as_written(profile.written, path_parts(where))[0]) if profile.written else where


Look = Callable[[Case], Iterator[Found]]


class FindingKind(NamedTuple):
    """A kind of finding; `place` is its position in a report, `why` says why a player would feel it, and `once` that
    it concerns the whole profile and is looked for in the first mode only.
    """

    slug: str
    severity: Severity
    place: int
    why: str
    once: bool
    look: Look


_REGISTERED: dict[str, FindingKind] = {}


def finding(place: int, severity: Severity, why: str, once: bool = False) -> Callable[[Look], Look]:
    """Return a decorator that makes a function a kind of finding, named like the function with dashes."""

    def register(look: Look) -> Look:
        slug = look.__name__.replace("_", "-")
        _REGISTERED[slug] = FindingKind(slug, severity, place, why, once, look)
        return look

    return register


def registered() -> dict[str, FindingKind]:
    """Return every kind of finding that has been imported, in the order of a report."""
    return {kind.slug: kind for kind in sorted(_REGISTERED.values(), key=lambda kind: (kind.place, kind.slug))}
