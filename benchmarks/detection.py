"""What `check` finds of known faults, and what it reports on sound profiles.

    python benchmarks/detection.py [--sound N] [--each N] [--workers N] [--fixes]

Sound profiles come from `sound_profiles.py` and `sound_games.py`, the faults from `defects.py`: each is put into N
sound profiles that can have it. With `--fixes` every fix that is given is applied and checked once more.
"""

import argparse
import tomllib
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from typing import Any

from defects import DEFECTS, Defect
from sound_games import sound_game
from sound_profiles import other_sound_profile, sound_profile, text_of
from wendonic.errors import WendonicError
from wendonic.profile.load import profile_from_text
from wendonic.study.checking import check

Row = tuple[str, list[tuple[str, str]], int, int]


def seeded(defect: Defect, count: int) -> list[str]:
    """Return texts of sound profiles with one fault put into each; fewer where too few can have it."""
    texts: list[str] = []
    for seed in range(1000, 1400):
        if len(texts) == count:
            break
        content: Any = tomllib.loads(sound_profile(seed))
        if not defect.seed(content):
            continue
        text = text_of(content)
        try:
            profile_from_text(text)
        except WendonicError:
            continue
        texts.append(text)
    return texts


def found_in(job: tuple[str, str, bool]) -> Row:
    """Return what is found in a profile, and of its fixes how many there are and how many hold."""
    name, text, fixes = job
    profile = profile_from_text(text)
    findings = check(profile, prove=fixes)
    held = 0
    fixes_given = [finding for finding in findings if finding.changes]
    before = {(finding.slug, finding.where) for finding in findings}
    for finding in fixes_given:
        after = {(one.slug, one.where) for one in check(profile.changed(finding.changes), prove=False)}
        held += (finding.slug, finding.where) not in after and not after - before
    return name, [(finding.slug, finding.severity) for finding in findings], len(fixes_given), held


def main() -> None:
    """Print the table."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--sound", type=int, default=210)
    options.add_argument("--each", type=int, default=4)
    options.add_argument("--workers", type=int, default=2)
    options.add_argument("--fixes", action="store_true")
    given = options.parse_args()
    jobs = [("", sound_profile(seed), False) for seed in range(given.sound)]
    jobs += [("", other_sound_profile(seed), False) for seed in range(given.sound // 3)]
    jobs += [("", sound_game(seed), False) for seed in range(given.sound)]
    jobs += [(defect.name, text, given.fixes) for defect in DEFECTS for text in seeded(defect, given.each)]
    with ProcessPoolExecutor(given.workers) as pool:
        rows = list(pool.map(found_in, jobs, chunksize=4))
    sound = [found for name, found, _, _ in rows if not name]
    alarms = [found for found in sound if any(severity == "fault" for _, severity in found)]
    notices = Counter(slug for found in sound for slug, severity in found if severity == "notice")
    hits = tried = 0
    for defect in DEFECTS:
        of_defect = [found for name, found, _, _ in rows if name == defect.name]
        named = sum(any(slug in defect.slugs for slug, _ in found) for found in of_defect)
        hits, tried = hits + named, tried + len(of_defect)
        others = Counter(slug for found in of_defect for slug, _ in found if slug not in defect.slugs)
        beside = ", ".join(f"{slug} {count}" for slug, count in others.most_common(3))
        print(f"{named:3d} of {len(of_defect):3d}  {defect.name:45s} {'/'.join(defect.slugs):28s} {beside}")
    print(f"kinds and sizes: {len(DEFECTS)}")
    print(f"detected and named: {hits} of {tried}, {100.0 * hits / tried:.1f} %")
    share = f"{100.0 * len(alarms) / len(sound):.1f} %"
    print(f"sound profiles with a fault reported: {len(alarms)} of {len(sound)}, {share}")
    print(f"notices on sound profiles: {dict(notices)}")
    if given.fixes:
        fixes_given, held = sum(row[2] for row in rows), sum(row[3] for row in rows)
        print(f"fixes given: {fixes_given}; of these hold: {held}")


if __name__ == "__main__":
    main()
