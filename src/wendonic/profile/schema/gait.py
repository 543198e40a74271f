"""A gait: the constants that turn intent into motion."""

from collections.abc import Iterator
from typing import Annotated, Any, Self

from pydantic import Field, model_validator

from wendonic.arithmetic import sqrt
from wendonic.kernels.body.fall import NO_FALL, FallTuning
from wendonic.kernels.body.gait import GaitTuning, with_forms
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.names import Fraction, PressName
from wendonic.profile.schema.table import Table, entry, own_faults

Speed = Annotated[float, Field(gt=0.0, le=1000.0)]
Rate = Annotated[float, Field(gt=0.0, le=100_000.0)]
AirRate = Annotated[float, Field(ge=0.0, le=100_000.0)]

GRAVITY_M_S2 = 20.0
"""Gravity of a gait that jumps and names none: about twice that of the earth, which feels right on a screen."""

HEADSET_FALL = FallTuning(1, GRAVITY_M_S2, GRAVITY_M_S2, 30.0, 0.0, 1.0)
"""The fall of a player in a headset off an edge if the gait has no weight: quick."""

LEAST_RATE = 1e-9


class Jump(Table):
    """A jump: `press` makes the body leave the ground at a speed, given directly or by a height.

    With `apex_s` the jump has its own gravity while rising: h = v t / 2, g = v / t. Without it the gait's gravity
    counts: h = v² / 2g. Released while rising, the body keeps `early_release_ratio` of its speed.
    """

    press: PressName = entry("Press that jumps.", "jump")
    height_m: Annotated[float, Field(gt=0.0, le=100.0)] | None = entry(
        "Height of a jump whose press stays held: raise it to jump higher, lower it to jump lower.",
        None,
        example=1.6,
        otherwise="from speed_m_s",
    )
    speed_m_s: Speed | None = entry(
        "Upward speed as the body leaves the ground, in place of height_m: raise it to jump higher,"
        " lower it to jump lower.",
        None,
        example=8.0,
        otherwise="from height_m",
    )
    apex_s: Annotated[float, Field(gt=0.0, le=10.0)] | None = entry(
        "Time to the top of the jump: raise it for a floatier jump of the same height, lower it for a snappier one.",
        None,
        example=0.4,
        otherwise="from gravity_m_s2",
    )
    early_release_ratio: Fraction = entry(
        "Share of upward speed that is left after an early release: lower it so that short presses "
        "jump lower; 1 ignores the release.",
        0.5,
    )

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.height_m is None) == (self.speed_m_s is None):
            found = "found neither" if self.height_m is None else "found both"
            raise own_faults([("height_m", f"{found}; allowed: either height_m or speed_m_s")])
        return self

    def start_m_s(self, gravity_m_s2: float) -> float:
        """Return the speed at which it leaves the ground.

        >>> Jump(height_m=1.6).start_m_s(20.0), Jump(height_m=1.6, apex_s=0.4).start_m_s(20.0)
        (8.0, 8.0)
        """
        if self.speed_m_s is not None:
            return self.speed_m_s
        height_m = self.height_m or 0.0
        return 2.0 * height_m / self.apex_s if self.apex_s else sqrt(2.0 * gravity_m_s2 * height_m)

    def rising_m_s2(self, gravity_m_s2: float) -> float:
        """Return the gravity of its rise.

        >>> Jump(speed_m_s=6.0, apex_s=0.5).rising_m_s2(20.0)
        12.0
        """
        return self.start_m_s(gravity_m_s2) / self.apex_s if self.apex_s else gravity_m_s2

    def sentence(self, gravity_m_s2: float, length: LengthUnit = METRES) -> str:
        """Say how high it jumps, and how long it rises."""
        start_m_s, rising_m_s2 = self.start_m_s(gravity_m_s2), self.rising_m_s2(gravity_m_s2)
        height_m, apex_s = start_m_s**2 / (2.0 * rising_m_s2), start_m_s / rising_m_s2
        words = f"jumps {length.m(height_m, '.2f')} high (press {self.press}), {apex_s:.2f} s to the top"
        if self.early_release_ratio < 1.0:
            words += f"; released early it keeps {100.0 * self.early_release_ratio:g} % of its upward speed"
        return words


