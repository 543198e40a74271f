"""A calibration in words, and put into a profile."""

import math
from collections.abc import Iterator
from typing import Any, NamedTuple

import tomlkit

from wendonic.errors import WendonicError
from wendonic.profile.edit import file_content_of, value_at
from wendonic.profile.schema.look_binds import GyroBind, LookStickBind, MouseBind
from wendonic.profile.schema.move_binds import StickBind
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.study.calibration.calibrate import LEAST_INNER, Calibration, StickCalibration
from wendonic.study.calibration.estimate import Estimate
from wendonic.study.calibration.stick_returns import LEAST_RETURNS


def calibration_lines(found: Calibration) -> list[str]:
    """Return what was found, line by line, each number with its 95 % interval and what it rests on.

    >>> from wendonic.demo import demo_recording
    >>> from wendonic.study.calibration.calibrate import calibrate
    >>> print(calibration_lines(calibrate(demo_recording("beekeeper_pad")))[0])
    pad.left_stick
    """
    lines: list[str] = []
    for stick in found.sticks:
        lines += [stick.control, *(f"  {line}" for line in _stick_lines(stick))]
    if found.mouse is not None:
        lines.append("mouse.move")
        if found.mouse.dpi:
            lines.append(f"  dpi {_words(found.mouse.dpi, 1)} from {found.mouse.dpi.samples} swipes")
        lines += [f"  {words}" for words in found.mouse.missing]
    for gyro in found.gyros:
        lines.append(gyro.control)
        if gyro.bias_deg_s and gyro.noise_deg_s and gyro.still_deg_s:
            axes = ", ".join(f"{name} {_words(bias, 3)}" for name, bias in zip("xyz", gyro.bias_deg_s, strict=True))
            lines.append(f"  bias (deg/s): {axes}, {gyro.noise_deg_s.samples} samples")
            lines.append(f"  noise {_words(gyro.noise_deg_s, 3)} deg/s; still_deg_s = {gyro.still_deg_s:.2f}")
        lines += [f"  {words}" for words in gyro.missing]
    return lines


def _words(found: Estimate, digits: int) -> str:
    return f"{found.value:z.{digits}f} ({found.low:z.{digits}f} to {found.high:z.{digits}f})"


def _stick_lines(stick: StickCalibration) -> Iterator[str]:
    rest, rim = stick.rest, stick.rim
    if rest:
        hands_off = f"{int(rest.used.sum())} samples, {rest.seconds:.1f} s hands off"
        hands_off += f", {rest.left_out} readings left out" if rest.left_out else ""
        yield f"rests at x {_words(rest.x, 4)}, y {_words(rest.y, 4)}; {hands_off}"
        yield f"noise {_words(rest.noise, 4)} on each axis"
        if rest.returns.scatter:
            scatter = _words(rest.returns.scatter, 4)
            yield f"came to rest {rest.returns.times} times, in places that scatter by {scatter} on each axis"
        elif rest.returns.times >= LEAST_RETURNS:
            yield f"came to rest {rest.returns.times} times, in the same place each time"
        if rest.drift_per_min:
            yield f"drifts slowly: {_words(rest.drift_per_min, 4)} a minute, which is not in the noise"
        if stick.inner:
            yield f"inner {_words(stick.inner, 4)}; use {inner_to_write(stick.inner):.3f} to be safe"
    if rim and stick.outer:
        shortest = min(rim.lengths, key=lambda length: length.value)
        longest = max(rim.lengths, key=lambda length: length.value)
        shape = "a circle" if rim.gate == "circle" else "no circle, so it is measured"
        yield (
            f"rim: {shape}, from {_words(shortest, 3)} to {_words(longest, 3)}; "
            f"{rim.turns:.1f} turns, {int(rim.used.sum())} samples"
        )
        yield (
            f"outer {stick.outer.value:.3f} of the rim"
            if rim.gate == "measured"
            else f"outer {_words(stick.outer, 3)}"
        )
    yield from stick.missing


def inner_to_write(inner: Estimate) -> float:
    """Return the dead zone that a profile gets: the far end of the interval, so that the share is in it for sure.

    >>> inner_to_write(Estimate(0.021, 0.018, 0.0262, 300))
    0.027
    """
    return max(math.ceil(inner.high * 1000.0) / 1000.0, LEAST_INNER)


