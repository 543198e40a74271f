"""Words for the terminal, which a file's own words must not command."""

import sys
from typing import TextIO

from wendonic.errors import escaped


def say(words: object = "", file: TextIO | None = None) -> None:
    """Print words as they stand, control characters written out."""
    print(escaped(str(words)), file=file or sys.stdout)
