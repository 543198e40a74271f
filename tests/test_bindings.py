"""Every kind of binding, from raw input to its channel, as a game feeds a helm."""

import itertools
import math
import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from few_of_many import few_of
from wendonic import ControlError, Event, Helm, ProfileError, View, WendonicError, shape
from wendonic.demo import demo_profile, demo_recording
from wendonic.devices.standins import GyroStandIn, HandsStandIn, MouseStandIn, TouchStandIn, TrackingLoss, hand_path
from wendonic.devices.standins.hands import ARM_M
from wendonic.profile.load import profile_from_text
from wendonic.recording.recording import Recording
from wendonic.study.checking import check

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
STILL = "half_life_s = 0\n"


def helm_of(text, **options):
    return Helm(profile_from_text(HEAD + text), **options)


def moving(bind, **options):
    """A helm whose `move` has one source, unsmoothed, in the plan frame."""
    return helm_of(
        f'[mode.foot]\nsteer = {{ frame = "map" }}\n[mode.foot.move]\n{STILL}[[mode.foot.move.bind]]\n{bind}\n',
        **options,
    )


def local(helm, dt=1.0):
    return tuple(helm.tick(dt).local)


def test_a_d_pad_is_four_keys():
    helm = moving('dpad = "pad.dpad"')
    helm.button("pad.dpad_up", True)
    assert local(helm) == (0.0, 1.0)
    helm.button("pad.dpad_left", True)
    assert local(helm) == pytest.approx((-math.sqrt(0.5), math.sqrt(0.5)))


def test_two_axes_are_shaped_each_by_itself_with_forward_away_from_the_player():
    bind = 'axes = { x = "pad.left_stick.x", y = "pad.right_stick.y" }\ncurve = { form = "linear" }\n'
    helm = moving(bind + "dead_zone = { inner = 0.2, outer = 1.0 }")
    helm.stick("pad.left_stick", -0.6, 0.9)
    helm.stick("pad.right_stick", 0.9, 0.4)
    assert local(helm) == pytest.approx((-0.5, -0.25))
    helm.stick("pad.right_stick", 0.0, 0.2)
    assert local(helm) == pytest.approx((-0.5, 0.0))


def test_a_finger_anywhere_in_a_zone_is_enough_and_own_zones_replace_predefined_ones():
    text = (
        '[window.zone]\n"upper part" = { left = 0.4, top = 0.0, right = 0.6, bottom = 0.1 }\n[mode.foot.move]\n'
        + STILL
        + '[[mode.foot.move.bind]]\ntouch_zones = { left = ["left edge"], forward = ["upper part", "lower part"] }'
    )
    helm = helm_of(text)
    helm.touch(3, 0.5, 0.3)
    assert local(helm) == (0.0, 0.0)
    helm.touch(3, 0.5, 0.05)
    assert local(helm) == (0.0, 1.0)
    helm.touch(4, 0.1, 0.5)
    assert local(helm) == pytest.approx((-math.sqrt(0.5), math.sqrt(0.5)))
    helm.touch(3, 0.5, 0.05, down=False)
    assert local(helm) == (-1.0, 0.0)
    helm.lose("touch")
    assert local(helm) == (0.0, 0.0)


THUMB = (
    'touch_stick = "left half"\nradius = 0.2\ndead_zone = { inner = 0.0, outer = 1.0 }\ncurve = { form = "linear" }\n'
)


def test_a_thumb_stick_has_its_middle_where_the_thumb_lands():
    """A window of 16:9: 0.05 of its width is 0.0889 of its height, 0.444 of the radius."""
    helm = moving(THUMB)
    # One that lands elsewhere stays out of it, wherever it goes.
    helm.touch(5, 0.8, 0.5)
    helm.touch(5, 0.3, 0.4)
    assert local(helm) == (0.0, 0.0)
    helm.touch(0, 0.2, 0.5)
    assert local(helm) == (0.0, 0.0)
    helm.touch(0, 0.25, 0.4)
    assert local(helm) == pytest.approx((0.05 * 16 / 9 / 0.2, 0.5))
    # A second thumb changes nothing, nor does one in the other half.
    helm.touch(1, 0.1, 0.1)
    helm.touch(2, 0.8, 0.1)
    assert local(helm) == pytest.approx((0.05 * 16 / 9 / 0.2, 0.5))
    helm.touch(0, 0.25, 0.4, down=False)
    assert local(helm) == (0.0, 0.0)
    # It lands anew between two ticks, somewhere else.
    helm.touch(0, 0.4, 0.9)
    helm.touch(0, 0.4, 0.8)
    assert local(helm) == pytest.approx((0.0, 0.5))


@pytest.mark.parametrize(("past_rim", "expected"), [("stay", 0.5), ("drag", 0.0)])
def test_past_its_rim_a_thumb_stick_stays_or_is_dragged_along(past_rim, expected):
    helm = moving(f'{THUMB}past_rim = "{past_rim}"')
    # Up by two radii, then back by 1.5: half a radius from where it landed, or half one below the rim dragged there.
    for y in (0.6, 0.2, 0.5):
        helm.touch(0, 0.2, y)
    assert local(helm)[1] == pytest.approx({"stay": 0.5, "drag": -0.5}[past_rim])
    helm.touch(0, 0.2, 0.4 if past_rim == "drag" else 0.5)
    assert local(helm)[1] == pytest.approx(expected)


