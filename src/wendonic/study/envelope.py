"""What a profile wants in every direction, with everything pressed or tilted all the way."""

import math
from typing import NamedTuple

from wendonic.errors import WendonicError
from wendonic.kernels.source.gate import GATE_MEASURED, GATE_SQUARE, rim_length
from wendonic.profile.schema.move_binds import DpadBind, KeysBind, StickBind
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.helm import Helm
from wendonic.study.directions import EIGHT_DIRECTIONS
from wendonic.study.one_mode import one_mode
from wendonic.study.probes.walker import DPAD_BUTTONS

SETTLED = 1e-7
MOST_TICKS = 2000
MOST_LETTERS = 20
"""Keys whose names are longer than this are called just so."""


class Envelope(NamedTuple):
    """One source of `move`: its name, and (right, forward) wanted of top speed for each heading (deg) of full input.

    `round` is true for a stick, which has every heading; keys have eight.
    """

    name: str
    round: bool
    headings_deg: tuple[float, ...]
    wanted: tuple[tuple[float, float], ...]

    @property
    def fastest(self) -> float:
        """The longest of them."""
        return max((math.hypot(*pair) for pair in self.wanted), default=0.0)


def _settled(helm: Helm) -> tuple[float, float]:
    """Tick until nothing changes any more: ramps and smoothing have arrived."""
    last = helm.tick(0.05).local
    for _ in range(MOST_TICKS):
        local = helm.tick(0.05).local
        if math.hypot(local[0] - last[0], local[1] - last[1]) < SETTLED:
            return local[0], local[1]
        last = local
    return last[0], last[1]


def _of_keys(profile: Profile, bind: KeysBind | DpadBind) -> Envelope:
    if isinstance(bind, KeysBind):
        names = {direction: [f"key.{code}" for code in codes] for direction, codes in bind.keys.model_dump().items()}
        order = [names[direction] for direction in ("forward", "left", "back", "right") if names[direction]]
        words = " ".join(codes[0].removeprefix("key.").removeprefix("Key").removeprefix("Arrow") for codes in order)
        title = f"keys {words}" if len(words) <= MOST_LETTERS else "keys"
    else:
        names = {direction: [f"{bind.dpad}_{button}"] for direction, button in DPAD_BUTTONS.items()}
        title = bind.dpad
    headings: list[float] = []
    wanted: list[tuple[float, float]] = []
    for index, together in enumerate(EIGHT_DIRECTIONS):
        if not all(names[direction] for direction in together):
            continue
        helm = Helm(profile)
        for direction in together:
            control = names[direction][0]
            if control.startswith("key."):
                helm.key(control.removeprefix("key."), down=True)
            else:
                helm.button(control, 1.0)
        headings.append(45.0 * index)
        wanted.append(_settled(helm))
    return Envelope(title, False, tuple(headings), tuple(wanted))


def _of_stick(profile: Profile, bind: StickBind, steps: int) -> Envelope:
    rows = NumberRows()
    form = bind.stick_tuning(rows)
    headings: list[float] = []
    wanted: list[tuple[float, float]] = []
    for step in range(steps):
        heading = math.tau * step / steps
        right, forward = math.sin(heading), math.cos(heading)
        rim = 1.0
        if form.gate == GATE_SQUARE:
            rim = 1.0 / max(abs(right), abs(forward))
        elif form.gate == GATE_MEASURED:
            rim = rim_length(right, forward, rows.numbers, form.rim)
        helm = Helm(profile)
        centre_x, centre_y = bind.centre
        helm.stick(bind.stick, centre_x + rim * right, centre_y - rim * forward)
        headings.append(math.degrees(heading))
        wanted.append(_settled(helm))
    return Envelope(bind.stick, True, tuple(headings), tuple(wanted))


def envelopes(profile: Profile, mode: str | None = None, steps: int = 144) -> list[Envelope]:
    """Return what each key list, d-pad and stick of a mode's `move` wants in every direction, all the way down.

    A stick goes along its own rim: a circle, a square, or what was measured. Raises `WendonicError` where the mode
    has none of them.

    >>> from wendonic.demo import demo_profile
    >>> keys, stick = envelopes(demo_profile(), steps=8)
    >>> keys.name, keys.headings_deg[1], round(keys.fastest, 6), round(stick.fastest, 6)
    ('keys W A S D', 45.0, 1.0, 1.0)
    """
    name = profile.mode_name(mode)
    move = profile.mode[name].move
    only = one_mode(profile, name)
    inputs: list[Envelope] = []
    for bind in move.bind if move else ():
        if isinstance(bind, KeysBind | DpadBind):
            inputs.append(_of_keys(only, bind))
        elif isinstance(bind, StickBind):
            inputs.append(_of_stick(only, bind, steps))
    if not inputs:
        raise WendonicError(f'mode "{name}" has neither keys nor a stick under move.bind; there is nothing to draw')
    return inputs
