"""Shape raw input into movement intent, and see why it feels the way it does."""

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from wendonic.batch import shape
    from wendonic.devices.event import Event
    from wendonic.devices.next_control import next_control
    from wendonic.errors import ControlError, DeviceError, ProfileError, RecordingError, WendonicError
    from wendonic.profile.load import load_profile, profile_from_text
    from wendonic.profile.save import save_profile
    from wendonic.profile.schema.profile import Profile
    from wendonic.recording.recording import Recording
    from wendonic.runtime.helm import Helm
    from wendonic.runtime.intent import Intent, Press
    from wendonic.runtime.slopes import on_slope
    from wendonic.runtime.view import View
    from wendonic.runtime.watch import watch
    from wendonic.world_axes import WorldAxes

__version__ = "0.2.0"

__all__ = [
    "ControlError",
    "DeviceError",
    "Event",
    "Helm",
    "Intent",
    "Press",
    "Profile",
    "ProfileError",
    "Recording",
    "RecordingError",
    "View",
    "WendonicError",
    "WorldAxes",
    "load_profile",
    "next_control",
    "on_slope",
    "profile_from_text",
    "save_profile",
    "shape",
    "watch",
]

_MODULES = {
    "shape": "batch",
    "Event": "devices.event",
    "Helm": "runtime.helm",
    "Intent": "runtime.intent",
    "Press": "runtime.intent",
    "View": "runtime.view",
    "load_profile": "profile.load",
    "next_control": "devices.next_control",
    "profile_from_text": "profile.load",
    "save_profile": "profile.save",
    "Profile": "profile.schema.profile",
    "Recording": "recording.recording",
    "on_slope": "runtime.slopes",
    "watch": "runtime.watch",
    "WorldAxes": "world_axes",
}


def __dir__() -> list[str]:
    """Return the public names, for tab completion."""
    return sorted({*globals(), *__all__})


def __getattr__(name: str) -> Any:
    """Import a public name when it is first used, so that `import wendonic` stays fast."""
    if name not in __all__:
        raise AttributeError(f"module 'wendonic' has no attribute {name!r}")
    value = getattr(import_module(f"wendonic.{_MODULES.get(name, 'errors')}"), name)
    globals()[name] = value
    return value
