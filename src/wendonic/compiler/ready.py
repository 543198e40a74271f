"""Tick functions ready to run, made once for each structure and kept, with the plain kernels as a fallback."""

import functools
import operator
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import wendonic
from wendonic.compiler.collector import collector_paused
from wendonic.compiler.layout import Layout, built, flat, paths_of, structure_of
from wendonic.compiler.made import Made, made_from
from wendonic.compiler.read import SourceMissingError
from wendonic.compiler.store import store, stored, structure_digest
from wendonic.errors import WendonicError
from wendonic.kernels.row import Row
from wendonic.kernels.sample import Sample
from wendonic.kernels.tick import standing, tick, tick_part
from wendonic.kernels.tick_record import tick_at_rest
from wendonic.kernels.tuning import Tuning

if TYPE_CHECKING:
    from wendonic.compiler.tick_function import TickFunction

Record = tuple[float, ...]
RunTick = Callable[[Record, Sequence[float], float], Record]


@dataclass(frozen=True)
class ReadyTick:
    """The tick function of one structure, ready for any numbers.

    `text` is its source, or a note if the plain kernels run instead. `make` takes the numbers of a tuning (see
    `numbers`), its tables and a course, and returns `tick_part`, `tick` and `standing`.
    """

    digest: str
    text: str
    layout: Layout
    indices: tuple[int, ...]
    make: Callable[[Sequence[float], Row, Row], Made]

    def numbers(self, tuning: Tuning) -> tuple[float, ...]:
        """Return the numbers of a tuning that this structure reads."""
        numbers = flat(tuning)
        return tuple([float(numbers[index]) for index in self.indices])

    def record_at_rest(self, tuning: Tuning) -> Record:
        """Return the record before the first tick, which depends only on the structure."""
        found = _AT_REST.get(self.digest)
        if found is None:
            found = tuple(self.layout.flat_record(tick_at_rest(tuning)))
            if self.digest != "plain":
                _AT_REST[self.digest] = found
        return found


_READY: dict[Any, ReadyTick] = {}
_AT_REST: dict[str, Record] = {}


def ready(
    tuning: Tuning, sample: Sample, title: str = "tick", exported: Mapping[str, ReadyTick] | None = None
) -> ReadyTick:
    """Return the tick function of a structure: from memory, from disk, or compiled now; tracebacks show it as
    `title`.

    If the kernels' sources are not available, as in a frozen game, the plain kernels run instead, with the same
    numbers. With `exported`, see `exported_functions`, it is one of those; raises `WendonicError` if none of them has
    this structure.
    """
    structure = structure_of(tuning, sample)
    if exported is not None:
        known = exported.get(structure_digest(structure))
        if known is None:
            raise WendonicError(
                f'tick_functions has none of the structure of mode "{title}"; export the profile as it is now'
            )
        return known
    found = _READY.get(structure)
    if found is None:
        try:
            found = _from_disk(structure, title) or _made(structure, tuning, sample, title)
        except SourceMissingError:
            found = plain(tuning, sample)
        _READY[structure] = found
    return found


def exported_functions(module: Any) -> dict[str, ReadyTick]:
    """Return the tick functions of a module that `wendonic export --as python` wrote, by their digests.

    Raises `WendonicError` for any other module, and for one of another version.
    """
    functions = getattr(module, "TICK_FUNCTIONS", None)
    if not isinstance(functions, dict):
        raise WendonicError(
            f"tick_functions: found {module!r}; allowed: the module …_tick_functions that wendonic export wrote"
        )
    version = getattr(module, "WENDONIC", "an unknown version")
    if wendonic.__version__ != version:
        raise WendonicError(
            f"tick_functions is of Wendonic {version}, this is {wendonic.__version__}; export it anew"
        )
    return {
        digest: ReadyTick(
            digest,
            "# Exported beforehand.\n",
            Layout(
                content["state"],
                content["width"],
                {tuple(path.split(".")): index for path, index in content["indices"].items()},
                {tuple(path.split(".")): number for path, number in content["constants"].items()},
            ),
            content["numbers"],
            content["make"],
        )
        for digest, content in functions.items()
    }


def _from_disk(structure: Any, title: str) -> ReadyTick | None:
    digest = structure_digest(structure)
    content = stored(digest)
    if content is None:
        return None
    try:
        layout = Layout(
            content["state"],
            content["width"],
            {tuple(path.split(".")): index for path, index in content["indices"].items()},
            {tuple(path.split(".")): number for path, number in content["constants"].items()},
        )
        make = made_from(content["text"], f"{title} {digest[:8]}")
        return ReadyTick(digest, content["text"], layout, tuple(content["numbers"]), make)
    except (KeyError, TypeError, AttributeError, SyntaxError):
        # Damaged: compiled again, which replaces it.
        return None


def _made(structure: Any, tuning: Tuning, sample: Sample, title: str) -> ReadyTick:
    # If all tick functions are on disk, the compiler is never imported.
    from wendonic.compiler.python_text import python_text
    from wendonic.compiler.tick_function import tick_function

    with collector_paused():
        function = tick_function(tuning, sample)
        text = python_text(function)
    indices = number_indices(function, tuning)
    digest = structure_digest(structure)
    layout = function.layout
    content = {
        "text": text,
        "state": layout.state,
        "width": layout.width,
        "indices": {".".join(path): index for path, index in layout.indices.items()},
        "constants": {".".join(path): number for path, number in layout.constants.items()},
        "numbers": indices,
    }
    store(digest, content)
    return ReadyTick(digest, text, layout, tuple(indices), made_from(text, f"{title} {digest[:8]}"))


def number_indices(function: "TickFunction", tuning: Tuning) -> list[int]:
    """Return the indices, among all numbers of a tuning, of those that a tick function reads."""
    by_path = {path: index for index, path in enumerate(paths_of(tuning))}
    return [by_path[path] for _, path in function.numbers]


def plain(tuning: Tuning, sample: Sample) -> ReadyTick:
    """Return the plain kernels with the same interface: every number of a tick has an index, nothing is folded."""
    at_rest = tick_at_rest(tuning)
    paths = paths_of(at_rest)
    state = len(paths_of(at_rest.memory))
    layout = Layout(state, len(paths), {path: index for index, path in enumerate(paths)}, {})
    raw = flat(tuning)

    def make(numbers: Sequence[float], tables: Row, course: Row) -> Made:
        given = iter(numbers)
        own = built(tuning, iter([next(given) if isinstance(value, float) else value for value in raw]))

        def run(kernel: Callable[..., Any], last: Record, row: Sequence[float], dt: float) -> Record:
            return tuple(flat(kernel(own, tables, course, built(at_rest, iter(last)), built(sample, iter(row)), dt)))

        def stand(last: Record) -> Record:
            return tuple(flat(standing(built(at_rest, iter(last)))))

        return functools.partial(run, tick_part), functools.partial(run, tick), stand

    indices = tuple(index for index, value in enumerate(raw) if isinstance(value, float))
    return ReadyTick(
        "plain", "# The kernels' sources are not at hand: the plain kernels run.\n", layout, indices, make
    )


def getter(indices: Sequence[int]) -> Callable[[Sequence[float]], tuple[float, ...]]:
    """Return a function that reads numbers from a record.

    >>> getter([2, 0])((1.0, 2.0, 3.0)), getter([1])((1.0, 2.0)), getter([])((1.0,))
    ((3.0, 1.0), (2.0,), ())
    """
    if not indices:
        return lambda _: ()
    if len(indices) == 1:
        (index,) = indices
        return lambda record: (record[index],)
    return operator.itemgetter(*indices)
