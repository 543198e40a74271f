"""A gait: the constants that turn intent into motion."""

import math
from typing import Annotated, Any, Self

from pydantic import Field, model_validator

from wendonic.profile.table import Fraction, Table, own_faults

Speed = Annotated[float, Field(gt=0.0, le=1000.0)]
Rate = Annotated[float, Field(gt=0.0, le=100_000.0)]
AirRate = Annotated[float, Field(ge=0.0, le=100_000.0)]

GRAVITY_M_S2 = 20.0
"""Gravity of a gait that jumps and names none: about twice that of the earth, as bodies on a screen want it."""

TERMINAL_M_S = 30.0


class Jump(Table):
    """What `press` does: it leaves the ground at a speed that is given, or that a height asks for.

    With `to_top_s` the jump brings the gravity of its rise along: h = v t / 2, g = v / t. Without it the gait's
    gravity counts: h = v² / 2g. Let go while it rises, it keeps `cut_ratio` of its speed.
    """

    press: str = "jump"
    height_m: Annotated[float, Field(gt=0.0, le=100.0)] | None = None
    speed_m_s: Speed | None = None
    to_top_s: Annotated[float, Field(gt=0.0, le=10.0)] | None = None
    cut_ratio: Fraction = 0.5

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.height_m is None) == (self.speed_m_s is None):
            found = "found neither" if self.height_m is None else "found both"
            raise own_faults([("height_m", f"{found}; allowed: either height_m or speed_m_s")])
        return self

    def start_m_s(self, gravity_m_s2: float) -> float:
        """Return the speed at which it leaves the ground.

        >>> Jump(height_m=1.6).start_m_s(20.0), Jump(height_m=1.6, to_top_s=0.4).start_m_s(20.0)
        (8.0, 8.0)
        """
        if self.speed_m_s is not None:
            return self.speed_m_s
        height_m = self.height_m or 0.0
        return 2.0 * height_m / self.to_top_s if self.to_top_s else math.sqrt(2.0 * gravity_m_s2 * height_m)

    def rising_m_s2(self, gravity_m_s2: float) -> float:
        """Return the gravity of its rise.

        >>> Jump(speed_m_s=6.0, to_top_s=0.5).rising_m_s2(20.0)
        12.0
        """
        return self.start_m_s(gravity_m_s2) / self.to_top_s if self.to_top_s else gravity_m_s2


