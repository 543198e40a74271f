"""Borders on which a held stick switches back and forth because a margin is missing."""

import itertools
import math
import random
from collections.abc import Iterator
from typing import Any

from wendonic.profile.schema.move_binds import StickBind
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.steer.grid import GridSteer
from wendonic.runtime.helm import Helm
from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_response import StickResponse
from wendonic.study.thresholds import THRESHOLDS

HELD_S, HZ = 4.0, 60.0
JUMP = 0.08
"""A change of the request from one tick to the next that a player feels."""

SQUARES_S, SIDES = 8.0, 4

QUICK_S = 1e-9
"""A half-life far below the length of a tick."""

TIMES = 6
"""This many changes in HELD_S count as chatter."""


@finding(
    105, "notice", "A stick held near a border makes the body switch back and forth between two speeds or directions."
)
def chatters(case: Case) -> Iterator[Found]:
    """Hold each stick of `move`, with the usual tremor, on each border that its channel has."""
    move = case.table.move
    if move is None:
        return
    if case.on_squares:
        yield from _on_squares(case)
        return
    for where, bind in case.entries("move"):
        if not isinstance(bind, StickBind):
            continue
        zone = bind.dead_zone
        places: list[tuple[float, float, str, list[dict[str, Any]]]] = []
        if zone.uses("release") and zone.inner > 0.02:
            release = [{f"{where}.dead_zone.release": round(0.85 * zone.inner, 3)}]
            places.append((0.0, zone.inner, f"{where}.dead_zone.release", release))
        for pace in (move.paces or ())[1:]:
            tilt = _tilt_for(case, bind, pace.above)
            margin = [{f"{case.where}.move.pace_margin": 0.05}, *[case.out(f"{case.where}.move.pace_margin")]]
            places.append((0.0, tilt, f"{case.where}.move.pace_margin", margin))
        if move.notches and move.notch_pull == 1.0:
            margin = [
                {f"{case.where}.move.notch_margin_deg": 6.0},
                *[case.out(f"{case.where}.move.notch_margin_deg")],
            ]
            places.append((180.0 / move.notches, 0.8, f"{case.where}.move.notch_margin_deg", margin))
        for heading_deg, tilt, setting, fixes in places:
            times = _changes(case, bind, heading_deg, tilt)
            if times >= TIMES:
                words = f"{bind.stick} held at a tilt of {tilt:.2f} changes its request {times} times in {HELD_S:g} s"
                yield Found(setting, words, [fix for fix in fixes if fix])


def _on_squares(case: Case) -> Iterator[Found]:
    """Hold each stick on a border between two directions of squares, and count how often the direction of its steps
    changes.
    """
    steer = case.table.steer
    if not isinstance(steer, GridSteer) or steer.diagonals or not steer.repeats:
        return
    for _, bind in case.entries("move"):
        if not isinstance(bind, StickBind):
            continue
        trembles = random.Random(1)
        helm = Helm(case.moving)
        x, y = bind.tilted(math.radians(45.0), 1.0)
        steps: list[tuple[int, int]] = []
        for _ in range(round(SQUARES_S * HZ)):
            noise = (trembles.gauss(0.0, THRESHOLDS.noise) for _ in range(2))
            helm.stick(bind.stick, *(min(max(at + one, -1.0), 1.0) for at, one in zip((x, y), noise, strict=True)))
            step = helm.tick(1.0 / HZ).step
            if step is not None and step.began:
                steps.append((step.x - step.from_x, step.y - step.from_y))
        times = sum(one != other for one, other in itertools.pairwise(steps))
        if times >= SIDES:
            setting = f"{case.where}.steer.margin_deg"
            words = f"{bind.stick} held on a diagonal steps to another side {times} times in {SQUARES_S:g} s"
            yield Found(setting, words, [{setting: 6.0}, {setting: 10.0}])


def _tilt_for(case: Case, bind: StickBind, amount: float) -> float:
    """Return the tilt that requests an amount, before any paces."""
    plain = case.table.move.model_copy(update={"paces": None}) if case.table.move else None
    return StickResponse(bind, plain, case.from_side).tilt_for(amount) or 1.0


def _unsmoothed(case: Case) -> Profile:
    """Return the profile without smoothing, which only hides a change for some ticks.

    Existing smoothing is made too quick to matter rather than removed, so that the tick function stays the same.
    """
    table = case.moving.mode[case.mode]
    move = table.move
    if move and move.half_life_s > 0.0:
        move = move.model_copy(update={"half_life_s": QUICK_S})
    if move and move.one_euro:
        move = move.model_copy(update={"one_euro": move.one_euro.model_copy(update={"min_cutoff_hz": 1.0 / QUICK_S})})
    return case.moving.model_copy(update={"mode": {case.mode: table.model_copy(update={"move": move})}})


def _changes(case: Case, bind: StickBind, heading_deg: float, tilt: float) -> int:
    """Return how often the request jumps while a trembling thumb holds the stick there."""
    heading_deg = 90.0 if case.from_side else heading_deg
    x, y = bind.tilted(math.radians(heading_deg), tilt)
    trembles = random.Random(1)
    helm = Helm(_unsmoothed(case))
    last, times = None, 0
    for _ in range(round(HELD_S * HZ)):
        noise = (trembles.gauss(0.0, THRESHOLDS.noise) for _ in range(2))
        helm.stick(bind.stick, *(min(max(at + one, -1.0), 1.0) for at, one in zip((x, y), noise, strict=True)))
        local = helm.tick(1.0 / HZ).local
        if last is not None and math.hypot(local.right - last.right, local.forward - last.forward) > JUMP:
            times += 1
        last = local
    return times
