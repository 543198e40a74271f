"""The page of words: what Wendonic calls things, and what words of the trade are called here."""

from collections.abc import Mapping

from pages.markdown import table, written_by
from wendonic.profile.trade_words import TRADE_WORDS, TradeWord
from wendonic.reference.own_words import OWN_WORDS

HEAD = """# Words

In the terminal: `wendonic explain coyote time`.

## Words of Wendonic

What the pages, the messages and the names mean by them.

"""

TRADE = """
## Trade words

Words you may know, and where each of them is found here.

"""


def page() -> str:
    """Return the page."""
    return (
        written_by()
        + HEAD
        + _rows(OWN_WORDS)
        + TRADE
        + _rows(dict(sorted(TRADE_WORDS.items(), key=lambda one: one[0].lower())))
    )


def _rows(words: Mapping[str, TradeWord]) -> str:
    rows = []
    for word, found in words.items():
        names = [f"`{name}`" for name in (*found.fields, *found.see)]
        rows.append((word, found.means, ", ".join(names)))
    return table(("word", "what it means", "look at"), rows)
