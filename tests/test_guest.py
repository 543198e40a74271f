"""The game owns the body: what it says of it counts, in its own axes, and what it does not mention stays."""

import itertools
import json
import math
import re
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from few_of_many import few_of
from wendonic import Helm, Recording, View, WendonicError
from wendonic.demo import RECORDINGS, demo_course, demo_profile
from wendonic.profile.load import profile_from_text

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = 'keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
CRISP = "[mode.m.move]\nhalf_life_s = 0\n[[mode.m.move.bind]]\n" + KEYS + "rise_s = 0\nfall_s = 0\n"
WORLDS = {
    "3-D, y up": ('right = "+x"\nforward = "-z"\nup = "+y"\n', 3),
    "3-D, z up, turned": ('right = "-y"\nforward = "+x"\nup = "+z"\n', 3),
    "screen": ('right = "+x"\nforward = "-y"\n', 2),
    "from the side": ('right = "+x"\nup = "-y"\n', 2),
}


def helm_in(world, steer="{ frame = 'map' }", rest=CRISP):
    axes, count = WORLDS[world]
    side = "{ frame = 'map', side_view = true }" if world == "from the side" else steer
    keys = rest.replace('forward = ["KeyW"], back = ["KeyS"], ', "") if world == "from the side" else rest
    return Helm(profile_from_text(f"{HEAD}[world]\n{axes}[mode.m]\nsteer = {side}\n{keys}")), count


numbers = st.floats(-50.0, 50.0)


@pytest.mark.parametrize("world", WORLDS)
@given(place=st.tuples(*[numbers] * 3), velocity=st.tuples(*[numbers] * 3))
def test_what_a_game_says_of_the_body_comes_back_in_its_own_axes(world, place, velocity):
    helm, count = helm_in(world)
    place, velocity = place[:count], velocity[:count]
    helm.place(*place, velocity=velocity)
    standing = helm.tick(0.0)
    assert standing.position() == pytest.approx(place)
    # A body without weight has no speed upwards.
    x, y, _ = helm.axes.to_plan(*velocity)
    assert standing.velocity() == pytest.approx(helm.axes.from_plan(x, y))
    heavy, _ = helm_in(world, rest=CRISP + "[gait.walk]\ngravity_m_s2 = 10\n")
    heavy.place(*place, velocity=velocity)
    assert heavy.tick(0.0).velocity() == pytest.approx(velocity)
    # Each is kept when it is not mentioned.
    helm.place(velocity=[0.0] * count)
    assert helm.tick(0.0).position() == pytest.approx(place)
    helm.place(*[1.0] * count)
    assert helm.tick(0.0).velocity() == pytest.approx([0.0] * count)


@pytest.mark.parametrize("world", ["3-D, y up", "3-D, z up, turned", "screen"])
@pytest.mark.parametrize("heading_deg", [0.0, 37.0, 135.0, 250.0])
def test_a_facing_is_a_vector_there_and_back(world, heading_deg):
    helm, _ = helm_in(world)
    heading = math.radians(heading_deg)
    facing = helm.axes.from_plan(math.sin(heading), math.cos(heading))
    helm.place(facing=[7.0 * number for number in facing])
    intent = helm.tick(0.0)
    assert intent.face_deg == pytest.approx(heading_deg)
    assert intent.facing() == pytest.approx(facing)


@pytest.mark.parametrize("world", ["3-D, y up", "from the side"])
def test_height_is_kept_by_a_body_without_weight(world):
    helm, count = helm_in(world)
    helm.place(*(1.0, 5.0, 2.0)[:count])
    helm.key("KeyD", down=True)
    for _ in range(30):
        intent = helm.tick(1 / 60)
    assert intent.position()[1] == 5.0
    assert intent.position()[0] > 2.0


@pytest.mark.parametrize("name", sorted(set(RECORDINGS.values())))
def test_every_shipped_mode_takes_a_body_and_goes_on(name):
    helm = Helm(demo_profile(name))
    count = 3 if helm.axes.up and helm.axes.forward else 2
    for mode in helm.profile.mode:
        if (
            mode in helm.profile.mode[helm.mode].leave_to
            if helm.profile.mode[helm.mode].leave_to
            else mode != helm.mode
        ):
            helm.enter(mode)
        helm.place(*[2.0] * count, velocity=[1.0] * count, facing=helm.axes.from_plan(1.0, 1.0))
        helm.push(*[0.5] * count)
        helm.stop()
        helm.restart(*[3.0] * count)
        for _ in range(5):
            intent = helm.tick(1 / 60)
        assert all(map(math.isfinite, (*intent.motion[:6], intent.face_deg, intent.amount)))


