"""Shell completion of modes, presses, devices, settings and quantities, from the profile on the command line."""

from collections.abc import Callable, Iterable
from pathlib import Path
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from wendonic.profile.schema.profile import Profile

Completer = Callable[[Any, str], list[str]]


def _profile_of(context: Any) -> "Profile | None":
    """Return the first profile of a command line that is being typed, None if there is none that can be read."""
    from wendonic.errors import WendonicError
    from wendonic.profile.load import load_profile

    given = [*context.params.values(), *context.args]
    paths = [one for value in given for one in (value if isinstance(value, list | tuple) else [value])]
    profiles = [path for path in paths if isinstance(path, str | Path) and str(path).endswith(".toml")]
    try:
        return load_profile(profiles[0]) if profiles else None
    except WendonicError:
        return None


def _of_profile(names: "Callable[[Profile], Iterable[str]]") -> Completer:
    def complete(ctx: Any, incomplete: str) -> list[str]:
        profile = _profile_of(ctx)
        found = names(profile) if profile else ()
        return [name for name in dict.fromkeys(found) if name.startswith(incomplete)]

    return complete


def _devices(profile: "Profile") -> Iterable[str]:
    for mode in profile.mode.values():
        for binds in mode.bound_channels.values():
            yield from (bind.called() for bind in binds)


def settings(profile: "Profile") -> Iterable[str]:
    """Yield the path of every number of a profile, defaults included, in the order of the file."""
    from wendonic.profile.flat_settings import flat_settings

    for path, value in flat_settings(profile.model_dump()).items():
        if isinstance(value, int | float) and not isinstance(value, bool):
            yield path


modes = _of_profile(lambda profile: profile.mode)
presses = _of_profile(lambda profile: profile.press_names)
devices = _of_profile(_devices)
numbers = _of_profile(settings)


def quantities(incomplete: str) -> list[str]:
    """Complete the name of a quantity of the feel sheet."""
    from wendonic.profile.schema.budget import quantity_names

    return [name for name in quantity_names() if name.startswith(incomplete)]
