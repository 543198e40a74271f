"""One thing that `check` says is wrong."""

from typing import Literal, NamedTuple

Severity = Literal["fault", "notice"]


class Finding(NamedTuple):
    """A slug that names its kind, how severe it is, the field path, what was measured, why a player would feel it,
    and the mend as a line of TOML.
    """

    slug: str
    severity: Severity
    where: str
    measured: str
    why: str
    mend: str

    def __str__(self) -> str:
        """Give it on four lines, as a person reads it."""
        return f"{self.severity}: {self.slug}, {self.where}\n  {self.measured}\n  {self.why}\n  mend: {self.mend}"
