"""Collects lists of any length into one row of numbers."""


class NumberRows:
    """Collects curves through points and measured rims into one row of numbers, with the index of each.

    >>> rows = NumberRows()
    >>> rows.add(2, [0.5, 0.75]), rows.add(1, [1.0]), rows.numbers
    (0, 3, [2.0, 0.5, 0.75, 1.0, 1.0])
    """

    def __init__(self) -> None:
        """Begin with none."""
        self.numbers: list[float] = []

    def add(self, count: int, numbers: list[float]) -> int:
        """Take `count` entries; return the index of their count."""
        index = len(self.numbers)
        self.numbers += [float(count), *numbers]
        return index
