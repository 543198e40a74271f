"""Presses: what a player does with a key becomes held, began and ended, under one of five styles."""

from typing import NamedTuple

from wendonic.kernels.kernel import kernel

STYLE_SILENT = 0
STYLE_HOLD = 1
STYLE_TOGGLE = 2
STYLE_TAP = 3
STYLE_LONG = 4
STYLE_DOUBLE = 5

SLACK_S = 1e-9
"""A limit in seconds counts as reached when rounding alone keeps it from being so."""

FAR_S = 60.0
"""Times are counted no further: every limit of a profile is below."""


class PressTuning(NamedTuple):
    """The numbers of one press; `gated` is 1 for one that waits for the ground."""

    style: int
    tap_s: float
    long_s: float
    double_s: float
    gated: int
    buffer_s: float
    grace_s: float


class PressState(NamedTuple):
    """What a press gave this tick and carries to the next; flags are 0 or 1, times in seconds.

    `down` and `down_s`: its controls, and for how long; `first_s`: since the first of two, -1 for none; `on`: what
    the style makes of it; `wanted_s`: since it was asked for without being given, -1 for none; `air_s`: since the
    ground was last there; `begun_s`: since it last began.
    """

    down: float
    down_s: float
    first_s: float
    on: float
    wanted_s: float
    air_s: float
    begun_s: float
    held: float
    began: float
    ended: float


SILENT_PRESS = PressTuning(STYLE_SILENT, 0.0, 0.0, 0.0, 0, 0.0, 0.0)
PRESS_AT_REST = PressState(0.0, 0.0, -1.0, 0.0, -1.0, 0.0, FAR_S, 0.0, 0.0, 0.0)


@kernel
def styled(
    tuning: PressTuning, state: PressState, edges: float, lost: float, dt: float
) -> tuple[float, float, float, int, int]:
    """Return what a style makes of a tick: down_s, first_s, on, and how often it came on and went off.

    Downs and ups take turns, beginning with what `state` says was not the case; see `pressed`.
    """
    level, down_s, first_s, on, _, _, _, _, _, _ = state
    style, tap_s, long_s, double_s, _, _, _ = tuning
    if level > 0.0:
        down_s = min(down_s + dt, FAR_S)
    if first_s >= 0.0:
        first_s += dt
        if first_s > double_s + SLACK_S:
            first_s = -1.0
    ons = 0
    offs = 0
    count = int(edges)
    for edge in range(count):
        if level == 0.0:
            level = 1.0
            down_s = 0.0
            if style == STYLE_DOUBLE and first_s < 0.0:
                first_s = 0.0
            elif style == STYLE_TOGGLE and on > 0.0:
                on = 0.0
                offs += 1
            elif style in (STYLE_HOLD, STYLE_TOGGLE, STYLE_DOUBLE):
                first_s = -1.0
                on = 1.0
                ons += 1
        else:
            level = 0.0
            # The last up stands at the end, or just before a down that came after it.
            by_loss = lost > 0.0 and edge >= count - 2
            if style == STYLE_TAP and down_s <= tap_s + SLACK_S and not by_loss:
                ons += 1
                offs += 1
            elif on > 0.0 and style != STYLE_TOGGLE:
                on = 0.0
                offs += 1
    if style == STYLE_LONG and level > 0.0 and on == 0.0 and down_s >= long_s - SLACK_S:
        on = 1.0
        ons += 1
    return down_s, first_s, on, ons, offs


@kernel
def pressed(
    tuning: PressTuning, state: PressState, down: float, edges: float, lost: float, grounded: float, dt: float
) -> PressState:
    """Return the press's new state after `dt` seconds (above 0).

    `down` is 1 while one of its controls is held at the end of the tick, `edges` how often that changed during
    the tick, `lost` 1 if the last change to up was a loss (of the focus, or of the device) and not the player's.
    Downs and ups take turns, so the three numbers tell the whole course of the tick.

    Styles: `STYLE_HOLD` is on while down. `STYLE_TOGGLE` changes with every down. `STYLE_TAP` begins and ends at
    once when let go within `tap_s`. `STYLE_LONG` is on from `long_s` after the down until let go.
    `STYLE_DOUBLE` is on from the second down within `double_s` of the first until let go.

    A gated press begins only on the ground: at once, or as soon as the ground is there within `buffer_s` of being
    asked for; and still up to `grace_s` after the ground is gone, unless the press itself took it away, having
    begun no longer than `grace_s` before. What never began never ends.

    Times are counted from the end of the tick in which the change came, so nothing counts as held for longer than
    it was.

    >>> hold = SILENT_PRESS._replace(style=STYLE_HOLD)
    >>> tapped = pressed(hold, PRESS_AT_REST, 0.0, 2.0, 0.0, 1.0, 0.016)
    >>> tapped.held, tapped.began, tapped.ended
    (0.0, 1.0, 1.0)
    """
    _, _, first_s, on, wanted_s, air_s, begun_s, held, was_began, was_ended = state
    style, _, _, _, gated, buffer_s, grace_s = tuning
    if edges == 0.0 and down == state.down and held == on and was_began == was_ended == 0.0 and first_s < 0.0:
        # Only these two styles have no eye on the time while something is down or on.
        timeless = (down == 0.0 and on == 0.0) or style in (STYLE_HOLD, STYLE_TOGGLE)
        settled = grounded > 0.0 and air_s == 0.0 and begun_s >= FAR_S and wanted_s < 0.0
        if timeless and (gated == 0 or settled):
            return state
    down_s, first_s, on, ons, offs = styled(tuning, state, edges, lost, dt)
    if style == STYLE_SILENT:
        on = 0.0
    ended = 1.0 if held > 0.0 and (offs > 0 or on == 0.0) else 0.0
    if gated == 0:
        began = 1.0 if ons > 0 else 0.0
        if offs > 0:
            ended = 1.0
        return PressState(down, down_s, first_s, on, wanted_s, air_s, begun_s, on, began, ended)

    air_s = 0.0 if grounded > 0.0 else min(air_s + dt, FAR_S)
    begun_s = min(begun_s + dt, FAR_S)
    if wanted_s >= 0.0:
        wanted_s += dt
        if wanted_s > buffer_s + SLACK_S:
            wanted_s = -1.0
    if ons > 0:
        wanted_s = 0.0
    if ended > 0.0:
        held = 0.0
    in_grace = air_s <= grace_s + SLACK_S and begun_s > air_s + grace_s + SLACK_S
    if wanted_s < 0.0 or not (grounded > 0.0 or in_grace):
        return PressState(down, down_s, first_s, on, wanted_s, air_s, begun_s, held, 0.0, ended)
    if on == 0.0:
        ended = 1.0
    return PressState(down, down_s, first_s, on, -1.0, air_s, 0.0, on, 1.0, ended)
