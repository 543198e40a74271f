"""Lets a helm follow its profile's file: a saved change takes effect in the next tick."""

import logging
import threading
from pathlib import Path
from types import TracebackType
from typing import Self

from wendonic.errors import ProfileError, WendonicError
from wendonic.profile.load import profile_from_text, text_of
from wendonic.runtime.helm import Helm

LOOK_AGAIN_MS = 500
"""The file is also checked at this interval, for folders that report no changes."""

_log = logging.getLogger("wendonic")


class Watch:
    """Follows a file in a thread of its own until it is stopped; `fault` is the present fault of the file."""

    def __init__(self, path: str | Path, helm: Helm) -> None:
        """See `watch`."""
        try:
            import watchfiles  # noqa: F401
        except ImportError:
            raise WendonicError("following a file needs watchfiles: pip install 'wendonic[live]'") from None
        self.path = Path(path).absolute()
        self.fault: WendonicError | None = None
        self._helm = helm
        self._text = text_of(self.path, "profile", ProfileError)
        profile = profile_from_text(self._text, self.path)
        if profile != helm.profile:
            helm.retune(profile)
        self._stopped = threading.Event()
        self._thread = threading.Thread(target=self._follow, name=f"wendonic {self.path.name}", daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Stop following the file; the helm keeps the last profile."""
        self._stopped.set()
        if self._thread is not threading.current_thread():
            self._thread.join()

    def __enter__(self) -> Self:
        """Follow the file during a `with` block."""
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        """Stop."""
        self.stop()

    def _follow(self) -> None:
        from watchfiles import watch as changes

        # Watch the folder, not the file: editors write a new file and rename it.
        seen = changes(
            self.path.parent,
            watch_filter=lambda _, changed: Path(changed).name == self.path.name,
            debounce=50,
            step=20,
            stop_event=self._stopped,
            rust_timeout=LOOK_AGAIN_MS,
            yield_on_timeout=True,
            recursive=False,
        )
        for _ in seen:
            self._look()

    def _look(self) -> None:
        before, self._text = self._text, ""
        try:
            self._text = text = text_of(self.path, "profile", ProfileError)
            if text == before:
                return
            profile = profile_from_text(text, self.path)
            # Everything that the profile needs is prepared in this thread, not in the middle of play.
            self._helm.make_ready(profile)
        except WendonicError as fault:
            if str(fault) != str(self.fault):
                _log.warning("%s; the last good one stays in use", fault)
            self.fault = fault
            return
        self.fault = None
        self._helm.next_profile = profile
        _log.info("%s: read again", self.path)


def watch(path: str | Path, helm: Helm) -> Watch:
    """Let a helm follow the profile in a file: a saved change takes effect in the next tick, as with `retune`.

    The helm starts with the file's profile if it has another one. A file with faults is reported once by the logger
    "wendonic", and the last good profile stays in use; likewise if the file disappears. `stop()`, or leaving a `with`
    block, ends it. Needs watchfiles (extra `live`). Raises `ProfileError` for a file that is missing or faulty at the
    start, and `WendonicError` for one without the helm's current mode.

    >>> import tempfile
    >>> from wendonic.demo import PROFILE_PATH, demo_profile
    >>> helm = Helm(demo_profile())
    >>> with tempfile.TemporaryDirectory() as folder:
    ...     file = Path(folder, "mine.toml")
    ...     _ = file.write_text(PROFILE_PATH.read_text().replace("top_speed_m_s = 3.2", "top_speed_m_s = 4"))
    ...     with watch(file, helm):
    ...         print(helm.profile.gait["walk"].top_speed_m_s)
    4.0
    """
    return Watch(path, helm)
