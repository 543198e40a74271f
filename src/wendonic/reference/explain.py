"""Looks a word up everywhere: fields and their values, controls, quantities, findings, trace columns, Wendonic's own
words, and trade words.
"""

from collections.abc import Iterator
from typing import NamedTuple

from wendonic.batch.column_words import COLUMNS, column_words
from wendonic.course.course import Course
from wendonic.devices.controls import CONTROLS
from wendonic.devices.other_names import control_meant, key_meant
from wendonic.errors import WendonicError, did_you_mean
from wendonic.profile.schema.field_words import UNITS
from wendonic.profile.schema.profile import Profile
from wendonic.profile.trade_words import FIELDS_MEANT, TRADE_WORDS, plain, trade_word
from wendonic.reference.controls import control_line
from wendonic.reference.find_fields import FoundFields, known_fields
from wendonic.reference.formulas import formulas_of
from wendonic.reference.own_words import OWN_WORDS, own_word
from wendonic.reference.tables import groups_of
from wendonic.study.findings import FINDINGS
from wendonic.study.quantities import QUANTITIES
from wendonic.study.solve.differences import DIFFERENCES, WALKED
from wendonic.study.solve.differences import UNITS as UNITS_COMPARED


class Explained(NamedTuple):
    """One thing with a name: its kind, its name, and its description."""

    kind: str
    name: str
    says: str


class Explanation(NamedTuple):
    """Everything that a word stands for: single things, and the fields and tables of files."""

    things: tuple[Explained, ...]
    fields: FoundFields


NO_FIELDS = FoundFields((), ())


def explain(word: str) -> Explanation:
    """Return everything that has this name: a field or its path, a value of a field, a control or a key, a quantity,
    a finding, a trace column, one of Wendonic's own words, or a trade word with what it stands for.

    Of an unknown phrase, the longest known part counts: "sprint" of "hold to sprint". Raises `WendonicError` for an
    unknown name, with the nearest spelling.

    >>> for thing in explain("coyote time").things:
    ...     print(thing.kind, thing.name, thing.says, sep=" | ")
    word of the trade | coyote time | How long after leaving the ground a jump still counts.
    quantity | jump_grace_s | how long after leaving the ground a press still counts, air jumps excluded (s)
    finding | grace-long | notice: Players visibly jump from thin air.
    >>> [one.field.name for one in explain("coyote time").fields.fields]
    ['grace_s']
    >>> explain("hold to sprint").things[0].name
    'sprint'
    """
    things = list(_things(word))
    groups, fields = _fields(word)
    meant = [found for found in (own_word(word), trade_word(word)) if found is not None]
    paths = [path for found in meant for path in found.fields]
    if not (groups or fields or any(thing.kind != "quantity" for thing in things)):
        paths = list(_BY_STEM.get(_squashed(word)) or FIELDS_MEANT.get(plain(word).replace(" ", "_"), ()))
        part_of = [name for name in TRADE_WORDS if f" {plain(word)} " in f" {plain(name)} "]
        if len(part_of) == 1 and not things and set(paths) <= set(TRADE_WORDS[part_of[0]].fields):
            return explain(part_of[0])
    for path in paths:
        more_groups, more_fields = _fields(path)
        groups += tuple(group for group in more_groups if group not in groups)
        fields += tuple(field for field in more_fields if field not in fields)
    for name in (name for found in meant for name in found.see):
        things += [thing for thing in _things(name) if thing not in things]
        if name.startswith("wendonic "):
            things.append(Explained("command", name, f"see: {name} --help"))
    if not (things or groups or fields):
        # Among so many words, some are slightly similar to anything.
        guess = did_you_mean(word, known_words(), control_meant(word) or key_meant(word), alike=0.7)
        part = _part_that_is_known(word)
        if part is not None and (not guess or " " in part or f'"{part}"' in guess):
            return explain(part)
        raise WendonicError(f'nothing is called "{word}"{guess or "."} All fields: wendonic fields')
    return Explanation(tuple(things), FoundFields(groups, fields))


