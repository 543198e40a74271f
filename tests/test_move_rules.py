"""Diagonals by a factor, paces, notches, one-euro, reversals, sectors: closed forms, the paper, and any tick rate."""

import math
import re
from itertools import pairwise, permutations
from random import Random

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from few_of_many import few_of
from wendonic import Helm, ProfileError
from wendonic.kernels.body.sector import TIE_SIDEWAYS, sectored
from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FACTOR, DIAGONAL_FREE, DIAGONAL_UNIT, factor_scale
from wendonic.kernels.move.move import MOVE_AT_REST, NO_MOVE, move_output
from wendonic.kernels.move.notches import ON_BORDER, nearest_notch, notched
from wendonic.kernels.move.one_euro import ONE_EURO_AT_REST, OneEuroTuning, one_euro
from wendonic.kernels.move.paces import PaceTuning, pace_amount, pace_of
from wendonic.kernels.source.keys import KEYS_AT_REST, keys_output
from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_AT_REST, SOURCE_AXES
from wendonic.profile.load import profile_from_text
from wendonic.profile.tuning import mode_tuning
from wendonic.study.checking import check

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = 'keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
STICK = 'stick = "pad.left_stick"\ndead_zone = { form = "none" }\ncurve = { form = "linear" }\n'
angle = st.floats(-math.pi, math.pi)
coordinate = st.floats(-1.5, 1.5)


def helm_of(move, bind, steer="", press=""):
    return Helm(
        profile_from_text(
            f"{HEAD}[mode.foot.steer]\n{steer}\n[mode.foot.move]\n{move}\n[[mode.foot.move.bind]]\n{bind}{press}"
        )
    )


@given(x=coordinate, y=coordinate, factor=st.floats(0.05, 1.0), gap=st.floats(1e-9, 1e-6))
def test_a_factor_is_whole_on_the_diagonal_gone_on_an_axis_and_jumps_nowhere(x, y, factor, gap):
    assert factor_scale(1.0, 1.0, factor) == pytest.approx(factor)
    assert factor_scale(x, 0.0, factor) == 1.0
    scale = factor_scale(x, y, factor)
    assert factor - 1e-12 <= scale <= 1.0
    assert factor_scale(y, -x, factor) == pytest.approx(scale)
    assert factor_scale(2.0 * x, 2.0 * y, factor) == pytest.approx(scale)
    if max(abs(x), abs(y)) > 0.01:
        assert abs(factor_scale(x + gap, y, factor) - scale) <= 200.0 * gap


@pytest.mark.parametrize(
    ("rule", "of_keys", "of_stick", "said"),
    [
        ('diagonal = "factor"\ndiagonal_factor = 0.6', (0.6, 0.6), (math.sqrt(0.5),) * 2, "gives 0.60 of what"),
        ('diagonal = "unit"', (math.sqrt(0.5),) * 2, (0.1, 0.1), "the slightest tilt"),
    ],
)
def test_rules_for_keys_leave_a_stick_alone_unless_it_asks_for_them(rule, of_keys, of_stick, said):
    """A full diagonal tilt is full speed and a small one small, in the mode where keys have a rule of their own."""
    both = f"{KEYS}[[mode.foot.move.bind]]\n{STICK}"
    for merge in ("strongest", "sum", "latest"):
        helm = helm_of(f'{rule}\nhalf_life_s = 0\nmerge = "{merge}"', both)
        helm.stick("pad.left_stick", of_stick[0], -of_stick[1])
        assert tuple(helm.tick(0.5).local) == pytest.approx(of_stick)
        helm.stick("pad.left_stick", 0.0, 0.0)
        helm.key("KeyW", down=True)
        helm.key("KeyD", down=True)
        assert tuple(helm.tick(0.5).local) == pytest.approx(of_keys)
    assert not [one for one in check(helm.profile, prove=False) if one.slug == "tilt-by-the-rule-of-keys"]
    word = re.search(r'"(\w+)"', rule)[1]
    asks = helm.profile.changed({"mode.foot.move.bind[1].diagonal": word})
    (found,) = [one for one in check(asks, prove=False) if one.slug == "tilt-by-the-rule-of-keys"]
    assert said in found.measured
    # An entry may have a rule that the channel has not, with the channel's number.
    factor = 0.6 if word == "factor" else 1.0
    for profile in (asks, asks.changed({"mode.foot.move.diagonal": "cap"})):
        helm = Helm(profile)
        helm.stick("pad.left_stick", math.sqrt(0.5), -math.sqrt(0.5))
        assert tuple(helm.tick(0.5).local) == pytest.approx((factor * math.sqrt(0.5),) * 2)


