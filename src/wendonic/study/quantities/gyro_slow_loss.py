"""How much of a slow turn is lost."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.gyro import slow_loss
from wendonic.study.quantity import quantity


@quantity(
    720,
    "",
    "share of a turn at {gyro_aim_deg_s:g} deg/s that is lost, compared with one at {gyro_turn_deg_s:g} deg/s",
)
def gyro_slow_loss(bench: Bench) -> float | None:
    """Turn the pad slowly, after a quick turn."""
    return slow_loss(bench)
