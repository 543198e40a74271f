"""What a stick feels wrong by: too much that is dead, a jump at its edge, a rim out of reach, a flat stretch."""

from collections.abc import Iterator
from typing import Any

from wendonic.profile.binds import Tilted
from wendonic.profile.look_binds import LookStickBind
from wendonic.profile.schema import Profile
from wendonic.profile.shapes import TAKES_NOTHING
from wendonic.study.finding import Finding
from wendonic.study.look_response import yaw_rate_deg_s
from wendonic.study.response import StickResponse

DEAD_TILT = 0.2
JUMP = 0.1
RIM_TILT = 0.98
"""A stick that is worn, or no stick of the best, gives no more than this in some direction."""

FLAT = 0.2
AIM_TILT = 0.05
AIM_DEG_S = 25.0
"""So little past the dead zone, a view that turns faster cannot be aimed."""

STEPS = 1000


def stick_findings(profile: Profile, mode: str) -> Iterator[Finding]:
    """Give what is wrong with the sticks of a mode, channel by channel."""
    table = profile.mode[mode]
    for channel in ("move", "throttle", "turn", "rise", "look"):
        of_channel: Any = getattr(table, channel)
        for index, bind in enumerate(of_channel.bind if of_channel else ()):
            if hasattr(bind, "stick") and isinstance(bind, Tilted | LookStickBind):
                yield from _one(bind, f"mode.{mode}.{channel}.bind[{index}]")


def _one(bind: Tilted | LookStickBind, where: str) -> Iterator[Finding]:
    stick = StickResponse(bind)
    amounts = [stick.amount(0.0, step / STEPS) for step in range(STEPS + 1)]
    first = next((step for step, amount in enumerate(amounts) if amount > 0.0), STEPS)
    if first / STEPS > DEAD_TILT:
        yield Finding(
            "dead-zone-large",
            "notice",
            f"{where}.dead_zone.inner",
            f"nothing happens up to a tilt of {first / STEPS:.2f}",
            "Over a fifth of the stick's way is gone; small steps are made by luck.",
            "dead_zone = { inner = 0.12 }",
        )
    if amounts[first] > JUMP:
        yield Finding(
            "jump-at-dead-zone",
            "notice",
            f"{where}.dead_zone" if bind.curve.floor == 0.0 else f"{where}.curve.floor",
            f"leaving the dead zone gives {amounts[first]:.2f} at once",
            "There is no slow walk: the first step is already so fast.",
            'dead_zone = { form = "round" }' if bind.curve.floor == 0.0 else "floor = 0.05",
        )
    most = max(amounts)
    full = next(step for step, amount in enumerate(amounts) if amount >= most - 1e-9)
    if full / STEPS > RIM_TILT:
        has_outer = bind.dead_zone.form not in TAKES_NOTHING
        yield Finding(
            "rim-out-of-reach",
            "notice",
            f"{where}.dead_zone.{'outer' if has_outer else 'form'}",
            f"everything is asked for from a tilt of {full / STEPS:.2f} on",
            "Worn sticks, and many diagonals, end below that: their players never get there.",
            "dead_zone = { outer = 0.95 }" if has_outer else 'dead_zone = { form = "round", outer = 0.95 }',
        )
    window = round(FLAT * STEPS)
    for start in range(first, full - window):
        if amounts[start + window] - amounts[start] < 1e-9:
            yield Finding(
                "curve-flat",
                "notice",
                f"{where}.curve",
                f"from a tilt of {start / STEPS:.2f} to {(start + window) / STEPS:.2f} nothing changes",
                "A fifth of the way or more tells the game nothing.",
                'curve = { form = "power", exponent = 1.6 }',
            )
            break
    if isinstance(bind, LookStickBind) and bind.snap_deg is None:
        (rate_deg_s,) = yaw_rate_deg_s(bind, [min(first / STEPS + AIM_TILT, 1.0)])
        if rate_deg_s > AIM_DEG_S:
            yield Finding(
                "look-too-fast-to-aim",
                "notice",
                f"{where}.curve",
                f"a twentieth past the dead zone the view turns at {rate_deg_s:.0f} deg/s already",
                "Small corrections overshoot; players fight the stick instead of aiming.",
                'curve = { form = "expo", amount = 0.55 }',
            )
