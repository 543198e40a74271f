"""The `bind` entries of `rise`, `throttle` and `turn`."""

from typing import Annotated, Self

from pydantic import Discriminator, Tag, model_validator

from wendonic.devices.push import Push, Pushes, axis_push, pressed
from wendonic.devices.sources.axes import AxesSource, TriggersSource
from wendonic.devices.sources.base import Source
from wendonic.devices.sources.keys import KeysSource
from wendonic.kernels.source.source import SOURCE_AXIS, SOURCE_TRIGGERS, SourceTuning
from wendonic.profile.schema.bind import NameLists, by_key, listed
from wendonic.profile.schema.curve import LINEAR_CURVE, Curve
from wendonic.profile.schema.dead_zone import DeadZone
from wendonic.profile.schema.keyed import Opposed
from wendonic.profile.schema.names import AxisName, KeyList, TriggerName
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.seat import Seat
from wendonic.profile.schema.table import Table, entry, own_fault
from wendonic.profile.schema.tilted import Tilted
from wendonic.profile.schema.window import Window


class RiseKeys(NameLists):
    """Keys for up and down."""

    up: KeyList = entry("Keys for up.", (), example=["KeyE"])
    down: KeyList = entry("Keys for down.", (), example=["KeyQ"])


class ThrottleKeys(NameLists):
    """Keys for driving forward and for braking and driving back."""

    forward: KeyList = entry("Keys for driving forward.", (), example=["KeyW"])
    back: KeyList = entry("Keys for braking and driving back.", (), example=["KeyS"])


class TurnKeys(NameLists):
    """Keys for right and left."""

    right: KeyList = entry("Keys for turning right.", (), example=["KeyD"])
    left: KeyList = entry("Keys for turning left.", (), example=["KeyA"])


class KeyPair(Opposed):
    """Keys for both directions of an axis channel."""

    keys: NameLists

    def controls(self) -> list[str]:
        """Return its controls."""
        return [f"key.{code}" for codes in self.keys.lists().values() for code in codes]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "keys"

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return the key to hold: the first one of that direction."""
        positive, negative = self.keys.lists().values()
        codes = positive if x > 0.0 else negative
        return pressed([f"key.{codes[0]}"]) if codes else None

    def what(self) -> str:
        """Return a text for its controls."""
        return f"keys: {self.keys.sentence()}"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        positive, negative = self.keys.lists().values()
        return KeysSource(seat.all_own(positive), seat.all_own(negative), opposites=self.opposites)


class RiseKeysBind(KeyPair):
    """Keys as a source of `rise`."""

    keys: RiseKeys = entry("Keys for up and down.", example={"up": ["KeyE"], "down": ["KeyQ"]})


class ThrottleKeysBind(KeyPair):
    """Keys as a source of `throttle`."""

    keys: ThrottleKeys = entry("Keys for forward and back.", example={"forward": ["KeyW"], "back": ["KeyS"]})


class TurnKeysBind(KeyPair):
    """Keys as a source of `turn`."""

    keys: TurnKeys = entry("Keys for right and left.", example={"right": ["KeyD"], "left": ["KeyA"]})


class AxisBind(Tilted):
    """One axis of a stick, or one trigger, as a source of `rise`, `throttle` or `turn`."""

    axis: AxisName = entry("Axis or trigger that steers the channel.", example="pad.left_stick.x")

    def controls(self) -> list[str]:
        """Return its controls."""
        return [self.axis]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return self.axis

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return the push of the axis."""
        push = axis_push(self.axis, x * amount)
        return [push] if push else None

    def what(self) -> str:
        """Return a text for its controls."""
        return self.axis

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return AxesSource(x=seat.own(self.axis))

    def tuning(self, rows: NumberRows) -> SourceTuning:
        """Return the kernels' numbers for it."""
        return super().tuning(rows)._replace(kind=SOURCE_AXIS)


class Triggers(Table):
    """Two triggers or buttons for opposite directions, at least one of them."""

    @model_validator(mode="after")
    def _any(self) -> Self:
        names = self.pair()
        if not any(names.values()):
            raise own_fault(f"nothing named; give at least one of {', '.join(names)}")
        return self

    def pair(self) -> dict[str, str | None]:
        """Return both by their direction."""
        return {direction: getattr(self, direction) for direction in type(self).model_fields}


class RiseTriggers(Triggers):
    """Triggers for up and down."""

    up: TriggerName | None = entry("Trigger or button for up.", None, example="pad.right_trigger", otherwise="none")
    down: TriggerName | None = entry(
        "Trigger or button for down.", None, example="pad.left_trigger", otherwise="none"
    )


class ThrottleTriggers(Triggers):
    """Triggers for driving forward and for braking and driving back."""

    forward: TriggerName | None = entry(
        "Trigger or button for driving forward.", None, example="pad.right_trigger", otherwise="none"
    )
    back: TriggerName | None = entry(
        "Trigger or button for braking and driving back.", None, example="pad.left_trigger", otherwise="none"
    )


class TurnTriggers(Triggers):
    """Triggers for turning right and left."""

    right: TriggerName | None = entry(
        "Trigger or button for turning right.", None, example="pad.right_bumper", otherwise="none"
    )
    left: TriggerName | None = entry(
        "Trigger or button for turning left.", None, example="pad.left_bumper", otherwise="none"
    )


class TriggerPair(Tilted):
    """Two triggers, each with its own dead zone and curve; the value is the difference of both."""

    triggers: Triggers
    dead_zone: DeadZone = entry(
        "How much of the trigger's travel is ignored at rest and at its end.", DeadZone(inner=0.05, outer=1.0)
    )
    curve: Curve = entry("Response curve: how the travel past the dead zone becomes an amount.", LINEAR_CURVE)

    def controls(self) -> list[str]:
        """Return its controls."""
        return [name for name in self.triggers.pair().values() if name]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "triggers"

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return the trigger to pull."""
        positive, negative = self.triggers.pair().values()
        name = positive if x > 0.0 else negative
        return [Push(name, amount)] if name else None

    def what(self) -> str:
        """Return a text for its controls."""
        return f"triggers: {listed({side: (name,) for side, name in self.triggers.pair().items() if name})}"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        positive, negative = self.triggers.pair().values()
        return TriggersSource(seat.own(positive), seat.own(negative))

    def tuning(self, rows: NumberRows) -> SourceTuning:
        """Return the kernels' numbers for it."""
        return super().tuning(rows)._replace(kind=SOURCE_TRIGGERS)


class RiseTriggersBind(TriggerPair):
    """Triggers as a source of `rise`."""

    triggers: RiseTriggers = entry(
        "Triggers for up and down.", example={"up": "pad.right_trigger", "down": "pad.left_trigger"}
    )


class ThrottleTriggersBind(TriggerPair):
    """Triggers as a source of `throttle`."""

    triggers: ThrottleTriggers = entry("Triggers for forward and back.", example={"forward": "pad.right_trigger"})


class TurnTriggersBind(TriggerPair):
    """Triggers as a source of `turn`."""

    triggers: TurnTriggers = entry("Triggers for right and left.", example={"right": "pad.right_bumper"})


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
