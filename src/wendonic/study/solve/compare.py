"""Several profiles side by side: their feel sheets, their settings, and their traces of the same input."""

from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any, NamedTuple

import tomlkit

from wendonic.batch import Engine, shape
from wendonic.batch.window import ticks_between
from wendonic.course import Course
from wendonic.errors import WendonicError
from wendonic.length_unit import METRES, LengthUnit, common_unit
from wendonic.profile.edit_text import inlined
from wendonic.profile.flat_settings import flat_settings
from wendonic.profile.schema.profile import Profile, named_profiles
from wendonic.profile.units import path_spelled_in, spelled_in
from wendonic.recording.recording import Recording
from wendonic.significant import significant
from wendonic.study.feel_sheet import FeelSheet, measure, value_words
from wendonic.study.in_columns import in_columns
from wendonic.study.probes.by_name import PROBES, is_probe, probe_of
from wendonic.study.quantities import QUANTITIES
from wendonic.study.solve.differences import Difference, Walked, difference, walked

if TYPE_CHECKING:
    import pandas as pd

SAME_SHARE = 1e-3
"""Values that differ by less than this share of the larger one feel the same."""

SAME_FOR_ALL = 1e-4
"""So do values that differ by less than this: by 0.1 ms or 0.1 mm."""

USUAL_INPUT = "figure_of_eight"

COMPARED_HZ = 120.0
"""Ticks a second at which profiles are compared."""


class Setting(NamedTuple):
    """A setting that differs: its field path, and its value in each profile, None where one has no such field."""

    path: str
    values: tuple[Any, ...]


class Comparison(NamedTuple):
    """Profiles by name, in the order given: their sheets, the settings that differ, and traces of each input.

    >>> from wendonic.demo import demo_profile
    >>> now = demo_profile()
    >>> found = compare({"now": now, "heavy": now.changed({"gait.walk.accel_m_s2": 9})}, {})
    >>> print(found)
                             now   heavy
    reach90_s             0.1309    0.32 s
    reversal_s            0.2376  0.4267 s
    tap_distance_m        0.1907  0.0585 m
    gait.walk.accel_m_s2      22       9
    >>> found.differs("stop_time_s"), found.quantity_words("reach90_s"), found.setting_words(found.settings[0])
    (False, ('reach90_s', '0.1309', '0.32', 's'), ('gait.walk.accel_m_s2', '22', '9'))
    """

    names: tuple[str, ...]
    sheets: tuple[FeelSheet, ...]
    settings: tuple[Setting, ...]
    traces: "dict[str, tuple[pd.DataFrame, ...]]"
    length: LengthUnit = METRES
    """The common unit of all profiles, metres if they differ."""
    from_side: bool = False
    """Whether all of them are a side view."""

    def differs(self, quantity: str) -> bool:
        """Return whether a quantity is not the same for all profiles."""
        return not all_same([getattr(sheet, quantity) for sheet in self.sheets])

    def __str__(self) -> str:
        """List what differs, in the common unit of all profiles: quantities of the feel sheets, then settings."""
        rows = [self.quantity_words(quantity) for quantity in QUANTITIES if self.differs(quantity)]
        rows += [(*self.setting_words(setting), "") for setting in self.settings]
        return in_columns([("", *self.names, ""), *rows]) if rows else "no differences"

    def quantity_words(self, quantity: str) -> tuple[str, ...]:
        """Return a quantity's name, its value for each profile, and its unit, in words."""
        unit = QUANTITIES[quantity].unit
        values = [value_words(sheet[quantity], self.length.factor(unit)) for sheet in self.sheets]
        return spelled_in(self.length, quantity), *values, self.length.label(unit)

    def setting_words(self, setting: Setting) -> tuple[str, ...]:
        """Return a setting's path and its value in each profile, in words."""
        path = path_spelled_in(self.length, setting.path)
        factor = 1.0 if path == setting.path else self.length.per_m
        return path, *(_value_words(value, factor) for value in setting.values)


def _value_words(value: object, factor: float) -> str:
    if isinstance(value, tuple):
        return ", ".join(_value_words(part, factor) for part in value) or "none"
    if isinstance(value, float):
        # As written, so that different values look different; a conversion has digits that nobody wrote.
        return significant(value * factor, 15 if factor == 1.0 else 6)
    if isinstance(value, bool | dict):
        written = value if isinstance(value, bool) else {key: one for key, one in value.items() if one is not None}
        return str(tomlkit.item(inlined(written)).as_string())
    return "-" if value is None else str(value)


