"""Frames that a game seen from the side can have: there is only right and left to go."""

from wendonic.profile.schema.steer.sprite import OnFoot
from wendonic.profile.schema.table import entry


class SideView(OnFoot):
    """What walks on a plan, or right and left only in a game that is seen from the side."""

    side_view: bool = entry(
        "Whether the game is seen from the side: only right and left count, and the body turns at once.", False
    )

    @property
    def seen_from_side(self) -> bool:
        """Whether there is only right and left to go."""
        return self.side_view

    @property
    def turns_at_once(self) -> bool:
        """Whether the body turns at once; a sprite seen from the side does, unless a rate is written."""
        return super().turns_at_once or (self.side_view and "turn_deg_s" not in self.model_fields_set)
