"""Sticks that ask for something while a usual worn stick lies untouched."""

import math
from collections.abc import Iterator

from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.profile.schema.move_binds import StickBind
from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_response import StickResponse
from wendonic.study.thresholds import THRESHOLDS

NOISE_SIGMAS = 3.0
REST = (THRESHOLDS.rest_right, THRESHOLDS.rest_back)


@finding(220, "notice", "Hands off, the body walks or the view turns by itself.")
def dead_zone_small(case: Case) -> Iterator[Found]:
    """Sticks that ask for something while a usual worn stick lies untouched."""
    tilt = math.hypot(*REST) + NOISE_SIGMAS * THRESHOLDS.noise
    right, down = (part * tilt / math.hypot(*REST) for part in REST)
    for channel in ("move", "look"):
        of_channel = getattr(case.table, channel)
        for index, bind in enumerate(of_channel.bind if of_channel else ()):
            if not isinstance(bind, StickBind | LookStickBind) or bind.centre != (0.0, 0.0):
                continue
            move = case.table.move if channel == "move" else None
            amount = StickResponse(bind, move, case.table.steer.seen_from_side).amount(right, -down)
            if amount > 0.0:
                yield Found(
                    f"{case.where}.{channel}.bind[{index}].dead_zone.inner",
                    f"a usual worn stick lies at a tilt of up to {tilt:.3f}, and asks for {amount:.3f} there",
                    "dead_zone = { inner = 0.1 }; or wendonic calibrate a recording of the stick",
                )
