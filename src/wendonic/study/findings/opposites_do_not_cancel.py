"""Opposite keys that do not cancel when both are held."""

from collections.abc import Iterator

from wendonic.profile.schema.move_binds import KeysBind
from wendonic.runtime.helm import Helm
from wendonic.study.finding import Case, Found, finding


@finding(80, "notice", "One of two opposite keys wins; some rules of play take that for an unfair help.")
def opposites_do_not_cancel(case: Case) -> Iterator[Found]:
    """Opposite keys that do not cancel when both are held."""
    for index, bind in enumerate(case.table.move.bind if case.table.move else ()):
        if isinstance(bind, KeysBind):
            yield from _of_keys(case, bind, f"{case.where}.move.bind[{index}]")


def _of_keys(case: Case, bind: KeysBind, where: str) -> Iterator[Found]:
    for first, second in (("left", "right"), ("forward", "back")):
        codes = getattr(bind.keys, first), getattr(bind.keys, second)
        if not all(codes):
            continue
        helm = Helm(case.one_mode)
        for names in codes:
            helm.key(names[0], down=True)
        for _ in range(40):
            intent = helm.tick(0.05)
        if intent.local != (0.0, 0.0):
            most = max(abs(intent.local.right), abs(intent.local.forward))
            yield Found(
                f"{where}.opposites",
                f"{codes[0][0]} and {codes[1][0]} together ask for {most:.2f}",
                'opposites = "cancel"',
                f'Under "{bind.opposites}" one of them wins; some rules of play take that for an unfair help.',
            )
            return