def test_the_pointer_steers_from_the_windows_middle_while_its_button_is_held_and_rests_there_once_lost():
    helm = moving('pointer = "pointer.at"\nreach = 0.5\ndead_zone = { inner = 0.0, outer = 1.0 }')
    helm.pointer(0.5, 0.25)
    assert local(helm) == (0.0, 0.0)
    helm.button("mouse.left", True)
    assert local(helm) == pytest.approx((0.0, 0.5))
    always = moving('pointer = "pointer.at"\nwhile_held = []')
    assert local(always) == (0.0, 0.0)
    always.pointer(1.0, 0.5)
    assert local(always) == pytest.approx((1.0, 0.0))
    always.lose("focus")
    assert local(always) == (0.0, 0.0)


@pytest.mark.long
def test_swung_hands_walk_by_their_speed_and_both_by_so_much_more_whatever_the_tick_rate():
    """A hand's greatest speed over the full one, behind a half-life; a hand out of sight swings nothing."""
    stand_in = HandsStandIn(cadence_hz=0.7, amplitude_m=0.2, poll_hz=90, seed=1)
    profile = profile_from_text(
        HEAD
        + '[mode.foot.move]\nhalf_life_s = 0\n[[mode.foot.move.bind]]\nhands = ["hand.left", "hand.right"]\n'
        + 'full_swing_m_s = 4\ndead_zone = { form = "none" }\nboth_boost = 1.75\nsteady_half_life_s = 0.06\n'
    )
    fastest_m_s = math.tau * 0.7 * ARM_M * math.asin(0.2 / ARM_M)
    felt_m_s = fastest_m_s / math.hypot(1.0, math.tau * 0.7 * 0.06 / math.log(2.0))
    for losses, times in (([], 1.0), ([TrackingLoss("hand.right", 0.0, 20.0)], 1.75)):
        walk = Recording(stand_in.walk(0.0, 20.0, losses))
        for hz in (30, 45, 90, 144):
            trace = shape(walk, profile, hz=hz)
            walking = trace["amount"][(trace["t"] > 2.0) & (trace["t"] < 20.0)]
            assert walking.min() > 0.95 * walking.max()
            assert walking.mean() == pytest.approx(felt_m_s / 4.0 / times, rel=0.07)


@pytest.mark.long
def test_hands_walk_as_far_at_every_tick_rate_whatever_that_of_the_poses():
    """Ticks without a pose are no standstill: 60 poses a second, 30 to 1000 ticks, with trembling; within 5 %."""
    walk = Recording(
        HandsStandIn(cadence_hz=0.9, amplitude_m=0.28, tremor_m=0.0015, poll_hz=60, seed=7).walk(0.0, 20.0)
    )
    profile = profile_from_text(HEAD + '[[mode.foot.move.bind]]\nhands = ["hand.left", "hand.right"]\n')
    walked_m = [shape(walk, profile, hz=hz)["pos_y"].iloc[-1] for hz in (30, 60, 90, 144, 1000)]
    assert walked_m == pytest.approx([np.mean(walked_m)] * 5, rel=0.05)


@pytest.mark.parametrize("rule", few_of(["diagonal = 'cap'", "notches = 8"], ["notches = 8"]))
def test_a_key_that_ramps_beside_them_leaves_swung_hands_alone(rule):
    """Where a tick is cut for the sake of a ramp, the whole swing must not count for its first part."""
    hands = '[[mode.foot.move.bind]]\nhands = ["hand.left", "hand.right"]\n'
    key = '[[mode.foot.move.bind]]\nkeys = { forward = ["KeyW"] }\nrise_s = 9\nfall_s = 9\n'
    profile = profile_from_text(f"{HEAD}[mode.foot.move]\nhalf_life_s = 0.01\n{rule}\n{hands}{key}")
    swung = list(HandsStandIn(cadence_hz=0.9, amplitude_m=0.2, poll_hz=90, seed=7).walk(0.0, 5.0))
    pressed = sorted([*swung, Event(1.0, "key.KeyW", 1.0), Event(2.0, "key.KeyW", 0.0)], key=lambda event: event.t)
    alone, beside = (shape(Recording(events), profile, hz=30)["amount"] for events in (swung, pressed))
    assert beside.max() == pytest.approx(alone.max(), rel=1e-6)
    assert alone.max() > 0.3


