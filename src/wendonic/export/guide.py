"""The page that explains how to feed exported source."""

from collections.abc import Mapping
from typing import TYPE_CHECKING

from wendonic.export.build import Made
from wendonic.export.feeds import Feed
from wendonic.export.guide_crossings import changes_of_mode
from wendonic.export.inputs import WINDOW
from wendonic.export.languages.structs import settings_of
from wendonic.export.languages.words import about, adjustable, course_words
from wendonic.export.package import Package, game_values
from wendonic.export.program import Field
from wendonic.export.reported import reported_by

if TYPE_CHECKING:
    from wendonic.export.targets import Target
    from wendonic.export.vectors import Vectors

CALLS = {
    "c99": (
        "Once, for each body: `{stem}_{mode}begin(&state, &result)` and `{stem}_{mode}input_at_rest(&input)`. Every "
        "tick: set the fields of `input`, then call `{stem}_{mode}tick(&state, &input, {more}dt, &result)`."
    ),
    "javascript": (
        "Once, for each body: `const body = new {Class}()` and `const input = new{Mode}Input()`. Every tick: set the "
        "fields of `input`, then call `body.tick(input, {more}dt)`; it returns `body.result`."
    ),
    "csharp": (
        "Once, for each body: `var body = new {Stem}.{Class}()` and `var input = new {Stem}.{Mode}Input()`. "
        "Every tick: set the fields of `input`, then call `body.Tick(input, {more}dt)` and read `body.State` and "
        "`body.Result`."
    ),
    "lua": (
        "Once, for each body: `profile.new_{mode}state()`, `profile.new_{mode}input()` and "
        "`profile.new_{mode}result()`. Every tick: set the fields of `input`, then call "
        "`profile.{mode}tick(state, input, {more}dt, result)`."
    ),
    "python": (
        "Once, for each body: `{Mode}State()`, `{Mode}Input()` and `{Mode}Result()`. Every tick: set the fields of "
        "the input, then call `{mode}step(state, given, {more}dt, result)`."
    ),
}

SAID = {
    "c99": "{stem}_{mode}{name}(&state, {given})",
    "javascript": "body.{camelName}({given})",
    "csharp": "body.{Name}({given})",
    "lua": "profile.{mode}{name}(state, {given})",
    "python": "{mode}{name}(state, {given})",
}
"""How a game reports the body's place, velocity and facing."""

REPORTED = {
    "c99": "{stem}_{mode}{name}({given})",
    "javascript": "{camelName}({given})",
    "csharp": "{Stem}.{Name}({given})",
    "lua": "profile.{mode}{name}({given})",
    "python": "{mode}{name}({given})",
}
"""How a game passes on the reports of devices."""

COURSES = {
    "c99": "{stem}_course",
    "javascript": "COURSE",
    "csharp": "{Stem}.Course",
    "lua": "profile.COURSE",
    "python": "COURSE",
}
"""Names of the course in the source."""


def guide(package: Package, target: "Target", vectors: Mapping[str, "Vectors"]) -> str:
    """Return the page."""
    lines = [f"# {package.title}, in {target.words}", "", about(package), ""]
    for made in package.modes:
        lines += _mode(package, target, made, vectors[made.mode])
    lines += changes_of_mode(package, target)
    lines += [
        "## Proof",
        "",
        "The runner replays the test vectors and prints one line: how many ticks there were, and the worst",
        "difference, as a share of the largest number of its column (1 at least). Columns of whole numbers have to",
        "be equal.",
        "",
    ]
    return "\n".join(lines)


