"""Hollowmere Apiary: the shipped profiles and recordings, and the script that makes them from stand-ins."""

import shutil
from pathlib import Path

from wendonic.atomic_file import atomic_file
from wendonic.course import Course, load_course
from wendonic.errors import WendonicError, none_such
from wendonic.profile.load import load_profile
from wendonic.profile.schema.profile import Profile
from wendonic.recording.recording import Recording

FOLDER = Path(__file__).parent
PROFILE_PATH = FOLDER / "beekeeper.toml"

RECORDINGS = {
    "beekeeper_keys": "beekeeper",
    "beekeeper_pad": "beekeeper",
    "beekeeper_mouse": "beekeeper",
    "tablet_walk": "tablet",
    "headset_walk": "headset",
    "scout_flight": "scout",
    "store_room_walk": "store_room",
    "lookout_watch": "lookout",
    "lookout_devices": "lookout",
    "terraces_walk": "terraces",
    "harvest_run": "harvest",
    "smoker_rounds": "smoker",
    "cart_ride": "cart",
    "apiary_rounds": "rounds",
    "crates_push": "crates",
    "orchard_errands": "orchard",
}
"""Every shipped recording, with the profile that it goes with."""

COURSES = ("terraces", "store_room", "yard", "harvest")
"""Every shipped course."""

ON_COURSE = {
    "terraces_walk": "terraces",
    "crates_push": "store_room",
    "headset_walk": "yard",
    "harvest_run": "harvest",
}
"""Recordings that play on a course, with the name of that course."""

CAPTURE_PATH = FOLDER / "beekeeper_capture.bin"
"""A stream of Linux input events, 64-bit layout: keyboard, mouse and pad in one."""


def profile_names() -> tuple[str, ...]:
    """Return the names of the shipped profiles, the beekeeper's first."""
    return tuple(dict.fromkeys(RECORDINGS.values()))


def demo_profile(name: str = "beekeeper") -> Profile:
    """Return one of the shipped profiles."""
    if name not in profile_names():
        raise WendonicError(none_such("shipped profile", name, profile_names()))
    return load_profile(FOLDER / f"{name}.toml")


def demo_recording(name: str) -> Recording:
    """Return one of the shipped recordings, by a name of `RECORDINGS`."""
    if name not in RECORDINGS:
        raise WendonicError(none_such("shipped recording", name, RECORDINGS))
    return Recording.read(FOLDER / f"{name}.jsonl")


def demo_course(name: str) -> Course:
    """Return one of the shipped courses, by a name of `COURSES`."""
    if name not in COURSES:
        raise WendonicError(none_such("shipped course", name, COURSES))
    return load_course(FOLDER / f"{name}_course.toml")


def copy_inputs(folder: str | Path) -> list[Path]:
    """Copy the shipped profiles and recordings into `folder`, to play with, and write the JSON Schemas that profiles
    point to; makes the folder if it is missing.

    An existing file with changes is the user's work: it is kept, and its name is returned.
    """
    from wendonic.reference.json_schema import FILE_NAMES, write_schema

    target = Path(folder)
    kept: list[Path] = []
    try:
        target.mkdir(parents=True, exist_ok=True)
        for source in sorted((*FOLDER.glob("*.toml"), *FOLDER.glob("*.jsonl"), CAPTURE_PATH)):
            copy = target / source.name
            if copy.exists() and copy.read_bytes() != source.read_bytes():
                kept.append(copy)
                continue
            with atomic_file(copy) as beside:
                shutil.copyfile(source, beside)
        for kind in ("profile", "course"):
            write_schema(target / FILE_NAMES[kind], kind)
    except OSError as error:
        raise WendonicError(f"cannot write into {target}: {error.strerror or error}") from error
    return kept
