"""pydantic's errors in the words of a profile: where, what was found, what is allowed, the nearest spelling."""

import functools
import re
from collections.abc import Callable, Iterator, Sequence
from typing import Annotated, Any, Literal, get_args, get_origin

from pydantic import ValidationError
from pydantic.fields import FieldInfo
from pydantic_core import ErrorDetails

from wendonic.devices.controls import CONTROLS
from wendonic.devices.other_names import key_meant
from wendonic.errors import Fault, did_you_mean, first_of
from wendonic.profile.error_place import (
    alternatives_at,
    alternatives_with,
    field_path_at,
    kind_at,
    part_of,
    path_along,
    table_around,
    without_marks,
)
from wendonic.profile.field_limits import field_limits
from wendonic.profile.field_lines import field_line
from wendonic.profile.field_path import dotted
from wendonic.profile.inherited import likes, with_inherited
from wendonic.profile.put_right import hidden_errors, own_lines, path_meant, without_references
from wendonic.profile.references import unknown_references
from wendonic.profile.schema.axis_channels import Rise, Throttle, Turn
from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.budget import quantity_names
from wendonic.profile.schema.field_words import field_words, kind_words, range_words
from wendonic.profile.schema.goal import GoalTable
from wendonic.profile.schema.inner_tables import tables_with
from wendonic.profile.schema.look import LookTable
from wendonic.profile.schema.move import Move
from wendonic.profile.schema.table import OWN_FAULTS, OWN_WORDS, Choice, Table, fields_of_others
from wendonic.profile.trade_words import field_meant
from wendonic.profile.units import (
    as_written,
    in_metres,
    metre_name,
    own_unit,
    unit_name,
    unit_name_of,
    words_as_written,
)

_WORDS_OF_TYPES = {
    "string_type": "a string",
    "float_type": "a number",
    "int_type": "a whole number",
    "tuple_type": "a list",
    "dict_type": "a table",
    "model_type": "a table",
    "model_attributes_type": "a table",
    "finite_number": "a finite number",
}


def table_faults(root: type[Table], error: ValidationError, content: dict[str, Any], text: str) -> list[Fault]:
    """Return every fault of the `content` of `text`, as a profile or another `root`, line by line."""
    named = unknown_references(with_inherited(in_metres(content))) if root.refers_by_name else []
    places = [(path_along(content, [], where), what) for where, what in named]
    faults = [Fault(field_line(text, path), dotted(path), what) for path, what in places]
    # Unknown names have been found above, whatever else is wrong.
    first = [one for one in error.errors() if one["type"] != OWN_FAULTS or one["loc"]]
    first += [without_references(one, named) for one in error.errors() if one not in first]
    faults += _faults_of(root, first, content, text)
    taken_out, by_example = (
        _faults_of(root, errors, content, text) for errors in hidden_errors(root, content, first)
    )
    either_way = set(map(_but_for_places, taken_out)) - set(map(_but_for_places, faults))
    faults += [fault for fault in by_example if _but_for_places(fault) in either_way]
    if root.refers_by_name:
        faults = _where_said(faults, content)
    return sorted(dict.fromkeys(faults), key=lambda fault: (fault.line is None, fault.line or 0))


def _but_for_places(fault: Fault) -> str:
    """Return what is wrong without indices in lists, which change when an entry is removed."""
    return re.sub(r"\[\d+\]", "[]", f"{fault.where}: {fault.what}")


def _faults_of(
    root: type[Table], errors: Sequence[ErrorDetails], content: dict[str, Any], text: str
) -> Iterator[Fault]:
    misspelt = [path_meant(root, one["loc"]) for one in errors if one["type"] == "extra_forbidden"]
    for detail in errors:
        path = field_path_at(root, detail["loc"])
        if detail["type"] == "missing" and path in misspelt:
            continue
        if detail["type"] == OWN_FAULTS:
            for where, what in own_lines(detail):
                full, _ = as_written(content, path_along(content, path, where))
                yield Fault(field_line(text, full), dotted(full), words_as_written(content, full, what))
            continue
        if detail["type"] == "too_short" and detail["input"]:
            # pydantic counts only valid entries; each invalid one is reported separately.
            continue
        if detail["type"] == "union_tag_invalid":
            path.append("frame" if path[-1] == "steer" else "form")
        path, units = as_written(content, path)
        what = _what(root, detail, units, own_unit(content)) + _press_of_that_name(content, path, detail)
        yield Fault(field_line(text, path), dotted(path), what)


