"""The `bind` entries of `rise`, `throttle` and `turn`."""

from typing import Annotated, Self

from pydantic import Discriminator, Tag, model_validator

from wendonic.profile.binds import OppositesRule, Ramped, Tilted, WayLists, by_key
from wendonic.profile.shapes import LINEAR_CURVE, Curve, DeadZone
from wendonic.profile.table import AxisName, KeyList, SwitchName, Table, own_fault


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


class RiseKeysBind(Ramped):
    """Keys as a source of `rise`."""

    keys: RiseKeys
    opposites: OppositesRule = "cancel"


class ThrottleKeysBind(Ramped):
    """Keys as a source of `throttle`."""

    keys: ThrottleKeys
    opposites: OppositesRule = "cancel"


class TurnKeysBind(Ramped):
    """Keys as a source of `turn`."""

    keys: TurnKeys
    opposites: OppositesRule = "cancel"


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


RiseBind = Annotated[
    Annotated[RiseKeysBind, Tag("keys")]
    | Annotated[AxisBind, Tag("axis")]
    | Annotated[RiseTriggersBind, Tag("triggers")],
    Discriminator(by_key("keys", "axis", "triggers")),
]
ThrottleBind = Annotated[
    Annotated[ThrottleKeysBind, Tag("keys")]
    | Annotated[AxisBind, Tag("axis")]
    | Annotated[ThrottleTriggersBind, Tag("triggers")],
    Discriminator(by_key("keys", "axis", "triggers")),
]
TurnBind = Annotated[
    Annotated[TurnKeysBind, Tag("keys")]
    | Annotated[AxisBind, Tag("axis")]
    | Annotated[TurnTriggersBind, Tag("triggers")],
    Discriminator(by_key("keys", "axis", "triggers")),
]
