"""Controls that make presses."""

from collections.abc import Sequence
from typing import NamedTuple

from wendonic.devices.sources.zone import Zone


class SwitchBind(NamedTuple):
    """Keys or buttons that are down together; a trigger is down from `above` on until it is back at `release`."""

    controls: Sequence[str]
    above: float = 0.5
    release: float = 0.4


class ZoneBind(NamedTuple):
    """A finger that landed in the zone."""

    zone: Zone


class WheelBind(NamedTuple):
    """Notches of the wheel, away from the user or towards the user."""

    towards: bool


class StickBind(NamedTuple):
    """A stick tilted in one direction: down from `above` on until it is back at `release`; x and y as the device
    counts.
    """

    stick: str
    towards: str
    above: float
    release: float


class UnlessBind(NamedTuple):
    """Keys or buttons while any of which is held nothing goes down."""

    controls: Sequence[str]


TOWARDS: dict[str, tuple[int, float]] = {"up": (1, -1.0), "down": (1, 1.0), "left": (0, -1.0), "right": (0, 1.0)}
"""For each direction of a stick, the index of its number, and the sign."""

PressBind = SwitchBind | ZoneBind | WheelBind | StickBind | UnlessBind