def _press_of_that_name(content: Any, path: Sequence[str | int], detail: ErrorDetails) -> str:
    """Return what to write instead of a press where a control is expected, "" if no press has that name."""
    name = detail["input"]
    if detail["type"] != OWN_WORDS or path[:1] != ["mode"] or len(path) < 3 or not isinstance(name, str):
        return ""
    binds = with_inherited(content)
    for part in ("mode", path[1], "press", name, "bind"):
        binds = part_of(binds, part)
    controls = ", ".join(f'"{one}"' for one in binds if isinstance(one, str)) if isinstance(binds, list) else ""
    return f"; {name} is a press; name its controls: {controls}" if controls else ""


def _where_said(faults: list[Fault], content: dict[str, Any]) -> list[Fault]:
    """Return the faults without those that a mode with `like` inherits, and without missing fields if its `like`
    names no mode.
    """
    modes: Any = content.get("mode")
    if not isinstance(modes, dict):
        return faults
    found = {(fault.where, fault.what) for fault in faults}
    begun = {f"mode.{name}.": likes(modes, name) for name in modes}

    def follows(fault: Fault, start: str, others: list[str]) -> bool:
        rest = fault.where.removeprefix(start)
        if rest == fault.where or not others:
            return False
        lacks = fault.what.startswith("is missing") and others[-1] not in modes
        return lacks or any(
            f"mode.{other}." != start and (f"mode.{other}.{rest}", fault.what) in found for other in others
        )

    return [fault for fault in faults if not any(follows(fault, *mode) for mode in begun.items())]


def _what(root: type[Table], detail: ErrorDetails, units: float, unit: str) -> str:
    """Return what is wrong, with numbers as they were written; `units` of the file's own `unit` are a metre."""
    kind = detail["type"]
    found: Any = detail["input"]
    if slip := _unit_spelled_out(root, detail["loc"], unit):
        return slip
    if units != 1.0 and isinstance(found, int | float):
        detail["input"] = found * units
    if kind == "extra_forbidden":
        name = str(detail["loc"][-1])
        unknown = unit_name(name) if units != 1.0 else name
        return _unknown_key(unknown, root, detail["loc"])
    if kind in _LIMITS:
        return f"found {_shown(detail['input'])}; allowed: {_range(root, detail['loc'], units)}"
    if kind in _WORDS:
        return _WORDS[kind](root, detail)
    allowed = _WORDS_OF_TYPES.get(kind)
    if allowed in ("a list", "a table"):
        return f"found {_shown(found)}; {_as_meant(root, detail, allowed)}"
    if kind in ("string_type", "float_type"):
        allowed = _named(root, detail["loc"]) if kind == "string_type" else allowed
        allowed = ", ".join(filter(None, (allowed, _as_described(root, detail, units))))
    return f"found {_shown(detail['input'])}; {f'allowed: {allowed}' if allowed else detail['msg']}"


def _unit_spelled_out(root: type[Table], loc: Sequence[str | int], unit: str) -> str:
    """Return what to write for a key that contains the name of the file's own unit; "" if that is not the fault."""
    *above, name = field_path_at(root, loc)
    own = unit_name_of(str(name), unit)
    known = quantity_names() if above == ["budget"] else list(table_around(root, loc).model_fields)
    if own == name or metre_name(own) not in known:
        return ""
    return f'unknown key; did you mean "{own}"? _u stands for the file\'s own unit, whatever it is called'


