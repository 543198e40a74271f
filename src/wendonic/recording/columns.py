"""Events kept as columns of numbers until single events are needed."""

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Any, NamedTuple, overload

from wendonic.devices.controls import CONTROLS, TEXTS
from wendonic.devices.event import Event, Value, fitting_value
from wendonic.errors import ControlError

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray


class Columns(NamedTuple):
    """`t` (s); `codes`, indices in `names`; `numbers`, a column for each of an event's numbers; `texts`."""

    t: "NDArray[np.float64]"
    codes: "NDArray[np.intp]"
    names: tuple[str, ...]
    numbers: "tuple[NDArray[np.float64], ...]"
    texts: Sequence[str | None]


def is_sound(columns: Columns) -> bool:
    """Return whether all events are valid and in order, so that none of them has to be checked individually."""
    import numpy as np

    t, codes, names, numbers, texts = columns
    if not np.isfinite(t).all() or (np.diff(t) < 0.0).any():
        return False
    for code, name in enumerate(names):
        control = CONTROLS.get(name)
        # Other spellings of a control are corrected where events are made one by one.
        if control is None or control.name != name:
            return False
        if control.kind in TEXTS:
            if any(texts[row] is None for row in np.flatnonzero(codes == code).tolist()):
                return False
        else:
            rows = codes == code
            if not all(np.isfinite(column[rows]).all() for column in numbers[: max(control.width, 1)]):
                return False
    return True


_NUMBERS = frozenset({int, float})


def columns_of(entries: Sequence[dict[str, Any]]) -> Columns | None:
    """Return entries as columns; None unless all of them are valid and in their usual spelling.

    Nearly every file is, and this is several times as fast as making an event of each.

    >>> columns = columns_of([{"t": 0, "c": "key.KeyW", "v": 1}, {"t": 0.5, "c": "pad.left_stick", "v": [0.1, 1]}])
    >>> columns.t.tolist(), [column.tolist() for column in columns.numbers[:2]]
    ([0.0, 0.5], [[1.0, 0.1], [nan, 1.0]])
    >>> columns_of([{"t": 0, "c": "key.KeyW", "v": [1]}]) is None
    True
    """
    import numpy as np

    try:
        times = [entry["t"] for entry in entries]
        controls = [entry["c"] for entry in entries]
        values = [entry["v"] for entry in entries]
        names = tuple(dict.fromkeys(controls))
        code_of = {name: code for code, name in enumerate(names)}
        codes = np.array([code_of[name] for name in controls], dtype=np.intp)
        if not set(map(type, times)) <= _NUMBERS:
            return None
        t = np.array(times, dtype=float)
        numbers = [np.full(len(t), np.nan) for _ in range(max(control.width for control in CONTROLS.values()))]
        texts: list[str | None] = [None] * len(t)
        for code, name in enumerate(names):
            control = CONTROLS[name]
            rows = np.flatnonzero(codes == code)
            own = [values[row] for row in rows.tolist()]
            if control.kind in TEXTS:
                for row, value in zip(rows.tolist(), own, strict=True):
                    texts[row] = str(fitting_value(control, value))
                continue
            parts = own
            if control.width > 1:
                if set(map(type, own)) != {list} or set(map(len, own)) != {control.width}:
                    return None
                parts = [part for value in own for part in value]
            if not set(map(type, parts)) <= _NUMBERS:
                return None
            table = np.array(parts, dtype=float).reshape(len(rows), max(control.width, 1))
            for index in range(table.shape[1]):
                numbers[index][rows] = table[:, index]
    except (KeyError, TypeError, OverflowError, ControlError):
        return None
    columns = Columns(t, codes, names, tuple(numbers), texts)
    return columns if is_sound(columns) else None


class Apart(NamedTuple):
    """Events of one control: their indices among all events, and a row of numbers each."""

    indices: "NDArray[np.intp]"
    numbers: "NDArray[np.float64]"


class Parted(NamedTuple):
    """A recording's events in two parts: those of some controls as numbers, and all others with their indices. `t`
    has the times of all events.
    """

    t: "NDArray[np.float64]"
    apart: dict[str, Apart]
    others: list[Event]
    other_indices: "NDArray[np.intp]"


