"""The page of findings: each with a fault, its picture, and its fix."""

from pages.finding_cases import CASES, HEAD
from pages.markdown import table, written_by
from wendonic.profile.load import profile_from_text
from wendonic.study.checking import check
from wendonic.study.findings import FINDINGS

PAGE_HEAD = """# Findings of check

`wendonic check PROFILE` tries a profile out: it presses, tilts, swipes and swings every source in every gait, and
reports what is wrong, what it measured, why a player would notice, and a fix. A fix was applied to a copy of the
profile and measured again before it is printed; `--fix` writes it.

A *fault* is wrong in every game (exit status 1); a *notice* is wrong in most (exit status 1 with `--strict`).

"""


def _section(slug: str) -> str:
    kind, case = FINDINGS[slug], CASES[slug]
    (found, *_) = [one for one in check(profile_from_text(HEAD + case.text), "interpreted") if one.slug == slug]
    parts = [f"## {slug} {{#{slug}}}\n\n{kind.severity.capitalize()}. {found.why}\n"]
    parts.append(f"```toml\n{case.text.strip()}\n```\n")
    parts.append(f"`{found.where}`: {found.measured}\n")
    if found.changes:
        parts.append(f"Fix: `{found.fix}`\n")
    if found.advice:
        parts.append(f"{'Or' if found.changes else 'Advice'}: {found.advice.removeprefix('or ')}\n")
    if case.picture:
        caption = f"wendonic draw {case.picture}"
        parts.append(f"![{slug}: {caption}](../pictures/finding_{slug}.png)\n\n`{caption}` shows it.\n")
    return "\n".join(parts)


def page() -> str:
    """Return the page."""
    rows = [(f"[{slug}](#{slug})", kind.severity, kind.why) for slug, kind in FINDINGS.items()]
    sections = "\n".join(map(_section, FINDINGS))
    return written_by() + PAGE_HEAD + table(("finding", "severity", "why a player notices"), rows) + "\n" + sections
