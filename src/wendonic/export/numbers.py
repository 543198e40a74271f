"""The numbers of a profile that a tick reads: their names, their units, and their places in the file.

The origin of a number is found by trying: each field of the profile is changed a little, and the numbers that change
depend on it.
"""

import math
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from wendonic.compiler.layout import Path, flat, paths_of
from wendonic.errors import WendonicError
from wendonic.export.naming import PathNames, unique
from wendonic.export.program import Number
from wendonic.profile.schema.field_words import UNITS
from wendonic.profile.schema.profile import Profile
from wendonic.profile.tuning import mode_tuning
from wendonic.profile.units import in_metres, unit_name, units_per_m

NUDGES = (1.0009765625, 0.9990234375)
"""Factors by which a field is changed: upwards, or downwards if that is not allowed."""

RADIANS = ("turn_rate", "margin", "pitch_low", "pitch_high", "full_turn_rate", "fast_turn_rate", "sector_margin")
"""Endings of the names of angles and turn rates, which kernels have in radians."""


def number_fields(content: Any, path: str = "") -> Iterator[tuple[str, float]]:
    """Yield every number of a profile's content with its field path."""
    if isinstance(content, bool):
        return
    if isinstance(content, int | float):
        yield path, float(content)
    elif isinstance(content, Mapping):
        for name, value in content.items():
            yield from number_fields(value, f"{path}.{name}" if path else str(name))
    elif isinstance(content, list | tuple):
        for index, value in enumerate(content):
            yield from number_fields(value, f"{path}[{index}]")


def numbers_of(
    profile: Profile, mode: str, read: Sequence[tuple[str, Path]], names: PathNames, on_course: bool, taken: set[str]
) -> list[Number]:
    """Return the numbers that a tick function reads, in its order."""
    tuning = mode_tuning(profile, mode, on_course).tick
    by_path = dict(zip(paths_of(tuning), flat(tuning), strict=True))
    values = [float(by_path[path]) for _, path in read]
    sources: list[list[tuple[str, str]]] = [[] for _ in read]
    content = profile.file_content()
    for fields in (_written(content, mode), _left_out(profile, content, mode)):
        open_indices = [index for index, found in enumerate(sources) if not found]
        if not open_indices:
            break
        for field, value, nudged, share in _nudged(content, fields, mode, on_course, by_path.keys()):
            for index in open_indices:
                new = nudged[read[index][1]]
                if new != values[index]:
                    sources[index].append((field, _law(values[index], new, value, share)))
    made: list[Number] = []
    for index, (_, path) in enumerate(read):
        name = unique(_with_unit(names.of_tuning(path), path), taken)
        found = sources[index]
        law = found[0][1] if len(found) == 1 else ""
        paths = tuple(field for field, _ in found)
        made.append(Number(name, values[index], unit_of(path), paths, law))
    return made


def _written(content: Mapping[str, Any], mode: str) -> list[tuple[str, float]]:
    """Return the number fields of a file's content that may affect a mode."""
    mentioned = {key: value for key, value in content.items() if key not in ("format", "version", "world", "mode")}
    return [*number_fields(mentioned), *number_fields(content["mode"][mode], f"mode.{mode}")]


def _left_out(profile: Profile, content: Mapping[str, Any], mode: str) -> list[tuple[str, float]]:
    """Return the number fields that may affect a mode but have their defaults, spelled as in the file."""
    there = {field for field, _ in number_fields(in_metres(content))}
    whole = profile.model_dump(include={"max_dt_s"}, exclude_none=True)
    whole["gait"] = {name: gait.model_dump(exclude_none=True) for name, gait in profile.gaits_of(mode).items()}
    whole["mode"] = {mode: profile.mode[mode].model_dump(exclude_none=True)}
    units = units_per_m(content)
    left_out = [(field, value) for field, value in number_fields(whole) if field not in there]
    if units == 1.0:
        return left_out
    return [(unit_name(field), value * units if unit_name(field) != field else value) for field, value in left_out]


def _nudged(
    content: Mapping[str, Any], fields: Sequence[tuple[str, float]], mode: str, on_course: bool, paths: Any
) -> Iterator[tuple[str, float, dict[Path, float], float]]:
    """Yield each of the fields, its value, and every number of the mode's tuning after a small change of it."""
    for field, value in fields:
        if field.startswith(("joystick", "seat", "budget")):
            continue
        for share in NUDGES:
            try:
                changed = Profile.from_content(content, {field: value * share if value else share - 1.0})
                tuning = mode_tuning(changed, mode, on_course).tick
            except (WendonicError, ValueError):
                continue
            if paths_of(tuning) == list(paths):
                yield field, value, dict(zip(paths, map(float, flat(tuning)), strict=True)), share
                break


def _law(value: float, new: float, field: float, share: float) -> str:
    """Return how a number follows from a field: equal, a multiple, or an inverse; "" for anything else."""
    if field == 0.0 or value == 0.0:
        return ""
    if math.isclose(new, value * share, rel_tol=1e-9):
        if math.isclose(value / field, math.pi / 180.0, rel_tol=1e-12):
            return "it in radians"
        return "" if value == field else f"{_plain(value / field)} times it"
    if math.isclose(new, value / share, rel_tol=1e-9):
        return f"{_plain(value * field)} divided by it"
    return "made from it"


def _plain(value: float) -> str:
    return f"{value:.12g}"


def unit_of(path: Path) -> str:
    """Return the unit of a number of a tuning.

    >>> unit_of(("gaits", "0", "accel_m_s2")), unit_of(("frame", "turn_rate")), unit_of(("look", "pitch_low"))
    ('m/s²', 'rad/s', 'rad')
    """
    last = path[-1]
    if last in RADIANS or last in ("yaw", "pitch"):
        if last in ("yaw", "pitch"):
            return "rad for each unit of input, or rad/s at full tilt"
        return "rad/s" if last.endswith("rate") else "rad"
    return next((unit for end, unit in UNITS.items() if last.endswith(end)), "")


def _with_unit(name: str, path: Path) -> str:
    """Return the name of a constant with its unit at the end, if it has none yet."""
    if path[-1] in RADIANS:
        return f"{name}_RAD_S" if path[-1].endswith("rate") else f"{name}_RAD"
    return name
