"""Recordings of play: a game's own session, what it told its helm, presses that enter modes, several modes in one."""

import copy
import itertools
import math
import random

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from wendonic import Event, Helm, Recording, View, WendonicError, shape
from wendonic.demo import demo_profile, demo_recording
from wendonic.demo.make_recordings import FENCE_M
from wendonic.devices.controls import REPORTED
from wendonic.devices.sources.presses import SwitchBind
from wendonic.profile.load import profile_from_text
from wendonic.recording.stretches import join
from wendonic.runtime.lone_control import lone_control

AXES = {
    "screen in pixels": 'right = "+x"\nforward = "-y"\nunit = "px"\nunits_per_m = 50\n',
    "y up": 'right = "+x"\nforward = "-z"\nup = "+y"\n',
}
MODES = """
[mode.foot]
leave_to = ["cart"]
steer = { frame = "camera" }
[[mode.foot.move.bind]]
keys = { forward = ["KeyW"], right = ["KeyD"] }
[[mode.foot.look.bind]]
mouse = "mouse.move"
deg_per_count = 0.1
[mode.foot.press]
mount = { bind = ["key.KeyE"], enter = "cart" }
[mode.cart]
gait = "cart"
leave_to = ["foot", "crates"]
steer = { frame = "drive" }
[[mode.cart.throttle.bind]]
keys = { forward = ["KeyW"] }
[[mode.cart.turn.bind]]
keys = { right = ["KeyD"] }
[mode.cart.press]
dismount = { bind = ["key.KeyE"], enter = "foot" }
push = { bind = ["key.KeyQ"], enter = "crates" }
[mode.crates]
steer = { frame = "grid" }
[[mode.crates.move.bind]]
keys = { forward = ["KeyW"], right = ["KeyD"] }
[mode.crates.press]
push = { bind = ["key.KeyQ"], enter = "foot", enter_at = "end" }
"""


OFF = 'x = { enter = "a" }\ny = { enter = "none" }\nz = { enter = "none" }\n'


def profile_in(axes, modes=MODES):
    return profile_from_text(f'format = "wendonic-profile"\nversion = 1\n[world]\n{AXES[axes]}{modes}')


def changed(helm, rng, count):
    """Do one thing that a device or a game may do."""
    vector = [rng.randint(-90, 90) / 7.0 for _ in range(count)]
    match rng.randint(0, 13):
        case 0 | 1 | 2 | 3:
            helm.key(rng.choice(["KeyW", "KeyD", "KeyE", "KeyQ"]), rng.random() < 0.6)
        case 4:
            helm.mouse(*vector[:2])
        case 5:
            helm.place(*vector)
        case 6:
            helm.place(*vector, velocity=vector, facing=[1.0, *vector[1:]])
        case 7:
            helm.push(*vector)
        case 8:
            helm.contact(1.0, *vector[1:])
        case 9:
            helm.restart(*vector)
        case 10:
            helm.ground(rng.random() < 0.5)
        case 11:
            helm.block([(rng.randint(-2, 2), rng.randint(-2, 2)) for _ in range(3)])
        case 12:
            # What comes before it within the tick is never looked at.
            helm.mouse(*vector[:2])
            helm.discard_counts()
        case 13:
            helm.stop()
    if rng.random() < 0.05 and helm.mode == "cart":
        helm.enter(rng.choice(["foot", "crates"]))


def numbers_of(intent):
    return (*intent.motion[:6], intent.face_deg, intent.amount, intent.view.yaw_deg)


