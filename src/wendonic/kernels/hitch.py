"""A hitch: the input of each of its parts, and their results joined into one tick."""

from wendonic.kernels.frames.goal import GoalInput
from wendonic.kernels.look.look import LOOK_DISPLACEMENT
from wendonic.kernels.press.press import PressInput, PressState
from wendonic.kernels.row import Row
from wendonic.kernels.sample import Sample, ViewInput
from wendonic.kernels.source.source import SOURCE_SWING
from wendonic.kernels.tick_record import Tick, View
from wendonic.kernels.tuning import Tuning
from wendonic.kernels.vector import ZERO3, Vec3


def raw_share(numbers: Row, count: int, share: float) -> Row:
    """Return the first raw numbers of a source, each multiplied by a share.

    >>> raw_share((4.0, -2.0, 8.0), 2, 0.5)
    (2.0, -1.0)
    """
    shared: tuple[float, ...] = ()
    for k in range(len(numbers)):
        if k < count:
            shared = (*shared, numbers[k] * share)
    return shared


def sample_share(tuning: Tuning, sample: Sample, share: float) -> Sample:
    """Return the sample of the first part of a hitch, with its share of every displacement."""
    look: tuple[Row, ...] = ()
    for k in range(len(tuning.look.sources)):
        numbers = sample.look[k]
        if tuning.look.sources[k].kind == LOOK_DISPLACEMENT:
            numbers = raw_share(numbers, 2, share)
        look = (*look, numbers)
    move: tuple[Row, ...] = ()
    for k in range(len(tuning.move.sources)):
        numbers = sample.move[k]
        if tuning.move.sources[k].kind == SOURCE_SWING:
            left = Vec3(numbers[0] * share, numbers[1] * share, numbers[2] * share)
            right = Vec3(numbers[4] * share, numbers[5] * share, numbers[6] * share)
            numbers = (left.x, left.y, left.z, numbers[3], right.x, right.y, right.z, numbers[7])
        move = (*move, numbers)
    return sample._replace(look=look, move=move)


def later_sample(sample: Sample) -> Sample:
    """Return the sample of a later part of a hitch: edges, goals and given views belonged to the first."""
    presses: tuple[PressInput, ...] = ()
    for k in range(len(sample.presses)):
        presses = (*presses, PressInput(sample.presses[k].down, 0.0, 0.0))
    view = ViewInput(0.0, sample.view.yaw, sample.view.pitch)
    return sample._replace(presses=presses, view=view, goal=GoalInput(-1.0, 0.0, 0.0), wall=ZERO3)


def joined(first: Tick, second: Tick) -> Tick:
    """Return two ticks as one: events of the first count as well, and the turns of the view add up."""
    before, after = first.outcome, second.outcome
    presses: tuple[PressState, ...] = ()
    kept: tuple[PressState, ...] = ()
    for k in range(len(after.presses)):
        began = max(before.presses[k].began, after.presses[k].began)
        ended = max(before.presses[k].ended, after.presses[k].ended)
        began_count = before.presses[k].began_count + after.presses[k].began_count
        goes_on = after.presses[k].held > 0.0 or after.presses[k].ended > 0.0
        held_s = after.presses[k].held_s if goes_on else before.presses[k].held_s
        press = after.presses[k]._replace(began=began, ended=ended, held_s=held_s, began_count=began_count)
        presses = (*presses, press)
        kept = (*kept, second.memory.presses[k]._replace(held_s=held_s))
    frame, comfort, pointing = after.frame, after.comfort, after.pointing
    contact = after.contact
    if contact.x == 0.0 and contact.y == 0.0:
        contact = before.contact
    outcome = after._replace(
        contact=contact,
        look=View(before.look.yaw + after.look.yaw, before.look.pitch + after.look.pitch),
        presses=presses,
        frame=frame._replace(
            arrived=max(before.frame.arrived, frame.arrived),
            grid=frame.grid._replace(
                began=max(before.frame.grid.began, frame.grid.began),
                ended=max(before.frame.grid.ended, frame.grid.ended),
            ),
        ),
        comfort=comfort._replace(returned=max(before.comfort.returned, comfort.returned)),
        pointing=pointing._replace(teleported=max(before.pointing.teleported, pointing.teleported)),
    )
    return Tick(second.memory._replace(presses=kept, wall=contact), outcome)
