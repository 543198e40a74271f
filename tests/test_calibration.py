"""Calibration recovers what stand-ins are made of, as often as its intervals say, and puts it into profiles."""

import math
import sys
from pathlib import Path

import numpy as np
import pytest
from scipy.signal import lfilter

from few_of_many import few_of
from wendonic import Event, Recording, WendonicError, shape
from wendonic.cli.main import app
from wendonic.demo import FOLDER, demo_recording
from wendonic.devices.standins import GyroStandIn, MouseStandIn, StickStandIn
from wendonic.pictures import draw_calibration
from wendonic.profile.edit_text import edited
from wendonic.profile.load import profile_from_text
from wendonic.profile.save import saved_text
from wendonic.profile.value_at import value_at
from wendonic.recording.stretches import cut
from wendonic.study.calibration.apply import calibrated_profile
from wendonic.study.calibration.calibrate import OUTER_SHARE, SHARE, calibrate
from wendonic.study.calibration.estimate import mean_estimate, spread_estimate
from wendonic.study.calibration.rim_reach import reach_at
from wendonic.study.checking import check

SEEDS = 200
LEAST_HITS = 180
"""Of 200 intervals of 95 %, fewer hold the truth once in a thousand times."""

FEW = 16
LEAST_OF_FEW = 12
"""Of 16 intervals of 95 %, fewer hold the truth once in 1,200 times."""

REST, NOISE = (0.031, -0.022), 0.004
HEAD = 'format = "wendonic-profile"\nversion = 1\n'
STICK = '[[mode.m.move.bind]]\nstick = "pad.left_stick"   # the worn one\ncurve = { form = "linear" }\n'


def hand(t):
    """Three seconds free, three times round the rim, a second free."""
    tilt = min(max((t - 3.0) / 0.3, 0.0), max((9.9 - t) / 0.3, 0.0), 1.0)
    angle = math.tau * min(max(t - 3.3, 0.0), 6.3) / 2.1
    return tilt * math.sin(angle), tilt * math.cos(angle)


def stick_recording(seed=0, end_s=11.0, **faults):
    faults = {"rest": REST, "noise": NOISE, "bits": 10, "poll_hz": 60.0, **faults}
    return Recording.from_checked(StickStandIn(seed=seed, **faults).events(hand, 0.0, end_s))


def holds(estimate, truth):
    return estimate.low <= truth <= estimate.high


@pytest.fixture(scope="module")
def found():
    """Two hundred sticks: half of them round ones, half of them squarer."""
    made = [StickStandIn(rim_reach=0.95, rim_power=2.0 if seed % 2 else 3.0) for seed in range(SEEDS)]
    recordings = [stick_recording(seed, rim_reach=0.95, rim_power=stick.rim_power) for seed, stick in enumerate(made)]
    return [(stick, calibrate(recording).sticks[0]) for stick, recording in zip(made, recordings, strict=True)]


@pytest.mark.long
def test_rest_noise_and_dead_zone_lie_in_their_intervals_as_often_as_they_say(found):
    step = 2.0 / (2**10 - 1)
    # Distances of readings follow Rayleigh's law, whose deviation has the step's own share.
    inner = math.hypot(NOISE, step / math.sqrt(12.0)) * math.sqrt(2.0 * math.log(1000.0))
    truths = [
        ("x", lambda stick: stick.rest.x, REST[0]),
        ("y", lambda stick: stick.rest.y, REST[1]),
        ("noise", lambda stick: stick.rest.noise, NOISE),
        ("inner", lambda stick: stick.inner, inner),
    ]
    for name, estimate, truth in truths:
        given = [one for one in (estimate(stick) for _, stick in found) if one is not None]
        assert len(given) >= 0.9 * SEEDS, name
        hits = sum(holds(one, truth) for one in given)
        assert hits >= LEAST_HITS - (SEEDS - len(given)), (name, hits)
        widths = [one.high - one.low for one in given]
        # So sure as it can be with 200 readings, of which a dead zone rests on the few that lie farthest out.
        assert np.median(widths) < (1.0 * truth if name == "inner" else 0.15 * max(abs(truth), 0.02)), name
    drifts = sum(stick.rest.drift_per_min is not None for _, stick in found)
    assert drifts <= 4


