"""The limits of a field's number."""

import math
from collections.abc import Iterable, Iterator
from typing import Any, get_args

from pydantic.fields import FieldInfo


def field_limits(field: FieldInfo, margin: float = 0.0) -> tuple[float, float]:
    """Return the smallest and largest value of a field's number, in the field's own unit; an exclusive limit is moved
    inwards by a margin.

    >>> from wendonic.profile.schema.gait import Gait
    >>> field_limits(Gait.model_fields["top_speed_m_s"]), field_limits(Gait.model_fields["top_speed_m_s"], 0.1)
    ((0.0, 1000.0), (0.1, 1000.0))
    """
    low, high = -math.inf, math.inf
    for limit in _limits((*field.metadata, field.annotation)):
        low = max(low, getattr(limit, "ge", getattr(limit, "gt", low - margin) + margin))
        high = min(high, getattr(limit, "le", getattr(limit, "lt", high + margin) - margin))
    return low, high


def is_whole(field: FieldInfo) -> bool:
    """Return whether the numbers of a field are whole numbers.

    >>> from wendonic.profile.schema.gait import Gait
    >>> from wendonic.profile.schema.move import Move
    >>> is_whole(Gait.model_fields["top_speed_m_s"]), is_whole(Move.model_fields["notches"])
    (False, True)
    """
    kinds = set(_kinds(field.annotation))
    return int in kinds and float not in kinds


def _kinds(annotation: Any) -> Iterator[type]:
    """Yield the types of the values that an annotation allows."""
    if isinstance(annotation, type):
        yield annotation
    for part in get_args(annotation):
        yield from _kinds(part) if isinstance(part, type) or get_args(part) else (type(part),)


def _limits(parts: Iterable[Any]) -> Iterator[Any]:
    """Yield the limits in an annotation, at any depth."""
    for part in parts:
        if any(hasattr(part, name) for name in ("ge", "gt", "le", "lt")) and not isinstance(part, type):
            yield part
        elif hasattr(part, "metadata") and not isinstance(part, type):
            yield from _limits(part.metadata)
        yield from _limits(get_args(part))
