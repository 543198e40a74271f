"""What the live page plays: its own door, its tick functions and its formulas, held against the library's."""

import json
import math
import os
import random
import shutil
import subprocess

import numpy as np
import pytest

from every_export import random_profile, words_known
from test_carried_movement import EVERYTHING, anything, equal_modes
from test_house import TOP
from test_seats import TEXT as TWO_PLAYERS
from wendonic import Event, Recording, shape
from wendonic.arithmetic import Traced, Tracing, atan, log1p, radians, sqrt, tan
from wendonic.batch.play import needs_play
from wendonic.batch.samples import sampled
from wendonic.compiler.layout import flat, paths_of, structure_of
from wendonic.demo import FOLDER, ON_COURSE, RECORDINGS, demo_course, demo_profile, demo_recording, profile_names
from wendonic.errors import WendonicError
from wendonic.export.page.contents import PageProfile, given_module, profile_module
from wendonic.export.page.formulas import traced
from wendonic.export.page.inherited import inherited_paths
from wendonic.export.page.softened import LEAST, softened
from wendonic.export.play_events import Hands, controls_of
from wendonic.kernels.sample import EMPTY_SAMPLE
from wendonic.profile.load import profile_from_text
from wendonic.profile.schema.profile import Profile
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning
from wendonic.profile.value_at import limits_of, value_at

ALL_TOOLS = os.environ.get("WENDONIC_ALL_TOOLS") == "1"
needs_node = pytest.mark.skipif(shutil.which("node") is None and not ALL_TOOLS, reason="Node.js is not here")
MADE_S = 1.0
BEGINNING_S = 4.0


def plain(recording):
    return [{"t": event.t, "c": event.control, "v": event.value} for event in recording]


def made_recording(profile, mode, rng):
    """Some seconds on every control that a mode listens to, with losses, refused values and what a game says."""
    controls = controls_of(mode_sources(profile, mode))
    hands = Hands(controls, [0.1, 0.14, 0.5, 0.96], (), rng)
    names = [control.name for control in controls]
    hz = rng.choice([30.0, 60.0, 144.0])
    events = [Event(0.0, "mark", "made")]
    active = names
    for tick in range(int(MADE_S * hz)):
        t = tick / hz
        if rng.random() < 0.05:
            active = rng.sample(names, rng.randint(0, len(names)))
        events += hands.events(active, t, 1.0 / hz)
        if rng.random() < 0.02:
            losses = ["lost.focus", "lost.pad", "lost.mouse", "lost.touch", "lost.hand.left", "lost.head"]
            events.append(Event(t, rng.choice(losses), 1))
        if rng.random() < 0.01:
            events.append(Event(t, "view", (rng.uniform(-180.0, 180.0), rng.uniform(-60.0, 60.0))))
        if rng.random() < 0.01:
            reported = [
                ("body.place", (rng.uniform(-4, 4), rng.uniform(-4, 4), 0.0)),
                ("body.velocity", (rng.uniform(-3, 3), 0.0, 0.0)),
                ("body.push", (0.0, rng.uniform(-3, 3), 0.0)),
                ("body.facing", rng.uniform(-180.0, 180.0)),
                ("body.contact", (0.6, 0.8, 0.0)),
                ("body.restart", 1.0),
                ("body.ground", (0.0, 0.0, 0.0, 1.0)),
                ("square", (float(rng.randint(-2, 2)), float(rng.randint(-2, 2)), float(rng.random() < 0.8))),
                ("discard", 1.0),
            ]
            events.append(Event(t, *rng.choice(reported)))
        if rng.random() < 0.01:
            events.append(Event(t, "window", rng.choice([0.0, 0.5, 2.2])))
        if rng.random() < 0.02:
            events.append(Event(t, "pad.left_stick", (rng.uniform(-3.0, 3.0), rng.uniform(-1.0, 1.0))))
    return Recording(sorted(events, key=lambda event: event.t)), hz


def beginning(recording):
    """Its first seconds: long enough to see that every mode reads it alike."""
    return Recording([event for event in recording if event.t <= recording.start_s + BEGINNING_S])


