"""pydantic's errors in the words of a profile: where, what was found, what is allowed, the nearest spelling."""

import functools
from collections.abc import Callable, Sequence
from typing import Annotated, Any, Literal, get_args, get_origin

from pydantic import BaseModel, Tag, ValidationError
from pydantic.fields import FieldInfo
from pydantic_core import ErrorDetails

from wendonic.devices.controls import CONTROLS
from wendonic.devices.other_names import key_meant
from wendonic.errors import Fault, did_you_mean, first_of
from wendonic.profile.field_limits import field_limits
from wendonic.profile.field_lines import field_line
from wendonic.profile.field_path import dotted
from wendonic.profile.inherited import likes, with_inherited
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
    """Return every fault of the `content` that `text` gave, be it a profile or another `root`, line by line."""
    faults: list[Fault] = []
    missing = unknown_references(with_inherited(in_metres(content))) if root.refers_by_name else []
    for where, what in missing:
        path = _along(content, [], where)
        faults.append(Fault(field_line(text, path), dotted(path), what))
    for detail in error.errors():
        path = _field_path(root, detail["loc"])
        if detail["type"] == OWN_FAULTS:
            for line in str(detail["ctx"]["words"]).splitlines():
                where, _, what = line.partition(": ")
                if not path and (where, what) in missing:
                    # Found above, whatever else is wrong.
                    continue
                full = _along(content, path, where)
                full, _ = as_written(content, full)
                what = words_as_written(content, full, what)
                faults.append(Fault(field_line(text, full), dotted(full), what))
            continue
        if detail["type"] == "too_short" and detail["input"]:
            # pydantic counts only the good entries; each bad one is reported by itself.
            continue
        if detail["type"] == "union_tag_invalid":
            path.append("frame" if path[-1] == "steer" else "form")
        path, units = as_written(content, path)
        what = _what(root, detail, units, own_unit(content)) + _press_of_that_name(content, path, detail)
        faults.append(Fault(field_line(text, path), dotted(path), what))
    if root.refers_by_name:
        faults = _where_said(faults, content)
    return sorted(faults, key=lambda fault: (fault.line is None, fault.line or 0))


def _along(content: Any, above: Sequence[str | int], where: str) -> list[str | int]:
    """Return the parts of a path that goes on below `above`; a number is a place in a list, or a table's name."""
    path = list(above)
    for part in above:
        content = _within(content, part)
    for word in where.split("."):
        part = int(word) if word.isdigit() and not isinstance(content, dict) else word
        content = _within(content, part)
        path.append(part)
    return path


def _within(content: Any, part: str | int) -> Any:
    try:
        return content[part]
    except (KeyError, IndexError, TypeError):
        return None


def _press_of_that_name(content: Any, path: Sequence[str | int], detail: ErrorDetails) -> str:
    """Return what to write in place of a press where a control is wanted, "" where no press has that name."""
    name = detail["input"]
    if detail["type"] != OWN_WORDS or path[:1] != ["mode"] or len(path) < 3 or not isinstance(name, str):
        return ""
    binds = with_inherited(content)
    for part in ("mode", path[1], "press", name, "bind"):
        binds = _within(binds, part)
    controls = ", ".join(f'"{one}"' for one in binds if isinstance(one, str)) if isinstance(binds, list) else ""
    return f"; {name} is a press; name its controls: {controls}" if controls else ""


def _where_said(faults: list[Fault], content: dict[str, Any]) -> list[Fault]:
    """Leave out of the faults those that a mode has from the one that it begins as, and what it lacks where there is
    no such one.
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


def _field_path(root: type[Table], loc: Sequence[str | int]) -> list[str | int]:
    """Leave out of pydantic's path the names of the alternatives it chose between."""
    # A key that is wrong itself has a part of its own.
    return [part for part, _, is_choice in _steps(root, loc) if not is_choice and part != "[key]"]


def _steps(root: type[Table], loc: Sequence[str | int]) -> list[tuple[str | int, Any, bool]]:
    """Go along `loc`: each part, what the schema expects there, and whether it is an alternative's name."""
    steps = []
    kind: Any = root
    for part in loc:
        kind, is_choice = _step(kind, part)
        steps.append((part, kind, is_choice))
    return steps


