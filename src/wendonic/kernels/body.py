"""Where the body is, how fast it goes and where it faces: what every steer frame moves."""

from typing import NamedTuple


class Body(NamedTuple):
    """Face (rad), position (m) and velocity (m/s) in the plan frame."""

    face: float
    pos_x: float
    pos_y: float
    pos_z: float
    vel_x: float
    vel_y: float
    vel_z: float


BODY_AT_REST = Body(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