@pytest.mark.parametrize("axes", AXES)
@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=15)
@given(seed=st.integers(0, 2**32), ending=st.sampled_from([".jsonl", ".csv", ".parquet"]))
def test_a_session_is_played_again_tick_by_tick_through_all_its_modes(axes, tmp_path, seed, ending):
    """The trace has what the game saw, whatever it told its helm; other axes and units see the same on the plan."""
    rng = random.Random(seed)
    path = tmp_path / f"session{len(list(tmp_path.iterdir()))}.jsonl"
    helm = Helm(profile_in(axes))
    count = 3 if axes == "y up" else 2
    played = []
    with helm.record(path, "A session"):
        for number in range(150):
            if rng.random() < 0.4:
                changed(helm, rng, count)
            view = View(rng.randint(-90, 90)) if number % 40 == 3 else None
            intent = helm.tick(1 / 60, view)
            played.append((intent.mode, intent.presses["mount"].began, intent.device, numbers_of(intent)))
    # In every format the events come back as they were.
    Recording.read(path).write(path.with_suffix(f".again{ending}"))
    recording = Recording.read(path.with_suffix(f".again{ending}"))
    assert list(recording) == list(Recording.read(path))
    columns = "pos_x pos_y pos_z vel_x vel_y vel_z face_deg amount view_yaw_deg".split()
    for other in AXES:
        trace = shape(recording, profile_in(other))
        assert trace["mode"].tolist() == [mode for mode, _, _, _ in played]
        assert trace["mount_began"].tolist() == [began for _, began, _, _ in played]
        assert trace["device"].astype(object).where(trace["device"].notna(), None).tolist() == [
            row[2] for row in played
        ]
        np.testing.assert_allclose(trace[columns].to_numpy(), [row[3] for row in played], rtol=0, atol=1e-9)


def test_presses_enter_modes_when_they_begin_or_end():
    """By hand: a key held into the cart does not bring one out again; pushing lasts as long as its key is held."""
    helm = Helm(profile_in("y up"))

    def after(*keys):
        for code, down in keys:
            helm.key(code, down)
        seen = helm.tick(1 / 60)
        return seen.mode, helm.mode

    assert after(("KeyE", True)) == ("foot", "cart")
    assert after() == after() == ("cart", "cart")
    assert after(("KeyE", False)) == ("cart", "cart")
    assert after(("KeyQ", True)) == ("cart", "crates")
    assert after() == ("crates", "crates")
    assert after(("KeyQ", False)) == ("crates", "foot")
    # Down and up between two ticks is a press like another.
    assert after(("KeyE", True), ("KeyE", False)) == ("foot", "cart")
    # Losing the focus ends what is held, and the push with it.
    after(("KeyQ", True))
    helm.lose()
    assert after() == ("crates", "foot")


@pytest.mark.parametrize(("keys", "entered"), [("X", "b"), ("Y", "c"), ("XY", "c"), ("YZ", "c"), ("XZ", "d")])
def test_of_several_presses_what_begins_counts_before_what_ends_then_the_first(keys, entered):
    presses = 'x = { bind = ["KeyX"], enter = "b", enter_at = "end" }\n'
    presses += 'y = { bind = ["KeyY"], enter = "c" }\nz = { bind = ["KeyZ"], enter = "d" }\n'
    others = "".join(f'[mode.{name}]\nlike = "a"\n[mode.{name}.press]\n' + OFF for name in "bcd")
    helm = Helm(profile_in("y up", f"[mode.a]\n[mode.a.press]\n{presses}{others}"))
    helm.key("KeyX", "X" in keys)
    helm.tick(1 / 60)
    assert helm.mode == "a"
    for letter in "XYZ":
        helm.key(f"Key{letter}", letter in keys and letter != "X")
    helm.tick(1 / 60)
    assert helm.mode == entered


def test_a_trace_of_a_named_mode_stays_in_it():
    recording, profile = demo_recording("apiary_rounds"), demo_profile("rounds")
    through = shape(recording, profile)
    assert list(dict.fromkeys(through["mode"])) == ["foot", "inspect", "cart"]
    alone = shape(recording, profile, mode="foot")
    assert set(alone["mode"]) == {"foot"}
    same = through["mode"].eq("foot") & (through["t"] < 2.5)
    assert same.sum() > 100
    np.testing.assert_array_equal(through["pos_y"][same], alone["pos_y"][same])
    # What a game told its helm counts: its fence, and the ram's knock.
    assert through["pos_y"].max() <= FENCE_M + 0.1
    knocked = through[(through["t"] > 5.4) & (through["t"] < 5.7)]["vel_x"]
    assert knocked.max() - knocked.iloc[0] == pytest.approx(2.5, abs=0.4)


