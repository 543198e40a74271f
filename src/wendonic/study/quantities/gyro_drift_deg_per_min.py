"""How far the view turns while the pad lies still."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.gyro import drift_deg_per_min
from wendonic.study.quantity import quantity


@quantity(
    730,
    "deg/min",
    "turn of the view while a pad with a bias of {gyro_drift_deg_s:g} deg/s has been lying still for half a minute",
)
def gyro_drift_deg_per_min(bench: Bench) -> float | None:
    """Let the pad lie for a minute; the second half counts."""
    return drift_deg_per_min(bench)
