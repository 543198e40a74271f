"""`wendonic check`: what is wrong with a profile."""

import json
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.options import separated
from wendonic.cli.progress import progress_bar
from wendonic.cli.say import say, say_difference

if TYPE_CHECKING:
    from wendonic.study.checking import Progress
    from wendonic.study.finding import Finding


def check(
    profiles: Annotated[list[Path], typer.Argument(metavar="PROFILE", help="One profile (.toml), or several.")],
    fix: Annotated[
        bool,
        typer.Option("--fix", help="Write every fix into the file; each was tested first, and comments are kept."),
    ] = False,
    dry_run: Annotated[
        bool, typer.Option("--dry-run", help="Show what --fix would change, and write nothing.")
    ] = False,
    only: Annotated[
        list[str] | None,
        typer.Option("--only", metavar="SLUG", help="With --fix: these kinds only, separated by commas."),
    ] = None,
    as_json: Annotated[bool, typer.Option("--json", help="Print the findings as JSON.")] = False,
    strict: Annotated[bool, typer.Option("--strict", help="Notices count as faults.")] = False,
) -> None:
    """Try a profile out and say what is wrong, what was measured, and the fix; exit 1 with faults."""
    from wendonic.errors import WendonicError, none_such
    from wendonic.profile.load import load_profile
    from wendonic.study.as_json import document, finding_content
    from wendonic.study.checking import check as check_profile
    from wendonic.study.findings import FINDINGS

    if (dry_run or only) and not fix:
        raise typer.BadParameter(f"{'--dry-run' if dry_run else '--only'} goes with --fix")
    slugs = tuple(separated(only) or ())
    for slug in slugs:
        if slug not in FINDINGS:
            raise WendonicError(none_such("finding", slug, FINDINGS))
    loaded = {path: load_profile(path) for path in profiles}
    found: dict[Path, list[Finding]] = {}
    for path, profile in loaded.items():
        if fix:
            found[path] = _fix(path, slugs, dry_run)
        else:
            with _bar_progress(path) as report:
                found[path] = check_profile(profile, progress=report)
    if as_json:
        content = [
            {"profile": str(path), **finding_content(finding)} for path, some in found.items() for finding in some
        ]
        say(json.dumps(document("check", findings=content), indent=2))
    else:
        for path, findings in found.items():
            left = " left" if fix else ""
            say(f"{path}: {len(findings) or 'no'} finding{'' if len(findings) == 1 else 's'}{left}")
            for finding in findings:
                say(finding)
    if any(strict or finding.severity == "fault" for some in found.values() for finding in some):
        raise typer.Exit(1)


@contextmanager
def _bar_progress(path: Path) -> "Iterator[Progress]":
    """Show on a terminal which part of a profile is being tried."""
    from rich.markup import escape
    from rich.progress import BarColumn, MofNCompleteColumn, TextColumn

    from wendonic.errors import escaped

    with progress_bar(TextColumn("{task.description}"), BarColumn(), MofNCompleteColumn()) as bar:
        task = bar.add_task("", visible=False)

        def report(what: str, done: int, of: int) -> None:
            description = escape(escaped(f"{path.name}: {what}"))
            bar.update(task, description=description, completed=done, total=of, visible=True)

        yield report


def _fix(path: Path, only: tuple[str, ...], dry_run: bool) -> "list[Finding]":
    """Write the fixes of a profile into its file, print them, and return the remaining findings."""
    from wendonic.errors import ProfileError
    from wendonic.profile.load import profile_from_text, text_of
    from wendonic.profile.save import saved_text, write_profile_text
    from wendonic.study.checking import fixed

    before = text_of(path, "profile", ProfileError)
    with _bar_progress(path) as report:
        done = fixed(profile_from_text(before, path), only, progress=report)
    after = saved_text(done.profile, before, path)
    for finding in done.fixes:
        say(f"{path}: {'would fix' if dry_run else 'fixed'} {finding.slug}: {finding.fix}")
    if dry_run:
        say_difference(before, after, path, "fixed")
    elif done.fixes:
        write_profile_text(after, path)
        say(f"wrote {path}")
    return list(done.left)
