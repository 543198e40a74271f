"""Facings that flicker on their borders."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding

MARGINS_DEG = (4.0, 6.0, 8.0, 12.0)


@finding(190, "notice", "A heading that trembles at a border makes the sprite flicker between two facings.")
def facing_flickers(case: Case) -> Iterator[Found]:
    """Facings that flicker on their borders."""
    flicker = case.value("sector_flicker_per_min")
    if flicker:
        steer = case.table.steer
        most_deg = 180.0 / (steer.sectors or 1)
        margin = f"{case.where}.steer.sector_margin_deg"
        fixes = [{margin: more} for more in MARGINS_DEG if steer.sector_margin_deg < more < most_deg]
        yield Found(margin, f"at a border between two facings they change {flicker:.0f} times a minute", fixes)
