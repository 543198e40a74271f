"""The page of presses and their styles."""

from pages.fields import field_rows
from pages.markdown import flat, table, written_by
from wendonic.profile.schema.press import STYLES, PressTable
from wendonic.reference.tables import profile_tables

HEAD = """# Presses

A press is a named on/off thing the player does: `jump`, `sprint`, `menu`. In each tick it is `held` or not, and it may
have `began` or `ended`: `intent.press("jump").began`. Other names for it are action and button.

```toml
[mode.foot.press]
jump = { bind = ["key.Space", "pad.south"], buffer_s = 0.12, grace_s = 0.1 }
sprint = { bind = ["key.ShiftLeft"], style = "toggle" }
smoke = { bind = [{ control = "pad.right_trigger", above = 0.4, release = 0.3 }, "mouse.left"] }
up = { bind = ["ArrowUp", { stick = "pad.right_stick", towards = "up" }], style = "repeat" }
copy = { bind = ["ControlLeft+KeyC"] }
close = { bind = ["KeyC"], unless = ["ControlLeft"] }
```

A press that goes down and up between two ticks still counts for one tick.

## Styles

"""


def page() -> str:
    """Return the page."""
    tables = {one.kind.__name__: one for one in profile_tables() if ".press." in one.places[0]}
    press = tables.pop(PressTable.__name__)
    parts = [written_by(), HEAD]
    styles = [
        (f"`{name}`", STYLES[name].meaning, ", ".join(f"`{field}`" for field in STYLES[name].fields))
        for name in STYLES
    ]
    parts.append(table(("style", "when it is on", "numbers of its own"), styles))
    parts.append(f"\n## Fields\n\n{flat(press.about)}\n\n")
    parts.append(table(("field", "holds", "what it does"), field_rows(press.fields)))
    parts.append(
        "\n## What may press\n\nA key or button by its name, a chord of several joined by `+`, or a table:\n"
    )
    for one in tables.values():
        parts.append(f"\n### {one.choice}\n\n{flat(one.about)}\n\n")
        parts.append(table(("field", "holds", "what it does"), field_rows(one.fields)))
    return "".join(parts)
