"""The quantities of the feel sheet: a file each; every module in this folder is registered."""

import importlib
import pkgutil

from wendonic.study.quantity import registered

for _module in pkgutil.iter_modules(__path__):
    importlib.import_module(f"{__name__}.{_module.name}")

QUANTITIES = registered()
"""Every quantity by its name, in the order of the sheet."""