def test_a_trembling_hand_stays_and_a_loss_slows_down_by_the_half_life():
    bind = 'hands = ["hand.left", "hand.right"]\nrelease_half_life_s = 0.2\n'
    profile = profile_from_text(HEAD + f"[mode.foot.move]\nhalf_life_s = 0\n[[mode.foot.move.bind]]\n{bind}")
    trembling = HandsStandIn(amplitude_m=0.0, tremor_m=0.0015, poll_hz=90, seed=2)
    assert shape(Recording(trembling.walk(0.0, 30.0)), profile, hz=60)["amount"].max() == 0.0
    losses = [TrackingLoss(hand, 2.0, 5.0) for hand in ("hand.left", "hand.right")]
    swung = HandsStandIn(cadence_hz=1.5, amplitude_m=0.3, poll_hz=90, seed=3).walk(0.0, 5.0, losses)
    amount = shape(Recording(swung), profile, hz=60).set_index("tick")["amount"]
    assert amount[120] > 0.3
    assert amount[133] == pytest.approx(amount[121] / 2.0)
    assert amount[132:300].is_monotonic_decreasing
    assert amount[299] == 0.0


def hands_of(stand_in, seconds, step_m_s=0.0, noise_m=0.0, seed=5):
    """Poses of hands and head that step forward together, each with white tracking noise of its own."""
    noisy = random.Random(seed)
    for event in stand_in.walk(0.0, seconds):
        value = event.value
        if event.control.endswith(".pose"):
            x, y, z, *turned = value
            moved = (x, y, z - step_m_s * event.t)
            value = (*(place + noisy.gauss(0.0, noise_m) for place in moved), *turned)
        yield event._replace(value=value)


def test_neither_a_step_of_the_body_nor_noise_of_5_mm_is_a_swing():
    profile = profile_from_text(HEAD + '[[mode.foot.move.bind]]\nhands = ["hand.left", "hand.right"]\n')
    still, swinging = HandsStandIn(amplitude_m=0.0, seed=2), HandsStandIn(amplitude_m=0.25, cadence_hz=1.0, seed=2)
    for poses in (hands_of(still, 4.0, step_m_s=1.0), hands_of(still, 4.0, noise_m=0.005)):
        assert shape(Recording(poses), profile, hz=90)["pos_y"].iloc[-1] == 0.0
    walks = [shape(Recording(hands_of(swinging, 6.0, step)), profile, hz=90)["pos_y"].iloc[-1] for step in (0.0, 1.0)]
    assert walks[1] == pytest.approx(walks[0], rel=1e-3)
    assert walks[0] > 5.0


@pytest.mark.parametrize("cadence_hz", [0.6, 0.9, 1.4])
def test_the_walk_is_even_through_the_ends_of_swings_and_stops_when_they_do(cadence_hz):
    profile = profile_from_text(HEAD + '[[mode.foot.move.bind]]\nhands = ["hand.left", "hand.right"]\n')
    walk = HandsStandIn(cadence_hz=cadence_hz, amplitude_m=0.28, seed=7).walk(0.0, 6.0)
    held, lets_go = [event for event in walk if event.t < 6.0], [event for event in walk if event.t >= 6.0]
    last = [event for event in held[-3:] if event.control.endswith(".pose")]
    stays = [event._replace(t=event.t + k / 90) for k in range(1, 180) for event in last]
    for rest, within_s in ((stays, 1.9), (lets_go, 1.3)):
        amount = shape(Recording([*held, *rest, Event(8.0, "mark", "end")]), profile, hz=90).set_index("t")["amount"]
        even = amount.loc[2.0:5.9]
        assert even.min() > 0.9 * even.max()
        # Hands that stop, or let go, stop the walk.
        assert amount.loc[6.0 + within_s :].max() < 0.02


def test_hands_walk_without_squeezing_where_that_is_wanted_and_both_are_so_much_more_at_any_swing():
    bind = (
        '[[mode.foot.move.bind]]\nhands = ["hand.left", "hand.right"]\nfull_swing_m_s = 2\nsteady_half_life_s = 0\n'
    )
    for squeezed in (True, False):
        for speed in (0.5, 1.0, 2.0, 5.0):
            asked = []
            for hands in (["hand.left"], ["hand.left", "hand.right"]):
                helm = helm_of(f"[mode.foot.move]\n{STILL}{bind}squeezed = {str(squeezed).lower()}\n")
                for z in (0.0, -speed * 0.1):
                    for hand in hands:
                        helm.pose(f"{hand}.pose", (0.0, 1.0, z), (0.0, 0.0, 0.0, 1.0))
                asked.append(helm.tick(0.1).amount)
            if squeezed:
                assert asked == [0.0, 0.0]
            else:
                assert asked[1] == pytest.approx(1.5 * asked[0])
                assert asked[1] == pytest.approx(min(1.0, (speed / 2.0 - 0.2) / 0.8))


def test_hands_are_finite_in_ticks_of_next_to_no_length():
    helm = helm_of('[[mode.foot.move.bind]]\nhands = ["hand.left"]\n')
    helm.button("hand.left.squeeze", True)
    for place, dt in ((0.0, 0.01), (0.3, 5e-324), (0.4, 1e-300), (0.5, 0.01)):
        helm.pose("hand.left.pose", (place, 1.0, 0.0), (0.0, 0.0, 0.0, 1.0))
        assert 0.0 <= helm.tick(dt).amount <= 1.0