@pytest.mark.parametrize("order", list(permutations((KEYS, STICK, STICK.replace("left", "right")))))
def test_under_a_sum_the_longest_source_gives_its_rule_though_others_add_up_to_more_or_less(order):
    """Keys request (1, 1), the sticks (-0.8, -0.5) and (0.5, 0.4): together (0.7, 0.9), by the factor of keys."""
    binds = "[[mode.foot.move.bind]]\n".join(order)
    helm = helm_of('diagonal = "factor"\ndiagonal_factor = 0.5\nhalf_life_s = 0\nmerge = "sum"', binds)
    helm.key("KeyW", down=True)
    helm.key("KeyD", down=True)
    helm.stick("pad.left_stick", -0.8, 0.5)
    helm.stick("pad.right_stick", 0.5, -0.4)
    factor = 1.0 - 0.5 * 0.7 / 0.9
    intent = helm.tick(0.5)
    assert tuple(intent.local) == pytest.approx((0.7 * factor, 0.9 * factor))
    assert intent.device == "keys"


PACES = (PaceTuning(0.0, 0.3), PaceTuning(0.4, 0.6), PaceTuning(0.8, 1.0))
MARGIN = 0.1


@given(lengths=st.lists(st.floats(0.0, 1.2), min_size=1, max_size=30))
def test_a_pace_is_left_only_beyond_its_margin(lengths):
    """Kept by hand: up as soon as a border is passed, down only a margin below it."""
    pace = 0
    for length in lengths:
        pace = int(pace_of(PACES, MARGIN, length, pace))
        assert all(length <= later.above for later in PACES[pace:])
        if pace > 0:
            assert length > max(PACES[pace - 1].above - MARGIN, 0.0)
        assert pace_of(PACES, MARGIN, length, pace) == pace
    assert pace_amount(PACES, pace) == (0.0, 0.3, 0.6, 1.0)[pace]


@given(shakes=st.lists(st.floats(-0.099, 0.29), min_size=2, max_size=20), border=st.sampled_from([0.4, 0.8]))
def test_a_hand_that_trembles_on_a_border_changes_pace_once(shakes, border):
    pace, seen = 0, []
    for shake in shakes:
        pace = pace_of(PACES, MARGIN, border + shake, pace)
        seen.append(pace)
    assert seen == sorted(seen)
    assert len(set(seen)) <= 2


@pytest.mark.parametrize("lines", ["", "pace_margin = 0.03\n"])
def test_a_pace_ends_even_where_no_dead_zone_does_it(lines):
    """Without one a stick rests at a thousandth, which is no walk at 0.4."""
    paces = "paces = [{ above = 0.05, amount = 0.4 }, { above = 0.7, amount = 1 }]\nhalf_life_s = 0\n"
    helm = helm_of(paces + lines, STICK)
    amounts = []
    for tilt in (0.001, 0.3, 0.001):
        helm.stick("pad.left_stick", tilt, 0.0)
        amounts.append(helm.tick(1 / 60).amount)
    assert amounts == pytest.approx([0.0, 0.4, 0.0])
    with pytest.raises(ProfileError, match=r"pace_margin: 0.06 is not below the 0.05 where the first pace begins"):
        helm.profile.changed({"mode.foot.move.pace_margin": 0.06})
    # A first pace that any tilt sets off is said to walk by itself.
    always = helm.profile.changed({"mode.foot.move.paces[0].above": 0.0, "mode.foot.move.pace_margin": None})
    (found,) = [one for one in check(always, prove=False) if one.slug == "dead-zone-small"]
    assert "requests 40 % of full speed" in found.measured


def test_the_shortest_of_all_tilts_has_the_whole_pace():
    """Divided by that tilt the pace is infinitely many times as much, and times no tilt sideways not a number."""
    helm = helm_of("paces = [{ above = 0, amount = 0.4 }, { above = 0.7, amount = 1 }]\n", f"{KEYS}rise_s = 0.02\n")
    helm.key("KeyW", down=True)
    intent = helm.tick(5e-324)
    assert (intent.local, intent.amount) == ((0.0, 0.4), 0.4)
    helm.restart()
    helm.key("KeyD", down=True)
    # Fifty and fifty of the least numbers there are have a length of 71 of them, not of 70.7.
    assert tuple(helm.tick(5e-324).local) == pytest.approx((math.sqrt(0.08), math.sqrt(0.08)))


