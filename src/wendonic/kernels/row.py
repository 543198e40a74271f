"""A row of numbers whose length no structure fixes: a measured rim, a curve through points, a course."""

from collections.abc import Sequence

Row = Sequence[float]
