"""The page of formulas, in the order of a tick."""

import re
from itertools import groupby

from pages.markdown import anchor, table, written_by
from wendonic.reference.formulas import FORMULAS, Formula

HEAD = """# Formulas

What a setting does in numbers, in the order of a tick. The names are fields of a profile, in the units that their names
say; the notation is Python's, with the functions of `math`. A test evaluates every formula as it is printed here, and
compares it with what a helm does, or with its kernel where a helm shows it only together with others. In the terminal:
`wendonic explain wedge`.

A tick of any length has the same formulas: what ramps, fades, accelerates or falls within it is integrated, not stepped.

"""


def _setting(formula: Formula) -> str:
    if "=" in formula.of:
        return f"`{formula.of}`"
    return re.sub(r"\w+", lambda word: f"`{word[0]}`" if word[0] in formula.names else word[0], formula.of)


def _row(formula: Formula) -> tuple[str, str, str]:
    source = f" ({formula.source})" if formula.source else ""
    return _setting(formula), f"{formula.gives} = `{formula.expression}`{source}", formula.given


def page() -> str:
    """Return the page."""
    parts = [written_by(), HEAD]
    for step, formulas in groupby(FORMULAS, key=lambda formula: formula.step):
        parts.append(
            f"## {step} {{#{anchor(step)}}}\n\n{table(('setting', 'formula', 'where'), map(_row, formulas))}\n"
        )
    return "".join(parts).rstrip("\n") + "\n"
