"""The positions of the raw numbers of a mode's bindings in a row."""

from typing import NamedTuple

from wendonic.devices.sources.mode import ModeSources
from wendonic.kernels.sample import EMPTY_SAMPLE, NO_PRESS, Sample


class SampleLayout(NamedTuple):
    """First indices of each source by its channel, of the presses (three numbers each), and of the rest of a sample;
    `sample` is one at rest, `at_rest` its numbers in a row.
    """

    channels: dict[str, tuple[int, ...]]
    presses: int
    view: int
    ground: int
    goal: int
    aim: int
    pointers: int
    head: int
    pointing: int
    wall: int
    sample: Sample
    at_rest: tuple[float, ...]


def sample_layout(sources: ModeSources) -> SampleLayout:
    """Return the layout, in the order of `kernels.sample.Sample`."""
    rows = [tuple((0.0,) * source.width for source in channel) for channel in sources.channels]
    sample = EMPTY_SAMPLE._replace(
        move=rows[0],
        rise=rows[1],
        throttle=rows[2],
        turn=rows[3],
        look=rows[4],
        presses=(NO_PRESS,) * len(sources.presses),
    )
    index = 0
    channels: dict[str, tuple[int, ...]] = {}
    for name, row in zip(("move", "rise", "throttle", "turn", "look"), rows, strict=True):
        starts = []
        for numbers in row:
            starts.append(index)
            index += len(numbers)
        channels[name] = tuple(starts)
    presses = index
    view = presses + 3 * len(sources.presses)
    flat: list[float] = []
    _flatten(sample, flat)
    ground, goal, aim, pointers, head, pointing = view + 3, view + 7, view + 10, view + 13, view + 19, view + 21
    wall = view + 27
    return SampleLayout(
        channels, presses, view, ground, goal, aim, pointers, head, pointing, wall, sample, tuple(flat)
    )


def _flatten(value: object, into: list[float]) -> None:
    if isinstance(value, tuple):
        for part in value:
            _flatten(part, into)
    elif isinstance(value, float):
        into.append(value)
