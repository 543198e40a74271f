"""The amounts of each stick of a mode, step by step from rest to its rim."""

from collections.abc import Iterator
from typing import Any, NamedTuple

from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.profile.schema.tilted import Tilted
from wendonic.study.finding import Case
from wendonic.study.stick_response import StickResponse
from wendonic.study.unmeasured import once_each

STEPS = 1000

FULL_AMOUNT = {
    "move": "full speed",
    "throttle": "full speed",
    "turn": "the full turn rate",
    "rise": "a full climb",
    "look": "the fastest turn of the view",
}
"""Name of an amount of 1 on each channel."""


class StickSurvey(NamedTuple):
    """A stick's `bind` entry, its field path, the amounts at STEPS + 1 tilts straight ahead, the first step with an
    effect, and the first with the full amount.
    """

    bind: Tilted | LookStickBind
    where: str
    amounts: list[float]
    first: int
    full: int
    wears: bool
    """Whether its rim can wear: that of a stick can, that of a thumb on the touch screen cannot."""
    channel: str


@once_each
def surveyed_sticks(case: Case) -> tuple[StickSurvey, ...]:
    """Return the sticks of a mode, channel by channel."""
    return tuple(_surveyed(case))


def _surveyed(case: Case) -> Iterator[StickSurvey]:
    for channel in ("move", "throttle", "turn", "rise", "look"):
        of_channel: Any = getattr(case.table, channel)
        for index, bind in enumerate(of_channel.bind if of_channel else ()):
            snaps = isinstance(bind, LookStickBind) and bind.snaps
            if isinstance(bind, Tilted | LookStickBind) and bind.called() != "hands" and not snaps:
                stick = StickResponse(bind)
                wears = any(control.endswith((".x", ".y")) for control in bind.controls())
                amounts = [stick.ahead(step / STEPS) for step in range(STEPS + 1)]
                first = next((step for step, amount in enumerate(amounts) if amount > 0.0), STEPS)
                most = max(amounts)
                full = next(step for step, amount in enumerate(amounts) if amount >= most - 1e-9)
                yield StickSurvey(bind, f"{case.where}.{channel}.bind[{index}]", amounts, first, full, wears, channel)
