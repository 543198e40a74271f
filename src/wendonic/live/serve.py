"""Serves the live page until it is interrupted."""

import asyncio
import contextlib
import signal
import socket
import webbrowser
from collections.abc import Callable

from wendonic.errors import WendonicError
from wendonic.live.server import LARGEST_MESSAGE, PageServer

HOST = "127.0.0.1"


def bound_socket(port: int) -> socket.socket:
    """Return a socket on the loopback address; port 0 is any free one. Raises `WendonicError` for a port in use."""
    found = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    found.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        found.bind((HOST, port))
        # From now on an early browser waits instead of being refused.
        found.listen(64)
    except OSError as fault:
        found.close()
        raise WendonicError(f"port {port}: {fault.strerror or fault}; --port 0 takes a free one") from None
    return found


def serve(server: PageServer, port: int, opens: bool, ready: Callable[[str], None]) -> None:
    """Serve until interrupted; `ready` is called with the address. With `opens`, the browser is opened there.

    Raises `WendonicError` if Starlette, uvicorn or watchfiles is missing, or the port is in use.
    """
    try:
        import uvicorn
    except ImportError:
        raise WendonicError("the live page needs Starlette and uvicorn: pip install 'wendonic[live]'") from None
    taken = bound_socket(port)
    number = taken.getsockname()[1]
    server.hosts = {f"{HOST}:{number}", f"localhost:{number}"}
    address = f"http://{HOST}:{number}/{server.token}/"
    config = uvicorn.Config(
        server.app(), log_level="warning", ws_max_size=LARGEST_MESSAGE, timeout_graceful_shutdown=1, lifespan="off"
    )

    async def run() -> None:
        following = asyncio.create_task(server.follow())
        running = uvicorn.Server(config)
        ready(address)
        if opens:
            webbrowser.open(address)
        try:
            await running.serve([taken])
        finally:
            server.close()
            following.cancel()
            with contextlib.suppress(asyncio.CancelledError):
                await following

    # Shut down cleanly in every case.
    signal.signal(signal.SIGTERM, signal.default_int_handler)
    with contextlib.suppress(KeyboardInterrupt):
        asyncio.run(run())
