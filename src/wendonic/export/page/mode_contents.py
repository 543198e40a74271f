"""One mode for the page: its tick function in JavaScript, and the positions of everything in its rows."""

import json
import re
from collections.abc import Mapping, Sequence
from typing import Any

from wendonic.batch.columns import columns_of
from wendonic.compiler.layout import Layout
from wendonic.devices.sampler import CHANNELS
from wendonic.devices.sources.base import Source
from wendonic.devices.sources.pointer import PointerSource
from wendonic.devices.sources.touch import TouchStickSource
from wendonic.export.page.bindings import bindings
from wendonic.export.page.formulas import Formulas, TracedProfile, text_of
from wendonic.export.page.tick_text import tick_text
from wendonic.kernels.press.press import STYLE_TOGGLE
from wendonic.kernels.row import Row
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.cells import Cells
from wendonic.runtime.crossing import Crossing
from wendonic.runtime.helm import crossings_of
from wendonic.runtime.lone_control import lone_control
from wendonic.runtime.mode_run import ModeRun

Content = dict[str, Any]

DOOR_NUMBERS: dict[type[Source], str] = {TouchStickSource: "radius", PointerSource: "reach"}
"""Numbers of sources that can be changed during play."""


def mode_text(run: ModeRun, profile: Profile, traced: TracedProfile, on_course: bool) -> str:
    """Return a mode as an expression in JavaScript."""
    formulas = traced.formulas(run.name, on_course, run.ready.indices)
    code = {
        "make": tick_text(run.ready.text),
        "numbers": f"(v) => [{', '.join(formulas.numbers)}]",
        "square": f"(v) => [{', '.join(formulas.square)}]",
        "holds": _conditions(formulas),
        "doorNumbers": _door_numbers(run, traced),
    }
    parts = [f"{json.dumps(name)}: {json.dumps(part)}" for name, part in mode_contents(run, profile).items()]
    parts += [f"{json.dumps(name)}: {part}" for name, part in code.items()]
    return "{" + ",\n".join(parts) + "}"


def _door_numbers(run: ModeRun, traced: TracedProfile) -> str:
    """Return a function that returns the numbers that the door itself reads, by channel, entry and name."""
    found: list[str] = []
    for channel, sources in zip(CHANNELS, run.sampler.sources.channels, strict=True):
        table: Any = getattr(traced.profile.mode[run.name], channel)
        for index, source in enumerate(sources):
            name = DOOR_NUMBERS.get(type(source))
            if name:
                found.append(f'["{channel}", {index}, "{name}", {text_of(getattr(table.bind[index], name))}]')
    return f"(v) => [{', '.join(found)}]"


def _conditions(formulas: Formulas) -> str:
    kept = [text if wanted else f"!{text}" for text, wanted in formulas.conditions if "v[" in text]
    return f"(v) => {' && '.join(kept) or 'true'}"


def mode_contents(run: ModeRun, profile: Profile) -> Content:
    """Return what the page needs of a mode."""
    axes, layout, tuning = run.reader.axes, run.layout, run.tuning
    return {
        "name": run.name,
        "layout": {
            "state": layout.state,
            "width": layout.width,
            "indices": {".".join(path): index for path, index in layout.indices.items() if index >= 0},
        },
        "recordAtRest": list(run.record_at_rest),
        "tables": list(run.ready_tables),
        "bindings": bindings(run.sampler),
        "cells": {
            name: cells_content(cells)
            for name, cells in (
                ("body", run.body),
                ("view", run.view),
                ("square", run.square),
                ("turnedTo", run.turned_to),
                ("safe", run.safe_place),
            )
        },
        "presses": [cells_content(cells) for cells in run.presses],
        "airborne": cells_content(run.airborne) if run.airborne else None,
        "comfort": tuning.comfort.used > 0,
        "onSquares": run.on_squares,
        "squareAxes": [list(axes.level_from_plan(x, y)) for x, y in ((1.0, 0.0), (0.0, 1.0))],
        "pressStyles": run.press_styles,
        "toggles": [
            [number, lone_control(profile.mode[run.name], profile.press_names[number], binds)]
            for number, (style, binds) in enumerate(zip(run.press_styles, run.sampler.sources.presses, strict=True))
            if style == STYLE_TOGGLE
        ],
        "carries": run.carries,
        "enters": [[index, mode] for index, mode in run.enters],
        "source": run.source_index,
        "columns": _columns(layout, run, profile.press_names),
        "gaits": list(profile.gaits_of(run.name)),
        "frame": profile.mode[run.name].steer.frame,
        "sideView": getattr(profile.mode[run.name].steer, "side_view", False),
        "sourceNames": {channel: _source_names(profile, run.name, channel) for channel in CHANNELS},
    }


def _columns(layout: Layout, run: ModeRun, press_names: Sequence[str]) -> list[list[Any]]:
    """Return the name and kind of each column, and for each number that it reads the index, or the number itself in a
    list.
    """

    def number(path: tuple[str, ...]) -> Any:
        index = layout.indices.get(("outcome", *path), -1)
        return index if index >= 0 else [layout.constants[("outcome", *path)]]

    return [
        [name, column.kind, [number(path) for path in column.paths]]
        for name, column in columns_of(run.tuning, press_names).items()
    ]


def _source_names(profile: Profile, mode: str, channel: str) -> list[str]:
    """Return the name of each entry of a channel: its control, or its kind if it has many controls."""
    table: Any = getattr(profile.mode[mode], channel)
    names: list[str] = []
    for bind in table.bind if table else ():
        controls = list(dict.fromkeys(re.sub(r"\.[xy]$", "", name) for name in bind.controls()))
        device = controls[0].partition(".")[0] if controls else "entry"
        kind = {"key": "keys", "hand": "hands"}.get(device, device)
        names.append(controls[0] if len(controls) == 1 and device != "key" else kind)
    several = {name for name in names if names.count(name) > 1}
    return [f"{name} {index + 1}" if name in several else name for index, name in enumerate(names)]


def cells_content(cells: Cells) -> Content:
    """Return the positions of some numbers of a record."""
    return {
        "sources": cells.sources,
        "constants": cells.constants,
        "targets": [list(one) for one in cells.targets],
    }


def crossing_contents(profile: Profile, runs: Mapping[str, ModeRun]) -> Content:
    """Return how each mode is entered from each other, by the names of both."""
    found: dict[tuple[str, str], Crossing] = {}
    ready: list[ModeRun] = []
    for run in runs.values():
        found |= crossings_of(profile, run, ready)
        found[run.name, run.name] = Crossing(run, run)
        ready.append(run)
    return {f"{old}>{new}": _crossing(crossing) for (old, new), crossing in found.items()}


def _crossing(crossing: Crossing) -> Content:
    movement = crossing.movement
    return {
        "sources": crossing.sources,
        "fixed": list(crossing.fixed),
        "movement": movement
        and {
            "copied": [list(pair) for pair in movement.copied],
            "held": [list(pair) for pair in movement.held],
            "lastSource": movement.last_source,
            "sourceNumbers": list(movement.source_numbers.items()),
        },
    }


def made_runs(profile: Profile, course: Row, on_course: bool, seat: str | None = None) -> dict[str, ModeRun]:
    """Return all modes of a profile, ready to run for the player in a seat."""
    axes = profile.world.axes
    return {name: ModeRun(profile, name, seat, course, axes, on_course) for name in profile.mode}