class Gait(Table):
    """The constants that turn intent into motion.

    Speed rises at `accel_m_s2` and falls at `brake_m_s2`, or at `reverse_m_s2` while the wish points backwards; off
    the ground the two `air` rates count. With `coast_half_life_s` it falls by a half-life instead, but for a
    reversal. Or else `thrust_m_s2` works against `drag_per_s`: then the top speed is thrust / drag. `turn_loss` is
    the share of speed that a wish straight back costs, and a cart at full lock. `rise_m_s` is for bodies that fly.

    A gait with a `jump` or a `gravity_m_s2` has weight: it falls `fall_ratio` times as fast as it rises, and no
    faster than `terminal_fall_m_s`. `body_m` is how wide the body is between walls, and how long.
    """

    top_speed_m_s: Speed = 3.2
    accel_m_s2: Rate = 22.0
    brake_m_s2: Rate = 30.0
    reverse_m_s2: Rate | None = None
    air_accel_m_s2: AirRate | None = None
    air_brake_m_s2: AirRate | None = None
    thrust_m_s2: Rate | None = None
    drag_per_s: Annotated[float, Field(gt=0.0, le=1000.0)] | None = None
    coast_half_life_s: Annotated[float, Field(gt=0.0, le=100.0)] | None = None
    turn_loss: Fraction = 0.0
    rise_m_s: Speed | None = None
    body_m: Annotated[float, Field(gt=0.0, le=100.0)] = 0.5
    gravity_m_s2: Annotated[float, Field(gt=0.0, le=1000.0)] | None = None
    fall_ratio: Annotated[float, Field(gt=0.0, le=100.0)] | None = None
    terminal_fall_m_s: Speed | None = None
    jump: Jump | None = None

    @model_validator(mode="before")
    @classmethod
    def _top_speed_of_thrust(cls, content: Any) -> Any:
        """Under drag the three usual numbers follow from two others; said beside them they are left to be refused."""
        if not isinstance(content, dict):
            return content
        thrust, drag = content.get("thrust_m_s2"), content.get("drag_per_s")
        usual = ("top_speed_m_s", "accel_m_s2", "brake_m_s2")
        if not isinstance(thrust, int | float) or not isinstance(drag, int | float) or not thrust > 0.0 < drag:
            return content
        if any(name in content for name in usual):
            return content
        return {**content, "top_speed_m_s": thrust / drag, "accel_m_s2": float(thrust), "brake_m_s2": float(thrust)}

    @model_validator(mode="after")
    def _nothing_idle(self) -> Self:
        wrong: list[tuple[str, str]] = []
        if (self.thrust_m_s2 is None) != (self.drag_per_s is None):
            missing, there = ("thrust_m_s2", "drag_per_s")[:: 1 if self.thrust_m_s2 is None else -1]
            wrong.append((there, f"does nothing without {missing}"))
        if self.thrust_m_s2 is not None and self.drag_per_s is not None:
            top_speed_m_s = self.thrust_m_s2 / self.drag_per_s
            rest = ("reverse_m_s2", "air_accel_m_s2", "air_brake_m_s2", "coast_half_life_s")
            if self.top_speed_m_s != top_speed_m_s or self.accel_m_s2 != self.thrust_m_s2:
                words = f"thrust and drag already make {top_speed_m_s:g} m/s; take top_speed_m_s and the rates out"
                wrong.append(("thrust_m_s2", words))
            wrong += [
                (name, "does nothing under thrust and drag") for name in rest if getattr(self, name) is not None
            ]
        if not self.falls:
            idle = ("air_accel_m_s2", "air_brake_m_s2", "fall_ratio", "terminal_fall_m_s")
            words = "does nothing without gravity_m_s2 or a jump"
            wrong += [(name, words) for name in idle if getattr(self, name) is not None]
        if wrong:
            raise own_faults(wrong)
        return self

    @property
    def falls(self) -> bool:
        """Whether it has weight."""
        return self.jump is not None or self.gravity_m_s2 is not None

    @property
    def plain(self) -> bool:
        """Whether the tick itself can do it: a top speed and two rates, and no weight."""
        extra = (self.reverse_m_s2, self.drag_per_s, self.coast_half_life_s)
        return not self.falls and self.turn_loss == 0.0 and all(value is None for value in extra)


_USUAL: dict[str, dict[str, float]] = {
    "walk": {},
    "stroll": {"top_speed_m_s": 1.4, "accel_m_s2": 12.0, "brake_m_s2": 18.0},
    "run": {"top_speed_m_s": 5.6, "accel_m_s2": 26.0, "brake_m_s2": 30.0},
    "cart": {"top_speed_m_s": 4.5, "accel_m_s2": 3.0, "brake_m_s2": 6.0, "body_m": 1.2},
    "scout": {"top_speed_m_s": 6.0, "accel_m_s2": 9.0, "brake_m_s2": 9.0, "rise_m_s": 3.0, "body_m": 0.1},
}
USUAL_GAITS: dict[str, Gait] = {name: Gait.model_validate(numbers) for name, numbers in _USUAL.items()}
"""Gaits that need no writing. A profile that writes one of them anew begins with these numbers."""


def begun_with_usual(gaits: Any) -> Any:
    """Return gaits as a file has them, each of a usual name with what that name stands for where nothing is said.

    >>> begun_with_usual({"run": {"accel_m_s2": 9.0}})["run"]["top_speed_m_s"]
    5.6
    """
    if not isinstance(gaits, dict):
        return gaits
    begun = dict(gaits)
    for name, content in gaits.items():
        if name in _USUAL and isinstance(content, dict) and "drag_per_s" not in content:
            begun[name] = {**_USUAL[name], **content}
    return begun
