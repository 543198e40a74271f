"""Recording live: keyboard, mouse and pads, shown as they arrive."""

import contextlib
import os
import time
from collections import deque
from collections.abc import Sequence
from pathlib import Path
from typing import NamedTuple

import pygame

from wendonic.counted import counted
from wendonic.devices.adapters.pygame_events import PygameEvents, moved_element
from wendonic.devices.controls import CONTROLS, find_control, find_key
from wendonic.devices.event import Event
from wendonic.devices.joystick import JoystickMapping
from wendonic.errors import DeviceError, WendonicError
from wendonic.recording.content import numbers_of
from wendonic.recording.writer import RecordingWriter

SIZE = (960, 600)
SHOWN_S = 5.0
MOST_LANES = 14
FRAME_S = 1.0 / 30.0
WAIT_MS = 2

PAPER = "#FAF7F0"
INK = "#1F2430"
HONEY = "#D9902F"
FOG = "#C9C4B8"
MIST = "#8B8778"
BRICK = "#B4483B"

LEFT, TOP, LANE, STRIP = 24, 104, 32, 250


class Recorded(NamedTuple):
    """The result of a session on disk."""

    path: Path
    events: int
    seconds: float
    controls: dict[str, int]
    unmapped: dict[str, list[str]]
    """Joysticks without a mapping, and the elements that were moved."""


def _opened_window() -> pygame.Surface:
    """Return the window's surface; raises `DeviceError` if there is no screen."""
    try:
        # Only the parts of pygame that are needed, without sound.
        pygame.display.init()
        pygame.font.init()
        screen = pygame.display.set_mode(SIZE)
    except pygame.error as error:
        raise DeviceError(f"no window can be opened here: {error}") from None
    # Without a screen SDL uses an invisible one without keys, unless that was requested by name.
    if pygame.display.get_driver() in ("offscreen", "dummy") and not os.environ.get("SDL_VIDEODRIVER"):
        raise DeviceError("no window can be opened here: there is no screen")
    return screen


