"""The runner in JavaScript."""

from wendonic.export.languages.javascript import JavaScriptPackage, camel
from wendonic.export.languages.words import adjustable
from wendonic.export.made_ground import grounds_of
from wendonic.export.package import Package
from wendonic.export.vectors import vectors_name

TEXT = """// Replays the test vectors: reads them, ticks, and compares every number.
import {{ readFileSync }} from "node:fs";
import * as profile from "./{stem}.js";

let ticks = 0;
let worst = 0.0;
let faults = 0;

/** @param {{string}} name */
function camel(name) {{
    return name.replace(/_+([a-z0-9])/g, (_, letter) => letter.toUpperCase());
}}

function run(mode, file, makeBody, makeInput, more, grounds) {{
    const lines = readFileSync(new URL(file, import.meta.url), "utf8").trimEnd().split("\\n");
    const names = lines[0].split(",");
    const rows = lines.slice(1).map((line) => line.split(",").map(Number));
    const first = names.findIndex((name) => name.startsWith("want_"));
    const inputs = names.slice(2, first).map(camel);
    const wanted = names.slice(first).map((name) => camel(name.slice(5)));
    const whole = wanted.map((_, k) => rows.every((row) => Number.isInteger(row[first + k])));
    const largest = wanted.map((_, k) => rows.reduce((most, row) => Math.max(most, Math.abs(row[first + k])), 1.0));
    const input = makeInput();
    let body = makeBody();
    let ground = [];
    for (const [number, row] of rows.entries()) {{
        if (row[0] > 0.0) {{
            body = makeBody();
            ground = grounds.slice(Math.floor((row[0] - 1) / 2)).slice(0, 1);
        }}
        wanted.forEach((name, k) => {{
            if (row[0] > 0.0 && row[0] % 2 === 0 && name in body.state) body.state[name] = row[first + k];
        }});
        inputs.forEach((name, k) => {{
            input[name] = row[2 + k];
        }});
        body.tick(input, ...more, ...ground, row[1]);
        wanted.forEach((name, k) => {{
            const found = name in body.state ? body.state[name] : body.result[name];
            const difference = Math.abs(found - row[first + k]) / largest[k];
            if (difference > worst) worst = difference;
            if (whole[k] ? !(difference === 0.0) : !(difference <= 1e-12)) {{
                faults += 1;
                const where = `${{mode}}, tick ${{number + 1}}, ${{name}}`;
                if (faults <= 3) console.error(`${{where}}: ${{found}}, wanted ${{row[first + k]}}`);
            }}
        }});
    }}
    ticks += rows.length;
}}

"""


def javascript_runner(package: Package) -> dict[str, str]:
    """Return the runner by its file's name."""
    printed = JavaScriptPackage(package)
    text = TEXT.format(stem=package.stem)
    if any("course" in made.program.tick.context for made in package.modes):
        rows = "".join(f"    [{', '.join(map(repr, row))}],\n" for row in grounds_of(package.course))
        text += f"const grounds = [\n{rows}];\n"
    for made in package.modes:
        more, grounds = [], "[]"
        if adjustable(made.program):
            more.append(f"profile.{printed.maker(made, 'settings')}()")
        if "course" in made.program.tick.context:
            grounds = "grounds"
        name, input_maker = printed.class_name(made) or "Body", printed.maker(made, "input")
        text += (
            f'run("{package.word(made.mode)}", "./{vectors_name(package, made)}", () => new profile.{name}(), '
            f"profile.{input_maker}, [{', '.join(more)}], {grounds});\n"
        )
    text += (
        "console.log(`${ticks} ticks, worst difference ${worst.toExponential(1)}`);\n"
        "process.exitCode = faults > 0 ? 1 : 0;\n"
    )
    return {f"{package.stem}_runner.js": text, "package.json": '{ "type": "module", "private": true }\n'}


__all__ = ["camel", "javascript_runner"]
