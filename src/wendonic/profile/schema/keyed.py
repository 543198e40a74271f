"""Entries of on and off: keys, a d-pad, zones of a touch screen."""

from collections.abc import Iterable
from typing import Annotated

from wendonic.kernels.source.keys import KeysTuning
from wendonic.kernels.source.opposites import OPPOSITES_CANCEL, OPPOSITES_EARLIEST, OPPOSITES_LATEST
from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_KEYS, SourceTuning
from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.names import Seconds
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.table import entry
from wendonic.profile.schema.words import Word, Words

OPPOSITES = Words(
    Word("cancel", "opposites cancel", OPPOSITES_CANCEL, meaning="Opposite keys cancel out."),
    Word("latest", "the later wins", OPPOSITES_LATEST, meaning="The key pressed later wins."),
    Word("earliest", "the earlier wins", OPPOSITES_EARLIEST, meaning="The key pressed earlier wins."),
)
REVERSALS = Words(
    Word("through_zero", "", 0, meaning="The ramp falls to zero before it rises in the opposite direction."),
    Word(
        "at_once",
        ", the opposite direction at once",
        1,
        meaning="The ramp starts from zero in the opposite direction at once.",
    ),
)


class Ramped(Bind):
    """An entry of on and off: `rise_s` from 0 to 1 after a press, `fall_s` from 1 to 0 after a release.

    When the other side is pressed, the value falls to zero first (`through_zero`), or drops to zero (`at_once`).
    """

    rise_s: Seconds = entry(
        "Time from a press to full input: raise it for a softer start, lower it for a quicker one; 0 is at once.",
        0.0,
    )
    fall_s: Seconds = entry(
        "Time from a release to no input: raise it for a softer stop, lower it for a quicker one; 0 is at once.", 0.0
    )
    reversal: Annotated[str, REVERSALS] = entry(
        "Whether the opposite direction first ramps down to zero, or starts from zero at once for a sharper turn.",
        "through_zero",
    )

    def rule(self) -> str:
        """Return what wins when both sides are held."""
        return "cancel"

    def on_one_axis(self) -> bool:
        """Return whether it has controls for one axis only."""
        return False

    def what(self) -> str:
        """Return a text for its controls."""
        raise NotImplementedError

    def sentence(self) -> str:
        """Describe it: its controls, then its numbers."""
        times = f"full input {self.rise_s:g} s after a press, none {self.fall_s:g} s after a release"
        times = "full input at once" if self.rise_s == self.fall_s == 0.0 else times
        return f"{self.what()}; {times}{REVERSALS.sentence(self.reversal)}; {OPPOSITES.sentence(self.rule())}"

    def tuning(self, rows: NumberRows) -> SourceTuning:  # noqa: ARG002
        """Return the kernels' numbers for it."""
        keys = KeysTuning(
            OPPOSITES.number(self.rule()),
            int(self.rise_s > 0.0 or self.fall_s > 0.0),
            REVERSALS.number(self.reversal),
            int(self.on_one_axis()),
            self.rise_s,
            self.fall_s,
        )
        return PLAIN_SOURCE._replace(kind=SOURCE_KEYS, keys=keys)


class Opposed(Ramped):
    """An on/off entry with a rule for opposites."""

    opposites: Annotated[str, OPPOSITES] = entry(
        "What wins while two opposite keys are held (SOCD): neither, the later, or the earlier one.", "cancel"
    )

    def rule(self) -> str:
        """Return what wins when both sides are held."""
        return self.opposites


def joined_keys(binds: Iterable[Bind]) -> tuple[int, int]:
    """Return whether several entries of a channel are keys (1 or 0), and the rule for opposites between them: their
    common rule, otherwise they cancel.
    """
    rules = [bind.rule() for bind in binds if isinstance(bind, Ramped)]
    return int(len(rules) > 1), OPPOSITES.number(rules[0] if len(set(rules)) == 1 else "cancel")
