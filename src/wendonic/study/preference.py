"""Which of two sets of numbers players prefer, by blind votes, evaluated while voting goes on or at its end."""

import json
import math
from collections.abc import Iterable
from pathlib import Path
from typing import NamedTuple

from wendonic.errors import Fault, FileError, WendonicError

ERROR = 0.05
"""How often the votes of a player without a preference may settle it by chance."""

MOST_VOTES = 10_000


class VotesError(FileError):
    """Faults in a log of votes."""


class Preference(NamedTuple):
    """Votes for a and for b, the interval of a's share, and the preferred one once it is settled.

    `votes_to_settle` is the total number of votes that would settle it if they continue in this ratio; None if they
    are even.

    >>> preference(9, 0).settled, preference(9, 5).settled
    ('a', None)
    """

    a: int
    b: int
    low: float
    high: float
    settled: str | None
    votes_to_settle: int | None

    def __str__(self) -> str:
        """Say it in a line."""
        counts = f"A {self.a}, B {self.b} votes; share of A between {self.low:.2f} and {self.high:.2f}"
        if self.settled:
            return f"{counts}: {self.settled.upper()} is preferred"
        if self.votes_to_settle is None:
            return f"{counts}: not settled, and even so far"
        return f"{counts}: not settled; at this rate it would take {self.votes_to_settle} votes"


def preference(a: int, b: int, error: float = ERROR) -> Preference:
    """Return the preference from votes for a and b while voting goes on. It is valid after each vote, however often
    one looks.

    The evidence against a share p of a is M = B(a + 1, b + 1) / (p^a (1 - p)^b): the likelihood of the votes under a
    share drawn evenly from 0..1, over that under p. Under p it is a martingale that begins at 1, so the probability
    that it ever reaches 1 / error is at most `error` (Ville 1939; Robbins, Ann. Math. Stat. 1970). The interval
    contains the shares whose M is below that; the vote is settled once it excludes one half. Raises `WendonicError`
    for counts below 0, and for an error outside of 0..1.

    >>> print(preference(3, 1))
    A 3, B 1 votes; share of A between 0.14 and 1.00: not settled; at this rate it would take 34 votes
    >>> preference(14, 2).settled
    'a'
    """
    _counted(a, b, error)
    return Preference(a, b, *_share_interval(a, b, error), settled(a, b, error), votes_to_settle(a, b, error))


def votes_to_settle(a: int, b: int, error: float = ERROR) -> int | None:
    """Return the total number of votes that would settle it if they continue in this ratio; None if they are even, or
    beyond 10,000 votes. Without any votes, the smallest number that can settle it.

    >>> votes_to_settle(0, 0), votes_to_settle(5, 5)
    (8, None)
    """
    _counted(a, b, error)
    if a == b > 0:
        return None
    share = max(a, b) / (a + b) if a + b else 1.0
    for count in range(max(a + b, 1), MOST_VOTES + 1):
        more = math.floor(share * count + 0.5)
        if settled(more, count - more, error):
            return count
    return None


def exact_share(a: int, b: int, error: float = ERROR) -> tuple[float, float]:
    """Return the exact interval of a's share for a number of votes that was fixed before the first one.

    Clopper and Pearson (Biometrika 1934): quantiles of beta distributions. It is narrower than that of `preference`,
    and wrong if one stops as soon as the result pleases. Raises `WendonicError` for counts below 0.

    >>> [round(end, 4) for end in exact_share(8, 2)]
    [0.4439, 0.9748]
    """
    from scipy.stats import beta

    _counted(a, b, error)
    low = float(beta.ppf(error / 2.0, a, b + 1)) if a else 0.0
    high = float(beta.ppf(1.0 - error / 2.0, a + 1, b)) if b else 1.0
    return low, high


def read_votes(path: str | Path) -> tuple[int, int]:
    """Return the votes for a and for b in a log as the live page writes it: a header line, then one vote a line.

    Raises `VotesError` with all faulty lines.

    >>> import tempfile
    >>> with tempfile.TemporaryDirectory() as folder:
    ...     log = Path(folder, "votes.jsonl")
    ...     head = '{"format": "wendonic-votes", "version": 1}'
    ...     _ = log.write_text(head + chr(10) + '{"t": 3.5, "vote": "a"}' + chr(10))
    ...     read_votes(log)
    (1, 0)
    """
    try:
        lines = Path(path).read_text(encoding="utf-8").splitlines()
    except (OSError, UnicodeDecodeError) as fault:
        raise VotesError(
            path, [Fault(None, "", f"cannot be read: {getattr(fault, 'strerror', None) or fault}")]
        ) from None
    return _counts(path, lines)


def _counts(path: str | Path, lines: Iterable[str]) -> tuple[int, int]:
    counts = {"a": 0, "b": 0}
    faults: list[Fault] = []
    for number, line in enumerate(lines, 1):
        try:
            found = json.loads(line)
        except ValueError:
            found = None
        if number == 1:
            if not isinstance(found, dict) or found.get("format") != "wendonic-votes":
                raise VotesError(
                    path, [Fault(1, "", 'not a log of votes; allowed: {"format": "wendonic-votes", …} first')]
                )
        elif isinstance(found, dict) and found.get("vote") in counts:
            counts[found["vote"]] += 1
        else:
            faults.append(
                Fault(number, "vote", f'found {line[:40]!r}; allowed: {{"t": seconds, "vote": "a" or "b"}}')
            )
    if faults:
        raise VotesError(path, faults)
    return counts["a"], counts["b"]


def _counted(a: int, b: int, error: float) -> None:
    if a < 0 or b < 0 or a != int(a) or b != int(b):
        raise WendonicError(f"votes: found {a!r} and {b!r}; allowed: whole numbers, 0 or more")
    if not 0.0 < error < 1.0:
        raise WendonicError(f"error: found {error!r}; allowed: above 0 and below 1")


def _evidence(a: int, b: int, share: float) -> float:
    """Return the logarithm of the evidence against a share."""
    mixed = math.lgamma(a + 1) + math.lgamma(b + 1) - math.lgamma(a + b + 2)
    plain = (a * math.log(share) if a else 0.0) + (b * math.log1p(-share) if b else 0.0)
    return mixed - plain


def settled(a: int, b: int, error: float = ERROR) -> str | None:
    """Return which one is preferred, "a" or "b", once votes have settled it; see `preference`.

    >>> settled(7, 0), settled(8, 0), settled(2, 14)
    (None, 'a', 'b')
    """
    if _evidence(a, b, 0.5) < -math.log(error):
        return None
    return "a" if a > b else "b"


def _share_interval(a: int, b: int, error: float) -> tuple[float, float]:
    """Return the shares that are not rejected: the evidence rises on both sides of a / (a + b)."""
    from scipy.optimize import brentq

    limit, tiny = -math.log(error), 1e-12
    inside = min(max(a / (a + b), tiny), 1.0 - tiny) if a + b else 0.5

    def above(share: float) -> float:
        return _evidence(a, b, share) - limit

    low = 0.0 if above(tiny) <= 0.0 else float(brentq(above, tiny, inside))
    high = 1.0 if above(1.0 - tiny) <= 0.0 else float(brentq(above, inside, 1.0 - tiny))
    return low, high
