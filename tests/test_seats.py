"""Players at one machine: shares of the keyboard, pads by number, and changing seats while playing."""

import json

import pytest

from wendonic import ControlError, Event, Helm, ProfileError, Recording, WendonicError, profile_from_text, shape
from wendonic.cli.main import app
from wendonic.demo import demo_profile, profile_names
from wendonic.pictures import PICTURES
from wendonic.pictures.picture import Given
from wendonic.study.checking import check
from wendonic.study.feel_sheet import measure
from wendonic.study.probes.by_name import probe_of
from wendonic.study.solve.compare import compare
from wendonic.study.solve.corpus import corpus, sweep_on
from wendonic.study.solve.fit import fit
from wendonic.study.solve.sweep import sweep
from wendonic.testing import assert_feel

TEXT = """format = "wendonic-profile"
version = 1
[seat.one]
keys = ["KeyW", "KeyS", "Space"]
[seat.two]
keys = ["ArrowUp", "ArrowDown", "Enter"]
[mode.yard]
steer = { frame = "map" }
[mode.yard.move]
half_life_s = 0
[[mode.yard.move.bind]]
keys = { forward = ["KeyW", "ArrowUp", "KeyI"], back = ["KeyS", "ArrowDown"] }
rise_s = 0
fall_s = 0
[[mode.yard.move.bind]]
stick = "pad.left_stick"
dead_zone = { form = "none" }
curve = { form = "linear" }
[[mode.yard.look.bind]]
mouse = "mouse.move"
deg_per_count = 1
seat = "two"
[mode.yard.press]
puff = { bind = ["Space", "Enter", "pad.south", "ControlLeft+Space"] }
pause = { bind = ["Escape"] }
call = { bind = ["KeyC"], seat = "one" }
"""


def both(profile=None):
    profile = profile or profile_from_text(TEXT)
    return [Helm(profile, seat=seat) for seat in ("one", "two")]


def ticked(helms, *events):
    for helm in helms:
        for event in events:
            helm.apply(event)
    return [helm.tick(0.01) for helm in helms]


def test_each_player_has_own_keys_and_an_own_pad_and_the_rest_is_for_both():
    helms = both()
    for control, value, expected in (
        ("key.KeyW", 1.0, (1.0, 0.0)),
        ("key.ArrowUp", 1.0, (1.0, 1.0)),
        ("key.KeyW", 0.0, (0.0, 1.0)),
        ("key.ArrowUp", 0.0, (0.0, 0.0)),
        ("key.KeyI", 1.0, (1.0, 1.0)),
        ("key.KeyI", 0.0, (0.0, 0.0)),
        ("pad.left_stick", (0.0, -0.5), (0.5, 0.0)),
        ("pad1.left_stick", (0.0, -1.0), (0.5, 1.0)),
        ("pad2.left_stick", (0.0, -1.0), (0.5, 1.0)),
        ("lost.pad", 1.0, (0.0, 1.0)),
        ("lost.pad1", 1.0, (0.0, 0.0)),
    ):
        assert tuple(intent.local.forward for intent in ticked(helms, Event(0.0, control, value))) == expected, (
            control
        )
    for control, press, expected in (
        ("key.Space", "puff", (True, False)),
        ("key.Enter", "puff", (True, True)),
        ("key.Escape", "pause", (True, True)),
        ("key.KeyC", "call", (True, False)),
    ):
        intents = ticked(helms, Event(0.0, control, 1.0))
        assert tuple(intent.press(press).held for intent in intents) == expected
    looks = ticked(helms, Event(0.0, "mouse.move", (5.0, 0.0)))
    assert [round(intent.look.yaw_deg, 6) for intent in looks] == [0.0, 5.0]
    # Who plays alone has everything.
    alone = Helm(profile_from_text(TEXT))
    alone.key("KeyW", down=True)
    alone.key("ArrowDown", down=True)
    alone.key("Enter", down=True)
    alone.mouse(5.0, 0.0)
    intent = alone.tick(0.01)
    assert (intent.local.forward, intent.press("puff").held) == (0.0, True)
    assert intent.look.yaw_deg == pytest.approx(5.0)


def test_batch_and_helm_agree_in_every_seat():
    events = [
        Event(0.1, "key.KeyW", 1.0),
        Event(0.2, "key.ArrowDown", 1.0),
        Event(0.3, "pad1.left_stick", (0.5, 0.0)),
        Event(0.4, "mouse.move", (3.0, 1.0)),
        Event(0.5, "key.Enter", 1.0),
        Event(1.0, "mark", "end"),
    ]
    profile = profile_from_text(TEXT)
    for seat in ("one", "two", "pad1", None):
        trace = shape(Recording(events), profile, hz=10, seat=seat)
        helm = Helm(profile, seat=seat)
        for row, (_, given) in enumerate(Recording(events).ticks(10)):
            for event in given:
                helm.apply(event)
            intent = helm.tick(0.1)
            assert trace["local_y"][row] == pytest.approx(intent.local.forward)
            assert trace["local_x"][row] == pytest.approx(intent.local.right)
            assert trace["view_yaw_deg"][row] == pytest.approx(intent.view.yaw_deg)
            assert trace["puff_held"][row] == intent.press("puff").held


