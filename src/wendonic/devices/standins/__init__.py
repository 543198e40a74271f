"""Simulated devices, seeded, for demos and for testing one's own game."""

from wendonic.devices.standins.hand import HandPath, hand_path
from wendonic.devices.standins.stick import StickStandIn
from wendonic.devices.standins.typist import Stroke, Typist

__all__ = ["HandPath", "StickStandIn", "Stroke", "Typist", "hand_path"]
