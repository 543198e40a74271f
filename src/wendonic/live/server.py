"""A small server on the loopback address: one page, its modules, and one wire to it. Nothing else is served."""

import asyncio
import contextlib
import json
import secrets
from collections.abc import Callable
from concurrent.futures import BrokenExecutor
from typing import TYPE_CHECKING, Any

from wendonic.errors import WendonicError
from wendonic.export.page.bundle import page_css, page_html, page_js
from wendonic.export.page.fields import field_contents
from wendonic.live.desk import Desk, Message, fault_message, plain
from wendonic.live.workers import Workers, feel_rows, finding_rows, other_forms, ready_form

if TYPE_CHECKING:
    from starlette.applications import Starlette
    from starlette.requests import Request
    from starlette.responses import Response
    from starlette.websockets import WebSocket

POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; connect-src 'self'; "
    "img-src 'self' data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
)
HEADERS = {
    "Content-Security-Policy": POLICY,
    "Cache-Control": "no-store",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
}
MEASURES = ("feel", "findings")
QUIET_S = 8.0
"""Time (s) after the first feel sheet of a mode before background work starts."""
LARGEST_MESSAGE = 64 * 2**20
"""Largest message in bytes: an hour of a recording fits."""


class PageServer:
    """The page of one profile, for the tabs that have its token."""

    def __init__(self, desk: Desk, mode: str | None = None, token: str | None = None) -> None:
        """Serve a desk; raises `WendonicError` for a mode that does not exist."""
        self.desk = desk
        self.mode = desk.profile.mode_name(mode)
        self.token = token or secrets.token_urlsafe(18)
        self._tabs: set[WebSocket] = set()
        desk.make_module({})
        self._requests: dict[tuple[int, str], int] = {}
        self._measuring, self._writing = asyncio.Lock(), asyncio.Lock()
        """Measuring takes a while, and a change of form must not wait for it."""
        self.workers = Workers()
        self._readying: asyncio.Task[None] | None = None
        self._readied: tuple[str, str] = ("", "")
        self.hosts: set[str] = set()
        """Allowed names and ports; others are refused, so that no other site can connect."""

    def app(self) -> "Starlette":
        """Return the application."""
        from starlette.applications import Starlette
        from starlette.routing import Route, WebSocketRoute

        start = f"/{self.token}"
        return Starlette(
            routes=[
                Route(f"{start}/", self._page),
                Route(f"{start}/page.js", self._text(page_js, "text/javascript")),
                Route(f"{start}/page.css", self._text(page_css, "text/css")),
                Route(f"{start}/profile.js", self._module),
                WebSocketRoute(f"{start}/wire", self._wire),
            ]
        )

    def _allowed(self, host: str | None, origin: str | None) -> bool:
        return host in self.hosts and (origin is None or origin in {f"http://{one}" for one in self.hosts})

    def _reply(self, request: "Request", content: str | None, kind: str) -> "Response":
        from starlette.responses import Response

        if not self._allowed(request.headers.get("host"), request.headers.get("origin")):
            return Response("forbidden", 403, HEADERS, "text/plain")
        if content is None:
            return Response("not found", 404, HEADERS, "text/plain")
        return Response(content, 200, HEADERS, kind)

    async def _page(self, request: "Request") -> "Response":
        start = {"first": self.desk.first, "mode": self.mode}
        return self._reply(request, page_html(self.desk.profile.title or self.desk.path.name, start), "text/html")

    def _text(self, made: Callable[[], str], kind: str) -> Any:
        async def reply(request: "Request") -> "Response":
            return self._reply(request, made(), kind)

        return reply

    async def _module(self, request: "Request") -> "Response":
        number = request.query_params.get("n", "")
        found = self.desk.module(int(number)) if number.isdigit() else None
        return self._reply(request, found, "text/javascript")

    async def _wire(self, wire: "WebSocket") -> None:
        from starlette.websockets import WebSocketDisconnect

        if not self._allowed(wire.headers.get("host"), wire.headers.get("origin")):
            await wire.close(4403)
            return
        await wire.accept()
        self._tabs.add(wire)
        pending: set[asyncio.Task[None]] = set()
        try:
            await self._tell_tabs()
            for message in self._faults():
                await self._send(wire, message)
            while True:
                message = json.loads(await wire.receive_text())
                if not isinstance(message, dict):
                    continue
                task = asyncio.create_task(self._take(wire, message))
                pending.add(task)
                task.add_done_callback(pending.discard)
        except (WebSocketDisconnect, ValueError):
            pass
        finally:
            self._tabs.discard(wire)
            for request in MEASURES:
                self._requests.pop((id(wire), request), None)
            await self._tell_tabs()

    async def _tell_tabs(self) -> None:
        await self.tell({"kind": "tabs", "count": len(self._tabs)})

    async def tell(self, message: Message) -> None:
        """Send a message to every tab."""
        for tab in list(self._tabs):
            await self._send(tab, message)

    async def _send(self, tab: "WebSocket", message: Message) -> None:
        from starlette.websockets import WebSocketDisconnect

        try:
            await tab.send_text(plain(message))
        except (RuntimeError, WebSocketDisconnect):
            # The tab was closed in the meantime.
            self._tabs.discard(tab)

    async def _take(self, wire: "WebSocket", message: Message) -> None:
        """Answer one message; of several waiting messages of a kind, only the last one counts."""
        request, number = str(message.get("do", "")), int(message.get("id", 0))
        key = (id(wire), request)
        if request in MEASURES:
            self._requests[key] = number
        async with self._measuring if request in MEASURES else self._writing:
            try:
                if request in MEASURES and self._requests.get(key) != number:
                    answer: Message = {"kind": "superseded"}
                elif request in MEASURES:
                    answer = await self._measured(request, message)
                else:
                    answer = await asyncio.to_thread(self._answer, request, message)
            except BrokenExecutor:
                self.workers.close()
                self.workers.renew()
                gone = WendonicError("the measuring process stopped and was restarted; change a number to measure")
                answer = fault_message(gone) | {"kind": "refused", "do": request}
            except WendonicError as fault:
                answer = fault_message(fault) | {"kind": "refused", "do": request}
        await self._send(wire, answer | {"id": number})
        if request == "save" and answer["kind"] == "saved":
            await self.file_is_new()

    async def _measured(self, request: str, message: Message) -> Message:
        """Measure or check in another process."""
        desk, mode = self.desk, str(message.get("mode") or self.mode)
        changes = desk.as_written(message.get("changes") or {})
        if request == "findings":
            found = self.workers.measure(finding_rows, desk.text, changes)
            return {"kind": "findings", "rows": await asyncio.wrap_future(found)}
        rows = await asyncio.wrap_future(self.workers.measure(feel_rows, desk.text, changes, mode, desk.seat))
        self._ready_forms(mode)
        return {"kind": "feel", "rows": rows}

    def _ready_forms(self, mode: str) -> None:
        """Prepare the other forms that fields of a mode may have, unless that is under way or done."""
        key = (self.desk.text, mode)
        if key == self._readied:
            return
        self._readied = key
        if self._readying is not None:
            self._readying.cancel()
        self._readying = asyncio.create_task(self._ready_each(mode))

    async def _ready_each(self, mode: str) -> None:
        await asyncio.sleep(QUIET_S)
        desk = self.desk
        fields = field_contents(desk.profile)
        for changes in other_forms(fields, mode):
            with contextlib.suppress(BrokenExecutor):
                await asyncio.wrap_future(self.workers.ready(ready_form, desk.text, changes, desk.course))

    def close(self) -> None:
        """End the processes beside it."""
        if self._readying is not None:
            self._readying.cancel()
        self.workers.close()

    def _answer(self, request: str, message: Message) -> Message:
        desk, changes = self.desk, message.get("changes") or {}
        match request:
            case "form":
                return {"kind": "module", "number": desk.make_module(changes)}
            case "save":
                desk.save(changes, message.get("rebound"))
                return {"kind": "saved", "path": str(desk.path)}
            case "keep":
                return {"kind": "kept", "path": desk.keep(message.get("lines") or []).name}
            case "recordings":
                return {"kind": "recordings", "names": desk.recordings()}
            case "recording":
                return {"kind": "recording", "events": desk.recording(str(message.get("name", "")))}
        return {"kind": "refused", "do": request, "faults": [{"line": None, "where": "", "what": "unknown request"}]}

    async def file_is_new(self) -> None:
        """Tell every tab that a file has changed, or has faults."""
        # A new course counts even if the profile has faults, with the last valid numbers.
        if not self.desk.fault or self.desk.course_path:
            number = await asyncio.to_thread(self.desk.make_module, {})
            await self.tell({"kind": "file", "number": number})
        for message in self._faults():
            await self.tell(message)

    def _faults(self) -> list[Message]:
        """Return the faults of the files, each with its name."""
        desk = self.desk
        files = ((desk.path, desk.fault), (desk.course_path, desk.course_fault))
        return [fault_message(fault) | {"name": path.name} for path, fault in files if path and fault]

    async def follow(self) -> None:
        """Follow the files of the profile and its course until cancelled."""
        from watchfiles import awatch

        files = [path.absolute() for path in (self.desk.path, self.desk.course_path) if path]
        names = tuple(path.name for path in files)
        seen = awatch(
            *{path.parent for path in files},
            watch_filter=lambda _, changed: changed.endswith(names),
            debounce=50,
            step=20,
            rust_timeout=500,
            yield_on_timeout=True,
            recursive=False,
        )
        async for _ in seen:
            if await asyncio.to_thread(self.desk.look):
                await self.file_is_new()
