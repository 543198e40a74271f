"""The profiles of a picture, by the names in its key."""

from collections.abc import Mapping

from wendonic.errors import WendonicError
from wendonic.profile.schema.profile import Profile, known_profile, named_profiles


def by_name(profiles: Profile | Mapping[str, Profile]) -> dict[str, Profile]:
    """Return profiles by name; a single one gets its title.

    >>> from wendonic.demo import demo_profile
    >>> list(by_name(demo_profile())), list(by_name({"before": demo_profile(), "after": demo_profile()}))
    (['Beekeeper on the terraces'], ['before', 'after'])
    """
    several = isinstance(profiles, Mapping | list | tuple)
    given = named_profiles(profiles) if several else {known_profile(profiles).title: profiles}
    if not given:
        raise WendonicError("there is no profile to draw")
    return {name: known_profile(profile) for name, profile in given.items()}
