"""A top speed that is implausible for a body of its size."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding

LEAST_BODIES_S, MOST_BODIES_S = 0.1, 100.0
"""Widths of the body a second. A run is about 10, a bee in flight 60."""


@finding(178, "notice", "Lengths may be in the wrong unit: fields that end in _m are metres.")
def unit_mistaken(case: Case) -> Iterator[Found]:
    """A top speed that is implausible for a body of its size."""
    if case.table.steer.frame == "fly":
        return
    length = case.profile.world.length
    for name, gait, _ in case.gaits:
        bodies_s = gait.top_speed_m_s / gait.body_m
        if not LEAST_BODIES_S <= bodies_s <= MOST_BODIES_S:
            setting = "thrust_m_s2" if gait.drag_per_s is not None else "top_speed_m_s"
            yield Found(
                f"gait.{name}.{setting}",
                f"a top speed of {length.m_s(gait.top_speed_m_s)} is {bodies_s:.3g} widths of the body a second",
                (),
                "for a game in pixels, set units_per_m in [world] and write lengths with _u; otherwise set body_m of "
                "the gait to the width of its body",
            )