def all_same(values: Sequence[float | None]) -> bool:
    """Return whether no difference could be felt.

    >>> all_same([1.0, 1.0005]), all_same([1.0, None]), all_same([0.0, 1e-5])
    (True, False, True)
    """
    known = [value for value in values if value is not None]
    if len(known) < len(values):
        return not known
    most = max(abs(value) for value in known)
    return max(known) - min(known) <= max(SAME_SHARE * most, SAME_FOR_ALL)


def names_of(paths: Sequence[Path]) -> tuple[str, ...]:
    """Return short names for files: the last part of the path, with as many folders as needed to distinguish them,
    and with the file ending only if it does. The same file may come twice.

    >>> names_of([Path("play/old/foot.toml"), Path("play/new/foot.toml")]), names_of([Path("a.csv"), Path("a.jsonl")])
    (('old/foot', 'new/foot'), ('a.csv', 'a.jsonl'))
    >>> names_of([Path("play/old/foot.toml"), Path("play/old/foot.toml")])
    ('foot', 'foot (2)')
    """
    names = [str(path) for path in paths]
    for parts in range(1, max((len(path.parts) for path in paths), default=0) + 1):
        ends = [path.parts[-parts:] for path in paths]
        short = ["/".join([*end[:-1], path.stem]) for end, path in zip(ends, paths, strict=True)]
        found = [each for each in (short, list(map("/".join, ends))) if len(set(each)) == len(set(paths))]
        if found:
            names = found[0]
            break
    counts = [names[:index].count(name) for index, name in enumerate(names)]
    return tuple(f"{name} ({count + 1})" if count else name for name, count in zip(names, counts, strict=True))


HAS_IT = "has it"


def settings_that_differ(profiles: Sequence[Profile]) -> tuple[Setting, ...]:
    """Return the settings that are not the same in all profiles, defaults included, in the order of the first file. A
    mode or a gait that one of them lacks is one setting, with the profiles that have it.

    >>> from wendonic.demo import demo_profile
    >>> ours = demo_profile()
    >>> theirs = ours.model_copy(update={"max_dt_s": 0.2})
    >>> settings_that_differ([ours, theirs])
    (Setting(path='max_dt_s', values=(0.1, 0.2)),)
    """
    contents = [profile.model_dump() for profile in profiles]
    for profile, content in zip(profiles, contents, strict=True):
        content["gait"] = {name: gait.model_dump() for name, gait in profile.every_gait.items()}
    for group in ("mode", "gait"):
        names = dict.fromkeys(name for content in contents for name in content[group])
        for name in [name for name in names if not all(name in content[group] for content in contents)]:
            for content in contents:
                if content[group].pop(name, None) is not None:
                    content[f"{group}.{name}"] = HAS_IT
    flat = [flat_settings(content) for content in contents]
    paths = dict.fromkeys(path for fields in flat for path in fields if path != "title")
    found = (Setting(path, tuple(fields.get(path) for fields in flat)) for path in paths)
    return tuple(setting for setting in found if any(value != setting.values[0] for value in setting.values))


def inputs_named(names: Sequence[str]) -> dict[str, Recording | None]:
    """Return recordings by name: files are read; a probe is None, since each profile plays it with its own controls.

    Raises `RecordingError` for a file that cannot be read; if there is no such file, it lists the probes.
    """
    short = names_of([Path(name) for name in names])
    inputs: dict[str, Recording | None] = {}
    for name, called in zip(names, short, strict=True):
        if is_probe(name):
            inputs[name] = None
        elif not Path(name).suffix and not Path(name).exists():
            raise WendonicError(f"{name} is neither a recording nor a probe; probes: {', '.join(PROBES)}")
        else:
            inputs[called] = Recording.read(name)
    return inputs