def ticks_to(helm, y, step_s=1 / 60):
    """Return after how many ticks the body is that far forward."""
    for tick in itertools.count(1):
        if helm.tick(step_s).motion.pos_y <= y or tick > 600:
            return tick
    raise AssertionError


SLOW = "[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 3\nbrake_m_s2 = 3\n"


def test_off_a_wall_of_the_games_own_the_way_back_is_as_long_as_from_a_standstill():
    """Held against it for three seconds; the game stands at y = 0 and takes the speed away, tick by tick."""
    fresh, _ = helm_in("3-D, z up, turned", rest=CRISP + SLOW)
    fresh.key("KeyS", down=True)
    expected = ticks_to(fresh, -0.1)
    helm, _ = helm_in("3-D, z up, turned", rest=CRISP + SLOW)
    helm.key("KeyW", down=True)
    for _ in range(180):
        helm.tick(1 / 60)
        helm.place(0.0, 0.0, 0.0, velocity=(0.0, 0.0, 0.0))
    helm.key("KeyW", down=False)
    helm.key("KeyS", down=True)
    assert ticks_to(helm, -0.1) == expected
    # Without the game's word the speed is still there: v² / 2a forward first.
    helm, _ = helm_in("3-D, z up, turned", rest=CRISP + SLOW)
    helm.key("KeyW", down=True)
    for _ in range(180):
        helm.tick(1 / 60)
        helm.place(0.0, 0.0, 0.0)
    helm.key("KeyW", down=False)
    helm.key("KeyS", down=True)
    assert ticks_to(helm, -0.1) > expected + 60


SHIPPED_MODES = [(name, mode) for name in sorted(set(RECORDINGS.values())) for mode in demo_profile(name).mode]
THERE_AND_BACK = [("KeyW", "KeyS"), ("KeyD", "KeyA"), ("ShiftLeft", "ControlLeft")]


def against_a_wall(helm, way, key, ticks=60):
    """Hold a key against what the game stops, and return the last intent and where it began."""
    start = helm.tick(0.0).position()
    normal = None
    helm.key(key, down=True)
    for _ in range(ticks):
        intent = helm.tick(1 / 60)
        velocity = intent.velocity()
        normal = [-speed for speed in velocity] if any(velocity) else normal
        if way == "contact" and normal:
            helm.contact(*normal)
        elif way == "velocity":
            helm.place(velocity=[0.0] * len(start))
        helm.place(*start)
    helm.key(key, down=False)
    return intent, start


@pytest.mark.parametrize("way", ["contact", "velocity"])
@pytest.mark.parametrize(("name", "mode"), few_of(SHIPPED_MODES, SHIPPED_MODES[::2]))
def test_off_a_wall_every_shipped_mode_goes_as_from_a_standstill(name, mode, way):
    """Its keys and smoothing pulled into the wall for a second, and the way back is that of a fresh body."""
    for there, back in THERE_AND_BACK:
        walled = Helm(demo_profile(name), mode=mode)
        held, start = against_a_wall(walled, way, there)
        fresh = Helm(demo_profile(name), mode=mode)
        fresh.place(*start, facing=held.facing())
        for helm in (walled, fresh):
            helm.key(back, down=True)
        for _ in range(45):
            one, other = walled.tick(1 / 60), fresh.tick(1 / 60)
            assert one.position() == pytest.approx(other.position(), abs=1e-9), there
            assert one.amount == pytest.approx(other.amount, abs=1e-9)


def with_ramps():
    """The beekeeper with keys that fall slowly, so that a release can be followed."""
    return demo_profile().changed({"mode.foot.move.bind[0].fall_s": 0.04, "mode.foot.move.half_life_s": 0.008})


def test_input_held_against_a_wall_is_still_requested():
    helm = Helm(with_ramps())
    held, _ = against_a_wall(helm, "contact", "KeyW")
    assert held.amount == pytest.approx(1.0)
    # Along the wall keys fall as ever, and so they do where nothing stands in the way.
    for wall in (True, False):
        helm = Helm(with_ramps())
        helm.key("KeyD", down=True)
        for _ in range(60):
            helm.tick(1 / 60)
        helm.key("KeyD", down=False)
        if wall:
            helm.contact(0.0, 0.0, 1.0)
        amounts = [helm.tick(1 / 60).amount for _ in range(3)]
        assert amounts == sorted(amounts, reverse=True), wall
        assert amounts[0] > 0.3