class RecordSession:
    """A window that records what it receives into a file, until a key is pressed or time is up.

    Times begin at 0 with the window; an event's time is when it was taken from the window's queue, at most about 2 ms
    after the device reported it. Each event is flushed, so a crash loses at most the last line. `stop_key` and
    `mark_key` are W3C codes; they are not recorded themselves, the mark is.
    """

    def __init__(
        self,
        path: str | Path,
        title: str = "",
        seconds: float | None = None,
        stop_key: str = "F10",
        mark_key: str = "F9",
        grab_mouse: bool = False,
        joysticks: Sequence[JoystickMapping] = (),
    ) -> None:
        """Resolve the keys; raises `ControlError` for an unknown one, `WendonicError` for a file that is there."""
        self.path = Path(path)
        if self.path.exists():
            raise WendonicError(f"{path} already exists; give another name, or remove it")
        if seconds is not None and not 0.0 < seconds < 1e6:
            raise WendonicError(f"seconds: found {seconds:g}; allowed: above 0")
        self.title = title
        self.seconds = seconds
        self.stop_key = find_key(stop_key).name
        self.mark_key = find_key(mark_key).name
        if self.stop_key == self.mark_key:
            raise WendonicError(f"stop key and mark key: found {stop_key} for both; allowed: two keys")
        self.grab_mouse = grab_mouse
        self._joysticks = tuple(joysticks)
        self._unmapped: dict[str, dict[str, None]] = {}
        self._counts: dict[str, int] = {}
        self._recent: dict[str, deque[tuple[float, tuple[float, ...]]]] = {}
        self._marks = 0
        self._events = 0

    def run(self) -> Recorded:
        """Open the window, record until stopped, and return what was recorded."""
        try:
            screen = _opened_window()
            pygame.display.set_caption(f"Wendonic records {self.path.name}")
            if self.grab_mouse:
                pygame.mouse.set_visible(False)
                pygame.event.set_grab(True)
            adapter = PygameEvents(joysticks=self._joysticks)
            adapter.open_pads()
            with RecordingWriter(self.path, self.title) as writer:
                seconds = self._loop(screen, adapter, writer)
        finally:
            pygame.quit()
        unmapped = {name: list(elements) for name, elements in self._unmapped.items()}
        return Recorded(self.path, self._events, seconds, dict(self._counts), unmapped)

    def _loop(self, screen: pygame.Surface, adapter: PygameEvents, writer: RecordingWriter) -> float:
        start = time.monotonic()
        # Interrupted from the terminal; everything so far is on disk.
        with contextlib.suppress(KeyboardInterrupt):
            self._go_on(screen, adapter, writer, start)
        return time.monotonic() - start

    def _go_on(self, screen: pygame.Surface, adapter: PygameEvents, writer: RecordingWriter, start: float) -> None:
        """Record and draw until the end."""
        drawn = -FRAME_S
        fonts = (pygame.font.Font(None, 34), pygame.font.Font(None, 22))
        while True:
            waited = pygame.event.wait(WAIT_MS)
            t = time.monotonic() - start
            for raw in (waited, *pygame.event.get()):
                if raw.type == pygame.QUIT or not self._take(adapter, raw, t, writer):
                    return
            if self.seconds is not None and t >= self.seconds:
                return
            if t - drawn >= FRAME_S:
                drawn = t
                self._draw(screen, fonts, t)
                pygame.display.flip()

    def _take(self, adapter: PygameEvents, raw: pygame.Event, t: float, writer: RecordingWriter) -> bool:
        """Record one event of pygame; return whether to go on."""
        bare, element = adapter.unmapped(raw), moved_element(raw)
        if bare and element:
            self._unmapped.setdefault(bare, {})[element] = None
        for event in adapter.events(raw, round(t, 6)):
            if event.control == self.stop_key:
                if event.value == 0.0:
                    continue
                return False
            marked = event
            if event.control == self.mark_key:
                if event.value == 0.0:
                    continue
                self._marks += 1
                marked = Event(event.t, "mark", f"mark {self._marks}")
            writer.append(marked)
            self._events += 1
            self._note(marked)
        return True

    def _note(self, event: Event) -> None:
        self._counts[event.control] = self._counts.get(event.control, 0) + 1
        recent = self._recent.setdefault(event.control, deque())
        recent.append((event.t, numbers_of(event.value) or (1.0,)))
        # One event before the shown time stays: it is the value at the beginning of the strip.
        while len(recent) > 2 and recent[1][0] < event.t - SHOWN_S:
            recent.popleft()

    def _draw(self, screen: pygame.Surface, fonts: tuple[pygame.font.Font, pygame.font.Font], t: float) -> None:
        large, small = fonts
        screen.fill(PAPER)
        left = f" of {self.seconds:g}" if self.seconds is not None else ""
        head = f"{t:.1f}{left} s, {counted(self._events, 'event')} into {self.path.name}"
        screen.blit(large.render(head, True, INK), (LEFT, 24))
        stop, mark = (key.removeprefix("key.") for key in (self.stop_key, self.mark_key))
        screen.blit(
            small.render(f"{stop} stops, {mark} sets a mark; beside each control its events so far", True, MIST),
            (LEFT, 60),
        )
        # The controls with the latest events, in the order of their first ones.
        latest = sorted(self._recent, key=lambda name: self._recent[name][-1][0])[-MOST_LANES:]
        names = [name for name in self._recent if name in latest]
        if names:
            screen.blit(small.render(f"{SHOWN_S:g} s ago", True, MIST), (STRIP, TOP - 24))
            screen.blit(small.render("now", True, MIST), (SIZE[0] - LEFT - 150, TOP - 24))
        else:
            screen.blit(small.render("nothing yet: press a key, move the mouse or a stick", True, INK), (LEFT, TOP))
        for row, name in enumerate(names):
            self._draw_lane(screen, small, name, TOP + row * LANE, t)

    def _draw_lane(self, screen: pygame.Surface, font: pygame.font.Font, name: str, y: int, t: float) -> None:
        words = font.render(name, True, INK)
        screen.blit(words, (LEFT, y + 5))
        screen.blit(font.render(str(self._counts[name]), True, MIST), (LEFT + words.get_width() + 10, y + 5))
        width = SIZE[0] - STRIP - LEFT - 110
        middle, half = y + LANE // 2 - 2, LANE // 2 - 5
        pygame.draw.line(screen, FOG, (STRIP, middle), (STRIP + width, middle))

        def place(at: float) -> int:
            return STRIP + round(width * (1.0 - min(max((t - at) / SHOWN_S, 0.0), 1.0)))

        recent = list(self._recent[name])
        kind = CONTROLS[name].kind
        ends = [at for at, _ in recent[1:]] + [t]
        for (at, numbers), end in zip(recent, ends, strict=True):
            if end < t - SHOWN_S:
                continue
            if kind in ("key", "button", "touch"):
                if numbers[-1] > 0.0:
                    bar = pygame.Rect(place(at), middle - half, max(place(end) - place(at), 2), 2 * half)
                    pygame.draw.rect(screen, HONEY, bar)
            elif kind in ("loss", "mark", "counts", "wheel"):
                colour = BRICK if kind == "loss" else HONEY
                if at >= t - SHOWN_S:
                    pygame.draw.line(screen, colour, (place(at), middle - half), (place(at), middle + half), 2)
            else:
                low, high = find_control(name).low, find_control(name).high
                for number, colour in zip(numbers, (HONEY, INK), strict=False):
                    height = middle + half - round(2 * half * (number - low) / (high - low))
                    pygame.draw.line(screen, colour, (place(at), height), (place(end), height), 2)
        value = ", ".join(f"{number:.2f}" for number in recent[-1][1][:2])
        if kind in ("key", "button") and recent[-1][1][0] in (0.0, 1.0):
            value = "down" if recent[-1][1][0] else "up"
        screen.blit(font.render("" if kind in ("mark", "loss") else value, True, MIST), (STRIP + width + 12, y + 5))
