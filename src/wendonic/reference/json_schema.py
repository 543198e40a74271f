"""JSON Schema (2020-12) of the files, for editors: names, types, ranges, allowed words and descriptions."""

import functools
import json
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any, get_args

from pydantic import BaseModel
from pydantic.json_schema import GenerateJsonSchema

from wendonic.atomic_file import atomic_file
from wendonic.course.course import Course
from wendonic.devices.controls import CONTROLS, TEXTS, Control
from wendonic.devices.keys import KEY_CODES
from wendonic.errors import WendonicError, none_such
from wendonic.profile.field_path import SEPARATES
from wendonic.profile.schema.budget import quantity_names
from wendonic.profile.schema.field_words import FieldWords, Holds, field_words
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.table import Choice, Table, fields_of_others
from wendonic.profile.units import unit_name
from wendonic.recording.content import FORMAT, VERSION
from wendonic.reference.tables import about, tables_of

DIALECT = "https://json-schema.org/draft/2020-12/schema"
FILE_NAMES = {
    "profile": "wendonic-profile.schema.json",
    "course": "wendonic-course.schema.json",
    "recording": "wendonic-recording.schema.json",
}
"""File names of the schemas beside the files that refer to them."""

Schema = dict[str, Any]

_NAMED_LATER = "like_"
"""Prefix of the definitions for a mode with `like`, in which nothing is required."""


def schema_line(kind: str) -> str:
    """Return the comment that tells editors which schema beside a TOML file applies to it.

    >>> schema_line("profile")
    '#:schema ./wendonic-profile.schema.json'
    """
    return f"#:schema ./{FILE_NAMES[kind]}"


def json_schema(kind: str = "profile") -> Schema:
    """Return the JSON Schema of a profile, a course, or one line of a recording.

    It cannot check what needs the whole file: whether names exist, whether numbers fit together. Raises
    `WendonicError` for another kind.

    >>> json_schema("profile")["$schema"], json_schema("recording")["oneOf"][1]["required"]
    ('https://json-schema.org/draft/2020-12/schema', ['t', 'c', 'v'])
    """
    if kind == "profile":
        return _profile_schema()
    if kind == "course":
        return _table_schema(Course, "course")
    if kind == "recording":
        return _recording_schema()
    raise WendonicError(none_such("kind of file", kind, FILE_NAMES))


@functools.cache
def schema_text(kind: str = "profile", ascii_only: bool = False) -> str:
    """Return the JSON Schema of a kind of file as text; with `ascii_only` any terminal can print it.

    >>> schema_text("recording").splitlines()[0]
    '{'
    """
    return json.dumps(json_schema(kind), indent=1, ensure_ascii=ascii_only)


def write_schema(path: str | Path, kind: str = "profile") -> None:
    """Write the JSON Schema of a kind of file; an existing file is replaced."""
    with atomic_file(path) as beside:
        beside.write_text(schema_text(kind) + "\n", encoding="utf-8", newline="\n")


def _table_schema(root: type[Table], what: str) -> Schema:
    kinds = {table.kind.__name__: table.kind for table in tables_of(root)}
    # Annotated types add what their texts name only after their own JSON Schema has been made.
    made = root.model_json_schema(schema_generator=GenerateJsonSchema, ref_template="#/$defs/{model}")
    definitions = made.pop("$defs", {})
    for name, definition in definitions.items():
        _spell_out(definition, kinds[name])
    _spell_out(made, root)
    return {"$schema": DIALECT, "title": f"Wendonic {what}", **made, "$defs": definitions}


def _spell_out(definition: Schema, table: type[BaseModel]) -> None:
    """Turn pydantic's schema of a table into one for editors."""
    definition.pop("title", None)
    definition["description"] = " ".join(about(table).split())
    properties: dict[str, Schema] = definition["properties"]
    patterns: dict[str, Schema] = {}
    for words in field_words(table):
        field = _tidy(properties[words.name])
        field["description"] = f"{words.description} ({words.facts})"
        _name_controls(field, table.model_fields[words.name])
        if words.words:
            field["oneOf"] = [{"const": word, "description": meaning} for word, meaning in words.words]
            for key in ("enum", "const", "type"):
                field.pop(key, None)
        properties[words.name] = field
        own_unit = unit_name(words.name)
        if own_unit != words.name:
            patterns[f"^{own_unit}$"] = _in_own_unit(field, words)
    if issubclass(table, Choice):
        # Fields of other forms may stay in the file and have no effect.
        patterns |= {f"^{name}$": {} for name in fields_of_others(table)}
    if patterns:
        definition["patternProperties"] = patterns
    required = definition.pop("required", [])
    plain = [name for name in required if unit_name(name) == name]
    if plain:
        definition["required"] = plain
    lengths = [name for name in required if name not in plain]
    if lengths:
        either = [{"anyOf": [{"required": [name]}, {"required": [unit_name(name)]}]} for name in lengths]
        definition["allOf"] = either