def _as_meant(root: type[Table], detail: ErrorDetails, allowed: str) -> str:
    """Return how to write a list or a table that was written as something else."""
    found: Any = detail["input"]
    name = next((str(part) for part in reversed(detail["loc"]) if isinstance(part, str)), "")
    if allowed == "a list":
        if isinstance(found, dict) and name == "bind":
            header = dotted(field_path_at(root, detail["loc"]))
            return f"allowed: a list of tables, each under its own header in double brackets: [[{header}]]"
        words = _words_in(kind_at(root, detail["loc"]))
        if words and found not in words:
            return f"allowed: a list of {' and '.join(map(_shown, words))}"
        example = _example(root, detail["loc"])
        if isinstance(found, str) and _holds_keys(kind_at(root, detail["loc"])):
            code = found if f"key.{found}" in CONTROLS else key_meant(found)
            return f"allowed: a list, such as {f'[{_shown(code)}]' if code else example}"
        if isinstance(found, str | int | float):
            return f"allowed: a list, such as [{_shown(found)}]"
        return f"allowed: a list, such as {example}" if example else "allowed: a list"
    table = table_around(root, detail["loc"])
    field = table.model_fields.get(name)
    if field is None and isinstance(found, str | list):
        # A table under a user's own name: its first required field gets the written value.
        kind = kind_at(root, detail["loc"])
        needed = [own for own, info in getattr(kind, "model_fields", {}).items() if info.is_required()]
        if needed:
            listed = found if isinstance(found, list) else [found]
            return f"allowed: a table, such as {{ {needed[0]} = [{', '.join(map(_shown, listed))}] }}"
    alternatives = alternatives_at(root, detail["loc"])
    if found in alternatives:
        return f'allowed: a table, such as {{ {"frame" if name == "steer" else "form"} = "{found}" }}'
    if isinstance(found, int | float) and not isinstance(found, bool):
        numbers = _around_number(kind_at(root, detail["loc"]), found)
        if numbers:
            return f"allowed: a table, such as {{ {numbers} }}"
    example = _example(root, detail["loc"])
    return f"allowed: a table, such as {example}" if len(example) > 2 else "allowed: a table"


def _words_in(kind: Any) -> tuple[str, ...]:
    """Return the words that a list may contain; none if it contains something else."""
    kind = without_marks(kind)
    (of, *_) = get_args(kind) or (None,)
    return get_args(of) if get_origin(of) is Literal else ()


def _as_described(root: type[Table], detail: ErrorDetails, units: float) -> str:
    """Return the range of the expected number, or an example of the string; "" if the schema does not describe it."""
    if detail["type"] == "float_type":
        return _range(root, detail["loc"], units)
    example = _example(root, detail["loc"])
    return f"such as {example}" if example else ""


def _named(root: type[Table], loc: Sequence[str | int]) -> str:
    """Return what a string at `loc` names."""
    field = table_around(root, loc).model_fields.get(str(loc[-1]))
    words = kind_words(str, *field.metadata) if field else kind_words(kind_at(root, loc))
    if words in ("string", "table", "one word"):
        return "a string"
    # Other names are defined in the same file.
    added = " ([window.zone.NAME] adds one)" if words == "zone" else ""
    return f"the name of {'an' if words[0] in 'aeiou' else 'a'} {words}{added}"


def _tables_of(kind: Any) -> list[type[Table]]:
    """Return the tables that the schema allows at a place."""
    kind = without_marks(kind)
    parts = (kind, *get_args(kind))
    bare = [get_args(part)[0] if get_origin(part) is Annotated else part for part in parts]
    return [part for part in bare if isinstance(part, type) and issubclass(part, Table)]