def _part_that_is_known(word: str) -> str | None:
    """Return the longest known part of a phrase, "sprint" of "hold to sprint"; for a single word, the only longer
    word that begins with it, "swimming" for "swim".
    """
    parts = plain(word).split()
    if len(parts) == 1 and len(parts[0]) >= 4:
        longer = [name for name in TRADE_WORDS if " " not in name and plain(name).startswith(parts[0])]
        return longer[0] if len(longer) == 1 else None
    phrases = (
        " ".join(parts[start : start + length])
        for length in range(len(parts) - 1, 0, -1)
        for start in range(len(parts) - length + 1)
    )
    known = (phrase for phrase in phrases if own_word(phrase) or trade_word(phrase) or _is_field(phrase))
    return next(known, None)


def _is_field(phrase: str) -> bool:
    """Return whether several words are the name of a field; a single word is too vague."""
    return " " in phrase and _squashed(phrase) in _SQUASHED


def _fields(path: str) -> FoundFields:
    for spelled in (path, _SQUASHED.get(_squashed(path)), plain(path)):
        found = known_fields(spelled) if spelled is not None else None
        if found is not None:
            return found
    return NO_FIELDS


def _things(word: str) -> Iterator[Explained]:
    own = own_word(word)
    if own is not None:
        yield Explained("word of Wendonic", word, own.means)
    trade = trade_word(word)
    if trade is not None:
        yield Explained("word of the trade", word, trade.means)
    name = word.strip().lower().replace(" ", "_").replace("-", "_")
    for one in QUANTITIES.values():
        if _squashed(word) in (_squashed(one.name), _squashed(_stem(one.name))):
            yield Explained("quantity", one.name, f"{one.definition} ({one.unit or 'ratio'})")
    slug = name.replace("_", "-")
    if slug in FINDINGS:
        kind = FINDINGS[slug]
        yield Explained("finding", slug, f"{kind.severity}: {kind.why}")
    line = control_line(word)
    if line is not None:
        yield Explained("control", word, f"{line[1].what}; {line[1].values}")
    yield from _held_words(word)
    column = column_words(word)
    if column is not None:
        unit = f" ({column.unit})" if column.unit else ""
        yield Explained("trace column", word, f"{column.what}{unit}")
    for found, against in ((WALKED, ""), (DIFFERENCES, ", against the first profile")):
        if name in found:
            yield Explained("number of a comparison", name, f"{found[name]}{against} ({UNITS_COMPARED[name]})")
    for formula in formulas_of(name) or formulas_of(word):
        yield Explained("formula", formula.of, formula.says)


def _held_words(word: str) -> Iterator[Explained]:
    """Yield what a word means as the value of a field, once for each field with that meaning."""
    seen = set()
    for group in (*groups_of(Profile), *groups_of(Course)):
        for table in group.tables:
            for field in table.fields:
                for name, meaning in field.words:
                    if name == word and (field.name, meaning) not in seen:
                        seen.add((field.name, meaning))
                        yield Explained("word", f'{field.name} = "{name}"', meaning)


def _squashed(word: str) -> str:
    return word.lower().translate({ord(sign): None for sign in " _-"})


_NAMES = tuple(
    dict.fromkeys(
        field.name
        for root in (Profile, Course)
        for group in groups_of(root)
        for table in group.tables
        for field in table.fields
    )
)

_SQUASHED = {_squashed(name): name for name in _NAMES}
"""Fields by their names without separators."""


_ENDS = ("_m_per_min", "_per_min", *UNITS)
"""Units at the end of names: those that only quantities have, and those of fields."""


def _stem(name: str) -> str:
    """Return a name without its unit: `step` of `step_m`."""
    return name.removesuffix(next((end for end in _ENDS if name.endswith(end)), ""))


_BY_STEM: dict[str, list[str]] = {}
"""Fields by their names without the unit."""
for _name in _NAMES:
    if _stem(_name) != _name:
        _BY_STEM.setdefault(_squashed(_stem(_name)), []).append(_name)


def known_words() -> list[str]:
    """Return every word that can be explained."""
    tables = [table for root in (Profile, Course) for group in groups_of(root) for table in group.tables]
    fields = [field for table in tables for field in table.fields]
    words = [name for field in fields for name, _ in field.words]
    names = [
        *(field.name for field in fields),
        *words,
        *QUANTITIES,
        *FINDINGS,
        *OWN_WORDS,
        *TRADE_WORDS,
        *COLUMNS,
        *WALKED,
        *DIFFERENCES,
        *CONTROLS,
    ]
    return list(dict.fromkeys(names))
