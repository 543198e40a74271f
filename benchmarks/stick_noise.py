"""Sticks whose noise is not white, whose rims are not round, and what is true of each."""

import math
from typing import Any, NamedTuple

import numpy as np

from wendonic import Event, Recording

NOISES = (
    *("white", "t3", "laplace", "ar 0.05 s", "ar 0.2 s", "8 bits fine", "8 bits coarse", "8 bits quiet"),
    *("slow drift", "spikes", "dropouts", "off centre", "10 bits", "returns", "played", "uneven"),
)
RIMS = ("circle", "square", "octagon", "ellipse")
SIGMA = 0.004
QUIET = {"8 bits coarse": 0.0015, "8 bits quiet": 0.0003}
POLL_HZ, FREE_S, TURNS_S, END_S = 100.0, 6.0, 16.0, 18.0
DRIFT_PER_S = 0.0006
PUSHES, PUSH_S, EVERY_S = 10, 0.3, 1.4
RETURNING, SCATTER = ("returns", "played"), 0.012
"""Sticks that come to rest at another place each time that they are let go, and how far apart on an axis."""

UNEVEN, UNEVEN_S = 0.007, 0.3
"""A share by which a hand pushes harder or less hard than usual, and for how long."""

HOLDS, HOLD_S, THUMB = 8, 1.0, 0.006
"""How often and how long a stick is held at a small tilt in play, and how far the thumb trembles there."""

NORMAL = 1.4826


class Truth(NamedTuple):
    """Where a stick rests (raw, at a time), how its noise spreads, and how far it reaches (heading in rad)."""

    rest: Any
    spread: float
    inner: float | None
    rim: Any


def rim_length(kind: str, heading: float) -> float:
    """Return how far a rim is from its middle."""
    across, along = abs(math.sin(heading)), abs(math.cos(heading))
    if kind == "square":
        return 0.9 / max(across, along)
    if kind == "octagon":
        return 0.9 / max(across, along, (across + along) / math.sqrt(2.0))
    return 1.0 / math.hypot(across / 0.92, along / 0.84) if kind == "ellipse" else 0.9


def noise_of(kind: str, count: int, random: np.random.Generator) -> np.ndarray:
    """Return noise of both axes."""
    if kind == "t3":
        return random.standard_t(3.0, (count, 2)) * SIGMA / math.sqrt(3.0)
    if kind == "laplace":
        return random.laplace(0.0, SIGMA / math.sqrt(2.0), (count, 2))
    if kind.startswith("ar"):
        left = math.exp(-1.0 / (POLL_HZ * float(kind.split()[1])))
        driven = random.normal(0.0, SIGMA * math.sqrt(1.0 - left * left), (count, 2))
        driven[0] = random.normal(0.0, SIGMA, 2)
        for row in range(1, count):
            driven[row] += left * driven[row - 1]
        return driven
    return random.normal(0.0, QUIET.get(kind, SIGMA), (count, 2))


def true_spread(kind: str, share: float) -> tuple[float, float]:
    """Return the spread of a noise, and the distance within which a share of readings lies, by brute force."""
    plain = ("slow drift", "spikes", "dropouts", "off centre", "uneven")
    white = "white" if kind in plain or kind.startswith("ar") else kind
    noise = noise_of(white, 2_000_000, np.random.default_rng(99))
    step = step_of(kind)
    spread = NORMAL * float(np.median(np.abs(noise)))
    noise = np.round(noise / step) * step if kind.startswith(("8", "10")) else noise
    if kind in RETURNING:
        noise += np.random.default_rng(98).normal(0.0, SCATTER, noise.shape)
    # Where a quiet stick lies within a step, and so how far its readings are from there, is another matter each time.
    return spread, math.nan if kind == "8 bits quiet" else float(np.quantile(np.hypot(*noise.T), share))


def step_of(kind: str) -> float:
    """Return the step in which a stick reports."""
    return 2.0 / (2 ** (int(kind.split(maxsplit=1)[0]) if kind[0].isdigit() else 16) - 1)


