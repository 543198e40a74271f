"""Simulated devices, seeded, for demos and for testing one's own game.

Each gives a list of events: `Recording(stand_in.events(...)).write("path.jsonl")` makes a recording of it.
"""

from wendonic.devices.standins.gyro import GyroStandIn
from wendonic.devices.standins.hand import HandPath, hand_path
from wendonic.devices.standins.hands import HandsStandIn, TrackingLoss
from wendonic.devices.standins.mouse import MouseStandIn
from wendonic.devices.standins.stick import StickStandIn
from wendonic.devices.standins.touch import TouchStandIn
from wendonic.devices.standins.tremor import Tremor
from wendonic.devices.standins.typist import Stroke, Typist

__all__ = [
    "GyroStandIn",
    "HandPath",
    "HandsStandIn",
    "MouseStandIn",
    "StickStandIn",
    "Stroke",
    "TouchStandIn",
    "TrackingLoss",
    "Tremor",
    "Typist",
    "hand_path",
]
