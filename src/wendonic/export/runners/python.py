"""The runner in Python."""

from wendonic.export.languages.python import PythonPackage
from wendonic.export.languages.reserved import WORDS
from wendonic.export.languages.words import adjustable
from wendonic.export.made_ground import grounds_of
from wendonic.export.package import Package
from wendonic.export.vectors import vectors_name

TEXT = '''"""Replays the test vectors: reads them, ticks, and compares every number."""

import csv
import pathlib
import sys

import {stem} as profile

HERE = pathlib.Path(__file__).parent
RESERVED = {reserved}


def field(name):
    """Return a field's name in Python."""
    return f"{{name}}_" if name in RESERVED else name


def run(mode, file, step, make_state, make_input, make_result, more, grounds):
    """Return how many ticks there were, the worst difference, and how many faults."""
    with open(HERE / file, newline="", encoding="utf-8") as lines:
        names, *rows = csv.reader(lines)
    rows = [[float(part) for part in row] for row in rows]
    first = next(place for place, name in enumerate(names) if name.startswith("want_"))
    whole = [all(row[place].is_integer() for row in rows) for place in range(len(names))]
    largest = [max(1.0, *(abs(row[place]) for row in rows)) for place in range(len(names))]
    state, given, result = make_state(), make_input(), make_result()
    worst, faults, ground = 0.0, 0, ()
    for number, row in enumerate(rows, 1):
        if row[0] > 0.0:
            state, result = make_state(), make_result()
            ground = grounds[int(row[0] - 1) // 2 :][:1]
        for place in range(first, len(names)):
            name = field(names[place].removeprefix("want_"))
            if row[0] > 0.0 and row[0] % 2.0 == 0.0 and hasattr(state, name):
                setattr(state, name, row[place])
        for place in range(2, first):
            setattr(given, field(names[place]), row[place])
        step(state, given, *more, *ground, row[1], result)
        for place in range(first, len(names)):
            name = field(names[place].removeprefix("want_"))
            found = getattr(state, name) if hasattr(state, name) else getattr(result, name)
            difference = abs(found - row[place]) / largest[place]
            if difference > worst:
                worst = difference
            if not (difference == 0.0 if whole[place] else difference <= 1e-12):
                faults += 1
                if faults <= 3:
                    wanted = row[place]
                    print(f"{{mode}}, tick {{number}}, {{name}}: {{found!r}}, wanted {{wanted!r}}", file=sys.stderr)
    return len(rows), worst, faults


'''


def python_runner(package: Package) -> dict[str, str]:
    """Return the runner by its file's name."""
    printed = PythonPackage(package)
    text = TEXT.format(stem=package.stem, reserved=sorted(WORDS["python"]))
    if any("course" in made.program.tick.context for made in package.modes):
        rows = "".join(f"    ({', '.join(map(repr, row))}),\n" for row in grounds_of(package.course))
        text += f"GROUNDS = (\n{rows})\n"
    text += "RUNS = [\n"
    for made in package.modes:
        makers = ", ".join(f"profile.{printed.class_name(made, kind)}" for kind in ("state", "input", "result"))
        more = f"(profile.{printed.class_name(made, 'settings')}(),)" if adjustable(made.program) else "()"
        grounds = "GROUNDS" if "course" in made.program.tick.context else "()"
        step = f"profile.{package.prefix(made)}step"
        word = package.word(made.mode)
        text += f'    run("{word}", "{vectors_name(package, made)}", {step}, {makers}, {more}, {grounds}),\n'
    text += (
        "]\n"
        "TICKS, WORST = sum(one for one, _, _ in RUNS), max(one for _, one, _ in RUNS)\n"
        'print(f"{TICKS} ticks, worst difference {WORST:.1e}")\n'
        "sys.exit(any(faults for _, _, faults in RUNS))\n"
    )
    return {f"{package.stem}_runner.py": text}
