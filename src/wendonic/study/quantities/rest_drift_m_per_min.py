"""Drift while a stick lies untouched."""

from wendonic.batch.trace import shaped
from wendonic.study.bench import Bench
from wendonic.study.probes.stick_paths import untouched
from wendonic.study.quantity import quantity
from wendonic.study.summary import summarise


@quantity(
    180,
    "m/min",
    "drift while a stick is untouched: at its centre, or like a worn one at ({rest_right:g}, {rest_back:g})",
)
def rest_drift_m_per_min(bench: Bench) -> float | None:
    """Leave the stick alone at its rest point."""
    bench.need_gait()
    walked = shaped(untouched(bench.stick_bind), bench.moving, hz=60, engine=bench.engine)
    return summarise(walked).rest_drift_m_per_min