def _tidy(field: Schema) -> Schema:
    """Remove what a file never contains: null, and pydantic's own additions."""
    field = {key: value for key, value in field.items() if key not in ("title", "unit", "otherwise", "discriminator")}
    if field.get("default") is None:
        field.pop("default", None)
    for key in ("anyOf", "oneOf"):
        if key in field:
            choices = [choice for choice in field[key] if choice != {"type": "null"}]
            if len(choices) == 1:
                field.pop(key)
                field |= choices[0]
            else:
                field[key] = choices
    if isinstance(field.get("default"), dict):
        # Editors would offer it with every number written out.
        field.pop("default")
    field.pop("examples", None)
    return field


def _in_own_unit(field: Schema, words: FieldWords) -> Schema:
    """Return the schema of a length in the game's own unit, without a range, which depends on that unit."""
    free: Schema = {"description": f"{words.description} (in the game's own unit, with units_per_m in [world])"}
    kept = ("type", "prefixItems", "items", "minItems", "maxItems")
    free |= {key: _without_limits(value) for key, value in field.items() if key in kept}
    return free


def _without_limits(value: Any) -> Any:
    if isinstance(value, list):
        return [_without_limits(part) for part in value]
    if not isinstance(value, dict):
        return value
    limits = ("minimum", "maximum", "exclusiveMinimum", "exclusiveMaximum")
    return {key: _without_limits(part) for key, part in value.items() if key not in limits}


_PADS = "pad[0-7]?"
_KEY = f"(key\\.)?({'|'.join(KEY_CODES)})"
_BUTTON = "|".join(
    dict.fromkeys(
        re.sub(r"^pad\d?\\\.", f"{_PADS}\\\\.", re.escape(name))
        for name, control in CONTROLS.items()
        if control.kind == "button"
    )
)
_STICK = f"({_PADS}\\.(left|right)_stick|hand\\.(left|right)\\.stick)"
_TEXTS: dict[str, str] = {
    "key": _KEY,
    "stick": _STICK,
    "motion sensor": f"{_PADS}\\.gyro",
    "key or button": f"{_KEY}|{_BUTTON}",
    "control or chord": f"({_KEY}|{_BUTTON})( *\\+ *({_KEY}|{_BUTTON}))*",
    "trigger or button": _BUTTON,
    "axis": f"{_STICK}\\.[xy]|{_BUTTON}",
    "pad": _PADS,
    "d-pad": f"{_PADS}\\.dpad",
}
"""Patterns of the texts that name controls, by the kind of control."""


def _name_controls(field: Schema, info: Any) -> None:
    """Refer to the names of controls wherever texts name them."""
    marks = [mark.words for mark in _holds(info) if mark.words in _TEXTS]
    for text in _texts(field) if marks else ():
        text.pop("type")
        text["$ref"] = f"#/$defs/{_definition_name(marks[0])}"


def _definition_name(holds: str) -> str:
    return holds.replace(" ", "_").replace("-", "_")


def _control_definitions() -> dict[str, Schema]:
    """Return the definitions of texts that name controls: names to choose from, and the pattern of everything that
    fits.
    """
    made = {}
    for holds, pattern in _TEXTS.items():
        fits = re.compile(pattern)
        names = [*KEY_CODES, *(name for name in _NAMES if not name.startswith("key."))]
        offered = [name for name in names if fits.fullmatch(name) and not re.match(r"pad[0-7]", name)]
        made[_definition_name(holds)] = {
            "anyOf": [{"enum": offered}, {"type": "string", "pattern": f"^({pattern})$"}]
        }
    return made


_NAMES = (
    *CONTROLS,
    "pad",
    "pad.dpad",
    *(f"{name}.{axis}" for name, control in CONTROLS.items() if control.kind == "stick" for axis in "xy"),
)


def _holds(part: Any) -> Iterator[Holds]:
    for mark in getattr(part, "metadata", ()):
        if isinstance(mark, Holds):
            yield mark
    kind = getattr(part, "annotation", part)
    for inner in get_args(kind):
        if isinstance(inner, Holds):
            yield inner
        else:
            yield from _holds(inner)


