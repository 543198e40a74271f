"""Hollowmere Apiary: the shipped profile and recordings, and the script that makes them from stand-ins."""

import shutil
from pathlib import Path

from wendonic.errors import WendonicError
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


def copy_inputs(folder: str | Path) -> None:
    """Copy the shipped profile and recordings into `folder`, to play with; makes the folder if it is missing."""
    target = Path(folder)
    try:
        target.mkdir(parents=True, exist_ok=True)
        for source in (PROFILE_PATH, *(FOLDER / f"{name}.jsonl" for name in RECORDING_NAMES)):
            shutil.copyfile(source, target / source.name)
    except OSError as error:
        raise WendonicError(f"cannot write into {target}: {error.strerror or error}") from error
