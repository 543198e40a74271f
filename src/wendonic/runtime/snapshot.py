"""A moment of play as a value, for rewinding, saving, and prediction over a network."""

import functools
import operator
import pickle
from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple

from wendonic.compiler.ready import Record
from wendonic.devices.sampler import Sampler
from wendonic.devices.state import DeviceState
from wendonic.world_axes import GameVector

_LEFT_OUT = frozenset(("_sampler", "values", "watched", "sources", "layout", "recorder"))
"""Attributes that never change, or are kept elsewhere."""


class Snapshot(NamedTuple):
    """What a helm carries from tick to tick. Equal snapshots lead to the same ticks; they can be pickled and copied.

    `structure` names the modes, their tick functions and their bindings: a helm accepts only snapshots of its own
    structure. `held` are the values of all controls; `controls` is the pickled state of their readers; as with all
    pickles, restore only snapshots that you saved yourself.
    """

    structure: str
    mode: str
    record: Record
    row: tuple[float, ...]
    clock: tuple[float, float, float, float, float, float]
    view: tuple[float, float]
    ground: tuple[float, float, float, float]
    device: str | None
    seen: tuple[int, int, bool]
    held: tuple[float, ...]
    controls: bytes
    contact: GameVector | None


def saved_controls(state: DeviceState, samplers: Iterable[Sampler]) -> bytes:
    """Return what the state and the readers of all modes keep about held controls, except the values."""
    # Readers and the changes that they wait for share objects, which one pickle keeps together.
    content = (_content(state), [_sampler_content(sampler) for sampler in samplers])
    return pickle.dumps(content, protocol=5)


def restore_controls(state: DeviceState, samplers: Iterable[Sampler], controls: bytes) -> None:
    """Restore what `saved_controls` returned."""
    held, contents = pickle.loads(controls)
    _put(state, held)
    for sampler, (own, readers) in zip(samplers, contents, strict=True):
        for name, value in zip(_SAMPLER_STATE, own, strict=True):
            setattr(sampler, name, value)
        for reader, content in zip(_readers(sampler), readers, strict=True):
            _put(reader, content)


_SAMPLER_STATE = ("_edges_are_new", "has_edges", "press_device")
_sampler_state = operator.attrgetter(*_SAMPLER_STATE)


def _sampler_content(sampler: Sampler) -> tuple[Any, list[list[Any]]]:
    return _sampler_state(sampler), [_content(reader) for reader in _readers(sampler)]


def _readers(sampler: Sampler) -> Iterator[Any]:
    yield from sampler.readers
    yield from sampler.presses


@functools.cache
def _names(kind: Any) -> tuple[str, ...]:
    """Return the names of the attributes that change in objects of a class."""
    names = (name for one in kind.__mro__ for name in getattr(one, "__slots__", ()))
    return tuple(name for name in names if name not in _LEFT_OUT)


def _content(thing: Any) -> list[Any]:
    kind: Any = type(thing)
    return [getattr(thing, name) for name in _names(kind)]


def _put(thing: Any, content: list[Any]) -> None:
    kind: Any = type(thing)
    for name, value in zip(_names(kind), content, strict=True):
        setattr(thing, name, value)
