"""Descriptions of fields: unit, range, default, example, and the effect on the feel."""

from collections.abc import Iterator
from types import UnionType
from typing import Annotated, Any, Literal, NamedTuple, Union, get_args, get_origin

from pydantic import BaseModel
from pydantic.fields import FieldInfo
from pydantic_core import PydanticUndefined

from wendonic.profile.schema.table import marks_of
from wendonic.profile.schema.words import Words
from wendonic.significant import significant

UNITS = {
    "_m_s2": "m/s²",
    "_deg_s": "deg/s",
    "_cm_s": "cm/s",
    "_m_s": "m/s",
    "_per_s": "1/s",
    "_deg": "deg",
    "_hz": "Hz",
    "_ratio": "ratio",
    "_m": "m",
    "_s": "s",
}
"""Units by the endings of names, longer endings first."""


class FieldWords(NamedTuple):
    """What is said of a field. `range` is "" where anything of its kind is allowed; `required` has no default.
    `kind` is what it holds; `implied` says that the default is what counts where there is none; `words` are the words
    that it may hold, each with what it does.
    """

    name: str
    description: str
    unit: str
    range: str
    default: str
    example: str
    required: bool
    kind: str
    implied: bool = False
    words: tuple[tuple[str, str], ...] = ()

    @property
    def facts(self) -> str:
        """Its kind, its range, and its default.

        >>> from wendonic.profile.schema.gait import Gait
        >>> next(field_words(Gait)).facts
        'number (m/s), above 0, up to 1000; default 3.2'
        """
        unit = f" ({self.unit})" if self.unit else ""
        if self.kind in ("one word", "list of words"):
            holds = ", ".join(f'"{word}"' for word in self.range.split(", "))
        elif self.kind == "one of some numbers":
            holds = f"{self.range}{unit}"
        else:
            holds = ", ".join(filter(None, (f"{self.kind}{unit}", self.range)))
        if self.required:
            return f"{holds}; required"
        if self.implied:
            return f"{holds}; left out: {self.default}"
        return f"{holds}; default {self.default}" if self.default not in ("", "{}", "[]") else holds


def field_words(table: type[BaseModel]) -> Iterator[FieldWords]:
    """Yield the descriptions of a table's fields, in order.

    >>> from wendonic.profile.schema.gait import Gait
    >>> next(field_words(Gait))[2:]
    ('m/s', 'above 0, up to 1000', '3.2', '3.2', False, 'number', False, ())
    """
    for name, field in table.model_fields.items():
        extra = field.json_schema_extra if isinstance(field.json_schema_extra, dict) else {}
        unit = field_unit(name, field)
        default = _shown(field.get_default(call_default_factory=True)) if not field.is_required() else ""
        example = _shown(field.examples[0]) if field.examples else ""
        yield FieldWords(
            name,
            field.description or "",
            unit,
            range_words(field),
            str(extra.get("otherwise", "")) if default == "none" else default,
            example,
            field.is_required(),
            kind_words(field.annotation, *field.metadata),
            default == "none",
            _words_of(field),
        )


def _words_of(field: FieldInfo) -> tuple[tuple[str, str], ...]:
    marks = [mark for mark in field.metadata if isinstance(mark, Words)]
    return tuple((name, words[name].meaning) for words in marks for name in words)


class Holds(NamedTuple):
    """Annotation of a type: what its strings name, in the words of the reference."""

    words: str


_KINDS = {float: "number", int: "whole number", bool: "true or false", str: "string"}


def kind_words(kind: Any, *marks: Any) -> str:
    """Return in words what a field of a type contains; `marks` are its annotations.

    >>> kind_words(tuple[float, ...]), kind_words(bool), kind_words(dict[str, int]), kind_words(str | None)
    ('list of numbers', 'true or false', 'table of whole numbers by name', 'string')
    """
    for mark in marks:
        if isinstance(mark, Holds):
            return mark.words
        if isinstance(mark, Words):
            return "one word"
    origin, parts = get_origin(kind), get_args(kind)
    if origin is Annotated:
        return kind_words(parts[0], *parts[1:])
    if origin is Literal:
        return "one word" if isinstance(parts[0], str) else "one of some numbers"
    if origin is tuple:
        if len(parts) > 1 and parts[1] is not ...:
            return f"list of {len(parts)} {_plural(kind_words(parts[0]))}"
        return f"list of {_plural(kind_words(parts[0]))}"
    if origin is dict:
        return f"table of {_plural(kind_words(parts[1]))} by name"
    if origin in (Union, UnionType):
        kinds = dict.fromkeys(kind_words(part) for part in parts if part is not type(None))
        return " or ".join(kinds)
    return _KINDS.get(kind, "table")


def _plural(words: str) -> str:
    def plural(one: str) -> str:
        if one.startswith(("list of ", "table of ")):
            return one.replace(" of ", "s of ", 1)
        return _PLURALS.get(one, f"{one}s")

    return " or ".join(map(plural, words.split(" or ")))


_PLURALS = {"one word": "words", "axis": "axes", "false": "false", "true": "true"}


def field_unit(name: str, field: FieldInfo) -> str:
    """Return the unit of a field: that of its name's ending, or the declared one.

    >>> from wendonic.profile.schema.gait import Gait
    >>> field_unit("accel_m_s2", Gait.model_fields["accel_m_s2"])
    'm/s²'
    """
    extra = field.json_schema_extra if isinstance(field.json_schema_extra, dict) else {}
    return str(extra.get("unit") or next((unit for end, unit in UNITS.items() if name.endswith(end)), ""))


def _shown(value: Any) -> str:
    if value is PydanticUndefined or value is ...:
        return ""
    if value is None:
        return "none"
    if isinstance(value, bool):
        return str(value).lower()
    if isinstance(value, float):
        return f"{value:.6g}"
    if isinstance(value, BaseModel):
        written = [name for name in type(value).model_fields if name in value.model_fields_set]
        inside = ", ".join(f"{name} = {_shown(getattr(value, name))}" for name in written)
        return f"{{ {inside} }}" if inside else "{}"
    if isinstance(value, tuple | list):
        return f"[{', '.join(map(_shown, value))}]"
    if isinstance(value, dict):
        return f"{{ {', '.join(f'{name} = {_shown(part)}' for name, part in value.items())} }}" if value else "{}"
    return f'"{value}"' if isinstance(value, str) else str(value)


def range_words(field: FieldInfo, units: float = 1.0) -> str:
    """Return in words the numbers or words that a field may contain; "" if any is allowed. Lengths are in a unit of
    which `units` are a metre.
    """
    low, high, least = "", "", ""
    for mark in marks_of(field):
        if isinstance(mark, Words):
            return ", ".join(mark)
    for part in (field.annotation, *get_args(field.annotation)):
        if get_origin(part) is Literal:
            return ", ".join(map(str, get_args(part)))
    for mark in marks_of(field):
        for attribute, words in (("ge", "{} or more"), ("gt", "above {}")):
            if (bound := getattr(mark, attribute, None)) is not None:
                low = words.format(significant(bound * units, 9))
                least = significant(bound * units, 9) if attribute == "ge" else ""
        for attribute, words in (("le", "up to {}"), ("lt", "below {}")):
            if (bound := getattr(mark, attribute, None)) is not None:
                high = words.format(significant(bound * units, 9))
    if least and high.startswith("up to "):
        return f"{least} {high.removeprefix('up ')}"
    return ", ".join(filter(None, (low, high)))
