"""The `bind` entries of a channel: which controls, and the numbers that go with them.

An entry is known by the key that names its controls: `keys`, `stick`, `mouse`, and so on.
"""

from collections.abc import Callable
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from wendonic.profile.shapes import DEFAULT_CURVE, LINEAR_CURVE, Curve, DeadZone
from wendonic.profile.table import (
    AxisName,
    GyroName,
    KeyList,
    Seconds,
    StickName,
    SwitchName,
    Table,
    own_fault,
)

ZoneNames = Annotated[tuple[str, ...], Field(strict=False)]
Degrees = Annotated[float, Field(gt=0.0, le=100_000.0)]


class Bind(Table):
    """What all entries have: `shared` allows a control that is bound to something else of the mode, too."""

    shared: bool = False


class Ramped(Bind):
    """An entry of on and off: `rise_s` from 0 to 1 after a press, `fall_s` from 1 to 0 after letting go."""

    later: ClassVar[frozenset[str]] = frozenset({"reversal"})

    rise_s: Seconds = 0.06
    fall_s: Seconds = 0.04


class Tilted(Bind):
    """An entry of tilt, 0..1 each way."""

    later: ClassVar[frozenset[str]] = frozenset({"centre"})

    dead_zone: DeadZone = DeadZone()
    curve: Curve = DEFAULT_CURVE


class WayLists(Table):
    """Lists of names, one for each way; at least one holds something, and nothing stands in two of them."""

    @model_validator(mode="after")
    def _each_once(self) -> Self:
        lists: dict[str, tuple[str, ...]] = self.model_dump()
        if not any(lists.values()):
            raise own_fault(f"nothing in any list; give at least one of {', '.join(lists)}")
        seen: dict[str, str] = {}
        for way, names in lists.items():
            for name in names:
                if name in seen:
                    raise own_fault(f'"{name}" stands under {seen[name]} and again under {way}; it pulls one way')
                seen[name] = way
        return self


class MoveKeys(WayLists):
    """Which keys pull which way, as W3C codes."""

    ahead: KeyList = ()
    back: KeyList = ()
    left: KeyList = ()
    right: KeyList = ()


class RiseKeys(WayLists):
    """Which keys go up and down."""

    up: KeyList = ()
    down: KeyList = ()


class ThrottleKeys(WayLists):
    """Which keys give more and less, or drive ahead and back."""

    ahead: KeyList = ()
    back: KeyList = ()


class TurnKeys(WayLists):
    """Which keys turn right and left."""

    right: KeyList = ()
    left: KeyList = ()


class MoveZones(WayLists):
    """Which zones of the touch screen pull which way."""

    ahead: ZoneNames = ()
    back: ZoneNames = ()
    left: ZoneNames = ()
    right: ZoneNames = ()


class KeysBind(Ramped):
    """Keys as a source of `move`."""

    keys: MoveKeys
    opposites: Literal["cancel", "latest", "earliest"] = "cancel"


class DpadBind(Ramped):
    """The four buttons of a pad's d-pad as a source of `move`."""

    dpad: Literal["pad.dpad", "pad1.dpad", "pad2.dpad", "pad3.dpad"]
    opposites: Literal["cancel", "latest", "earliest"] = "cancel"


class StickBind(Tilted):
    """A stick as a source of `move`: dead zone and curve on the length of its tilt."""

    stick: StickName
    gate: Literal["circle"] = "circle"


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


class HandsBind(Tilted):
    """Walking by swinging the hands that squeeze: `full_swing_m_s` of both together asks for everything."""

    hands: Annotated[tuple[Literal["hand.left", "hand.right"], ...], Field(strict=False, min_length=1, max_length=2)]
    full_swing_m_s: Annotated[float, Field(gt=0.0, le=100.0)] = 2.0
    dead_zone: DeadZone = DeadZone(inner=0.1, outer=1.0)
    curve: Curve = LINEAR_CURVE


class RiseKeysBind(Ramped):
    """Keys as a source of `rise`."""

    keys: RiseKeys
    opposites: Literal["cancel", "latest", "earliest"] = "cancel"


class ThrottleKeysBind(Ramped):
    """Keys as a source of `throttle`."""

    keys: ThrottleKeys
    opposites: Literal["cancel", "latest", "earliest"] = "cancel"


class TurnKeysBind(Ramped):
    """Keys as a source of `turn`."""

    keys: TurnKeys
    opposites: Literal["cancel", "latest", "earliest"] = "cancel"


class AxisBind(Tilted):
    """One axis of a stick, or one trigger, as a source of `rise`, `throttle` or `turn`."""

    axis: AxisName


class Triggers(Table):
    """Two triggers or buttons that pull opposite ways, at least one of them."""

    @model_validator(mode="after")
    def _any(self) -> Self:
        names = self.model_dump()
        if not any(names.values()):
            raise own_fault(f"nothing named; give at least one of {', '.join(names)}")
        return self


class RiseTriggers(Triggers):
    """Up and down."""

    up: SwitchName | None = None
    down: SwitchName | None = None


