"""The whole chain of a stick, in any combination, against a model written from the reference's formulas alone."""

import math
from types import SimpleNamespace

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.interpolate import PchipInterpolator

from wendonic import Helm
from wendonic.profile.load import profile_from_text

CURVES = {
    "linear": (st.just(""), lambda u, _: u),
    "power": (st.floats(0.5, 3.0).map("exponent = {:.3f}".format), lambda u, exponent: u**exponent),
    "expo": (st.floats(0.0, 1.0).map("amount = {:.3f}".format), lambda u, a: (1 - a) * u + a * u**3),
    "s": (st.floats(0.0, 1.0).map("amount = {:.3f}".format), lambda u, a: (1 - a) * u + a * (3 * u**2 - 2 * u**3)),
    "points": (
        st.sampled_from([[[0, 0], [0.4, 0.1], [1, 1]], [[0, 0], [0.2, 0.5], [0.7, 0.6], [1, 1]]]).map(
            "points = {}".format
        ),
        lambda u, points: float(PchipInterpolator(*zip(*points, strict=True))(u)),
    ),
}


def share(value):
    return min(max(value, 0.0), 1.0)


def scaled(x, y, length):
    whole = math.hypot(x, y)
    return (x / whole * length, y / whole * length) if whole > 0.0 else (0.0, 0.0)


def past_dead_zone(form, inner, outer, x, y):
    tilt = math.hypot(x, y)
    if form == "axes":
        return tuple(math.copysign(share((abs(part) - inner) / (outer - inner)), part) for part in (x, y))
    lengths = {"none": min(tilt, 1.0), "wedge": share(tilt / outer), "cut": min(tilt, 1.0) if tilt > inner else 0.0}
    length = lengths.get(form, share((tilt - inner) / (outer - inner)))
    if "wedge" in form:
        damped = max(abs(x) - inner * abs(y), 0.0), max(abs(y) - inner * abs(x), 0.0)
        x, y = math.copysign(damped[0], x), math.copysign(damped[1], y)
    return scaled(x, y, length)


number = st.floats(0.05, 0.95).map(lambda value: round(value, 3))


@st.composite
def settings_of_a_stick(draw):
    form = draw(st.sampled_from(["none", "round", "axes", "wedge", "round+wedge", "cut"]))
    curve = draw(st.sampled_from(list(CURVES)))
    return SimpleNamespace(
        form=form,
        inner=draw(st.floats(0.02, 0.3)),
        outer=draw(st.floats(0.8, 1.0)),
        curve=curve,
        parameter=draw(CURVES[curve][0]),
        floor=draw(st.sampled_from([0.0, 0.2])),
        ceiling=draw(st.sampled_from([1.0, 0.7])),
        per_axis="wedge" not in form and draw(st.booleans()),
        rule=draw(st.sampled_from(["cap", "unit", "free", "factor"])),
        factor=draw(number),
        gate=draw(st.sampled_from(["circle", "square"])),
        centre=draw(st.sampled_from([(0.0, 0.0), (0.06, -0.03)])),
        pace=draw(st.one_of(st.none(), number)),
        notches=draw(st.sampled_from([(0, 0.0), (4, 0.5), (8, 0.25), (16, 0.9)])),
        slow=draw(st.one_of(st.none(), number)),
    )


def profile_of(stick):
    curve = [
        f'form = "{stick.curve}"',
        stick.parameter,
        f"floor = {stick.floor}",
        f"ceiling = {stick.ceiling}",
        f"per_axis = {str(stick.per_axis).lower()}",
    ]
    after = [f"diagonal_factor = {stick.factor}"]
    if stick.pace:
        after.append(f"paces = [{{ above = 0, amount = 0.4 }}, {{ above = {stick.pace}, amount = 1 }}]")
    if stick.notches[0]:
        after.append("notches = {}\nnotch_pull = {}".format(*stick.notches))
    if stick.slow:
        after.append(f"press_amounts = {{ slow = {stick.slow} }}")
    lines = "\n".join(after)
    return profile_from_text(f"""format = "wendonic-profile"
version = 1
[mode.foot.move]
{lines}
[[mode.foot.move.bind]]
stick = "pad.left_stick"
gate = "{stick.gate}"
centre = {list(stick.centre)}
diagonal = "{stick.rule}"
dead_zone = {{ form = "{stick.form}", inner = {stick.inner}, outer = {stick.outer} }}
curve = {{ {", ".join(filter(None, curve))} }}
[mode.foot.press]
slow = {{ bind = ["key.ShiftLeft"], shared = true }}
""")


def shaped(stick, raw):
    """Return what the first steps make of a tilt: centre, gate, dead zone, curve."""

    def amount(u):
        f = CURVES[stick.curve][1](u, eval(stick.parameter.partition(" = ")[2] or "0"))
        return stick.floor + (stick.ceiling - stick.floor) * f if u > 0.0 else 0.0

    x, y = raw[0] - stick.centre[0], -(raw[1] - stick.centre[1])
    if stick.gate == "square":
        x, y = scaled(x, y, max(abs(x), abs(y)))
    x, y = past_dead_zone(stick.form, stick.inner, stick.outer, x, y)
    if stick.per_axis:
        return math.copysign(amount(abs(x)), x), math.copysign(amount(abs(y)), y)
    # What an axis at a time leaves beyond the rim stays as far beyond it.
    length = math.hypot(x, y)
    return scaled(x, y, amount(min(length, 1.0)) * max(length, 1.0))


def ruled(stick, x, y):
    """Return what the rule for diagonals, the paces and the press make of it."""
    length = math.hypot(x, y)
    if length > 0.0:
        least, most = sorted((abs(x), abs(y)))
        lengths = {"cap": min(length, stick.ceiling), "unit": 1.0, "free": length}
        length = lengths.get(stick.rule, length * (1.0 - (1.0 - stick.factor) * least / most))
        if stick.pace:
            assume(abs(length - stick.pace) > 1e-9)
            length = 1.0 if length > stick.pace else 0.4
    return scaled(x, y, length * (stick.slow or 1.0))


def pulled(stick, x, y):
    """Return what the notches make of it."""
    notches, pull = stick.notches
    if not notches or (x, y) == (0.0, 0.0):
        return x, y
    heading, step = math.degrees(math.atan2(x, y)), 360.0 / notches
    nearest = round(heading / step) * step
    off = heading - nearest
    assume(abs(abs(off) - step / 2.0) > 1e-6)
    to = math.radians(nearest + math.copysign(max(abs(off) - pull * step / 2.0, 0.0) / (1.0 - pull), off))
    return math.hypot(x, y) * math.sin(to), math.hypot(x, y) * math.cos(to)


@settings(max_examples=12)
@given(stick=settings_of_a_stick(), raw=st.tuples(st.floats(-0.7, 0.7), st.floats(-0.7, 0.7)))
def test_a_tilt_becomes_what_the_reference_says(stick, raw):
    assume(math.hypot(*raw) > 1e-3)
    x, y = shaped(stick, raw)
    assume(math.hypot(x, y) > 1e-6 or (x, y) == (0.0, 0.0))
    expected = pulled(stick, *ruled(stick, x, y))

    helm = Helm(profile_of(stick))
    helm.key("ShiftLeft", down=True)
    helm.stick("pad.left_stick", *raw)
    intent = helm.tick(1 / 60)
    assert (intent.local.right, intent.local.forward) == pytest.approx(expected, abs=1e-9)
    assert intent.amount == pytest.approx(math.hypot(*expected), abs=1e-9)