def _texts(field: Schema) -> Iterator[Schema]:
    if field.get("type") == "string":
        yield field
    for key in ("items", "additionalProperties"):
        if isinstance(field.get(key), dict):
            yield from _texts(field[key])
    for key in ("anyOf", "oneOf"):
        for choice in field.get(key, ()):
            yield from _texts(choice)


def _profile_schema() -> Schema:
    schema = _table_schema(Profile, "profile")
    definitions: dict[str, Schema] = schema["$defs"]
    definitions |= _control_definitions()
    names = quantity_names()
    if names:
        known = dict.fromkeys([*names, *map(unit_name, names)])
        schema["properties"]["budget"]["propertyNames"] = {"enum": list(known)}
    named = [(schema, name) for name in ("mode", "gait", "seat", "joystick")]
    named += [(definitions["Mode"], "press"), (definitions["Window"], "zone")]
    for table, name in named:
        table["properties"][name]["propertyNames"] = {"pattern": f"^[^{re.escape(SEPARATES)}]+$"}
    _with_likes(definitions)
    return schema


def _with_likes(definitions: dict[str, Schema]) -> None:
    """Let a mode with `like` contain only what differs: in tables, not in the entries of its lists."""
    lenient: dict[str, Schema] = {}

    def loosened(value: Any) -> Any:
        if isinstance(value, list):
            return [loosened(part) for part in value]
        if not isinstance(value, dict):
            return value
        made = {}
        for key, part in value.items():
            if key == "$ref":
                name = str(part).rpartition("/")[2]
                is_table = "properties" in definitions[name]
                if is_table:
                    loosen(name)
                made[key] = f"#/$defs/{_NAMED_LATER}{name}" if is_table else part
            else:
                made[key] = part if key == "items" else loosened(part)
        return made

    def loosen(name: str) -> None:
        copied = f"{_NAMED_LATER}{name}"
        if copied in lenient:
            return
        lenient[copied] = {}
        plain = {key: part for key, part in definitions[name].items() if key not in ("required", "allOf")}
        lenient[copied] |= loosened(plain)
        for alternatives in lenient[copied]["properties"].values():
            if "oneOf" in alternatives and any("$ref" in choice for choice in alternatives["oneOf"]):
                # A table that does not repeat its form matches several of them.
                alternatives["anyOf"] = alternatives.pop("oneOf")

    mode = definitions["Mode"]
    loosen("Mode")
    definitions["WholeMode"] = mode
    definitions |= lenient
    definitions["Mode"] = {
        "description": mode["description"],
        "if": {"required": ["like"]},
        "then": {"$ref": f"#/$defs/{_NAMED_LATER}Mode"},
        "else": {"$ref": "#/$defs/WholeMode"},
    }


def _value_schema(control: Control) -> Schema:
    if control.kind in TEXTS:
        return {"type": "string"}
    number = {"type": "number"}
    if control.width <= 1:
        return number
    return {"type": "array", "prefixItems": [number] * control.width, "items": False, "minItems": control.width}


def _recording_schema() -> Schema:
    by_value: dict[str, tuple[Schema, list[str]]] = {}
    for name, control in CONTROLS.items():
        value = _value_schema(control)
        by_value.setdefault(repr(value), (value, []))[1].append(name)
    header = {
        "description": "The first line: what the file is.",
        "type": "object",
        "properties": {
            "format": {"const": FORMAT},
            "version": {"const": VERSION},
            "title": {"type": "string", "description": "Name of the recording, for people to read."},
            "devices": {
                "type": "array",
                "items": {"type": "string"},
                "description": "Devices that it has events of.",
            },
        },
        "required": ["format", "version"],
    }
    event = {
        "description": "Every other line: at t seconds, control c has value v.",
        "type": "object",
        "properties": {
            "t": {"type": "number", "description": "Time (s) from a monotonic clock; it never falls."},
            "c": {"enum": list(CONTROLS), "description": "Control, by its name."},
            "v": {"description": "Value, in the standard of the control's device."},
        },
        "required": ["t", "c", "v"],
        "additionalProperties": False,
        "allOf": [
            {"if": {"properties": {"c": {"enum": names}}}, "then": {"properties": {"v": value}}}
            for value, names in by_value.values()
        ],
    }
    return {
        "$schema": DIALECT,
        "title": "one line of a Wendonic recording (JSON Lines)",
        "oneOf": [header, event],
    }
