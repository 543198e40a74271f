"""A moment of play as a value: to rewind, to save, to predict over a network."""

import pickle
from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple

from wendonic.compiler.ready import Record
from wendonic.devices.sampler import Sampler
from wendonic.devices.state import DeviceState
from wendonic.world_axes import GameVector

_LEFT_OUT = frozenset(("_sampler", "watched", "sources", "layout", "recorder"))
"""What never changes, or is kept elsewhere."""


class Snapshot(NamedTuple):
    """What a helm carries from tick to tick. Two that are equal lead to the same ticks; it pickles and copies.

    `structure` names the modes, their tick functions and their bindings: a helm takes a snapshot of its own structure
    only. `controls` are the held controls and what their readers know of them, pickled: as with anything pickled,
    restore only what you saved yourself.
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
    controls: bytes
    contact: GameVector | None


def saved_controls(state: DeviceState, samplers: Iterable[Sampler]) -> bytes:
    """Return what is held, and what the readers of all modes know of it."""
    # Readers and the changes that they wait for are one graph, which pickle keeps together.
    content = (_slots(state), [_sampler_content(sampler) for sampler in samplers])
    return pickle.dumps(content, protocol=5)


def restore_controls(state: DeviceState, samplers: Iterable[Sampler], controls: bytes) -> None:
    """Put back what `saved_controls` gave."""
    state_content, contents = pickle.loads(controls)
    _put(state, state_content)
    for sampler, (own, readers) in zip(samplers, contents, strict=True):
        _put(sampler, own)
        for reader, content in zip(_readers(sampler), readers, strict=True):
            _put(reader, content)


_SAMPLER_STATE = ("_edges_are_new", "has_edges", "press_device")


def _sampler_content(sampler: Sampler) -> tuple[dict[str, Any], list[dict[str, Any]]]:
    own = {name: getattr(sampler, name) for name in _SAMPLER_STATE}
    return own, [_slots(reader) for reader in _readers(sampler)]


def _readers(sampler: Sampler) -> Iterator[Any]:
    yield from sampler.readers
    yield from sampler.presses


def _slots(thing: Any) -> dict[str, Any]:
    names = [name for kind in type(thing).__mro__ for name in getattr(kind, "__slots__", ())]
    return {name: getattr(thing, name) for name in names if name not in _LEFT_OUT}


def _put(thing: Any, content: dict[str, Any]) -> None:
    for name, value in content.items():
        setattr(thing, name, value)
