"""What makes a headset bearable: the vignette, and room to walk in."""

from typing import Annotated

from pydantic import Field

from wendonic.profile.table import Seconds, Table

Length = Annotated[float, Field(gt=0.0, le=100.0)]


class Vignette(Table):
    """How far the picture closes in: wholly from that acceleration or turn rate on, by a half-life each way."""

    full_accel_m_s2: Annotated[float, Field(gt=0.0, le=1000.0)] = 12.0
    full_turn_deg_s: Annotated[float, Field(gt=0.0, le=100_000.0)] = 180.0
    close_half_life_s: Seconds = 0.05
    open_half_life_s: Seconds = 0.25


class Room(Table):
    """The play space that somebody walks about in; its middle is where the body is moved.

    A place is safe while the head and all four corners are out of walls and within `level_m` of one height. After
    `return_s` with the head inside a wall, the middle is back at the last safe place.
    """

    width_m: Length = 2.0
    depth_m: Length = 2.0
    level_m: Annotated[float, Field(ge=0.0, le=10.0)] = 0.1
    return_s: Annotated[float, Field(gt=0.0, le=60.0)] = 1.5


class Comfort(Table):
    """Comfort in a headset; the game draws what the intent says."""

    vignette: Vignette = Vignette()
    room: Room = Room()
