"""One mode of a profile, to be tried by itself."""

from wendonic.profile.schema import Profile


def alone(profile: Profile, mode: str) -> Profile:
    """Return the profile with nothing but one mode, in which a helm starts.

    >>> from wendonic.demo import demo_profile
    >>> alone(demo_profile("store_room"), "ladder").first_mode
    'ladder'
    """
    return profile.model_copy(update={"mode": {mode: profile.mode[mode].model_copy(update={"leave_to": None})}})
