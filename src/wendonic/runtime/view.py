"""Where the camera looks, converted from and to a game's own representation."""

import math
from collections.abc import Sequence
from typing import Any, NamedTuple

from wendonic.errors import WendonicError
from wendonic.kernels.view_axes import level_forward, turned_by
from wendonic.world_axes import GameVector, WorldAxes, vector_numbers


class View(NamedTuple):
    """Where the camera looks. `yaw_deg` 0 is the world's forward, right positive; `pitch_deg` up positive. Either may
    be counted from 0 to 360.

    >>> View(yaw_deg=90.0, pitch_deg=-10.0).engine_yaw_deg(WorldAxes("+x", "-z", "+y"))
    -90.0
    """

    yaw_deg: float = 0.0
    pitch_deg: float = 0.0

    @classmethod
    def from_basis(cls, forward: Sequence[float], up: Sequence[float], axes: WorldAxes) -> "View":
        """Return the view with these vectors, in the game's `axes` (a helm has them), as its forward and up, of any
        length and roll.

        The yaw is that of `forward` projected onto the ground; straight up or down, that of the screen's edge, see
        `kernels.view_axes.level_forward`. Raises `WendonicError` for a vector of zeros or of the wrong length.

        >>> View.from_basis(forward=(0.0, 0.0, -2.0), up=(3.0, 0.0, 0.0), axes=WorldAxes("+x", "+y", "+z"))
        View(yaw_deg=90.0, pitch_deg=-90.0)
        """
        forward_x, forward_y, forward_z = axes.to_plan(*forward)
        x, y = level_forward(forward_x, forward_y, forward_z, *axes.to_plan(*up))
        if x == 0.0 and y == 0.0:
            raise WendonicError(
                f"forward {tuple(forward)}, up {tuple(up)}; allowed: finite vectors that are not zero"
            )
        return cls(
            math.degrees(math.atan2(x, y)), math.degrees(math.atan2(forward_z, math.hypot(forward_x, forward_y)))
        )

    @classmethod
    def from_quaternion(
        cls, *quaternion: float | Sequence[float] | WorldAxes, axes: WorldAxes | None = None
    ) -> "View":
        """Return the view of a camera that a quaternion (x, y, z, w) turns, in the game's own axes.

        A camera that is not turned looks along the game's `forward`, the right way up. The quaternion need not be of
        length 1, and may come number by number or as one; the axes come last, or by name. Raises `WendonicError` for
        a quaternion of zeros or of the wrong length, and in a 2-D game.

        >>> View.from_quaternion(0.0, math.sqrt(0.5), 0.0, math.sqrt(0.5), WorldAxes("+x", "-z", "+y"))
        View(yaw_deg=-90.0, pitch_deg=0.0)
        >>> View.from_quaternion((0.0, -1.0, 0.0, 1.0), axes=WorldAxes("+x", "-z", "+y"))
        View(yaw_deg=90.0, pitch_deg=0.0)
        """
        given: Any = quaternion
        if axes is None and given and isinstance(given[-1], WorldAxes):
            *given, axes = given
        if axes is None:
            raise WendonicError(
                "from_quaternion: axes are missing; allowed: the game's own as the last argument, such as helm.axes"
            )
        _in_three_axes(axes, "View(yaw_deg=…)")
        parts = vector_numbers(given)
        largest = max(map(abs, parts), default=0.0)
        if len(parts) != 4 or not 0.0 < largest < math.inf or any(map(math.isnan, parts)):
            raise WendonicError(f"quaternion: found {parts}; allowed: four finite numbers, not all zero")
        x, y, z, w = (part / largest for part in parts)
        forward = turned_by(x, y, z, w, *axes.from_plan(0.0, 1.0, 0.0))
        return cls.from_basis(forward, turned_by(x, y, z, w, *axes.from_plan(0.0, 0.0, 1.0)), axes)

    def basis(self, axes: WorldAxes) -> tuple[GameVector, GameVector, GameVector]:
        """Return right, forward and up of a camera with this view, each of length 1, in the game's own axes. Raises
        `WendonicError` in a 2-D game and for a view that is not finite.

        >>> right, forward, up = View(yaw_deg=90.0).basis(WorldAxes("+x", "-z", "+y"))
        >>> round(forward[0], 9)
        1.0
        """
        _in_three_axes(axes, "yaw_deg")
        self._check_finite()
        yaw, pitch = math.radians(self.yaw_deg), math.radians(self.pitch_deg)
        east, north, flat, climb = math.sin(yaw), math.cos(yaw), math.cos(pitch), math.sin(pitch)
        return (
            axes.from_plan(north, -east, 0.0),
            axes.from_plan(east * flat, north * flat, climb),
            axes.from_plan(-east * climb, -north * climb, flat),
        )

    def quaternion(self, axes: WorldAxes) -> tuple[float, float, float, float]:
        """Return the quaternion (x, y, z, w) in the game's own axes that turns a camera from the game's `forward` to
        this view; the inverse of `from_quaternion`. In a left-handed game it is a quaternion of that game. Raises
        `WendonicError` in a 2-D game and for a view that is not finite.

        >>> [round(part, 6) for part in View(yaw_deg=-90.0).quaternion(WorldAxes("+x", "-z", "+y"))]
        [0.0, 0.707107, 0.0, 0.707107]
        """
        _in_three_axes(axes, "yaw_deg")
        self._check_finite()
        half_yaw, half_pitch = math.radians(self.yaw_deg) / 2.0, math.radians(self.pitch_deg) / 2.0
        # Clockwise from above is negative about the plan's up; the pitch, about right, comes first.
        yaw_z, yaw_w = -math.sin(half_yaw), math.cos(half_yaw)
        pitch_x, pitch_w = math.sin(half_pitch), math.cos(half_pitch)
        handed = 1.0 if axes.right_handed else -1.0
        x, y, z = axes.from_plan(yaw_w * pitch_x * handed, yaw_z * pitch_x * handed, yaw_z * pitch_w * handed)
        return x, y, z, yaw_w * pitch_w

    @classmethod
    def from_engine_yaw(cls, yaw_deg: float, axes: WorldAxes, pitch_deg: float = 0.0) -> "View":
        """Return the view of a camera that the engine has turned by an angle about its own axis that `up` names, from
        looking along `forward`. Raises `WendonicError` in a 2-D game.

        >>> View.from_engine_yaw(-90.0, WorldAxes("+x", "-z", "+y"))
        View(yaw_deg=90.0, pitch_deg=0.0)
        """
        return cls(yaw_deg * _engine_sign(axes), pitch_deg)

    def engine_yaw_deg(self, axes: WorldAxes) -> float:
        """Return the yaw as the engine counts it: the angle about its own axis that `up` names, positive by the
        rotation sense of its handedness. Raises `WendonicError` in a 2-D game.

        In a right-handed game with y up that is the opposite of `yaw_deg`, in a left-handed one the same.

        >>> View(yaw_deg=90.0).engine_yaw_deg(WorldAxes("+x", "-z", "+y"))
        -90.0
        >>> View(yaw_deg=90.0).engine_yaw_deg(WorldAxes("+x", "+z", "+y"))
        90.0
        """
        return self.yaw_deg * _engine_sign(axes)

    def _check_finite(self) -> None:
        if not (math.isfinite(self.yaw_deg) and math.isfinite(self.pitch_deg)):
            raise WendonicError(f"found {self}; allowed: finite angles")


def _engine_sign(axes: WorldAxes) -> float:
    """Return 1 where turning right is positive about the axis that `up` names, -1 where it is negative."""
    _in_three_axes(axes, "yaw_deg")
    # Yaw is clockwise seen from above, against the right-hand rule about up.
    sign = -1.0 if axes.right_handed else 1.0
    return -sign if (axes.up or "").startswith("-") else sign


def _in_three_axes(axes: WorldAxes, allowed: str) -> None:
    if axes.up is None or axes.forward is None:
        raise WendonicError(f"a 2-D game has no quaternions and no basis; allowed: {allowed}")
