"""A channel `turn` that does not turn a body whose facing is forward."""

from collections.abc import Iterator

from wendonic.profile.schema.steer.sprite import Faced
from wendonic.study.finding import Case, Found, finding


@finding(155, "notice", "The control for turning does nothing, and forward stays where it is.")
def turn_unused(case: Case) -> Iterator[Found]:
    """A channel `turn` that does not turn a body whose facing is forward."""
    steer = case.table.steer
    if steer.frame == "facing" and isinstance(steer, Faced) and case.table.turn and steer.face != "turn":
        face = f"{case.where}.steer.face"
        measured = f'the body faces "{steer.face}", so turn does not turn it'
        yield Found(face, measured, [{face: "turn"}], "or read intent.turn in the game")
