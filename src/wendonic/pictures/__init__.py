"""Pictures of profiles, recordings and traces: a file each; every module in this folder is registered.

Every function `draw_…` takes `ax=None` and returns what it drew; `save_picture` writes it.

>>> import wendonic.pictures
>>> "draw_timeline" in dir(wendonic.pictures)
True
"""

import importlib
import pkgutil
from collections.abc import Callable
from typing import Any

from wendonic.errors import did_you_mean

_MODULES = [module.name for module in pkgutil.iter_modules(__path__)]


def _calls() -> dict[str, Callable[..., Any]]:
    """Return `save_picture` and every drawing function by its name."""
    modules = [importlib.import_module(f"{__name__}.{module}") for module in _MODULES]
    return {
        name: value
        for module in modules
        for name, value in vars(module).items()
        if name.startswith(("draw_", "save_")) and value.__module__ == module.__name__
    }


def __dir__() -> list[str]:
    """Return the public names, for tab completion."""
    return sorted({*globals(), *_calls(), "PICTURES"})


def __getattr__(name: str) -> Any:
    """Return a drawing function, `save_picture`, or PICTURES: every picture of `wendonic draw` by its name."""
    if name == "__all__":
        return [*_calls(), "PICTURES"]
    if name == "PICTURES":
        from wendonic.pictures.picture import registered

        _calls()
        return registered()
    found = _calls() if name.startswith(("draw_", "save_")) else {}
    if name not in found:
        guess = did_you_mean(name, _calls()) if name.startswith(("draw_", "save_")) else ""
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}{guess}")
    return found[name]
