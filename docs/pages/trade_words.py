"""The page of trade words: what each is called here."""

from pages.markdown import table, written_by
from wendonic.profile.trade_words import TRADE_WORDS

HEAD = """# Trade words

Words you may know, and where each of them is found here. In the terminal: `wendonic explain coyote time`.

"""


def page() -> str:
    """Return the page."""
    rows = []
    for word, found in TRADE_WORDS.items():
        names = [f"`{name}`" for name in (*found.fields, *found.see)]
        rows.append((word, found.means, ", ".join(names)))
    return written_by() + HEAD + table(("word", "what it means", "look at"), rows)