def test_hands_swing_only_while_they_squeeze_and_a_lost_one_begins_anew_where_it_is_found():
    bind = 'hands = ["hand.left"]\nfull_swing_m_s = 1\ndead_zone = { form = "none" }\ncurve = { form = "linear" }\n'
    bind += "steady_half_life_s = 0\nrelease_half_life_s = 0\n"
    both = "".join(f"[mode.{mode}.move]\n{STILL}[[mode.{mode}.move.bind]]\n{bind}" for mode in ("foot", "hall"))
    helm = helm_of(both)

    def swung(*places):
        for x in places:
            helm.pose("hand.left.pose", (x, 1.2, 0.0), (0.0, 0.0, 0.0, 1.0))
        return helm.tick(1.0).amount

    assert swung(0.0, 0.25) == 0.0
    helm.button("hand.left.squeeze", True)
    assert swung(0.5, -0.25) == pytest.approx(0.5)
    assert swung() == 0.0
    helm.lose("hand.left")
    helm.button("hand.left.squeeze", True)
    assert swung(-0.5) == 0.0
    assert swung(-0.25) == pytest.approx(0.25)
    # It squeezes on in another mode, and swings on from where it is.
    helm.enter("hall")
    assert swung(0.0, 0.125) == pytest.approx(0.375)


@pytest.mark.parametrize("order", ["found", "pose first", "squeeze first"])
def test_a_hand_that_begins_to_count_has_its_own_speed_at_once(order):
    """At 0.6 m/s of 2, in ticks of a 90th of a second, from the second pose that counts on."""
    bind = 'hands = ["hand.left"]\nfull_swing_m_s = 2\ndead_zone = { form = "none" }\nboth_boost = 1\n'
    bind += f"steady_half_life_s = 0\nsqueezed = {str(order != 'found').lower()}\n"
    helm = helm_of(f"[mode.foot.move]\n{STILL}[[mode.foot.move.bind]]\n{bind}")
    amounts = []
    for tick in range(6):
        does = [lambda z=-0.6 * tick / 90: helm.pose("hand.left.pose", (0.0, 1.2, z), (0.0, 0.0, 0.0, 1.0))]
        if tick == 2:
            does.append(lambda: helm.button("hand.left.squeeze", True))
        for do in does[:: -1 if order == "squeeze first" else 1]:
            do()
        amounts.append(round(helm.tick(1 / 90).amount, 9))
    first = {"found": 1, "pose first": 3, "squeeze first": 2}[order]
    assert amounts == [0.0] * first + [0.3] * (6 - first)


RIGHT, LEFT = ["KeyD", "ArrowRight"], ["KeyA", "ArrowLeft"]
OPPOSED = 'keys = { right = ["KeyD", "ArrowRight"], left = ["KeyA", "ArrowLeft"] }\nrise_s = 0\nfall_s = 0\n'


def winning_side(held, rule):
    """Return 1, 0 or -1 for keys in the order in which they went down."""
    right, left = ([held.index(code) for code in held if code in side] for side in (RIGHT, LEFT))
    if right and left:
        wins = {"cancel": 0, "latest": max(right) - max(left), "earliest": min(left) - min(right)}[rule]
    else:
        wins = len(right) - len(left)
    return (wins > 0) - (wins < 0)


@given(
    steps=st.lists(st.tuples(st.sampled_from(RIGHT + LEFT), st.booleans(), st.booleans()), max_size=40),
    rule=st.sampled_from(["cancel", "latest", "earliest"]),
)
def test_opposite_keys_in_any_number_and_order(steps, rule):
    """A key that went down and came up again between two ticks counts for the one after."""
    helm = moving(f'{OPPOSED}opposites = "{rule}"')
    held, felt, fresh = [], [], set()
    for code, down, ticked in [*steps, ("KeyD", True, True), ("KeyD", False, True)]:
        helm.key(code, down)
        if down and code not in held:
            held.append(code)
            felt = [*(other for other in felt if other != code), code]
            fresh.add(code)
        elif not down and code in held:
            held.remove(code)
            felt = [other for other in felt if other != code or code in fresh]
        if ticked:
            assert local(helm)[0] == winning_side(felt, rule)
            felt, fresh = held.copy(), set()


MERGED = """
[mode.foot.move]
half_life_s = 0
diagonal = "free"
merge = "MERGE"
[[mode.foot.move.bind]]
keys = { right = ["KeyD"] }
rise_s = 0
fall_s = 0
[[mode.foot.move.bind]]
stick = "pad.left_stick"
dead_zone = { inner = 0.1, outer = 1.0 }
curve = { form = "linear" }
[[mode.foot.move.bind]]
stick = "pad1.left_stick"
dead_zone = { inner = 0.1, outer = 1.0 }
curve = { form = "linear" }
"""


