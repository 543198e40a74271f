"""The `bind` entries of `move`."""

from typing import Annotated, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from wendonic.profile.binds import Centred, OppositesRule, Ramped, Tilted, WayLists, ZoneNames, by_key
from wendonic.profile.shapes import LINEAR_CURVE, Curve, DeadZone
from wendonic.profile.table import AxisName, KeyList, Seconds, StickName, SwitchName, Table, own_faults


class MoveKeys(WayLists):
    """Which keys pull which way, as W3C codes."""

    ahead: KeyList = ()
    back: KeyList = ()
    left: KeyList = ()
    right: KeyList = ()


class MoveZones(WayLists):
    """Which zones of the touch screen pull which way."""

    ahead: ZoneNames = ()
    back: ZoneNames = ()
    left: ZoneNames = ()
    right: ZoneNames = ()


class KeysBind(Ramped):
    """Keys as a source of `move`."""

    keys: MoveKeys
    opposites: OppositesRule = "cancel"


class DpadBind(Ramped):
    """The four buttons of a pad's d-pad as a source of `move`."""

    dpad: Literal["pad.dpad", "pad1.dpad", "pad2.dpad", "pad3.dpad"]
    opposites: OppositesRule = "cancel"


class StickBind(Tilted, Centred):
    """A stick as a source of `move`."""

    stick: StickName


class MoveAxes(Table):
    """An axis for `x` (right) and one for `y` (ahead)."""

    x: AxisName
    y: AxisName


class AxesBind(Tilted):
    """Two axes as a source of `move`: dead zone and curve on each by itself."""

    axes: MoveAxes


class TouchZonesBind(Ramped):
    """Zones of the touch screen as a source of `move`: a finger anywhere inside is enough."""

    touch_zones: MoveZones


class TouchStickBind(Tilted):
    """A stick under the thumb, wherever in the zone it lands.

    `radius` is a share of the window's height; past it the middle stays, or is dragged along.
    """

    touch_stick: str
    radius: Annotated[float, Field(gt=0.0, le=1.0)] = 0.12
    past_rim: Literal["stay", "drag"] = "stay"
    dead_zone: DeadZone = DeadZone(inner=0.1, outer=1.0)


class PointerBind(Tilted):
    """The pointer seen from the window's middle, while one of `while_held` is down, or always if it is empty.

    `reach` is the share of the window's height at which everything is asked for.
    """

    pointer: Literal["pointer.at"]
    while_held: Annotated[tuple[SwitchName, ...], Field(strict=False)] = ("mouse.left",)
    reach: Annotated[float, Field(gt=0.0, le=1.0)] = 0.4
    dead_zone: DeadZone = DeadZone(inner=0.1, outer=1.0)
    curve: Curve = LINEAR_CURVE


BOTH_BOOST = 1.5
"""How much more both hands give where a profile says nothing."""


class HandsBind(Tilted):
    """Walking by swinging the hands that squeeze: a hand at `full_swing_m_s` asks for everything.

    Both hands give `both_boost` times as much as one. A hand's velocity is smoothed by `steady_half_life_s`, so that
    its trembling cancels out; what is asked for falls by half every `release_half_life_s`.
    """

    hands: Annotated[tuple[Literal["hand.left", "hand.right"], ...], Field(strict=False, min_length=1, max_length=2)]
    full_swing_m_s: Annotated[float, Field(gt=0.0, le=100.0)] = 1.8
    both_boost: Annotated[float, Field(ge=1.0, le=4.0)] | None = None
    steady_half_life_s: Seconds = 0.04
    release_half_life_s: Seconds = 0.18
    dead_zone: DeadZone = DeadZone(inner=0.1, outer=1.0)
    curve: Curve = LINEAR_CURVE

    @property
    def boost(self) -> float:
        """How much more both hands give that counts."""
        return BOTH_BOOST if self.both_boost is None else self.both_boost

    @model_validator(mode="after")
    def _boost_of_both(self) -> Self:
        if len(self.hands) == 1 and self.both_boost is not None:
            raise own_faults([("both_boost", "does nothing with one hand")])
        return self


MoveBind = Annotated[
    Annotated[KeysBind, Tag("keys")]
    | Annotated[DpadBind, Tag("dpad")]
    | Annotated[StickBind, Tag("stick")]
    | Annotated[AxesBind, Tag("axes")]
    | Annotated[TouchZonesBind, Tag("touch_zones")]
    | Annotated[TouchStickBind, Tag("touch_stick")]
    | Annotated[PointerBind, Tag("pointer")]
    | Annotated[HandsBind, Tag("hands")],
    Discriminator(by_key("keys", "dpad", "stick", "axes", "touch_zones", "touch_stick", "pointer", "hands")),
]
