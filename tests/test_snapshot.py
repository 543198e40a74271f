"""A moment of play is a value: the same input after it gives the same ticks, bit for bit."""

import copy
import pickle

import pytest

from wendonic import Helm, WendonicError
from wendonic.demo import RECORDINGS, demo_course, demo_profile, demo_recording


@pytest.mark.parametrize("name", ["beekeeper_keys", "tablet_walk", "headset_walk", "harvest_run", "crates_push"])
def test_from_any_moment_on_ten_ticks_are_the_first_ten_to_the_last_bit(name):
    helm = Helm(demo_profile(RECORDINGS[name]))
    ticks = [events for _, events in demo_recording(name).ticks(60)][:700]
    moments, records = {}, []
    for tick, events in enumerate(ticks):
        if tick % 45 == 3:
            moments[tick] = helm.snapshot()
        for event in events:
            helm.apply(event)
        records.append(helm.tick(1 / 60).record)
    for start, moment in moments.items():
        kept = pickle.loads(pickle.dumps(moment))
        assert kept == moment == copy.deepcopy(moment)
        helm.restore(kept)
        assert helm.snapshot() == moment
        for tick in range(start, min(start + 10, len(ticks))):
            for event in ticks[tick]:
                helm.apply(event)
            assert helm.tick(1 / 60).record == records[tick], (start, tick)
    assert len({moment.record for moment in moments.values()}) > 5


def pickled(helm):
    return pickle.loads(pickle.dumps(helm))


@pytest.mark.parametrize("copied", [copy.copy, copy.deepcopy, pickled])
def test_a_copied_helm_goes_its_own_way(copied):
    helm = Helm(demo_profile())
    helm.key("KeyW", down=True)
    for _ in range(20):
        helm.tick(1 / 60)
    # One that has readied its first mode only is copied as well.
    tool = copied(Helm(demo_profile("harvest"), prepare="first"))
    tool.enter("barrow")
    assert tool.tick(1 / 60).mode == "barrow"
    other = copied(helm)
    assert other.tick(1 / 60).record == helm.tick(1 / 60).record
    other.key("KeyW", down=False)
    assert (helm.tick(1 / 60).amount, other.tick(1 / 60).amount) == (1.0, 0.0)


@pytest.mark.parametrize(("name", "ground"), [("harvest_run", "harvest"), ("store_room_walk", "store_room")])
def test_a_helm_that_is_saved_in_the_middle_of_play_goes_on_to_the_last_bit(name, ground):
    """On its course, in its mode and seat, with blocked squares, a profile to come, and half a step left."""
    profile = demo_profile(RECORDINGS[name])
    helm = Helm(profile, course=demo_course(ground))
    helm.block([(3, -2)])
    for number, (_, events) in enumerate(demo_recording(name).ticks(60)):
        for event in events:
            helm.apply(event)
        helm.tick(1 / 60)
        if number % 97 == 50:
            next(helm.fixed_ticks(1 / 40, 1 / 60))
            helm.next_profile = profile.changed({"max_dt_s": 0.09})
            helm, last = pickled(helm), helm
            for _ in range(5):
                assert helm.tick(1 / 60).record == last.tick(1 / 60).record
            assert helm.profile == last.profile
            assert helm.leftover_ratio == last.leftover_ratio
            assert (helm.mode, helm.clock_s, helm.health) == (last.mode, last.clock_s, last.health)
            assert helm.blocked_squares() == [(3, -2)]
    assert number > 300


def test_mode_clock_view_and_what_is_held_go_back_too():
    helm = Helm(demo_profile("harvest"))
    helm.view(30.0, 5.0)
    helm.key("KeyW", down=True)
    for _ in range(20):
        before = helm.tick(1 / 60)
    moment = helm.snapshot()
    helm.enter("barrow")
    helm.key("KeyW", down=False)
    helm.key("KeyD", down=True)
    for _ in range(20):
        helm.tick(1 / 30)
    helm.restore(moment)
    standing = helm.tick(0.0)
    assert (standing.mode, standing.t, standing.view, standing.motion) == (
        before.mode,
        before.t,
        before.view,
        before.motion,
    )
    assert helm.state.held() == ("key.KeyW",)
    assert helm.tick(1 / 60).local == pytest.approx((0.0, 1.0), abs=1e-3)


def test_a_player_who_predicts_keeps_what_is_held_now():
    helm, straight = (Helm(demo_profile()) for _ in range(2))
    moment = helm.snapshot()
    helm.key("KeyW", down=True)
    for _ in range(5):
        helm.tick(1 / 60)
    helm.restore(moment, keep_controls=True)
    straight.key("KeyW", down=True)
    for _ in range(30):
        assert helm.tick(1 / 60).record == straight.tick(1 / 60).record
    assert helm.state.held() == ("key.KeyW",)


def test_another_structure_is_refused_and_other_numbers_are_not():
    profile = demo_profile()
    helm = Helm(profile)
    helm.key("KeyW", down=True)
    for _ in range(10):
        before = helm.tick(1 / 60)
    moment = helm.snapshot()
    slower = Helm(profile.changed({"gait.walk.top_speed_m_s": 2.0}))
    slower.restore(moment)
    assert slower.tick(0.0).motion == before.motion
    for changes in (
        {"mode.foot.move.bind[1].curve": {"form": "linear"}},
        {"mode.foot.move.bind[0].keys.forward": ["KeyI"]},
        {"mode.lounge": {"press": {"sit": {"bind": ["key.KeyX"]}}}},
    ):
        other = Helm(profile.changed(changes))
        stood = other.tick(0.0)
        with pytest.raises(WendonicError, match="has another structure"):
            other.restore(moment)
        assert other.tick(0.0).motion == stood.motion
