"""Where work on many recordings runs: in this process, in a pool of processes here, or on a cluster."""

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
"""So long a scheduler is given to answer."""

LOOK_S = 5.0
"""How often to look whether a cluster still has workers (s)."""

ATTEMPTS = 10
"""So many workers may die over a chunk before it is given up."""

NO_PROCESS = (
    "a process ended before its work was done; a script that shares work among processes has to do so under "
    'if __name__ == "__main__":'
)

LOG = logging.getLogger(__name__)


def version_here() -> str | None:
    """Return the version of Wendonic that is installed, None where it runs from its sources only."""
    try:
        return version("wendonic")
    except PackageNotFoundError:
        return None


class Pool:
    """Runs chunks of a job one by one, by `workers` processes of one thread each, or on the Dask cluster whose
    scheduler listens at an address. A chunk whose worker dies goes to another one.

    Without the extra `cluster` several workers are one: the work is done here, and a log line says so. An address
    that does not answer, or that needs the extra, and processes that cannot begin raise `WendonicError`.
    """

    def __init__(self, workers: int = 1, cluster: str | None = None) -> None:
        """Begin nothing yet."""
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
        """Say so if a cluster has no workers; raise `WendonicError` for one that cannot do the work."""
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
        """Say so when the last worker goes while there is work, which then waits, and when there is one again."""
        had = bool(self._client.nthreads())
        while not self._over.wait(LOOK_S):
            try:
                has = bool(self._client.nthreads())
            except (OSError, RuntimeError, TimeoutError):
                # The scheduler itself is away: the client says so.
                continue
            if has != had:
                what = "has workers: the work goes on" if has else "has no workers left: the work waits for one"
                LOG.warning("%s %s", self._address, what)
            had = has

    def each(self, work: Callable[[Job, Chunk], Found], job: Job, chunks: Sequence[Chunk]) -> Iterator[Found]:
        """Give the result of each chunk, in whatever order they are done."""
        if self._client is None:
            yield from (work(job, chunk) for chunk in chunks)
            return
        from distributed import as_completed

        # The job goes with each chunk: what only one worker holds is gone when that one dies.
        tasks = [self._client.submit(work, job, chunk, pure=False) for chunk in chunks]
        for task in as_completed(tasks):  # type: ignore[no-untyped-call]
            yield task.result()
            task.release()

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        """Let the processes end."""
        self._over.set()
        if self._watch.is_alive():
            self._watch.join(LOOK_S)
        for one in (self._client, self._cluster):
            if one is not None:
                one.close()