def test_a_timeline_of_a_seat_shows_that_player_alone(tmp_path):
    (tmp_path / "two.toml").write_text(TEXT, newline="\n")
    events = [Event(0.5 * n, f"key.{code}", 1.0) for n, code in enumerate(("KeyW", "ArrowDown", "Enter", "Escape"))]
    pads = [Event(2.0, "pad.south", 1.0), Event(2.5, "pad1.south", 1.0), Event(3.0, "mark", "end")]
    Recording([*events, *pads], title="tea").write(tmp_path / "both.jsonl")
    shown = {}
    for seat in ("one", "two"):
        given = Given([tmp_path / "two.toml"], tmp_path / "both.jsonl", seat=seat)
        bars, *_ = PICTURES["timeline"].draw(given)
        shown[seat] = [label.get_text() for label in bars.get_yticklabels()]
        assert bars.get_title(loc="left").startswith(f"tea, seat {seat}: top speed")
    assert shown["one"][:3] == ["KeyW", "Escape", "pad.south"]
    assert shown["two"][:4] == ["ArrowDown", "Enter", "Escape", "pad1.south"]


def test_seats_are_changed_while_playing_and_held_presses_of_the_new_one_count_once_released():
    (helm, _) = both()
    ticked([helm], Event(0.0, "key.KeyW", 1.0), Event(0.0, "key.Enter", 1.0), Event(0.0, "key.ArrowDown", 1.0))
    for _ in range(30):
        (intent,) = ticked([helm])
    moving = intent.motion
    helm.take_seat("two")
    (intent,) = ticked([helm])
    assert intent.local.forward == -1.0
    assert intent.motion[1] == pytest.approx(moving[1] + 0.01 * intent.motion[4], abs=2e-3)
    assert not intent.press("puff").held
    ticked([helm], Event(0.0, "key.Enter", 0.0))
    (intent,) = ticked([helm], Event(0.0, "key.Enter", 1.0))
    assert intent.press("puff").began
    for seat in ("three", "pad9"):
        with pytest.raises(ControlError, match=f'unknown seat "{seat}"'):
            helm.take_seat(seat)
    assert helm.seat == "two"
    helm.take_seat("pad5")
    (intent,) = ticked([helm], Event(0.0, "pad5.left_stick", (0.0, 0.25)), Event(0.0, "key.ArrowDown", 0.0))
    helm.key("KeyW", down=False)
    assert helm.tick(0.01).local.forward == -0.25


@pytest.mark.parametrize(
    ("right", "wrong", "fault"),
    [
        (
            'keys = ["ArrowUp", "ArrowDown", "Enter"]',
            'keys = ["ArrowUp", "Space"]',
            "Space already belongs to seat one",
        ),
        (
            '[seat.two]\nkeys = ["ArrowUp", "ArrowDown", "Enter"]',
            'pad = "pad2"\n[seat.two]\npad = "pad2"',
            "seat.two.pad: pad2 already belongs to seat one",
        ),
        ('keys = ["ArrowUp", "ArrowDown", "Enter"]', 'pad = "pad11"', 'found "pad11"; did you mean "pad1"?'),
        ("[seat.two]", "[seat.pad1]", "seat.pad1: is the name of a pad"),
        ('seat = "two"', 'seat = "too"', 'mode.yard.look.bind[0].seat: no seat "too"; did you mean "two"?'),
        ('seat = "one"', 'seat = "won"', 'mode.yard.press.call.seat: no seat "won"'),
    ],
)
def test_faults_of_seats_are_reported(right, wrong, fault):
    with pytest.raises(ProfileError) as found:
        profile_from_text(TEXT.replace(right, wrong))
    assert fault in str(found.value)


def test_a_seat_without_a_pad_gets_the_first_that_nobody_names():
    """One on the keyboard, the other with the only pad there is."""
    text = TEXT.replace('keys = ["ArrowUp", "ArrowDown", "Enter"]', 'pad = "pad0"')
    lines = profile_from_text(text).sentences()
    assert "  seat one: pad1, KeyW, KeyS, Space" in lines
    assert "  seat two: pad" in lines
    one, two = (Helm(profile_from_text(text), seat=seat) for seat in ("one", "two"))
    pushed = Event(0.0, "pad.left_stick", (0.0, -1.0))
    assert [intent.local.forward for intent in ticked([one, two], pushed)] == [0.0, 1.0]


