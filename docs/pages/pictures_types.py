"""What editors and type checkers are told of `wendonic.pictures`, which finds its files by itself."""

import wendonic.pictures

HEAD = """# Written by docs/write_reference.py; change the pictures, not this file.
from collections.abc import Mapping

"""
PICTURE = "from wendonic.pictures.picture import Picture"
TAIL = """

PICTURES: Mapping[str, Picture]
"""


def page() -> str:
    """Return the stub: every drawing function, by the file that it is in."""
    calls = [name for name in wendonic.pictures.__all__ if name != "PICTURES"]
    imports = [f"from {getattr(wendonic.pictures, name).__module__} import {name} as {name}" for name in calls]
    return HEAD + "\n".join(sorted([*imports, PICTURE])) + TAIL