@pytest.mark.parametrize("yaw_deg", [0.0, 30.0, 90.0, -120.0])
def test_a_wall_is_in_the_games_axes_and_keys_in_the_views(yaw_deg):
    """In a corner both axes have come to rest; facing a wall askew, only the axis that runs into it has."""
    after = {}
    for told in ("head on", "corner", "behind", "nothing"):
        helm = Helm(with_ramps())
        for key in ("KeyW", "KeyD"):
            helm.key(key, down=True)
        for _ in range(60):
            helm.tick(1 / 60, view=View(yaw_deg))
        for key in ("KeyW", "KeyD"):
            helm.key(key, down=False)
        yaw = math.radians(yaw_deg)
        ahead, right = (math.sin(yaw), math.cos(yaw)), (math.cos(yaw), -math.sin(yaw))
        for x, y in {"head on": [ahead], "corner": [ahead, right], "behind": [(-ahead[0], -ahead[1])]}.get(told, []):
            helm.contact(*helm.axes.from_plan(-x, -y))
        after[told] = helm.tick(1 / 60, view=View(yaw_deg)).local
    plain = after["nothing"]
    assert plain.right > 0.1
    assert plain.forward > 0.1
    assert after["behind"] == pytest.approx(plain)
    assert after["head on"].forward == 0.0
    assert after["head on"].right > 0.1
    assert tuple(after["corner"]) == (0.0, 0.0)


def test_off_a_wall_of_a_course_too_the_way_back_is_as_long_as_from_a_standstill():
    """At the edge of the yard, where the helm itself stops the body; in a hitch too."""
    course, profile = demo_course("harvest"), demo_profile("harvest")
    walled = Helm(profile, course=course)
    walled.key("KeyS", down=True)
    for _ in range(200):
        held = walled.tick(1 / 60)
    assert held.contact is not None
    assert held.amount > 0.9
    walled.key("KeyS", down=False)
    fresh = Helm(profile, course=course)
    fresh.place(*held.position(), facing=held.facing())
    for helm in (walled, fresh):
        helm.key("KeyW", down=True)
    for dt in [1 / 60] * 3 + [0.3] + [1 / 60] * 20:
        assert walled.tick(dt).position() == pytest.approx(fresh.tick(dt).position(), abs=1e-9)


def test_a_smaller_velocity_is_not_a_wall():
    """A game whose own body is slow to start, and turns, tells its speed each tick: keys fall as ever."""
    amounts = {}
    for told in (False, True):
        helm = Helm(with_ramps())
        helm.key("KeyW", down=True)
        for tick in range(30):
            _, vy, vz = helm.tick(1 / 60).velocity()
            if told:
                helm.place(velocity=(0.1 * vz, vy, vz * min(0.1 + 0.02 * tick, 0.7)))
        helm.key("KeyW", down=False)
        amounts[told] = [helm.tick(1 / 60).amount for _ in range(8)]
    assert amounts[True] == pytest.approx(amounts[False])
    assert amounts[True][0] > 0.3


def test_a_push_is_the_gaits_from_the_next_tick_on():
    """v² / 2b: pushed at 3 m/s, the brake of 3 m/s² takes a second and 1.5 m."""
    helm, _ = helm_in("screen", rest=CRISP + SLOW)
    helm.push(0.0, -3.0)
    assert helm.tick(0.0).velocity() == (0.0, -3.0)
    for _ in range(60):
        intent = helm.tick(1 / 60)
    assert intent.position() == pytest.approx((0.0, -1.5))
    assert intent.velocity() == pytest.approx((0.0, 0.0), abs=1e-9)
    # Two of them add up, to what is there.
    helm.push(1.0, 0.0)
    helm.push(0.5, 2.0)
    assert helm.tick(0.0).velocity() == pytest.approx((1.5, 2.0))


def test_a_zero_push_is_not_an_event(tmp_path):
    """Ground that stands still pushes so in every tick."""
    helm, _ = helm_in("screen")
    with helm.record(tmp_path / "session.jsonl"):
        for speed in (0.0, -0.0, 1.0, 0.0):
            helm.push(speed, 0.0)
            helm.tick(1 / 60)
    events = [event for event in Recording.read(tmp_path / "session.jsonl") if event.control == "body.push"]
    assert [event.value for event in events] == [(1.0, 0.0, 0.0)]


GROUND_THAT_MOVES = (Path(__file__).parent.parent / "docs" / "guides" / "physics.md").read_text(encoding="utf-8")
GROUND_THAT_MOVES = re.search(r"## Ground that moves.*?```python\n(.*?)```", GROUND_THAT_MOVES, re.DOTALL)[1]


