"""What is wrong with a profile, found by trying it, and fixes that were tried before they are reported."""

from typing import NamedTuple

from wendonic.batch import Engine
from wendonic.errors import ProfileError, WendonicError
from wendonic.profile.edit import edited
from wendonic.profile.load import profile_from_text
from wendonic.profile.schema.profile import Profile
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
"""A finding's slug and field path: two of the same are the same finding."""


def check(profile: Profile, engine: Engine = "auto", prove: bool = True) -> list[Finding]:
    """Return every finding about a profile, faults before notices, in the order of the modes.

    A fix is applied to a copy, which is checked again, and is reported only if the finding is gone and no other has
    come; without `prove` no fix is reported. `engine` is that of `wendonic.shape`.

    >>> from wendonic.demo import demo_profile
    >>> [finding.slug for finding in check(demo_profile("store_room"), prove=False)]
    ['diagonal-too-fast', 'opposites-do-not-cancel']
    >>> wild = demo_profile().changed({"mode.foot.look.bind[0].cm_per_turn": 2})
    >>> [finding.fix for finding in check(wild)]
    ['mode.foot.look.bind[0].cm_per_turn = 34.0']
    """
    raw = _raw(profile, engine)
    before = {_place(profile, kind, found) for kind, found in raw}
    findings = []
    for kind, found in raw:
        changes, tried = _proven(profile, kind, found, before, engine) if prove else ({}, "")
        advice = "; ".join(filter(None, [found.advice, tried]))
        where, why = where_in_file(profile, found.where), found.why or kind.why
        findings.append(Finding(kind.slug, kind.severity, where, found.measured, why, changes, advice))
    return sorted(findings, key=lambda finding: finding.severity)


class Fixed(NamedTuple):
    """A profile's text with every proven fix in it, the fixes in the order in which they were made, and what is still
    found.
    """

    text: str
    fixes: tuple[Finding, ...]
    left: tuple[Finding, ...]


MOST_FIXES = 100


def fixed(text: str, only: tuple[str, ...] = (), engine: Engine = "auto") -> Fixed:
    """Return a profile's text with the fixes of findings in it, each proven on what the ones before it left; comments
    and order stay. With `only`, those of findings of some kinds.

    Raises `ProfileError` for a text with faults.

    >>> head = 'format = "wendonic-profile"\\nversion = 1\\n[[mode.seat.look.bind]]\\nmouse = "mouse.move"\\n'
    >>> done = fixed(head + "cm_per_turn = 2  # wild\\n")
    >>> done.text.splitlines()[-1], [one.slug for one in done.fixes], done.left
    ('cm_per_turn = 34.0 # wild', ['mouse-turn'], ())
    """
    made: list[Finding] = []
    while True:
        findings = check(profile_from_text(text), engine)
        ready = [one for one in findings if one.changes and (not only or one.slug in only)]
        if not ready or len(made) == MOST_FIXES:
            return Fixed(text, tuple(made), tuple(findings))
        text = edited(text, ready[0].changes)
        made.append(ready[0])


def _raw(profile: Profile, engine: Engine) -> list[tuple[FindingKind, Found]]:
    raw: list[tuple[FindingKind, Found]] = []
    for mode in profile.mode:
        case = Case(profile, mode, engine)
        for kind in FINDINGS.values():
            if mode == profile.first_mode or not kind.once:
                raw += [(kind, found) for found in kind.look(case)]
    return raw


def _place(profile: Profile, kind: FindingKind, found: Found) -> Place:
    return kind.slug, where_in_file(profile, found.where)


def _proven(
    profile: Profile, kind: FindingKind, found: Found, before: set[Place], engine: Engine
) -> tuple[Changes, str]:
    """Return the first fix that works, and in words what was tried where none does."""
    tried: list[str] = []
    place = _place(profile, kind, found)
    for fix in found.fixes:
        changes = as_in_file(profile, fix)
        try:
            changed = profile.changed(changes)
            after = {_place(changed, *one) for one in _raw(changed, engine)}
        except (ProfileError, WendonicError) as refused:
            tried.append(f"{changes_words(changes)} is refused: {str(refused).splitlines()[-1].strip()}")
            continue
        if place not in after and not after - before:
            return changes, ""
        others = ", ".join(sorted({slug for slug, _ in after - before}))
        left = "it is still there" if place in after else f"then there is {others}"
        tried.append(f"tried {changes_words(changes)}: {left}")
    return {}, "; ".join(tried)