@pytest.mark.long
def test_the_rim_lies_in_its_intervals_as_often_as_they_say(found):
    hits = np.zeros((SEEDS, 36), dtype=bool)
    for row, (made, stick) in enumerate(found):
        for k, length in enumerate(stick.rim.lengths):
            hits[row, k] = holds(length, made.rim(math.sin(math.tau * k / 36), math.cos(math.tau * k / 36)))
    assert 0.93 <= hits.mean() <= 0.98
    assert hits.sum(axis=0).min() >= LEAST_HITS - 6
    assert [stick.rim.gate for _, stick in found] == ["measured", "circle"] * (SEEDS // 2)
    round_ones = [stick for made, stick in found if made.rim_power == 2.0]
    assert sum(holds(stick.outer, OUTER_SHARE * 0.95) for stick in round_ones) >= 88


@pytest.mark.long
def test_a_mouse_and_a_gyro_are_recovered_as_often_as_their_intervals_say():
    dpi_hits, bias_hits, noise_hits = 0, 0, 0
    for seed in range(SEEDS):
        mouse = MouseStandIn(counts_per_inch=812.0, poll_hz=125, tremor_mm=0.4, seed=seed)
        swipes = [event for k in range(4) for event in mouse.swipe(15.0, 1.0 * k, 0.3, direction_deg=80.0)]
        dpi_hits += holds(calibrate(Recording(swipes), swipe_cm=15.0).mouse.dpi, 812.0)
        pad = GyroStandIn(bias=(0.012, -0.03, 0.0), noise=0.005, poll_hz=50, seed=seed)
        (gyro,) = calibrate(Recording(pad.events(lambda _: (0.0, 0.0), 0.0, 4.0))).gyros
        bias_hits += holds(gyro.bias_deg_s[1], math.degrees(-0.03))
        noise_hits += holds(gyro.noise_deg_s, math.degrees(0.005))
    assert dpi_hits >= LEAST_HITS
    assert bias_hits >= LEAST_HITS
    assert noise_hits >= LEAST_HITS


def swipes(seed, lengths_cm, tremor_cm_s):
    """A hand that swipes there and back by turns, at 800 counts an inch, and trembles all the time, at 8 Hz."""
    random = np.random.default_rng(seed)
    speeds = []
    for number, length_cm in enumerate(lengths_cm):
        share = (np.arange(int(random.uniform(200, 400))) + 0.5) / 500
        bell = 30.0 * (share / share[-1]) ** 2 * (1.0 - share / share[-1]) ** 2
        speeds += [
            *(bell / bell.sum() * 500.0 * length_cm * (-1.0) ** number),
            *np.zeros(int(random.uniform(250, 500))),
        ]
    t = np.arange(len(speeds)) / 500.0
    cm = (
        np.cumsum([np.array(speeds), np.zeros(len(t))] + tremor_cm_s * np.cos(np.outer([50.0, 55.0], t)), axis=1)
        / 500.0
    )
    counts = np.diff(np.round(cm * 800.0 / 2.54), axis=1).T
    return [
        Event(at, "mouse.move", tuple(step))
        for at, step in zip(t.tolist(), counts.tolist(), strict=False)
        if any(step)
    ]


@pytest.mark.long
def test_swipes_are_told_from_the_trembling_between_them():
    hits = 0
    for seed in range(FEW):
        lengths = np.random.default_rng(seed).normal(20.0, 0.1, 4)
        found = calibrate(Recording(swipes(seed, lengths, 0.5 + seed % 2)), swipe_cm=20.0).mouse
        assert len(found.swipes) == 4
        hits += holds(found.dpi, 800.0)
    assert hits >= LEAST_OF_FEW
    # One that went only half the way is no swipe of 20 cm.
    found = calibrate(Recording(swipes(0, (20.0, 20.0, 10.0), 0.5)), swipe_cm=20.0).mouse
    assert found.dpi is None
    assert "too unlike to be one distance" in found.missing[0]


def gyro_events(seed, noise, step=0.061, sway=0.0, hz=100, end_s=5.0):
    """Rates (deg/s) of a pad, in steps, told of as they change, swaying and trembling in a hand."""
    random = np.random.default_rng(seed)
    t = np.arange(int(end_s * hz)) / hz
    rates = np.array([0.7, -0.4, 0.2]) + random.normal(0.0, noise, (len(t), 3))
    for frequency, share in ((1.1, 1.0), (8.3, 0.5)):
        rates += sway * share * np.sin(math.tau * frequency * t[:, None] + random.uniform(0.0, math.tau, 3))
    rates = np.radians(np.round(rates / step) * step).round(7)
    changed = [True, *(np.diff(rates, axis=0) != 0.0).any(axis=1)]
    return [
        Event(at, "pad.gyro", tuple(rate))
        for at, rate, reported in zip(t, rates.tolist(), changed, strict=True)
        if reported
    ]


@pytest.mark.long
def test_a_gyro_that_reports_in_steps_is_recovered_and_one_in_a_hand_refused():
    for noise in (0.02, 0.05, 0.2):
        found = [calibrate(Recording(gyro_events(seed, noise))).gyros[0] for seed in range(FEW)]
        assert sum(holds(gyro.noise_deg_s, noise) for gyro in found) >= LEAST_OF_FEW, noise
        assert sum(holds(gyro.bias_deg_s[1], -0.4) for gyro in found) >= LEAST_OF_FEW, noise
    unlike = calibrate(Recording(gyro_events(1, np.array([0.1, 0.4, 0.1])))).gyros[0]
    assert holds(unlike.noise_deg_s, 0.4)
    for seed in range(FEW):
        held = calibrate(Recording(gyro_events(seed, 0.05, sway=1.2))).gyros[0]
        assert held[1:] == (None, None, None, ("bias: it is in somebody's hands; lay the pad on the table",))


def test_a_slow_drift_is_told_from_noise():
    """0.06 a minute along x, under a noise of 0.004."""
    stick = StickStandIn(rest=(0.0, 0.01), noise=NOISE, poll_hz=100, seed=7)
    free = Recording(stick.events(lambda t: (0.001 * t, 0.0), 0.0, 20.0))
    rest = calibrate(free).sticks[0].rest
    assert holds(rest.drift_per_min, 0.06)
    assert holds(rest.noise, NOISE)


def test_a_thumb_that_slips_for_a_moment_does_not_dent_the_rim():
    def slipping(t):
        right, forward = hand(t)
        slips = 0.9 if 3.6 < t < 9.0 and (t * 1.7) % 1.0 < 0.05 else 1.0
        return right * slips, forward * slips

    stick = StickStandIn(rest=REST, noise=NOISE, rim_reach=0.95, poll_hz=100, seed=3)
    rim = calibrate(Recording(stick.events(slipping, 0.0, 11.0))).sticks[0].rim
    assert [length.value for length in rim.lengths] == pytest.approx([0.95] * 36, abs=0.008)


def test_an_interval_says_what_its_formula_says():
    values = np.random.default_rng(3).normal(5.0, 2.0, 400)
    found = mean_estimate(values)
    assert found.high - found.value == pytest.approx(1.966 * values.std(ddof=1) / 20.0, rel=1e-3)
    # In steps, a mean may be off by a share of one on top.
    loud = np.random.default_rng(4).normal(0.0, 0.06, 4000)
    off = 0.1 / math.pi * math.exp(-2.0 * (math.pi * loud.std(ddof=1) / 0.1) ** 2)
    plain, stepped = mean_estimate(loud), mean_estimate(loud, step=0.1)
    assert stepped.high - plain.high == pytest.approx(off)
    # Noise that never leaves its step leaves the whole step open.
    assert mean_estimate(np.zeros(50), step=0.1).high == pytest.approx(0.95 * 0.05)
    # Of 400 distances, the order leaves 180 to 220 open; of normal noise half lie within 0.6745 deviations.
    spread = spread_estimate(values)
    away = np.sort(np.abs(values - np.median(values)))
    assert (spread.low, spread.high) == pytest.approx((1.4826 * away[180], 1.4826 * away[220]))
    assert holds(spread, 2.0)


@pytest.mark.parametrize("left_over", few_of([0.0, 0.82, 0.95], [0.82]))
def test_a_rim_under_correlated_noise_lies_in_its_interval_and_that_is_no_wider_than_need_be(left_over):
    """Three times past a heading of a round rim, 17 readings each; a share of the noise is left at each next one."""
    number = np.concatenate([np.arange(17) + 300 * turn for turn in range(3)])
    u = np.tile(np.linspace(-1.0, 1.0, 17), 3)
    random = np.random.default_rng(5)
    values, halves = [], []
    for _ in range(300):
        driven = random.normal(0.0, math.sqrt(1.0 - left_over * left_over), 1000)
        driven[0] = random.normal()
        noise = lfilter([1.0], [1.0, -left_over], driven)[number]
        found = reach_at(u, 0.9 + 0.004 * noise, (1.0 + left_over) / (1.0 - left_over), 0.0, number).length
        values.append(found.value - 0.9)
        halves.append((found.high - found.low) / 2.0)
    assert 0.9 <= np.mean(np.abs(values) < halves) <= 0.99
    assert np.median(halves) < 4.5 * np.std(values)


@pytest.mark.parametrize("spread", [0.2, 0.4])
def test_a_mean_within_a_step_holds_whatever_the_shape_of_the_noise(spread):
    """Noise of a share of a step, around any place in one, with light tails and with heavy ones."""
    for tails in ("normal", "t3"):
        hits = 0
        for seed in range(100):
            random = np.random.default_rng(seed)
            truth = random.uniform(-0.5, 0.5)
            noise = random.normal(size=800) if tails == "normal" else random.standard_t(3.0, 800) / math.sqrt(3.0)
            hits += holds(mean_estimate(np.round(truth + spread * noise), step=1.0), truth)
        assert hits >= 80, (tails, hits)


def test_too_little_data_gives_a_reason_instead_of_a_guess():
    moving = Recording(StickStandIn(noise=NOISE, poll_hz=100).events(lambda t: (math.sin(9 * t), 0.0), 0.0, 5.0))
    (stick,) = calibrate(moving).sticks
    assert (stick.rest, stick.rim, stick.inner, stick.outer) == (None, None, None, None)
    assert [words.split(":")[0] for words in stick.missing] == ["rest", "rim"]
    assert "let the stick lie" in stick.missing[0]
    (still,) = calibrate(stick_recording(end_s=3.0)).sticks
    assert still.rest is not None
    assert "0.0 turns round the rim" in still.missing[0]
    swipes = Recording(MouseStandIn().swipe(10.0))
    assert "--swipe-cm" in calibrate(swipes).mouse.missing[0]
    assert "1 swipe, 3 at least" in calibrate(swipes, swipe_cm=10.0).mouse.missing[0]
    turned = Recording(GyroStandIn().events(lambda t: (40.0 * t, 0.0), 0.0, 4.0))
    assert "lay the pad on the table" in calibrate(turned).gyros[0].missing[0]
    with pytest.raises(WendonicError, match="no stick, mouse or gyro"):
        calibrate(Recording([Event(0.0, "key.KeyW", 1.0)]))
    with pytest.raises(WendonicError, match="share: found 1; allowed"):
        calibrate(swipes, share=1.0)


@pytest.mark.parametrize("power", [2.0, 3.0])
def test_a_calibrated_stick_rests_and_reaches_everything_all_round(power):
    recording = stick_recording(5, rim_power=power, rim_reach=0.93)
    profile, paths, _ = calibrated_profile(profile_from_text(HEAD + STICK), calibrate(recording))
    assert "# the worn one" in saved_text(profile, HEAD + STICK)
    assert "mode.m.move.bind[0].centre" in paths
    again = stick_recording(6, rim_power=power, rim_reach=0.93)
    trace = shape(again, profile, hz=100)
    free, rim = trace[trace["t"] < 3.0], trace[(trace["t"] > 3.5) & (trace["t"] < 9.4)]
    assert (np.hypot(free["local_x"], free["local_y"]) > 0.0).mean() <= 0.01
    assert np.hypot(rim["local_x"], rim["local_y"]).min() > 0.985
    uncalibrated = shape(again, profile_from_text(HEAD + STICK), hz=100)
    assert (
        np.hypot(uncalibrated["local_x"], uncalibrated["local_y"])[(trace["t"] > 3.5) & (trace["t"] < 9.4)].min()
        < 0.985
    )


CENTRED = f"""{HEAD}[mode.m.move]
half_life_s = 0
[[mode.m.move.bind]]
keys = {{ forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }}
[[mode.m.move.bind]]
stick = "pad.left_stick"
centre = [0.2, -0.1]
dead_zone = {{ form = "round", inner = 0.02 }}
[[mode.m.look.bind]]
stick = "pad.right_stick"
centre = [-0.1, 0.2]
dead_zone = {{ form = "round", inner = 0.02 }}
yaw_deg_s = 90
"""


@pytest.mark.parametrize("loss", ["", "lost.pad", "lost.focus"])
def test_a_missing_or_lost_calibrated_stick_is_at_rest(loss):
    """Nobody has to have a pad, and an unplugged one reports nothing: neither walks away from its centre."""
    profile = profile_from_text(CENTRED)
    held = [Event(0.0, "pad.left_stick", (0.9, 0.1)), Event(0.0, "pad.right_stick", (0.9, 0.1)), Event(0.2, loss, 1)]
    events = [*(held if loss else ()), Event(1.0, "key.KeyW", 1), Event(1.5, "mark", "end")]
    trace = shape(Recording(events), profile, hz=60)
    free = trace[(trace["t"] > 0.7) & (trace["t"] < 1.0)] if loss else trace[trace["t"] < 1.0]
    assert (free["amount"] == 0.0).all()
    assert (free["look_yaw_deg"] == 0.0).all()
    walks = trace[trace["t"] > 1.05]
    assert (walks["amount"] == 1.0).all()
    assert (walks["local_x"] == 0.0).all()
    # It is the pad that was lost, not its calibration.
    back = shape(Recording([*events[:-1], Event(1.0, "pad.left_stick", (0.2, -0.1)), *events[-1:]]), profile, hz=60)
    assert back["local_x"].equals(trace["local_x"])


@pytest.mark.long
def test_only_numbers_change_in_a_profile():
    text = (FOLDER / "lookout.toml").read_text()
    profile, changes, left_out = calibrated_profile(
        profile_from_text(text), calibrate(demo_recording("lookout_devices"), swipe_cm=20.0)
    )
    before_comments = [line.partition("#")[2] for line in text.splitlines() if "#" in line]
    after = saved_text(profile, text)
    assert [line.partition("#")[2] for line in after.splitlines() if "#" in line] == before_comments
    assert profile == profile_from_text(after)
    assert value_at(profile, "mode.foot.look.bind[1].dpi") == 792
    assert {name: value_at(profile, name) for name in changes} == {
        name: tuple(value) if isinstance(value, list) else value for name, value in changes.items()
    }
    assert changes["mode.foot.move.bind[1].gate"] == "measured"
    assert left_out == ('mode.foot.look.bind[2].dead_zone.outer is left out: form "cut" has none',)
    # What a calibration writes is sound, for every device: the idle ones lie where they were measured to lie.
    assert [found.slug for found in check(profile)] == ["rim-out-of-reach"]
    assert edited(text, {}) == text
    with pytest.raises(WendonicError, match=r"bind\[9\].dpi does not exist; allowed: mode.foot"):
        edited(text, {"mode.foot.look.bind[9].dpi": 1})
    with pytest.raises(WendonicError, match='no field "acel_m_s2"; did you mean "accel_m_s2"'):
        value_at(profile_from_text(HEAD + STICK + "[gait.walk]\nbody_m = 1\n"), "gait.walk.acel_m_s2")
    with pytest.raises(WendonicError, match="binds none of the devices"):
        calibrated_profile(profile_from_text(HEAD + STICK), calibrate(Recording(MouseStandIn().swipe(10.0))))


def test_the_command_shows_writes_and_draws(tmp_path, capsys):
    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        return end.value.code, capsys.readouterr().out

    recording, profile = FOLDER / "lookout_devices.jsonl", tmp_path / "lookout.toml"
    before = (FOLDER / "lookout.toml").read_bytes()
    profile.write_bytes(before)
    code, out = run("calibrate", recording, "--into", profile, "--swipe-cm", 20, "--dry-run")
    assert (code, profile.read_bytes()) == (0, before)
    assert "pad.left_stick\n  rests at x 0.03" in out
    assert "\n+dpi = 792" in out
    code, out = run("calibrate", recording, "--into", profile, "--swipe-cm", 20)
    assert code == 0
    assert f'wrote {profile}:\n  mode.foot.move.bind[1].gate = "measured"\n' in out
    assert profile_from_text(profile.read_text()).mode["foot"].look.bind[1].dpi == 792
    code, out = run("calibrate", recording, "--into", profile, "--swipe-cm", 20, "--dry-run")
    assert (code, out.splitlines()[-1]) == (0, f"{profile}: nothing to change")
    picture = tmp_path / "devices.png"
    assert run("draw", "calibration", recording, "-o", picture) == (0, f"wrote {picture}\n")
    assert picture.exists()


def test_the_picture_shows_the_samples_and_says_what_is_missing():
    both = calibrate(demo_recording("lookout_devices"))
    rest, rim, *_ = draw_calibration(both)
    stick = both.sticks[0]
    assert len(rest.lines[0].get_xdata()) == int(stick.rest.used.sum())
    assert rest.patches[0].radius == stick.inner.value
    drawn = np.hypot(*rim.lines[1].get_xydata().T)
    assert drawn[:-1] == pytest.approx([length.value for length in stick.rim.lengths])
    _, empty = draw_calibration(calibrate(stick_recording(end_s=3.0)))
    assert "0.0 turns round the rim" in empty.texts[0].get_text()
    with pytest.raises(WendonicError, match="0 sticks"):
        draw_calibration(calibrate(Recording(MouseStandIn().swipe(10.0))))


sys.path.insert(0, str(Path(__file__).parents[1] / "benchmarks"))
from stick_noise import recorded, rim_length, true_length, true_spread  # noqa: E402


@pytest.mark.parametrize(
    ("noise", "rim", "gives_inner"),
    [
        pytest.param("t3", "circle", True, marks=pytest.mark.long),
        pytest.param("ar 0.05 s", "circle", False, marks=pytest.mark.long),
        pytest.param("dropouts", "octagon", True, marks=pytest.mark.long),
        pytest.param("returns", "circle", True, marks=pytest.mark.long),
        pytest.param("off centre", "square", True, marks=pytest.mark.long),
        pytest.param("laplace", "ellipse", True, marks=pytest.mark.long),
        pytest.param("ar 0.2 s", "octagon", False, marks=pytest.mark.long),
        pytest.param("8 bits coarse", "circle", True, marks=pytest.mark.long),
        pytest.param("slow drift", "circle", True, marks=pytest.mark.long),
        pytest.param("played", "square", True, marks=pytest.mark.long),
        pytest.param("uneven", "ellipse", True, marks=pytest.mark.long),
        pytest.param("8 bits quiet", "square", True, marks=pytest.mark.long),
    ],
)
def test_intervals_hold_for_noise_that_is_not_white_and_rims_that_are_not_round(noise, rim, gives_inner):
    spread, inner = true_spread(noise, SHARE)
    hits = dict.fromkeys(("x", "y", "noise", "inner", "rim"), 0)
    runs = drifts = 0
    for seed in range(FEW):
        recording, rest_at = recorded(noise, rim, 1000 + seed)
        found = calibrate(recording).sticks[0]
        if found.rest is None:
            continue
        runs += 1
        x, y = rest_at(float(found.samples.t[found.rest.used].mean()))
        hits["x"] += holds(found.rest.x, x)
        hits["y"] += holds(found.rest.y, y)
        hits["noise"] += holds(found.rest.noise, spread)
        hits["inner"] += math.isnan(inner) or bool(found.inner and holds(found.inner, inner))
        drifts += found.rest.drift_per_min is not None
        seen = (found.rest.x.value, found.rest.y.value)
        hits["rim"] += holds(found.rim.lengths[9], true_length(rim, seen, math.pi / 2.0))
        if not gives_inner:
            assert found.inner is None
            assert any("noise that changes so slowly" in words for words in found.missing)
    assert runs >= LEAST_OF_FEW
    for name, count in hits.items():
        if name != "inner" or gives_inner:
            assert count >= LEAST_OF_FEW - (FEW - runs), (name, count, runs)
    assert drifts == (runs if noise == "slow drift" else 0) or (noise.startswith("ar") and drifts <= 2)


def stick_let_go(times, scatter, seed, pause_s=1.4, drift_per_s=0.0):
    """A stick that is pushed aside, another way each time, and comes to rest so many times."""

    def hand(t):
        number, since = divmod(t, pause_s + 0.3)
        tilt = min(max(since - pause_s, 0.0) / 0.1, 1.0)
        return tilt * math.sin(2.4 * number) + drift_per_s * t, tilt * math.cos(2.4 * number)

    stick = StickStandIn(rest=REST, noise=NOISE, scatter=scatter, bits=12, poll_hz=100.0, seed=seed)
    return calibrate(Recording.from_checked(stick.events(hand, 0.0, times * (pause_s + 0.3) - 0.3))).sticks[0]


@pytest.mark.long
def test_a_stick_that_comes_to_rest_at_other_places_has_a_dead_zone_for_all_of_them():
    """The places are no slow noise, and no drift; with few of them nobody knows how far apart they get."""
    for times, scatter, pause_s in ((3, 0.02, 4.0), (10, 0.02, 1.4), (10, 0.004, 1.4)):
        distance = math.hypot(scatter, NOISE) * math.sqrt(2.0 * math.log(1000.0))
        sticks = [stick_let_go(times, scatter, seed, pause_s) for seed in range(FEW)]
        assert all(stick.rest.returns.times == times and stick.rest.drift_per_min is None for stick in sticks)
        assert sum(holds(stick.rest.noise, NOISE) for stick in sticks) >= LEAST_OF_FEW
        assert sum(holds(stick.rest.returns.scatter, scatter) for stick in sticks) >= LEAST_OF_FEW
        assert sum(holds(stick.rest.x, REST[0]) for stick in sticks) >= LEAST_OF_FEW
        if times < 5:
            assert all(stick.inner is None for stick in sticks)
            assert "in different places; push it aside" in sticks[0].missing[-1]
        else:
            assert sum(holds(stick.inner, distance) for stick in sticks) >= LEAST_OF_FEW
    same = [stick_let_go(10, 0.0, seed) for seed in range(FEW)]
    assert [stick.rest.returns.scatter for stick in same] == [None] * FEW
    assert not any("returns" in words for stick in same for words in stick.missing)
    (words,) = [words for words in stick_let_go(2, 0.0, 0, 4.0).missing if words.startswith("returns")]
    assert "does not cover" in words


def stick_played(releases, holds, seed):
    """A stick that is pushed aside and released so many times, then held at small tilts, a second each."""
    random = np.random.default_rng(seed)
    held = [(random.uniform(0.15, 0.28), random.uniform(0.0, math.tau)) for _ in range(holds)]

    def hand(t):
        number, since = divmod(t, 1.5)
        if number < releases:
            return min(max(since - 1.2, 0.0) / 0.1, 1.0), 0.0
        tilt, heading = held[min(int(t - 1.5 * releases), holds - 1)]
        tilt += 0.004 * math.sin(50.0 * t)
        return tilt * math.sin(heading), tilt * math.cos(heading)

    stick = StickStandIn(rest=REST, noise=NOISE, scatter=0.01, bits=12, poll_hz=100.0, seed=seed)
    events = stick.events(hand, 0.0, 1.5 * releases + holds)
    return calibrate(Recording.from_checked(events))


@pytest.mark.long
def test_a_stick_held_still_in_play_does_not_count_as_released():
    for seed in range(6):
        found = stick_played(10, 6, seed)
        rest = found.sticks[0].rest
        assert rest.returns.times == 10
        # Two holds at nearly one tilt are one, and a hold further out than a free stick ever lies is none.
        assert 4 <= rest.held_times <= 6
        assert math.hypot(rest.x.value - REST[0], rest.y.value - REST[1]) < 0.015
        assert f"held still elsewhere {rest.held_times} times, which is left out" in str(found)
        assert found.sticks[0].inner.high < 0.12
    unknown = stick_played(2, 20, 0)
    assert (unknown.sticks[0].rest, unknown.sticks[0].inner) == (None, None)
    assert "so it was held at some of them; let it lie for five seconds" in str(unknown)


@pytest.mark.filterwarnings("error")
@pytest.mark.parametrize(
    "readings",
    [
        [(0.0, 0.1), (8.0, 0.1)],
        [(0.0, 0.1), (4.0, 0.4), (4.1, 0.9), (4.2, 0.1), (9.0, 1.0)],
    ],
)
def test_a_stick_that_rests_on_one_reading_is_known_to_a_step_of_eight_bits(readings):
    recording = Recording([Event(t, "pad.left_stick", (x, -0.2)) for t, x in readings])
    found = calibrate(recording)
    (stick,) = found.sticks
    half = 0.95 / 255.0
    assert stick.rest.x[:3] == pytest.approx((0.1, 0.1 - half, 0.1 + half))
    assert stick.inner[:2] == (pytest.approx(0.0, abs=1e-12), 0.0)
    assert stick.inner.high == pytest.approx(math.sqrt(2.0) / 255.0)
    draw_calibration(found)


@pytest.mark.long
def test_a_drift_is_told_from_places_that_differ():
    """0.06 a minute along x; the places lie four times as far apart as it gets in ten seconds."""
    found = [stick_let_go(4, 0.04, seed, 5.0, drift_per_s=0.001) for seed in range(FEW)]
    assert sum(holds(stick.rest.drift_per_min, 0.06) for stick in found) >= LEAST_OF_FEW


def test_a_corner_of_a_rim_is_where_it_is():
    """At headings on both sides of a corner and on it; a smooth curve through it would be 0.02 too short."""
    stick = StickStandIn(rest=REST, noise=0.002, rim_power=math.inf, rim_reach=0.9, bits=12, poll_hz=100.0, seed=3)
    heading, length = np.zeros(0), np.zeros(0)
    for t in np.arange(0.0, 9.0, 0.01):
        x, y = stick.read(math.sin(math.tau * t / 3.0), math.cos(math.tau * t / 3.0))
        heading = np.append(heading, math.degrees(math.atan2(x - REST[0], REST[1] - y)))
        length = np.append(length, math.hypot(x - REST[0], REST[1] - y))
    for aim in (39.0, 43.0, 45.0, 46.5, 52.0):
        near = np.abs(heading - aim) < 10.0
        found = reach_at((heading[near] - aim) / 10.0, length[near]).length
        truth = 0.9 / max(math.sin(math.radians(aim)), math.cos(math.radians(aim)))
        assert found.value == pytest.approx(truth, abs=0.006), aim
        assert found.high - found.low < 0.025


def test_turns_round_a_square_and_round_a_rim_beside_the_middle_are_counted():
    for rim, noise in (("square", "white"), ("circle", "off centre"), ("square", "off centre")):
        recording, _ = recorded(noise, rim, 7)
        found = calibrate(recording).sticks[0]
        assert found.rim.turns == pytest.approx(3.0, abs=0.15)
        corner = found.rim.lengths[4].value if rim == "square" and noise == "white" else None
        if corner is not None:
            middle = (found.rest.x.value, found.rest.y.value)
            assert corner == pytest.approx(true_length(rim, middle, math.radians(40.0)), abs=0.02)
    assert rim_length("square", math.pi / 4.0) == pytest.approx(0.9 * math.sqrt(2.0))


def test_a_rim_is_not_written_while_nobody_knows_where_the_stick_rests():
    """Only the turns: seen from the middle the rim has lengths, and from where it rests it would have others."""
    recording, _ = recorded("white", "circle", 3)
    turns = cut(recording, 6.4, 15.6)
    found = calibrate(turns)
    assert found.sticks[0].rest is None
    assert found.sticks[0].rim is not None
    profile = profile_from_text(HEAD + STICK)
    assert calibrated_profile(profile, found) == (profile, {}, ())


def test_each_player_s_entry_gets_the_centre_of_that_player_s_own_pad():
    first, second = (
        stick_recording(number, end_s=11.0, rest=rest) for number, rest in enumerate((REST, (-0.06, 0.02)))
    )
    of_second = [Event(event.t, "pad1.left_stick", event.value) for event in second]
    both = Recording(sorted([*first, *of_second], key=lambda event: event.t))
    apart = HEAD + "[seat.one]\n[seat.two]\n" + "".join(f'{STICK}seat = "{seat}"\n' for seat in ("one", "two"))
    profile, changes, _ = calibrated_profile(profile_from_text(apart), calibrate(both))
    (binds,) = [mode.move.bind for mode in profile.mode.values()]
    for bind, rest in zip(binds, (REST, (-0.06, 0.02)), strict=True):
        assert bind.centre == pytest.approx(rest, abs=3e-3)
    assert len([path for path in changes if path.endswith(".centre")]) == 2


def test_a_stick_whose_dead_zone_is_not_known_is_drawn_with_the_reason():
    recording, _ = recorded("ar 0.2 s", "circle", 1)
    rest, rim = draw_calibration(calibrate(recording))[:2]
    assert any("inner:" in text.get_text() for text in rest.texts)
    assert rim.get_title(loc="left").startswith("its rim is ")


@pytest.mark.long
def test_single_readings_far_off_are_reported_and_give_no_dead_zone():
    reported = []
    for seed in range(12):
        recording, _ = recorded("spikes", "circle", seed)
        found = calibrate(recording).sticks[0]
        if found.rest.glitches >= 2:
            reported.append(found)
            assert found.inner is None
            assert any(f"{found.rest.glitches} single readings lie far off" in words for words in found.missing)
    assert reported