def run_in_node(folder, given):
    """Play recordings in Node.js as the page does."""
    asked, answers = folder / "asked.json", folder / "answers.json"
    asked.write_text(json.dumps(given))
    script = TOP / "web" / "test" / "play_all.mjs"
    done = subprocess.run(
        ["node", str(script), str(asked), str(answers)], capture_output=True, text=True, timeout=200, check=False
    )
    assert done.returncode == 0, done.stderr[-3000:]
    return json.loads(answers.read_text())


def played(folder, jobs):
    """Play (profile, recording, hz, mode, course) each."""
    modules = {}
    given = []
    for profile, recording, hz, mode, course in jobs:
        key = id(profile), id(course)
        if key not in modules:
            file = folder / f"profile_{len(modules)}.mjs"
            file.write_text(profile_module(PageProfile(profile, "made.toml", "", course)))
            modules[key] = str(file)
        rows = mode is not None and not needs_play(recording, profile, mode)
        module = modules[key]
        given.append({"module": module, "events": plain(recording), "hz": hz, "mode": mode, "wantsRows": rows})
    return run_in_node(folder, given)


def differences(trace, found, share=1e-9):
    """Say in which columns a trace of the page is not the library's: name, tick, and both values."""
    if len(trace) != found["count"]:
        return [("ticks", len(trace), found["count"])]
    wrong = []
    for name in trace.columns:
        if name in ("tick", "t", "dt"):
            continue
        column = found["trace"].get(name, [None] * len(trace))
        if name in ("mode", "device"):
            wanted = [None if isinstance(one, float) else one for one in trace[name].astype(object)]
            same = np.array([one == other for one, other in zip(wanted, column, strict=True)])
        else:
            wanted, column = trace[name].to_numpy(dtype=float), np.array(column, dtype=float)
            if trace[name].dtype == bool:
                # What a mode does not have is no flag.
                column = np.nan_to_num(column)
            near = np.abs(wanted - column) <= share + share * np.abs(column)
            same = near | (np.isnan(wanted) & np.isnan(column))
            if name == "heading_deg":
                # Where rounding alone is left of a request, it has no direction to speak of.
                same |= (trace["amount"].to_numpy() <= 1e-12) & np.isnan(column)
        for place in np.flatnonzero(~same)[:1]:
            wrong.append((name, int(place), wanted[place], column[place]))
    return wrong


def same_rows(found, recording, hz, profile, mode):
    """The door's rows are the library's, where a single mode was played and no game had a say."""
    if found["rows"]:
        rows = sampled(recording, hz, mode_sources(profile, mode)).rows
        assert np.abs(rows - np.array(found["rows"])).max() <= 1e-13, (profile.title, mode)


def to_and_fro(frame):
    """Five seconds in which an equal mode is entered ten times a second, whatever is under way."""
    rng, mode = random.Random(len(frame)), "walk"
    events = []
    for tick in range(300):
        t = (tick + 0.5) / 60.0
        events += [Event(t, control, value) for control, value in anything(rng, frame, tick)]
        if rng.random() < 0.15:
            mode = "aim" if mode == "walk" else "walk"
            events.append(Event(t, "mode", mode))
    return Recording([Event(0.0, "mode", "walk"), *events])


