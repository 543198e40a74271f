"""A field in words: its unit, its range, its default, an example, and what it does to the feel."""

from collections.abc import Iterator
from typing import Any, NamedTuple, get_args

from pydantic import BaseModel
from pydantic.fields import FieldInfo
from pydantic_core import PydanticUndefined

from wendonic.profile.schema.words import Words

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
"""Units by the ends of names, the longer ends first."""


class FieldWords(NamedTuple):
    """What is said of a field. `range` is "" where anything of its kind is allowed; `required` has no default."""

    name: str
    description: str
    unit: str
    range: str
    default: str
    example: str
    required: bool


def field_words(table: type[BaseModel]) -> Iterator[FieldWords]:
    """Give the fields of a table in words, in its order.

    >>> from wendonic.profile.schema.gait import Gait
    >>> next(field_words(Gait))[2:]
    ('m/s', 'above 0, up to 1000', '3.2', '3.2', False)
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
        )


def field_unit(name: str, field: FieldInfo) -> str:
    """Return the unit of a field: that of its name's end, or the one that it declares.

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
        inside = ", ".join(f"{name} = {_shown(getattr(value, name))}" for name in value.model_fields_set)
        return f"{{ {inside} }}" if inside else "{}"
    if isinstance(value, tuple | list):
        return f"[{', '.join(map(_shown, value))}]"
    if isinstance(value, dict):
        return f"{{ {', '.join(f'{name} = {_shown(part)}' for name, part in value.items())} }}" if value else "{}"
    return f'"{value}"' if isinstance(value, str) else str(value)


def range_words(field: FieldInfo, units: float = 1.0) -> str:
    """Return in words which numbers, or which words, a field may hold; "" where any will do. Lengths are in what
    `units` of are a metre.
    """
    low, high = "", ""
    for mark in [*field.metadata, *_marks(field.annotation)]:
        if isinstance(mark, Words):
            return ", ".join(mark)
        for attribute, words in (("ge", "{} or more"), ("gt", "above {}")):
            if (bound := getattr(mark, attribute, None)) is not None:
                low = words.format(f"{bound * units:g}")
        for attribute, words in (("le", "up to {}"), ("lt", "below {}")):
            if (bound := getattr(mark, attribute, None)) is not None:
                high = words.format(f"{bound * units:g}")
    return ", ".join(filter(None, (low, high)))


def _marks(kind: Any) -> Iterator[Any]:
    """Go through everything that is annotated anywhere within a type."""
    for part in get_args(kind):
        if isinstance(part, FieldInfo):
            yield from part.metadata
        else:
            yield part
            yield from _marks(part)
