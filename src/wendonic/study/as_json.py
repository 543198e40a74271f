"""Numbers as JSON, in one layout for every command: value, unit, definition, and an interval where there is one."""

from collections.abc import Iterable, Mapping
from typing import TYPE_CHECKING, Any

from wendonic.profile.schema.profile import Profile
from wendonic.profile.value_at import meaning_of
from wendonic.recording.recording import Recording
from wendonic.study.calibration.estimate import CONFIDENCE, Estimate
from wendonic.study.calibration.found import Calibration
from wendonic.study.feel_sheet import FeelSheet
from wendonic.study.finding import Finding
from wendonic.study.quantities import QUANTITIES
from wendonic.study.quantity import Value
from wendonic.study.unmeasured import NotHere

if TYPE_CHECKING:
    from wendonic.study.solve.compare import Setting
    from wendonic.study.solve.differences import Difference, Walked
    from wendonic.study.solve.fit import Fitted

FORMAT = "wendonic-values"
VERSION = 1


def document(command: str, **content: Any) -> dict[str, Any]:
    """Return what a command found, under a head that names the format and the command. Lengths are in metres,
    whatever the game's own unit is.

    >>> document("measure", mode="foot")
    {'format': 'wendonic-values', 'version': 1, 'command': 'measure', 'mode': 'foot'}
    """
    return {"format": FORMAT, "version": VERSION, "command": command, **content}


def entry(value: Any, unit: str, definition: str, **more: Any) -> dict[str, Any]:
    """Return one number: its value (null if there is none), its unit ("" for a share or a ratio) and its definition.

    >>> entry(0.25, "s", "from a full press to rest")
    {'value': 0.25, 'unit': 's', 'definition': 'from a full press to rest'}
    """
    return {"value": value, "unit": unit, "definition": definition, **more}


def estimated(found: Estimate, unit: str, definition: str) -> dict[str, Any]:
    """Return an estimate with its interval and the number of samples behind it.

    >>> estimated(Estimate(0.03, 0.02, 0.04, 500), "raw", "where it rests")["interval"]
    {'low': 0.02, 'high': 0.04, 'confidence': 0.95}
    """
    interval = {"low": found.low, "high": found.high, "confidence": CONFIDENCE}
    return entry(found.value, unit, definition, interval=interval, samples=found.samples)


def sheet_values(sheet: FeelSheet) -> dict[str, Any]:
    """Return the requested quantities of a feel sheet, each with the thresholds of its definition; a quantity without
    a value has the reason, and whether the mode has it at all.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study.feel_sheet import measure
    >>> values = sheet_values(measure(demo_profile(), only=["stop_time_s", "climb_m_s"]))
    >>> values["stop_time_s"]["thresholds"], values["climb_m_s"]["value"], values["climb_m_s"]["missing"]
    ({'rests_m_s': 0.001}, None, {'reason': 'nothing flies', 'in_mode': False})
    """
    return {name: _sheet_entry(sheet, name, value) for name, value in sheet.items() if sheet.requested(name)}


def _sheet_entry(sheet: FeelSheet, name: str, value: Value) -> dict[str, Any]:
    one = QUANTITIES[name]
    used = {threshold: getattr(sheet.thresholds, threshold) for threshold in one.thresholds}
    found = entry(value, one.unit, one.defined(sheet.thresholds), thresholds=used)
    reason = sheet.reasons.get(name)
    if reason is not None:
        found["missing"] = {"reason": str(reason), "in_mode": not isinstance(reason, NotHere)}
    return found


def recording_values(recording: Recording) -> dict[str, Any]:
    """Return how long a recording is, and how many events each of its controls has.

    >>> from wendonic.demo import demo_recording
    >>> recording_values(demo_recording("beekeeper_mouse"))["duration_s"]["value"]
    17.001032
    """
    counts: dict[str, int] = {}
    for event in recording:
        counts[event.control] = counts.get(event.control, 0) + 1
    return {
        "duration_s": entry(recording.duration_s, "s", "from the first event to the last"),
        "start_s": entry(recording.start_s, "s", "time of the first event"),
        "events": entry(len(recording), "events", "events of all controls"),
        **{f"events.{name}": entry(count, "events", f"events of {name}") for name, count in counts.items()},
    }