def usual_inputs(profiles: Mapping[str, Profile], mode: str | None = None) -> dict[str, Recording | None]:
    """Return the default input of a comparison: the figure of eight, or nothing if one of the profiles does not walk,
    drive or fly by itself.

    >>> from wendonic.demo import demo_profile
    >>> both = {"foot": demo_profile(), "cart": demo_profile("cart")}
    >>> usual_inputs(both), usual_inputs({**both, "log": demo_profile("lookout").changed({"mode.foot.move": None})})
    ({'figure_of_eight': None}, {})
    """
    try:
        for profile in profiles.values():
            probe_of(profile, USUAL_INPUT, mode)
    except WendonicError:
        return {}
    return {USUAL_INPUT: None}


class OnInput(NamedTuple):
    """The numbers of each profile on an input, and the difference of each from the first one, which has none."""

    walks: tuple[Walked, ...]
    differences: tuple[Difference | None, ...]


def numbers_on(
    profiles: Mapping[str, Profile], traces: "Mapping[str, tuple[pd.DataFrame, ...]]"
) -> dict[str, OnInput]:
    """Return numbers about each input from what `traces_of` returned.

    >>> from wendonic.demo import demo_profile
    >>> ours = demo_profile()
    >>> both = {"ours": ours, "faster": ours.changed({"gait.walk.top_speed_m_s": 4.0})}
    >>> found = numbers_on(both, traces_of(both, {"tap": None}, engine="interpreted"))["tap"]
    >>> found.differences[0] is None, found.differences[1].most_apart_m < 0.1
    (True, True)
    """
    every = list(profiles.values())
    found: dict[str, OnInput] = {}
    for name, of_input in traces.items():
        walks = tuple(walked(trace, profile.press_names) for profile, trace in zip(every, of_input, strict=True))
        others = (difference(of_input[0], trace, every[0].press_names) for trace in of_input[1:])
        found[name] = OnInput(walks, (None, *others))
    return found


def traces_of(
    profiles: Mapping[str, Profile],
    inputs: Mapping[str, Recording | None],
    mode: str | None = None,
    hz: float = COMPARED_HZ,
    engine: Engine = "auto",
    seat: str | None = None,
    course: Course | None = None,
    start_s: float | None = None,
    end_s: float | None = None,
) -> "dict[str, tuple[pd.DataFrame, ...]]":
    """Return the traces of each input under each profile, by the input's name, from `start_s` to `end_s`.

    Inputs are recordings by name; a name of a probe with None is that probe, made for each profile's own controls.
    Raises `WendonicError` for a mode or a probe that one of them does not have.
    """
    return {
        name: tuple(
            ticks_between(
                shape(
                    recording or probe_of(profile, name, mode, seat),
                    profile,
                    hz=hz,
                    mode=mode,
                    seat=seat,
                    course=course,
                    engine=engine,
                ),
                start_s,
                end_s,
            )
            for profile in profiles.values()
        )
        for name, recording in inputs.items()
    }


def compare(
    profiles: Mapping[str, Profile],
    inputs: Mapping[str, Recording | None] | None = None,
    mode: str | None = None,
    hz: float = COMPARED_HZ,
    engine: Engine = "auto",
    by: str | None = None,
    held: str | None = None,
    seat: str | None = None,
) -> Comparison:
    """Return a comparison of profiles, each in its first mode or in the given one.

    `inputs` are as in `traces_of`; without any, the figure of eight is used where all of them move. `by`, `held`
    and `seat` are as in `measure`.
    Raises `WendonicError` for fewer than two profiles, and for a mode or a probe that one of them does not have.

    >>> from wendonic.demo import demo_profile
    >>> both = compare({"foot": demo_profile(), "cart": demo_profile("cart")})
    >>> both.differs("reach90_s"), both.differs("jump_height_m"), list(both.traces)
    (True, False, ['figure_of_eight'])
    """
    if len(named_profiles(profiles)) < 2:
        raise WendonicError(f"found {len(profiles)} profile; allowed: two or more to compare")
    sheets = tuple(measure(profile, mode, engine, by=by, held=held, seat=seat) for profile in profiles.values())
    inputs = usual_inputs(profiles, mode) if inputs is None else inputs
    traces = traces_of(profiles, inputs, mode, hz, engine, seat)
    length = common_unit([profile.world.length for profile in profiles.values()])
    from_side = all(profile.mode[profile.mode_name(mode)].steer.seen_from_side for profile in profiles.values())
    settings = settings_that_differ(list(profiles.values()))
    return Comparison(tuple(profiles), sheets, settings, traces, length, from_side)