def test_what_a_mode_does_not_have_is_missing_in_its_ticks():
    presses = [
        Event(0.0, "mode", "foot"),
        Event(0.1, "key.KeyE", 1),
        Event(0.2, "key.KeyQ", 1),
        Event(0.5, "mark", ""),
    ]
    trace = shape(Recording(presses), profile_in("y up"))
    squares = trace["mode"].eq("crates")
    assert 0 < squares.sum() < len(trace)
    assert trace["step_x"].isna().tolist() == (~squares).tolist()
    assert trace["grounded"].dtype == bool
    # A recording of nothing has no mode to speak of, and all columns.
    assert shape(Recording([]), profile_in("y up")).empty


@pytest.mark.parametrize(
    ("entered", "words"),
    [
        ("carts", 'at 0.250 s of the recording: no mode "carts"; did you mean "cart"? there are: foot, cart, crates'),
        (
            "crates",
            'at 0.250 s of the recording: mode "foot" can be left for cart, not for "crates"; see its leave_to',
        ),
    ],
)
def test_a_mode_that_cannot_be_entered_is_named_with_its_time(entered, words):
    recording = Recording([Event(0.0, "key.KeyW", 1), Event(0.25, "mode", entered)])
    with pytest.raises(WendonicError, match=words.replace("?", r"\?")):
        shape(recording, profile_in("y up"))
    # A session may begin in a mode that nothing leads to from the first one.
    begun = Recording([Event(0.0, "mode", "crates"), Event(0.25, "mark", "end")])
    assert set(shape(begun, profile_in("y up"))["mode"]) == {"crates"}
    # One of another profile's modes is none of these, and one mode can play all of it.
    with pytest.raises(
        WendonicError, match='begins in a mode of another profile: no mode "crates"; there are: foot; name a'
    ):
        shape(begun, demo_profile())
    assert set(shape(begun, demo_profile(), mode="foot")["mode"]) == {"foot"}


def test_a_stretch_begins_in_the_mode_and_on_the_ground_that_it_was_in():
    reported = [
        Event(0.0, "mode", "cart"),
        Event(0.1, "body.ground", (0.0, 0.0, 0.0, 1.0)),
        Event(0.2, "body.push", (1, 0, 0)),
        *(Event(0.3, "square", (x, 1.0, 1.0)) for x in (1.0, 2.0)),
        Event(0.4, "square", (1.0, 1.0, 0.0)),
    ]
    whole = Recording([*reported, Event(1.0, "mark", "here")])
    stretch = whole.between(0.5, 1.0)
    assert list(stretch) == [
        Event(0.5, "mode", "cart"),
        Event(0.5, "body.ground", (0.0, 0.0, 0.0, 1.0)),
        Event(0.5, "square", (2.0, 1.0, 1.0)),
        Event(1.0, "mark", "here"),
    ]
    assert set(shape(stretch, profile_in("y up"))["mode"]) == {"cart"}
    # In a recording that is put behind it, none of that counts any more.
    helm = Helm(profile_in("y up"))
    for event in join([whole, Recording([Event(0.0, "mark", "next")])]):
        helm.apply(event)
    assert helm.blocked_squares() == []
    helm.enter("foot")
    assert helm.tick(1 / 60).motion.grounded