def parted(events: Sequence[Event], controls: frozenset[str]) -> Parted:
    """Return the events of some controls as numbers, one or more per event, without making events of columns.

    >>> found = parted([Event(0.0, "view", (10.0, 0.0)), Event(0.5, "key.KeyW", 1.0)], frozenset({"view"}))
    >>> found.apart["view"].numbers.tolist(), found.others
    ([[10.0, 0.0]], [Event(t=0.5, control='key.KeyW', value=1.0)])
    """
    import numpy as np

    if isinstance(events, ColumnEvents):
        return events.parted(controls)
    indices: dict[str, list[int]] = {name: [] for name in controls}
    values: dict[str, list[Value]] = {name: [] for name in controls}
    others: list[Event] = []
    other_indices: list[int] = []
    for index, event in enumerate(events):
        name = event[1]
        if name in controls:
            indices[name].append(index)
            values[name].append(event[2])
        else:
            others.append(event)
            other_indices.append(index)
    apart = {
        name: Apart(
            np.array(indices[name], dtype=np.intp),
            np.array(values[name], dtype=float).reshape(len(indices[name]), CONTROLS[name].width),
        )
        for name in controls
    }
    return Parted(np.array([event[0] for event in events]), apart, others, np.array(other_indices, dtype=np.intp))


class ColumnEvents(Sequence[Event]):
    """The events of valid columns, all of them made when the first one is needed."""

    def __init__(self, columns: Columns) -> None:
        """Keep the columns."""
        self._columns = columns
        self._made: list[Event] | None = None

    @property
    def times(self) -> "NDArray[np.float64]":
        """Times of all events (s)."""
        return self._columns.t

    def controls(self) -> frozenset[str]:
        """Return the names of all controls that have events."""
        import numpy as np

        return frozenset(
            self._columns.names[code] for code in np.flatnonzero(np.bincount(self._columns.codes)).tolist()
        )

    def parted(self, controls: frozenset[str]) -> Parted:
        """Do what `parted` does, without making events of those controls."""
        import numpy as np

        t, codes, names, numbers, texts = self._columns
        apart: dict[str, Apart] = {}
        left = np.ones(len(t), dtype=bool)
        for name in controls:
            rows = np.flatnonzero(codes == names.index(name)) if name in names else np.zeros(0, dtype=np.intp)
            width = CONTROLS[name].width
            apart[name] = Apart(rows, np.stack([column[rows] for column in numbers[:width]], axis=1))
            left[rows] = False
        indices = np.flatnonzero(left)
        rest = Columns(
            t[indices],
            codes[indices],
            names,
            tuple(column[indices] for column in numbers),
            [texts[index] for index in indices.tolist()],
        )
        return Parted(t, apart, list(map(Event._make, ColumnEvents(rest)._rows())), indices)

    def _events(self) -> list[Event]:
        if self._made is None:
            self._made = list(map(Event._make, self._rows()))
        return self._made

    def _rows(self) -> Iterator[tuple[float, str, Value]]:
        import numpy as np

        t, codes, names, numbers, texts = self._columns
        values: list[Value] = [0.0] * len(t)
        for code, name in enumerate(names):
            control = CONTROLS[name]
            rows = np.flatnonzero(codes == code)
            columns = [column[rows].tolist() for column in numbers[: max(control.width, 1)]]
            of_control: list[Value] = list(zip(*columns, strict=True)) if control.width > 1 else columns[0]
            if control.kind in TEXTS:
                of_control = [texts[row] or "" for row in rows.tolist()]
            for row, value in zip(rows.tolist(), of_control, strict=True):
                values[row] = value
        controls = [names[code] for code in codes.tolist()]
        return zip(t.tolist(), controls, values, strict=True)

    @overload
    def __getitem__(self, index: int) -> Event: ...
    @overload
    def __getitem__(self, index: slice) -> list[Event]: ...
    def __getitem__(self, index: int | slice) -> Event | list[Event]:
        """Return one event, or a list of them."""
        return self._events()[index]

    def __len__(self) -> int:
        """Return how many there are."""
        return len(self._columns.t)

    def __iter__(self) -> Iterator[Event]:
        """Iterate over the events in the order of time."""
        return iter(self._events())