def _around_number(kind: Any, found: float) -> str:
    """Return a table for a number that was written in its place; "" if a number is not enough for the table."""
    tables = _tables_of(kind)
    shared = set.intersection(*(set(table.model_fields) for table in tables)) if len(tables) > 1 else set()
    for table in tables:
        fields = {name: field for name, field in table.model_fields.items() if name not in shared}
        words = {name: field for name, field in table.model_fields.items() if name == "form" and len(tables) > 1}
        needed = [name for name, field in table.model_fields.items() if field.is_required() and name not in words]
        numbers = [name for name, field in fields.items() if "number" in kind_words(field.annotation)]
        # A single number for two limits means the upper one.
        numbers.sort(key=lambda name: name != "max")
        if numbers and not set(needed) - {numbers[0]} and _within_limits(table.model_fields[numbers[0]], found):
            form = "".join(f'form = "{get_args(field.annotation)[0]}", ' for field in words.values())
            return f"{form}{numbers[0]} = {found}"
    return ""


def _within_limits(field: FieldInfo, found: float) -> bool:
    low, high = field_limits(field)
    return low <= found <= high


def _example(root: type[Table], loc: Sequence[str | int]) -> str:
    """Return the schema's example for a field; "" for none."""
    name = next((str(part) for part in reversed(loc) if isinstance(part, str)), "")
    return next((words.example for words in field_words(table_around(root, loc)) if words.name == name), "")


def _holds_keys(kind: Any) -> bool:
    """Return whether a list contains key codes."""
    kind = without_marks(kind)
    (of, *_) = get_args(kind) or (None,)
    return get_origin(of) is Annotated and kind_words(*get_args(of)) == "key"


def _choice(_: type[Table], detail: ErrorDetails) -> str:
    """Return what was found in place of one of a few words, in a field's value or an alternative's `form`."""
    context = detail["ctx"]
    found = context.get("tag", detail["input"])
    expected = context.get("expected_tags") or context["expected"]
    allowed = [word.strip().replace("'", '"') for word in expected.replace(" or ", ", ").split(",")]
    return f"found {_shown(found)}; allowed: {', '.join(allowed)}{_guess(found, allowed)}"


def _no_alternative(root: type[Table], detail: ErrorDetails) -> str:
    found = detail["input"]
    if not isinstance(found, dict):
        *_, name, place = detail["loc"]
        fields = field_words(table_around(root, detail["loc"][:-1])) if isinstance(place, int) else ()
        entries = next((field.example[1:-1] for field in fields if field.name == name and '"' in field.example), "")
        allowed = f"allowed: entries such as {entries}" if entries else _as_meant(root, detail, "a table")
        return f"found {_shown(found)}; {allowed}"
    alternatives = alternatives_at(root, detail["loc"])
    if "form" in detail["ctx"]["discriminator"]:
        return f"form is missing; allowed: {', '.join(map(_shown, alternatives))}"
    channel = next((str(part) for part in reversed(detail["loc"]) if isinstance(part, str) and part != "bind"), "")
    keys = ", ".join(found) or "nothing"
    guess = ";"
    if "stick" in found and "axis" in alternatives:
        stick = str(found["stick"])
        guess = f"; did you mean axis = {_shown(stick if stick.endswith(('.x', '.y')) else f'{stick}.x')}?"
    around = [key for key in found if key in table_around(root, detail["loc"][:-1]).model_fields]
    if around:
        guess = f'; "{around[0]}" belongs in {dotted(detail["loc"][:-2])};'
    # A press may be just a control.
    sources = ["a control's name" if key == "name" else str(key) for key in alternatives]
    return f"found {keys}{guess} allowed as a source of {channel}: {', '.join(sources)}"


def _missing(root: type[Table], detail: ErrorDetails) -> str:
    name, example = str(detail["loc"][-1]), _example(root, detail["loc"])
    # A table has its own header, which an example on one line cannot show.
    return f"is missing, such as {name} = {example}" if example and "{" not in example else "is missing"


_LIMITS = ("greater_than", "greater_than_equal", "less_than", "less_than_equal")

_WORDS: dict[str, Callable[[type[Table], ErrorDetails], str]] = {
    "missing": _missing,
    "literal_error": _choice,
    "union_tag_invalid": _choice,
    "union_tag_not_found": _no_alternative,
    "too_short": lambda _, detail: f"found none; allowed: at least {detail['ctx']['min_length']}",
    "too_long": lambda _, detail: (
        f"found {detail['ctx']['actual_length']}; allowed: at most {detail['ctx']['max_length']}"
    ),
    OWN_WORDS: lambda _, detail: str(detail["ctx"]["words"]),
}


