"""Zones of the touch screen in which one finger does two things."""

from collections.abc import Iterator
from itertools import combinations

from wendonic.profile.double_bindings import BoundControl, bound_controls
from wendonic.profile.field_path import dotted
from wendonic.profile.schema.bind import zone_control
from wendonic.profile.schema.window import USUAL_ZONES
from wendonic.study.finding import Case, Found, finding


@finding(155, "notice", "A finger that lands in the overlap does both.")
def zones_overlap(case: Case) -> Iterator[Found]:
    """Zones of the touch screen in which one finger does two things."""
    window, table = case.profile.window, case.table
    names = {zone_control(name): name for name in (*USUAL_ZONES, *window.zone)}
    zones: list[tuple[str, BoundControl]] = [
        (names[control], bound)
        for bound in bound_controls(table.bound_channels, table.press)
        for control in bound.controls
        if control in names
    ]
    for (one, first), (other, second) in combinations(zones, 2):
        a, b = window.zone_of(one), window.zone_of(other)
        wide = min(a.right, b.right) - max(a.left, b.left)
        high = min(a.bottom, b.bottom) - max(a.top, b.top)
        if one != other and first.owner != second.owner and first.meets(second) and wide > 0.0 and high > 0.0:
            parts = (int(part) if part.isdigit() else part for part in second.where.split("."))
            yield Found(
                dotted(["mode", case.mode, *parts]),
                f'zone "{other}" and zone "{one}" ({first.owner}) share {100.0 * wide * high:.1f} % of the window',
                (),
                "use zones that do not overlap, or shared = true if both are intended",
            )
