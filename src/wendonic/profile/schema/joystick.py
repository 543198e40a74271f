"""Mappings of joysticks whose axes and buttons have only numbers to the controls of a pad."""

from typing import Annotated, Self

from pydantic import Field, model_validator

from wendonic.devices.joystick import JoystickMapping
from wendonic.errors import ControlError
from wendonic.profile.schema.table import Table, entry, own_fault, own_faults

Elements = Annotated[tuple[str, ...], Field(strict=False)]


class JoystickTable(Table):
    """A joystick that the system has no mapping for: a line of SDL's database, or its `controls` one by one.

    An element is an axis "a0", inverted "a0~" or one half of it "+a0", a button "b0", or a direction of a hat "h0.1"
    (1 up, 2 right, 4 down, 8 left). A stick has two axes: to the right, and towards the player.
    """

    guid: str | None = entry(
        "GUID of the joystick, as SDL reports it.",
        None,
        example="03000000790000000600000010010000",
        otherwise="found by its name",
    )
    name: str | None = entry(
        "Name of the joystick, as the system reports it.", None, example="Barrow stick", otherwise="found by its GUID"
    )
    database: str | None = entry(
        "Line of SDL's game controller database, in place of controls.",
        None,
        example="03000000790000000600000010010000,Barrow stick,a:b2,leftx:a0,lefty:a1,",
        otherwise="written in controls",
    )
    controls: dict[str, str | Elements] = entry(
        "Controls of a pad, each with the element that drives it: two for a stick.",
        {},
        example={"left_stick": ["a0", "a1"], "south": "b2", "left_trigger": "a4", "dpad_up": "h0.1"},
    )

    @model_validator(mode="after")
    def _whole(self) -> Self:
        if bool(self.controls) == bool(self.database):
            raise own_fault("needs either controls or database")
        if self.database is None and self.guid is None and self.name is None:
            raise own_fault("does not say which joystick it is; give it a guid or a name")
        try:
            self.mapping()
        except ControlError as error:
            raise own_faults([("database" if self.database else "controls", str(error))]) from None
        return self

    def mapping(self) -> JoystickMapping:
        """Return the mapping for adapters."""
        if self.database is None:
            return JoystickMapping(self.controls, self.guid or "", self.name or "")
        mapping = JoystickMapping.from_database(self.database)
        if self.guid is not None or self.name is not None:
            mapping.guid, mapping.name = (self.guid or "").lower(), self.name or ""
        return mapping

    def sentence(self) -> str:
        """Describe the joystick and its controls."""
        mapping = self.mapping()
        named = f"joystick {mapping.name}" if mapping.name else f"joystick of GUID {mapping.guid}"
        return f"{named}: {', '.join(mapping.control_names)}"
