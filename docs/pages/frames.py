"""The page of steer frames, each with a drawing of what forward means."""

from pages.fields import field_rows
from pages.markdown import flat, table, written_by
from wendonic.profile.schema.profile import Profile
from wendonic.reference.tables import groups_of

HEAD = """# Steer frames

A steer frame says what *forward* means: `steer = { frame = "camera" }` of a mode. In the drawings the
world's forward is up. The wedge is where the camera looks, the dashed line is forward, the open arrow is where the body
faces, and the solid arrow is where it goes, as long as its amount. The small circle has what the player does, forward
up. `wendonic draw frame PROFILE RECORDING` draws the same for your own.

"""


def page() -> str:
    """Return the page."""
    group = next(one for one in groups_of(Profile) if one.place == "mode.NAME.steer")
    parts = [written_by(), HEAD]
    rows = [(f"[`{one.chosen}`](#{one.chosen})", one.summary) for one in group.tables]
    parts.append(table(("frame", "forward"), rows))
    for one in group.tables:
        name = one.chosen
        parts.append(f"\n## {name} {{#{name}}}\n\n{flat(one.about)}\n\n")
        parts.append(f"![What forward means in frame {name}](../pictures/frame_{name}.png)\n\n")
        parts.append(f"Example: `examples/steer_{name}.py`\n\n")
        parts.append(table(("field", "holds", "what it does"), field_rows(group.own(one))))
    parts.append("\n## Fields of every frame\n\n")
    parts.append(table(("field", "holds", "what it does"), field_rows(group.common)))
    return "".join(parts)
