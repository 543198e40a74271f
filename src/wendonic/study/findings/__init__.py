"""The kinds of finding: a file each, found by being here."""

import importlib
import pkgutil

from wendonic.study.finding import registered

for _module in pkgutil.iter_modules(__path__):
    importlib.import_module(f"{__name__}.{_module.name}")

FINDINGS = registered()
"""Every kind of finding by its slug, in the order of a report."""
