"""Presses: the states of their controls become held, began and ended, under one of six styles."""

from typing import NamedTuple

STYLE_SILENT = 0
STYLE_HOLD = 1
STYLE_TOGGLE = 2
STYLE_TAP = 3
STYLE_LONG = 4
STYLE_DOUBLE = 5
STYLE_REPEAT = 6

SLACK_S = 1e-9
"""A limit in seconds counts as reached if only rounding is missing."""

FAR_S = 60.0
"""Times are counted up to here: every limit of a profile is lower."""


class PressTuning(NamedTuple):
    """The numbers of one press; `waits` is 1 if it waits for the ground, `airs` if it can also begin `air_jumps`
    times in the air.
    """

    style: int
    tap_s: float
    long_s: float
    double_s: float
    repeat_delay_s: float
    repeat_interval_s: float
    waits: int
    buffer_s: float
    grace_s: float
    airs: int
    air_jumps: float


class PressInput(NamedTuple):
    """What happened to a press in a tick: `down` is 1 while one of its controls is held at the end of the tick,
    `edges` how often that changed during the tick, `lost` 1 if the last change to up was a loss (of the focus, or of
    the device) and not the player's, 2 if a loss came after it. Downs and ups alternate, so the three numbers
    describe the whole tick.
    """

    down: float
    edges: float
    lost: float


class PressState(NamedTuple):
    """The results of a press in this tick and what it carries to the next; flags are 0 or 1, times in seconds.

    `down` and `down_s`: whether its controls are down, and for how long (a repeating press subtracts an interval each
    time); `first_s`: time since the first of two taps, -1 for none; `on`: the state by its style; `wanted_s`: time
    since a request that waits, -1 for none; `air_s`: time since the ground was left; `air_count`: how often it began
    in the air since then; `begun_s`: time since the tick in which it last began; `held_s`: for how long it has been
    held, or was when it ended; `began_count`: how often it began in this tick.
    """

    down: float
    down_s: float
    first_s: float
    on: float
    wanted_s: float
    air_s: float
    air_count: float
    begun_s: float
    held: float
    began: float
    ended: float
    held_s: float
    began_count: float


SILENT_PRESS = PressTuning(STYLE_SILENT, 0.0, 0.0, 0.0, 1.0, 1.0, 0, 0.0, 0.0, 0, 0.0)
PRESS_AT_REST = PressState(0.0, 0.0, -1.0, 0.0, -1.0, FAR_S, 0.0, FAR_S, 0.0, 0.0, 0.0, 0.0, 0.0)


class StyleOutput(NamedTuple):
    """The result of a style for a tick: the times and the state it carries on, and how often it began and ended."""

    down_s: float
    first_s: float
    on: float
    ons: float
    offs: float


def style_output(tuning: PressTuning, state: PressState, raw: PressInput, dt: float) -> StyleOutput:
    """Return the result of a style for a tick, see `press_output`.

    >>> tap = SILENT_PRESS._replace(style=STYLE_TAP, tap_s=0.2)
    >>> style_output(tap, PRESS_AT_REST, PressInput(0.0, 2.0, 0.0), 0.1).ons
    1.0
    """
    style = tuning.style
    level, down_s, first_s, on = state.down, state.down_s, state.first_s, state.on
    if style == STYLE_DOUBLE and first_s > tuning.double_s + SLACK_S:
        first_s = -1.0
    ons = 0.0
    offs = 0.0
    edge = raw.edges
    while edge > 0.0:
        edge -= 1.0
        if level == 0.0:
            level = 1.0
            if style in (STYLE_TAP, STYLE_LONG, STYLE_REPEAT):
                down_s = 0.0
            # Pressed.
            if style == STYLE_DOUBLE and first_s < 0.0:
                first_s = 0.0
            elif style == STYLE_TOGGLE and on > 0.0:
                on = 0.0
                offs += 1.0
            elif style in (STYLE_HOLD, STYLE_TOGGLE, STYLE_DOUBLE, STYLE_REPEAT):
                first_s = -1.0
                on = 1.0
                ons += 1.0
        else:
            level = 0.0
            # Released. The last release is at the end, or just before a press that came after it.
            by_loss = raw.lost == 1.0 and edge <= 1.0
            if style == STYLE_TAP and down_s <= tuning.tap_s + SLACK_S and not by_loss:
                ons += 1.0
                offs += 1.0
            elif style != STYLE_TOGGLE and on > 0.0:
                on = 0.0
                offs += 1.0
    if style in (STYLE_TAP, STYLE_LONG, STYLE_REPEAT) and level > 0.0:
        down_s = min(down_s + dt, FAR_S)
    if style == STYLE_DOUBLE and first_s >= 0.0:
        first_s += dt
    if style == STYLE_LONG and level > 0.0 and on == 0.0 and down_s >= tuning.long_s - SLACK_S:
        on = 1.0
        ons += 1.0
    if style == STYLE_REPEAT and level > 0.0:
        while down_s >= tuning.repeat_delay_s - SLACK_S:
            down_s -= tuning.repeat_interval_s
            ons += on
    return StyleOutput(down_s, first_s, on, ons, offs)


class Waiting(NamedTuple):
    """The state of a press that waits, see `PressState`, and whether it begins."""

    wanted_s: float
    air_s: float
    air_count: float
    begun_s: float
    began: float