def test_paces_and_held_presses_set_the_amount():
    press = '[mode.foot.press]\nstroll = { bind = ["ShiftLeft"] }\nsneak = { bind = ["KeyC"] }\n'
    move = "half_life_s = 0\npaces = [{ above = 0.25, amount = 0.45 }, { above = 0.7, amount = 1 }]\n"
    move += "pace_margin = 0.2\n"
    helm = helm_of(move + "press_amounts = { stroll = 0.5, sneak = 0.2 }", STICK, press=press)
    found = []
    for tilt in (0.05, 0.3, 0.69, 0.71, 0.55, 0.49, 0.06, 0.04):
        helm.stick("pad.left_stick", 0.0, -tilt)
        found.append(round(helm.tick(0.01).amount, 9))
    # 0.55 is within the margin of running, 0.49 is not; nor is 0.04 within that of the first pace.
    assert found == [0.0, 0.45, 0.45, 1.0, 1.0, 0.45, 0.45, 0.0]
    helm.stick("pad.left_stick", 0.0, -1.0)
    amounts = []
    for code, down in ((None, True), ("ShiftLeft", True), ("KeyC", True), ("KeyC", False), ("ShiftLeft", False)):
        if code:
            helm.key(code, down=down)
        amounts.append(helm.tick(0.01).amount)
    assert amounts == pytest.approx([1.0, 0.5, 0.2, 0.5, 1.0])


@given(heading=angle, notches=st.sampled_from([2, 3, 4, 8, 16]), pull=st.floats(0.0, 0.99), gap=st.floats(1e-9, 1e-4))
@example(heading=-3.141592652589793, notches=3, pull=0.0, gap=9.7e-07)
@example(heading=-3.1415917, notches=3, pull=0.5, gap=9.7e-07)
def test_notches_keep_length_and_side_and_jump_nowhere_below_a_full_pull(heading, notches, pull, gap):
    width = math.tau / notches

    def turned(at):
        x, y = notched(0.7 * math.sin(at), 0.7 * math.cos(at), notches, pull, nearest_notch(at, notches))
        assert math.hypot(x, y) == pytest.approx(0.7)
        return math.atan2(x, y)

    away = turned(heading)
    nearest = round(heading / width) * width
    before, after = math.remainder(heading - nearest, math.tau), math.remainder(away - nearest, math.tau)
    # What is within ON_BORDER of a border is on it, and may be drawn to either side.
    assert abs(after) <= abs(before) + ON_BORDER
    assert before * after >= -1e-12
    if abs(before) <= pull * width / 2.0:
        assert after == pytest.approx(0.0, abs=1e-9)
    # Nothing is steeper than 1 / (1 - pull).
    assert abs(math.remainder(turned(heading + gap) - away, math.tau)) <= (gap + ON_BORDER) / (1.0 - pull)
    # Mirrored input, mirrored result; no pull at all changes nothing.
    assert math.remainder(turned(-heading) + away, math.tau) == pytest.approx(
        0.0, abs=ON_BORDER / (1.0 - pull) + 1e-9
    )
    assert notched(0.3, 0.4, notches, 0.0, nearest_notch(math.atan2(0.3, 0.4), notches)) == pytest.approx((0.3, 0.4))


def test_a_full_pull_leaves_nothing_but_the_points():
    turned = [notched(math.sin(n / 9), math.cos(n / 9), 8, 1.0, nearest_notch(n / 9, 8)) for n in range(57)]
    headings = {round(math.degrees(math.atan2(x, y)) % 360.0, 6) % 360.0 for x, y in turned}
    assert headings == {0.0, 45.0, 90.0, 135.0, 180.0, 225.0, 270.0, 315.0}


@pytest.mark.parametrize("notches", [2, 3, 4, 5, 6, 8, 12, 64])
def test_mirrored_headings_have_mirrored_notches_on_every_border(notches):
    for border in range(notches):
        heading = (border + 0.5) * math.tau / notches
        point = nearest_notch(heading, notches)
        assert point in (border, (border + 1) % notches)
        if abs(math.sin(heading)) > 1e-9:
            assert nearest_notch(-heading, notches) == (notches - point) % notches
        for off in (1e-9, -1e-9, math.tau, -math.tau):
            assert nearest_notch(heading + off, notches) == point


@pytest.mark.parametrize("pull", [0.5, 1.0])
@pytest.mark.parametrize("notches", few_of([4, 6, 8], [6]))
@pytest.mark.parametrize("gait", ["", "keeps_speed = true", "coast_half_life_s = 0.3"])
@pytest.mark.parametrize(("held", "then"), [("KeyD", "KeyA"), ("KeyW", "KeyS")])
def test_keys_that_fade_and_turn_round_through_notches_never_push_the_body_aside(gait, notches, pull, held, then):
    """They run along one line, through zero and into rest; of six notches none is to the side, only far forward."""
    keys = f"{KEYS}rise_s = 0.06\nfall_s = 0.05\n"
    helm = helm_of(f"notches = {notches}\nnotch_pull = {pull}\nhalf_life_s = 0", f"{keys}[gait.walk]\n{gait}\n")
    across = "vel_y" if held == "KeyD" else "vel_x"
    skewed = notches == 6 and held == "KeyD"
    for keys_down in ((held,), (held, then), (then,), (held,), (), (then,), (held, then), ()):
        for key in (held, then):
            helm.key(key, key in keys_down)
        for dt in (1 / 60, 0.05, 0.013):
            motion = helm.tick(dt).motion
            if not skewed:
                assert getattr(motion, across) == 0.0


