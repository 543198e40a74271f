"""A press that switches a gait or scales the request, and is on for one tick at most."""

from collections.abc import Iterator

from wendonic.errors import WendonicError
from wendonic.study.finding import Case, Found, finding
from wendonic.study.held_press import held_press


@finding(163, "fault", "The player presses it and feels no difference.")
def held_for_a_tick(case: Case) -> Iterator[Found]:
    """Hold every press that switches a gait or scales the request, as its style requires."""
    scaled = case.table.move.press_amounts if case.table.move else {}
    does = {press: f"gait {name} counts" for press, name in case.table.press_gaits.items()}
    does |= {press: "its factor counts" for press in scaled if press not in does}
    for press, what in does.items():
        try:
            held_press(case.looking, press)
        except WendonicError:
            where = f"{case.where}.press.{press}"
            style = case.table.press[press].style
            held = [{f"{where}.style": "hold", **case.out(f"{where}.tap_s")}] if style != "hold" else []
            yield Found(
                f"{where}.style" if style != "hold" else f"{where}.bind",
                f"{press} is on for one tick at most, and {what} for no longer",
                [*held, {f"{where}.style": "toggle"}],
                'bind a control that can be held, or write style = "toggle"',
            )
