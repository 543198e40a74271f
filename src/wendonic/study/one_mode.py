"""One mode of a profile, to be tried by itself, and the parts of it that move."""

from wendonic.profile.schema.profile import Profile
from wendonic.study.measuring.jumps import jump_press_name


def one_mode(profile: Profile, mode: str) -> Profile:
    """Return the profile with nothing but one mode, in which a helm starts.

    >>> from wendonic.demo import demo_profile
    >>> one_mode(demo_profile("store_room"), "ladder").first_mode
    'ladder'
    """
    alone = profile.mode[mode].staying().model_copy(update={"leave_to": None})
    return profile.model_copy(update={"mode": {mode: alone}})


def only_moving(profile: Profile, mode: str, held: str | None = None) -> Profile:
    """Return the profile with one mode, and of it what moves the body: no look, and no presses but those that jump,
    switch gaits, scale or point, and the one that is `held`.

    >>> from wendonic.demo import demo_profile
    >>> walks = only_moving(demo_profile(), "foot").mode["foot"]
    >>> walks.look, list(walks.press)
    (None, ['jump'])
    """
    table = profile.mode[mode].staying()
    jumps = {gait.jump.press for gait in profile.gaits_of(mode).values() if gait.jump}
    named = {*table.press_gaits, *(table.move.press_amounts if table.move else ()), *jumps}
    named |= {jump_press_name(profile, mode), held}
    teleport = getattr(table.steer, "teleport", None)
    named |= {teleport.press} if teleport else set()
    presses = {name: press for name, press in table.press.items() if name in named}
    bare = table.model_copy(update={"leave_to": None, "look": None, "press": presses})
    return profile.model_copy(update={"mode": {mode: bare}})