@pytest.mark.parametrize(("notches", "margin_deg"), [(8, None), (4, None), (16, None), (64, None), (8, 3.0)])
def test_a_thumb_that_trembles_on_a_border_changes_the_notch_once_and_a_turn_changes_each(notches, margin_deg):
    margin = f"\nnotch_margin_deg = {margin_deg}" if margin_deg else ""
    random = Random(7)
    kept_deg = margin_deg or min(6.0, 90.0 / notches)

    def headings(degrees):
        helm = helm_of(f"half_life_s = 0\nnotches = {notches}\nnotch_pull = 1{margin}", STICK)
        for deg in degrees:
            helm.stick("pad.left_stick", 0.9 * math.sin(math.radians(deg)), -0.9 * math.cos(math.radians(deg)))
            yield round(helm.tick(1 / 60).heading_deg, 6) % 360.0

    half_deg = 180.0 / notches
    for border in (half_deg, 180.0 - half_deg, -half_deg):
        trembling = [border + min(1.0, 0.9 * kept_deg) * random.uniform(-1.0, 1.0) for _ in range(3600)]
        seen = list(headings(trembling))
        assert sum(a != b for a, b in pairwise(seen)) <= 1
    # A slow turn reaches each point where its neighbour is left: the margin beyond the border.
    slow = [n / 8 + 0.01 for n in range(8 * 360)]
    left = [deg for deg, a, b in zip(slow[1:], *zip(*pairwise(headings(slow)), strict=True), strict=True) if a != b]
    due = [(2 * n + 1) * half_deg + kept_deg for n in range(notches)]
    assert left == pytest.approx([deg for deg in due if deg < 359.8], abs=0.13)


@st.composite
def any_paces(draw):
    """No paces, or up to six that rise."""
    above = sorted(draw(st.lists(st.floats(0.0, 0.9), max_size=6, unique=True)))
    amounts = sorted(draw(st.tuples(*[st.floats(0.05, 1.0)] * len(above))))
    return tuple(map(PaceTuning, above, amounts))


@st.composite
def still_rules(draw):
    """Diagonal rule and steps 7 to 9 in every combination, nothing smoothed."""
    notches, pull = draw(st.sampled_from([0, 2, 4, 8, 16])), draw(st.floats(0.0, 0.9))
    return NO_MOVE._replace(
        paces=draw(any_paces()),
        pace_margin=draw(st.floats(0.0, 0.3)),
        notches=notches,
        notch_pull=pull,
        diagonal=draw(st.sampled_from([DIAGONAL_CAP, DIAGONAL_UNIT, DIAGONAL_FREE, DIAGONAL_FACTOR])),
        diagonal_factor=draw(st.floats(0.1, 1.0)),
    )


@given(
    rules=still_rules(),
    heading=angle,
    one=st.floats(0.001, 1.4),
    other=st.floats(0.001, 1.4),
    gap=st.floats(1e-9, 1e-7),
)
def test_every_combination_of_rules_is_monotone_mirrored_and_without_a_jump_of_its_own(
    rules, heading, one, other, gap
):
    """A jump may come of paces, or of `unit` at rest, and of nothing else."""
    tuning = rules
    at_rest = MOVE_AT_REST._replace(sources=(SOURCE_AT_REST,))

    def asked(x, y):
        # Two axes without a dead zone of their own ask for what they are given.
        tuned = tuning._replace(sources=(PLAIN_SOURCE._replace(kind=SOURCE_AXES),))
        output = move_output(tuned, (), at_rest, ((x, y),), (), 0.1)[1]
        return output.right, output.forward

    def at(length, turn=0.0, side=1.0):
        right, forward = math.sin(heading + turn), math.cos(heading + turn)
        # No axis goes beyond 1; the longest that two of them give is a corner of the square.
        length = min(length, 1.0 / max(abs(right), abs(forward)))
        return asked(side * length * right, length * forward)

    low, high = sorted((one, other))
    assert math.hypot(*at(low)) <= math.hypot(*at(high)) + 1e-9
    x, y = at(one)
    assert all(map(math.isfinite, (x, y)))
    mirrored = at(one, side=-1.0)
    # Straight to the side or behind, two notches may be each other's mirror image.
    own_mirror = tuning.notches and abs(math.sin(heading)) < 1e-6
    if not own_mirror:
        assert mirrored == pytest.approx((-x, y), abs=1e-6)
    if not tuning.paces:
        assert math.dist(at(one, gap), (x, y)) <= 400.0 * gap + 1e-9
        assert math.dist(at(one + gap), (x, y)) <= 400.0 * gap + 1e-9


