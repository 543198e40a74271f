"""Sticks that request something while a usual worn stick lies untouched."""

import math
from collections.abc import Iterator

from wendonic.devices.sources.names import find_axis
from wendonic.profile.schema.axis_binds import AxisBind
from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.profile.schema.move_binds import AxesBind, StickBind
from wendonic.significant import significant
from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_response import StickResponse
from wendonic.study.stick_survey import FULL_AMOUNT
from wendonic.study.thresholds import THRESHOLDS

NOISE_SIGMAS = 3.0
REST = (THRESHOLDS.rest_right, THRESHOLDS.rest_back)


@finding(220, "notice", "With hands off the stick, the body walks or the view turns by itself.")
def dead_zone_small(case: Case) -> Iterator[Found]:
    """Sticks that request something while a usual worn stick lies untouched."""
    tilt = math.hypot(*REST) + NOISE_SIGMAS * THRESHOLDS.noise
    right, down = (part * tilt / math.hypot(*REST) for part in REST)
    for where, bind in case.entries("move", "throttle", "turn", "rise", "look"):
        if not isinstance(bind, StickBind | LookStickBind | AxesBind | AxisBind):
            continue
        if isinstance(bind, LookStickBind) and bind.snaps:
            continue
        x, y = right, 0.0 - down
        why = f"a typical worn stick rests at a tilt of up to {tilt:.3f}"
        if isinstance(bind, StickBind | LookStickBind) and bind.centre != (0.0, 0.0):
            # Its rest point is known, but not its noise there.
            noise = NOISE_SIGMAS * THRESHOLDS.noise
            x, y = bind.centre[0], 0.0 - bind.centre[1]
            if isinstance(bind, LookStickBind) and not bind.sideways:
                y += noise
            else:
                x += noise
            why = f"a typical stick trembles by up to {noise:.3f} about its centre"
        if isinstance(bind, AxisBind):
            if find_axis(bind.axis)[0].kind == "button":
                continue
            x, y = (right if bind.axis.endswith(".x") else 0.0 - down), 0.0
        channel = where.removeprefix(f"{case.where}.").partition(".")[0]
        move = case.table.move if channel == "move" else None
        response = StickResponse(bind, move, case.from_side and move is not None)
        amount = response.amount(x, y)
        if amount > 0.0:
            zone = f"{where}.dead_zone"
            fixes = [
                {f"{zone}.inner": inner, **({} if bind.dead_zone.uses("inner") else {f"{zone}.form": "round"})}
                for inner in (0.1, 0.14)
                if inner > bind.dead_zone.inner or not bind.dead_zone.uses("inner")
            ]
            # A wedge pulls directions towards straight lines and leaves those unchanged; after rounding it still
            # pulls.
            form = "round+wedge" if bind.dead_zone.form == "wedge" else "round"
            yield Found(
                f"{zone}.inner",
                f"{why}, which requests {significant(100.0 * amount, 2)} % of {FULL_AMOUNT[channel]}",
                [*fixes, {f"{zone}.form": form, f"{zone}.inner": 0.14}],
                "or record the stick and use wendonic calibrate",
            )
