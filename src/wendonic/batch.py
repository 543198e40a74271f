"""Whole recordings at once: a recording and a profile in, a trace out."""

import json
import math
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import TYPE_CHECKING, Any, Literal, NamedTuple

from wendonic.devices.controls import CONTROLS, DEVICES
from wendonic.devices.sampler import Sampler
from wendonic.devices.state import DeviceState
from wendonic.errors import WendonicError
from wendonic.kernels.axis_channel import axis_states_at_rest
from wendonic.kernels.formed_source import FORM_AT_REST
from wendonic.kernels.ground import NO_COURSE, HasNumbers
from wendonic.kernels.look import LOOK_AT_REST, LookOutcome
from wendonic.kernels.loop import (
    run_axis,
    run_form,
    run_look,
    run_press,
    run_sectors,
    run_steering,
    run_swing,
    run_ticks,
)
from wendonic.kernels.pipeline import MEMORY_AT_REST, Memory, Outcome
from wendonic.kernels.places import MOVE_WIDTH, RISE_PLACE, SAMPLE_WIDTH, THROTTLE_PLACE, TURN_PLACE
from wendonic.kernels.press import PRESS_AT_REST, SILENT_PRESS
from wendonic.kernels.steer_frame import FRAME_GOTO, FRAME_GRID
from wendonic.kernels.steered import Steered
from wendonic.kernels.steering import STEERING_AT_REST
from wendonic.kernels.swing import SWING_AT_REST
from wendonic.profile.bindings import mode_sources
from wendonic.profile.schema import Profile
from wendonic.profile.tuning import ModeTuning, mode_tuning
from wendonic.recording.recording import Recording
from wendonic.whole_file import whole_file

if TYPE_CHECKING:
    import numpy as np
    import pandas as pd
    from numpy.typing import NDArray

Way = Literal["auto", "interpreted", "compiled"]

COMPILED_PAYS_FROM_TICKS = 200_000
"""Ticks from which `way = "auto"` compiles: fewer are done before a first compilation would be."""

STRETCH_TICKS = 50_000
"""Ticks whose samples are in memory at once."""


class Stretch(NamedTuple):
    """What some ticks of a recording give a mode before any shaping: one row a tick.

    `views` holds whether a view was given, yaw and pitch (rad); `presses` holds, press by press, down, edges and
    lost; `press_devices` which of `DEVICES` made a press go down, -1 for none.
    """

    t: "NDArray[np.float64]"
    dts: "NDArray[np.float64]"
    samples: "NDArray[np.float64]"
    views: "NDArray[np.float64]"
    presses: "NDArray[np.float64]"
    press_devices: "NDArray[np.intp]"


def sampled(
    recording: Recording, hz: float, sampler: Sampler, stretch_ticks: int = STRETCH_TICKS
) -> Iterator[Stretch]:
    """Feed a recording to a `DeviceState`, and give what the sampler sees at the end of each tick."""
    import numpy as np

    state = DeviceState()
    sampler.begin(state)
    readers = sampler.presses
    view_slot = CONTROLS["view"].slot
    row = [0.0] * SAMPLE_WIDTH
    # In most ticks nothing is new: what they have in common is kept once.
    samples: list[list[float]] = [row.copy()]
    raw: list[list[list[float]]] = [[[0.0, 0.0, 0.0]] * len(readers)]
    seen, views_seen = -1, 0
    times: list[float] = []
    rows: list[int] = []
    views: list[tuple[float, float, float]] = []
    devices: list[int] = []

    def stretch() -> Stretch:
        count = len(times)
        by_press = np.array(raw, dtype=float).reshape(len(raw), len(readers), 3)[rows].transpose(1, 0, 2)
        made = Stretch(
            np.array(times),
            np.full(count, 1.0 / hz),
            np.array(samples)[rows].reshape(count, SAMPLE_WIDTH),
            np.array(views).reshape(count, 3),
            np.ascontiguousarray(by_press),
            np.array(devices, dtype=np.intp),
        )
        for column in (times, rows, views, devices):
            column.clear()
        samples[:], raw[:] = samples[-1:], raw[-1:]
        return made

    for t, events in recording.ticks(hz):
        for event in events:
            state.apply(event)
        if state.changes != seen:
            seen = -1 if sampler.fill(state, row) else state.changes
            samples.append(row.copy())
            raw.append([[float(reader.down), float(reader.edges), float(reader.lost)] for reader in readers])
        view = (0.0, 0.0, 0.0)
        if state.view_changes != views_seen:
            views_seen = state.view_changes
            view = (1.0, math.radians(state.values[view_slot]), math.radians(state.values[view_slot + 1]))
        times.append(t)
        rows.append(len(samples) - 1)
        views.append(view)
        devices.append(sampler.press_device)
        if len(times) == stretch_ticks:
            yield stretch()
    yield stretch()


