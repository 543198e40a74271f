"""The intent, and the game's own axes it comes in."""

import itertools
import json
import math
import pickle

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import Helm, View, WendonicError
from wendonic.intent import FIELDS, WorldAxes, compass_deg

AXES = {"x": np.array([1.0, 0, 0]), "y": np.array([0, 1.0, 0]), "z": np.array([0, 0, 1.0])}
TRIPLES = [
    tuple(sign + letter for sign, letter in zip(signs, letters, strict=True))
    for letters in itertools.permutations("xyz")
    for signs in itertools.product("+-", repeat=3)
]
PAIRS = [(sign_a + a, sign_b + b) for a, b in (("x", "y"), ("y", "x")) for sign_a in "+-" for sign_b in "+-"]


def vector(name):
    return AXES[name[1]] * (1.0 if name[0] == "+" else -1.0)


@pytest.mark.parametrize("names", TRIPLES)
def test_all_48_triples_place_vectors_where_their_names_say_and_back(names):
    assert len(set(TRIPLES)) == 48
    axes = WorldAxes(*names)
    columns = np.column_stack([vector(name) for name in names])
    plan = (0.3, -1.7, 2.9)
    assert axes.from_plan(*plan) == pytest.approx(columns @ plan)
    assert axes.to_plan(*axes.from_plan(*plan)) == plan
    assert axes.right_handed == (np.linalg.det(columns) > 0)


@pytest.mark.parametrize("names", PAIRS)
def test_screens_and_other_2d_worlds(names):
    axes = WorldAxes(*names)
    expected = (0.3 * vector(names[0]) - 1.7 * vector(names[1]))[:2]
    assert axes.from_plan(0.3, -1.7, 99.0) == pytest.approx(expected)
    assert axes.to_plan(*axes.from_plan(0.3, -1.7)) == (0.3, -1.7, 0.0)
    assert axes.right_handed is None


@pytest.mark.parametrize(
    "names", [("+x", "-x", "+y"), ("x", "+y", "+z"), ("+x", "+w", "+z"), ("+x", "+z"), ("+x", "")]
)
def test_axes_that_are_none_are_refused(names):
    with pytest.raises(WendonicError, match="allowed: signed axes"):
        WorldAxes(*names)


def test_a_vector_of_the_wrong_length_is_refused():
    with pytest.raises(WendonicError, match="2 numbers; allowed: 3"):
        WorldAxes("+x", "-z", "+y").to_plan(1.0, 2.0)


@given(angle=st.floats(-math.pi, math.pi))
def test_compass_headings_lie_in_0_to_360(angle):
    heading = compass_deg(angle)
    assert 0.0 <= heading < 360.0
    assert math.remainder(math.radians(heading) - angle, math.tau) == pytest.approx(0.0, abs=1e-12)


def intent_after(profile, seconds, *codes, yaw_deg=0.0):
    helm = Helm(profile)
    for code in codes:
        helm.key(code, down=True)
    for _ in range(round(seconds * 60)):
        intent = helm.tick(1 / 60, view=View(yaw_deg, -70.0))
    return intent


def test_an_intent_of_a_known_walk(beekeeper):
    """Camera to the east, keys ahead and right: south-east at full speed; in the game, +x and +z."""
    intent = intent_after(beekeeper, 2.0, "KeyW", "KeyD", yaw_deg=90.0)
    root = math.sqrt(0.5)
    assert (intent.tick, intent.t, intent.mode, intent.device) == (120, pytest.approx(2.0), "foot", "keys")
    assert intent.local == pytest.approx((root, root))
    assert intent.move == pytest.approx((root, -root))
    assert (intent.amount, intent.heading_deg, intent.face_deg) == pytest.approx((1.0, 135.0, 135.0))
    assert intent.direction() == pytest.approx((root, 0.0, root))
    assert intent.velocity() == pytest.approx((3.2 * root, 0.0, 3.2 * root))
    assert intent.velocity(top_speed_m_s=10.0) == pytest.approx((10.0 * root, 0.0, 10.0 * root))
    x, y, z = intent.position()
    assert (x, y) == (pytest.approx(z), 0.0)
    assert intent.view == View(90.0, -70.0)


def test_an_intent_at_rest_is_neutral(beekeeper):
    intent = intent_after(beekeeper, 0.1)
    assert intent.heading_deg is None
    assert intent.device is None
    assert intent.velocity() == intent.direction() == intent.position() == (0.0, 0.0, 0.0)
    assert (intent.rise, intent.turn, intent.throttle, intent.look) == (0.0, 0.0, 0.0, (0.0, 0.0))
    assert (intent.sector, intent.goal, intent.step) == (0, None, None)
    assert dict(intent.presses) == dict.fromkeys(beekeeper.press_names, (False, False, False))
    with pytest.raises(WendonicError, match='no press "jmp"; did you mean "jump"'):
        intent.press("jmp")
    # Not even a minus sign in front of a zero.
    assert "-0.0" not in str(intent.velocity()) + str(intent.direction()) + json.dumps(intent.as_dict())


def test_an_intent_cannot_be_changed_and_can_be_kept(beekeeper):
    intent = intent_after(beekeeper, 0.5, "KeyA")
    with pytest.raises(AttributeError):
        intent.t = 3.0
    with pytest.raises(TypeError):
        intent.presses["jump"] = None
    content = json.loads(json.dumps(intent.as_dict(), allow_nan=False))
    assert list(content) == FIELDS
    assert content["heading_deg"] == 270.0
    assert content["motion"]["vel_x"] == pytest.approx(-3.2)
    assert pickle.loads(pickle.dumps(intent)).as_dict() == intent.as_dict()
    assert str(intent) == "tick 30, 0.500 s, foot: amount 1.00, heading 270.0 deg, facing 270.0 deg, 3.20 m/s"
