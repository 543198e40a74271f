"""The `bind` entries of `look`."""

from typing import Annotated, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from wendonic.look_units import deg_per_count_from_cm
from wendonic.profile.binds import Bind, Centred, Degrees, by_key
from wendonic.profile.shapes import DEFAULT_CURVE, Curve, DeadZone
from wendonic.profile.table import GyroName, Seconds, StickName, Table, own_fault, own_faults

SlowRate = Annotated[float, Field(ge=0.0, le=360.0)]


class LookBind(Bind):
    """What all sources of `look` have."""

    invert_yaw: bool = False
    invert_pitch: bool = False


class HandGain(Table):
    """A gain that follows the hand's speed: evenly from `slow` at `from_cm_s` to `fast` at `to_cm_s`."""

    from_cm_s: Annotated[float, Field(ge=0.0, le=1000.0)] = 5.0
    slow: Annotated[float, Field(gt=0.0, le=100.0)] = 1.0
    to_cm_s: Annotated[float, Field(gt=0.0, le=1000.0)] = 40.0
    fast: Annotated[float, Field(gt=0.0, le=100.0)] = 1.5

    @model_validator(mode="after")
    def _rising(self) -> Self:
        if self.from_cm_s >= self.to_cm_s:
            raise own_fault(f"from_cm_s {self.from_cm_s:g} is not below to_cm_s {self.to_cm_s:g}")
        if self.slow > self.fast:
            raise own_fault(f"slow {self.slow:g} is above fast {self.fast:g}; the quicker hand never turns less")
        return self


class MouseBind(LookBind):
    """The mouse as a source of `look`: `deg_per_count`, or `cm_per_turn` with `dpi`.

    `hand_gain` needs `dpi` too, to know the hand's speed. `half_life_s` smooths: nothing is lost by it, it comes
    later.
    """

    mouse: Literal["mouse.move"]
    deg_per_count: Annotated[float, Field(gt=0.0, le=360.0)] | None = None
    cm_per_turn: Annotated[float, Field(gt=0.0, le=10_000.0)] | None = None
    dpi: Annotated[float, Field(gt=0.0, le=1_000_000.0)] | None = None
    pitch_ratio: Annotated[float, Field(gt=0.0, le=10.0)] = 1.0
    hand_gain: HandGain | None = None
    half_life_s: Seconds = 0.0

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        if self.deg_per_count is not None:
            idle_dpi = self.dpi is not None and self.hand_gain is None
            if self.cm_per_turn is not None or idle_dpi:
                words = "found deg_per_count beside cm_per_turn or dpi; allowed: one way to say how far it turns"
                raise own_fault(words)
            if self.hand_gain is not None and self.dpi is None:
                raise own_faults([("hand_gain", "needs dpi beside deg_per_count, to know the hand's speed")])
        return self

    @property
    def counts_per_inch(self) -> float:
        """What the mouse counts; 800 where the profile does not say."""
        return self.dpi or 800.0

    @property
    def count_deg(self) -> float:
        """Degrees of one count; without any number 34 cm of an 800 dpi mouse are a full turn."""
        if self.deg_per_count is not None:
            return self.deg_per_count
        return deg_per_count_from_cm(self.cm_per_turn or 34.0, self.counts_per_inch)


SNAP_AT = 0.7
REARM_AT = 0.35
"""Tilts that count where a profile that turns by snaps names none."""


class LookStickBind(LookBind, Centred):
    """A stick as a source of `look`: rates at full tilt.

    They ease in over `ease_s`; after `hold_s` at the rim there is `rim_boost` of them more. With `snap_deg` it turns
    at once instead, by so much to the side each time the stick is tilted to `snap_at`, and again after it was back at
    `rearm_at`.
    """

    stick: StickName
    dead_zone: DeadZone = DeadZone(inner=0.12, outer=0.97)
    curve: Curve = DEFAULT_CURVE
    yaw_deg_s: Degrees = 230.0
    pitch_deg_s: Degrees = 140.0
    ease_s: Seconds = 0.0
    rim_boost: Annotated[float, Field(ge=0.0, le=10.0)] = 0.0
    hold_s: Seconds | None = None
    snap_deg: Annotated[float, Field(gt=0.0, le=180.0)] | None = None
    snap_at: Annotated[float, Field(gt=0.0, le=1.0)] | None = None
    rearm_at: Annotated[float, Field(ge=0.0, lt=1.0)] | None = None

    @property
    def snap_tilts(self) -> tuple[float, float]:
        """Where it snaps and where it may again."""
        at = SNAP_AT if self.snap_at is None else self.snap_at
        return at, min(REARM_AT, at) if self.rearm_at is None else self.rearm_at

    @model_validator(mode="after")
    def _one_way_to_turn(self) -> Self:
        smooth = ("yaw_deg_s", "pitch_deg_s", "ease_s", "rim_boost", "hold_s", "invert_pitch")
        idle = [(name, "does nothing beside snap_deg") for name in smooth if name in self.model_fields_set]
        if self.snap_deg is None:
            idle = [
                (n, "does nothing without snap_deg") for n in ("snap_at", "rearm_at") if n in self.model_fields_set
            ]
        snap_at, rearm_at = self.snap_tilts
        if rearm_at > snap_at:
            idle.append(("rearm_at", f"{rearm_at:g} is above the {snap_at:g} of snap_at; it would never turn again"))
        if idle:
            raise own_faults(idle)
        return self

    @model_validator(mode="after")
    def _nothing_idle(self) -> Self:
        if self.dead_zone.release is not None:
            raise own_faults([("dead_zone.release", "does nothing for look; take it out")])
        if self.hold_s is not None and self.rim_boost == 0.0:
            raise own_faults([("hold_s", "does nothing without rim_boost")])
        return self


class TouchDragBind(LookBind):
    """A finger that landed in the zone, dragged: degrees for the window's whole width."""

    touch_drag: str
    deg_per_width: Degrees = 180.0
    half_life_s: Seconds = 0.0


class GyroBind(LookBind):
    """A pad's rate sensor: the view turns `turn_ratio` times as far as the hand.

    It turns about the pad's own axes or, `levelled`, about the world's up as the accelerometer feels it. Below
    `steady_below_deg_s` the turn fades out. A pad whose readings spread less than `still_deg_s` lies still: then
    its bias is found and taken off (0: never). While `pause_press` is held the pad may be brought back without
    turning.
    """

    gyro: GyroName
    turn_ratio: Annotated[float, Field(gt=0.0, le=100.0)] = 1.0
    levelled: bool = False
    steady_below_deg_s: SlowRate = 0.0
    still_deg_s: SlowRate = 0.6
    pause_press: str | None = None


AnyLookBind = Annotated[
    Annotated[MouseBind, Tag("mouse")]
    | Annotated[LookStickBind, Tag("stick")]
    | Annotated[TouchDragBind, Tag("touch_drag")]
    | Annotated[GyroBind, Tag("gyro")],
    Discriminator(by_key("mouse", "stick", "touch_drag", "gyro")),
]
