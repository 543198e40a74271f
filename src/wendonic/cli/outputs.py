"""Output files of commands: a command never overwrites its inputs, nor a file of another kind."""

from collections.abc import Sequence
from pathlib import Path

from wendonic.atomic_file import check_ending, check_place
from wendonic.errors import WendonicError
from wendonic.file_kind import kind_of_file


def kind_of(path: Path) -> str | None:
    """Return the kind of a file made by hand or by playing (profile, course, recording), None for anything else."""
    kind = kind_of_file(path)
    return None if kind in ("profile", "course") and path.suffix.lower() != ".toml" else kind


def check_output(
    out: Path | None, kind: str, inputs: Sequence[Path | None] = (), endings: Sequence[str] = ()
) -> None:
    """Raise `WendonicError`, before anything is computed, if a file cannot be written: in a missing folder, with an
    ending that is not allowed (pictures and recordings have their own), over one of the inputs, or over a profile, a
    course or a recording if `kind` is another one.
    """
    if out is None:
        return
    if out.exists() and not out.is_dir():
        for given in inputs:
            if given is not None and given.exists() and out.samefile(given):
                raise WendonicError(f"{out} is what this reads; name another file for what it writes")
        found = kind_of(out)
        if found is not None and found != kind:
            article = "an" if kind[0] in "aeiou" else "a"
            raise WendonicError(
                f"{out} is a {found}, and would become {article} {kind}; name another file, or remove it"
            )
    if kind == "picture":
        from wendonic.pictures.style import ENDINGS as endings  # noqa: N811
    elif kind == "recording":
        from wendonic.recording.formats import ENDINGS as endings  # noqa: N811
    if endings:
        check_ending(out, endings)
    check_place(out)
