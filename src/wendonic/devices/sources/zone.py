"""A zone of the touch screen."""

from typing import NamedTuple


class Zone(NamedTuple):
    """A rectangle of the window, in fractions of its width and height; y grows downwards."""

    left: float
    top: float
    right: float
    bottom: float

    def holds(self, x: float, y: float) -> bool:
        """Return whether a point lies in it, edges included.

        >>> Zone(0.0, 0.0, 0.3, 1.0).holds(0.3, 0.5)
        True
        """
        return self.left <= x <= self.right and self.top <= y <= self.bottom

    @property
    def middle(self) -> tuple[float, float]:
        """Where its middle is.

        >>> Zone(0.0, 0.0, 0.3, 1.0).middle
        (0.15, 0.5)
        """
        return (self.left + self.right) / 2.0, (self.top + self.bottom) / 2.0
