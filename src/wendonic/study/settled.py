"""The request of a channel once a control has been held for a while."""

import math

from wendonic.devices.event import Event, Value
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.helm import Helm

SETTLE_S = 3.0
TICK_S = 0.05

_DIRECTIONS = {(1, 0): "right", (-1, 0): "left", (0, 1): "forward", (0, -1): "back"}


def settled_request(profile: Profile, channel: str, control: str, value: Value) -> tuple[float, float]:
    """Return the output of a channel, right and forward, in a profile of one mode; for `look`, how far the view
    turned, right and up (deg).
    """
    helm = Helm(profile)
    helm.apply(Event(0.0, control, value))
    yaw_deg = pitch_deg = 0.0
    for _ in range(round(SETTLE_S / TICK_S)):
        intent = helm.tick(TICK_S)
        yaw_deg += intent.look.yaw_deg
        pitch_deg += intent.look.pitch_deg
    if channel == "look":
        return yaw_deg, pitch_deg
    if channel == "move":
        return intent.local
    return (intent.turn, 0.0) if channel == "turn" else (0.0, intent.rise if channel == "rise" else intent.throttle)


def direction_word(x: float, y: float) -> str:
    """Return which of the four main directions is nearest.

    >>> direction_word(0.5, -0.9)
    'back'
    """
    across = abs(x) >= abs(y)
    return _DIRECTIONS[(int(math.copysign(1, x)), 0) if across else (0, int(math.copysign(1, y)))]