def test_the_controls_of_each_player_are_described():
    lines = profile_from_text(TEXT).sentences()
    assert "  seat one: pad, KeyW, KeyS, Space" in lines
    assert "  seat two: pad1, ArrowUp, ArrowDown, Enter" in lines
    whose = [line.split(":")[0].strip() for line in lines if line.endswith("; seat two only")]
    assert whose == ["mouse"]
    whose = [line.split(":")[0].strip() for line in lines if line.endswith("; seat one only")]
    assert whose == ["press call"]


APART = """format = "wendonic-profile"
version = 1
[mode.yard]
gait = "walk"
steer = { frame = "map" }
[seat.one]
keys = ["KeyW", "KeyS"]
[seat.two]
keys = ["ArrowUp", "ArrowDown"]
[[mode.yard.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"] }
rise_s = 0.5
seat = "one"
[[mode.yard.move.bind]]
keys = { forward = ["ArrowUp"], back = ["ArrowDown"] }
rise_s = 0.25
seat = "two"
[[mode.yard.move.bind]]
stick = "pad.left_stick"
dead_zone = { inner = 0.2 }
seat = "two"
[gait.walk]
top_speed_m_s = 4
accel_m_s2 = 40
"""


@pytest.mark.long
def test_each_player_s_controls_are_measured_and_drawn_by_themselves(tmp_path, capsys):
    """A ramp that the gait can follow takes 0.9 of its time to 90 %."""
    (tmp_path / "apart.toml").write_text(APART, newline="\n")
    profile = profile_from_text(APART)
    for seat, ramp_s in ((None, 0.5), ("one", 0.5), ("two", 0.25)):
        assert measure(profile, seat=seat, by="keys").reach90_s == pytest.approx(0.9 * ramp_s)
    # What the profile calls `pad` is the player's own.
    for by in ("pad", "pad.left_stick", "pad1"):
        assert measure(profile, seat="two", by=by).by == "pad1.left_stick"
    with pytest.raises(WendonicError, match='no such device in mode "yard": "pad"; there are: keys'):
        measure(profile, seat="one", by="pad")
    with pytest.raises(ControlError, match='unknown seat "tow"; did you mean "two"'):
        measure(profile, seat="tow")
    amounts, *_ = PICTURES["stick"].draw(Given([tmp_path / "apart.toml"], seat="two"))
    assert amounts.get_title(loc="left") == "pad1.left_stick: amount at each position"
    with pytest.raises(WendonicError, match="has no stick"):
        PICTURES["stick"].draw(Given([tmp_path / "apart.toml"], seat="one"))
    words = ["measure", str(tmp_path / "apart.toml"), "--seat", "two", "--of", "reach90_s", "--by", "keys"]
    with pytest.raises(SystemExit):
        app(words, prog_name="wendonic")
    head, *_ = capsys.readouterr().out.splitlines()
    assert head.endswith("apart.toml, mode yard, seat two, by keys")
    with pytest.raises(SystemExit):
        app([*words, "--json"], prog_name="wendonic")
    assert json.loads(capsys.readouterr().out)["seat"] == "two"


@pytest.mark.long
def test_a_seat_is_compared_fitted_swept_and_played(tmp_path):
    """By the same closed form: ramps that the gait can follow take 0.9 of their time."""
    profile, ramp = profile_from_text(APART), "mode.yard.move.bind[1].rise_s"
    slow = profile.changed({ramp: 0.75})
    both = compare({"now": profile, "slow": slow}, by="keys", seat="two").sheets
    assert [sheet.reach90_s for sheet in both] == pytest.approx([0.225, 0.675])
    assert not compare({"now": profile, "slow": slow}, by="keys", seat="one").differs("reach90_s")
    fitted = fit(profile, {"reach90_s": 0.45}, [ramp], by="keys", seat="two").profile
    assert fitted.mode["yard"].move.bind[1].rise_s == pytest.approx(0.5, rel=1e-3)
    swept = sweep(profile, {ramp: [0.4, 0.8]}, ["reach90_s"], by="keys", seat="two")
    assert swept["reach90_s"].tolist() == pytest.approx([0.36, 0.72])
    keys = [Event(0.0, "key.KeyW", 1.0), Event(0.0, "key.ArrowDown", 1.0), Event(2.0, "mark", "end")]
    Recording(keys).write(tmp_path / "both.jsonl")
    for seat, ramp_s, sign in (("one", 0.5, 1.0), ("two", 0.25, -1.0)):
        (row,) = corpus(tmp_path, {"now": profile, "slow": slow}, seat=seat).to_dict("records")
        # 4 m/s for two seconds, but for half of the ramp.
        assert row["now.end_y_m"] == pytest.approx(sign * 4.0 * (2.0 - ramp_s / 2.0), abs=1e-3)
        assert (row["slow against now.end_apart_m"] > 0.5) == (seat == "two")
        (mean,) = sweep_on(profile, {ramp: [0.75]}, ["most_apart_m"], tmp_path, seat=seat)["most_apart_m"]
        assert mean == pytest.approx(row["slow against now.most_apart_m"])
    with pytest.raises(ControlError, match='unknown seat "tow"'):
        corpus(tmp_path, {"now": profile}, seat="tow")