@pytest.mark.parametrize(
    ("merge", "expected"),
    [
        # keys; keys and stick; keys, stick and second stick; without the second stick; without keys
        ("strongest", [1.0, 1.0, 1.0, 1.0, -0.5]),
        ("sum", [1.0, 0.5, 0.75, 0.5, -0.5]),
        ("latest", [1.0, -0.5, 0.25, 1.0, -0.5]),
    ],
)
def test_sources_are_merged_as_the_profile_says(merge, expected):
    helm = helm_of(MERGED.replace("MERGE", merge))
    found = []
    for act in (
        lambda: helm.key("KeyD", True),
        lambda: helm.stick("pad.left_stick", -0.55, 0.0),
        lambda: helm.stick("pad1.left_stick", 0.325, 0.0),
        lambda: helm.stick("pad1.left_stick", 0.0, 0.0),
        lambda: helm.key("KeyD", False),
    ):
        act()
        helm.tick(0.1)
        found.append(local(helm, 0.1)[0])
    assert found == pytest.approx(expected)


FOUR_STICKS = "".join(
    f'[[mode.foot.move.bind]]\nstick = "{pad}.left_stick"\ndead_zone = {{ form = "none" }}\n'
    for pad in ("pad", "pad1", "pad2", "pad3")
)


@pytest.mark.parametrize(("first", "second"), list(itertools.permutations(range(4), 2)))
def test_the_latest_source_steers_for_as_long_as_it_moves_whatever_its_place(first, second):
    helm = helm_of(
        f'[mode.foot]\nsteer = {{ frame = "map" }}\n[mode.foot.move]\n{STILL}merge = "latest"\n{FOUR_STICKS}'
    )
    pads = ["pad", "pad1", "pad2", "pad3"]
    if first == second:
        return
    helm.stick(f"{pads[first]}.left_stick", 1.0, 0.0)
    assert helm.tick(0.01).local.right == 1.0
    helm.stick(f"{pads[second]}.left_stick", 0.0, -0.5)
    # Weaker, but later, for three ticks; moving on is no new beginning for the other one.
    for tick in range(3):
        helm.stick(f"{pads[first]}.left_stick", 0.9 + 0.01 * tick, 0.0)
        assert helm.tick(0.01).local.right == 0.0
    helm.stick(f"{pads[second]}.left_stick", 0.0, 0.0)
    assert helm.tick(0.01).local.right > 0.8


def test_under_a_sum_the_stronger_one_gives_the_device():
    helm = helm_of(MERGED.replace("MERGE", "sum"))
    helm.key("KeyD", True)
    helm.stick("pad.left_stick", 0.5, 0.0)
    assert helm.tick(0.1).device == "keys"
    helm = helm_of(MERGED.replace("MERGE", "sum").replace("rise_s = 0", "rise_s = 10"))
    helm.key("KeyD", True)
    helm.stick("pad.left_stick", 0.5, 0.0)
    assert helm.tick(0.1).device == "pad"


def test_the_device_is_the_one_that_really_moved_last():
    helm = helm_of(
        MERGED.replace("MERGE", "strongest")
        + '[[mode.foot.look.bind]]\nmouse = "mouse.move"\n'
        + '[mode.foot.press]\npick = { bind = ["key.KeyE", "pad.south"] }\n'
    )
    helm.stick("pad.left_stick", 0.09, 0.0)
    assert helm.tick(0.1).device is None
    helm.mouse(3, 0)
    assert helm.tick(0.1).device == "mouse"
    # A stick that drifts within its dead zone steals nothing.
    helm.stick("pad.left_stick", 0.0, 0.1)
    assert helm.tick(0.1).device == "mouse"
    helm.stick("pad.left_stick", 0.0, 0.2)
    assert helm.tick(0.1).device == "pad"
    helm.stick("pad.left_stick", 0.0, 0.0)
    helm.key("KeyE", True)
    assert [helm.tick(0.1).device for _ in range(2)] == ["keys", "keys"]
    helm.button("pad.south", True)
    # The press is held already, so this is no new press.
    assert helm.tick(0.1).device == "keys"


def looking(bind, limits="[-80, 80]"):
    return helm_of(f"[mode.foot.look]\npitch_limits_deg = {limits}\n[[mode.foot.look.bind]]\n{bind}\n")


@pytest.mark.parametrize(
    ("bind", "degrees_per_10_cm"),
    [
        ('mouse = "mouse.move"\ncm_per_turn = 40\ndpi = 1600', 90.0),
        ('mouse = "mouse.move"\ndeg_per_count = 0.02', 0.02 * 1600 / 0.254),
        ('mouse = "mouse.move"\ncm_per_turn = 40\ndpi = 800\ninvert_yaw = true', -180.0),
    ],
)
@pytest.mark.parametrize("hz", [30, 240])
def test_a_swipe_turns_by_its_centimetres_at_any_tick_rate(bind, degrees_per_10_cm, hz):
    swipe = MouseStandIn(counts_per_inch=1600, poll_hz=1000).swipe(cm=10.0, duration_s=0.31)
    helm = looking(bind)
    turned, index = 0.0, 0
    for tick in range(1, hz + 1):
        while index < len(swipe) and swipe[index].t <= tick / hz:
            helm.apply(swipe[index])
            index += 1
        turned += helm.tick(1 / hz).look.yaw_deg
    # 10 cm are 6299.2 counts at 1600 an inch; the mouse counts whole ones.
    assert sum(event.value[0] for event in swipe) == 6299.0
    assert turned == pytest.approx(degrees_per_10_cm * 6299.0 / 6299.2126, rel=1e-6)


