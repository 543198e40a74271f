"""Compiles the plain C loop and calls it through ctypes."""

import ctypes
import shutil
import subprocess
import tempfile
from collections.abc import Callable
from pathlib import Path

import numpy as np


def compiled_c_loop(*options: str) -> Callable[..., None] | None:
    """Return the C loop as a function of arrays, compiled with -O3 and `options`; None without a compiler."""
    compiler = shutil.which("gcc") or shutil.which("cc")
    if compiler is None:
        return None
    library = Path(tempfile.mkdtemp()) / "loop.so"
    source = Path(__file__).parent / "loop.c"
    subprocess.run([compiler, "-O3", *options, "-shared", "-fPIC", "-o", library, source, "-lm"], check=True)
    run = ctypes.CDLL(str(library)).run_ticks
    numbers = np.ctypeslib.ndpointer(dtype=np.float64, flags="C_CONTIGUOUS")
    run.argtypes = [numbers, numbers, ctypes.c_double, numbers, *[ctypes.c_size_t] * 3]
    run.restype = None
    return run