@needs_node
@pytest.mark.parametrize(
    "made", [range(3), pytest.param(range(3, 200), marks=pytest.mark.long)], ids=["first", "rest"]
)
def test_every_shipped_recording_and_200_made_ones_give_the_same_rows_and_traces(made, tmp_path):
    profiles = {name: demo_profile(name) for name in profile_names()}
    courses = {name: demo_course(name) for name in set(ON_COURSE.values())}
    jobs = []
    # Of the recordings, every other one in the suite.
    for name, of in list(RECORDINGS.items())[(0 if made.start == 0 else 1) :: 2]:
        profile, recording = profiles[of], demo_recording(name)
        course = courses[ON_COURSE[name]] if name in ON_COURSE else None
        jobs.append((profile, recording, 60.0, None, course))
        if name != "apiary_rounds":
            jobs += [(profile, beginning(recording), 60.0, mode, course) for mode in profile.mode]
        else:
            jobs.append((profile, recording, 144.0, "cart", None))
    jobs += [(equal_modes(frame), to_and_fro(frame), 60.0, None, None) for frame in EVERYTHING if made.start > 0]
    fixed = profiles["tablet"].changed({"mode.foot.move.bind[0].middle": "zone"})
    for seed in (301, 302) if made.start == 0 else ():
        recording, hz = made_recording(fixed, "foot", random.Random(seed))
        jobs.append((fixed, recording, hz, "foot", None))
    modes = [(name, profile, mode) for name, profile in profiles.items() for mode in profile.mode]
    for number in made:
        name, profile, mode = modes[number % len(modes)]
        recording, hz = made_recording(profile, mode, random.Random(number))
        jobs.append((profile, recording, hz, mode, courses["harvest"] if name == "harvest" and number % 2 else None))
    for number, (job, found) in enumerate(zip(jobs, played(tmp_path, jobs), strict=True)):
        profile, recording, hz, mode, course = job
        trace = shape(recording, profile, hz, mode, course=course)
        assert differences(trace, found) == [], (number, profile.title, mode, hz)
        same_rows(found, recording, hz, profile, mode)


@needs_node
def test_the_page_of_a_seat_plays_that_player_alone(tmp_path):
    """Keys, pads and entries of both, in one recording."""
    profile = profile_from_text(TWO_PLAYERS)
    events = [
        Event(0.1, "key.KeyW", 1.0),
        Event(0.3, "key.ArrowDown", 1.0),
        Event(0.5, "mouse.move", (120.0, 0.0)),
        Event(0.6, "key.Enter", 1.0),
        Event(0.7, "key.Space", 1.0),
        Event(1.0, "key.KeyW", 0.0),
        Event(1.2, "pad.left_stick", (0.5, 0.0)),
        Event(1.4, "pad1.left_stick", (0.0, 1.0)),
        Event(1.6, "key.KeyC", 1.0),
        Event(2.0, "mark", "end"),
    ]
    recording = Recording(events)
    given, traces = [], []
    for seat in (None, "one", "two"):
        file = tmp_path / f"{seat}.mjs"
        file.write_text(profile_module(PageProfile(profile, "two.toml", TWO_PLAYERS, seat=seat)))
        given.append(
            {"module": str(file), "events": plain(recording), "hz": 60.0, "mode": "yard", "wantsRows": False}
        )
        traces.append(shape(recording, profile, 60.0, seat=seat))
    for trace, found in zip(traces, run_in_node(tmp_path, given), strict=True):
        assert differences(trace, found) == []
    ends = [(round(trace["pos_x"].iloc[-1], 3), round(trace["pos_y"].iloc[-1], 3)) for trace in traces]
    assert len(set(ends)) == 3


@pytest.mark.long
@needs_node
def test_a_page_by_itself_ramps_and_smooths_what_its_file_does_not(tmp_path):
    """With 0 s it plays as the file does, to a tenth of a millimetre: a nanosecond of smoothing straightens the bend
    where a ramp ends. With more it plays as Python does.
    """
    jobs, given = [], []
    for name in ("beekeeper", "scout", "tablet"):
        profile, text = demo_profile(name), (FOLDER / f"{name}.toml").read_text()
        file = tmp_path / f"{name}.mjs"
        both = "export const { controls, profiles: [profile] } = globalThis.wendonicGiven;"
        file.write_text(given_module([PageProfile(profile, name, text)]) + both)
        trace = traced(profile)
        by_itself = traced(softened(profile, dict(zip(trace.paths, trace.values, strict=True))))
        paths = [path for path, value in zip(by_itself.paths, by_itself.values, strict=True) if value == LEAST]
        assert by_itself.paths == trace.paths
        recording = beginning(demo_recording(next(one for one, of in RECORDINGS.items() if of == name)))
        mode = next(iter(profile.mode))
        for changes in ({}, {path: 0.2 if path.endswith("turn_loss") else 0.05 for path in paths}):
            jobs.append((profile.changed(changes), recording, mode, 1e-9 if changes else 1e-4))
            module = {"module": str(file), "events": plain(recording), "hz": 60.0, "mode": mode, "wantsRows": False}
            given.append({**module, "changes": changes})
    for (profile, recording, mode, share), found in zip(jobs, run_in_node(tmp_path, given), strict=True):
        assert differences(shape(recording, profile, 60.0, mode), found, share) == [], (profile.title, share)