def test_look_signs_rates_and_limits():
    helm = looking(
        'stick = "pad.right_stick"\ndead_zone = { inner = 0.0, outer = 1.0 }\nyaw_deg_s = 90\npitch_deg_s = 40'
    )
    helm.stick("pad.right_stick", 1.0, 0.0)
    assert helm.tick(0.5).look == pytest.approx((45.0, 0.0))
    # Away from the player is up, and the pitch stops at its limit and comes back at once.
    helm.stick("pad.right_stick", 0.0, -1.0)
    assert helm.tick(1.0).look == pytest.approx((0.0, 40.0))
    assert helm.tick(5.0).look == pytest.approx((0.0, 40.0))
    assert helm.tick(1.0).look == pytest.approx((0.0, 0.0))
    helm.stick("pad.right_stick", 0.0, 1.0)
    intent = helm.tick(0.25)
    assert intent.look == pytest.approx((0.0, -10.0))
    assert intent.view == pytest.approx((45.0, 70.0))
    # Where the game looks out beyond the limits, no look goes further, and the way back is open.
    for pitch_deg, counts, expected in ((85.0, -10, 0.0), (85.0, 10, -10.0), (-85.0, 10, 0.0), (-85.0, -10, 10.0)):
        far = looking('mouse = "mouse.move"\ndeg_per_count = 1')
        far.mouse(0, counts)
        assert far.tick(0.1, view=View(0.0, pitch_deg)).look.pitch_deg == pytest.approx(expected, abs=1e-9)
    mouse = looking('mouse = "mouse.move"\ndeg_per_count = 0.5\npitch_ratio = 0.5')
    mouse.mouse(10, -20)
    assert mouse.tick(0.01).look == pytest.approx((5.0, 5.0))
    inverted = looking('mouse = "mouse.move"\ndeg_per_count = 0.5\ninvert_pitch = true')
    inverted.mouse(0, -20)
    assert inverted.tick(0.01).look == pytest.approx((0.0, -10.0))


def test_a_dragged_finger_turns_by_its_way_and_only_from_its_zone():
    helm = looking('touch_drag = "right half"\ndeg_per_width = 200')
    profile = helm.profile
    drag = TouchStandIn(finger=1, poll_hz=100).drag((0.6, 0.5), (0.9, 0.4), duration_s=0.3)
    trace = shape(Recording([*drag, Event(0.5, "mark", "end")]), profile)
    assert trace["look_yaw_deg"].sum() == pytest.approx(0.3 * 200.0, abs=1e-3)
    # A tenth of the height is a tenth of 9/16 of the width.
    assert trace["look_pitch_deg"].sum() == pytest.approx(0.1 * 9 / 16 * 200.0, abs=1e-3)
    stray = TouchStandIn(finger=1, poll_hz=100).drag((0.4, 0.5), (0.9, 0.4), duration_s=0.3)
    assert shape(Recording(stray), profile)["look_yaw_deg"].abs().sum() == 0.0


def test_a_turned_pad_turns_the_view_as_far_as_the_ratio_says():
    pad = GyroStandIn(poll_hz=250)
    turn = pad.events(hand_path([(0.0, 0.0, 0.0), (0.5, 30.0, 10.0)]), 0.0, 1.0)
    trace = shape(Recording(turn), looking('gyro = "pad.gyro"\nturn_ratio = 2').profile, hz=250)
    assert trace["look_yaw_deg"].sum() == pytest.approx(60.0, rel=0.01)
    assert trace["look_pitch_deg"].sum() == pytest.approx(20.0, rel=0.01)


def test_the_helm_turns_its_own_view_unless_the_game_says_where_it_looks():
    helm = looking('mouse = "mouse.move"\ndeg_per_count = 1')
    helm.mouse(30, 0)
    assert helm.tick(0.1).view == pytest.approx((30.0, 0.0))
    assert helm.tick(0.1, view=View(100.0, -5.0)).view == (100.0, -5.0)
    helm.mouse(-10, 0)
    intent = helm.tick(0.1, view=View(100.0, -5.0))
    assert (intent.look, intent.view) == (pytest.approx((-10.0, 0.0)), pytest.approx((90.0, -5.0)))
    assert helm.tick(0.1).view == pytest.approx((90.0, -5.0))