def _mode(package: Package, target: "Target", made: Made, vectors: "Vectors") -> list[str]:
    from wendonic.export.languages.csharp import pascal
    from wendonic.export.languages.javascript import camel

    program = made.program
    prefix, word = package.prefix(made), package.word(made.mode)
    more = ("settings, " if adjustable(program) else "") + ("course, " if "course" in program.tick.context else "")
    name = "".join(part.capitalize() for part in prefix.split("_"))
    words = {
        "stem": package.stem,
        "Stem": pascal(package.stem),
        "mode": prefix,
        "Mode": name,
        "Class": (pascal(f"{word}_body" if target.name == "csharp" else word)),
        "more": more.replace("settings", "&settings") if target.name == "c99" else more,
    }
    lines = [f"## Mode `{made.mode}`", "", CALLS[target.name].format(**words), ""]
    lines += [
        "`dt` is in seconds. A tick of 0 s changes nothing; one that is too long is cut into equal parts. Counts and",
        "edges are those since the last tick of more than 0 s. A press goes down with one edge and up with another;",
        "a tap between two ticks has two. Inputs are finite numbers within their ranges: a tick does not check them.",
        "",
    ]
    if made.door.feeds:
        lines += ["Set the fields yourself, or use these functions:", ""]
        for feed in made.door.feeds:
            lines.append(f"- `{_reported(feed, target, words, prefix)}`: {_lower_first(feed.about)}")
        lines.append("")
    if "course" in program.tick.context:
        course = COURSES[target.name].format(**words)
        lines += [f"`course` is a row of numbers, as `{course}` is: {_lower_first(course_words(package))}", ""]
    said = package.corrections_of(made)
    if said:
        lines += ["If the game moves the body itself, it reports that before a tick:", ""]
        for one in said:
            names = {"name": one.name, "camelName": camel(one.name), "Name": pascal(one.name)}
            call = SAID[target.name].format(**words, **names, given=", ".join(one.parameters))
            lines.append(f"- `{call}`: {_lower_first(one.about)}")
        lines.append("")
        walls = [f"`{target.field_name(one.name)}`" for one in program.inputs if one.name.startswith("wall_")]
        if walls:
            lines += [
                f"After a wall, set its normal among the raw inputs, too ({', '.join(walls)}): then what ramps and",
                "smoothing still hold against it is forgotten, and the way back begins at once. A helm infers that",
                "from the velocity; this source does not.",
                "",
            ]
    window = [one for one in made.door.inputs if one.name == WINDOW]
    lines += _table("Raw inputs", [*program.inputs, *window], target)
    if made.door.finger:
        lines += _table("Fields of a finger", made.door.finger, target)
    lines += _table(
        "What a tick gives in the game's axes", [one for one, _ in game_values(made, package.axes)], target
    )
    lines += _in_the_plan(made, target)
    settings = settings_of(program)
    if settings:
        lines += _table("Numbers that stay adjustable", settings, target)
    lines += [
        f"Test vectors: {len(vectors.rows)} ticks, which take {vectors.reached} of {vectors.branches} branches "
        f"({100.0 * vectors.share:.1f} % of those in which all languages agree).",
        "",
    ]
    reasons = {
        f"Not taken, as the test came out the other way in all {len(vectors.rows)} ticks: a guard against what these "
        "numbers or these sources never ask for, or what is rarer than this play": vectors.one_way,
        "Not taken, as no play reached the test": vectors.not_come_to,
        "Left out, as there the last digit decides, and no two languages go the same way": vectors.by_a_hair,
    }
    for reason, branches in reasons.items():
        if branches:
            lines += [f"{reason}:", "", *[f"- `{branch}`" for branch in branches], ""]
    return lines


def _in_the_plan(made: Made, target: "Target") -> list[str]:
    lines = [
        "### What a tick gives in the plan",
        "",
        "These are the same whatever the game's axes are, and the test vectors check them; x is right (east), y is",
        "forward (north).",
        "",
        "| struct | field | what it is |",
        "| --- | --- | --- |",
    ]
    lines += [f"| {one.struct} | `{target.field_name(one.name)}` | {one.what} |" for one in reported_by(made)]
    return [*lines, ""]


def _lower_first(sentence: str) -> str:
    """Return a sentence as it continues after a colon."""
    return sentence[0].lower() + sentence[1:]


def _reported(feed: Feed, target: "Target", words: Mapping[str, str], prefix: str) -> str:
    from wendonic.export.languages.csharp import pascal
    from wendonic.export.languages.javascript import camel

    structs = {"raw": "given" if target.name == "python" else "input", "finger": "finger"}
    given = [f"&{structs[one]}" if target.name == "c99" else structs[one] for one in feed.structs]
    given += [camel(name) if target.name == "javascript" else name for name in feed.function.parameters]
    name = feed.function.name
    names = {"name": name, "camelName": camel(f"{prefix}{name}"), "Name": pascal(f"{prefix}{name}")}
    return REPORTED[target.name].format(**words, **names, given=", ".join(given))


def _table(title: str, fields: list[Field], target: "Target") -> list[str]:
    lines = [f"### {title}", "", "| field | what it is |", "| --- | --- |"]
    lines += [f"| `{target.field_name(one.name)}` | {one.about or ' '} |" for one in fields]
    return [*lines, ""]
