"""The intent, and the game's own axes it comes in."""

import json
import math
import pickle

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import Helm, View, WendonicError
from wendonic.runtime.intent import FIELDS, compass_deg


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
    """Camera to the east, keys forward and right: south-east at full speed; in the game, +x and +z."""
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
    assert dict(intent.presses) == dict.fromkeys(beekeeper.press_names, (False, False, False, 0.0, 0))
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
    assert pickle.loads(pickle.dumps(intent)) == intent
    assert str(intent) == "tick 30, 0.500 s, foot: amount 1.00, heading 270.0 deg, facing 270.0 deg, 3.20 m/s"
