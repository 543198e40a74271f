"""Write docs/quantities.md from the definitions themselves; a test holds the page against them.

python docs/write_quantities.py
"""

import inspect
import re
from pathlib import Path

from wendonic.study.quantities import QUANTITIES
from wendonic.study.thresholds import THRESHOLDS, Thresholds

PAGE = Path(__file__).with_name("quantities.md")
HEAD = """# Quantities of the feel sheet

What `wendonic measure` reads off, written by `docs/write_quantities.py`. Times count from the raw change. A quantity
that a mode does not have, or that could not be measured, has no value and says why.

A mode is measured by one device: the one that `--by` names, else the one with the most directions, keys first. It is
measured forward; where it does not go forward, to the right, back, or to the left. With `--while` a press stays held.

| quantity | unit | what it is |
|---|---|---|
"""
THRESHOLD_HEAD = """
## Thresholds

Every number that the definitions depend on, from `wendonic.study.thresholds`. `--tilt`, `--hz` and `--goal` ask for
another `tilt`, `hz` and `goal_m`.

| threshold | value | what it is |
|---|---|---|
"""


def threshold_sentences() -> dict[str, str]:
    """Return what each threshold is, as its own line in the source says."""
    source = inspect.getsource(Thresholds)
    return dict(re.findall(r'    (\w+): float = [^\n]+\n    """(.+?)"""', source, re.DOTALL))


def page() -> str:
    """Return the page."""
    rows = [f"| `{one.name}` | {one.unit} | {one.definition} |" for one in QUANTITIES.values()]
    sentences = threshold_sentences()
    limits = [f"| `{name}` | {value:g} | {sentences[name]} |" for name, value in THRESHOLDS._asdict().items()]
    return HEAD + "\n".join(rows) + "\n" + THRESHOLD_HEAD + "\n".join(limits) + "\n"


if __name__ == "__main__":
    PAGE.write_text(page(), encoding="utf-8")
    print(f"wrote {PAGE}")
