"""From a full tilt of the stick to half of it."""

from wendonic.devices.event import Event
from wendonic.runtime.helm import Helm
from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity

PROBE_TICK_S = 0.0005
LONGEST_S = 3.0


@quantity(240, "s", "from a full tilt of the stick to half of it")
def smoothing_delay_s(bench: Bench) -> float | None:
    """Tilt the stick all at once, forward or, seen from the side, to the right."""
    if bench.any_stick is None:
        return None
    helm = Helm(bench.moving)
    helm.apply(Event(0.0, *bench.any_stick.full(bench.any_stick.ahead)[0]))
    for _ in range(round(LONGEST_S / PROBE_TICK_S)):
        intent = helm.tick(PROBE_TICK_S)
        if max(abs(intent.local.forward), abs(intent.local.right)) >= 0.5:
            return intent.t
    return None
