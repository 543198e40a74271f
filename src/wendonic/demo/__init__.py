"""Hollowmere Apiary: the shipped profile and recordings, and the script that makes them from stand-ins."""

import shutil
from pathlib import Path

from wendonic.errors import WendonicError
from wendonic.profile.load import load_profile
from wendonic.profile.schema import Profile
from wendonic.recording.recording import Recording
from wendonic.whole_file import whole_file

FOLDER = Path(__file__).parent
PROFILE_PATH = FOLDER / "beekeeper.toml"
RECORDING_NAMES = ("beekeeper_keys", "beekeeper_pad")


def demo_profile() -> Profile:
    """Return the beekeeper's profile."""
    return load_profile(PROFILE_PATH)


def demo_recording(name: str) -> Recording:
    """Return one of the shipped recordings, by a name of `RECORDING_NAMES`."""
    return Recording.read(FOLDER / f"{name}.jsonl")


def copy_inputs(folder: str | Path) -> list[Path]:
    """Copy the shipped profile and recordings into `folder`, to play with; makes the folder if it is missing.

    A file that is there already and was changed is somebody's work: it stays, and is returned.
    """
    target = Path(folder)
    kept: list[Path] = []
    try:
        target.mkdir(parents=True, exist_ok=True)
        for source in (PROFILE_PATH, *(FOLDER / f"{name}.jsonl" for name in RECORDING_NAMES)):
            copy = target / source.name
            if copy.exists() and copy.read_bytes() != source.read_bytes():
                kept.append(copy)
                continue
            with whole_file(copy) as beside:
                shutil.copyfile(source, beside)
    except OSError as error:
        raise WendonicError(f"cannot write into {target}: {error.strerror or error}") from error
    return kept
