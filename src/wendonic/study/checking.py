"""Finds faults of a profile by trying it, and reports only fixes that have been tried."""

from collections.abc import Callable
from functools import cached_property
from typing import NamedTuple

from wendonic.batch import Engine
from wendonic.errors import ProfileError, WendonicError
from wendonic.profile.field_path import dotted, path_parts
from wendonic.profile.inherited import inherited_from
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.study.finding import (
    Case,
    Changes,
    Finding,
    FindingKind,
    Found,
    as_in_file,
    changes_words,
    where_in_file,
)
from wendonic.study.findings import FINDINGS

Place = tuple[str, str]
"""A finding's slug and field path, which identify it."""

Progress = Callable[[str, int, int], None]
"""Called with what is being tried, how many of its kind are done, and how many there are."""


def check(
    profile: Profile, engine: Engine = "auto", prove: bool = True, progress: Progress | None = None
) -> list[Finding]:
    """Return every finding about a profile, faults before notices, in the order of the modes.

    A fix is applied to a copy, which is checked again, and is reported only if the finding is gone and no new one
    appears; without `prove` no fix is reported. `engine` is that of `wendonic.shape`. `progress` is called with what
    is being tried (each mode, then the fixes for each finding), how many are done, and how many there are.

    >>> from wendonic.demo import demo_profile
    >>> [finding.slug for finding in check(demo_profile("store_room"), prove=False)]
    ['diagonal-too-fast', 'opposites-do-not-cancel']
    >>> wild = demo_profile().changed({"mode.foot.look.bind[0].cm_per_turn": 2})
    >>> [finding.fix for finding in check(wild)]
    ['mode.foot.look.bind[0].cm_per_turn = 34.0']
    """
    tried_out = _TriedOut(known_profile(profile), engine)
    findings: list[Finding] = []
    first: dict[tuple[str, str], str] = {}
    everything = tried_out.everything(progress)
    for number, (kind, found) in enumerate(everything):
        if prove and progress is not None:
            progress(f"fixes for {kind.slug}", number, len(everything))
        # A finding about something that a mode inherits is reported once, by either path.
        if first.setdefault((kind.slug, _written_at(profile, found.where)), found.where) != found.where:
            continue
        changes, tried = _proven(tried_out, kind, found) if prove else ({}, "")
        advice = "; ".join(filter(None, [found.advice, tried]))
        where, why = where_in_file(profile, found.where), found.why or kind.why
        one = Finding(kind.slug, kind.severity, where, found.measured, why, changes, advice)
        if one not in findings:
            findings.append(one)
    return sorted(findings, key=lambda finding: finding.severity)


def _written_at(profile: Profile, where: str) -> str:
    """Return the path at which the file has an entry that a mode inherits; any other path as it is."""
    parts = path_parts(where)
    entry = next((place for place, part in enumerate(parts) if isinstance(part, int)), None)
    if parts[0] != "mode" or entry is None:
        return where
    modes = profile.written.get("mode", {})
    return dotted(["mode", inherited_from(modes, str(parts[1]), parts[2 : entry + 1]), *parts[2:]])


class Fixed(NamedTuple):
    """A profile with every proven fix in it, the fixes in the order in which they were made, and the remaining
    findings.
    """

    profile: Profile
    fixes: tuple[Finding, ...]
    left: tuple[Finding, ...]

    def __str__(self) -> str:
        """Return what was fixed and what remains, as `wendonic check --fix` prints it."""
        fixes = [f"fixed {finding.slug}: {finding.fix}" for finding in self.fixes] or ["nothing was fixed"]
        return "\n".join([*fixes, *map(str, self.left)])


MOST_FIXES = 100


def fixed(
    profile: Profile, only: tuple[str, ...] = (), engine: Engine = "auto", progress: Progress | None = None
) -> Fixed:
    """Return a profile with the fixes of all findings, or only those of the kinds in `only`. Each fix is proven on
    the profile that the fixes before it have left. `progress` is that of `check`.

    >>> from wendonic import profile_from_text
    >>> head = 'format = "wendonic-profile"\\nversion = 1\\n[[mode.seat.look.bind]]\\nmouse = "mouse.move"\\n'
    >>> done = fixed(profile_from_text(head + "cm_per_turn = 2\\n"))
    >>> done.profile.mode["seat"].look.bind[0].cm_per_turn, [one.slug for one in done.fixes], done.left
    (34.0, ['mouse-turn'], ())
    >>> print(done)
    fixed mouse-turn: mode.seat.look.bind[0].cm_per_turn = 34.0
    """
    made: list[Finding] = []
    while True:
        findings = check(profile, engine, progress=progress)
        ready = [one for one in findings if one.changes and (not only or one.slug in only)]
        if not ready or len(made) == MOST_FIXES:
            return Fixed(profile, tuple(made), tuple(findings))
        profile = profile.changed(ready[0].changes)
        made.append(ready[0])


