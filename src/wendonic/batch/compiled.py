"""A tick function inside a loop over ticks, compiled by Numba and kept on disk under a digest of its text."""

import ast
import atexit
import functools
import hashlib
import importlib.util
import json
import logging
import shutil
import sys
import tempfile
import time
from collections.abc import Callable, Collection
from pathlib import Path

from wendonic.compiler.liveness import read_first
from wendonic.compiler.ready import ReadyTick
from wendonic.compiler.store import cache_folder
from wendonic.compiler.tidy import drop_unread
from wendonic.compiler.trees import read_names
from wendonic.errors import WendonicError

Loop = Callable[..., None]
"""`run(numbers, tables, course, record, samples, dt, records, start)`: fills `records` from a tick on.

`samples` has a row for each tick, `records` a column, so that one number of all ticks is contiguous, as a trace reads
it.
"""

_COMPILER = "from wendonic.batch.scalar_compiler import ScalarCompiler"
_OPTIONS = "error_model='numpy', pipeline_class=ScalarCompiler"

USUAL_S = {"compile": 0.005, "load": 0.0005}
"""Time (s) per line of text for compiling a loop and for loading one, as long as this machine has not been measured.
"""


def has_numba() -> bool:
    """Return whether Numba is installed."""
    return importlib.util.find_spec("numba") is not None


@functools.cache
def loop_folder() -> Path:
    """Return a writable folder for compiled loops: the user's cache, or otherwise one for this run only.

    It holds code that will be run, so the folder for this run has a name that no other user can have created before.
    """
    folder = cache_folder()
    if folder is not None:
        try:
            with tempfile.TemporaryFile(dir=folder):
                return folder
        except OSError:
            pass
    own = tempfile.mkdtemp(prefix="wendonic-")
    atexit.register(shutil.rmtree, own, ignore_errors=True)
    return Path(own)


def loop_text(text: str, reported: Collection[int]) -> str:
    """Return the source of a loop over ticks, made from a tick function's text, for the numbers of a record that are
    needed.

    The state of a tick becomes variables of the loop, so that the compiler keeps it in registers. State that affects
    nothing needed is left out.
    """
    module = ast.parse(text)
    head = [node for node in module.body if isinstance(node, ast.ImportFrom)]
    kept = [node for node in module.body if isinstance(node, ast.FunctionDef) and node.name != "make"]
    (make,) = [node for node in module.body if isinstance(node, ast.FunctionDef) and node.name == "make"]
    numbers = _unpacked(make.body, "numbers")
    (part,) = [node for node in make.body if isinstance(node, ast.FunctionDef) and node.name == "tick_part"]
    last, sample = _unpacked(part.body, "last"), _unpacked(part.body, "sample")
    body = [node for node in part.body if not _unpacks(node)]
    final = body.pop()
    if not isinstance(final, ast.Return) or not isinstance(final.value, ast.Tuple):
        raise TypeError("a tick function returns its record")
    results = final.value.elts
    carried: set[int] = set()
    while True:
        filled = sorted(carried | set(reported))
        wanted = ast.Tuple([results[index] for index in filled], ast.Load())
        read = read_first([*body, ast.Return(wanted)])
        more = {index for index, found in enumerate(last) if found in read}
        if more == carried:
            break
        carried = more
    drop_unread(body, read_names(wanted))
    used = read_names([*body, wanted, *(node for function in kept for node in function.body)])
    kept = [function for function in kept if function.name in used]
    lines = ["from numba import njit", *map(ast.unparse, head), _COMPILER, ""]
    for function in kept:
        lines += ["", f"@njit({_OPTIONS})", ast.unparse(function), ""]
    lines += ["", f"@njit({_OPTIONS}, cache=True)"]
    lines += ["def run(numbers, tables, course, record, samples, dt, records, start):"]
    lines += [f"    {found} = numbers[{index}]" for index, found in enumerate(numbers) if found in used]
    lines += [f"    {found} = record[{index}]" for index, found in enumerate(last) if index in carried]
    lines += ["    for k in range(start, len(samples)):"]
    lines += [f"        {found} = samples[k, {index}]" for index, found in enumerate(sample) if found in used]
    for node in body:
        lines += [f"        {line}" for line in ast.unparse(node).splitlines()]
    lines += [f"        records[{index}, k] = {ast.unparse(results[index])}" for index in filled]
    lines += [f"        {last[index]} = records[{index}, k]" for index in sorted(carried)]
    return "\n".join([*lines, ""])


def _unpacks(node: ast.stmt) -> bool:
    return (
        isinstance(node, ast.Assign)
        and isinstance(node.value, ast.Name)
        and node.value.id in ("numbers", "last", "sample")
    )


def _unpacked(body: list[ast.stmt], argument: str) -> list[str]:
    for node in body:
        if isinstance(node, ast.Assign) and isinstance(node.value, ast.Name) and node.value.id == argument:
            (target,) = node.targets
            if isinstance(target, ast.Tuple):
                return [part.id for part in target.elts if isinstance(part, ast.Name)]
    return []


