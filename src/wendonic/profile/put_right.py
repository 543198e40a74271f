"""Corrects the faults of a content: pydantic validates a table as a whole only if all of its fields are valid, so
faults of the whole appear only then.
"""

import copy
from collections import Counter
from collections.abc import Callable, Collection, Iterable, Iterator, Sequence
from difflib import get_close_matches
from typing import Any

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from wendonic.profile.error_place import field_path_at, part_of, path_along, table_around
from wendonic.profile.inherited import with_inherited
from wendonic.profile.references import unknown_references
from wendonic.profile.schema.table import OWN_FAULTS, OWN_WORDS, Table
from wendonic.profile.trade_words import field_meant
from wendonic.profile.units import in_metres

MOST_ROUNDS = 12
"""Faults may hide other faults; most rounds in which they are uncovered."""


def hidden_errors(
    root: type[Table], content: dict[str, Any], first: Sequence[ErrorDetails]
) -> tuple[list[ErrorDetails], list[ErrorDetails]]:
    """Return the errors of whole tables that appear once those of `first` are corrected: when the wrong values are
    removed, and when examples replace them. An error that appears both times is not caused by the correction.
    """
    return _later(root, content, first, _take_out), _later(root, content, first, _put_example)


def own_lines(error: ErrorDetails) -> list[tuple[str, str]]:
    """Return (path from the table on, message) for each line of an error that has several."""
    lines = str(error["ctx"]["words"]).splitlines()
    return [(where, what) for where, _, what in (line.partition(": ") for line in lines)]


def without_references(error: ErrorDetails, named: Collection[tuple[str, str]]) -> ErrorDetails:
    """Return an error of several lines without those about unknown names."""
    words = "\n".join(f"{where}: {what}" for where, what in own_lines(error) if (where, what) not in named)
    return {**error, "ctx": {"words": words}}


def _later(
    root: type[Table],
    content: dict[str, Any],
    errors: Sequence[ErrorDetails],
    put_right: Callable[[type[Table], Any, ErrorDetails, int], None],
) -> list[ErrorDetails]:
    found: list[ErrorDetails] = []
    tried: Counter[str] = Counter()
    whole = copy.deepcopy(with_inherited(in_metres(content)))
    for _ in range(MOST_ROUNDS):
        # From the last entry of a list to the first, since removing one shifts those after it.
        for error in reversed(errors):
            tried[error["msg"]] += 1
            put_right(root, whole, error, tried[error["msg"]])
        try:
            root.model_validate(whole)
        except ValidationError as fault:
            errors = fault.errors()
            named = unknown_references(whole) if root.refers_by_name else []
            found += [one for one in errors if one["type"] == OWN_WORDS]
            found += [without_references(one, named) for one in errors if one["type"] == OWN_FAULTS]
        else:
            break
    return found


def _paths(root: type[Table], whole: Any, error: ErrorDetails) -> Iterator[list[str | int]]:
    path = field_path_at(root, error["loc"])
    if error["type"] != OWN_FAULTS:
        yield path
        return
    for where, _ in reversed(own_lines(error)):
        yield path_along(whole, path, where)


def _take_out(root: type[Table], whole: Any, error: ErrorDetails, _: int) -> None:
    if error["type"] == "missing" and len(error["loc"]) == 1:
        _put_nearest_example(root, whole, error["loc"])
        return
    for path in _paths(root, whole, error):
        _without(whole, path[:-1] if error["type"] == "missing" else path)


def _put_example(root: type[Table], whole: Any, error: ErrorDetails, attempt: int) -> None:
    if error["type"] == OWN_FAULTS:
        for path in _paths(root, whole, error):
            # The wrong field may be another one than the one named: the table around them, and if that does not help,
            # the one around that.
            _without(whole, path[: max(1, len(path) - attempt)])
    elif error["type"] == "extra_forbidden":
        _rename(root, whole, error)
    else:
        _put_nearest_example(root, whole, error["loc"])


def path_meant(root: type[Table], loc: Sequence[str | int]) -> list[str | int] | None:
    """Return the path of the field that an unknown key at `loc` means, None if that is not known."""
    *above, written = field_path_at(root, loc)
    known = table_around(root, loc).model_fields
    meant = field_meant(str(written), known) or next(iter(get_close_matches(str(written), known, n=1)), None)
    return None if meant is None else [*above, meant]


def _rename(root: type[Table], whole: Any, error: ErrorDetails) -> None:
    """Rename an unknown key to the name that was meant, if it is known; otherwise remove it."""
    _without(whole, field_path_at(root, error["loc"]))
    meant = path_meant(root, error["loc"])
    if meant is not None and _value(whole, meant) is None:
        _put(whole, meant, error["input"])


def _put_nearest_example(root: type[Table], whole: Any, loc: Sequence[str | int]) -> None:
    """Put the schema's example at `loc`, or at the nearest place around it that has one."""
    for end in range(len(loc), 0, -1):
        field = table_around(root, loc[:end]).model_fields.get(str(loc[end - 1]))
        if field is not None and field.examples:
            path, example = field_path_at(root, loc[:end]), copy.deepcopy(field.examples[0])
            entry = field_path_at(root, loc)[len(path) :]
            if len(entry) == 1 and isinstance(example, list):
                path, example = [*path, *entry], example[0]
            _put(whole, path, example)
            return


def _value(whole: Any, path: Iterable[str | int]) -> Any:
    for part in path:
        whole = part_of(whole, part)
    return whole


def _without(whole: Any, path: Sequence[Any]) -> None:
    *above, last = path or [""]
    whole = _value(whole, above)
    if isinstance(whole, dict | list) and part_of(whole, last) is not None:
        del whole[last]


def _put(whole: Any, path: Sequence[Any], value: Any) -> None:
    *above, last = path
    whole = _value(whole, above)
    if isinstance(whole, dict) or (isinstance(whole, list) and part_of(whole, last) is not None):
        whole[last] = value