class Traced(NamedTuple):
    """What came out of some ticks, one row each: the fields of `Outcome` and of `LookOutcome`; of `rise`, `throttle`
    and `turn` the source, the value, and where a ramp of it began in the tick; held, began and ended of each press;
    the facing, if the mode has any; the fields of `Steered`, where the mode does not steer within the tick.
    """

    outcomes: "NDArray[np.float64]"
    looks: "NDArray[np.float64]"
    axes: "NDArray[np.float64]"
    presses: "NDArray[np.float64]"
    sectors: "NDArray[np.float64]"
    steered: "NDArray[np.float64]"


class Shaper:
    """Runs one mode of a profile over stretch after stretch; what is carried from tick to tick is carried on."""

    def __init__(
        self, profile: Profile, mode: str, compiled: bool = False, course: tuple[float, ...] = NO_COURSE
    ) -> None:
        """Begin at rest."""
        import numpy as np

        self._compiled = compiled
        self.tuning = mode_tuning(profile, mode, course[0] + course[1] > 0.0)
        self._tables = np.array(self.tuning.tables, dtype=float)
        self._course = np.array(course, dtype=float)
        self._memory: Memory = MEMORY_AT_REST
        self._steering = STEERING_AT_REST
        self._swing = SWING_AT_REST
        self._form_states = [FORM_AT_REST] * len(self.tuning.forms)
        self._look_states = LOOK_AT_REST
        self._view = (0.0, 0.0)
        self._axis_states = [axis_states_at_rest(place) for place in (RISE_PLACE, THROTTLE_PLACE, TURN_PLACE)]
        self._press_states = [PRESS_AT_REST] * len(self.tuning.presses)
        self._sector = -1.0
        self._stood = 1.0

    def run(self, stretch: Stretch) -> Traced:
        """Return what comes out of a stretch's ticks."""
        import numpy as np

        count, dts, tuning = len(stretch.t), stretch.dts, self.tuning
        presses = np.zeros(stretch.presses.shape)
        # A recording does not tell of the ground; the body stands on it, but for a gait with weight.
        falls = tuning.steering is not None and tuning.steering.fall.on > 0
        later = [index for index, press in enumerate(tuning.presses) if falls and press.gated > 0]
        self._presses(
            stretch, [index for index in range(len(presses)) if index not in later], np.ones(count), presses
        )
        for flag in tuning.flags:
            held = presses[flag.press, :, 0] * flag.value
            stretch.samples[:, flag.place] = np.maximum(stretch.samples[:, flag.place], held)
        for index, (start, form) in enumerate(tuning.forms):
            self._form_states[index] = self._loop(
                run_form, form, self._tables, self._form_states[index], start, dts, stretch.samples
            )
        if tuning.swing:
            start, swing = tuning.swing
            self._swing = self._loop(run_swing, swing, self._tables, self._swing, start, dts, stretch.samples)
        looks = self._looks(stretch)
        axes = np.full((len(tuning.axes), count, 3), [-1.0, 0.0, 0.0])
        for index, axis in enumerate(tuning.axes):
            if axis.source_count:
                self._axis_states[index] = self._loop(
                    run_axis, axis, self._axis_states[index], stretch.samples, dts, axes[index]
                )
        outcomes = np.zeros((count, len(Outcome._fields)))
        samples = np.ascontiguousarray(stretch.samples[:, :MOVE_WIDTH])
        views = np.ascontiguousarray(looks[:, -2:])
        self._memory = self._loop(run_ticks, tuning.tick, self._memory, samples, views, dts, outcomes)
        steered = np.zeros((count, len(Steered._fields)))
        if tuning.steering:
            shaped = outcomes[:, [Outcome._fields.index(name) for name in ("local_x", "local_y")]]
            wishes = np.column_stack([shaped, axes[:, :, 1].T, axes[:, :, 2].T, looks[:, -2:]])
            steered = self._steered(stretch, wishes, presses)
            for name in Outcome._fields:
                if name in Steered._fields:
                    outcomes[:, Outcome._fields.index(name)] = steered[:, Steered._fields.index(name)]
        if later:
            stands = steered[:, Steered._fields.index("grounded")]
            stood = np.concatenate([[self._stood], stands[:-1]]) if count else stands
            self._presses(stretch, [index for index in later if index != tuning.jump], stood, presses)
            self._stood = float(stands[-1]) if count else self._stood
        sectors = np.full(count, math.nan)
        if tuning.sectors:
            faces = np.ascontiguousarray(outcomes[:, Outcome._fields.index("face")])
            self._sector = self._loop(run_sectors, tuning.sectors, tuning.sector_margin, self._sector, faces, sectors)
        return Traced(outcomes, looks, axes, presses, sectors, steered)

    def _presses(
        self, stretch: Stretch, places: list[int], grounds: "NDArray[np.float64]", presses: "NDArray[np.float64]"
    ) -> None:
        """Fill `presses` for some of them."""
        for index in places:
            self._press_states[index] = self._loop(
                run_press,
                self.tuning.presses[index],
                self._press_states[index],
                stretch.presses[index],
                grounds,
                stretch.dts,
                presses[index],
            )

    def _steered(
        self, stretch: Stretch, wishes: "NDArray[np.float64]", presses: "NDArray[np.float64]"
    ) -> "NDArray[np.float64]":
        """Return one row a tick, one column a field of `Steered`; fill `presses` of the one that jumps."""
        import numpy as np

        jump, count, fields = self.tuning.jump, len(stretch.t), len(Steered._fields)
        told = np.zeros((count, fields + 3))
        jumps = jump >= 0
        self._steering, jump_state = self._loop(
            run_steering,
            self.tuning.gaits,
            self._course,
            self._steering,
            self.tuning.presses[jump] if jumps else SILENT_PRESS,
            self._press_states[jump] if jumps else PRESS_AT_REST,
            stretch.samples,
            wishes,
            stretch.presses[jump] if jumps else np.zeros((count, 3)),
            stretch.dts,
            told,
        )
        if jumps:
            self._press_states[jump] = jump_state
            presses[jump] = told[:, fields:]
        return told[:, :fields]

    def _looks(self, stretch: Stretch) -> "NDArray[np.float64]":
        """Return one row a tick, one column a field of `LookOutcome`."""
        import numpy as np

        count = len(stretch.t)
        looks = np.zeros((count, len(LookOutcome._fields)))
        if self.tuning.look.source_count:
            self._look_states, *view = self._loop(
                run_look,
                self.tuning.look,
                self._tables,
                self._look_states,
                *self._view,
                stretch.samples,
                stretch.views,
                stretch.dts,
                looks,
            )
            self._view = (view[0], view[1])
            return looks
        # Nothing turns it: the view that was given last stands.
        looks[:, 0] = -1.0
        places = _last_known(np.where(stretch.views[:, 0] > 0.0, np.arange(count), -1))
        looks[:, 3:] = np.where(places[:, None] >= 0, stretch.views[places, 1:], self._view)
        if count:
            self._view = (float(looks[-1, 3]), float(looks[-1, 4]))
        return looks

    def _loop(self, loop: Callable[..., Any], *inputs: Any) -> Any:
        """Run a loop of the kernels, compiled or not; the last of its inputs is the array that it fills."""
        if self._compiled:
            from wendonic.compiled import compiled_loop

            return compiled_loop(loop)(*inputs)
        # Lists are several times as fast as arrays, number by number.
        *given, filled = (value.tolist() if hasattr(value, "tolist") else value for value in inputs)
        after = loop(*given, filled)
        if filled:
            inputs[-1][...] = filled
        return after