def _step(kind: Any, part: str | int) -> tuple[Any, bool]:
    while get_origin(kind) is Annotated:
        kind = get_args(kind)[0]
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        field = kind.model_fields.get(str(part))
        return (field.annotation if field else None), False
    if get_origin(kind) is dict:
        return get_args(kind)[1], False
    if get_origin(kind) is tuple:
        return get_args(kind)[0], False
    choices = [choice for choice in get_args(kind) if choice is not type(None)]
    for choice in choices:
        if part in _choice_names(choice):
            return choice, True
    # An optional field: what may be there besides nothing.
    return _step(choices[0], part) if len(choices) == 1 else (None, False)


def _choice_names(choice: Any) -> tuple[str, ...]:
    if get_origin(choice) is Annotated:
        return tuple(mark.tag for mark in get_args(choice) if isinstance(mark, Tag))
    form = choice.model_fields.get("form") if isinstance(choice, type) and issubclass(choice, BaseModel) else None
    return get_args(form.annotation) if form else ()


def _alternatives(root: type[Table], loc: Sequence[str | int]) -> list[str]:
    """Return the names of the alternatives that the schema has at `loc`."""
    kind = _steps(root, loc)[-1][1]
    while get_origin(kind) is Annotated:
        kind = get_args(kind)[0]
    return [name for choice in get_args(kind) for name in _choice_names(choice)]


def _table_around(root: type[Table], loc: Sequence[str | int]) -> type[Table]:
    kind = _steps(root, loc[:-1])[-1][1] if len(loc) > 1 else root
    while get_origin(kind) is Annotated:
        kind = get_args(kind)[0]
    if type(None) in get_args(kind):
        kind = next(part for part in get_args(kind) if part is not type(None))
    return kind if isinstance(kind, type) and issubclass(kind, Table) else root


def _what(root: type[Table], detail: ErrorDetails, units: float, unit: str) -> str:
    """Say what is wrong; numbers as they were written, `units` of them a metre, with `unit` the file's own one."""
    kind = detail["type"]
    found: Any = detail["input"]
    if slip := _unit_spelled_out(root, detail["loc"], unit):
        return slip
    if units != 1.0 and isinstance(found, int | float):
        detail["input"] = found * units
    if kind == "extra_forbidden":
        name = str(detail["loc"][-1])
        unknown = unit_name(name) if units != 1.0 else name
        return _unknown_key(unknown, _table_around(root, detail["loc"]), root, _field_path(root, detail["loc"])[:-1])
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
    """Say what to write for a key that has the name of the file's own unit in it; "" where that is not the fault."""
    *above, name = _field_path(root, loc)
    own = unit_name_of(str(name), unit)
    known = quantity_names() if above == ["budget"] else list(_table_around(root, loc).model_fields)
    if own == name or metre_name(own) not in known:
        return ""
    return f'unknown key; did you mean "{own}"? _u stands for the file\'s own unit, whatever it is called'


def _as_meant(root: type[Table], detail: ErrorDetails, allowed: str) -> str:
    """Say how a list or a table is written that was written as something else."""
    found: Any = detail["input"]
    name = next((str(part) for part in reversed(detail["loc"]) if isinstance(part, str)), "")
    if allowed == "a list":
        if isinstance(found, dict) and name == "bind":
            header = dotted(_field_path(root, detail["loc"]))
            return f"allowed: a list of tables, each under its own header in double brackets: [[{header}]]"
        words = _words_in(_steps(root, detail["loc"])[-1][1])
        if words and found not in words:
            return f"allowed: a list of {' and '.join(map(_shown, words))}"
        example = _example(root, detail["loc"])
        if isinstance(found, str) and _holds_keys(_steps(root, detail["loc"])[-1][1]):
            code = found if f"key.{found}" in CONTROLS else key_meant(found)
            return f"allowed: a list, such as {f'[{_shown(code)}]' if code else example}"
        if isinstance(found, str | int | float):
            return f"allowed: a list, such as [{_shown(found)}]"
        return f"allowed: a list, such as {example}" if example else "allowed: a list"
    table = _table_around(root, detail["loc"])
    field = table.model_fields.get(name)
    if field is None and isinstance(found, str | list):
        # A table under a name of the user's own: its first field that has to be there holds what was written.
        kind = _steps(root, detail["loc"])[-1][1]
        needed = [own for own, info in getattr(kind, "model_fields", {}).items() if info.is_required()]
        if needed:
            listed = found if isinstance(found, list) else [found]
            return f"allowed: a table, such as {{ {needed[0]} = [{', '.join(map(_shown, listed))}] }}"
    alternatives = _alternatives(root, detail["loc"])
    if found in alternatives:
        return f'allowed: a table, such as {{ {"frame" if name == "steer" else "form"} = "{found}" }}'
    if isinstance(found, int | float) and not isinstance(found, bool):
        numbers = _around_number(_steps(root, detail["loc"])[-1][1], found)
        if numbers:
            return f"allowed: a table, such as {{ {numbers} }}"
    example = _example(root, detail["loc"])
    return f"allowed: a table, such as {example}" if len(example) > 2 else "allowed: a table"


