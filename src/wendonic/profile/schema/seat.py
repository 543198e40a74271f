"""A player's place among several pads."""

from collections.abc import Iterable

from wendonic.devices.controls import PADS
from wendonic.errors import ControlError, did_you_mean


class Seat:
    """Where a profile says `pad`, this player has another pad; raises `ControlError` for one that does not exist.

    >>> Seat("pad1").own("pad.left_stick"), Seat("pad1").own("key.KeyW")
    ('pad1.left_stick', 'key.KeyW')
    """

    def __init__(self, seat: str | None = None) -> None:
        """Take the name of a pad, None or "pad0" for the first one."""
        pad = "pad" if seat in (None, "pad0") else str(seat)
        if pad not in PADS:
            raise ControlError(f'unknown seat "{seat}"{did_you_mean(pad, PADS) or ";"} seats: {", ".join(PADS)}')
        self._prefix = f"{pad}."

    def own(self, name: str | None) -> str:
        """Return the control that `name` means in this seat."""
        if not name:
            return ""
        return self._prefix + name[4:] if name.startswith("pad.") else name

    def all_own(self, names: Iterable[str]) -> tuple[str, ...]:
        """Return the controls that `names` mean."""
        return tuple(map(self.own, names))