class _TriedOut:
    """What each kind of finding finds in each mode of a profile, computed when it is first needed. Modes that are the
    same as in `like` are not tried again.
    """

    def __init__(self, profile: Profile, engine: Engine, like: "_TriedOut | None" = None) -> None:
        self.profile, self.engine = profile, engine
        self._cases = {mode: Case(profile, mode, engine) for mode in profile.mode}
        self._found: dict[tuple[str, str], list[Found]] = {}
        self._changed: dict[str, _TriedOut] = {}
        if like:
            same = {mode for mode in profile.mode if _seen_alike(profile, like.profile, mode)}
            kept = (place for place in like._found if place[1] in same and not FINDINGS[place[0]].once)
            self._found.update((place, like._found[place]) for place in kept)

    def changed(self, changes: Changes) -> "_TriedOut":
        """Return the profile with changes, each computed once: two modes with one gait need the same changes."""
        words = changes_words(changes)
        if words not in self._changed:
            self._changed[words] = _TriedOut(self.profile.changed(changes), self.engine, self)
        return self._changed[words]

    def of_kind(self, kind: FindingKind) -> list[tuple[FindingKind, Found]]:
        modes = [self.profile.first_mode] if kind.once else list(self.profile.mode)
        return [(kind, found) for mode in modes for found in self._in_mode(kind, mode)]

    def everything(self, progress: Progress | None = None) -> list[tuple[FindingKind, Found]]:
        gathered: list[tuple[FindingKind, Found]] = []
        for number, mode in enumerate(self.profile.mode):
            if progress is not None:
                progress(f"mode {mode}", number, len(self.profile.mode))
            for kind in FINDINGS.values():
                if mode == self.profile.first_mode or not kind.once:
                    gathered += [(kind, found) for found in self._in_mode(kind, mode)]
        return gathered

    def _in_mode(self, kind: FindingKind, mode: str) -> list[Found]:
        place = kind.slug, mode
        if place not in self._found:
            self._found[place] = list(kind.look(self._cases[mode]))
        return self._found[place]

    @cached_property
    def all_places(self) -> set[Place]:
        return self.places(self.everything())

    def places(self, found: list[tuple[FindingKind, Found]]) -> set[Place]:
        return {(kind.slug, where_in_file(self.profile, one.where)) for kind, one in found}


def _seen_alike(one: Profile, other: Profile, mode: str) -> bool:
    """Return whether two profiles agree in everything that the findings of a mode can depend on."""
    if mode not in other.mode or one.mode[mode] != other.mode[mode] or one.gaits_of(mode) != other.gaits_of(mode):
        return False
    exits = [{name: table.leave_to for name, table in profile.mode.items()} for profile in (one, other)]
    rest = [field for field in Profile.model_fields if field not in ("mode", "gait")]
    return exits[0] == exits[1] and all(getattr(one, field) == getattr(other, field) for field in rest)


def _proven(tried_out: _TriedOut, kind: FindingKind, found: Found) -> tuple[Changes, str]:
    """Return the first fix that works, or else what was tried, in words."""
    profile = tried_out.profile
    tried: list[str] = []
    (place,) = tried_out.places([(kind, found)])
    for fix in found.fixes:
        changes = as_in_file(profile, fix)
        try:
            changed = tried_out.changed(changes)
            # All other kinds are checked only once the finding itself is gone.
            stays = place in changed.places(changed.of_kind(kind))
            new = set() if stays else changed.places(changed.everything()) - tried_out.all_places
        except (ProfileError, WendonicError) as refused:
            tried.append(f"{changes_words(changes)} is refused: {str(refused).splitlines()[-1].strip()}")
            continue
        if not stays and not new:
            return changes, ""
        others = ", ".join(sorted({slug for slug, _ in new}))
        tried.append(f"tried {changes_words(changes)}: {'it is still there' if stays else f'then there is {others}'}")
    return {}, "; ".join(tried)
