"""Finds a control that triggers one press and does nothing else."""

from collections.abc import Iterator, Sequence

from wendonic.devices.controls import find_control
from wendonic.devices.sampler import CHANNELS
from wendonic.devices.sources.presses import PressBind, SwitchBind
from wendonic.errors import ControlError
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.press import entry_controls


def lone_control(mode: Mode, press: str, binds: Sequence[PressBind]) -> str | None:
    """Return a key, button or trigger that triggers a press and does nothing else in its mode; None if there is none.

    `binds` are the bindings of the press that a sampler reads, with the player's own controls.
    """
    if mode.press[press].enters:
        # Using it would enter another mode.
        return None
    others = {_whole(name) for name in _others(mode, press)}
    for bind in binds:
        if isinstance(bind, SwitchBind) and len(bind.controls) == 1:
            control = find_control(bind.controls[0]).name
            if _whole(control) not in others:
                return control
    return None


def _others(mode: Mode, press: str) -> Iterator[str]:
    """Yield the names of the controls that everything else is bound to."""
    for channel in CHANNELS:
        table = getattr(mode, channel)
        for bind in table.bind if table else ():
            yield from bind.controls()
    for name, table in mode.press.items():
        for found in (*(table.bind if name != press else ()), *table.unless):
            yield from entry_controls(found)


def _whole(name: str) -> str:
    """Return the full name of a control, whichever player it belongs to; any other name unchanged."""
    try:
        found = find_control(name).name
    except ControlError:
        found = name
    device, _, rest = found.partition(".")
    return f"pad.{rest}" if device.startswith("pad") else found
