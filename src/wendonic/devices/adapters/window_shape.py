"""The shape of a window, reported when it changes."""


class WindowShape:
    """Keeps the last reported shape.

    >>> shape = WindowShape()
    >>> shape.news(1280, 800), shape.news(640, 400), shape.news(0, 0), shape.news(640, 480)
    (1.6, None, None, 1.3333333333333333)
    """

    __slots__ = ("_reported",)

    def __init__(self) -> None:
        """Begin with nothing reported."""
        self._reported = 0.0

    def news(self, width: float, height: float) -> float | None:
        """Return width over height (both in one unit) if it has changed, otherwise None; a minimised window has no
        shape.
        """
        ratio = width / height if width > 0.0 and height > 0.0 else self._reported
        if ratio == self._reported:
            return None
        self._reported = ratio
        return ratio