def shape(
    recording: Recording,
    profile: Profile,
    hz: float = 60,
    mode: str | None = None,
    way: Way = "auto",
    seat: str | None = None,
    course: HasNumbers | None = None,
) -> "pd.DataFrame":
    """Return the trace of a recording under a profile: one row a tick, `hz` ticks a second.

    The profile's first mode is used unless `mode` names another; in a `seat` such as "pad1" its `pad` is that pad; on
    a `course` (see `wendonic.course`) the body follows its ground and minds its blocked squares. Columns: `tick t dt
    mode device`, then `raw_x raw_y` (right and ahead, of the source that steers, or of the most tilted one while none
    does), `local_x local_y` (shaped), `move_x move_y amount heading_deg` (steered; the heading is missing at rest),
    `rise turn throttle`, the look of the tick and the view with it, `face_deg`, the gait's `pos_…` (m) and `vel_…`
    (m/s), and `<press>_held <press>_began <press>_ended` for each press; all in the plan frame. After them a grid has
    `step_x step_y refused_x refused_y`, going to a place `goal_x goal_y arrived`, slopes `refused`, comfort `vignette
    returned`, and pointing `landed`. `t` is the recording's own time at the end of the tick. A helm fed the same
    events tick by tick gives the same numbers.

    `way` "interpreted" loops in Python, "compiled" needs Numba (extra `fast`), "auto" compiles where Numba is
    installed and there are enough ticks to pay for it. The numbers agree to rounding.

    Raises `WendonicError` for an `hz` that is not finite, not above 0 or beyond 10,000, and for a mode that does
    not exist; `ControlError` for a seat that does not. A recording without events gives a trace without rows.

    >>> from wendonic.demo import demo_profile, demo_recording
    >>> trace = shape(demo_recording("beekeeper_keys"), demo_profile(), hz=60)
    >>> len(trace), f"{trace['amount'].max():.3f}", f"{trace['vel_y'].max():.3f} m/s"
    (2160, '1.000', '3.200 m/s')
    """
    import numpy as np

    from wendonic.compiled import has_numba

    name = profile.mode_name(mode)
    sampler = Sampler(mode_sources(profile, name, seat))
    enough = recording.duration_s * hz >= COMPILED_PAYS_FROM_TICKS
    shaper = Shaper(
        profile,
        name,
        way == "compiled" or (way == "auto" and enough and has_numba()),
        NO_COURSE if course is None else course.numbers,
    )
    stretches: list[Stretch] = []
    parts: list[Traced] = []
    for stretch in sampled(recording, hz, sampler):
        parts.append(shaper.run(stretch))
        # The samples have done their work, and are the bulk of it.
        stretches.append(stretch._replace(samples=stretch.samples[:0]))
    traced = Traced(
        np.concatenate([part.outcomes for part in parts]),
        np.concatenate([part.looks for part in parts]),
        np.concatenate([part.axes for part in parts], axis=1),
        np.concatenate([part.presses for part in parts], axis=1),
        np.concatenate([part.sectors for part in parts]),
        np.concatenate([part.steered for part in parts]),
    )
    # While several move, the one that steers counts, then the one that looks, then the other channels, then presses.
    rise, throttle, turn = traced.axes[:, :, 0]
    places = [traced.outcomes[:, 0], traced.looks[:, 0], throttle, turn, rise]
    place = np.select([of_channel >= 0.0 for of_channel in places], places, -1.0).astype(np.intp)
    press_devices = np.concatenate([stretch.press_devices for stretch in stretches])
    devices = _last_known(np.where(place >= 0, np.array(sampler.devices)[place], press_devices))
    t = np.concatenate([stretch.t for stretch in stretches])
    weighs = shaper.tuning.steering is not None and shaper.tuning.steering.fall.on > 0
    trace = _trace(t, np.full(len(t), 1.0 / hz), name, devices, traced, profile.press_names, weighs)
    return _with_steering(trace, shaper.tuning, traced)


