"""Parts of one mode of a profile on their own: those that move the body, and those that do not."""

from typing import Any

from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.steer.map import MapSteer
from wendonic.study.measuring.jumps import jump_press_name


def only_moving(profile: Profile, mode: str, held: str | None = None) -> Profile:
    """Return the profile with one mode, reduced to what moves the body: without look, and with no presses except
    those that jump, switch gaits, scale or point, and the one that is `held`.

    >>> from wendonic.demo import demo_profile
    >>> walks = only_moving(demo_profile(), "foot").mode["foot"]
    >>> walks.look, list(walks.press)
    (None, ['jump'])
    """
    table = profile.mode[mode].staying()
    jumps = {gait.jump.press for gait in profile.gaits_of(mode).values() if gait.jump}
    used = {*table.press_gaits, *(table.move.press_amounts if table.move else ()), *jumps}
    used |= {jump_press_name(profile, mode), held}
    teleport = getattr(table.steer, "teleport", None)
    used |= {teleport.press} if teleport else set()
    presses = {name: press for name, press in table.press.items() if name in used}
    bare = table.model_copy(update={"leave_to": None, "look": None, "press": presses})
    return profile.model_copy(update={"mode": {mode: bare}})


def without_moving(profile: Profile, mode: str) -> Profile:
    """Return the profile with one mode, reduced to look and presses.

    >>> from wendonic.demo import demo_profile
    >>> looks = without_moving(demo_profile(), "foot").mode["foot"]
    >>> looks.move, looks.gait, list(looks.press)
    (None, 'none', ['jump', 'sprint', 'smoke', 'next_frame'])
    """
    moving: dict[str, Any] = dict.fromkeys(("move", "rise", "throttle", "turn", "goal", "comfort", "leave_to"))
    moving |= {"steer": MapSteer(frame="map"), "gait": "none", "press_gaits": {}}
    return profile.model_copy(update={"mode": {mode: profile.mode[mode].staying().model_copy(update=moving)}})
