"""Python's side of the live page: the profile's file, its structure as a module, its feel sheet, its findings."""

import json
import re
import threading
import time
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

from wendonic.course import Course, load_course
from wendonic.course.course import CourseError
from wendonic.course.unused import warn_of_unused
from wendonic.errors import FileError, ProfileError, WendonicError, none_such
from wendonic.export.page.contents import PageProfile, profile_module
from wendonic.profile.field_path import dotted, path_parts
from wendonic.profile.load import profile_from_text, text_of
from wendonic.profile.save import saved_text, write_profile_text
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.seat import Seat
from wendonic.profile.units import as_written
from wendonic.recording.recording import Recording

Changes = Mapping[str, Any]
Message = dict[str, Any]
MODULES_KEPT = 8


class Desk:
    """The files of a profile and its course, as the page works on them.

    `profile` and `course` are the last valid states of the files, `fault` and `course_fault` their present faults.
    Changes are values by field path, lengths in metres, relative to that state.
    """

    def __init__(self, path: str | Path, course: str | Path | None = None, seat: str | None = None) -> None:
        """Read the files; raises `WendonicError` for one with faults, and for a seat that does not exist."""
        self.path = Path(path)
        self.fault: WendonicError | None = None
        self.text = text_of(self.path, "profile", ProfileError)
        self.profile = profile_from_text(self.text, self.path)
        Seat(seat, self.profile.seat)
        self.seat = seat
        self.course_path = Path(course) if course else None
        self.course_fault: WendonicError | None = None
        self.course: Course | None = None
        self._course_text = ""
        if self.course_path:
            self._course_text = text_of(self.course_path, "course", CourseError)
            self.course = load_course(self.course_path)
        warn_of_unused(self.course, self.profile)
        self._modules: dict[int, str] = {}
        self._count = 0
        self._lock = threading.Lock()
        self.first = 0
        """The module of the present file; 0 before it is made."""

    def look(self) -> bool:
        """Read the files again; return whether anything has changed: the profile, the course, or their faults."""
        course_is_new = self._look_at_course()
        return self._look_at_profile() or course_is_new

    def _look_at_course(self) -> bool:
        if self.course_path is None:
            return False
        fault = str(self.course_fault or "")
        try:
            text = text_of(self.course_path, "course", CourseError)
            if text == self._course_text and self.course_fault is None:
                return False
            course = load_course(self.course_path)
        except WendonicError as found:
            self.course_fault = found
            return str(found) != fault
        self.course_fault, self._course_text, self.course = None, text, course
        return True

    def _look_at_profile(self) -> bool:
        before, fault = self.text, str(self.fault or "")
        try:
            text = text_of(self.path, "profile", ProfileError)
            if text == before and self.fault is None:
                return False
            profile = profile_from_text(text, self.path)
            Seat(self.seat, profile.seat)
        except WendonicError as found:
            self.fault = found
            return str(found) != fault
        self.fault, self.text, self.profile = None, text, profile
        return True

    def changed(self, changes: Changes) -> Profile:
        """Return the profile with some changes; raises `ProfileError` if they do not fit together."""
        if not changes:
            return self.profile
        return self.profile.changed(self.as_written(changes))

    def as_written(self, changes: Changes) -> dict[str, Any]:
        """Return changes with paths and units as in the file."""
        content = self.profile.file_content()
        found: dict[str, Any] = {}
        # Modes that others copy come first, so that an inherited list that becomes a mode's own is up to date.
        for path, value in sorted(changes.items(), key=lambda change: self._depth(change[0])):
            parts, factor = as_written(content, path_parts(path))
            found[dotted(parts)] = value * factor if factor != 1.0 else value
        return found

    def _depth(self, path: str) -> int:
        """Return the length of the chain of modes that a field's mode copies."""
        parts = path_parts(path)
        mode = self.profile.mode.get(str(parts[1])) if parts[0] == "mode" else None
        depth = 0
        while mode is not None and mode.like:
            depth, mode = depth + 1, self.profile.mode.get(mode.like)
        return depth

    def make_module(self, changes: Changes) -> int:
        """Make the module that the page runs for a changed profile; return its number."""
        shown = PageProfile(self.changed(changes), self.path.name, self.text, self.course, self.seat)
        text = profile_module(shown)
        with self._lock:
            self._count += 1
            self._modules[self._count] = text
            if not changes:
                self.first = self._count
            while len(self._modules) > MODULES_KEPT:
                # The module of the present file stays, since new tabs begin with it.
                del self._modules[min(number for number in self._modules if number != self.first)]
            return self._count

    def module(self, number: int) -> str | None:
        """Return a module by its number."""
        return self._modules.get(number)

    def save(self, changes: Changes, rebound: Mapping[str, str] | None = None) -> None:
        """Write the changes into the file, comments kept, with rebound controls by name. Raises `WendonicError`, and
        leaves the file as it is, if it has faults now or has changed without the page knowing.
        """
        if self._look_at_profile() or self.fault:
            said = "has errors" if self.fault else "was changed on disk in the meantime"
            raise WendonicError(f"{self.path}: {said}; nothing was written")
        profile = self.changed(changes)
        text = saved_text(profile, self.text, self.path)
        if rebound:
            text, unnamed = rebound_text(text, rebound)
            if unnamed:
                words = "rebind that by hand, or press Reset under Rebind to save the rest"
                raise WendonicError(f"{self.path} does not name {', '.join(unnamed)} by itself; {words}")
            profile = profile_from_text(text, self.path)
        write_profile_text(text, self.path)
        self.text, self.profile = text, profile

    def keep(self, lines: Sequence[str]) -> Path:
        """Write a recording, given as lines of its format, beside the profile; return its path."""
        stem = f"{self.path.stem}_{time.strftime('%Y-%m-%d_%H%M%S')}"
        target = self.path.with_name(f"{stem}.jsonl")
        number = 2
        while target.exists():
            target = self.path.with_name(f"{stem}_{number}.jsonl")
            number += 1
        from wendonic.atomic_file import atomic_file

        with atomic_file(target) as beside:
            beside.write_text("".join(f"{line}\n" for line in lines), encoding="utf-8", newline="\n")
            Recording.read(beside)
        return target

    def recordings(self) -> list[str]:
        """Return the names of the recordings beside the profile."""
        return sorted(one.name for one in self.path.parent.glob("*.jsonl"))

    def recording(self, name: str) -> list[Message]:
        """Return the events of a recording beside the profile, by its name."""
        if name not in self.recordings():
            raise WendonicError(none_such("recording", name, self.recordings()))
        read = Recording.read(self.path.with_name(name))
        return [{"t": event.t, "c": event.control, "v": event.value} for event in read]


