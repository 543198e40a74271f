"""The page of quantities."""

import inspect
import re

from pages.markdown import table, written_by
from wendonic.study.quantities import QUANTITIES
from wendonic.study.thresholds import THRESHOLDS, Thresholds

HEAD = """# Quantities of the feel sheet

What `wendonic measure` reads off. Times count from the raw change. A quantity that a mode does not have, or that could
not be measured, has no value and says why.

A mode is measured by one device: the one that `--by` names, else the one with the most directions, keys first. It is
measured forward; where it does not go forward, to the right, back, or to the left. With `--while` a press stays held.

"""
THRESHOLD_HEAD = """
## Thresholds

Every number that the definitions depend on, from `wendonic.study.thresholds`. `--tilt`, `--hz` and `--goal` ask for
another `tilt`, `hz` and `goal_m`.

"""


def threshold_sentences() -> dict[str, str]:
    """Return what each threshold is, as its own line in the source says."""
    source = inspect.getsource(Thresholds)
    return dict(re.findall(r'    (\w+): float = [^\n]+\n    """(.+?)"""', source, re.DOTALL))


def page() -> str:
    """Return the page."""
    rows = [(f"`{one.name}`", one.unit, one.definition) for one in QUANTITIES.values()]
    sentences = threshold_sentences()
    limits = [(f"`{name}`", f"{value:g}", sentences[name]) for name, value in THRESHOLDS._asdict().items()]
    parts = [written_by(), HEAD, table(("quantity", "unit", "what it is"), rows)]
    return "".join([*parts, THRESHOLD_HEAD, table(("threshold", "value", "what it is"), limits)])
