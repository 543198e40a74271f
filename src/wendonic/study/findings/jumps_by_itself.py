"""A buffer that outlasts the jump."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding


@finding(200, "fault", "A second, nervous press makes the body jump again by itself after landing.")
def jumps_by_itself(case: Case) -> Iterator[Found]:
    """A buffer that outlasts the jump."""
    buffer_s, airtime_s = case.value("jump_buffer_s"), case.value("jump_airtime_s")
    if buffer_s is not None and airtime_s is not None and buffer_s > airtime_s:
        buffer = f"{case.where}.press.{case.jump.name}.buffer_s"
        yield Found(
            buffer,
            f"a press counts for {buffer_s:.2f} s, and a jump is in the air for {airtime_s:.2f} s",
            [{buffer: round(min(0.12, airtime_s / 2.0), 3)}],
        )