def evaluated(text, values):
    names = {"math": math, "v": values}
    return eval(
        text.replace("Math.abs", "abs")
        .replace("Math.", "math.")
        .replace("Infinity", "math.inf")
        .replace("===", "=="),
        {},
        names,
    )


@pytest.mark.long
def test_formulas_give_the_numbers_of_a_changed_profile_or_say_that_its_structure_is_another():
    """Every number of a profile is changed by turns, and many at once; no number may be silently wrong."""
    rng = random.Random(7)
    known = words_known()
    profiles = [demo_profile(name) for name in profile_names()] + [random_profile(rng, known)[1] for _ in range(6)]
    held = broken = 0
    for profile in profiles:
        trace, content = traced(profile), profile.file_content()
        inherits = inherited_paths(profile, trace.paths)
        changes = [{path: nudge} for path, nudge in nudges(profile, trace.paths, rng)]
        singles = [change for change in changes if change]
        changes += [dict(item for one in rng.sample(singles, 3) for item in one.items()) for _ in range(8)]
        for change in changes:
            try:
                changed = Profile.from_content(content, change)
            except (WendonicError, ValueError):
                continue
            if any(value_at(changed, path) != value for path, value in change.items()):
                # A field that does nothing here is put back to rest.
                continue
            now = dict(zip(trace.paths, trace.values, strict=True)) | change
            for path, other in inherits.items():
                if path not in change:
                    now[path] = now[other]
            values = [now[path] for path in trace.paths]
            for mode in profile.mode:
                before = mode_tuning(profile, mode).tick
                numbers = [place for place, one in enumerate(flat(before)) if isinstance(one, float)]
                formulas = trace.formulas(mode, False, tuple(numbers))
                after = mode_tuning(changed, mode)
                if not all(evaluated(text, values) == wanted for text, wanted in formulas.conditions):
                    broken += 1
                    continue
                held += 1
                assert structure_of(after.tick, EMPTY_SAMPLE) == structure_of(before, EMPTY_SAMPLE), (change, mode)
                wanted = flat(after.tick)
                for place, text in zip(numbers, formulas.numbers, strict=True):
                    found = evaluated(text, values)
                    close = found == wanted[place] or math.isclose(found, wanted[place], rel_tol=1e-14)
                    assert close, (change, mode, paths_of(before)[place], text)
                size, x, y = (evaluated(text, values) for text in formulas.square)
                grid = after.tick.frame.grid
                assert (size, x, y) == (grid.square_m, grid.middle.x, grid.middle.y)
    assert held > 450
    assert broken > 40


def nudges(profile, paths, rng):
    for path in rng.sample(paths, min(len(paths), 24)):
        try:
            low, high = limits_of(profile, path)
        except WendonicError:
            continue
        value = rng.choice([0.0, 0.3, 0.9, 1.7, 4.0]) * rng.choice([1.0, 10.0])
        yield path, min(max(value, low), high)


@pytest.mark.parametrize(
    ("function", "at"), [(radians, 30.0), (tan, 0.4), (atan, 2.0), (sqrt, 2.0), (log1p, -0.3), (abs, -2.0)]
)
def test_traced_numbers_compute_like_plain_ones_and_record_their_formulas(function, at):
    number = Traced(at, "v[0]", Tracing())
    for made in (
        function(number),
        -(function(number) ** 2.0),
        3.0 / (1.0 - function(number)),
        2.0 - number * 4.0 + 1.0,
    ):
        assert evaluated(made.text, [at]) == made.value
    assert function(number).value == function(at)
    with pytest.raises(TypeError):
        # What does not know of traced numbers must not quietly take them for plain ones.
        math.cos(number)
