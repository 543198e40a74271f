"""A thumb on the touch screen: how far it slides to full input, and how the middle moves when it slides too far."""

from collections.abc import Callable
from typing import NamedTuple

from wendonic.batch.trace import shaped
from wendonic.devices.event import Event
from wendonic.profile.schema.move_binds import TouchStickBind
from wendonic.recording.recording import Recording
from wendonic.runtime.helm import Helm
from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import shaping_s
from wendonic.study.unmeasured import NotHere, Unmeasured, once_each

TICK_S = 0.05
HALVINGS = 40


class Slide(NamedTuple):
    """How far a thumb slides until input is full, and how far the middle moves in an overlong slide, in window
    heights.
    """

    travel: float
    drift: float


@once_each
def slide(bench: Bench) -> Slide:
    """Return the slide of a thumb to the right, where it can go furthest; raises `NotHere` without a stick under the
    thumb, and `Unmeasured` if the window is too small for it.
    """
    binds = bench.table.move.bind if bench.table.move else ()
    bind = next((bind for bind in binds if isinstance(bind, TouchStickBind)), None)
    if bind is None:
        raise NotHere("no stick under a thumb")
    # Overlapping zones are not measured here.
    table = bench.moving.mode[bench.mode]
    only_thumb = table.move.model_copy(update={"bind": (bind,)}) if table.move else None
    profile = bench.moving.model_copy(update={"mode": {bench.mode: table.model_copy(update={"move": only_thumb})}})
    window = profile.window
    left, middle = window.zone_of(bind.touch_stick).middle
    room = (1.0 - left) * window.aspect_ratio
    if room < 2.0 * bind.radius:
        raise Unmeasured("the window ends before the thumb is at twice the radius")
    wait = round(shaping_s(bench.moving) / TICK_S)

    def requested(*slides: float) -> float:
        """Return the request after the thumb has moved through some places, in window heights."""
        helm: Helm = bench.helm(profile)
        helm.touch(0, left, middle)
        helm.tick(TICK_S)
        for away in slides:
            helm.touch(0, left + away / window.aspect_ratio, middle)
            helm.tick(TICK_S)
        for _ in range(wait):
            intent = helm.tick(TICK_S)
        return intent.local.right

    most = requested(bind.radius)
    if most <= 0.0:
        raise NotHere("a thumb that slides to the rim requests nothing")
    travel = _halved(lambda away: requested(away) >= most - 1e-9, 0.0, bind.radius)
    # The raw tilt gives the thumb's distance from the middle.
    places = [left + away * bind.radius / window.aspect_ratio for away in (0.0, 2.0, 1.0)]
    slides = [Event(number * TICK_S, "touch.0", (x, middle, 1.0)) for number, x in enumerate(places)]
    ends = Event((len(places) + 1) * TICK_S, "mark", "end")
    back = shaped(Recording([*slides, ends]), profile, hz=1.0 / TICK_S, engine=bench.engine)
    return Slide(travel, bind.radius * (1.0 - float(back["raw_x"][-1])))


def _halved(beyond: Callable[[float], bool], low: float, high: float) -> float:
    """Return where a condition first becomes true."""
    if beyond(low):
        return low
    for _ in range(HALVINGS):
        middle = (low + high) / 2.0
        low, high = (low, middle) if beyond(middle) else (middle, high)
    return high