def test_ground_that_moves_carries_the_body_as_the_guide_shows():
    """On a platform at 2 m/s the path is that of firm ground, and so it is through a jump; off it, v² / 2b less half
    a tick: the game moves by the speed at the end of each.
    """
    profile = profile_from_text(
        f'{HEAD}[mode.m]\nsteer = {{ frame = "map" }}\n{CRISP}[mode.m.press]\njump = {{ bind = ["key.Space"] }}\n'
        "[gait.walk]\naccel_m_s2 = 22\nbrake_m_s2 = 10\n"
    )

    def walk(platform, ends):
        """The game's own physics: a platform that carries the body for that many ticks, and a jump of 20 of them."""
        helm, path = Helm(profile), []
        given = {"helm": helm, "dt": 1 / 60, "place": np.zeros(3), "carried": np.array([platform, 0.0, 0.0])}
        given["my_physics"] = lambda place, velocity, dt: (place + velocity * dt, velocity)
        for tick in range(140):
            if tick in (10, 70):
                helm.key("KeyD", down=tick == 10)
            given["on_ground"] = not 30 <= tick < 50
            given["ground_velocity"] = np.array([platform if tick < ends else 0.0, 0.0, 0.0])
            exec(GROUND_THAT_MOVES, given)
            path.append(given["place"][0])
        return path

    firm, carried, left = walk(0.0, 140), walk(2.0, 140), walk(2.0, 100)
    assert [x - 2.0 * (tick + 1) / 60 for tick, x in enumerate(carried)] == pytest.approx(firm, abs=1e-9)
    assert left[:100] == carried[:100]
    assert left[-1] - left[99] == pytest.approx(2.0**2 / 20.0 - 2.0 / 120.0, abs=1e-9)


def test_a_second_helm_reads_the_stick_that_aims():
    """As the guide on steering has it: a dead zone that keeps the last direction, in axes of a screen."""
    profile = profile_from_text(
        f'{HEAD}[world]\nright = "+x"\nforward = "-y"\n'
        '[mode.foot]\nsteer = { frame = "map", face = "aim" }\n[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'
        '[mode.thumb]\ngait = "none"\n[[mode.thumb.move.bind]]\nstick = "pad.right_stick"\n'
        "dead_zone = { inner = 0.25, outer = 0.96, release = 0.2 }\n"
    )
    body, thumb = Helm(profile), Helm(profile, mode="thumb")
    place, faces = (0.0, 0.0), []
    # Down to the left, past the edge it came in by, let go, to the right, and not quite far enough.
    for x, y in ((-0.7, 0.7), (-0.15, 0.15), (0.0, 0.0), (0.9, 0.0), (0.0, 0.0), (0.0, -0.24)):
        for helm in (body, thumb):
            helm.stick("pad.left_stick", 1.0, 0.0)
            helm.stick("pad.right_stick", x, y)
        aim = thumb.tick(1 / 60)
        if aim.amount > 0.0:
            across, down = aim.direction()
            body.aim_at(place[0] + 1000 * across, place[1] + 1000 * down)
        intent = body.tick(1.0)
        place = intent.position()
        faces.append(intent.face_deg)
    assert faces == pytest.approx([225.0, 225.0, 225.0, 90.0, 90.0, 90.0], abs=2.0)
    assert place[1] == 0.0 < place[0]


def test_a_launch_leaves_the_ground_where_there_is_weight():
    rest = CRISP + "[gait.walk]\ngravity_m_s2 = 10\n"
    helm, _ = helm_in("3-D, y up", rest=rest)
    helm.tick(1 / 60)
    helm.push(0.0, 5.0, 0.0)
    heights = [helm.tick(1 / 100).position()[1] for _ in range(120)]
    # v² / 2g, and down again after 2 v / g.
    assert max(heights) == pytest.approx(5.0**2 / 20.0, abs=1e-3)
    assert heights[98] > 0.0 == heights[101]


SIDE = """format = "wendonic-profile"
version = 1
world = { right = "+x", up = "-y", units_per_m = 32, unit = "px" }
[mode.foot]
steer = { frame = "map", side_view = true }
[[mode.foot.move.bind]]
keys = { left = ["KeyA"], right = ["KeyD"] }
[mode.foot.press]
jump = { bind = ["key.Space"], buffer_s = 0.1, grace_s = 0.1 }
[gait.walk]
jump = { height_u = 96, apex_s = 0.4 }
"""