class CalibratedProfile(NamedTuple):
    """A profile with a calibration in it, the values that were set by field path (None: taken out), and, in
    words, what has no place in it.
    """

    profile: Profile
    changes: dict[str, Any]
    left_out: tuple[str, ...]

    def lines(self) -> list[str]:
        """Return what was set and what was left out, line by line."""
        lines = []
        for path, value in self.changes.items():
            listed = isinstance(value, list) and len(value) > 2
            words = (
                f"{len(value)} lengths" if listed else tomlkit.item(value).as_string() if value is not None else ""
            )
            lines.append(f"{path} = {words}" if words else f"{path} taken out")
        return [*lines, *self.left_out]


def calibrated_profile(profile: Profile, found: Calibration) -> CalibratedProfile:
    """Return a profile with the calibration put into every entry that is bound to the devices, and what that changed;
    what was not found stays as it was.

    Raises `WendonicError` if it binds none of the devices.
    """
    written = file_content_of(known_profile(profile))["mode"]
    sticks = {stick.control: stick for stick in found.sticks}
    gyros = {gyro.control: gyro for gyro in found.gyros}
    changes: dict[str, Any] = {}
    left_out: list[str] = []
    bound = False
    for name, mode in profile.mode.items():
        for channel in ("move", "look"):
            table = getattr(mode, channel)
            if "bind" not in written[name].get(channel, {}):
                # A mode that begins as another one has its entries from there.
                continue
            for index, bind in enumerate(table.bind if table else ()):
                where = f"mode.{name}.{channel}.bind[{index}]"
                if isinstance(bind, StickBind | LookStickBind) and bind.stick in sticks:
                    bound = True
                    stick = sticks[bind.stick]
                    changes |= _stick_changes(where, bind, stick)
                    zone = bind.dead_zone
                    for field in ("inner", "outer"):
                        if getattr(stick, field) and stick.rest and not zone.uses(field):
                            left_out.append(f'{where}.dead_zone.{field} is left out: form "{zone.form}" has none')
                elif isinstance(bind, MouseBind) and found.mouse:
                    bound = True
                    if found.mouse.dpi and ("dpi" in bind.model_fields_set or bind.deg_per_count is None):
                        changes[f"{where}.dpi"] = round(found.mouse.dpi.value)
                elif isinstance(bind, GyroBind) and bind.gyro in gyros:
                    bound = True
                    still_deg_s = gyros[bind.gyro].still_deg_s
                    if still_deg_s is not None and bind.still_deg_s > 0.0:
                        changes[f"{where}.still_deg_s"] = round(still_deg_s, 2)
    if not bound:
        raise WendonicError("the profile binds none of the devices in the recording")
    changes = {name: value for name, value in changes.items() if value is not None or value_at(profile, name)}
    return CalibratedProfile(profile.changed(changes), changes, tuple(left_out))


def _stick_changes(where: str, bind: StickBind | LookStickBind, stick: StickCalibration) -> dict[str, Any]:
    changes: dict[str, Any] = {}
    zone = bind.dead_zone
    # Seen from another place than where it rests, the rim would be another one.
    if stick.rim and stick.rest:
        changes[f"{where}.gate"] = stick.rim.gate
        lengths = [round(length.value, 3) for length in stick.rim.lengths]
        changes[f"{where}.rim"] = lengths if stick.rim.gate == "measured" else None
    if stick.rest:
        changes[f"{where}.centre"] = [round(stick.rest.x.value, 4), round(stick.rest.y.value, 4)]
    inner = inner_to_write(stick.inner) if stick.inner else None
    outer = round(stick.outer.value, 3) if stick.outer and stick.rest else None
    if inner is not None and zone.uses("inner") and inner < (outer or bind.dead_zone.outer):
        changes[f"{where}.dead_zone.inner"] = inner
        release = bind.dead_zone.release
        if release is not None and release >= inner:
            changes[f"{where}.dead_zone.release"] = round(inner / 2.0, 3)
    if outer is not None and zone.uses("outer"):
        changes[f"{where}.dead_zone.outer"] = outer
    return changes
