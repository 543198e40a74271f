"""What makes a headset bearable: the vignette, and room to walk in."""

from typing import Annotated

from pydantic import Field

from wendonic.arithmetic import radians
from wendonic.kernels.body.comfort import ComfortTuning
from wendonic.profile.schema.names import Seconds
from wendonic.profile.schema.table import Table, entry

Length = Annotated[float, Field(gt=0.0, le=100.0)]


class Vignette(Table):
    """How far the picture closes in: wholly from that acceleration or turn rate on, by a half-life each way."""

    full_accel_m_s2: Annotated[float, Field(gt=0.0, le=1000.0)] = entry(
        "Acceleration at which the picture closes in wholly: lower it for players who feel sick.", 12.0
    )
    full_turn_deg_s: Annotated[float, Field(gt=0.0, le=100_000.0)] = entry(
        "Turn rate at which the picture closes in wholly: lower it for players who feel sick.", 180.0
    )
    close_half_life_s: Seconds = entry("How quickly the picture closes in: lower it to act sooner.", 0.05)
    open_half_life_s: Seconds = entry("How quickly the picture opens again: raise it against flicker.", 0.25)


class Room(Table):
    """The play space that somebody walks about in; its middle is where the body is moved.

    On a course it is the head that a wall or a high step stops, and the ground is felt under it: off an edge it falls
    quickly. A place is safe while the head and all four corners are out of walls and within `level_m` of one height.
    After `return_s` with the head inside a wall, by a step or by leaning, the middle is back at the last safe place.
    """

    width_m: Length = entry("Width of the play space.", 2.0)
    depth_m: Length = entry("Depth of the play space.", 2.0)
    level_m: Annotated[float, Field(ge=0.0, le=10.0)] = entry(
        "By how much the ground under the play space may differ for a place to be safe.", 0.1
    )
    return_s: Annotated[float, Field(gt=0.0, le=60.0)] = entry(
        "Time with the head inside a wall after which the player is brought back: raise it to be patient.", 1.5
    )


class Comfort(Table):
    """Comfort in a headset; the game draws what the intent says."""

    vignette: Vignette = entry("How the picture closes in while moving.", Vignette())
    room: Room = entry("The play space, and what happens inside of walls.", Room())

    def sentences(self) -> list[str]:
        """Say what it does, line by line."""
        vignette, room = self.vignette, self.room
        closes = f"full from {vignette.full_accel_m_s2:g} m/s² or {vignette.full_turn_deg_s:g} deg/s on"
        halves = f"closes with a half-life of {vignette.close_half_life_s:g} s"
        safe = f"safe while out of walls and level within {room.level_m:g} m"
        return [
            f"vignette: {closes}; {halves}, opens with {vignette.open_half_life_s:g} s",
            f"play space: {room.width_m:g} x {room.depth_m:g} m, {safe}; out of a wall after {room.return_s:g} s",
        ]

    def tuning(self) -> ComfortTuning:
        """Return it as the kernels' numbers."""
        vignette, room = self.vignette, self.room
        return ComfortTuning(
            1,
            vignette.full_accel_m_s2,
            radians(vignette.full_turn_deg_s),
            vignette.close_half_life_s,
            vignette.open_half_life_s,
            room.width_m / 2.0,
            room.depth_m / 2.0,
            room.level_m,
            room.return_s,
        )
