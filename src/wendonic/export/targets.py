"""The languages of an export, with their printers and runners."""

from collections.abc import Callable
from dataclasses import dataclass

from wendonic.errors import WendonicError, none_such
from wendonic.export.languages.c99 import CPackage
from wendonic.export.languages.csharp import CSharpPackage, pascal
from wendonic.export.languages.javascript import JavaScriptPackage, camel
from wendonic.export.languages.lua import LuaPackage
from wendonic.export.languages.python import PythonPackage
from wendonic.export.package import Package
from wendonic.export.runners.c99 import c99_runner
from wendonic.export.runners.csharp import csharp_runner
from wendonic.export.runners.javascript import javascript_runner
from wendonic.export.runners.lua import lua_runner
from wendonic.export.runners.python import python_runner
from wendonic.export.tick_functions import tick_functions_module

Files = dict[str, str]


@dataclass(frozen=True)
class Target:
    """One language: its name, how it writes a field, its sources, and its runner."""

    name: str
    words: str
    field_name: Callable[[str], str]
    sources: Callable[[Package], Files]
    runner: Callable[[Package], Files]


def _python_files(package: Package) -> Files:
    return PythonPackage(package).files() | {f"{package.stem}_tick_functions.py": tick_functions_module(package)}


TARGETS = {
    "c99": Target("c99", "C99", str, lambda package: CPackage(package).files(), c99_runner),
    "javascript": Target(
        "javascript", "JavaScript", camel, lambda package: JavaScriptPackage(package).files(), javascript_runner
    ),
    "csharp": Target("csharp", "C#", pascal, lambda package: CSharpPackage(package).files(), csharp_runner),
    "lua": Target("lua", "Lua", str, lambda package: LuaPackage(package).files(), lua_runner),
    "python": Target("python", "Python", str, _python_files, python_runner),
}


def target_of(name: str) -> Target:
    """Return the language with this name; raises `WendonicError` for an unknown one."""
    if name not in TARGETS:
        raise WendonicError(none_such("language", name, [*TARGETS, "html"]))
    return TARGETS[name]
