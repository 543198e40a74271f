"""A press that only some of the players have a control for."""

from collections.abc import Iterator

from wendonic.profile.schema.mode import Mode
from wendonic.study.finding import Case, Found, finding
from wendonic.study.seated import CHANNELS, seated


@finding(159, "notice", "Not every player can do it.")
def press_of_one_player(case: Case) -> Iterator[Found]:
    """Look for presses that are for everybody but that only some of the players in this mode have a control for."""
    modes = {player: seated(case.profile, player).mode[case.mode] for player in case.profile.seat}
    playing = {player: mode for player, mode in modes.items() if _has_anything(mode)}
    for name, press in case.table.press.items():
        having = [player for player, mode in playing.items() if mode.press[name].bind]
        lacking = [player for player in playing if player not in having]
        if press.seat is None and having and lacking:
            meant = f', or write seat = "{having[0]}" if that is meant' if len(having) == 1 else ""
            yield Found(
                f"{case.where}.press.{name}",
                f"{_seats(having)} a control for it, and {_seats(lacking)} none",
                (),
                f"bind a control for {' and '.join(f'seat {player}' for player in lacking)}{meant}",
            )


def _has_anything(mode: Mode) -> bool:
    return any(getattr(mode, channel) for channel in CHANNELS) or any(press.bind for press in mode.press.values())


def _seats(players: list[str]) -> str:
    return f"seat {players[0]} has" if len(players) == 1 else f"seats {' and '.join(players)} have"