def _with_steering(trace: "pd.DataFrame", tuning: ModeTuning, traced: Traced) -> "pd.DataFrame":
    """Add the columns that only some steer frames have."""
    import numpy as np

    steered = dict(zip(Steered._fields, traced.steered.T, strict=True))
    steering = tuning.steering
    if steering is None:
        return trace
    if steering.frame == FRAME_GRID:
        trace["step_x"], trace["step_y"] = steered["step_x"].astype(int), steered["step_y"].astype(int)
        for name in ("refused_x", "refused_y"):
            trace[name] = np.where(steered["refused"] > 0.0, steered[name], math.nan)
    if steering.slope.follows:
        trace["refused"] = steered["refused"] > 0.0
    if steering.frame == FRAME_GOTO:
        going = steered["going"] > 0.0
        trace["goal_x"] = np.where(going, steered["goal_x"], math.nan)
        trace["goal_y"] = np.where(going, steered["goal_y"], math.nan)
        trace["arrived"] = steered["arrived"] > 0.0
    if steering.comfort.on:
        trace["vignette"], trace["returned"] = steered["vignette"], steered["returned"] > 0.0
    if steering.arc_m_s > 0.0:
        trace["landed"] = steered["landed"] > 0.0
    return trace


def _last_known(codes: "NDArray[np.intp]") -> "NDArray[np.intp]":
    """Return each code, or the one before where it is -1."""
    import numpy as np

    places = np.maximum.accumulate(np.where(codes >= 0, np.arange(len(codes)), -1))
    return np.where(places >= 0, codes[places], -1)


