"""A buffer that outlasts the jump."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding


@finding(200, "fault", "Pressed twice by a nervous thumb, it jumps again by itself after landing.")
def jumps_by_itself(case: Case) -> Iterator[Found]:
    """A buffer that outlasts the jump."""
    buffer_s, airtime_s = case.value("jump_buffer_s"), case.value("jump_airtime_s")
    if buffer_s is not None and airtime_s is not None and buffer_s > airtime_s:
        gait = case.profile.gait_of(case.mode)
        yield Found(
            f"{case.where}.press.{gait.jump.press if gait.jump else 'jump'}.buffer_s",
            f"a press counts for {buffer_s:.2f} s, and a jump is in the air for {airtime_s:.2f} s",
            f"buffer_s = {min(0.12, airtime_s / 2.0):.2f}",
        )
