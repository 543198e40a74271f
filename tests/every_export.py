"""Every shipped profile in every language, and random profiles in C: what takes too long for the suite.

python tests/every_export.py [--random 60]
"""

import argparse
import random
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

from wendonic import Profile
from wendonic.demo import demo_course, demo_profile, profile_names
from wendonic.errors import WendonicError
from wendonic.export.export import exported, packaged, write_export
from wendonic.export.numbers import number_fields
from wendonic.export.targets import TARGETS
from wendonic.export.tools import tried
from wendonic.export.vectors import vectors_of

STRICT_TYPES = "--noEmit --allowJs --checkJs --strict --target es2022 --module es2022".split()
VARIANTS = {
    "C": ["-O2"],
    "C under AddressSanitizer and UBSan": [
        "-O1",
        "-fsanitize=address,undefined",
        "-fno-sanitize-recover=all",
    ],
    "C++17": ["-O1", "-std=c++17"],
}
lines = []
"""What one task has to say: whether all was well, and in words."""


def say(well, words):
    lines.append((well, words))


ON_COURSES = {"cart": "yard", "harvest": "harvest", "headset": "terraces", "scout": "harvest", "terraces": "terraces"}
"""Profiles that are tried on a course as well."""


def shown(profile, stem, folder, variants, languages, course=None, **vectors):
    """Export a profile, and try it in every way there is."""
    package = packaged(profile, stem, course=course)
    made = {one.mode: vectors_of(one, package, **vectors) for one in package.modes}
    for language in languages:
        place = folder / language
        write_export(exported(package, language, vectors=made), place)
        for words, options in (variants if language == "c99" else {language: []}).items():
            for run in tried(language, package.stem, place, options):
                say(run.well, f"{stem} as {words}: {run.tool} {run.said}")
        if language == "lua" and shutil.which("luacheck"):
            strict = ["luacheck", "--std", "lua54+luajit", "--max-line-length", "120", f"{package.stem}.lua"]
            done = subprocess.run(strict, cwd=place, capture_output=True, text=True, check=False)
            say(done.returncode == 0, f"{stem}: luacheck {'' if done.returncode == 0 else done.stdout}")
        if language == "javascript" and shutil.which("tsc"):
            strict = ["tsc", *STRICT_TYPES, f"{package.stem}.js"]
            done = subprocess.run(strict, cwd=place, capture_output=True, text=True, check=False)
            say(done.returncode == 0, f"{stem}: tsc {done.stdout}")


def single(profile, stem, folder):
    """The same in C with single precision."""
    package = packaged(profile, stem, float32=True)
    made = {one.mode: vectors_of(one, package, least_ticks=3600, episodes=60) for one in package.modes}
    write_export(exported(package, "c99", vectors=made), folder)
    (run,) = tried("c99", package.stem, folder)
    say(run.well, f"{stem} in float: {run.tool} {run.said}")


def words_known():
    """Every word that shipped profiles have in a field of some name."""
    known = {}

    def take(content, name):
        if isinstance(content, dict):
            for key, value in content.items():
                take(value, key)
        elif isinstance(content, list | tuple):
            for value in content:
                take(value, name)
        elif isinstance(content, str | bool):
            known.setdefault(name, set()).add(content)

    for name in profile_names():
        take(demo_profile(name).file_content(), "")
    return {name: sorted(words, key=str) for name, words in known.items()}


def word_fields(content, path=""):
    """Every field of a profile that holds a word, with its path and name."""
    if isinstance(content, dict):
        for key, value in content.items():
            yield from word_fields(value, f"{path}.{key}" if path else key)
    elif isinstance(content, list | tuple):
        for place, value in enumerate(content):
            yield from word_fields(value, f"{path}[{place}]")
    elif isinstance(content, str | bool):
        yield path, path.rpartition(".")[2].partition("[")[0]


def random_profile(rng, known):
    """A shipped profile of which many numbers and some words are others."""
    name = rng.choice(sorted(profile_names()))
    profile = demo_profile(name)
    for _ in range(30):
        content = profile.file_content()
        if rng.random() < 0.6:
            path, value = rng.choice(list(number_fields(content)))
            new = value * rng.choice((0.0, 0.5, 0.8, 1.3, 2.0))
        else:
            path, field = rng.choice(list(word_fields(content)))
            new = rng.choice(known[field])
        if path.startswith(("format", "version", "title")):
            continue
        try:
            profile = Profile.from_content(content, {path: new})
        except (WendonicError, ValueError):
            continue
    return name, profile


def task(name, number):
    """Try one shipped profile, one in single precision, or a random one; return what there is to say."""
    lines.clear()
    with tempfile.TemporaryDirectory() as top:
        if name == "random":
            rng = random.Random(number)
            stem, profile = random_profile(rng, words_known())
            variants = {f"C, random profile {number}": ["-O0"]}
            shown(profile, stem, Path(top), variants, ["c99"], least_ticks=300, episodes=12)
        elif name.endswith(" on its course"):
            stem = name.removesuffix(" on its course")
            course = demo_course(ON_COURSES[stem])
            shown(demo_profile(stem), f"{stem}_course", Path(top), VARIANTS, TARGETS, course, episodes=40)
        elif name.endswith(" in float"):
            stem = name.removesuffix(" in float")
            single(demo_profile(stem), stem, Path(top, "float"))
        else:
            shown(demo_profile(name), name, Path(top), VARIANTS, TARGETS, episodes=60)
    return list(lines)


def main():
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--random", type=int, default=60)
    parser.add_argument("--only", default="")
    wanted = parser.parse_args()
    names = [*sorted(profile_names()), *(f"{name} in float" for name in sorted(profile_names()) if name != "crates")]
    names += [f"{name} on its course" for name in ON_COURSES]
    tasks = [(name, 0) for name in names if wanted.only in ("", name)]
    tasks += [("random", number + 1) for number in range(wanted.random)]
    faults = 0
    with ProcessPoolExecutor(2) as pool:
        for said in pool.map(task, *zip(*tasks, strict=True)):
            for well, words in said:
                faults += not well
                print(("" if well else "FAULT ") + words, flush=True)
    print(f"{faults} faults")
    return faults > 0


if __name__ == "__main__":
    sys.exit(main())
