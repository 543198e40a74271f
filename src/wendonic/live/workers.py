"""Processes beside the server for measuring and checking, and for preparing forms that may be chosen next, so that
they do not delay play or the file.
"""

import functools
import os
import signal
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import Future, ProcessPoolExecutor
from multiprocessing import connection, get_context, parent_process
from typing import Any, ParamSpec, TypeVar

from wendonic.course import Course
from wendonic.errors import WendonicError
from wendonic.export.page.mode_contents import made_runs
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.profile.load import profile_from_text
from wendonic.profile.schema.profile import Profile
from wendonic.profile.units import spelled_in
from wendonic.study.checking import check
from wendonic.study.feel_sheet import measure, value_words
from wendonic.study.quantities import QUANTITIES

Given = ParamSpec("Given")
Found = TypeVar("Found")
Row = dict[str, Any]
"""Processes exchange a profile's text and changes by field path, which are small and complete."""


class Workers:
    """One process that measures, and one that prepares forms when there is nothing else to do."""

    def __init__(self) -> None:
        """Start no process yet: they start with their first task."""
        self.renew()

    def renew(self) -> None:
        """Replace the processes if one has died: killed, or out of memory."""
        context = get_context("spawn")
        self._measuring = ProcessPoolExecutor(1, context, _begin, (0,))
        self._readying = ProcessPoolExecutor(1, context, _begin, (15,))

    def measure(self, task: Callable[Given, Found], *given: Given.args, **keywords: Given.kwargs) -> "Future[Found]":
        """Submit a task to be done soon."""
        return self._measuring.submit(task, *given, **keywords)

    def ready(self, task: Callable[Given, Found], *given: Given.args, **keywords: Given.kwargs) -> "Future[Found]":
        """Submit a task to be done when there is time."""
        return self._readying.submit(task, *given, **keywords)

    def close(self) -> None:
        """End them, whatever they are doing."""
        for pool in (self._measuring, self._readying):
            for process in list((getattr(pool, "_processes", None) or {}).values()):
                process.terminate()
            pool.shutdown(wait=True, cancel_futures=True)


def _begin(niceness: int) -> None:
    # Ctrl+C is handled by the server; a process whose server is gone ends as well.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    if niceness:
        os.nice(niceness)
    parent = parent_process()
    if parent is not None:
        threading.Thread(target=_leave_with, args=(parent.sentinel,), daemon=True).start()


def _leave_with(sentinel: int) -> None:
    connection.wait([sentinel])
    os._exit(0)


@functools.lru_cache(maxsize=4)
def _profile(text: str) -> Profile:
    return profile_from_text(text)


def _changed(text: str, changes: Row) -> Profile:
    return _profile(text).changed(changes) if changes else _profile(text)


def feel_rows(text: str, changes: Row, mode: str, seat: str | None = None) -> list[Row]:
    """Return the feel sheet of a mode for a seat, without missing quantities, in the game's own unit."""
    profile = _changed(text, changes)
    sheet, length = measure(profile, mode, seat=seat), profile.world.length
    return [
        {
            "name": spelled_in(length, name),
            "unit": length.label(QUANTITIES[name].unit),
            "about": QUANTITIES[name].definition,
            "value": value,
            "words": value_words(value, length.factor(QUANTITIES[name].unit)),
        }
        for name, value in sheet.items()
        if value is not None
    ]


def finding_rows(text: str, changes: Row) -> list[Row]:
    """Return the findings of `check`, without trying fixes, which would take too long for a player."""
    return [one._asdict() for one in check(_changed(text, changes), prove=False)]


def other_forms(fields: list[Row], mode: str) -> Iterator[Row]:
    """Yield the changes to each other form that a field of a mode may have, dead zones and curves first."""
    own = [field for field in fields if field["kind"] == "choice" and field["path"].startswith(f"mode.{mode}.")]
    for field in sorted(own, key=lambda one: one["name"] != "form"):
        for word in field["choices"]:
            if word != field["value"]:
                yield {field["path"]: word}


def ready_form(text: str, changes: Row, course: Course | None) -> None:
    """Make the tick functions of a changed profile, which stay on disk; nothing is made if the changes do not fit
    together.
    """
    try:
        made_runs(_changed(text, changes), course.numbers if course else NO_COURSE, course is not None)
    except WendonicError:
        return
