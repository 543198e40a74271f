"""What is set so that nobody is happy with it: mice, controls with two jobs, modes."""

from collections.abc import Iterator

from wendonic.profile.claims import double_claims
from wendonic.profile.faults import dotted
from wendonic.profile.look_binds import MouseBind
from wendonic.profile.schema import Profile
from wendonic.study.finding import Finding
from wendonic.study.look_response import USUAL_HAND_CM_S, swipe_deg

LEAST_CM, MOST_CM = 10.0, 120.0
"""A full turn in fewer or more cm of mouse than this."""


def habit_findings(profile: Profile, mode: str) -> Iterator[Finding]:
    """Give what is set out of the common in a mode."""
    table = profile.mode[mode]
    for index, bind in enumerate(table.look.bind if table.look else ()):
        if isinstance(bind, MouseBind):
            turn_cm = 360.0 / swipe_deg(bind, [1.0], USUAL_HAND_CM_S)[0]
            if not LEAST_CM <= turn_cm <= MOST_CM:
                yield Finding(
                    "mouse-turn",
                    "notice",
                    f"mode.{mode}.look.bind[{index}]",
                    f"a full turn takes {turn_cm:.1f} cm of mouse, at {USUAL_HAND_CM_S:g} cm/s",
                    "Between 10 and 120 cm lies what people play with; this is a slip of a digit, or of the dpi.",
                    "cm_per_turn = 34",
                )
    channels = {
        name: getattr(table, name).bind
        for name in ("move", "rise", "throttle", "turn", "look", "goal")
        if getattr(table, name)
    }
    unshared = {
        name: tuple(bind.model_copy(update={"shared": False}) for bind in binds) for name, binds in channels.items()
    }
    for where, words in double_claims(unshared, {}):
        yield Finding(
            "control-on-two-channels",
            "notice",
            dotted(["mode", mode, *(int(part) if part.isdigit() else part for part in where.split("."))]),
            words.split(";")[0],
            "One motion of the hand does two things; players find out which by accident.",
            "bind it once",
        )


def mode_findings(profile: Profile) -> Iterator[Finding]:
    """Give modes that cannot be left, or that nothing leads to."""
    names = list(profile.mode)
    for name, mode in profile.mode.items():
        if len(names) > 1 and mode.leave_to == ():
            yield Finding(
                "mode-without-a-way-out",
                "notice",
                f"mode.{name}.leave_to",
                "leaves to nowhere",
                "Whoever gets into this mode stays in it.",
                f'leave_to = ["{next(other for other in names if other != name)}"]',
            )
        ways = [profile.mode[other].leave_to for other in names if other != name]
        if name != profile.first_mode and not any(way is None or name in way for way in ways):
            yield Finding(
                "mode-without-a-way-in",
                "notice",
                f"mode.{name}",
                "no other mode leaves to it",
                "Nobody ever gets here.",
                f'leave_to = ["{name}"] in mode.{profile.first_mode}',
            )
