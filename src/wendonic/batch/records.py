"""The results of a run's ticks."""

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray


class Records:
    """The records of some ticks, as tuples (one per tick) or as a table (one row per tick).

    A probe reads three of forty numbers, so a column is made from tuples only when it is read.
    """

    def __init__(self, listed: list[tuple[float, ...]], table: "NDArray[np.float64] | None" = None) -> None:
        """Take the records of all ticks; with a `table`, those of the first ticks are copied into it."""
        self._listed = listed
        self._table = table
        self._columns: dict[int, NDArray[np.float64]] = {}
        if table is not None and listed:
            table[: len(listed)] = listed

    def __len__(self) -> int:
        """Return how many ticks there are."""
        return len(self._listed) if self._table is None else len(self._table)

    def column(self, index: int) -> "NDArray[np.float64]":
        """Return one number of every tick."""
        import numpy as np

        if self._table is not None:
            return self._table[:, index]
        column = self._columns.get(index)
        if column is None:
            column = self._columns[index] = np.array([record[index] for record in self._listed], dtype=float)
        return column
