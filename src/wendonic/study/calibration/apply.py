"""Writes a calibration into a profile."""

from typing import Any, NamedTuple

import tomlkit

from wendonic.errors import WendonicError
from wendonic.profile.schema.look_binds import GyroBind, LookStickBind, MouseBind
from wendonic.profile.schema.move_binds import StickBind
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.profile.schema.seat import Seat
from wendonic.profile.value_at import value_at
from wendonic.study.calibration.found import Calibration, StickCalibration, inner_to_write


class CalibratedProfile(NamedTuple):
    """A profile with a calibration in it, the values that were set by field path (None: removed), and, in words, what
    could not be put into it.
    """

    profile: Profile
    changes: dict[str, Any]
    left_out: tuple[str, ...]

    def __str__(self) -> str:
        """List what was set and what was left out."""
        return "\n".join(self.lines()) or "nothing to change"

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
    """Return a profile with the calibration in every entry that is bound to the devices, and the changes; what the
    calibration did not find stays as it was. In an entry with a `seat`, `pad` is that player's pad.

    Raises `WendonicError` if the profile binds none of the devices.

    >>> from wendonic.demo import demo_profile, demo_recording
    >>> from wendonic.study import calibrate
    >>> print(calibrated_profile(demo_profile(), calibrate(demo_recording("beekeeper_pad"))))
    mode.foot.move.bind[1].centre = [0.0311, -0.0237]
    mode.foot.move.bind[1].dead_zone.inner = 0.065
    mode.foot.move.bind[1].dead_zone.release = 0.033
    """
    written = known_profile(profile).file_content()["mode"]
    sticks = {stick.control: stick for stick in found.sticks}
    gyros = {gyro.control: gyro for gyro in found.gyros}
    changes: dict[str, Any] = {}
    left_out: list[str] = []
    bound = False
    for name, mode in profile.mode.items():
        for channel in ("move", "look"):
            table = getattr(mode, channel)
            if "bind" not in written[name].get(channel, {}):
                # A mode with `like` inherits the entries of that mode.
                continue
            for index, bind in enumerate(table.bind if table else ()):
                where = f"mode.{name}.{channel}.bind[{index}]"
                # An entry of one player means that player's pad.
                own = Seat(bind.seat, profile.seat).own
                if isinstance(bind, StickBind | LookStickBind) and own(bind.stick) in sticks:
                    bound = True
                    stick = sticks[own(bind.stick)]
                    changes |= _stick_changes(where, bind, stick)
                    zone = bind.dead_zone
                    for field in ("inner", "outer"):
                        if getattr(stick, field) and stick.rest and not zone.uses(field):
                            left_out.append(f'{where}.dead_zone.{field} is left out: form "{zone.form}" has none')
                elif isinstance(bind, MouseBind) and found.mouse:
                    bound = True
                    if found.mouse.dpi and ("dpi" in bind.model_fields_set or bind.deg_per_count is None):
                        changes[f"{where}.dpi"] = round(found.mouse.dpi.value)
                elif isinstance(bind, GyroBind) and own(bind.gyro) in gyros:
                    bound = True
                    still_deg_s = gyros[own(bind.gyro)].still_deg_s
                    if still_deg_s is not None and bind.still_deg_s > 0.0:
                        changes[f"{where}.still_deg_s"] = round(still_deg_s, 2)
    if not bound:
        raise WendonicError("the profile binds none of the devices in the recording")
    changes = {name: value for name, value in changes.items() if value is not None or value_at(profile, name)}
    return CalibratedProfile(profile.changed(changes), changes, tuple(left_out))


def _stick_changes(where: str, bind: StickBind | LookStickBind, stick: StickCalibration) -> dict[str, Any]:
    changes: dict[str, Any] = {}
    zone = bind.dead_zone
    # The rim was measured from the rest point; seen from another centre it would be a different one.
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