def _words_in(kind: Any) -> tuple[str, ...]:
    """Return the words that a list may hold; none where it holds something else."""
    while get_origin(kind) is Annotated:
        kind = get_args(kind)[0]
    (of, *_) = get_args(kind) or (None,)
    return get_args(of) if get_origin(of) is Literal else ()


def _as_described(root: type[Table], detail: ErrorDetails, units: float) -> str:
    """Return the range of the number that was expected, or an example of the string; "" for what the schema does not
    describe.
    """
    if detail["type"] == "float_type":
        return _range(root, detail["loc"], units)
    example = _example(root, detail["loc"])
    return f"such as {example}" if example else ""


def _named(root: type[Table], loc: Sequence[str | int]) -> str:
    """Say what a string at `loc` names."""
    field = _table_around(root, loc).model_fields.get(str(loc[-1]))
    words = kind_words(str, *field.metadata) if field else kind_words(_steps(root, loc)[-1][1])
    if words in ("string", "table", "one word"):
        return "a string"
    # Of what else has a name it shows in the same file where that is.
    added = " ([window.zone.NAME] adds one)" if words == "zone" else ""
    return f"the name of {'an' if words[0] in 'aeiou' else 'a'} {words}{added}"


def _tables_of(kind: Any) -> list[type[Table]]:
    """Return the tables that the schema allows at a place."""
    while get_origin(kind) is Annotated:
        kind = get_args(kind)[0]
    parts = (kind, *get_args(kind))
    bare = [get_args(part)[0] if get_origin(part) is Annotated else part for part in parts]
    return [part for part in bare if isinstance(part, type) and issubclass(part, Table)]


def _around_number(kind: Any, found: float) -> str:
    """Return the fields of a table around its number, where one stood in the table's place; "" where no number says
    all that has to be said.
    """
    tables = _tables_of(kind)
    shared = set.intersection(*(set(table.model_fields) for table in tables)) if len(tables) > 1 else set()
    for table in tables:
        fields = {name: field for name, field in table.model_fields.items() if name not in shared}
        words = {name: field for name, field in table.model_fields.items() if name == "form" and len(tables) > 1}
        needed = [name for name, field in table.model_fields.items() if field.is_required() and name not in words]
        numbers = [name for name, field in fields.items() if "number" in kind_words(field.annotation)]
        # Of two limits, what a number alone says is how much is too much.
        numbers.sort(key=lambda name: name != "max")
        if numbers and not set(needed) - {numbers[0]} and _within_limits(table.model_fields[numbers[0]], found):
            form = "".join(f'form = "{get_args(field.annotation)[0]}", ' for field in words.values())
            return f"{form}{numbers[0]} = {found}"
    return ""


def _within_limits(field: FieldInfo, found: float) -> bool:
    low, high = field_limits(field)
    return low <= found <= high


def _example(root: type[Table], loc: Sequence[str | int]) -> str:
    """Return the example that the schema has for a field; "" for none."""
    name = next((str(part) for part in reversed(loc) if isinstance(part, str)), "")
    return next((words.example for words in field_words(_table_around(root, loc)) if words.name == name), "")


def _holds_keys(kind: Any) -> bool:
    """Return whether a list has codes of keys in it."""
    while get_origin(kind) is Annotated:
        kind = get_args(kind)[0]
    (of, *_) = get_args(kind) or (None,)
    return get_origin(of) is Annotated and kind_words(*get_args(of)) == "key"


