"""How far the sources of `look` turn the view: a stick by its tilt, a mouse by a swipe, a key by a press."""

from collections.abc import Callable

from wendonic.kernels.look.displacement import DISPLACEMENT_AT_REST, displacement_output, hand_gain
from wendonic.kernels.look.stick import STICK_LOOK, STICK_LOOK_AT_REST, key_rates
from wendonic.look_units import CM_PER_INCH
from wendonic.profile.schema.look_binds import LookKeysBind, LookStickBind, MouseBind, TouchDragBind
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.study.stick_response import StickResponse
from wendonic.study.thresholds import THRESHOLDS

INSTANT_S = 1e-9
"""Duration (s) of a swipe that measures smoothing alone."""

USUAL_HAND_CM_S = THRESHOLDS.hand_cm_s
"""Speed of a hand that turns the view without hurry."""


def turn_rate_deg_s(bind: LookStickBind, tilts: list[float], boosted: bool = False) -> list[float]:
    """Return how fast a stick turns the view (deg/s) once it has eased in: tilted to the right, or up if it only
    turns up and down.

    `boosted` adds the rim boost, which comes after `hold_s` at full tilt.

    >>> from wendonic.demo import demo_profile
    >>> stick = demo_profile().mode["foot"].look.bind[1]
    >>> [round(rate) for rate in turn_rate_deg_s(stick, [0.1, 0.5, 1.0])]
    [0, 58, 230]
    """
    stick = StickResponse(bind)
    most = 1.0 + bind.rim_boost if boosted else 1.0
    full = stick.tuning.curve.ceiling - 1e-9
    if bind.sideways:
        rate_deg_s, shaped = bind.yaw_deg_s, [stick.at(*stick.held(tilt, 90.0))[0] for tilt in tilts]
    else:
        rate_deg_s, shaped = bind.pitch_deg_s, [stick.at(*stick.held(tilt, 0.0))[1] for tilt in tilts]
    return [amount * rate_deg_s * (most if amount >= full else 1.0) for amount in shaped]


def swipe_deg(bind: MouseBind, swipes_cm: list[float], hand_cm_s: float) -> list[float]:
    """Return how far swipes of a mouse turn (deg), at one speed of the hand: to the right, or up if it only turns up
    and down.

    >>> from wendonic.demo import demo_profile
    >>> mouse = demo_profile().mode["foot"].look.bind[0]
    >>> [round(turn, 6) for turn in swipe_deg(mouse, [17.0, 34.0], hand_cm_s=20.0)]
    [180.0, 360.0]
    """
    deg_per_cm = bind.count_deg * bind.dpi / CM_PER_INCH
    gain = hand_gain(bind.displacement_tuning(), hand_cm_s) * (1.0 if bind.sideways else bind.pitch_ratio)
    return [swipe_cm * deg_per_cm * gain for swipe_cm in swipes_cm]


def press_deg(bind: LookKeysBind, presses_s: list[float]) -> list[float]:
    """Return how far a key for right turns (deg) if it is held for some time, or a key for up if the keys only turn
    up and down.

    >>> from wendonic.demo import demo_profile
    >>> keys = demo_profile("lookout").mode["foot"].look.bind[3]
    >>> [round(turn, 6) for turn in press_deg(keys, [0.1, 0.2, 0.5])]
    [3.25, 13.0, 52.0]
    """
    tuning = STICK_LOOK._replace(eases=int(bind.ease_s > 0.0), ease_s=bind.ease_s)
    means = [
        key_rates(tuning, STICK_LOOK_AT_REST, 1.0, 0.0, held_s)[1].right if held_s else 0.0 for held_s in presses_s
    ]
    rate_deg_s = bind.yaw_deg_s if bind.sideways else bind.pitch_deg_s
    return [mean * held_s * rate_deg_s for mean, held_s in zip(means, presses_s, strict=True)]


def swipe_delay_s(bind: MouseBind | TouchDragBind, share: float) -> float:
    """Return how long (s) after an instant swipe that share of its turn has been made.

    >>> from wendonic.demo import demo_profile
    >>> mouse = demo_profile().mode["foot"].look.bind[0].model_copy(update={"half_life_s": 0.05})
    >>> round(swipe_delay_s(mouse, 0.5), 6), round(swipe_delay_s(mouse, 0.75), 6)
    (0.05, 0.1)
    """
    tuning = bind.kind_tuning(NumberRows(), ()).displacement
    owed, at_once = displacement_output(tuning, DISPLACEMENT_AT_REST, 1.0, 0.0, 1.0, INSTANT_S)
    wanted = share * (at_once.yaw + owed.owed_yaw)

    def left(dt: float) -> float:
        return wanted - at_once.yaw - displacement_output(tuning, owed, 0.0, 0.0, 0.0, dt)[1].yaw

    return _when_zero_s(left)


def ease_reached_s(bind: LookStickBind | LookKeysBind, share: float) -> float:
    """Return how long (s) after a full tilt or press the turn rate is that share of its full rate, without the boost
    at the rim.

    >>> from wendonic.demo import demo_profile
    >>> _, _, stick, keys, *_ = demo_profile("lookout").mode["foot"].look.bind
    >>> round(ease_reached_s(stick, 0.5), 6), round(ease_reached_s(keys, 0.9), 6)
    (0.06, 0.18)
    """
    full = StickResponse(bind).ahead(1.0) if isinstance(bind, LookStickBind) else 1.0
    if not bind.ease_s:
        return 0.0
    # A stick eases in like a key, but less far if its curve does not reach 1.
    tuning = STICK_LOOK._replace(eases=1, ease_s=bind.ease_s)
    return _when_zero_s(lambda dt: share * full - key_rates(tuning, STICK_LOOK_AT_REST, 1.0, 0.0, dt)[0].amount)


def _when_zero_s(left: Callable[[float], float]) -> float:
    """Return when (s) a falling number reaches 0; 0 if it starts there."""
    from scipy.optimize import brentq

    if left(INSTANT_S) <= 0.0:
        return 0.0
    end_s = 1.0
    while left(end_s) > 0.0:
        end_s *= 2.0
    return float(brentq(left, INSTANT_S, end_s, xtol=1e-9))