def waiting_output(
    tuning: PressTuning, state: PressState, raw: PressInput, ons: float, grounded: float, dt: float
) -> Waiting:
    """Return whether a press that waits for the ground begins, see `press_output`.

    >>> double_jump = SILENT_PRESS._replace(waits=1, airs=1, air_jumps=1.0)
    >>> pressed = PressInput(1.0, 1.0, 0.0)
    >>> waited = waiting_output(double_jump, PRESS_AT_REST, pressed, 1.0, grounded=0.0, dt=0.01)
    >>> waited.began, waited.air_count
    (1.0, 1.0)
    """
    air_s = 0.0 if grounded > 0.0 else state.air_s
    air_count = state.air_count
    wanted_s = state.wanted_s
    # A press waits for the ground for buffer_s.
    if wanted_s > tuning.buffer_s + SLACK_S:
        wanted_s = -1.0
    if ons > 0.0:
        wanted_s = 0.0
    if raw.lost > 0.0 and raw.down == 0.0:
        wanted_s = -1.0
    # On the ground, all air jumps are available again.
    if tuning.airs > 0 and grounded > 0.0:
        air_count = 0.0
    began = 0.0
    if wanted_s >= 0.0:
        # It begins on the ground, or up to grace_s after leaving it, unless a jump was the reason.
        grace_s = tuning.grace_s + SLACK_S
        if grounded > 0.0 or (air_s <= grace_s and state.begun_s > air_s + grace_s):
            began = 1.0
        elif tuning.airs > 0 and wanted_s == 0.0 and air_count < tuning.air_jumps:
            air_count += 1.0
            began = 1.0
        if began > 0.0:
            wanted_s = -1.0
    if wanted_s >= 0.0:
        wanted_s += dt
    if grounded <= 0.0:
        air_s = min(air_s + dt, FAR_S)
    # A jump that begins in the last tick on the ground uses up the grace.
    begun_s = 0.0 if began > 0.0 else min(state.begun_s + dt, FAR_S)
    return Waiting(wanted_s, air_s, air_count, begun_s, began)


def press_output(tuning: PressTuning, state: PressState, raw: PressInput, grounded: float, dt: float) -> PressState:
    """Return the press's new state after `dt` seconds (above 0).

    Styles: `STYLE_HOLD` is on while down. `STYLE_TOGGLE` switches with every down. `STYLE_TAP` begins and ends at
    once when released within `tap_s`. `STYLE_LONG` is on from `long_s` after the down until released. `STYLE_DOUBLE`
    is on from the second down within `double_s` of the first until released. `STYLE_REPEAT` is on while down, and
    begins again `repeat_delay_s` after the down and every `repeat_interval_s` from then on.

    A press that waits begins only on the ground: at once, or on landing within `buffer_s` of being pressed, and up to
    `grace_s` after leaving the ground, unless the press itself caused that by beginning at most `grace_s` before. A
    press that never began never ends. With `airs` it also begins at once in the air, up to `air_jumps` times until
    the next landing.

    Changes count from the beginning of the tick in which they arrive, like all input. A request that still waits is
    forgotten when the control is lost.

    >>> hold = SILENT_PRESS._replace(style=STYLE_HOLD)
    >>> tapped = press_output(hold, PRESS_AT_REST, PressInput(0.0, 2.0, 0.0), 1.0, 0.016)
    >>> tapped.held, tapped.began, tapped.ended
    (0.0, 1.0, 1.0)
    """
    if tuning.style == STYLE_SILENT:
        if state.held == 0.0:
            return PRESS_AT_REST
        # Held in from another mode: it ends here.
        return state._replace(down=raw.down, on=0.0, held=0.0, began=0.0, ended=1.0, began_count=0.0)
    timed = tuning.style in (STYLE_TAP, STYLE_LONG, STYLE_DOUBLE, STYLE_REPEAT)
    if not timed and tuning.waits == 0 and raw.edges == 0.0 and state.on == 0.0 and state.held == 0.0:
        # At rest.
        return state._replace(down=raw.down, began=0.0, ended=0.0, held_s=0.0, began_count=0.0)
    down_s, first_s, on = state.down_s, state.first_s, state.on
    ons = offs = 0.0
    if timed or raw.edges > 0.0:
        down_s, first_s, on, ons, offs = style_output(tuning, state, raw, dt)
    held = state.held
    ended = 1.0 if held > 0.0 and (offs > 0.0 or on == 0.0) else 0.0
    began = 0.0
    wanted_s, air_s, air_count, begun_s = state.wanted_s, state.air_s, state.air_count, state.begun_s
    if tuning.waits == 0:
        began = 1.0 if ons > 0.0 else 0.0
        if offs > 0.0:
            ended = 1.0
        held = on
    else:
        if ended > 0.0:
            held = 0.0
        waited = waiting_output(tuning, state, raw, ons, grounded, dt)
        wanted_s, air_s, air_count, begun_s, began = waited
        if began > 0.0:
            if on == 0.0:
                ended = 1.0
            held = on
    began_count = ons if tuning.waits == 0 else began
    held_s = dt if held > 0.0 else 0.0
    anew = began > 0.0 and (tuning.style != STYLE_REPEAT or raw.edges > 0.0 or state.held == 0.0)
    if not anew and (held > 0.0 or ended > 0.0):
        held_s += state.held_s
    return PressState(
        raw.down,
        down_s,
        first_s,
        on,
        wanted_s,
        air_s,
        air_count,
        begun_s,
        held,
        began,
        ended,
        held_s,
        began_count,
    )
