"""Compiles and runs exports in languages that are installed."""

import shutil
import subprocess
import tempfile
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from wendonic.export.languages.csharp import pascal

STRICT_C = ("-std=c99", "-Wall", "-Wextra", "-Wpedantic", "-Wconversion", "-Wdouble-promotion", "-Werror")
STRICT_CPP = (
    "-x",
    "c++",
    "-std=c++17",
    "-Wall",
    "-Wextra",
    "-Wpedantic",
    "-Wconversion",
    "-Wdouble-promotion",
    "-Werror",
)


@dataclass(frozen=True)
class Run:
    """The tool that was run, whether it succeeded, and its output; `tool` is "" if none is installed."""

    tool: str
    well: bool
    said: str


def _first(*names: str) -> str | None:
    return next((name for name in names if shutil.which(name)), None)


def _run(command: Sequence[str], folder: Path) -> tuple[bool, str]:
    done = subprocess.run(command, cwd=folder, capture_output=True, text=True, check=False, timeout=300)
    return done.returncode == 0, (done.stdout + done.stderr).strip()


def _steps(tool: str, folder: Path, *commands: Sequence[str]) -> Run:
    said = ""
    for command in commands:
        well, said = _run(command, folder)
        if not well:
            return Run(tool, False, said)
    return Run(tool, True, said)


def tried(language: str, stem: str, folder: Path, options: Sequence[str] = ("-O2",)) -> list[Run]:
    """Compile and run an export in its folder with every installed tool; `options` are those of the C compiler."""
    with tempfile.TemporaryDirectory() as made:
        match language:
            case "c99":
                return [_tried_c(stem, folder, Path(made), options)]
            case "javascript":
                return [_tried_javascript(stem, folder)]
            case "csharp":
                return [_tried_csharp(stem, folder, Path(made))]
            case "lua":
                return _tried_lua(stem, folder)
        return [_steps("python3", folder, [_first("python3", "python") or "python3", "-B", f"{stem}_runner.py"])]


def _tried_c(stem: str, folder: Path, made: Path, options: Sequence[str]) -> Run:
    compiler = _first("gcc", "cc")
    if compiler is None:
        return Run("", False, "neither gcc nor cc is installed")
    program = str(made / "runner")
    flags: tuple[str, ...] = STRICT_C
    if "-std=c++17" in options:
        flags, compiler = STRICT_CPP, _first("g++", "c++") or compiler
        options = [option for option in options if option != "-std=c++17"]
    compiled = [compiler, *flags, *options, f"{stem}.c", f"{stem}_runner.c", "-o", program, "-lm"]
    return _steps(compiler, folder, compiled, [program])


def _tried_javascript(stem: str, folder: Path) -> Run:
    node = _first("node", "nodejs")
    if node is None:
        return Run("", False, "node is not installed")
    return _steps(node, folder, [node, "--check", f"{stem}.js"], [node, f"{stem}_runner.js"])


def _tried_csharp(stem: str, folder: Path, made: Path) -> Run:
    name = pascal(stem)
    mono, compiler = _first("mono"), _first("mcs")
    if mono is None or compiler is None:
        return Run("", False, "mcs and mono are not installed")
    program = made / "runner.exe"
    for vectors in folder.glob("*_vectors.csv"):
        shutil.copy(vectors, made)
    compiled = [compiler, "-warnaserror", "-warn:4", f"-out:{program}", f"{name}.cs", f"{name}Runner.cs"]
    return _steps("mcs and mono", folder, compiled, [mono, str(program)])


def _tried_lua(stem: str, folder: Path) -> list[Run]:
    tools = [tool for tool in ("lua5.4", "luajit") if shutil.which(tool)]
    if not tools:
        return [Run("", False, "neither lua5.4 nor luajit is installed")]
    return [_steps(tool, folder, [tool, f"{stem}_runner.lua"]) for tool in tools]
