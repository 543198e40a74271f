"""The feel sheet: a profile's feel in milliseconds, metres, degrees and ratios, measured by probes."""

from collections.abc import Collection, Iterator, Mapping

from wendonic.batch import Engine
from wendonic.errors import WendonicError, none_such
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.profile.units import metre_name, spelled_in
from wendonic.significant import significant, without_rounding
from wendonic.study.bench import Bench
from wendonic.study.in_columns import in_columns
from wendonic.study.probes.walker import entries_of
from wendonic.study.quantities import QUANTITIES
from wendonic.study.quantity import Value
from wendonic.study.seated import seated, seated_device
from wendonic.study.thresholds import THRESHOLDS, Thresholds
from wendonic.study.unmeasured import NotHere, Unmeasured, once_each


class FeelSheet(Mapping[str, Value]):
    """The measured quantities by name, in their order.

    One without a value is None, and `reasons` says why: `NotHere` if the mode does not have it, `Unmeasured` if it
    could not be measured. Times count from the raw change. A quantity can be read as an item or as an attribute. `by`
    is the device that it was measured with, `held` the press that was held, `thresholds` the numbers that its
    definitions depend on.

    >>> sheet = FeelSheet({"reach90_s": 0.14})
    >>> sheet["reach90_s"], sheet.reach90_s, sheet.stop_time_s, len(sheet) == len(QUANTITIES)
    (0.14, 0.14, None, True)
    >>> print(FeelSheet({"reach90_s": 0.14, "dead_share": 0.0196}))
    reach90_s     0.14 s
    dead_share  0.0196
    """

    __slots__ = ("_values", "by", "held", "reasons", "thresholds")

    def __init__(
        self,
        values: Mapping[str, Value],
        reasons: Mapping[str, Unmeasured] | None = None,
        by: str | None = None,
        held: str | None = None,
        thresholds: Thresholds = THRESHOLDS,
    ) -> None:
        """Take the measured values, and the reasons for the missing ones."""
        self._values = {name: values.get(name) for name in QUANTITIES}
        self.reasons = dict(reasons or {})
        self.by = by
        self.held = held
        self.thresholds = thresholds

    def requested(self, name: str) -> bool:
        """Return whether a quantity was requested.

        >>> FeelSheet({"reach90_s": 0.14}).requested("stop_time_s")
        False
        """
        return self._values[name] is not None or name in self.reasons

    def missing(self) -> dict[Unmeasured, list[str]]:
        """Return the quantities without a value, grouped by reason: first those that could not be measured.

        >>> from wendonic.demo import demo_profile
        >>> {str(why): names for why, names in measure(demo_profile(), only=["climb_m_s"]).missing().items()}
        {'nothing flies': ['climb_m_s']}
        """
        by_words: dict[str, tuple[Unmeasured, list[str]]] = {}
        for name, reason in self.reasons.items():
            by_words.setdefault(str(reason), (reason, []))[1].append(name)
        order = sorted(by_words.values(), key=lambda pair: isinstance(pair[0], NotHere))
        return dict(order)

    def __getitem__(self, name: str) -> Value:
        """Return the value of a quantity."""
        return self._values[name]

    def __getattr__(self, name: str) -> Value:
        """Return the value of a quantity."""
        if name in QUANTITIES:
            return self._values[name]
        raise AttributeError(none_such("quantity of the feel sheet", name, QUANTITIES))

    def __iter__(self) -> Iterator[str]:
        """Iterate over the names of the quantities."""
        return iter(self._values)

    def __len__(self) -> int:
        """Return how many quantities there are."""
        return len(self._values)

    def __repr__(self) -> str:
        """Show what was measured."""
        known = {name: value for name, value in self._values.items() if value is not None}
        return f"FeelSheet({known})"

    def __str__(self) -> str:
        """List what was measured, with units: lengths in metres."""
        known = {name: value for name, value in self._values.items() if value is not None}
        rows = [(name, value_words(value), QUANTITIES[name].unit) for name, value in known.items()]
        return in_columns(rows) if rows else "nothing was measured"