def test_a_budget_holds_for_the_player_that_it_names():
    """0.9 of a ramp of 0.25 s is 0.225 s, of one of 0.5 s 0.45 s."""
    budget = "[budget]\nreach90_s = { max = 0.3, by = 'keys', seat = 'SEAT' }\n"
    found = {}
    for seat in ("one", "two"):
        profile = profile_from_text(APART + budget.replace("SEAT", seat))
        found[seat] = [one for one in check(profile, prove=False) if one.slug == "over-budget"]
    assert found["two"] == []
    (missed,) = found["one"]
    assert "reach90_s: 0.45 s; allowed: at most 0.3 s" in missed.measured
    assert "--seat one --by keys" in missed.advice
    with pytest.raises(ProfileError, match=r'budget\.reach90_s\.seat: no seat "too"; did you mean "two"'):
        profile_from_text(APART + budget.replace("SEAT", "too"))
    assert_feel(profile_from_text(APART), by="keys", seat="two", reach90_s=(0.22, 0.23))
    with pytest.raises(AssertionError, match=r"reach90_s 0\.45 s"):
        assert_feel(profile_from_text(APART), by="keys", seat="one", reach90_s=(0.22, 0.23))


OTHERS_PRESS = """format = "wendonic-profile"
version = 1
[seat.one]
keys = ["KeyW", "KeyS", "Space", "ShiftLeft", "KeyQ"]
[seat.two]
keys = ["ArrowUp", "ArrowDown"]
[mode.yard]
gait = "walk"
press_gaits = { sprint = "run" }
[mode.yard.move]
press_amounts = { slow = 0.5 }
[[mode.yard.move.bind]]
keys = { forward = ["KeyW", "ArrowUp"], back = ["KeyS", "ArrowDown"] }
[[mode.yard.look.bind]]
gyro = "pad.gyro"
turns = "pitch"
while_press = "aim"
[mode.yard.look.zoom]
press = "aim"
fov_deg = 80
zoom_fov_deg = 40
[mode.yard.press]
jump = { bind = ["Space"] }
sprint = { bind = ["ShiftLeft"] }
aim = { bind = ["KeyQ"], seat = "one" }
slow = { bind = ["pad.south"], seat = "one" }
[gait.walk]
top_speed_m_s = 4
jump = { press = "jump", height_m = 1.0 }
[gait.run]
top_speed_m_s = 6
jump = { press = "jump", height_m = 1.0 }
"""


@pytest.mark.long
def test_a_press_of_another_player_exists_but_never_begins():
    profile = profile_from_text(OTHERS_PRESS)
    for seat, sprints, why in (("one", 6.0, None), ("two", None, "no press jumps or waits for the ground")):
        sheet = measure(profile, seat=seat)
        assert sheet.top_speed_m_s == pytest.approx(4.0)
        assert str(sheet.reasons.get("jump_height_m")) == str(why)
        assert (sheet.gyro_ratio is None) == (seat == "two")
        if sprints:
            assert measure(profile, seat=seat, held="sprint", only=["top_speed_m_s"]).top_speed_m_s == sprints
        else:
            with pytest.raises(WendonicError, match='no such press in mode "yard": "sprint"; there are: none'):
                measure(profile, seat=seat, held="sprint")
    with pytest.raises(WendonicError, match="no press that jumps"):
        probe_of(profile, "jump_tap", seat="two")


@pytest.mark.long
@pytest.mark.parametrize("name", profile_names())
def test_every_mode_is_measured_for_a_player_who_makes_none_of_its_presses(name):
    given = demo_profile(name)
    presses = {f"mode.{mode}.press.{press}.seat": "two" for mode in given.mode for press in given.mode[mode].press}
    profile = given.changed({"seat.one": {}, "seat.two": {}, **presses})
    for mode in profile.mode:
        with_none, with_all = (measure(profile, mode, seat=seat) for seat in ("one", "two"))
        assert with_none.top_speed_m_s == pytest.approx(with_all.top_speed_m_s)
        assert with_none.jump_height_m is None
