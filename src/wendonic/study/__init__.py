"""The bench: measures how a profile feels, and says what to do about it.

>>> from wendonic.demo import demo_profile
>>> from wendonic.study import measure
>>> round(measure(demo_profile()).reach90_s, 3)
0.131
"""

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from wendonic.study import preference as preference
    from wendonic.study.calibration.calibrate import calibrate as calibrate
    from wendonic.study.checking import check as check
    from wendonic.study.feel_sheet import measure as measure
    from wendonic.study.solve.compare import compare as compare
    from wendonic.study.solve.corpus import corpus as corpus
    from wendonic.study.solve.corpus import sweep_on as sweep_on
    from wendonic.study.solve.fit import fit as fit
    from wendonic.study.solve.sweep import sweep as sweep

_CALLS = {
    "calibrate": "calibration.calibrate",
    "check": "checking",
    "compare": "solve.compare",
    "corpus": "solve.corpus",
    "fit": "solve.fit",
    "measure": "feel_sheet",
    "sweep": "solve.sweep",
    "sweep_on": "solve.corpus",
}
"""The public functions and classes, each with the module that defines it."""

__all__ = ["calibrate", "check", "compare", "corpus", "fit", "measure", "preference", "sweep", "sweep_on"]


def __dir__() -> list[str]:
    """Return the public names, for tab completion."""
    return sorted({*globals(), *__all__})


def __getattr__(name: str) -> Any:
    """Load a call on first use: the core is imported without the bench."""
    if name == "preference":
        return import_module(f"{__name__}.preference")
    if name in _CALLS:
        return getattr(import_module(f"{__name__}.{_CALLS[name]}"), name)
    raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
