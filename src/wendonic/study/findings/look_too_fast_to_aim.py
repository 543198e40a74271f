"""A look stick that turns fast from its edge on."""

from collections.abc import Iterator

from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.look_response import turn_rate_deg_s
from wendonic.study.stick_survey import STEPS, surveyed_sticks

AIM_TILT = 0.05
AIM_DEG_S = 25.0
"""A view that turns faster than this just past the dead zone cannot be aimed."""


@finding(130, "notice", "Small corrections overshoot, and players fight the stick instead of aiming.")
def look_too_fast_to_aim(case: Case) -> Iterator[Found]:
    """A look stick that turns fast from its edge on."""
    for stick in surveyed_sticks(case):
        if isinstance(stick.bind, LookStickBind) and not stick.bind.snaps:
            (rate_deg_s,) = turn_rate_deg_s(stick.bind, [min(stick.first / STEPS + AIM_TILT, 1.0)])
            if rate_deg_s > AIM_DEG_S:
                softer = [
                    {f"{stick.where}.curve": {"form": "expo", "amount": amount}} for amount in (0.55, 0.75, 0.9)
                ]
                round_zone = {f"{stick.where}.dead_zone.form": "round"}
                axis, usual_deg_s = ("yaw", 230.0) if stick.bind.sideways else ("pitch", 140.0)
                slower = {f"{stick.where}.{axis}_deg_s": usual_deg_s}
                yield Found(
                    f"{stick.where}.curve",
                    f"just past the dead zone (0.05) the view already turns at {rate_deg_s:.0f} deg/s",
                    [*softer, *({**one, **round_zone} for one in softer), {**softer[0], **slower}],
                )
