"""The page of controls."""

from pages.markdown import table, written_by
from wendonic.devices.other_names import PAD_NAMES
from wendonic.reference.controls import control_groups

HEAD = """# Controls

Every control has a dotted name and reports in the open standard of its device; signs are turned once, inside.
In the terminal: `wendonic controls pad`.

"""


def page() -> str:
    """Return the page."""
    parts = [written_by(), HEAD]
    for group in control_groups():
        parts.append(f"## {group.device}\n\n{group.about}\n\n")
        rows = [(", ".join(f"`{name}`" for name in line.names), line.what, line.values) for line in group.lines]
        parts.append(table(("control", "what it is", "values"), rows) + "\n")
    others: dict[str, list[str]] = {}
    for other, name in PAD_NAMES.items():
        others.setdefault(name, []).append(other)
    parts.append("## What pads call them\n\nOther names of a pad's controls, as messages recognise them.\n\n")
    parts.append(
        table(("control", "also called"), [(f"`pad.{name}`", ", ".join(more)) for name, more in others.items()])
    )
    return "".join(parts)
