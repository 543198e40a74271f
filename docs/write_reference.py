"""Write the pages of the reference from the definitions themselves; a test holds the pages against them.

python docs/write_reference.py
"""

import sys
from collections.abc import Callable
from pathlib import Path

FOLDER = Path(__file__).parent
sys.path.insert(0, str(FOLDER))

from pages import (  # noqa: E402
    columns,
    commands,
    controls,
    errors,
    fields,
    findings,
    formulas,
    frames,
    pictures_types,
    presses,
    quantities,
    recordings,
    trade_words,
)

PAGES: dict[str, Callable[[], str]] = {
    "profile": fields.profile_page,
    "course": fields.course_page,
    "controls": controls.page,
    "presses": presses.page,
    "frames": frames.page,
    "formulas": formulas.page,
    "quantities": quantities.page,
    "findings": findings.page,
    "columns": columns.page,
    "recordings": recordings.page,
    "errors": errors.page,
    "commands": commands.page,
    "trade_words": trade_words.page,
}
"""Every page by the name of its file in `docs/reference/`."""

FILES: dict[Path, Callable[[], str]] = {
    **{FOLDER / "reference" / f"{name}.md": page for name, page in PAGES.items()},
    FOLDER.parent / "src" / "wendonic" / "pictures" / "__init__.pyi": pictures_types.page,
}
"""Everything that is written."""


def main() -> None:
    """Write them all."""
    (FOLDER / "reference").mkdir(exist_ok=True)
    for path, text in FILES.items():
        path.write_text(text(), encoding="utf-8")
        print(f"wrote {path}")


if __name__ == "__main__":
    main()