@pytest.mark.parametrize(
    ("floor", "reports", "jumps", "warned"), [(0, 0, 1, 0), (-200, 0, 1, 0), (200, 1, 1, 0), (200, 0, 0, 1)]
)
def test_a_floor_unknown_to_the_helm_is_requested(floor, reports, jumps, warned, caplog):
    """y points down: a floor at 200 px is below height 0, where a helm that is told nothing stands."""
    helm = Helm(profile_from_text(SIDE))
    y, ys = floor, []
    for tick in range(60):
        # In this order a first tick without word of the ground must not warn.
        helm.place(100, y)
        if reports:
            helm.ground(y >= floor)
        if tick == 2:
            helm.key("Space", down=True)
        y = min(floor, y + helm.tick(1 / 60).velocity()[1] / 60)
        ys.append(y)
    # From 480 px/s at 1200 px/s² each tick of the game's own Euler step falls short by half a tick's gravity.
    assert floor - min(ys) == pytest.approx(jumps * (96 - 480 / 120), abs=0.5)
    told = [record for record in caplog.records if "place(100, 200) is 200 px below" in record.getMessage()]
    assert len(told) == warned


def test_stop_keeps_facing_view_and_what_is_held():
    helm = Helm(demo_profile())
    helm.view(40.0, -5.0)
    helm.key("KeyW", down=True)
    for _ in range(60):
        intent = helm.tick(1 / 60)
    helm.stop()
    stopped = helm.tick(0.0)
    assert stopped.velocity() == (0.0, 0.0, 0.0)
    assert (stopped.face_deg, stopped.view.yaw_deg) == (intent.face_deg, intent.view.yaw_deg)
    assert stopped.position() == intent.position()
    assert helm.tick(1 / 60).velocity() != (0.0, 0.0, 0.0)


PRESSES = """
[mode.m.press]
jump = { bind = ["key.Space"], buffer_s = 0.3 }
sprint = { bind = ["key.ShiftLeft"], style = "toggle" }
aim = { bind = ["key.KeyE"] }
"""


def test_a_new_life_forgets_ramps_toggles_and_buffers_and_counts_held_controls_anew():
    shaped = CRISP.replace("half_life_s = 0", "half_life_s = 0.1").replace("rise_s = 0", "rise_s = 0.2")
    helm, _ = helm_in("3-D, z up, turned", rest=shaped + PRESSES)
    fresh, _ = helm_in("3-D, z up, turned", rest=shaped + PRESSES)
    helm.ground(False)
    helm.key("KeyW", down=True)
    helm.key("ShiftLeft", down=True)
    helm.key("KeyE", down=True)
    for _ in range(60):
        helm.tick(1 / 60)
    # Wanted in the air, not given yet.
    helm.key("Space", down=True)
    helm.key("Space", down=False)
    intent = helm.tick(1 / 60)
    assert (intent.press("sprint").held, intent.press("aim").held, intent.amount) == (
        True,
        True,
        pytest.approx(1.0, abs=0.01),
    )
    helm.restart(1.0, 2.0, 3.0, facing=(0.0, 1.0, 0.0))
    standing = helm.tick(0.0)
    assert standing.position() == pytest.approx((1.0, 2.0, 3.0))
    assert standing.facing() == pytest.approx((0.0, 1.0, 0.0), abs=1e-12)
    assert (standing.amount, standing.velocity(), standing.t) == (0.0, (0.0, 0.0, 0.0), intent.t)
    helm.ground(True)
    first = helm.tick(1 / 60)
    assert not any(press.held or press.began for press in first.presses.values())
    assert first.press("aim").ended
    # The key that is still held rises from zero, as on the first day.
    fresh.key("KeyW", down=True)
    assert first.amount == fresh.tick(1 / 60).amount
    for _ in range(20):
        assert helm.tick(1 / 60).amount == fresh.tick(1 / 60).amount
    assert not helm.tick(1 / 60).press("aim").held
    helm.key("KeyE", down=False)
    helm.tick(1 / 60)
    helm.key("KeyE", down=True)
    assert helm.tick(1 / 60).press("aim").began


def test_a_new_life_forgets_the_goal_and_the_way_to_it():
    helm = Helm(demo_profile("orchard"))
    helm.go_to(9.0, -12.0)
    for _ in range(30):
        helm.tick(1 / 60)
    helm.restart(1.0, 1.0)
    for _ in range(30):
        intent = helm.tick(1 / 60)
    assert (intent.goal, intent.position()) == (None, (1.0, 1.0))


