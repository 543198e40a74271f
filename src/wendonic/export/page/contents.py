"""A profile as the module that the page runs: everything that the page has to know about it, in JavaScript."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from wendonic import __version__
from wendonic.course import Course
from wendonic.export.page.bindings import control_table
from wendonic.export.page.edits import text_edits
from wendonic.export.page.fields import field_contents
from wendonic.export.page.formulas import traced
from wendonic.export.page.inherited import inherited_paths
from wendonic.export.page.mode_contents import crossing_contents, made_runs, mode_text
from wendonic.export.page.softened import softened, with_least
from wendonic.export.page.tick_text import constants
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.profile.schema.profile import Profile


@dataclass(frozen=True)
class PageProfile:
    """A profile, the course that it is tried on, and the player's seat, as the page has them."""

    profile: Profile
    name: str
    text: str = ""
    course: Course | None = None
    seat: str | None = None


def profile_expression(one: PageProfile, by_itself: bool = False) -> str:
    """Return a profile as an expression in JavaScript; `constants()` has to come before it. A page that is
    `by_itself` has no Python to write its file or to make other forms: it knows where each number is in its text, and
    can ramp and smooth.
    """
    profile = one.profile
    course = one.course.numbers if one.course else NO_COURSE
    on_course = one.course is not None
    trace = traced(profile)
    run_by = softened(profile, dict(zip(trace.paths, trace.values, strict=True))) if by_itself else profile
    formulas = traced(run_by)
    changed = enumerate(zip(trace.values, formulas.values, strict=True))
    zeros = frozenset(index for index, (value, run_value) in changed if value != run_value)
    runs = made_runs(run_by, course, on_course, one.seat)
    axes = profile.world.axes
    modes = [
        f"{json.dumps(name)}: {with_least(mode_text(run, profile, formulas, on_course), zeros)}"
        for name, run in runs.items()
    ]
    plain: dict[str, Any] = {
        "version": __version__,
        "name": one.name,
        "title": f"{profile.title or one.name}{f', seat {one.seat}' if one.seat else ''}",
        "text": one.text,
        "pressNames": list(profile.press_names),
        "unit": axes.unit,
        "unitsPerM": axes.units_per_m,
        "course": list(course),
        "values": list(trace.values),
        "paths": list(trace.paths),
        "inherits": inherited_paths(profile, trace.paths),
        "fields": field_contents(profile, trace.paths, trace.used(modes)),
        "crossings": crossing_contents(run_by, runs),
        "leaveTo": {name: mode.leave_to for name, mode in profile.mode.items()},
    }
    if by_itself:
        plain["edits"] = text_edits(profile, one.text, trace.paths)
    parts = [f"{json.dumps(name)}: {json.dumps(part)}" for name, part in plain.items()]
    return "{" + ",\n".join([*parts, '"modes": {' + ",\n".join(modes) + "}"]) + "}"


def profile_module(one: PageProfile) -> str:
    """Return the module that exports `controls` and `profile`."""
    controls = json.dumps(control_table())
    return f"{constants()}export const controls = {controls};\nexport const profile = {profile_expression(one)};\n"


def given_module(profiles: Sequence[PageProfile]) -> str:
    """Return the module that hands some profiles to a page without a server."""
    controls = json.dumps(control_table())
    made = ",\n".join(profile_expression(one, by_itself=True) for one in profiles)
    return f"{constants()}globalThis.wendonicGiven = {{controls: {controls}, profiles: [{made}]}};\n"