def _guess(found: object, allowed: list[str]) -> str:
    if not isinstance(found, str):
        return ""
    # An axis without a sign means the positive one.
    words = [word.strip('"') for word in allowed]
    return did_you_mean(found, words, f"+{found}" if f"+{found}" in words else field_meant(found, words))


@functools.cache
def _source_keys() -> frozenset[str]:
    """Return the keys with which entries of all channels name their controls."""
    channels = (Move, Rise, Throttle, Turn, LookTable, GoalTable)
    return frozenset(str(key) for channel in channels for key in alternatives_at(channel, ("bind", 0)))


def _unknown_key(name: str, root: type[Table], loc: Sequence[str | int]) -> str:
    table = table_around(root, loc)
    allowed = list(table.model_fields)
    metres = metre_name(name)
    if metres != name and metres in allowed:
        return f"allowed with units_per_m in [world], and without {metres} beside it"
    if metres != name:
        allowed = [unit_name(field) for field in allowed]
    if name in _source_keys() and issubclass(table, Bind):
        return "a source has one device; give this one a [[bind]] of its own"
    # A field of another form is not a slip, and may be what was meant.
    others = list(fields_of_others(table)) if issubclass(table, Choice) else []
    known = [*allowed, *others]
    meant = field_meant(name, known)
    kinds = alternatives_with(root, loc)
    if kinds and not meant:
        return f'unknown key; "{name}" goes with {", ".join(kinds)}; allowed here: {", ".join(allowed)}'
    elsewhere = "" if meant else _stands_in(root, metres, name, field_path_at(root, loc)[:-1])
    guess = elsewhere or did_you_mean(name, known, meant) or ";"
    return f"unknown key{guess} allowed here: {', '.join(allowed)}"


MOST_PLACES = 3
"""If more tables than this have a field, only the nearest ones are named."""


def _stands_in(root: type[Table], name: str, written: str, path: Sequence[str | int]) -> str:
    """Return which other tables have a field, the nearest to `path` first; "" if none has it."""
    here = [str(part) for part in path]
    places = []
    for found in tables_with(root, name):
        parts = found.replace("[]", ".[]").split(".") if found else []
        shared = 0
        while shared < min(len(here), len(parts)) and parts[shared] in (here[shared], "NAME", "[]"):
            shared += 1
        whole = dotted([*path[:shared], *parts[shared:]]).replace(".[]", "[]")
        places.append((-shared, whole or "the top level of the file"))
    nearest = [whole for _, whole in sorted(places, key=lambda place: place[0])]
    return f'; "{written}" belongs in {first_of(nearest, MOST_PLACES)};' if nearest else ""


def _range(root: type[Table], loc: Sequence[str | int], units: float) -> str:
    """Return in words the range of the number at `loc`, in a unit of which `units` are a metre."""
    # The range of a number in a list is that of the list's field.
    ends = [end for end in range(len(loc), 0, -1) if isinstance(loc[end - 1], str)]
    table, name = table_around(root, loc[: ends[0]]), str(loc[ends[0] - 1])
    if name not in table.model_fields:
        # A user's own name: the range is that of its field.
        return _range(root, loc[: ends[0] - 1], units)
    return range_words(table.model_fields[name], units)


def _shown(value: object) -> str:
    if isinstance(value, dict):
        text = f"{{ {', '.join(f'{key} = {_shown(part)}' for key, part in value.items())} }}" if value else "{}"
    elif isinstance(value, list):
        text = f"[{', '.join(map(_shown, value))}]"
    else:
        text = (
            f'"{value}"' if isinstance(value, str) else str(value).lower() if isinstance(value, bool) else repr(value)
        )
    return text if len(text) <= 60 else text[:57] + "..."
