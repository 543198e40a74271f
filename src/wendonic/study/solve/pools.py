"""Runs work on many recordings in this process, in a pool of local processes, or on a cluster."""

import logging
import threading
from collections.abc import Callable, Iterator, Sequence
from importlib.metadata import PackageNotFoundError, version
from types import TracebackType
from typing import Any, Self, TypeVar

from wendonic.errors import WendonicError

Job = TypeVar("Job")
Chunk = TypeVar("Chunk")
Found = TypeVar("Found")

CONNECT_S = 10.0
"""How long a scheduler may take to answer."""

LOOK_S = 5.0
"""How often to look whether a cluster still has workers (s)."""

ATTEMPTS = 10
"""How many workers may die on a chunk before it is given up."""

NO_PROCESS = (
    "a process ended before its work was done; a script that shares work among processes has to do so under "
    'if __name__ == "__main__":'
)

LOG = logging.getLogger(__name__)


def version_here() -> str | None:
    """Return the installed version of Wendonic, None if it runs from sources that are not installed."""
    try:
        return version("wendonic")
    except PackageNotFoundError:
        return None


class Pool:
    """Runs chunks of a job one by one, by `workers` processes of one thread each, or on the Dask cluster whose
    scheduler listens at an address. A chunk whose worker dies goes to another one.

    Without the extra `cluster` the work is done in this process, whatever `workers` is, and a log line says so.
    Raises `WendonicError` for an address that does not answer, one that is given without the extra, and processes
    that cannot start.
    """

    def __init__(self, workers: int = 1, cluster: str | None = None) -> None:
        """Keep the settings; nothing starts yet."""
        if workers < 1:
            raise WendonicError(f"found {workers} workers; allowed: 1 or more")
        self._workers = workers
        self._address = cluster
        self._client: Any = None
        self._cluster: Any = None
        self._over = threading.Event()
        self._watch = threading.Thread(target=self._say_who_is_left, daemon=True)

    def __enter__(self) -> Self:
        """Start the processes, or find the cluster."""
        if self._address is None and self._workers == 1:
            return self
        try:
            from dask import config
            from distributed import Client, LocalCluster
        except ImportError:
            if self._address is not None:
                raise WendonicError("a cluster needs Dask: pip install 'wendonic[cluster]'") from None
            LOG.warning(
                "several workers need Dask: pip install 'wendonic[cluster]'; the work is done in this process"
            )
            return self
        config.set({"distributed.scheduler.allowed-failures": ATTEMPTS})
        try:
            if self._address is None:
                self._cluster = LocalCluster(  # type: ignore[no-untyped-call]
                    n_workers=self._workers,
                    threads_per_worker=1,
                    processes=True,
                    dashboard_address=None,
                    silence_logs=logging.ERROR,
                )
            self._client = Client(self._cluster or self._address, timeout=CONNECT_S)  # type: ignore[no-untyped-call]
        except RuntimeError:
            raise WendonicError(NO_PROCESS) from None
        except OSError as error:
            raise WendonicError(f"{self._address}: no scheduler answers there ({error})") from None
        except (ValueError, TypeError) as error:
            allowed = "the address of a Dask scheduler, such as tcp://host:8786"
            raise WendonicError(f'cluster: found "{self._address}" ({error}); allowed: {allowed}') from None
        if self._address is not None:
            self._look_at_workers()
            self._watch.start()
        return self

    def _look_at_workers(self) -> None:
        """Log it if a cluster has no workers; raise `WendonicError` for a cluster that cannot do the work."""
        found = self._client.run(version, "wendonic", on_error="return")
        if not found:
            LOG.warning("%s has no workers yet: the work begins once one has joined", self._address)
        here = version_here()
        for worker, there in found.items():
            if here is not None and there != here:
                has = "no Wendonic" if isinstance(there, Exception) else f"Wendonic {there}"
                self.__exit__(None, None, None)
                raise WendonicError(f"worker {worker} has {has}; allowed: Wendonic {here}, as here, on every worker")

    def _say_who_is_left(self) -> None:
        """Log it when the last worker leaves while there is work, which then waits, and when one returns."""
        had = bool(self._client.nthreads())
        while not self._over.wait(LOOK_S):
            try:
                has = bool(self._client.nthreads())
            except (OSError, RuntimeError, TimeoutError):
                # The scheduler itself is gone, which the client reports.
                continue
            if has != had:
                what = "has workers: the work goes on" if has else "has no workers left: the work waits for one"
                LOG.warning("%s %s", self._address, what)
            had = has

    def each(self, work: Callable[[Job, Chunk], Found], job: Job, chunks: Sequence[Chunk]) -> Iterator[Found]:
        """Yield the result of each chunk, in the order in which they finish."""
        if self._client is None:
            yield from (work(job, chunk) for chunk in chunks)
            return
        from distributed import as_completed

        # The job is sent with each chunk: data that only one worker holds is lost when it dies.
        tasks = [self._client.submit(work, job, chunk, pure=False) for chunk in chunks]
        for task in as_completed(tasks):  # type: ignore[no-untyped-call]
            yield task.result()
            task.release()

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        """Stop the processes."""
        self._over.set()
        if self._watch.is_alive():
            self._watch.join(LOOK_S)
        for one in (self._client, self._cluster):
            if one is not None:
                one.close()
