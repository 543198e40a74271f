"""What walking feels wrong by: diagonals and opposite keys; measured with everything pressed or tilted."""

from collections.abc import Iterator

from wendonic.devices.event import Event
from wendonic.profile.move_binds import KeysBind, StickBind
from wendonic.profile.schema import Profile
from wendonic.runtime.helm import Helm
from wendonic.study.alone import alone
from wendonic.study.finding import Finding
from wendonic.study.full_input import full_inputs

TOO_FAST = 1.02
"""Share of top speed from which a diagonal is told."""

PROBE_TICK_S = 0.0005
LONGEST_S = 3.0


def walking_findings(profile: Profile, mode: str) -> Iterator[Finding]:
    """Give what is wrong with the channel `move` of a mode."""
    move = profile.mode[mode].move
    if move is None:
        return
    where = f"mode.{mode}.move"
    if any(hasattr(bind, "keys") or hasattr(bind, "dpad") or isinstance(bind, StickBind) for bind in move.bind):
        fastest = max(full_inputs(profile, mode, steps=16), key=lambda full: full.fastest)
        if fastest.fastest > TOO_FAST:
            yield Finding(
                "diagonal-too-fast",
                "fault",
                f"{where}.diagonal",
                f"{fastest.name}: a diagonal asks for {fastest.fastest:.2f} of top speed",
                "Who walks aslant is faster than who walks straight, so everybody walks aslant.",
                'diagonal = "cap"',
            )
    for index, bind in enumerate(move.bind):
        if isinstance(bind, KeysBind):
            yield from _opposites(profile, mode, bind, f"{where}.bind[{index}]")


def _opposites(profile: Profile, mode: str, bind: KeysBind, where: str) -> Iterator[Finding]:
    for first, second in (("left", "right"), ("ahead", "back")):
        codes = getattr(bind.keys, first), getattr(bind.keys, second)
        if not all(codes):
            continue
        helm = Helm(alone(profile, mode))
        for names in codes:
            helm.key(names[0], down=True)
        for _ in range(40):
            intent = helm.tick(0.05)
        if intent.local != (0.0, 0.0):
            way = max(abs(intent.local.right), abs(intent.local.ahead))
            yield Finding(
                "opposites-do-not-cancel",
                "notice",
                f"{where}.opposites",
                f"{codes[0][0]} and {codes[1][0]} together ask for {way:.2f}",
                f'Under "{bind.opposites}" one of them wins; some rules of play take that for an unfair help.',
                'opposites = "cancel"',
            )
            return


def answer_s(profile: Profile, mode: str) -> float | None:
    """Return how long (s) a stick tilted all the way ahead takes to ask for half of it; None without a stick.

    >>> from wendonic.demo import demo_profile
    >>> round(answer_s(demo_profile(), "foot"), 3)
    0.02
    """
    move = profile.mode[mode].move
    sticks = [bind.stick for bind in (move.bind if move else ()) if isinstance(bind, StickBind)]
    if not sticks:
        return None
    helm = Helm(alone(profile, mode))
    helm.apply(Event(0.0, sticks[0], (0.0, -1.0)))
    for _ in range(round(LONGEST_S / PROBE_TICK_S)):
        intent = helm.tick(PROBE_TICK_S)
        if abs(intent.local.ahead) >= 0.5:
            return intent.t
    return None