_TOKEN = re.compile(
    r"""#[^\n]*|"{3}[\s\S]*?"{3}|'{3}[\s\S]*?'{3}|(?:\btitle\s*=\s*)?(?:"(?:[^"\\\n]|\\.)*"|'[^'\n]*')"""
)
"""Everything in TOML that can contain a name; comments and multi-line strings do not bind anything."""


def rebound_text(text: str, rebound: Mapping[str, str]) -> tuple[str, list[str]]:
    """Return a profile's text with the names of keys and buttons in place of others, wherever they are bound, and
    those of the others that it never names.

    >>> rebound_text("bind = ['KeyW', 'AltLeft+KeyW']  # KeyW", {"key.KeyW": "key.KeyZ", "pad.south": "pad.north"})
    ("bind = ['KeyZ', 'AltLeft+KeyZ']  # KeyW", ['pad.south'])
    """
    named: set[str] = set()

    def part(name: str) -> str:
        control = (name if "." in name else f"key.{name}").replace("pad0.", "pad.", 1)
        now = rebound.get(control)
        if now is None:
            return name
        named.add(control)
        return now if "." in name else now.removeprefix("key.")

    def other(found: re.Match[str]) -> str:
        quoted, quote = found[0], found[0][0]
        if quote not in "\"'" or quoted.startswith(quote * 3):
            return quoted
        # A chord has several.
        return f"{quote}{'+'.join(map(part, quoted[1:-1].split('+')))}{quote}"

    changed = _TOKEN.sub(other, text)
    return changed, [control for control in rebound if control not in named]


def fault_message(fault: WendonicError) -> Message:
    """Return a fault as a message: its lines, each with its place in the file."""
    if isinstance(fault, FileError) and fault.faults:
        lines = [{"line": one.line, "where": one.where, "what": one.what} for one in fault.faults]
    else:
        lines = [{"line": None, "where": "", "what": str(fault)}]
    return {"kind": "faults", "faults": lines}


def plain(message: Message) -> str:
    """Return a message as text; a number that is not finite becomes null."""
    return json.dumps(message, allow_nan=False, default=str)
