"""Full input that requests much less than top speed."""

from collections.abc import Iterator

from wendonic.devices.event import Event
from wendonic.devices.push import changes_between
from wendonic.runtime.helm import Helm
from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.step_response import shaping_s

LEAST = 0.9
SETTLE_S, TICK_S = 3.0, 0.05
"""How long full input is held at least, and the length of a tick."""


@finding(115, "notice", "Players with this device never reach the gait's top speed.")
def full_input_too_little(case: Case) -> Iterator[Found]:
    """Full input that requests much less than top speed."""
    if case.on_squares:
        return
    ticks = round(max(SETTLE_S, shaping_s(case.moving)) / TICK_S)
    for channel in ("move", "throttle"):
        for where, bind in case.entries(channel):
            upright = channel == "move" and not case.from_side
            directions = ((0.0, 1.0), (1.0, 0.0), (0.0, -1.0), (-1.0, 0.0)) if upright else ((1.0, 0.0), (-1.0, 0.0))
            requested = []
            for x, y in directions:
                pushes = bind.pushes(x, y, case.profile.window)
                if pushes is None:
                    continue
                helm = Helm(case.moving)
                for control, value in changes_between((), pushes):
                    helm.apply(Event(0.0, control, value))
                for _ in range(ticks):
                    intent = helm.tick(TICK_S)
                requested.append(abs(intent.throttle) if channel == "throttle" else max(map(abs, intent.local)))
            if requested and 0.0 < max(requested) < LEAST:
                ceiling, outer = f"{where}.curve.ceiling", f"{where}.dead_zone.outer"
                move = f"{case.where}.move"
                fixes = [
                    case.out(ceiling),
                    case.out(outer),
                    case.out(ceiling, outer),
                    case.out(f"{where}.rim", f"{where}.gate"),
                ]
                fixes += (
                    [{f"{move}.diagonal": "cap", **case.out(f"{move}.diagonal_factor")}] if channel == "move" else []
                )
                yield Found(
                    f"{where}.curve.ceiling" if hasattr(bind, "curve") else where,
                    f"{bind.called()} held all the way gives {max(requested):.2f} of top speed",
                    [fix for fix in fixes if fix],
                )