def value_words(value: Value, factor: float = 1.0) -> str:
    """Return a value of the sheet as text: four digits, or a dash if there is none. `factor` is that of the unit in
    which it is shown, see `LengthUnit.factor`.

    >>> value_words(0.123456), value_words(-3e-17), value_words(44), value_words(None)
    ('0.1235', '0', '44', '-')
    """
    if value is None or isinstance(value, int):
        return "-" if value is None else str(value)
    # Zero is written without a sign.
    return significant(round(value, 9) * factor, 4)


def known_quantity(name: str, length: LengthUnit = METRES) -> tuple[str, float]:
    """Return a quantity by its name, or by its name in the game's own unit, and the factor that converts such a value
    to metres; raises `WendonicError` for an unknown one.

    >>> known_quantity("stop_distance_u", LengthUnit("px", 50.0)), known_quantity("stop_time_s")
    (('stop_distance_m', 0.02), ('stop_time_s', 1.0))
    """
    own = metre_name(name) if length != METRES else name
    if own not in QUANTITIES:
        raise WendonicError(
            none_such("quantity of the feel sheet", name, [spelled_in(length, known) for known in QUANTITIES])
        )
    return own, 1.0 if own == name else 1.0 / length.per_m


def measure(
    profile: Profile,
    mode: str | None = None,
    engine: Engine = "auto",
    only: Collection[str] | None = None,
    by: str | None = None,
    held: str | None = None,
    thresholds: Thresholds = THRESHOLDS,
    seat: str | None = None,
) -> FeelSheet:
    """Return the feel sheet of a mode, the first one by default.

    `engine` is that of `wendonic.shape`. With `only`, just these quantities are measured, and the others are None.
    `by` names the device to measure with: `keys`, `pad.left_stick`, `pad`, `touch_zones`; by default the one with the
    most directions, keys first. `held` is a press that is held throughout, such as a sprint. With a `seat`, one of
    the profile's or a pad such as "pad1", only that player's controls are used, see `seated`. Raises `WendonicError`
    for a mode, a quantity or a seat that does not exist, and a device or a press that the mode does not have.

    >>> from wendonic.demo import demo_profile
    >>> sheet = measure(demo_profile())
    >>> round(sheet.stop_distance_m, 3), round(sheet.mouse_deg_per_10cm, 3), str(sheet.reasons["turn_circle_m"])
    (0.171, 105.882, 'nothing drives in circles')
    >>> harvest = demo_profile("harvest")
    >>> walk, run = (measure(harvest, held=held, only=["top_speed_m_s"]) for held in (None, "sprint"))
    >>> round(walk.top_speed_m_s, 6), round(run.top_speed_m_s, 6)
    (3.2, 5.6)
    """
    only = (only,) if isinstance(only, str) else only
    for name in only or ():
        if name not in QUANTITIES:
            raise WendonicError(none_such("quantity of the feel sheet", name, QUANTITIES))
    in_mode = known_profile(profile).mode_name(mode)
    own = seated(profile, seat) if seat else profile
    device = seated_device(profile, seat, by)
    return sheet_of(Bench(own, in_mode, engine, device, held, thresholds), only)


def sheet_of(bench: Bench, only: Collection[str] | None = None) -> FeelSheet:
    """Return the feel sheet of a mode that is on the bench already."""
    values: dict[str, Value] = {}
    reasons: dict[str, Unmeasured] = {}
    for name in QUANTITIES:
        if only is not None and name not in only:
            continue
        try:
            values[name] = _value(bench, name)
        except Unmeasured as reason:
            reasons[name] = reason
            continue
        if values[name] is None:
            reasons[name] = Unmeasured("that is never reached")
    return FeelSheet(values, reasons, _measured_by(bench), bench.held, bench.thresholds)


@once_each
def _value(bench: Bench, name: str) -> Value:
    """Return a quantity in its own unit as a Python number; a remainder of rounding is 0."""
    value = QUANTITIES[name].measure(bench)
    return value if value is None or isinstance(value, int) else without_rounding(value)


def _measured_by(bench: Bench) -> str | None:
    try:
        return bench.any_walker.name
    except Unmeasured:
        swings = any(bind.called() == "hands" for _, bind in entries_of(bench.table))
        return bench.by or ("hands" if swings else None)
