"""The page of trace columns."""

from pages.markdown import table, written_by
from wendonic.batch.column_words import COLUMNS

HEAD = """# Trace columns

A trace is what a recording becomes under a profile, one row a tick: `wendonic shape PROFILE RECORDING -o walk.csv`
(or `.parquet`, `.jsonl`), and from Python `wendonic.shape(recording, profile, hz=60)`, a pandas DataFrame.

Places and directions are in the plan frame, whatever axes the game has: x to the right (east), y forward (north), z
up, in metres; headings are compass headings, clockwise from y. `PRESS` stands for the name of each press.

"""


def page() -> str:
    """Return the page."""
    rows = [(f"`{name}`", words.unit, words.what, words.when) for name, words in COLUMNS.items()]
    return written_by() + HEAD + table(("column", "unit", "what it holds", "only with"), rows)
