"""What presses."""

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


PressBind = SwitchBind | ZoneBind | WheelBind