def test_rise_throttle_and_turn_take_keys_triggers_and_axes():
    helm = Helm(demo_profile("scout"))
    helm.key("Space", True)
    intent = helm.tick(1.0)
    assert (intent.rise, intent.throttle, intent.turn) == (1.0, 0.0, 0.0)
    # Under a sum half a trigger the other way takes half away; the dead zone ends at 0.05.
    helm.button("pad.left_trigger", 0.05 + 0.95 * 0.5)
    assert helm.tick(1.0).rise == pytest.approx(0.5)
    helm.stick("pad.right_stick", 1.0, -1.0)
    intent = helm.tick(1.0)
    assert (intent.turn, intent.throttle) == (1.0, 1.0)
    helm.lose("pad")
    intent = helm.tick(1.0)
    assert (intent.rise, intent.throttle, intent.turn) == (1.0, 0.0, 0.0)


def test_two_players_at_one_machine_are_fed_the_same_events():
    first, second = moving('stick = "pad.left_stick"'), moving('stick = "pad.left_stick"', seat="pad1")
    for helm in (first, second):
        helm.apply(Event(0.0, "pad.left_stick", (1.0, 0.0)))
        helm.apply(Event(0.0, "pad1.left_stick", (0.0, -1.0)))
    assert (local(first), local(second)) == ((1.0, 0.0), (0.0, 1.0))
    assert (first.seat, second.seat) == ("pad", "pad1")
    second.lose("pad1")
    assert local(second) == (0.0, 0.0)
    with pytest.raises(ControlError, match='unknown seat "pad9"; did you mean "pad'):
        moving('stick = "pad.left_stick"', seat="pad9")
    recording = Recording([Event(0.0, "pad1.left_stick", (0.0, -1.0)), Event(1.0, "mark", "end")])
    assert shape(recording, second.profile, seat="pad1")["amount"].iloc[-1] == 1.0
    assert shape(recording, second.profile)["amount"].iloc[-1] == 0.0


@pytest.mark.parametrize("step_s", [0.004, 1 / 60, 0.025])
def test_fixed_ticks_see_counts_and_edges_exactly_once(step_s):
    profile = demo_profile()
    recording = demo_recording("beekeeper_mouse")
    helm = Helm(profile)
    turned, began, ticks, frames = 0.0, 0, 0, 0
    for _, events in recording.ticks(50):
        frames += 1
        for event in events:
            helm.apply(event)
        for intent in helm.fixed_ticks(1 / 50, step_s):
            turned += intent.look.yaw_deg
            began += intent.press("next_frame").began
            ticks += 1
    counts = sum(event.value[0] for event in recording if event.control == "mouse.move")
    assert turned == pytest.approx(counts * 360.0 * 2.54 / (34.0 * 800.0))
    assert began == 4
    assert ticks == pytest.approx(frames / 50 / step_s, abs=1.0)
    with pytest.raises(WendonicError, match="a step and a catch-up above 0"):
        next(helm.fixed_ticks(0.02, 0.0))


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (
            '[[mode.foot.move.bind]]\nkeys = { forward = ["KeyW"] }\n[mode.foot.press]\nwave = { bind = ["KeyW"] }\n',
            "line 6, mode.foot.press.wave.bind[0]: key.KeyW is also bound to move (move.bind[0]); allowed: "
            "one of them, or shared = true",
        ),
        (
            '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n[[mode.foot.turn.bind]]\naxis = "pad.left_stick.x"\n',
            "mode.foot.turn.bind[0]: pad.left_stick.x is also bound to move",
        ),
        (
            '[mode.foot.press]\ncopy = { bind = ["ControlLeft+KeyC"] }\nduck = { bind = ["KeyC"] }\n',
            "key.KeyC is also bound to press copy",
        ),
        (
            '[[mode.foot.move.bind]]\ntouch_stick = "left half"\n[mode.foot.press]\n'
            'tap = { bind = [{ zone = "left half" }] }\n',
            'zone "left half" is also bound to move',
        ),
    ],
)
def test_one_control_for_two_things_is_an_error_unless_it_is_shared(text, words):
    with pytest.raises(ProfileError) as caught:
        profile_from_text(HEAD + text)
    assert words in str(caught.value)
    shared = "], shared = true }".join(text.rsplit("] }", 1)) if "press" in text else text + "shared = true\n"
    profile_from_text(HEAD + shared)


def test_chords_that_differ_in_one_key_are_two_things():
    text = '[mode.foot.press]\ncopy = { bind = ["ControlLeft+KeyC"] }\npaste = { bind = ["ShiftLeft+KeyC"] }\n'
    helm = helm_of(text)
    helm.key("KeyC", True)
    helm.key("ControlLeft", True)
    intent = helm.tick(0.01)
    assert (intent.press("copy").began, intent.press("paste").began) == (True, False)


def test_a_press_of_another_mode_is_at_rest_and_an_unknown_one_is_an_error(everything):
    helm = Helm(everything(), prepare="first")
    assert not any(helm.tick(0.1).press("horn"))
    with pytest.raises(WendonicError, match='no press "hron"; did you mean "horn"'):
        helm.tick(0.1).press("hron")