def test_out_of_a_wall_the_way_leads_to_where_the_game_put_the_body_not_to_the_origin():
    """The play space has its middle where the game says; the head goes into the shed's wall."""
    helm = Helm(demo_profile("headset"), course=demo_course("yard"))
    helm.place(4.0, 0.0, -3.0)
    helm.pose("head.pose", (0.0, 1.7, 0.0), (0.0, 0.0, 0.0, 1.0))
    assert helm.tick(1 / 60).comfort.safe == pytest.approx((4.0, 0.0, -3.0))
    helm.push(1.0, 0.0, 0.0)
    assert helm.tick(0.0).comfort.safe == pytest.approx((4.0, 0.0, -3.0))


def test_counts_that_piled_up_behind_a_menu_are_gone_and_later_ones_are_not():
    helm = Helm(demo_profile())
    deg = helm.profile.mode["foot"].look.bind[0].count_deg
    helm.mouse(500.0, 40.0)
    helm.discard_counts()
    helm.mouse(10.0, 0.0)
    assert helm.tick(1 / 60).look.yaw_deg == pytest.approx(10.0 * deg)
    assert helm.tick(1 / 60).look.yaw_deg == 0.0
    # A finger's drag goes on from where the finger is.
    tablet = Helm(demo_profile("tablet"))
    tablet.touch(0, 0.6, 0.4)
    tablet.tick(1 / 60)
    tablet.touch(0, 0.8, 0.4)
    tablet.discard_counts()
    tablet.touch(0, 0.9, 0.4)
    assert tablet.tick(1 / 60).look.yaw_deg == pytest.approx(16.0)


@pytest.mark.parametrize(("world", "right", "forward"), [("3-D, y up", (1, 0), (0, -1)), ("screen", (1, 0), (0, -1))])
def test_squares_are_counted_along_the_games_own_axes(world, right, forward):
    helm, _ = helm_in(world, "{ frame = 'grid' }", "[[mode.m.move.bind]]\n" + KEYS)
    helm.block([forward, (2, 0)])
    helm.key("KeyW", down=True)
    assert helm.tick(1 / 60).step.refused == forward
    helm.key("KeyW", down=False)
    helm.key("KeyD", down=True)
    for _ in range(60):
        intent = helm.tick(1 / 60)
    assert (intent.step[:2], intent.step.refused) == (right, (2, 0))


@pytest.mark.parametrize(
    ("call", "words"),
    [
        (lambda helm: helm.place(1.0, 2.0), "place: found 2 numbers; allowed: 3"),
        (lambda helm: helm.place(velocity=(1.0, 0.0)), "velocity: found 2 numbers; allowed: 3"),
        (lambda helm: helm.place(1.0, math.nan, 0.0), "place: found .*nan.*finite numbers"),
        (lambda helm: helm.place(velocity=(math.inf, 0.0, 0.0)), "velocity: found .*inf.*finite numbers"),
        (lambda helm: helm.place(facing=(0.0, 0.0, 0.0)), "facing: found .* not zero, nor straight up"),
        (lambda helm: helm.place(facing=(0.0, 3.0, 0.0)), "facing: found .* not zero, nor straight up"),
        (
            lambda helm: helm.place(facing="north"),
            "facing: found 'north'; allowed: numbers, one by one or as one vector",
        ),
        (lambda helm: helm.place(facing=30.0), "facing: found 30.0; allowed: numbers"),
        (lambda helm: helm.place(velocity={"x": 1.0}), "velocity: found .*x.*; allowed: numbers"),
        (lambda helm: helm.ground(True, 1.0), "normal: found 1.0; allowed: numbers"),
        (lambda helm: helm.push(1.0), "push: found 1 number; allowed: 3"),
        (lambda helm: helm.restart(1.0, 2.0, None), "place: found .*; allowed: (finite )?numbers"),
        (lambda helm: helm.restart(facing=(math.nan, 0.0, 1.0)), "facing: found .*nan"),
    ],
)
def test_what_cannot_be_is_refused_and_the_helm_goes_on_as_before(call, words):
    helm, _ = helm_in("3-D, y up")
    helm.place(1.0, 2.0, 3.0, velocity=(0.0, 0.0, 1.0))
    before = helm.tick(0.0)
    with pytest.raises(WendonicError, match=words):
        call(helm)
    after = helm.tick(0.0)
    assert (after.motion, after.face_deg) == (before.motion, before.face_deg)


