"""A faster gait that cannot jump."""

from collections.abc import Iterator
from typing import Any

from wendonic.study.finding import Case, Found, finding


@finding(204, "notice", "The press begins, and the body stays on the ground: to a player, the jump is lost.")
def jump_lost_in_gait(case: Case) -> Iterator[Found]:
    """A faster gait that cannot jump."""
    gaits = case.profile.gaits_of(case.mode)
    own = gaits[case.table.gait]
    if own.jump is None:
        return
    for press, name in case.table.press_gaits.items():
        # A slower gait, such as a crouch, may well stay on the ground.
        if gaits[name].jump is None and gaits[name].top_speed_m_s >= own.top_speed_m_s:
            where = f"gait.{name}.jump"
            jump = _written(case, own.jump.model_dump(exclude_unset=True))
            # A jump with `apex_s` has a gravity of its own.
            fixes = [{where: jump}, {where: jump, **case.out(f"gait.{name}.gravity_m_s2")}]
            yield Found(
                where,
                f"while {press} is held, {own.jump.press} does nothing: gait {name} has no jump",
                fixes,
            )


def _written(case: Case, jump: dict[str, Any]) -> dict[str, Any]:
    """Return the jump of the mode's own gait as its file has it, in the game's own unit if that is the file's."""
    tables = case.profile.written.get("gait", {})
    found = tables.get(case.table.gait, {}).get("jump")
    return dict(found) if found else jump