def test_each_of_several_recordings_walks_as_it_does_alone():
    """One leaves a toggle on and a place not reached; the next toggles anew, and walks with its keys."""
    sprinting = profile_from_text(
        'format = "wendonic-profile"\nversion = 1\n[mode.foot]\ngait = "walk"\npress_gaits = { sprint = "run" }\n'
        'press.sprint = { bind = ["ShiftLeft"], style = "toggle" }\n'
        '[[mode.foot.move.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"] }\n'
        "[gait.walk]\ntop_speed_m_s = 3\n[gait.run]\ntop_speed_m_s = 6\n"
    )
    # Within ticks, not where one ends.
    begin, end = Event(0.0, "mark", "begin"), Event(4.0, "mark", "end")
    walk = [begin, Event(0.01, "key.KeyW", 1), Event(2.01, "key.KeyW", 0), end]
    run = [*walk[:2], Event(0.51, "key.ShiftLeft", 1), Event(0.61, "key.ShiftLeft", 0), *walk[2:]]
    there = [Event(0.0, "goal", (9.0, -4.0)), Event(0.7, "mark", "end")]
    back = [Event(0.0, "goal", (-2.0, 1.0)), Event(9.0, "mark", "end")]
    for profile, mode, parts in (
        (sprinting, "foot", (run, run, walk)),
        (demo_profile("orchard"), "errand", (there, back)),
    ):
        alone = [shape(Recording(events), profile, 60.0, mode).iloc[-1] for events in parts]
        whole = shape(join(list(map(Recording, parts)), 1.0), profile, 60.0, mode).iloc[-1]
        if mode == "foot":
            assert whole["pos_y"] == pytest.approx(sum(one["pos_y"] for one in alone), abs=1e-6)
        else:
            assert (whole["pos_x"], whole["pos_y"]) == pytest.approx((-2.0, 1.0), abs=0.2)
            idle = shape(join([Recording(there), Recording(back[1:])], 1.0), profile, 60.0, mode).iloc[-1]
            assert math.hypot(idle["vel_x"], idle["vel_y"]) == 0.0
            assert idle["pos_x"] < 8.0


def test_toggles_are_on_in_a_recording_where_they_were_in_the_game(tmp_path, caplog):
    """At its beginning and where the helm goes back, held or not; where only a chord switches them, it is said."""

    def session(profile, name):
        helm, held = Helm(profile), []

        def go(down, ticks):
            for key in ("ShiftLeft", "KeyB"):
                helm.key(key, down=down)
            held.extend(helm.tick(1 / 60).press("sprint").held for _ in range(ticks))

        for down in (True, False):
            go(down, 3)
        held.clear()
        with helm.record(tmp_path / name) as recorder:
            go(False, 10)
            early = helm.snapshot()
            go(True, 1)
            go(False, 5)
            helm.restore(early)
            go(False, 5)
            go(True, 3)
            late = helm.snapshot()
            for down in (False, True, False):
                go(down, 2)
            helm.restore(late)
            go(True, 5)
        return held, shape(Recording.read(recorder.path), profile, 60.0)["sprint_held"].astype(bool).tolist()

    profile = demo_profile()
    played, traced = session(profile, "keys.jsonl")
    assert played == traced
    assert 10 < sum(played) < len(played) - 10
    assert caplog.text == ""
    chord = profile.changed({"mode.foot.press.sprint.bind": ["key.ShiftLeft+key.KeyB"]})
    played, traced = session(chord, "chord.jsonl")
    assert played != traced
    assert 'press "sprint" was toggled before, and no control toggles it alone' in caplog.text
    # Nor does one that takes the player into another mode.
    for enter, control in (("none", "key.KeyE"), ("inspect", None)):
        table = demo_profile("rounds").changed({"mode.foot.press.mount.enter": enter}).mode["foot"]
        assert lone_control(table, "mount", [SwitchBind(("key.KeyE",))]) == control


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=10)
@given(seed=st.integers(0, 2**32))
def test_a_recording_that_begins_under_thumbs_goes_on_as_they_do(tmp_path, seed):
    """Fingers on the stick, on the view and on a button have landed, slid and been lifted before; the stick is tilted
    by how far its thumb is from where it landed.
    """
    rng = random.Random(seed)
    path = tmp_path / f"thumbs{len(list(tmp_path.iterdir()))}.jsonl"
    helm = Helm(demo_profile("tablet"))
    homes = [(0.1, 0.3, 0.4, 0.9), (0.6, 0.8, 0.1, 0.6), (0.86, 0.9, 0.75, 0.95)]
    landed = {}

    def played(ticks):
        for _ in range(ticks):
            finger = rng.randrange(3)
            if finger in landed:
                # Within the rim, behind which the middle would be dragged along.
                x, y = landed[finger]
                down = rng.random() < 0.8
                helm.touch(finger, x + rng.uniform(-0.08, 0.08), y, down=down)
                if not down:
                    del landed[finger]
            elif rng.random() < 0.7:
                left, right, top, bottom = homes[finger]
                landed[finger] = rng.uniform(left, right), rng.uniform(top, bottom)
                helm.touch(finger, *landed[finger])
            intent = helm.tick(1 / 60)
            yield intent.amount, intent.heading_deg or 0.0, intent.view.yaw_deg

    for _ in played(rng.randint(1, 40)):
        pass
    with helm.record(path):
        expected = list(played(40))
    trace = shape(Recording.read(path), demo_profile("tablet"))
    found = trace[["amount", "heading_deg", "view_yaw_deg"]].fillna(0.0).to_numpy()
    np.testing.assert_allclose(found, expected, atol=1e-6)