_LOOPS: dict[tuple[str, frozenset[int]], Loop] = {}


@functools.cache
def _versions() -> str:
    from importlib.metadata import version

    return f"{version('numba')} {sys.implementation.cache_tag}"


def loop_digest(ready: ReadyTick, reported: frozenset[int]) -> str:
    """Return the digest under which a loop is kept: of its source, and of the versions of Numba and Python."""
    return hashlib.sha256(f"{_versions()} {sorted(reported)} {ready.text}".encode()).hexdigest()[:24]


def is_loaded(ready: ReadyTick, reported: frozenset[int]) -> bool:
    """Return whether the loop of a structure has been compiled or loaded in this run."""
    return (ready.digest, reported) in _LOOPS


def is_kept(ready: ReadyTick, reported: frozenset[int]) -> bool:
    """Return whether the loop of a structure has been compiled before and is on disk."""
    return (loop_folder() / f"loop_{loop_digest(ready, reported)}.done").exists()


def seconds_to_ready(ready: ReadyTick, reported: frozenset[int]) -> float:
    """Return how long (s) it takes until a loop can run, estimated from measurements on this machine."""
    if is_loaded(ready, reported):
        return 0.0
    kind = "load" if is_kept(ready, reported) else "compile"
    lines = ready.text.count("\n")
    try:
        measured = json.loads((loop_folder() / "seconds.json").read_text(encoding="utf-8"))
        return float(measured[kind]) * lines
    except (OSError, ValueError, KeyError, TypeError):
        return USUAL_S[kind] * lines


def _measured(kind: str, seconds_a_line: float) -> None:
    path = loop_folder() / "seconds.json"
    try:
        known = json.loads(path.read_text(encoding="utf-8"))
    except (OSError, ValueError):
        known = {}
    if not isinstance(known, dict):
        known = {}
    try:
        path.write_text(json.dumps({**USUAL_S, **known, kind: seconds_a_line}), encoding="utf-8", newline="\n")
    except OSError:
        return


def compiled_loop(ready: ReadyTick, reported: frozenset[int], title: str) -> Loop:
    """Return the loop of a structure, compiled, for the numbers of a record that are needed.

    The first call for a new structure takes seconds, later ones load it from disk; a damaged file is compiled again.
    Raises `WendonicError` without Numba, and if only the plain kernels can run.
    """
    if not has_numba():
        raise WendonicError("the compiled engine needs Numba: pip install 'wendonic[fast]'")
    if ready.digest == "plain":
        raise WendonicError("the compiled engine needs the kernels' sources, which are missing here")
    found = _LOOPS.get((ready.digest, reported))
    if found is None:
        kept = is_kept(ready, reported)
        if not kept:
            logging.getLogger("wendonic").info("compiling the tick of mode %s, once …", title)
        start = time.perf_counter()
        try:
            found = _loaded(ready, reported)
        except Exception as fault:
            if not kept:
                raise
            logging.getLogger("wendonic").info(
                "the compiled tick of mode %s is damaged (%s): compiling it again …", title, fault
            )
            _thrown_away(loop_digest(ready, reported))
            found = _loaded(ready, reported)
        seconds = time.perf_counter() - start
        _measured("load" if kept else "compile", seconds / ready.text.count("\n"))
        _LOOPS[ready.digest, reported] = found
    return found


def _thrown_away(digest: str) -> None:
    for path in loop_folder().rglob(f"loop_{digest}*"):
        path.unlink(missing_ok=True)


def _loaded(ready: ReadyTick, reported: frozenset[int]) -> Loop:
    import numpy as np

    folder, digest = loop_folder(), loop_digest(ready, reported)
    path = folder / f"loop_{digest}.py"
    text = loop_text(ready.text, reported)
    if not path.exists() or path.read_text(encoding="utf-8") != text:
        with tempfile.NamedTemporaryFile("w", dir=folder, encoding="utf-8", delete=False, suffix=".part") as file:
            file.write(text)
        Path(file.name).replace(path)
    spec = importlib.util.spec_from_file_location(f"wendonic_loop_{digest}", path)
    if spec is None or spec.loader is None:
        raise WendonicError(f"cannot load {path}")
    module = importlib.util.module_from_spec(spec)
    # Numba stores the module's name with the machine code, and looks it up when loading.
    sys.modules[spec.name] = module
    spec.loader.exec_module(module)
    loop: Loop = module.run
    # The types are the same in every call, so a call without ticks compiles it.
    none = np.zeros(0)
    width = ready.layout.width
    loop(np.zeros(len(ready.indices)), none, none, np.zeros(width), np.zeros((0, 1)), 0.1, np.zeros((width, 0)), 0)
    (folder / f"loop_{digest}.done").touch()
    return loop