class ThrottleTriggers(Triggers):
    """Ahead and back."""

    ahead: SwitchName | None = None
    back: SwitchName | None = None


class TurnTriggers(Triggers):
    """Right and left."""

    right: SwitchName | None = None
    left: SwitchName | None = None


class TriggersBind(Tilted):
    """Two triggers: what one gives less what the other gives."""

    dead_zone: DeadZone = DeadZone(inner=0.05, outer=1.0)
    curve: Curve = LINEAR_CURVE


class RiseTriggersBind(TriggersBind):
    """Triggers as a source of `rise`."""

    triggers: RiseTriggers


class ThrottleTriggersBind(TriggersBind):
    """Triggers as a source of `throttle`."""

    triggers: ThrottleTriggers


class TurnTriggersBind(TriggersBind):
    """Triggers as a source of `turn`."""

    triggers: TurnTriggers


class LookBind(Bind):
    """What all sources of `look` have."""

    invert_yaw: bool = False
    invert_pitch: bool = False


class MouseBind(LookBind):
    """The mouse as a source of `look`: `deg_per_count`, or `cm_per_turn` with `dpi`."""

    mouse: Literal["mouse.move"]
    deg_per_count: Annotated[float, Field(gt=0.0, le=360.0)] | None = None
    cm_per_turn: Annotated[float, Field(gt=0.0, le=10_000.0)] | None = None
    dpi: Annotated[float, Field(gt=0.0, le=1_000_000.0)] | None = None
    pitch_ratio: Annotated[float, Field(gt=0.0, le=10.0)] = 1.0

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        if self.deg_per_count is not None and (self.cm_per_turn is not None or self.dpi is not None):
            raise own_fault("found deg_per_count beside cm_per_turn or dpi; allowed: one way to say how far it turns")
        return self

    @property
    def count_deg(self) -> float:
        """Degrees of one count; without any number 34 cm of an 800 dpi mouse are a full turn."""
        if self.deg_per_count is not None:
            return self.deg_per_count
        return 360.0 * 2.54 / ((self.cm_per_turn or 34.0) * (self.dpi or 800.0))


class LookStickBind(LookBind):
    """A stick as a source of `look`: rates at full tilt."""

    stick: StickName
    dead_zone: DeadZone = DeadZone(inner=0.12, outer=0.97)
    curve: Curve = DEFAULT_CURVE
    yaw_deg_s: Degrees = 230.0
    pitch_deg_s: Degrees = 140.0


class TouchDragBind(LookBind):
    """A finger that landed in the zone, dragged: degrees for the window's whole width."""

    touch_drag: str
    deg_per_width: Degrees = 180.0


class GyroBind(LookBind):
    """A pad's rate sensor: the view turns `turn_ratio` times as far as the hand."""

    gyro: GyroName
    turn_ratio: Annotated[float, Field(gt=0.0, le=100.0)] = 1.0


def _by_key(*keys: str) -> Callable[[Any], str | None]:
    """Return a chooser: which of `keys` an entry has."""

    def kind(entry: Any) -> str | None:
        found = entry if isinstance(entry, dict) else type(entry).model_fields if isinstance(entry, Table) else ()
        return next((key for key in keys if key in found), None)

    return kind


MoveBind = Annotated[
    Annotated[KeysBind, Tag("keys")]
    | Annotated[DpadBind, Tag("dpad")]
    | Annotated[StickBind, Tag("stick")]
    | Annotated[AxesBind, Tag("axes")]
    | Annotated[TouchZonesBind, Tag("touch_zones")]
    | Annotated[TouchStickBind, Tag("touch_stick")]
    | Annotated[PointerBind, Tag("pointer")]
    | Annotated[HandsBind, Tag("hands")],
    Discriminator(_by_key("keys", "dpad", "stick", "axes", "touch_zones", "touch_stick", "pointer", "hands")),
]
RiseBind = Annotated[
    Annotated[RiseKeysBind, Tag("keys")]
    | Annotated[AxisBind, Tag("axis")]
    | Annotated[RiseTriggersBind, Tag("triggers")],
    Discriminator(_by_key("keys", "axis", "triggers")),
]
ThrottleBind = Annotated[
    Annotated[ThrottleKeysBind, Tag("keys")]
    | Annotated[AxisBind, Tag("axis")]
    | Annotated[ThrottleTriggersBind, Tag("triggers")],
    Discriminator(_by_key("keys", "axis", "triggers")),
]
TurnBind = Annotated[
    Annotated[TurnKeysBind, Tag("keys")]
    | Annotated[AxisBind, Tag("axis")]
    | Annotated[TurnTriggersBind, Tag("triggers")],
    Discriminator(_by_key("keys", "axis", "triggers")),
]
AnyLookBind = Annotated[
    Annotated[MouseBind, Tag("mouse")]
    | Annotated[LookStickBind, Tag("stick")]
    | Annotated[TouchDragBind, Tag("touch_drag")]
    | Annotated[GyroBind, Tag("gyro")],
    Discriminator(_by_key("mouse", "stick", "touch_drag", "gyro")),
]
