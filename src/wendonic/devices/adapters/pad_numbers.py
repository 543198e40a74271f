"""Numbers pads while they are plugged in and unplugged."""

from collections.abc import Hashable

from wendonic.devices.controls import PADS


class PadNumbers:
    """Gives pads the lowest free number, in the order in which they are plugged in; a pad that returns gets the
    number of the pad of its model that left, if that is still free.

    >>> pads = PadNumbers()
    >>> pads.plug_in(7, "smoker"), pads.plug_in(9, "hive"), pads.unplug(7), pads.plug_in(12, "smoker")
    ('pad', 'pad1', 'pad', 'pad')
    >>> pads.name(9), pads.unplug(7)
    ('pad1', None)
    """

    def __init__(self) -> None:
        """Begin with no pad."""
        self._names: dict[Hashable, str] = {}
        self._models: dict[Hashable, str] = {}
        self._gone: dict[str, list[str]] = {}

    def plug_in(self, device: Hashable, model: str = "") -> str | None:
        """Return the name of a device's pad, a new one if it has none yet; None if there are too many."""
        if device in self._names:
            return self._names[device]
        free = [pad for pad in PADS if pad not in self._names.values()]
        if not free:
            return None
        had = [pad for pad in self._gone.get(model, ()) if pad in free]
        name = self._names[device] = had[0] if had else free[0]
        self._models[device] = model
        if had:
            self._gone[model].remove(name)
        return name

    def name(self, device: Hashable) -> str | None:
        """Return the name of a device's pad, a new one for a device that was never announced."""
        return self.plug_in(device)

    def unplug(self, device: Hashable) -> str | None:
        """Return the name of a pad that was unplugged; None if it had none."""
        name = self._names.pop(device, None)
        if name is not None:
            self._gone.setdefault(self._models.pop(device), []).append(name)
        return name
