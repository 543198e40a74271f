"""The garbage collector, left alone while trees are made."""

import gc
from collections.abc import Iterator
from contextlib import contextmanager


@contextmanager
def collector_paused() -> Iterator[None]:
    """Leave garbage alone for a while: a tree that grows by thousands of nodes would be searched for it in vain.

    >>> with collector_paused():
    ...     gc.isenabled()
    False
    """
    was_on = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if was_on:
            gc.enable()
