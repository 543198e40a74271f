"""Votes between two sets of numbers: never settled too often, however often one looks, and the same on the page."""

import functools
import json
import math
import random
import shutil
import subprocess

import numpy as np
import pytest
from scipy import stats

from test_house import TOP
from test_page_play import ALL_TOOLS
from wendonic import WendonicError
from wendonic.study.preference import VotesError, exact_share, preference, read_votes, settled, votes_to_settle

SESSIONS, VOTES = 2000, 200


def settles(share, rng):
    """Whether votes for a with a share ever settle it, looked at after each of them, and for whom."""
    a = 0
    for count in range(1, VOTES + 1):
        a += rng.random() < share
        found = verdict(a, count - a)
        if found:
            return found, count
    return None, VOTES


@functools.cache
def verdict(a, b):
    return settled(a, b)


@functools.cache
def is_outside(a, b):
    low, high = exact_share(a, b)
    return not low <= 0.5 <= high


def test_fair_votes_settle_in_one_session_of_twenty_at_most_though_one_looks_after_each():
    rng = random.Random(5)
    settled = [settles(0.5, rng)[0] for _ in range(SESSIONS)]
    assert sum(one is not None for one in settled) <= 0.05 * SESSIONS
    # Interest in it is real: somebody who prefers one of them four times in five is understood soon.
    sure = [settles(0.8, rng) for _ in range(400)]
    assert sum(one == "a" for one, _ in sure) >= 0.97 * 400
    assert sum(count for _, count in sure) / 400 < 45
    # Looking after each vote with an interval for a fixed number of votes would mislead far more often.
    fooled = 0
    for _ in range(300):
        a = 0
        for count in range(1, VOTES + 1):
            a += rng.random() < 0.5
            if is_outside(a, count - a):
                fooled += 1
                break
    assert fooled > 0.08 * 300


@pytest.mark.parametrize(("a", "b"), [(0, 0), (1, 0), (3, 9), (40, 41), (0, 30), (900, 1100)])
def test_the_interval_is_where_the_mixture_martingale_reaches_its_limit(a, b):
    found = preference(a, b)
    if a + b:
        assert found.low <= a / (a + b) <= found.high
    for end in (found.low, found.high):
        if 0.0 < end < 1.0:
            # The mixture is the average likelihood over all shares: here by an integral, not by gamma functions.
            shares = (np.arange(20_000) + 0.5) / 20_000
            ratio = stats.binom.pmf(a, a + b, shares).mean() / stats.binom.pmf(a, a + b, end)
            assert ratio == pytest.approx(20.0, rel=1e-3)
    fixed = exact_share(a, b)
    assert found.low <= fixed[0] + 1e-12
    assert found.high >= fixed[1] - 1e-12


def test_for_a_fixed_number_of_votes_the_interval_is_that_of_the_binomial_test():
    for a, b in ((8, 2), (0, 7), (5, 5), (7, 0)):
        wanted = stats.binomtest(a, a + b).proportion_ci(0.95, method="exact")
        assert exact_share(a, b) == pytest.approx((wanted.low, wanted.high), abs=1e-12)


def test_votes_that_continue_in_the_same_ratio_settle_it_when_predicted():
    for a, b in ((0, 0), (3, 1), (2, 7), (11, 6)):
        count = votes_to_settle(a, b)
        share = max(a, b) / (a + b) if a + b else 1.0
        more = math.floor(share * count + 0.5)
        assert preference(more, count - more).settled
        assert count <= a + b or not preference(*sorted((a, b), reverse=True)).settled
    assert votes_to_settle(6, 6) is None
    assert "even" in str(preference(6, 6))


def test_a_log_of_votes_is_read_and_its_faults_are_reported_by_line(tmp_path):
    log = tmp_path / "votes.jsonl"
    log.write_text('{"format": "wendonic-votes", "version": 1}\n{"t": 1, "vote": "b"}\n{"vote": "b"}\n')
    assert read_votes(log) == (0, 2)
    log.write_text('{"format": "wendonic-votes"}\n{"vote": "c"}\nnot json\n')
    with pytest.raises(VotesError, match=r"2 faults|line 2") as caught:
        read_votes(log)
    assert [fault.line for fault in caught.value.faults] == [2, 3]
    log.write_text("{}\n")
    with pytest.raises(VotesError, match="not a log of votes"):
        read_votes(log)
    with pytest.raises(VotesError, match="cannot be read"):
        read_votes(tmp_path / "none.jsonl")
    with pytest.raises(WendonicError, match="whole numbers"):
        preference(-1, 2)


@pytest.mark.skipif(shutil.which("node") is None and not ALL_TOOLS, reason="Node.js is not here")
def test_the_page_counts_votes_as_the_library_does():
    pairs = [(a, b) for a in range(0, 40, 3) for b in range(0, 40, 4)] + [(700, 650), (1, 300)]
    module = (TOP / "web" / "src" / "models" / "preference.js").as_uri()
    text = f"""
        import {{ settled, shareInterval, votesToSettle }} from "{module}";
        const all = ([a, b]) => [settled(a, b), ...shareInterval(a, b), votesToSettle(a, b)];
        console.log(JSON.stringify({json.dumps(pairs)}.map(all)));
    """
    done = subprocess.run(
        ["node", "--input-type=module", "-e", text], capture_output=True, text=True, check=True, timeout=60
    )
    for (a, b), (one, low, high, count) in zip(pairs, json.loads(done.stdout), strict=True):
        wanted = preference(a, b)
        assert (one, count) == (wanted.settled, wanted.votes_to_settle), (a, b)
        assert (low, high) == pytest.approx((wanted.low, wanted.high), abs=1e-9), (a, b)
