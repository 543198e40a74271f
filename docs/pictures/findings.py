"""The picture in which each fault of the page of findings shows."""

from collections.abc import Callable
from functools import partial
from typing import Any

from pages.finding_cases import CASES, HEAD

from wendonic.pictures import draw_curve, draw_diagonals, draw_feel, draw_look, draw_stick
from wendonic.profile.load import profile_from_text

DRAWN: dict[str, Callable[[Any], Any]] = {
    "curve": draw_curve,
    "diagonals": draw_diagonals,
    "feel": lambda profile: draw_feel({"with the fault": profile}),
    "look": draw_look,
    "stick": draw_stick,
}


def finding(slug: str) -> Any:
    """Return the picture of a fault."""
    case = CASES[slug]
    return DRAWN[case.picture](profile_from_text(HEAD + case.text))


PICTURES: dict[str, Callable[[], Any]] = {
    f"finding_{slug}": partial(finding, slug) for slug, case in CASES.items() if case.picture
}
"""Every picture by its name."""
