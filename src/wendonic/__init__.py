"""Shape raw input into movement intent, and see why it feels the way it does."""

__version__ = "0.1.0"

from wendonic.batch import shape
from wendonic.devices.event import Event
from wendonic.errors import (
    ControlError,
    DeviceError,
    ProfileError,
    RecordingError,
    WendonicError,
)
from wendonic.helm import Helm
from wendonic.intent import Intent, Press, View
from wendonic.profile.load import load_profile
from wendonic.profile.schema import Profile
from wendonic.recording.recording import Recording

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
    "load_profile",
    "shape",
]