def _trace(
    t: "NDArray[np.float64]",
    dt: "NDArray[np.float64]",
    mode: str,
    devices: "NDArray[np.intp]",
    traced: Traced,
    press_names: tuple[str, ...],
    weighs: bool,
) -> "pd.DataFrame":
    import numpy as np
    import pandas as pd

    out = dict(zip(Outcome._fields, traced.outcomes.T, strict=True))
    look = dict(zip(LookOutcome._fields, traced.looks.T, strict=True))
    rise, throttle, turn = traced.axes[:, :, 1]
    count = len(t)
    used = sorted(set(devices.tolist()) - {-1})
    codes = np.searchsorted(used, devices) if used else devices
    steered = dict(zip(Steered._fields, traced.steered.T, strict=True))
    columns: dict[str, Any] = {
        "tick": np.arange(1, count + 1),
        "t": t,
        "dt": dt,
        "mode": pd.Categorical.from_codes(np.zeros(count, dtype=np.intp), pd.Index([mode])),
        "device": pd.Categorical.from_codes(
            np.where(devices >= 0, codes, -1), pd.Index([DEVICES[index] for index in used], dtype=str)
        ),
        "raw_x": out["raw_x"],
        "raw_y": out["raw_y"],
        "local_x": out["local_x"],
        "local_y": out["local_y"],
        "move_x": out["move_x"],
        "move_y": out["move_y"],
        "amount": out["amount"],
        "heading_deg": np.where(out["amount"] == 0.0, math.nan, _compass_deg(out["heading"])),
        "rise": rise,
        "turn": turn,
        "throttle": throttle,
        "look_yaw_deg": np.degrees(look["look_yaw"]),
        "look_pitch_deg": np.degrees(look["look_pitch"]),
        "view_yaw_deg": np.degrees(look["view_yaw"]),
        "view_pitch_deg": np.degrees(look["view_pitch"]),
        "face_deg": _compass_deg(out["face"]),
        "sector": traced.sectors,
        "pos_x": out["pos_x"],
        "pos_y": out["pos_y"],
        "pos_z": steered["pos_z"],
        "vel_x": out["vel_x"],
        "vel_y": out["vel_y"],
        "vel_z": steered["vel_z"],
        "grounded": np.ones(count, dtype=bool) if not weighs else steered["grounded"] > 0.0,
    }
    for name, flags in zip(press_names, traced.presses, strict=True):
        for column, flag in enumerate(("held", "began", "ended")):
            columns[f"{name}_{flag}"] = flags[:, column] > 0.0
    return pd.DataFrame(columns)


def _compass_deg(angles: "NDArray[np.float64]") -> "NDArray[np.float64]":
    """Return `intent.compass_deg` of every angle."""
    import numpy as np

    degrees = np.degrees(angles)
    degrees = np.where(degrees < 0.0, degrees + 360.0, degrees)
    return np.where(degrees < 360.0, degrees, 0.0)


TRACE_ENDINGS = (".csv", ".parquet", ".jsonl")


def write_trace(trace: "pd.DataFrame", path: str | Path) -> None:
    """Write a trace by file ending: `.csv`, `.parquet` (extra `parquet`) or `.jsonl`; whole or not at all.

    Every float comes back bit for bit; what is missing is empty in CSV and null in JSON Lines.
    """
    ending = Path(path).suffix.lower()
    if ending not in TRACE_ENDINGS:
        raise WendonicError(f'cannot write {path}: found ending "{ending}"; allowed: {", ".join(TRACE_ENDINGS)}')
    with whole_file(path) as beside:
        if ending == ".csv":
            trace.to_csv(beside, index=False)
        elif ending == ".jsonl":
            # pandas' own writer stops at 15 decimals; json writes every digit that counts.
            records = trace.astype(object).where(trace.notna(), None).to_dict("records")
            with beside.open("w", encoding="utf-8", newline="\n") as file:
                file.writelines(json.dumps(record) + "\n" for record in records)
        else:
            try:
                trace.to_parquet(beside, index=False)
            except ImportError:
                raise WendonicError("Parquet needs PyArrow: pip install 'wendonic[parquet]'") from None
