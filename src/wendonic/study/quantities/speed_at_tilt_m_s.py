"""Speed at a tilt."""

from dataclasses import replace

from wendonic.study.bench import Bench
from wendonic.study.measuring.steady import held_steady
from wendonic.study.quantity import quantity


@quantity(144, "m/s", "steady speed at a tilt of {tilt:g} straight ahead")
def speed_at_tilt_m_s(bench: Bench) -> float | None:
    """Hold it until the speed is steady."""
    bench.need_gait()
    channel, bind = bench.tilt_entry
    walker = replace(bench.walker, entries={**bench.walker.entries, channel: bind})
    return held_steady(bench.moving, walker, walker.full(walker.ahead, amount=bench.thresholds.tilt), bench.engine)[1]
