"""Turns a profile's bindings into the sources of a sampler: names of controls and places of zones."""

from typing import Any

from wendonic.devices.sources.base import Source
from wendonic.devices.sources.mode import ModeSources
from wendonic.devices.sources.silent import SilentSource
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.seat import Seat
from wendonic.profile.schema.steer.goto import GotoSteer
from wendonic.profile.schema.steer.hands import HandsSteer
from wendonic.profile.schema.steer.sprite import Faced


def mode_sources(profile: Profile, mode_name: str, seat: str | None = None) -> ModeSources:
    """Return the sources of one mode, channel by channel, in the order of the file.

    In a `seat` such as "pad1" the profile's `pad` is that pad; in a seat of the profile, keys and entries of other
    seats are silent. Raises `ControlError` for a seat that does not exist.
    """
    own, mode, window = Seat(seat, profile.seat), profile.mode[mode_name], profile.window
    steer = mode.steer
    presses = [mode.press.get(name) for name in profile.press_names]

    def read(table: Any) -> tuple[Source, ...]:
        sources = [(bind, bind.source(window, own)) for bind in (table.bind if table else ())]
        return tuple(source if own.sits(bind.seat) else SilentSource(source) for bind, source in sources)

    return ModeSources(
        move=read(mode.move),
        rise=read(mode.rise),
        throttle=read(mode.throttle),
        turn=read(mode.turn),
        look=read(mode.look),
        presses=tuple(press.sources(window, own) if press else () for press in presses),
        goals_wait=isinstance(steer, GotoSteer) and (steer.queue > 0 or not steer.retarget),
        goal=mode.goal.sources(window, profile.world, own)
        if mode.goal
        else ()
        if isinstance(steer, GotoSteer)
        else None,
        aims=isinstance(steer, Faced) and steer.face == "aim",
        tracks=isinstance(steer, HandsSteer) or mode.comfort is not None,
        points=steer.teleport.hand if isinstance(steer, HandsSteer) and steer.teleport else "",
    )