def papers_one_euro(values, hz, tuning):
    """The published algorithm, one number at a time: two exponential filters stepped once a sample."""
    min_cutoff, beta, d_cutoff = tuning

    def alpha(cutoff):
        return 1.0 / (1.0 + hz / (math.tau * cutoff))

    smooth, speed, last = values[0], 0.0, values[0]
    result = [smooth]
    for value in values[1:]:
        speed += alpha(d_cutoff) * ((value - last) * hz - speed)
        smooth += alpha(min_cutoff + beta * abs(speed)) * (value - smooth)
        last = value
        result.append(smooth)
    return result


@pytest.mark.parametrize("tuning", [(1.0, 0.0, 1.0), (1.5, 2.0, 1.0), (0.5, 4.0, 3.0)])
def test_one_euro_is_the_published_filter_at_a_high_rate(tuning):
    hz = 20_000
    slow = [0.5 - 0.5 * math.cos(math.tau * 0.8 * k / hz) for k in range(hz)]
    values = [0.0, *(value + 0.05 * math.sin(60.0 * k / hz) for k, value in enumerate(slow))]
    expected = papers_one_euro(values, hz, tuning)
    state, x, _ = ONE_EURO_AT_REST, 0.0, 0.0
    found = []
    for value in values:
        state, x, _ = one_euro(OneEuroTuning(*tuning), state, value, 0.0, x, 0.0, 1.0 / hz)
        found.append(x)
    assert max(abs(a - b) for a, b in zip(found, expected, strict=True)) < 1e-3


TICKS = {
    "30 Hz": [1 / 30] * 30,
    "60 Hz": [1 / 60] * 60,
    "144 Hz": [1 / 144] * 144,
}


def curve_of(helm, dts, changes):
    """Return {time: (right, forward)} under inputs that change at tenths of a second."""
    t, seen = 0.0, {}
    for dt in dts:
        # Each change comes before the tick that follows it.
        for at, change in [item for item in changes.items() if abs(item[0] - t) < 1e-6]:
            change(helm)
            del changes[at]
        t += dt
        seen[round(t, 6)] = tuple(helm.tick(dt).local)
    return seen


RATE_CASES = {
    "ramp": ("half_life_s = 0", KEYS + "rise_s = 0.23\nfall_s = 0.31\n", 1e-9),
    "ramp at once": ("half_life_s = 0", KEYS + "rise_s = 0.23\nfall_s = 0.31\nreversal = 'at_once'\n", 1e-9),
    "half-life": ("half_life_s = 0.07", KEYS + "rise_s = 0\nfall_s = 0\n", 1e-9),
    "ramp behind a half-life": ("half_life_s = 0.07", KEYS + "rise_s = 0.23\nfall_s = 0.31\n", 1e-9),
    "the usual numbers": ("", KEYS, 1e-9),
    "one-euro": (
        "one_euro = { min_cutoff_hz = 1.5, beta = 0.7, d_cutoff_hz = 1 }",
        KEYS + "rise_s = 0\nfall_s = 0\n",
        1e-9,
    ),
    "ramp behind one-euro": ("one_euro = { min_cutoff_hz = 3, beta = 1.5 }", KEYS, 0.01),
    "one-euro behind notches and paces": (
        "one_euro = { min_cutoff_hz = 1 }\nnotches = 8\npaces = [{ above = 0, amount = 0.5 }]",
        STICK,
        1e-9,
    ),
}


@pytest.mark.parametrize("case", RATE_CASES)
@pytest.mark.parametrize("rate", ["30 Hz", "60 Hz", "144 Hz"])
def test_a_step_gives_the_same_curve_at_every_tick_rate(case, rate):
    """Against uneven ticks of the same second; presses come at moments that every rate has a tick at."""
    move, bind, error = RATE_CASES[case]

    def changes():
        def pressed(helm):
            helm.key("KeyD", down=True)
            helm.stick("pad.left_stick", 0.9, -0.2)

        def turned(helm):
            helm.key("KeyD", down=False)
            helm.key("KeyA", down=True)
            helm.stick("pad.left_stick", -0.7, -0.5)

        return {0.0: pressed, 0.5: turned}

    fine = []
    for half in range(2):
        # Each sixth of a second is cut unevenly, so that every rate's ticks end at one of the cuts.
        for dt in (1 / 144, 1 / 60, 1 / 30):
            fine += [dt] * round(0.5 / 3 / dt)
        assert sum(fine) == pytest.approx(0.5 * (half + 1))
    one = curve_of(helm_of(move, bind), TICKS[rate], changes())
    other = curve_of(helm_of(move, bind), fine, changes())
    shared = sorted(set(one) & set(other))
    assert len(shared) >= 12
    for t in shared:
        assert one[t] == pytest.approx(other[t], abs=error), t
    assert max(abs(x) for x, _ in one.values()) > 0.3


