"""The page of errors."""

import inspect

from pages.markdown import flat, table, written_by
from wendonic import errors
from wendonic.course.course import CourseError

HEAD = """# Errors

Every error that Wendonic raises on purpose is a `WendonicError`. Its text says where, what was found, what is allowed,
and the nearest right spelling if it looks like a slip:

```text
beekeeper.toml: 2 faults
  line 24, mode.foot.move.bind[1].dead_zone.outr: unknown key; did you mean "outer"? allowed here: form, inner, outer, release
  line 41, mode.foot.press.jump.bind[1]: unknown control "pad.a"; did you mean "pad.south"?
```

A file reports all its faults at once; from Python they are in `error.faults`, each with `line`, `where` and `what`.

"""
TAIL = """
On the command line errors are printed on stderr, without a traceback, and no output file is left half-written.

| exit status | meaning |
| --- | --- |
| 0 | done |
| 1 | `check` has findings that count, `fit` did not reach a target, `compare` or `export --check` found a difference |
| 2 | something could not be done: a bad file, a bad option, a missing device |
"""


def page() -> str:
    """Return the page."""
    kinds = [
        errors.WendonicError,
        errors.ControlError,
        errors.DeviceError,
        errors.FileError,
        errors.ProfileError,
        errors.RecordingError,
        CourseError,
    ]
    rows = [
        (f"`{kind.__name__}`", f"`{kind.__mro__[1].__name__}`", flat(inspect.getdoc(kind) or "").split("\n")[0])
        for kind in kinds
    ]
    return written_by() + HEAD + table(("error", "is a", "raised for"), rows) + TAIL