def test_a_thumb_that_stays_on_the_screen_steers_in_the_new_mode_as_well():
    text = "".join(
        f"[mode.{mode}.move]\nhalf_life_s = 0\n[[mode.{mode}.move.bind]]\n{THUMB}" for mode in ("foot", "cart")
    )
    helm = helm_of(text)
    helm.touch(0, 0.2, 0.5)
    helm.touch(0, 0.2, 0.4)
    assert local(helm) == pytest.approx((0.0, 0.5))
    helm.enter("cart")
    assert local(helm) == pytest.approx((0.0, 0.5))


@pytest.mark.long
def test_changes_beyond_what_is_kept_still_end_at_what_is_held():
    helm = helm_of('[mode.foot.press]\nhorn = { bind = ["KeyH"] }\n')
    for press in range(30_001):
        helm.key("KeyH", down=press % 2 == 0)
    intent = helm.tick(0.01)
    assert (intent.press("horn").held, intent.press("horn").began) == (True, True)
    helm.key("KeyH", down=False)
    assert helm.tick(0.01).press("horn")[:3] == (False, False, True)


def test_opposed_triggers_are_shaped_each_by_itself():
    """(0.5 - 0.05) / 0.95 less (0.4 - 0.05) / 0.95; one that rests within its dead zone takes nothing away."""
    head = f'{HEAD}[mode.m]\nsteer = {{ frame = "drive" }}\n[[mode.m.throttle.bind]]\n'
    pair = 'triggers = { forward = "pad.right_trigger", back = "pad.left_trigger" }\n'
    helm = Helm(profile_from_text(head + pair))

    def throttle(helm, right, left):
        helm.button("pad.right_trigger", right)
        helm.button("pad.left_trigger", left)
        return helm.tick(1 / 60).throttle

    assert throttle(helm, 0.5, 0.4) == pytest.approx(0.1 / 0.95)
    assert throttle(helm, 0.5, 0.04) == pytest.approx(0.45 / 0.95)
    assert throttle(helm, 0.03, 1.0) == pytest.approx(-1.0)
    assert throttle(helm, 0.7, 0.7) == 0.0
    curved = Helm(profile_from_text(f"{head}{pair}curve = {{ form = 'power', exponent = 2 }}\n"))
    assert throttle(curved, 1.0, 0.525) == pytest.approx(1.0 - 0.5**2)
    # Each is held out by its own release.
    cut = "dead_zone = { form = 'cut', inner = 0.3, release = 0.1 }\n"
    held = Helm(profile_from_text(head + pair + cut))
    assert [
        round(throttle(held, *at), 9) for at in ((0.2, 0.0), (0.4, 0.2), (0.2, 0.2), (0.2, 0.4), (0.05, 0.2))
    ] == [
        0.0,
        0.4,
        0.2,
        -0.2,
        -0.2,
    ]


@pytest.mark.parametrize(
    "entries",
    [
        ("look", 'mouse = "mouse.move"\ncm_per_turn = 30', 'mouse = "mouse.move"\ncm_per_turn = 30'),
        ("move", 'stick = "pad.left_stick"', 'axes = { x = "pad.left_stick.x", y = "pad.left_stick.y" }'),
        ("throttle", 'axis = "pad.right_trigger"', 'triggers = { forward = "pad.right_trigger" }'),
        ("move", 'touch_stick = "left half"', 'touch_zones = { left = ["left half"] }'),
    ],
)
def test_one_control_in_two_entries_of_a_channel_would_count_twice(entries):
    """A mouse bound twice turned twice as far; shared, or for different players, it may be."""
    channel, one, other = entries
    head = f"{HEAD}[seat.one]\n[seat.two]\n" + (
        '[mode.m]\nsteer = { frame = "drive" }\n' if channel == "throttle" else ""
    )
    bound = "[[mode.m.{}.bind]]\n{}\n{}\n"
    with pytest.raises(
        ProfileError, match=rf"is also bound to {channel} \({channel}.bind\[0\]\); allowed: one of them, or sha"
    ):
        profile_from_text(head + bound.format(channel, one, "") + bound.format(channel, other, ""))
    for first, second in (("", "shared = true"), ('seat = "one"', 'seat = "two"')):
        profile_from_text(head + bound.format(channel, one, first) + bound.format(channel, other, second))


def test_zones_that_overlap_are_found_where_a_finger_would_do_two_things():
    """A button of 0.1 by 0.2 in the corner of the thumb's zone: 2 % of the window; beside it nothing is shared."""
    zones = '[window]\nzone."puff" = {{ left = {}, top = 0.8, right = {}, bottom = 1 }}\n'
    rest = '[[mode.m.move.bind]]\ntouch_stick = "left half"\n'
    rest += '[mode.m.press]\npuff = {{ bind = [{{ zone = "puff" }}] {} }}\n'

    def findings(left, shared=""):
        text = HEAD + zones.format(left, left + 0.1) + rest.format(shared)
        return [one for one in check(profile_from_text(text), prove=False) if one.slug == "zones-overlap"]

    (found,) = findings(0.3)
    assert found.where == "mode.m.press.puff.bind[0]"
    assert found.measured == 'zone "puff" and zone "left half" (move) share 2.0 % of the window'
    assert findings(0.5) == findings(0.3, ", shared = true") == []