def _choice(_: type[Table], detail: ErrorDetails) -> str:
    """Say what was found in place of one of a few words, be it a field's value or an alternative's `form`."""
    context = detail["ctx"]
    found = context.get("tag", detail["input"])
    expected = context.get("expected_tags") or context["expected"]
    allowed = [word.strip().replace("'", '"') for word in expected.replace(" or ", ", ").split(",")]
    return f"found {_shown(found)}; allowed: {', '.join(allowed)}{_guess(found, allowed)}"


def _no_alternative(root: type[Table], detail: ErrorDetails) -> str:
    found = detail["input"]
    if not isinstance(found, dict):
        *_, name, place = detail["loc"]
        fields = field_words(_table_around(root, detail["loc"][:-1])) if isinstance(place, int) else ()
        entries = next((field.example[1:-1] for field in fields if field.name == name and '"' in field.example), "")
        allowed = f"allowed: entries such as {entries}" if entries else _as_meant(root, detail, "a table")
        return f"found {_shown(found)}; {allowed}"
    alternatives = _alternatives(root, detail["loc"])
    if "form" in detail["ctx"]["discriminator"]:
        return f"form is missing; allowed: {', '.join(map(_shown, alternatives))}"
    channel = next((str(part) for part in reversed(detail["loc"]) if isinstance(part, str) and part != "bind"), "")
    keys = ", ".join(found) or "nothing"
    guess = ";"
    if "stick" in found and "axis" in alternatives:
        stick = str(found["stick"])
        guess = f"; did you mean axis = {_shown(stick if stick.endswith(('.x', '.y')) else f'{stick}.x')}?"
    around = [key for key in found if key in _table_around(root, detail["loc"][:-1]).model_fields]
    if around:
        guess = f'; "{around[0]}" belongs in {dotted(detail["loc"][:-2])};'
    # A press may name a control and nothing else.
    sources = ["a control's name" if key == "name" else str(key) for key in alternatives]
    return f"found {keys}{guess} allowed as a source of {channel}: {', '.join(sources)}"


def _missing(root: type[Table], detail: ErrorDetails) -> str:
    name, example = str(detail["loc"][-1]), _example(root, detail["loc"])
    # A table has a header of its own, which no example on one line shows.
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
    # An axis of a game without its sign is the positive one.
    words = [word.strip('"') for word in allowed]
    return did_you_mean(found, words, f"+{found}" if f"+{found}" in words else field_meant(found, words))


@functools.cache
def _source_keys() -> frozenset[str]:
    """Return the keys under which entries of all channels name their controls."""
    channels = (Move, Rise, Throttle, Turn, LookTable, GoalTable)
    return frozenset(str(key) for channel in channels for key in _alternatives(channel, ("bind", 0)))


def _unknown_key(name: str, table: type[Table], root: type[Table], path: Sequence[str | int]) -> str:
    allowed = list(table.model_fields)
    metres = metre_name(name)
    if metres != name and metres in allowed:
        return f"allowed with units_per_m in [world], and without {metres} beside it"
    if metres != name:
        allowed = [unit_name(field) for field in allowed]
    if name in _source_keys() and issubclass(table, Bind):
        return "a source has one device; give this one a [[bind]] of its own"
    # What goes with another form is not a slip, and so may be what was meant.
    others = list(fields_of_others(table)) if issubclass(table, Choice) else []
    known = [*allowed, *others]
    meant = field_meant(name, known)
    elsewhere = "" if meant else _stands_in(root, metres, name, path)
    guess = elsewhere or did_you_mean(name, known, meant) or ";"
    return f"unknown key{guess} allowed here: {', '.join(allowed)}"


MOST_PLACES = 3
"""Of more tables than this that have a field, the nearest ones are named."""


def _stands_in(root: type[Table], name: str, written: str, path: Sequence[str | int]) -> str:
    """Say which other tables have a field, the nearest to `path` first; "" where none has it."""
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
    """Say in words what range the schema gives to the number at `loc`, in what `units` of are a metre."""
    # A number in a list has its range where the list's field is.
    ends = [end for end in range(len(loc), 0, -1) if isinstance(loc[end - 1], str)]
    table, name = _table_around(root, loc[: ends[0]]), str(loc[ends[0] - 1])
    if name not in table.model_fields:
        # A name of the user's own: the field that it belongs to has the range.
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