@pytest.mark.parametrize("mode", ["errand", "deliver", "round"])
@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=15)
@given(seed=st.integers(0, 2**32))
def test_a_recording_that_begins_on_the_way_to_a_place_arrives_there(mode, tmp_path, seed):
    """Places pointed at and told, queued, reached, and dropped for a key: whichever is on the way at the beginning
    counts, and no other. Several come one a tick, so that the body may brake for a tick before it sees the next one.
    """
    rng = random.Random(seed)
    profile = demo_profile("orchard")
    path = tmp_path / f"way{len(list(tmp_path.iterdir()))}.jsonl"
    helm = Helm(profile)
    helm.enter(mode)

    def walk(ticks):
        for _ in range(ticks):
            chance = rng.random()
            if chance < 0.04:
                helm.go_to(rng.uniform(-3, 3), rng.uniform(-3, 3))
            elif chance < 0.08:
                helm.pointer(rng.random(), rng.random())
                helm.button("mouse.left", True)
                yield helm.tick(1 / 60)
                helm.button("mouse.left", False)
            elif chance < 0.1:
                code = rng.choice(["KeyW", "KeyD"])
                for down in (True, False):
                    helm.key(code, down)
                    for _ in range(10):
                        yield helm.tick(1 / 60)
            yield helm.tick(1 / 60)

    for _ in walk(rng.randint(1, 90)):
        pass
    untouched = []
    with helm.record(path):
        moment = helm.snapshot()
        untouched += [helm.tick(1 / 60).motion[:2] for _ in range(60)]
        between = len(list(walk(60)))
        helm.restore(moment)
        untouched += [helm.tick(1 / 60).motion[:2] for _ in range(60)]
    trace = shape(Recording.read(path), profile)[["pos_x", "pos_y"]].to_numpy()
    np.testing.assert_allclose(np.vstack([trace[:60], trace[60 + between :]]), untouched, atol=0.25)


def test_marks_and_losses_are_recorded_and_what_changes_nothing_is_not(tmp_path):
    helm = Helm(demo_profile())
    told = [
        ("key.KeyW", 1),
        ("key.KeyW", 1),
        ("mark", "slides here"),
        ("lost.keys", 1),
        ("lost.keys", 1),
        ("key.KeyW", 0),
    ]
    with helm.record(tmp_path / "session.jsonl"):
        for number, (control, value) in enumerate(told):
            helm.apply(Event(float(number), control, value))
            helm.tick(1 / 60)
    recording = Recording.read(tmp_path / "session.jsonl")
    # The recording begins with how things are, and ends with a mark.
    events = [event[1:] for event in recording if event.t > 1e-6]
    assert events == [("mark", "slides here"), ("lost.keys", 1.0), ("lost.keys", 1.0), ("mark", "end")]


