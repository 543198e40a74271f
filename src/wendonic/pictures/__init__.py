"""Pictures of profiles, recordings and traces: a file each, found by being here.

Every function `draw_…` takes `ax=None` and returns what it drew; `save_picture` writes it.
"""

import importlib
import pkgutil
from typing import Any

_MODULES = [module.name for module in pkgutil.iter_modules(__path__)]


def __getattr__(name: str) -> Any:
    """Return a drawing function, `save_picture`, or PICTURES: every picture of `wendonic draw` by its name."""
    modules = [importlib.import_module(f"{__name__}.{module}") for module in _MODULES]
    if name == "PICTURES":
        from wendonic.pictures.picture import registered

        return registered()
    found = [vars(module)[name] for module in modules if name.startswith(("draw_", "save_")) and name in vars(module)]
    if not found:
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    return found[0]
