"""A path that depends on the tick rate."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding

TICK_SHARE = 0.02


@finding(170, "notice", "The game feels different on a screen with another refresh rate.")
def depends_on_ticks(case: Case) -> Iterator[Found]:
    """A path that depends on the tick rate."""
    difference = case.value("tick_dependence")
    if difference is not None and difference > TICK_SHARE:
        move = f"{case.where}.move"
        exact = {f"{move}.half_life_s": 0.02, **case.out(f"{move}.one_euro")}
        yield Found(
            case.where,
            f"the path differs by {difference:.1%} between 30, 60 and 144 ticks a second",
            [exact] if case.table.move else (),
            "or tick at a fixed step: helm.fixed_ticks(frame_dt, step_s)",
        )