def recorded(noise: str, rim: str, seed: int) -> tuple[Recording, Any]:
    """Return a recording of a stick that lies free, goes three times round its rim, and lies free; and where it rests
    at a time. One that comes to rest at another place each time is pushed aside and let go ten times, too; one that
    is played is held at small tilts after that.
    """
    random = np.random.default_rng([seed, NOISES.index(noise), RIMS.index(rim)])
    pushes = PUSHES if noise in RETURNING else 0
    play_s = END_S + pushes * EVERY_S
    count = int((play_s + (HOLDS * HOLD_S if noise == "played" else 0.0)) * POLL_HZ)
    holds: list[tuple[float, float]] = []
    pressed = 0.0
    places = random.normal(0.0, SCATTER, (PUSHES + 2, 2)) if pushes else np.zeros((PUSHES + 2, 2))
    widest = 0.2 if noise == "off centre" else 0.05
    middle = random.uniform(-widest, widest, 2)
    drift = np.array([DRIFT_PER_S, 0.0]) if noise == "slow drift" else np.zeros(2)
    trembles, step = noise_of(noise, count, random), step_of(noise)
    spikes = random.random(count) < 0.005
    if noise == "spikes":
        trembles[spikes] += random.normal(0.0, 0.1, (int(spikes.sum()), 2))
    events: list[Event] = []
    last, silent = None, 0
    for poll in range(count):
        t = poll / POLL_HZ
        tilt = min(max((t - FREE_S) / 0.3, 0.0), max((TURNS_S - t) / 0.3, 0.0), 1.0)
        heading = math.tau * min(max(t - FREE_S - 0.3, 0.0), 9.4) / 3.1
        released = int(t > FREE_S + 1.0)
        if noise == "played" and t >= play_s:
            if len(holds) <= (t - play_s) / HOLD_S:
                holds.append((random.uniform(0.17, 0.4), random.uniform(0.0, math.tau)))
            tilt, heading = holds[-1]
            tilt += THUMB * math.sin(math.tau * 8.5 * t)
            released += PUSHES
        elif pushes and t >= END_S:
            number, since = divmod(t - END_S, EVERY_S)
            tilt, heading = min(since / 0.1, max((PUSH_S - since) / 0.1, 0.0), 1.0), 2.4 * number
            released += int(number) + int(since > 0.1)
        rest = middle + drift * t + places[released]
        # The rim is the case's: a stick that rests beside its middle reaches less far on that side.
        reach = rim_length(rim, heading) * tilt
        if noise == "uneven":
            kept = math.exp(-1.0 / POLL_HZ / UNEVEN_S)
            pressed = kept * pressed + math.sqrt(1.0 - kept * kept) * random.normal(0.0, UNEVEN)
            reach *= 1.0 + pressed
        x = rest[0] * (1.0 - tilt) + reach * math.sin(heading) + trembles[poll, 0]
        y = rest[1] * (1.0 - tilt) - reach * math.cos(heading) + trembles[poll, 1]
        if noise == "dropouts":
            silent = silent - 1 if silent else int(random.integers(2, 8)) if random.random() < 0.003 else 0
            x, y = (0.0, 0.0) if silent else (x, y)
        reading = tuple(round(round((min(max(v, -1.0), 1.0) + 1.0) / step) * step - 1.0, 6) for v in (x, y))
        if reading != last:
            events.append(Event(round(t, 6), "pad.left_stick", reading))
            last = reading
    return Recording.from_checked(events), lambda t: middle + drift * t


def true_length(rim: str, rest: Any, heading: float) -> float:
    """Return how far the rim is from where a stick rests, by halving: inside of it or not."""
    low, high = 0.0, 3.0
    for _ in range(60):
        length = (low + high) / 2.0
        x = rest[0] + length * math.sin(heading)
        forward = -rest[1] + length * math.cos(heading)
        inside = math.hypot(x, forward) < rim_length(rim, math.atan2(x, forward))
        low, high = (length, high) if inside else (low, length)
    return low
