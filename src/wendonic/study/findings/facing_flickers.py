"""Facings that flicker on their borders."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding


@finding(190, "notice", "A heading that trembles on a border makes the sprite flicker between two facings.")
def facing_flickers(case: Case) -> Iterator[Found]:
    """Facings that flicker on their borders."""
    flicker = case.value("sector_flicker_per_min")
    if flicker:
        yield Found(
            f"{case.where}.steer.sector_margin_deg",
            f"on a border between two facings they change {flicker:.0f} times a minute",
            "sector_margin_deg = 6",
        )
