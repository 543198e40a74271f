"""A profile reduced to the controls of one player."""

from typing import Any

from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.seat import Seat
from wendonic.profile.schema.table import Table

CHANNELS = ("move", "rise", "throttle", "turn", "look", "goal")


def seated(profile: Profile, seat: str | None) -> Profile:
    """Return a profile with only what counts in a seat: without keys and entries of other players, and with that
    player's pad where the profile says `pad`. Raises `ControlError` for a seat that does not exist.

    >>> from wendonic.profile.load import profile_from_text
    >>> two = profile_from_text('''
    ... format = "wendonic-profile"
    ... version = 1
    ... [seat.one]
    ... keys = ["KeyA", "KeyD"]
    ... [seat.two]
    ... keys = ["ArrowLeft", "ArrowRight"]
    ... [[mode.yard.move.bind]]
    ... keys = { left = ["KeyA", "ArrowLeft"], right = ["KeyD", "ArrowRight"] }
    ... [[mode.yard.move.bind]]
    ... stick = "pad.left_stick"
    ... ''')
    >>> for bind in seated(two, "two").mode["yard"].move.bind:
    ...     print(bind.controls())
    ['key.ArrowLeft', 'key.ArrowRight']
    ['pad1.left_stick.x', 'pad1.left_stick.y']
    """
    own = Seat(seat, profile.seat)
    return profile.model_copy(update={"mode": {name: _own_mode(mode, own) for name, mode in profile.mode.items()}})


def seated_device(profile: Profile, seat: str | None, device: str | None) -> str | None:
    """Return the name that a device, or one of its controls, has in a seat: `pad` is that player's pad.

    >>> from wendonic.demo import demo_profile
    >>> [seated_device(demo_profile(), "pad1", name) for name in ("pad", "pad.left_stick", "keys", None)]
    ['pad1', 'pad1.left_stick', 'keys', None]
    """
    return Seat(seat, profile.seat).own(f"{device}.").removesuffix(".") if device and seat else device


def _own_mode(mode: Mode, own: Seat) -> Mode:
    channels: dict[str, Any] = {}
    for name in CHANNELS:
        table = getattr(mode, name)
        if table is not None:
            binds = _own_entries([bind for bind in table.bind if own.sits(bind.seat)], own)
            channels[name] = table.model_copy(update={"bind": binds}) if binds else None
    presses = {}
    for name, press in mode.press.items():
        # A press of other players stays, since gaits, zooms and amounts may name it, but no control makes it.
        entries = _own_entries(press.bind, own) if own.sits(press.seat) else ()
        presses[name] = press.model_copy(update={"bind": entries})
    return mode.model_copy(update={**channels, "press": presses})


def _own_entries(entries: Any, own: Seat) -> tuple[Any, ...]:
    """Return the entries that remain in a seat."""
    return tuple(left for entry in entries if (left := _own(entry, own)))


def _own(value: Any, own: Seat) -> Any:
    """Return a value of an entry as it is in a seat; None for controls of other players, and for an entry without
    any.
    """
    if isinstance(value, str):
        # A chord needs all of its controls.
        parts = value.split("+")
        left = own.all_own(parts)
        return "+".join(left) if len(left) == len(parts) else ""
    if isinstance(value, tuple):
        return tuple(left for one in value if (left := _own(one, own)) not in ("", None))
    if not isinstance(value, Table):
        return value
    fields = {name: getattr(value, name) for name in type(value).model_fields}
    changed = {name: left for name, found in fields.items() if (left := _own(found, own)) != found}
    if not changed:
        return value
    lost = any(isinstance(fields[name], str) and left == "" for name, left in changed.items())
    bare = all(left == () for left in {**fields, **changed}.values())
    return None if lost or bare or None in changed.values() else value.model_copy(update=changed)