def calibration_values(found: Calibration) -> dict[str, Any]:
    """Return every number of a calibration with its interval, by device, and the reasons for what is missing."""
    devices: dict[str, Any] = {}
    for stick in found.sticks:
        values: dict[str, Any] = {}
        if stick.rest:
            values["centre_x"] = estimated(stick.rest.x, "raw", "rest point to the right")
            values["centre_y"] = estimated(stick.rest.y, "raw", "rest point towards the player")
            values["noise"] = estimated(stick.rest.noise, "raw", "standard deviation of an axis at rest")
            values["returns"] = entry(stick.rest.returns.times, "times", "how often it came to rest")
            if stick.rest.returns.scatter:
                values["scatter"] = estimated(
                    stick.rest.returns.scatter,
                    "raw",
                    "standard deviation of an axis of the places where it came to rest",
                )
            if stick.rest.drift_per_min:
                values["drift_per_min"] = estimated(stick.rest.drift_per_min, "raw/min", "drift of the rest point")
        if stick.inner:
            values["inner"] = estimated(
                stick.inner, "raw", "dead zone that covers the requested share of samples at rest"
            )
        if stick.outer:
            values["outer"] = estimated(stick.outer, "raw", "tilt that counts as full")
        for number, length in enumerate(stick.rim.lengths if stick.rim else ()):
            values[f"rim.{number}"] = estimated(length, "raw", "reach at equal headings, clockwise from forward")
        devices[stick.control] = {"values": values, "missing": list(stick.missing)}
        if stick.rim:
            devices[stick.control]["gate"] = stick.rim.gate
    if found.mouse:
        dpi = found.mouse.dpi
        values = {"dpi": estimated(dpi, "counts/inch", "counts per inch")} if dpi else {}
        devices["mouse.move"] = {"values": values, "missing": list(found.mouse.missing)}
    for gyro in found.gyros:
        values = {
            f"bias_{axis}_deg_s": estimated(bias, "deg/s", f"turn rate reported at rest about {axis}")
            for axis, bias in zip("xyz", gyro.bias_deg_s or (), strict=False)
        }
        if gyro.noise_deg_s:
            values["noise_deg_s"] = estimated(
                gyro.noise_deg_s, "deg/s", "standard deviation of an axis at rest, the noisiest"
            )
        if gyro.still_deg_s is not None:
            values["still_deg_s"] = entry(gyro.still_deg_s, "deg/s", "spread below which it counts as lying still")
        devices[gyro.control] = {"values": values, "missing": list(gyro.missing)}
    return devices


def walked_values(walk: "Walked", apart: "Difference | None") -> dict[str, Any]:
    """Return the numbers of a walk, and of its difference from the first walk if it is another one."""
    from wendonic.study.solve.differences import DIFFERENCES, UNITS, WALKED

    values = {name: entry(value, UNITS[name], WALKED[name]) for name, value in walk._asdict().items()}
    if apart is not None:
        values |= {
            f"differs.{name}": entry(value, UNITS[name], DIFFERENCES[name]) for name, value in apart._asdict().items()
        }
    return values


def setting_values(profiles: Mapping[str, Profile], settings: Iterable["Setting"]) -> dict[str, Any]:
    """Return the settings that differ, each with its unit, its description and its value in each profile.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study.solve.compare import settings_that_differ
    >>> ours, theirs = demo_profile(), demo_profile().changed({"gait.walk.accel_m_s2": 9})
    >>> found = setting_values({"ours": ours, "theirs": theirs}, settings_that_differ([ours, theirs]))
    >>> found["gait.walk.accel_m_s2"]["unit"], found["gait.walk.accel_m_s2"]["values"]
    ('m/s²', {'ours': 22.0, 'theirs': 9.0})
    """
    found: dict[str, Any] = {}
    for setting in settings:
        with_value = [
            profile for profile, value in zip(profiles.values(), setting.values, strict=True) if value is not None
        ]
        has_it = with_value[0] if with_value else next(iter(profiles.values()))
        unit, sentence = meaning_of(has_it, setting.path)
        table, *names = setting.path.split(".")
        if table == "budget" and names[0] in QUANTITIES:
            unit = QUANTITIES[names[0]].unit
        values = dict(zip(profiles, setting.values, strict=True))
        found[setting.path] = {"unit": unit, "definition": sentence, "values": values}
    return found


def fit_document(found: "Fitted", profile: str, written: str | None) -> dict[str, Any]:
    """Return the result of a fit; quantities are in metres, settings in the unit of their names."""
    targets = {
        one.quantity: entry(
            one.after,
            QUANTITIES[one.quantity].unit,
            QUANTITIES[one.quantity].definition,
            before=one.before,
            least=one.low,
            most=one.high,
            reached=one.reached,
        )
        for one in found.targets
    }
    settings = {
        one.path: entry(
            one.after,
            *meaning_of(found.profile, one.path),
            before=one.before,
            idle=one.idle,
            at_limit=one.at_limit,
            undetermined=one.undetermined,
            refused=one.refused,
        )
        for one in found.settings
    }
    trades = [trade._asdict() for trade in found.trades]
    return document("fit", profile=profile, written=written, targets=targets, settings=settings, trades=trades)


def finding_content(found: Finding) -> dict[str, Any]:
    """Return a finding: its fix both as TOML and as values by field path."""
    return {**found._asdict(), "fix": found.fix}


def sheet_head(sheet: FeelSheet, seat: str | None = None) -> Mapping[str, Any]:
    """Return how a sheet was measured, and for which player."""
    return {"seat": seat, "by": sheet.by, "while": sheet.held}
