"""One thing that `check` says is wrong, and the kinds of it."""

import re
from collections.abc import Callable, Iterator
from functools import cached_property
from typing import Literal, NamedTuple

from wendonic.profile.edit import path_parts
from wendonic.profile.faults import dotted
from wendonic.profile.schema.profile import Profile
from wendonic.profile.units import as_written, metre_name
from wendonic.study.bench import Bench
from wendonic.study.feel_sheet import sheet_of
from wendonic.study.quantity import Value

Severity = Literal["fault", "notice"]


class Finding(NamedTuple):
    """A slug that names its kind, how severe it is, the field path, what was measured, why a player would feel it,
    and the fix as a line of TOML.
    """

    slug: str
    severity: Severity
    where: str
    measured: str
    why: str
    fix: str

    def __str__(self) -> str:
        """Give it on four lines, as a person reads it."""
        return f"{self.severity}: {self.slug}, {self.where}\n  {self.measured}\n  {self.why}\n  fix: {self.fix}"


class Found(NamedTuple):
    """What a kind of finding found: field path, what was measured, the fix, and why, where it is not as usual."""

    where: str
    measured: str
    fix: str
    why: str = ""


class Case(Bench):
    """One mode of a profile that is checked."""

    @cached_property
    def _measured(self) -> dict[str, Value]:
        return {}

    def value(self, quantity: str) -> Value:
        """Return a quantity of the mode, measured when it is first asked for; None where it has no value."""
        if quantity not in self._measured:
            self._measured[quantity] = sheet_of(self, [quantity])[quantity]
        return self._measured[quantity]

    @property
    def where(self) -> str:
        """The field path of the mode."""
        return f"mode.{self.mode}"


def as_in_file(profile: Profile, where: str, fix: str) -> tuple[str, str]:
    """Return a field path and its fix as the profile's file spells them: in the game's own unit where that does.

    >>> from wendonic.demo import demo_profile
    >>> as_in_file(demo_profile(), "gait.walk.brake_m_s2", "brake_m_s2 = 40")
    ('gait.walk.brake_m_s2', 'brake_m_s2 = 40')
    """
    if not profile.written:
        return where, fix
    path, units = as_written(profile.written, path_parts(where))
    said = re.fullmatch(r"(\w+) = (-?[\d.]+)", fix)
    if units != 1.0 and said and metre_name(str(path[-1])) == said[1]:
        fix = f"{path[-1]} = {float(said[2]) * units:g}"
    return dotted(path), fix


Look = Callable[[Case], Iterator[Found]]


class FindingKind(NamedTuple):
    """A kind of finding; `place` says where in a report, `why` why a player would feel it, `once` that it is about
    the whole profile and is looked for in its first mode only.
    """

    slug: str
    severity: Severity
    place: int
    why: str
    once: bool
    look: Look

    def findings(self, case: Case) -> Iterator[Finding]:
        """Give what is found in a mode."""
        for found in self.look(case):
            where, fix = as_in_file(case.profile, found.where, found.fix)
            yield Finding(self.slug, self.severity, where, found.measured, found.why or self.why, fix)


_REGISTERED: dict[str, FindingKind] = {}


def finding(place: int, severity: Severity, why: str, once: bool = False) -> Callable[[Look], Look]:
    """Return a decorator that makes a function a kind of finding, called as it is, with dashes."""

    def register(look: Look) -> Look:
        slug = look.__name__.replace("_", "-")
        _REGISTERED[slug] = FindingKind(slug, severity, place, why, once, look)
        return look

    return register


def registered() -> dict[str, FindingKind]:
    """Return every kind of finding that has been imported, in the order of a report."""
    return {kind.slug: kind for kind in sorted(_REGISTERED.values(), key=lambda kind: (kind.place, kind.slug))}
