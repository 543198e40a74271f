"""`wendonic check`: what is wrong with a profile."""

import json
from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.say import say


def check(
    profiles: Annotated[list[Path], typer.Argument(metavar="PROFILE...", help="One profile (.toml), or several.")],
    as_json: Annotated[bool, typer.Option("--json", help="Print the findings as JSON.")] = False,
    strict: Annotated[bool, typer.Option("--strict", help="Notices count as faults.")] = False,
) -> None:
    """Try a profile out and say what is wrong, what was measured, and the fix; exit 1 with faults."""
    from wendonic.profile.load import load_profile
    from wendonic.study.check import check as check_profile

    loaded = {path: load_profile(path) for path in profiles}
    found = {path: check_profile(profile) for path, profile in loaded.items()}
    if as_json:
        content = [{"profile": str(path), **finding._asdict()} for path, some in found.items() for finding in some]
        say(json.dumps(content, indent=2))
    else:
        for path, findings in found.items():
            say(f"{path}: {len(findings) or 'no'} finding{'' if len(findings) == 1 else 's'}")
            for finding in findings:
                say(finding)
    if any(strict or finding.severity == "fault" for some in found.values() for finding in some):
        raise typer.Exit(1)
