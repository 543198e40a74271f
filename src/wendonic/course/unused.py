"""Parts of a course without effect under a profile: a mode that ignores heights walks on as if there were none."""

import logging
from collections.abc import Sequence

from wendonic.course.course import Course
from wendonic.kernels.frames.steer import FRAME_FLY, FRAME_GRID
from wendonic.kernels.tuning import Tuning
from wendonic.profile.schema.profile import Profile
from wendonic.profile.tuning import mode_tuning


def unused_parts(course: Course, profile: Profile, modes: Sequence[str] = ()) -> list[str]:
    """Return a sentence for each part of a course that has no effect in any of `modes`, by default all of a profile.

    >>> from wendonic.demo import demo_course, demo_profile
    >>> unused_parts(demo_course("terraces"), demo_profile("terraces"))
    []
    >>> unused_parts(demo_course("terraces"), demo_profile("beekeeper"))[0]
    'the heights of the course have no effect in mode foot: to follow the ground, steer needs slope = {}'
    """
    names = [profile.mode_name(mode) for mode in modes or profile.mode]
    ticks = [mode_tuning(profile, name, on_course=True).tick for name in names]
    where = f"mode {names[0]}" if len(names) == 1 else f"any mode ({', '.join(names)})"
    unused = []
    if course.piece and not any(map(_knows_heights, ticks)):
        on_squares = all(tick.frame.frame == FRAME_GRID for tick in ticks)
        why = "squares are level" if on_squares else "to follow the ground, steer needs slope = {}"
        unused.append(f"the heights of the course have no effect in {where}: {why}")
    if course.blocked and not any(tick.frame.frame == FRAME_GRID for tick in ticks):
        unused.append(
            f'the blocked squares of the course have no effect in {where}: they count in steer frame "grid" only'
        )
    return unused


def _knows_heights(tick: Tuning) -> bool:
    frame = tick.frame
    if frame.frame in (FRAME_FLY, FRAME_GRID):
        return frame.frame == FRAME_FLY
    return frame.slope.follows > 0 or any(gait.fall.falls > 0 for gait in tick.gaits)


def warn_of_unused(course: Course | None, profile: Profile, modes: Sequence[str] = (), title: str = "") -> None:
    """Log these sentences as warnings of the logger `wendonic`, after a `title`."""
    for words in unused_parts(course, profile, modes) if course else ():
        logging.getLogger("wendonic").warning("%s%s", title, words)