def test_a_recorder_ends_cleanly(tmp_path):
    """Rewinding goes on in time; what comes after the end is not recorded; a file that is there stays."""
    helm, twin = Helm(profile_in("y up")), Helm(profile_in("y up"))
    path = tmp_path / "session.jsonl"
    recorder = helm.record(path)
    for number in range(60):
        helm.key("KeyW", number % 20 < 12)
        twin.key("KeyW", number % 20 < 12)
        assert helm.tick(1 / 60).record == twin.tick(1 / 60).record
        if number == 20:
            before = helm.snapshot()
            assert before == twin.snapshot()
            # What is tried out with a copy is not a part of the session, and no second session begins.
            tried = copy.copy(helm)
            tried.key("KeyD", down=True)
            assert tried.tick(1 / 60).local.right > 0.0
            with pytest.raises(WendonicError, match=r"already recorded into .*session\.jsonl; close that first"):
                helm.record(tmp_path / "another.jsonl")
    # What was told after the moment that it goes back to is told back.
    helm.ground(False)
    assert helm.tick(1 / 60, View(40.0)).view.yaw_deg == 40.0
    helm.restore(before)
    for _ in range(30):
        intent = helm.tick(1 / 60)
    recorder.close()
    recorder.close()
    helm.key("KeyD", down=True)
    recording = Recording.read(path)
    assert recording.duration_s == pytest.approx(91 / 60, abs=1e-5)
    assert not any(event.control == "key.KeyD" for event in recording)
    trace = shape(recording, profile_in("y up"))
    assert trace["view_yaw_deg"].iloc[[60, -1]].tolist() == [40.0, 0.0] == [40.0, intent.view.yaw_deg]
    assert trace["grounded"].iloc[-1] == intent.motion.grounded
    # From the place and the speed that it went back to.
    assert trace["pos_y"].iloc[-1] == pytest.approx(intent.motion.pos_y, abs=1e-9)
    with pytest.raises(WendonicError, match="already exists"):
        helm.record(path)


@pytest.mark.parametrize("name", REPORTED)
def test_an_invalid_report_is_one_plain_error_and_changes_nothing(name):
    helm, twin = Helm(profile_in("y up")), Helm(profile_in("y up"))
    width = len(REPORTED[name])
    misfits = [math.nan, "there", None, (1.0,) * (width + 1)]
    misfits += [(math.inf,) * width] if width > 1 else []
    for misfit in misfits:
        with pytest.raises(WendonicError, match=name):
            helm.apply(Event(0.0, name, misfit))
    assert helm.tick(1 / 60).record == twin.tick(1 / 60).record


@pytest.mark.parametrize(
    ("old", "new", "where", "words"),
    [
        ('enter = "cart"', 'enter = "crt"', "mode.foot.press.mount.enter", 'did you mean "cart"'),
        (
            'enter = "cart"',
            'enter = "crates"',
            "mode.foot.press.mount.enter",
            'found "crates"; allowed by leave_to: cart',
        ),
        ('enter = "cart"', 'enter = "foot"', "mode.foot.press.mount.enter", "is the mode itself"),
    ],
)
def test_faults_of_presses_that_enter_modes(old, new, where, words):
    with pytest.raises(WendonicError) as caught:
        profile_in("y up", MODES.replace(old, new, 1))
    assert where in str(caught.value)
    assert words in str(caught.value)


def test_only_one_mode_is_compiled():
    with pytest.raises(WendonicError, match="allowed here"):
        shape(demo_recording("apiary_rounds"), demo_profile("rounds"), engine="compiled")


def test_every_report_of_a_game_is_described_and_drawn():
    from wendonic.pictures import draw_devices
    from wendonic.recording.describe import describe_recording

    events = [Event(0.0, "mode", "cart")]
    for number, (name, words) in enumerate(REPORTED.items()):
        events.append(Event(0.1 * number, name, (1.0,) * len(words) if len(words) > 1 else 1.0))
    recording = Recording(events)
    lines = describe_recording(recording)
    assert all(any(line.startswith(f"  {name}: ") for line in lines) for name in REPORTED)
    assert "  mode at 0.00 s: cart" in lines
    labels = [label.get_text() for label in draw_devices(recording).get_yticklabels()]
    assert labels == list(REPORTED)
    assert all(a.t <= b.t for a, b in itertools.pairwise(recording))
