"""Smoothing and ramps that players feel as a delay."""

from collections.abc import Iterator

from wendonic.profile.schema.keyed import Ramped
from wendonic.profile.schema.look_binds import MouseBind
from wendonic.study.bench import Bench
from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.request import request_response
from wendonic.study.unmeasured import Unmeasured

DELAY_S = 0.05
"""Delay of half the answer from which smoothing is reported."""

RAMP_S = 0.12
"""Delay of half the answer from which a key's ramp is reported: a ramp is meant to take time, but not that long."""


@finding(210, "notice", "The body lags behind the hand; players notice from about 50 ms.")
def slow_answer(case: Case) -> Iterator[Found]:
    """Smoothing and ramps that players feel as a delay."""
    smoothing_s = _smoothing_s(case)
    if smoothing_s is not None and smoothing_s > DELAY_S:
        half_life, out = f"{case.where}.move.half_life_s", case.out(f"{case.where}.move.one_euro")
        one_euro = case.table.move is not None and case.table.move.one_euro is not None
        yield Found(
            f"{case.where}.move.{'one_euro' if one_euro else 'half_life_s'}",
            f"smoothing delays half of the request by {smoothing_s * 1000.0:.0f} ms",
            [{half_life: 0.02, **out}, {half_life: 0.0, **out}],
        )
    for where, bind in case.entries("move", "throttle", "turn", "rise"):
        # A ramp is linear, so that half of it takes half of its time.
        if isinstance(bind, Ramped) and bind.rise_s / 2.0 > RAMP_S:
            yield Found(
                f"{where}.rise_s",
                f"the key's ramp delays half of the request by {bind.rise_s * 500.0:.0f} ms",
                [{f"{where}.rise_s": 0.1}],
            )
    for where, bind in case.entries("look"):
        # By definition, half of a displacement has been handed out after a half-life.
        if isinstance(bind, MouseBind) and bind.half_life_s > DELAY_S:
            yield Found(
                f"{where}.half_life_s",
                f"smoothing delays half of a swipe by {bind.half_life_s * 1000.0:.0f} ms",
                [{f"{where}.half_life_s": 0.01}],
                "",
                "The view lags behind the hand; players notice from about 50 ms.",
            )


def _smoothing_s(case: Case) -> float | None:
    """Return the delay (s) of half the answer that smoothing of `move` alone causes, without any ramp."""
    move = case.table.move
    if move is None or case.on_squares:
        return None
    if move.one_euro is None:
        # By definition, half of a change has been made after a half-life.
        return move.half_life_s
    at_once = {"rise_s": 0.0, "fall_s": 0.0}
    binds = tuple(bind.model_copy(update=at_once) if isinstance(bind, Ramped) else bind for bind in move.bind)
    table = case.table.model_copy(update={"move": move.model_copy(update={"bind": binds})})
    profile = case.profile.model_copy(update={"mode": {**case.profile.mode, case.mode: table}})
    try:
        response = request_response(Bench(profile, case.mode, case.engine))
        return response.reached_s(case.thresholds.half * response.final)
    except Unmeasured:
        return None