class Airborne(Table):
    """How the body steers in the air."""

    accel_m_s2: AirRate | None = entry(
        "Rate at which speed rises in the air: raise it for more air control, lower it for less; 0 for none.",
        None,
        example=6.0,
        otherwise="as on the ground",
    )
    brake_m_s2: AirRate | None = entry(
        "Rate at which speed falls in the air after a release: raise it to stop a jump short; 0 keeps the speed.",
        None,
        example=2.0,
        otherwise="as on the ground",
    )


class Fall(Table):
    """How the body falls."""

    gravity_ratio: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Gravity while falling over gravity while rising: raise it to drop faster, lower it to float down.", 1.0
    )
    top_speed_m_s: Speed = entry("Fastest fall (terminal speed).", 30.0)


class Gait(Table):
    """The constants that turn intent into motion.

    Speed rises at `accel_m_s2` and falls at `brake_m_s2`, or at `reverse_m_s2` while the opposite direction is
    requested; in the air the rates of `airborne` count, where it has any. With `coast_half_life_s` a released speed
    falls by a half-life instead, and rests below 0.02 m/s; with `keeps_speed` it lasts: a request turns the body at
    that speed, and only one that points backwards slows it. Or `thrust_m_s2` works against `drag_per_s`, and the top
    speed is thrust / drag. `turn_loss` is the share of speed lost at once by turning straight back, less in
    proportion for a smaller turn, and by a vehicle at full lock. `rise_m_s` is for bodies that fly.

    A gait with a `jump` or a `gravity_m_s2` has weight, and falls as `fall` says. `body_m` is the width and length
    of the body.
    """

    top_speed_m_s: Speed = entry("Speed at full input: raise it for a faster body, lower it for a slower one.", 3.2)
    accel_m_s2: Rate = entry(
        "Rate at which speed rises: raise it for a snappier start, lower it for a heavier body.", 22.0
    )
    brake_m_s2: Rate = entry(
        "Rate at which speed falls after a release: raise it to stop in a shorter distance, lower it to slide.", 30.0
    )
    reverse_m_s2: Rate | None = entry(
        "Rate at which speed falls while the opposite direction is requested: raise it to reverse "
        "sooner, lower it for a heavier body.",
        None,
        example=40.0,
        otherwise="brake_m_s2",
    )
    thrust_m_s2: Rate | None = entry(
        "Acceleration by thrust against drag_per_s, in place of top speed and rates: raise it for a"
        " higher top speed.",
        None,
        example=12.0,
        otherwise="none",
    )
    drag_per_s: Annotated[float, Field(gt=0.0, le=1000.0)] | None = entry(
        "Drag in proportion to speed: raise it for a quicker answer at a lower top speed, lower it to glide.",
        None,
        example=3.0,
        otherwise="none",
    )
    coast_half_life_s: Annotated[float, Field(gt=0.0, le=100.0)] | None = entry(
        "Half-life in which speed fades after a release, in place of brake_m_s2: raise it to coast "
        "further, lower it to stop sooner.",
        None,
        example=0.4,
        otherwise="brakes at brake_m_s2",
    )
    keeps_speed: bool = entry(
        "Whether speed lasts until another direction is requested, so that a tap sets it.", False
    )
    turn_loss: Fraction = entry(
        "Share of speed lost at once by turning straight back, or at full lock in a vehicle: raise "
        "it to punish reversals.",
        0.0,
        unit="share",
    )
    rise_m_s: Speed = entry(
        "Speed up and down of a body that flies: raise it to climb faster, lower it to climb more slowly.", 2.0
    )
    body_m: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Width of the body, which walls stop; check also judges stopping distances by it.", 0.5
    )
    gravity_m_s2: Annotated[float, Field(gt=0.0, le=1000.0)] | None = entry(
        "Gravity: raise it for snappier jumps of the same height, lower it for floatier ones.",
        None,
        example=20.0,
        otherwise=f"no weight; {GRAVITY_M_S2:g} with a jump",
    )
    airborne: Airborne = entry("How the body steers in the air.", Airborne(), example={"accel_m_s2": 6.0})
    fall: Fall = entry("How the body falls.", Fall(), example={"gravity_ratio": 1.6})
    jump: Jump | None = entry("How the body jumps.", None, example={"height_m": 1.6}, otherwise="does not jump")

    @model_validator(mode="before")
    @classmethod
    def _top_speed_of_thrust(cls, content: Any) -> Any:
        """With drag, the three usual numbers follow from two others; if they are written as well, they are left to be
        refused.
        """
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
    def _thrust_and_drag(self) -> Self:
        wrong: list[tuple[str, str]] = []
        if (self.thrust_m_s2 is None) != (self.drag_per_s is None):
            missing, there = ("thrust_m_s2", "drag_per_s")[:: 1 if self.thrust_m_s2 is None else -1]
            wrong.append((there, f"does nothing without {missing}"))
        if self.thrust_m_s2 is not None and self.drag_per_s is not None:
            top_speed_m_s = self.thrust_m_s2 / self.drag_per_s
            if self.top_speed_m_s != top_speed_m_s or self.accel_m_s2 != self.thrust_m_s2:
                usual = [name for name in ("top_speed_m_s", "accel_m_s2", "brake_m_s2") if self._says(name)]
                gives = "with drag_per_s it gives the top speed (thrust / drag) and the rates"
                wrong.append(("thrust_m_s2", f"{gives}; remove {', '.join(usual)}"))
        if wrong:
            raise own_faults(wrong)
        return self

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        drags = self.thrust_m_s2 is not None and self.drag_per_s is not None
        for name in ("reverse_m_s2", "airborne", "coast_half_life_s", "keeps_speed"):
            if drags and self._says(name):
                yield name, "does nothing under thrust and drag"
        if not drags and self.keeps_speed and self.coast_half_life_s is not None:
            yield "coast_half_life_s", "does nothing under keeps_speed"
        if self.jump and self.jump.apex_s and self.gravity_m_s2 is not None:
            yield "gravity_m_s2", "does nothing with jump.apex_s, which sets the gravity"
        for name in ("airborne", "fall"):
            if not self.falls and self._says(name) and not (drags and name == "airborne"):
                yield name, "does nothing without gravity_m_s2 or a jump"

    def _says(self, name: str) -> bool:
        return name in self.model_fields_set and getattr(self, name) is not None

    @property
    def falls(self) -> bool:
        """Whether it has weight."""
        return self.jump is not None or self.gravity_m_s2 is not None

    @property
    def plain(self) -> bool:
        """Whether it has only a top speed and two rates."""
        extra = (self.reverse_m_s2, self.drag_per_s, self.coast_half_life_s)
        return (
            not self.falls
            and self.turn_loss == 0.0
            and not self.keeps_speed
            and all(value is None for value in extra)
        )

    @property
    def weight_m_s2(self) -> float:
        """Its gravity, if it has weight."""
        return GRAVITY_M_S2 if self.gravity_m_s2 is None else self.gravity_m_s2

    def sentence(self, name: str, flies: bool, length: LengthUnit = METRES) -> str:
        """Describe it."""
        speeds_up = length.m_s2(self.accel_m_s2)
        words = f"gait {name}: top speed {length.m_s(self.top_speed_m_s)}, "
        if self.drag_per_s is not None:
            words += f"{length.m_s2(self.thrust_m_s2 or 0.0)} of thrust against a drag of {self.drag_per_s:g} /s"
        elif self.keeps_speed:
            words += (
                f"accelerates and turns at {speeds_up} and keeps its speed; only a request that points backwards "
                f"slows it, at {length.m_s2(self.brake_m_s2)}"
            )
        elif self.coast_half_life_s is not None:
            words += f"accelerates at {speeds_up}, coasts with a half-life of {self.coast_half_life_s:g} s"
            # No other part of the text says that a request straight back still brakes.
            words += f", reverses at {length.m_s2(self.brake_m_s2)}" if self.reverse_m_s2 is None else ""
        else:
            stop_m = self.top_speed_m_s**2 / (2.0 * self.brake_m_s2)
            words += (
                f"accelerates at {speeds_up}, brakes at {length.m_s2(self.brake_m_s2)} "
                f"(stops from top speed in {length.m(stop_m, '.2f')})"
            )
        words += f", reverses at {length.m_s2(self.reverse_m_s2)}" if self.reverse_m_s2 is not None else ""
        words += f", loses up to {100.0 * self.turn_loss:g} % of its speed in turns" if self.turn_loss else ""
        words += f", rises at {length.m_s(self.rise_m_s)}" if flies else ""
        rising_m_s2 = self.weight_m_s2
        if self.jump is not None:
            words += f"; {self.jump.sentence(self.weight_m_s2, length)}"
            rising_m_s2 = self.jump.rising_m_s2(self.weight_m_s2)
        if self.falls:
            words += f"; falls at {length.m_s2(rising_m_s2 * self.fall.gravity_ratio, '.3g')}"
        return words

    def tuning(self, press: int, walled: bool, tracked: bool = False, loses: bool = False) -> GaitTuning:
        """Return the kernels' numbers for it; `press` is the number of the press that switches to it, -1 for none. A
        player who is `tracked` in a headset falls on a course even without weight of its own. If another gait of the
        mode `loses` speed in turns, this one tracks the direction for it.
        """
        air = self.airborne
        air_accel = self.accel_m_s2 if air.accel_m_s2 is None else air.accel_m_s2
        air_brake = self.brake_m_s2 if air.brake_m_s2 is None else air.brake_m_s2
        # No rate is 0: kernels divide by it.
        tuning = GaitTuning(
            press,
            0,
            self.top_speed_m_s,
            self.accel_m_s2,
            self.brake_m_s2,
            int(self.reverse_m_s2 is not None),
            self.brake_m_s2 if self.reverse_m_s2 is None else self.reverse_m_s2,
            int((air_accel, air_brake) != (self.accel_m_s2, self.brake_m_s2)),
            max(air_accel, LEAST_RATE),
            max(air_brake, LEAST_RATE),
            int(air.brake_m_s2 is not None),
            int(self.drag_per_s is not None),
            self.drag_per_s or 1.0,
            int(self.keeps_speed),
            int(not self.keeps_speed and self.coast_half_life_s is not None),
            self.coast_half_life_s or 1.0,
            int(loses or self.turn_loss > 0.0),
            self.turn_loss,
            self.rise_m_s,
            self.body_m / 2.0 if walled else 0.0,
            HEADSET_FALL if tracked and not self.falls else self._fall_tuning(),
        )
        return with_forms(tuning)

    def _fall_tuning(self) -> FallTuning:
        if not self.falls:
            return NO_FALL
        rising = self.jump.rising_m_s2(self.weight_m_s2) if self.jump else self.weight_m_s2
        return FallTuning(
            1,
            rising,
            rising * self.fall.gravity_ratio,
            self.fall.top_speed_m_s,
            self.jump.start_m_s(self.weight_m_s2) if self.jump else 0.0,
            self.jump.early_release_ratio if self.jump else 1.0,
        )


_USUAL: dict[str, dict[str, float]] = {
    "walk": {},
    "stroll": {"top_speed_m_s": 1.4, "accel_m_s2": 12.0, "brake_m_s2": 18.0},
    "run": {"top_speed_m_s": 5.6, "accel_m_s2": 26.0, "brake_m_s2": 30.0},
    "cart": {"top_speed_m_s": 4.5, "accel_m_s2": 3.0, "brake_m_s2": 6.0, "body_m": 1.2},
    "scout": {"top_speed_m_s": 6.0, "accel_m_s2": 9.0, "brake_m_s2": 9.0, "rise_m_s": 3.0, "body_m": 0.1},
    "none": {},
}
USUAL_GAITS: dict[str, Gait] = {name: Gait.model_validate(numbers) for name, numbers in _USUAL.items()}
"""Predefined gaits. A gait that a profile writes under one of these names starts with these numbers."""


def begun_with_usual(gaits: Any) -> Any:
    """Return the gaits of a file, with missing fields of predefined names filled in.

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