@pytest.mark.parametrize(
    ("axes", "behind", "right"),
    [
        ("right = '+x'\nforward = '-y'\n", (0, 1), (32.0, 0.0)),
        ("right = '+y'\nforward = '+x'\nup = '-z'\n", (-1, 0), (0.0, 32.0)),
    ],
)
def test_a_tile_maps_corner_can_be_the_origin_of_the_squares(axes, behind, right):
    """Tiles of 32 from (64, -32) on: tile (i, j) has its middle at 64 + 32 (i + 1/2) and -32 + 32 (j + 1/2)."""
    steer = "{ frame = 'grid', square_m = 32, origin_m = [64, -32], step_s = 0.2 }"
    profile = profile_from_text(f"{HEAD}[world]\n{axes}[mode.m]\nsteer = {steer}\n{CRISP}")
    helm = Helm(profile)
    height = [0.0] * ("up" in axes)
    for first, second, tile in (
        (65.0, -31.0, (0, 0)),
        (64.0, -32.0, (0, 0)),
        (96.0, 0.0, (1, 1)),
        (95.9, 0.1, (0, 1)),
        (63.0, 200.0, (-1, 7)),
    ):
        helm.place(first, second, *height)
        intent = helm.tick(0.01)
        assert (intent.step.x, intent.step.y) == tile
        middle = (64 + 32 * (tile[0] + 0.5), -32 + 32 * (tile[1] + 0.5))
        assert intent.position()[:2] == pytest.approx(middle)
    helm.place(80.0, -16.0, *height)
    helm.block([behind])
    helm.key("KeyS", down=True)
    assert helm.tick(0.01).step.refused == behind
    helm.key("KeyS", down=False)
    at = helm.tick(0.01).position()
    helm.key("KeyD", down=True)
    helm.tick(0.1)
    helm.key("KeyD", down=False)
    helm.tick(0.5)
    moved = [now - was for now, was in zip(helm.tick(0.01).position()[:2], at[:2], strict=True)]
    assert moved == pytest.approx(right)


# ---- what is in the way ------------------------------------------------------------------------------------------


@pytest.mark.parametrize("world", WORLDS)
@given(
    velocity=st.tuples(*[numbers] * 3), heading=st.floats(-math.pi, math.pi), length=st.sampled_from([0.1, 1.0, 30.0])
)
def test_a_reported_wall_takes_the_speed_into_it_and_leaves_the_speed_along_it(world, velocity, heading, length):
    """By complex numbers: along the wall, and away from it, nothing changes."""
    helm, count = helm_in(world)
    side = world == "from the side"
    normal = helm.axes.from_plan(
        math.sin(heading), 0.0 if side else math.cos(heading), math.cos(heading) if side else 0.0
    )
    given = velocity[:count]
    helm.place(velocity=given)
    before = helm.tick(0.0)
    helm.contact(*[length * part for part in normal])
    after = helm.tick(0.0)
    towards = sum(speed * part for speed, part in zip(before.velocity(), normal, strict=True))
    if not side:
        expected = [s - min(towards, 0.0) * part for s, part in zip(before.velocity(), normal, strict=True)]
        assert after.velocity() == pytest.approx(expected, abs=1e-9)
    # Told once, reported by the next tick, and then over; going back in time brings it back.
    moment = helm.snapshot()
    assert helm.tick(0.01).contact == pytest.approx(normal, abs=1e-12)
    helm.restore(moment)
    assert helm.tick(0.01).contact == pytest.approx(normal, abs=1e-12)
    assert helm.tick(0.01).contact is None


def test_walls_of_a_course_are_reported_by_their_normals_in_the_games_axes():
    course = demo_course("yard")
    wall = course.wall[0]
    profile = profile_from_text(
        f"{HEAD}[world]\nright = '+x'\nforward = '-y'\n[mode.m]\nsteer = {{ frame = 'map' }}\n{CRISP}"
    )
    middle_x, middle_y = (wall.left_m + wall.right_m) / 2, (wall.back_m + wall.forward_m) / 2
    for key, start, normal in (
        ("KeyW", (middle_x, wall.back_m - 0.6), (0.0, 1.0)),
        ("KeyS", (middle_x, wall.forward_m + 0.6), (0.0, -1.0)),
        ("KeyD", (wall.left_m - 0.6, middle_y), (-1.0, 0.0)),
        ("KeyA", (wall.right_m + 0.6, middle_y), (1.0, 0.0)),
    ):
        helm = Helm(profile, course=course)
        helm.place(start[0], -start[1])
        helm.key(key, down=True)
        assert helm.tick(1 / 60).contact is None
        for _ in range(60):
            intent = helm.tick(1 / 60)
        assert intent.contact == normal
        # In a hitch too, and no longer once he turns back.
        assert helm.tick(0.4).contact == normal
        helm.key(key, down=False)
        for _ in range(30):
            intent = helm.tick(1 / 60)
        assert intent.contact is None


