"""The kinds of finding: a file each; every module in this folder is registered."""

import importlib
import pkgutil

from wendonic.study.finding import registered

for _module in pkgutil.iter_modules(__path__):
    importlib.import_module(f"{__name__}.{_module.name}")

FINDINGS = registered()
"""Every kind of finding by its slug, in the order of a report."""
