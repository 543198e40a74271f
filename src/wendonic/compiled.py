"""The kernels compiled by Numba, kept on disk under a digest of their sources."""

import atexit
import functools
import hashlib
import importlib.util
import shutil
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import wendonic.kernels
from wendonic.errors import WendonicError
from wendonic.kernels.kernel import CALLED_KERNELS, KERNELS
from wendonic.kernels.loop import LOOPS


def has_numba() -> bool:
    """Return whether Numba is installed."""
    return importlib.util.find_spec("numba") is not None


def kernels_digest() -> str:
    """Return a digest of every kernel's source and of the versions of Numba and Wendonic.

    Numba's own disk cache looks at the outermost function only and would go on giving old numbers after a
    change in a kernel that it calls.
    """
    import numba

    digest = hashlib.sha256(f"{numba.__version__} {wendonic.__version__}".encode())
    for path in sorted(Path(wendonic.kernels.__file__).parent.glob("*.py")):
        digest.update(path.name.encode() + b"\0" + path.read_bytes() + b"\0")
    return digest.hexdigest()[:16]


def cache_folder() -> Path:
    """Return a folder for compiled kernels that can be written to: the user's cache, or else one for this run only.

    A cache holds code to be run, so the folder for this run has a name that nobody else can have made before.
    """
    from platformdirs import user_cache_path

    name = f"kernels-{kernels_digest()}"
    folder = user_cache_path("wendonic", appauthor=False) / name
    try:
        folder.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryFile(dir=folder):
            return folder
    except OSError:
        own = tempfile.mkdtemp(prefix="wendonic-")
        atexit.register(shutil.rmtree, own, ignore_errors=True)
        return Path(own)


def is_warm() -> bool:
    """Return whether this version's kernels have been compiled before, so that they come from disk."""
    return has_numba() and len(list(cache_folder().rglob("*.nbi"))) >= len(LOOPS)


@functools.cache
def compiled_loop(loop: Callable[..., Any]) -> Callable[..., Any]:
    """Return a loop of `wendonic.kernels.loop` compiled: the same functions, laid into one loop over arrays.

    The first call in a new version takes seconds, later ones come from disk. Raises `WendonicError` without Numba.
    """
    if not has_numba():
        raise WendonicError("the compiled way needs Numba: pip install 'wendonic[fast]'")
    import numba

    _register_kernels()
    config: Any = numba.config
    before = config.CACHE_DIR
    config.CACHE_DIR = str(cache_folder())
    try:
        # Kernels never raise, so division follows IEEE 754 and needs no check.
        compiled: Callable[..., Any] = numba.njit(cache=True, error_model="numpy")(loop)
    finally:
        config.CACHE_DIR = before
    return compiled


@functools.cache
def _register_kernels() -> None:
    """Tell Numba of every kernel that a loop calls."""
    from numba.extending import register_jitable

    for function in KERNELS:
        if function not in LOOPS:
            register_jitable(forceinline=function not in CALLED_KERNELS)(function)