@pytest.mark.parametrize(
    "move",
    [
        "",
        "half_life_s = 0.1",
        'merge = "sum"',
        # Through zero its direction leaps, so the less smoothing the more a part of a tick counts.
        'diagonal = "unit"\nhalf_life_s = 0.02',
        'diagonal = "factor"\ndiagonal_factor = 0.8',
        "one_euro = { min_cutoff_hz = 3, beta = 1.5 }",
        "paces = [{ above = 0, amount = 0.5 }, { above = 0.8, amount = 1 }]\nnotches = 8",
    ],
)
def test_keys_pressed_together_and_turned_round_are_one_curve_at_every_tick_rate(move):
    """Under most rules two ramps are no straight line any more; a tick in which both run is cut into parts."""
    changes = {0: ("KeyD KeyW", ""), 1: ("KeyA", "KeyD"), 2: ("KeyS", "KeyW KeyA")}
    curves = []
    for hz in (30, 60, 144, 5760):
        helm = helm_of(move, KEYS)
        curve = {}
        for k in range(hz // 2):
            downs, ups = changes.get(6 * k // hz, ("", "")) if 6 * k % hz == 0 else ("", "")
            for code in downs.split():
                helm.key(code, down=True)
            for code in ups.split():
                helm.key(code, down=False)
            curve[round((k + 1) / hz, 6)] = tuple(helm.tick(1 / hz).local)
        curves.append(curve)
    *coarse, fine = curves
    for curve in coarse:
        errors = [math.dist(curve[t], fine[t]) for t in curve if t in fine]
        assert max(errors) < 0.01 * max(math.hypot(*local) for local in fine.values())
        assert len(errors) >= 15


def test_a_reversal_at_once_skips_the_fall():
    found = {}
    for rule in ("through_zero", "at_once"):
        helm = helm_of("half_life_s = 0", KEYS + f"rise_s = 0.2\nfall_s = 0.1\nreversal = '{rule}'\n")
        helm.key("KeyD", down=True)
        helm.tick(0.5)
        helm.key("KeyD", down=False)
        helm.key("KeyA", down=True)
        found[rule] = [round(helm.tick(0.05).local.right, 9) for _ in range(6)]
    assert found["through_zero"] == [0.5, 0.0, -0.25, -0.5, -0.75, -1.0]
    assert found["at_once"] == [-0.25, -0.5, -0.75, -1.0, -1.0, -1.0]


@given(
    sectors=st.sampled_from([2, 4, 8, 16]),
    margin_share=st.floats(0.01, 0.9),
    border=st.integers(0, 15),
    shakes=st.lists(st.floats(-0.99, 0.99), min_size=2, max_size=30),
)
def test_a_stick_held_on_a_border_does_not_flicker(sectors, margin_share, border, shakes):
    """Every border, the one at 360 degrees included; and what is kept is one of the two facings beside it."""
    width = math.tau / sectors
    margin = margin_share * width / 2.0
    first = math.pi / 2.0 if sectors == 2 else 0.0
    at = first + (border + 0.5) * width
    facing = -1.0
    seen = set()
    for shake in shakes:
        # Exactly on a border of four are two keys, which a rule of their own is for.
        off = math.copysign(max(abs(shake), 1e-3), shake)
        face = math.remainder(at + off * max(margin, 1e-2), math.tau)
        facing = sectored(face, -1.0, facing, sectors, max(margin, 1e-2), TIE_SIDEWAYS)
        seen.add(facing)
    assert len(seen) == 1
    assert seen <= {float(border % sectors), float((border + 1) % sectors)}


@given(face=angle, sectors=st.sampled_from([2, 4, 8, 16]), old=st.integers(-1, 15), margin_share=st.floats(0.0, 0.9))
def test_a_facing_is_the_nearest_one_or_within_its_margin(face, sectors, old, margin_share):
    width = math.tau / sectors
    first = math.pi / 2.0 if sectors == 2 else 0.0
    old = min(old, sectors - 1)
    facing = sectored(face, -1.0, float(old), sectors, margin_share * width / 2.0, TIE_SIDEWAYS)
    off = abs(math.remainder(face - first - facing * width, math.tau))
    assert facing in range(sectors)
    assert off <= width / 2.0 * (1.0 + margin_share * (facing == old)) + 1e-9


def test_the_facing_of_a_sprite_follows_the_walk_and_stays_at_rest():
    steer = 'frame = "map"\nturn_deg_s = 100000\nsectors = 8\nsector_margin_deg = 5'
    helm = helm_of("half_life_s = 0", STICK, steer)
    found = []
    for heading_deg in (0.0, 20.0, 27.0, 28.0, 24.0, 18.0, 17.0, 359.0, 338.0, 330.0):
        heading = math.radians(heading_deg)
        helm.stick("pad.left_stick", math.sin(heading), -math.cos(heading))
        found.append(helm.tick(0.1).sector)
    # The border is at 22.5 deg, and is left 5 deg beyond.
    assert found == [0, 0, 0, 1, 1, 1, 0, 0, 0, 7]
    helm.stick("pad.left_stick", 0.0, 0.0)
    assert [helm.tick(0.1).sector for _ in range(3)] == [7, 7, 7]
    sides = helm_of("half_life_s = 0", STICK, steer.replace("8", "2"))
    seen = []
    for right, forward in ((1.0, 0.0), (0.01, 1.0), (-0.01, 1.0), (-0.5, 0.8), (0.0, -1.0), (0.2, -1.0)):
        sides.stick("pad.left_stick", right, -forward)
        seen.append(sides.tick(0.1).sector)
    # Straight up or down keeps the side that the sprite shows.
    assert seen == [0, 0, 0, 1, 1, 0]


@pytest.mark.parametrize("keys", [(1.0, 0.0, 0.0, 0.0), (1.0, 0.0, 1.0, 0.0), (1.0, 1.0, 0.0, 1.0)])
def test_keys_that_stand_are_not_shaped_anew(keys):
    """Once its ramps have arrived, a source gives back the very state it had, on a diagonal too."""
    profile = profile_from_text(f"{HEAD}[[mode.foot.move.bind]]\n{KEYS}")
    tuning = mode_tuning(profile, "foot").tick.move.sources[0].keys
    state = KEYS_AT_REST
    for _ in range(20):
        state, _ = keys_output(tuning, state, keys, 0.02, 1, 1 / 60)
    held = (keys[0] - keys[1], keys[2] - keys[3])
    assert keys_output(tuning, state, keys, 0.02, 1, 1 / 60) == (held, (*held, *held, *held, 0.0))


KEYBOARD = {
    "forward": ["KeyW", "ArrowUp"],
    "back": ["KeyS", "ArrowDown"],
    "left": ["KeyA", "ArrowLeft"],
    "right": ["KeyD", "ArrowRight"],
}
CODES = [key for keys in KEYBOARD.values() for key in keys]
PRESSES = st.lists(st.tuples(st.sampled_from(CODES), st.booleans()), min_size=1, max_size=24)


def entries_of(groups, rule):
    """Return `bind` entries that have each key in the group that is named for it."""
    text = ""
    for group in sorted(set(groups.values())):
        lists = {side: [key for key in keys if groups[key] == group] for side, keys in KEYBOARD.items()}
        text += (
            f"[[mode.foot.move.bind]]\nkeys = {{ {', '.join(f'{side} = {keys}' for side, keys in lists.items())} }}\n"
        )
        text += f'opposites = "{rule}"\nrise_s = 0\nfall_s = 0\n'
    return text


@pytest.mark.long
@given(
    presses=PRESSES,
    groups=st.fixed_dictionaries({key: st.integers(0, 2) for key in CODES}),
    rule=st.sampled_from(["cancel", "latest", "earliest"]),
    merge=st.sampled_from(["strongest", "sum", "latest"]),
)
def test_keys_of_several_entries_are_one_keyboard(presses, groups, rule, merge):
    """However eight keys are spread over entries, they do what they do in one, beside a stick too."""
    head = f'{HEAD}[mode.foot.move]\nhalf_life_s = 0\nmerge = "{merge}"\n'
    stick = f"[[mode.foot.move.bind]]\n{STICK}"
    one, several = (
        Helm(profile_from_text(head + entries_of(by_key, rule) + stick))
        for by_key in (dict.fromkeys(groups, 0), groups)
    )
    for number, (key, down) in enumerate(presses):
        for helm in (one, several):
            if number % 5 == 4:
                helm.stick("pad.left_stick", 0.2 * (number % 7) - 0.6, 0.4)
            helm.key(key, down=down)
        expected, found = one.tick(1 / 60), several.tick(1 / 60)
        assert tuple(found.local) == pytest.approx(tuple(expected.local), abs=1e-12)
        assert found.device == expected.device


@pytest.mark.parametrize(
    ("channel", "keys", "frame"),
    [
        ("throttle", ('forward = ["KeyW"]', 'back = ["ArrowDown"]'), "drive"),
        pytest.param("rise", ('up = ["KeyW"]', 'down = ["ArrowDown"]'), "fly", marks=pytest.mark.long),
        pytest.param("turn", ('right = ["KeyW"]', 'left = ["ArrowDown"]'), "camera", marks=pytest.mark.long),
    ],
)
def test_opposite_keys_of_an_axis_channel_in_any_number_and_order(channel, keys, frame):
    """The rule of both is that between them; of two rules neither is, so they cancel."""
    for rules, expected in (
        (("cancel", "cancel"), 0.0),
        (("latest", "latest"), -1.0),
        (("earliest", "earliest"), 1.0),
        (("latest", "earliest"), 0.0),
    ):
        text = f'{HEAD}[mode.m]\nsteer = {{ frame = "{frame}" }}\n'
        for lists, rule in zip(keys, rules, strict=True):
            text += (
                f"[[mode.m.{channel}.bind]]\nkeys = {{ {lists} }}\nopposites = '{rule}'\nrise_s = 0.1\nfall_s = 0.1\n"
            )
        text += "[[mode.m.throttle.bind]]\naxis = 'pad.left_stick.y'\n" if channel == "rise" else ""
        helm = Helm(profile_from_text(text))
        helm.key("KeyW", down=True)
        for _ in range(20):
            assert getattr(helm.tick(1 / 60), channel) > 0.0
        helm.key("ArrowDown", down=True)
        values = [getattr(helm.tick(1 / 60), channel) for _ in range(20)]
        assert values[-1] == pytest.approx(expected)
        # Through zero, without a jump: both ramps run at once, a sixth of the way each in a tick.
        steps = [abs(after - before) for before, after in zip([1.0, *values], values, strict=False)]
        assert max(steps) < 0.35


def test_a_d_pad_and_keys_cancel_and_walk_diagonally_together():
    bind = KEYS + '[[mode.foot.move.bind]]\ndpad = "pad.dpad"\n'
    helm = helm_of("", bind)
    helm.key("KeyW", down=True)
    helm.button("pad.dpad_right", 1.0)
    for _ in range(60):
        intent = helm.tick(1 / 60)
    assert tuple(intent.local) == pytest.approx((math.sqrt(0.5),) * 2)
    helm.button("pad.dpad_down", 1.0)
    for _ in range(60):
        intent = helm.tick(1 / 60)
    assert tuple(intent.local) == pytest.approx((1.0, 0.0))


@pytest.mark.parametrize("merge", ["strongest", "sum", "latest"])
@pytest.mark.parametrize("opposites", ["cancel", "latest"])
def test_an_entry_for_each_axis_is_capped_as_one_for_both_is(merge, opposites):
    """Neither entry has a diagonal of its own."""
    rules = ("cancel", opposites)
    axes = ('forward = ["KeyW"], back = ["KeyS"]', 'left = ["KeyA"], right = ["KeyD"]')
    first, second = (f'keys = {{ {keys} }}\nopposites = "{rule}"\n' for keys, rule in zip(axes, rules, strict=True))
    helm = helm_of(f'merge = "{merge}"', f"{first}[[mode.foot.move.bind]]\n{second}")
    helm.key("KeyW", down=True)
    assert tuple(helm.tick(1 / 60).local) == (0.0, 1.0)
    helm.key("KeyD", down=True)
    assert tuple(helm.tick(1 / 60).local) == pytest.approx((math.sqrt(0.5),) * 2)
    assert helm.tick(1 / 60).amount == 1.0


@pytest.mark.parametrize(
    ("rise_s", "half_life_s", "key_s", "stick_s"), [(0.0, 0.0, 0.001, 0.001), (0.03, 0.008, 0.045, 0.027)]
)
def test_keys_and_sticks_reach_nine_tenths_when_their_ramp_and_smoothing_do(rise_s, half_life_s, key_s, stick_s):
    """Closed forms: the first tick; log2(10) half-lives; a ramp through a filter, solved for 0.9."""
    for press, at_s in ((lambda helm: helm.key("KeyW", down=True), key_s), (push_stick, stick_s)):
        ramp = f"{KEYS}rise_s = {rise_s}\n"
        helm = helm_of(f"half_life_s = {half_life_s}", f"{ramp}[[mode.foot.move.bind]]\n{STICK}")
        press(helm)
        amounts = [helm.tick(0.001).amount for _ in range(100)]
        first = next(k for k, amount in enumerate(amounts, 1) if amount >= 0.9)
        assert first / 1000.0 == pytest.approx(at_s, abs=0.001)


def push_stick(helm):
    helm.stick("pad.left_stick", 0.0, -1.0)


@given(rise_s=st.floats(0.02, 0.4), hz=st.sampled_from([30, 60, 144]))
def test_of_two_sources_at_full_the_first_one_counts_whatever_the_roundings(rise_s, hz):
    """Two keys that rise have a whole amount from 0.7071 each on, but for the last bit of a root."""
    stick = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'
    move = '[mode.foot.move]\nmerge = "strongest"\n'
    helm = Helm(profile_from_text(f"{HEAD}{move}[[mode.foot.move.bind]]\n{KEYS}rise_s = {rise_s}\n{stick}"))
    helm.key("KeyW", True)
    helm.key("KeyA", True)
    helm.stick("pad.left_stick", 1.0, 0.0)
    for number in range(round(1.5 * rise_s * hz)):
        device = helm.tick(1 / hz).device
        assert number / hz < 0.7072 * rise_s or device == "keys"
