"""Presses that need a quicker finger than people have."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding

LEAST_TAP_S, LEAST_DOUBLE_S = 0.08, 0.15
"""People release a key after 0.05 to 0.15 s at their quickest, and press it again 0.1 to 0.2 s after the first."""


@finding(162, "notice", "Most players do not manage it, or only by luck.")
def press_too_quick(case: Case) -> Iterator[Found]:
    """Presses that need a quicker finger than people have."""
    for name, press in case.table.press.items():
        where = f"{case.where}.press.{name}"
        if press.style == "tap" and 0.0 < press.tap_s < LEAST_TAP_S:
            yield Found(
                f"{where}.tap_s", f"a tap has to be released within {press.tap_s:g} s", [{f"{where}.tap_s": 0.2}]
            )
        if press.style == "double" and 0.0 < press.double_s < LEAST_DOUBLE_S:
            yield Found(
                f"{where}.double_s",
                f"the second press has to come within {press.double_s:g} s of the first",
                [{f"{where}.double_s": 0.3}],
            )
