"""Comfort in a headset: the vignette, and room to walk in."""

from typing import Annotated

from pydantic import Field

from wendonic.arithmetic import radians
from wendonic.kernels.body.comfort import ComfortTuning
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.names import Seconds
from wendonic.profile.schema.table import Table, entry

Length = Annotated[float, Field(gt=0.0, le=100.0)]


class Vignette(Table):
    """How far the view narrows: entirely from the given acceleration or turn rate on, with a half-life each way."""

    full_accel_m_s2: Annotated[float, Field(gt=0.0, le=1000.0)] = entry(
        "Acceleration at which the vignette is closed: lower it for players who feel sick, raise it to see more.",
        12.0,
    )
    full_turn_deg_s: Annotated[float, Field(gt=0.0, le=100_000.0)] = entry(
        "Turn rate at which the vignette is closed: lower it for players who feel sick, raise it to see more.", 180.0
    )
    close_half_life_s: Seconds = entry(
        "Half-life in which the vignette closes: raise it for a softer start, lower it to protect sooner.", 0.05
    )
    open_half_life_s: Seconds = entry(
        "Half-life in which the vignette opens: raise it if it flickers, lower it to see again sooner.", 0.25
    )


class Room(Table):
    """The play space that a player walks around in. Moving the body moves its middle.

    On a course, walls and high steps stop the head, and the ground is measured under the head; off an edge the
    player falls quickly. A place is safe while the head and all four corners are outside walls and within `level_m`
    of one height. After `return_s` with the head inside a wall, by stepping or leaning, the middle is moved back to
    the last safe place.
    """

    width_m: Length = entry("Width of the play space.", 2.0)
    depth_m: Length = entry("Depth of the play space.", 2.0)
    level_m: Annotated[float, Field(ge=0.0, le=10.0)] = entry(
        "How much the ground under the play space may vary in height for a place to be safe: raise "
        "it on rough ground.",
        0.1,
    )
    return_s: Annotated[float, Field(gt=0.0, le=60.0)] = entry(
        "How long the head may stay inside a wall before the player is moved back: raise it to be "
        "patient, lower it to be strict.",
        1.5,
    )


class Comfort(Table):
    """Comfort in a headset. The game draws what the intent reports."""

    vignette: Vignette = entry("How the view narrows while moving.", Vignette())
    room: Room = entry("The play space, and what happens when the head is inside a wall.", Room())

    def sentences(self, length: LengthUnit = METRES) -> list[str]:
        """Describe it, line by line."""
        vignette, room = self.vignette, self.room
        closes = f"full from {length.m_s2(vignette.full_accel_m_s2)} or {vignette.full_turn_deg_s:g} deg/s"
        halves = f"closes with a half-life of {vignette.close_half_life_s:g} s"
        safe = f"a place is safe if it is out of walls and level within {length.m(room.level_m)}"
        wide = f"{room.width_m * length.per_m:g}"
        back = f"the player is brought back there after {room.return_s:g} s in a wall"
        return [
            f"vignette: {closes}; {halves}, opens with {vignette.open_half_life_s:g} s",
            f"play space: {wide} x {length.m(room.depth_m)}; {safe}; {back}",
        ]

    def tuning(self) -> ComfortTuning:
        """Return the kernels' numbers for it."""
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
