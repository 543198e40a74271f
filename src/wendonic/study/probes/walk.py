"""The trace of a walker's steps, from when everything that has to be held is held."""

import math
from typing import Any

from wendonic.batch import Engine
from wendonic.batch.trace import shaped
from wendonic.profile.schema.profile import Profile
from wendonic.study.probes.walker import Steps, Walker, lead_steps, probe


class Walk:
    """Columns of a trace whose time begins with the first step; `hz` ticks a second."""

    def __init__(
        self, profile: Profile, walker: Walker, steps: Steps, end_s: float, hz: float, engine: Engine
    ) -> None:
        """Run the steps under a profile's first mode."""
        leads, lead_s = lead_steps(walker.lead)
        self._skip = math.ceil(lead_s * hz) + 1 if walker.lead else 0
        begins_s = self._skip / hz
        later: Steps = [(begins_s + t, changes) for t, changes in steps]
        self._begins_s = begins_s
        self._trace = shaped(probe([*leads, *later], begins_s + end_s), profile, hz=hz, engine=engine)

    def __getitem__(self, name: str) -> Any:
        """Return a column."""
        column = self._trace[name][self._skip :]
        return column - self._begins_s if name == "t" else column

    def __contains__(self, name: object) -> bool:
        """Return whether there is such a column."""
        return name in self._trace

    def __len__(self) -> int:
        """Return how many ticks there are."""
        return len(self._trace) - self._skip
