"""Formulas of the settings, in the names and units of a profile."""

from typing import NamedTuple


class Formula(NamedTuple):
    """One formula: its step of the tick, its purpose, its result, and the expression, in Python's notation with the
    functions of `math`. Its names are fields of a profile and those that `given` explains; `source` is its paper. It
    is found by each of `names`.
    """

    step: str
    of: str
    gives: str
    expression: str
    names: tuple[str, ...]
    given: str = ""
    source: str = ""

    @property
    def says(self) -> str:
        """The formula in one line.

        >>> formulas_of("expo")[0].says
        'amount = (1 - a) * u + a * u**3, where a = amount of the curve, u = tilt past the dead zone, 0..1'
        """
        given = f", where {self.given}" if self.given else ""
        source = f" ({self.source})" if self.source else ""
        return f"{self.gives} = {self.expression}{given}{source}"


_TILT = "tilt = length of the stick's position on the unit disc"
_ALONG = "x, y = position right and forward on the unit disc"
_PAST = "u = tilt past the dead zone, 0..1"
_DT = "dt = length of a tick (s)"

FORMULAS: tuple[Formula, ...] = (
    Formula(
        "Centre and gate",
        "centre",
        "position",
        "(x - centre[0], -(y - centre[1]))",
        ("centre",),
        "x, y = raw values, y towards the player",
    ),
    Formula(
        "Centre and gate",
        'gate = "square"',
        "length on the unit disc",
        "max(abs(x), abs(y))",
        ("gate", "square"),
        "x, y = position right and forward",
    ),
    Formula(
        "Centre and gate",
        'gate = "measured"',
        "length on the unit disc",
        "length / rim",
        ("gate", "measured", "rim"),
        "rim = how far the stick reaches in that direction, in a straight line between two entries",
    ),
    Formula(
        "Dead zone",
        'dead_zone.form = "round"',
        "u",
        "min(max((tilt - inner) / (outer - inner), 0), 1)",
        ("dead_zone", "round", "inner", "outer"),
        _TILT,
    ),
    Formula(
        "Dead zone",
        'dead_zone.form = "axes"',
        "along each axis",
        "copysign(min(max((abs(x) - inner) / (outer - inner), 0), 1), x)",
        ("axes",),
        _ALONG,
    ),
    Formula(
        "Dead zone",
        'dead_zone.form = "wedge"',
        "direction",
        "(copysign(max(abs(x) - inner * abs(y), 0), x), copysign(max(abs(y) - inner * abs(x), 0), y))",
        ("wedge", "round+wedge"),
        f"{_ALONG}; the length stays min(tilt / outer, 1), or that of round under round+wedge",
    ),
    Formula("Dead zone", 'dead_zone.form = "cut"', "u", "min(tilt, 1) if tilt > inner else 0", ("cut",), _TILT),
    Formula("Dead zone", "release, left out", "release", "0.9 * inner", ("release",)),
    Formula("Curve", 'curve.form = "linear"', "amount", "u", ("linear",), _PAST),
    Formula("Curve", 'curve.form = "power"', "amount", "u**exponent", ("power", "exponent"), _PAST),
    Formula(
        "Curve",
        'curve.form = "expo"',
        "amount",
        "(1 - a) * u + a * u**3",
        ("expo",),
        f"a = amount of the curve, {_PAST}",
    ),
    Formula(
        "Curve",
        'curve.form = "s"',
        "amount",
        "(1 - a) * u + a * (3 * u**2 - 2 * u**3)",
        ("s",),
        f"a = amount of the curve, {_PAST}",
    ),
    Formula(
        "Curve",
        'curve.form = "knee"',
        "amount",
        "u * at[1] / at[0] if u < at[0] else at[1] + (u - at[0]) * (1 - at[1]) / (1 - at[0])",
        ("knee", "at"),
        _PAST,
    ),
    Formula(
        "Curve",
        'curve.form = "points"',
        "amount",
        "pchip(points, u)",
        ("points",),
        f"pchip = the monotone cubic through the points, as SciPy's PchipInterpolator; {_PAST}",
        "Fritsch and Butland 1984",
    ),
    Formula(
        "Curve",
        "floor and ceiling",
        "amount",
        "floor + (ceiling - floor) * f",
        ("floor", "ceiling"),
        "f = what the form of the curve gives for a tilt past the dead zone",
    ),
    Formula(
        "Keys",
        "rise_s",
        "input",
        "min(held_s / rise_s, 1)",
        ("rise_s",),
        "held_s = time since the press, from rest",
    ),
    Formula(
        "Keys",
        "fall_s",
        "input",
        "max(1 - released_s / fall_s, 0)",
        ("fall_s",),
        "released_s = time since the release, from full input",
    ),
    Formula(
        "Hands",
        "both_boost",
        "amount",
        "(max(left, right) + (both_boost - 1) * min(left, right)) / both_boost",
        ("both_boost", "hands", "full_swing_m_s"),
        "left, right = speed of each hand / full_swing_m_s, at most 1, through dead zone and curve",
    ),
    Formula(
        "Diagonals",
        'diagonal = "cap"',
        "factor of both axes",
        "1 / max(hypot(x, y), 1)",
        ("diagonal", "cap"),
        "x, y = input right and forward",
    ),
    Formula(
        "Diagonals",
        'diagonal = "unit"',
        "factor of both axes",
        "1 / hypot(x, y)",
        ("unit",),
        "x, y = input right and forward, not both 0",
    ),
    Formula(
        "Diagonals",
        'diagonal = "factor"',
        "factor of both axes",
        "1 - (1 - diagonal_factor) * min(abs(x), abs(y)) / max(abs(x), abs(y))",
        ("factor", "diagonal_factor"),
        "x, y = input right and forward, not both 0",
    ),
    Formula(
        "Notches",
        "notches and notch_pull",
        "angle from the nearest of the notches (deg)",
        "copysign(max(abs(off) - notch_pull * w, 0) / (1 - notch_pull), off)",
        ("notches", "notch_pull"),
        "off = that angle before, w = 180 / notches; 0 where notch_pull is 1",
    ),
    Formula(
        "Smoothing",
        "half_life_s",
        "value",
        "wanted + (was - wanted) * 2 ** (-dt / half_life_s)",
        ("half_life_s", "half-life"),
        f"wanted = what is smoothed, was = the value a tick ago, {_DT}",
    ),
    Formula(
        "Smoothing",
        "one_euro",
        "value",
        "wanted + (was - wanted) * exp(-2 * pi * (min_cutoff_hz + beta * speed) * dt)",
        ("one_euro", "min_cutoff_hz", "beta", "d_cutoff_hz"),
        f"speed = how fast the input changes (1/s), behind a low-pass at d_cutoff_hz, its mean over the tick; {_DT}",
        "Casiez, Roussel, Vogel, CHI 2012",
    ),
    Formula(
        "Looking",
        "cm_per_turn and dpi",
        "turn for each count (deg)",
        "360 * 2.54 / (cm_per_turn * dpi)",
        ("cm_per_turn", "dpi", "deg_per_count", "mouse"),
    ),
    Formula(
        "Looking",
        "hand_gain",
        "gain",
        "slow + (fast - slow) * min(max((hand_cm_s - from_cm_s) / (to_cm_s - from_cm_s), 0), 1)",
        ("hand_gain", "from_cm_s", "to_cm_s"),
        "hand_cm_s = speed of the hand, its mean over the tick behind a half-life of 0.03 s",
    ),
    Formula(
        "Looking",
        "zoom",
        "factor of a turn",
        "tan(radians(zoom_fov_deg / 2)) / tan(radians(fov_deg / 2)) if match_at == 0 else "
        "atan(match_at * tan(radians(zoom_fov_deg / 2))) / atan(match_at * tan(radians(fov_deg / 2)))",
        ("zoom", "fov_deg", "zoom_fov_deg", "match_at"),
    ),
    Formula(
        "Looking",
        "ease_s",
        "share of the rate",
        "min(before + held_s / ease_s, amount)",
        ("ease_s",),
        "amount = what dead zone and curve give, held_s = for how long, before = share it began with, 0 from rest",
    ),
    Formula(
        "Looking",
        "rim_boost",
        "share of the rate",
        "1 + rim_boost * min(max((rim_s - hold_s) / ease_s, 0), 1)",
        ("rim_boost", "hold_s"),
        "rim_s = time at full tilt; at once after hold_s where ease_s is 0",
    ),
    Formula(
        "Looking",
        "steady_below_deg_s",
        "gain",
        "v * (2 - v)",
        ("steady_below_deg_s", "gyro"),
        "v = min(rate of the pad / steady_below_deg_s, 1)",
    ),
    Formula(
        "Facing",
        "turn_deg_s",
        "turn in a tick (deg)",
        "copysign(min(abs(off), turn_deg_s * dt), off)",
        ("turn_deg_s", "face"),
        f"off = angle to where the body should face, the shorter way; {_DT}",
    ),
    Formula(
        "Gait",
        "accel_m_s2",
        "speed (m/s)",
        "min(accel_m_s2 * t, top_speed_m_s)",
        ("accel_m_s2", "top_speed_m_s"),
        "t = time of full input, from rest (s)",
    ),
    Formula(
        "Gait",
        "brake_m_s2",
        "distance to a stop (m)",
        "v**2 / (2 * brake_m_s2)",
        ("brake_m_s2", "stopping distance"),
        "v = speed at the release (m/s); reverse_m_s2 in its place while the opposite direction is requested",
    ),
    Formula(
        "Gait",
        "coast_half_life_s",
        "speed (m/s)",
        "v * 2 ** (-t / coast_half_life_s)",
        ("coast_half_life_s",),
        "v = speed at the release (m/s), t = time since (s); below 0.02 m/s it stops",
    ),
    Formula(
        "Gait",
        "keeps_speed",
        "turn in a tick (deg)",
        "min(degrees(accel_m_s2 / v) * dt, off)",
        ("keeps_speed",),
        f"v = speed (m/s), which stays; off = angle to the request, at most 90 deg; {_DT}",
    ),
    Formula(
        "Gait",
        "thrust_m_s2 and drag_per_s",
        "speed (m/s)",
        "thrust_m_s2 / drag_per_s * (1 - exp(-drag_per_s * t))",
        ("thrust_m_s2", "drag_per_s"),
        "t = time of full input, from rest (s)",
    ),
    Formula(
        "Gait",
        "turn_loss",
        "share of speed that is left",
        "(1 - turn_loss) ** (turned_deg / 180)",
        ("turn_loss",),
        "turned_deg = angle between the old request and the new one; never below 0.001 straight back",
    ),
    Formula(
        "Slopes",
        "uphill_ratio",
        "share of speed",
        "1 - (1 - uphill_ratio) * min(max(tan(radians(climb_deg)) / tan(radians(steepest_deg)), 0), 1)",
        ("uphill_ratio", "steepest_deg"),
        "climb_deg = slope in the direction that is walked",
    ),
    Formula(
        "Jumps",
        "height_m",
        "speed at take-off (m/s)",
        "sqrt(2 * gravity_m_s2 * height_m)",
        ("jump", "height_m", "gravity_m_s2", "speed_m_s"),
    ),
    Formula(
        "Jumps",
        "apex_s",
        "(speed at take-off, gravity while rising)",
        "(2 * height_m / apex_s, 2 * height_m / apex_s**2)",
        ("apex_s",),
    ),
    Formula(
        "Jumps",
        "early_release_ratio",
        "height that is still gained (m)",
        "(early_release_ratio * v) ** 2 / (2 * gravity_m_s2)",
        ("early_release_ratio",),
        "v = upward speed at the release (m/s)",
    ),
    Formula(
        "Jumps",
        "fall",
        "speed downwards (m/s)",
        "min(gravity_ratio * gravity_m_s2 * t, top_speed_m_s)",
        ("fall", "gravity_ratio"),
        "t = time since the top of the jump (s), top_speed_m_s = that of fall",
    ),
    Formula(
        "Driving",
        "turn_deg_s of drive",
        "fastest turn (deg/s)",
        "min(turn_deg_s + (fast_turn_deg_s - turn_deg_s) * min(abs(v) / top_speed_m_s, 1), "
        "degrees(abs(v) / turn_radius_m))",
        ("drive", "fast_turn_deg_s", "turn_radius_m"),
        "v = speed (m/s); without the second limit where on_the_spot is true",
    ),
    Formula(
        "Driving",
        "grip",
        "speed sideways (m/s)",
        "v * (1 - grip) ** (t / 0.1)",
        ("grip",),
        "v = speed sideways before (m/s), t = time since (s)",
    ),
    Formula(
        "Flying",
        "rise of fly",
        "factor of all three axes",
        "1 / max(sqrt(x**2 + y**2 + z**2), 1)",
        ("fly", "rise", "rise_m_s", "level"),
        "x, y, z = input right, forward and up, under the cap; where forward climbs with the view, the whole is also "
        "no faster than the faster of top_speed_m_s and rise_m_s",
    ),
    Formula(
        "Walking to a place",
        "slow_down_m",
        "speed (m/s)",
        "min(top_speed_m_s, top_speed_m_s * distance_m / slow_down_m, sqrt(2 * brake_m_s2 * distance_m))",
        ("goto", "slow_down_m", "arrival_m"),
        "distance_m = distance to the goal; under coast_half_life_s or drag_per_s, the last of them is the speed "
        "that rolls out within distance_m",
    ),
    Formula(
        "Comfort",
        "vignette",
        "vignette (0 open, 1 closed)",
        "wanted + (was - wanted) * 2 ** (-dt / half_life_s)",
        ("vignette", "full_accel_m_s2", "full_turn_deg_s", "close_half_life_s", "open_half_life_s"),
        "wanted = max(acceleration / full_accel_m_s2, turn rate / full_turn_deg_s), at most 1; half_life_s = that of "
        f"closing or of opening; {_DT}",
    ),
)
"""All formulas, in the order of a tick."""


def formulas_of(name: str) -> tuple[Formula, ...]:
    """Return the formulas of a name: a field, or a value of a field.

    >>> [formula.of for formula in formulas_of("inner")]
    ['dead_zone.form = "round"']
    """
    return tuple(formula for formula in FORMULAS if name.rpartition(".")[2] in formula.names)