def test_a_goal_that_comes_no_nearer_says_for_how_long():
    helm = Helm(demo_profile("orchard"))
    assert helm.tick(1 / 60).stuck_s == 0.0
    helm.go_to(6.0, 0.0)
    free = [helm.tick(1 / 60).stuck_s for _ in range(60)]
    assert max(free) < 0.1
    # The game holds him where he is, as behind a fence.
    at = helm.tick(1 / 60).position()
    held = []
    for _ in range(90):
        helm.place(*at, velocity=[0.0] * len(at))
        held.append(helm.tick(1 / 60).stuck_s)
    assert held == sorted(held)
    assert held[-1] == pytest.approx(1.5, abs=0.1)
    # A new goal, and being on the way again, begin anew.
    helm.go_to(0.0, 5.0)
    assert helm.tick(1 / 60).stuck_s == 0.0
    assert max(helm.tick(1 / 60).stuck_s for _ in range(30)) < 0.1
    for _ in range(600):
        intent = helm.tick(1 / 60)
    assert (intent.goal, intent.stuck_s) == (None, 0.0)


@pytest.mark.parametrize("wrong", [(0.0, 0.0, 0.0), (math.nan, 0.0, 1.0), (1.0,), ("east",)])
def test_a_zero_normal_is_refused(wrong):
    helm, _ = helm_in("3-D, y up")
    before = helm.tick(0.01)
    with pytest.raises(WendonicError, match="contact: found"):
        helm.contact(*wrong)
    assert helm.tick(0.0).motion == before.motion
    assert helm.tick(0.01).contact is None


def test_a_vector_may_come_whole_and_any_kind_of_number_becomes_pythons_own():
    """A game that calculates with NumPy gets, bit for bit, what one with plain numbers gets."""
    helms = [Helm(demo_profile("harvest")) for _ in range(3)]
    dt, yaw = np.float32(1 / 60), np.float32(25.5)
    plain, whole, arrays = helms
    for tick in range(90):
        place, velocity, normal = (0.5, 0.25, -0.125 * tick), (1.5, 0.0, -2.0), (0.0, 2.0, 0.5)
        for helm in helms:
            helm.key("KeyW", np.bool_(True) if helm is arrays else True)
            helm.ground(tick < 40, np.array(normal) if helm is arrays else normal)
        if tick % 30 == 5:
            plain.place(*place, velocity=velocity)
            whole.place(place, velocity=velocity)
            arrays.place(np.array(place, dtype=np.float32), velocity=np.array(velocity))
        if tick % 30 == 20:
            plain.push(0.5, 4.0, 0.0)
            whole.push((0.5, 4.0, 0.0))
            arrays.push(*np.array([0.5, 4.0, 0.0], dtype=np.float32))
            plain.contact(-1.0, 0.0, 0.0)
            whole.contact((-1.0, 0.0, 0.0))
            arrays.contact(np.array([-1, 0, 0]))
        plain.mouse(3, -2)
        whole.mouse(3, -2)
        arrays.mouse(np.int64(3), np.int32(-2))
        intents = [
            plain.tick(float(dt), View(float(yaw), -5.0)),
            whole.tick(float(dt), View(float(yaw), -5.0)),
            arrays.tick(dt, View(yaw, np.int64(-5))),
        ]
        assert intents[0].as_dict() == intents[1].as_dict() == intents[2].as_dict()
        assert {type(number) for number in intents[2].record} <= {float}
    assert json.dumps(intents[2].as_dict()) == json.dumps(intents[0].as_dict())
    assert list(arrays.fixed_ticks(np.float32(1 / 30), np.float32(1 / 120)))[-1].t == pytest.approx(
        90 * float(dt) + 1 / 30, abs=1e-7
    )


@pytest.mark.parametrize(
    "wrong", ["north", ("1", "2", "3"), [1.0, 2.0], (1.0, math.nan, 0.0), ((1.0, 2.0), 3.0, 4.0), (10**400, 0, 0)]
)
@pytest.mark.parametrize("call", ["place", "push", "contact", "restart", "go_to", "aim_at"])
def test_an_invalid_vector_is_refused(call, wrong):
    helm = Helm(demo_profile("harvest"))
    before = helm.tick(1 / 60).motion
    with pytest.raises(WendonicError, match=r"numbers|finite"):
        getattr(helm, call)(wrong)
    for dt in ("fast", 10**400, math.nan, np.float32(math.inf)):
        with pytest.raises(WendonicError, match="dt: found"):
            helm.tick(dt)
    with pytest.raises(WendonicError, match="step_s: found"):
        next(helm.fixed_ticks(1 / 60, "fast"))
    assert helm.tick(0.0).motion == before
