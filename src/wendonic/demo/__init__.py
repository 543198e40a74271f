"""Hollowmere Apiary: the shipped profile and recordings, and the script that makes them from stand-ins."""

from pathlib import Path

from wendonic.profile.load import load_profile
from wendonic.profile.schema import Profile
from wendonic.recording.recording import Recording

FOLDER = Path(__file__).parent
PROFILE_PATH = FOLDER / "beekeeper.toml"
RECORDING_NAMES = ("beekeeper_keys", "beekeeper_pad")


def demo_profile() -> Profile:
    """Return the beekeeper's profile."""
    return load_profile(PROFILE_PATH)


def demo_recording(name: str) -> Recording:
    """Return one of the shipped recordings, by a name of `RECORDING_NAMES`."""
    return Recording.read(FOLDER / f"{name}.jsonl")
