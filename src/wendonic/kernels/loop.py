"""Many ticks in a row: the loop that a batch interprets or compiles."""

from collections.abc import MutableSequence, Sequence

from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.pipeline import Memory, Tuning, tick


@kernel
def sample_of(row: Row) -> Row:
    """Return a row's SAMPLE_WIDTH numbers as a tuple, which the compiler keeps in registers."""
    first = row[0], row[1], row[2], row[3], row[4], row[5], row[6], row[7]
    second = row[8], row[9], row[10], row[11], row[12], row[13], row[14], row[15]
    return first + second


@kernel
def run_ticks(
    tuning: Tuning,
    memory: Memory,
    samples: Sequence[Row],
    views: Sequence[Row],
    dts: Row,
    outcomes: Sequence[MutableSequence[float]],
) -> Memory:
    """Fill `outcomes`, one row a tick, and return the memory after the last one.

    `samples`, `views` and `dts` have one row a tick too; see `tick` for what they hold. Rows are lists when
    interpreted and rows of arrays when compiled.
    """
    for k in range(len(dts)):
        view = views[k]
        memory, outcome = tick(tuning, memory, sample_of(samples[k]), (view[0], view[1]), dts[k])
        row = outcomes[k]
        for field in range(len(outcome)):
            row[field] = outcome[field]
    return memory
