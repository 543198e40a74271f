"""One mode of a profile on the bench: the sources that its probes use, and the measurements that several quantities
share.
"""

from functools import cached_property
from typing import Any, TypeVar

from wendonic.batch import Engine
from wendonic.devices.event import Event
from wendonic.errors import WendonicError, none_such
from wendonic.profile.schema.look_binds import LookBind, LookStickBind
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.move_binds import StickBind
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.tilted import Tilted
from wendonic.runtime.helm import Helm
from wendonic.study.held_press import held_press
from wendonic.study.measuring.directions import speeds_all_round
from wendonic.study.measuring.jumps import Flight, JumpPress, jump_press
from wendonic.study.measuring.step_response import StepResponse, step_response
from wendonic.study.parts_of_mode import only_moving, without_moving
from wendonic.study.probes.walker import Walker, entries_of, keys_of, known_as, stick_of, walker_of
from wendonic.study.stick_response import StickResponse
from wendonic.study.thresholds import THRESHOLDS, Thresholds
from wendonic.study.unmeasured import NotHere, once

AnyLook = TypeVar("AnyLook", bound=LookBind)


class Bench:
    """What the quantities of one mode share. Everything is computed once, on first use. Something that the mode does
    not have raises `NotHere`, something that cannot be measured raises `Unmeasured`.

    The mode is measured with the device `by` (see `walker_of`), or with the most suitable one, while the press `held`
    is held. A mode seen from the side (`from_side`) is measured to the right.
    """

    def __init__(
        self,
        profile: Profile,
        mode: str,
        engine: Engine = "auto",
        by: str | None = None,
        held: str | None = None,
        thresholds: Thresholds = THRESHOLDS,
    ) -> None:
        """Prepare one mode; `engine` is as in `wendonic.shape`. Raises `WendonicError` for a device that moves or
        turns nothing in this mode, and for a press that the mode does not have or that cannot be kept held.
        """
        self.profile = profile
        self.mode = mode
        self.engine = engine
        self.by = by
        self.held = held
        self.thresholds = thresholds
        self.table: Mode = profile.mode[mode]
        self.on_squares = self.table.steer.frame == "grid"
        self.from_side = self.table.steer.seen_from_side
        self.lead = held_press(without_moving(profile, mode), held) if held else ()
        if by is not None:
            self._check_device(by)

    def _check_device(self, by: str) -> None:
        looks = self.table.look.bind if self.table.look else ()
        goals = self.table.goal.bind if self.table.goal else ()
        binds = [*(bind for _, bind in entries_of(self.table)), *looks, *goals]
        if not any(by in known_as(bind) for bind in binds):
            names = list(dict.fromkeys(bind.called() for bind in binds))
            raise WendonicError(none_such(f'such device in mode "{self.mode}":', by, names))

    @cached_property
    def moving(self) -> Profile:
        """The profile reduced to what moves the body in this mode."""
        return only_moving(self.profile, self.mode, self.held)

    @cached_property
    def looking(self) -> Profile:
        """The profile reduced to this mode's look and presses; nothing moves the body."""
        return without_moving(self.profile, self.mode)

    @property
    def moves_body(self) -> bool:
        """Whether the mode has a gait that moves a body."""
        return self.table.gait != "none" or bool(self.table.press_gaits)

    def need_gait(self) -> None:
        """Raise `NotHere` if no gait moves the body: on squares, and without a gait."""
        if self.on_squares:
            raise NotHere("on squares there are steps and no speeds")
        if not self.moves_body:
            raise NotHere('gait "none": the game moves the body')

    def _ready(self, walker: Walker | None, words: str) -> Walker:
        if walker is None:
            by = f" by {self.by}" if self.by else ""
            raise NotHere(f"{words}{by}")
        return Walker(walker.entries, walker.window, walker.across, self.lead)

    @once
    def any_walker(self) -> Walker:
        """The sources that move the body, on squares as well."""
        walker = walker_of(self.table, self.profile.window, self.by)
        if walker is not None and self.by and not any(self.by in known_as(bind) for bind in walker.entries.values()):
            walker = None
        return self._ready(walker, "no control that can be held moves the body")

    @once
    def walker(self) -> Walker:
        """The sources that walk, drive or fly the body, if it has a gait."""
        self.need_gait()
        return self.any_walker

    @once
    def keys(self) -> Walker:
        """Keys, a d-pad or touch zones with all four directions."""
        self.need_gait()
        if self.from_side:
            raise NotHere("seen from the side there are two directions")
        return self._ready(keys_of(self.table, self.profile.window, self.by), "no keys with all four directions")

    @once
    def any_stick(self) -> Walker:
        """A stick of `move`, on squares as well."""
        return self._ready(stick_of(self.table, self.profile.window, self.by), "no stick moves the body")

    @once
    def stick(self) -> Walker:
        """The stick that moves the body, if it has a gait."""
        self.need_gait()
        return self.any_stick

    @property
    def stick_bind(self) -> StickBind:
        """The entry of the stick that moves the body."""
        bind: StickBind = self.any_stick.main
        return bind

    @once
    def step_response(self) -> StepResponse:
        """The response to full input."""
        return step_response(self.moving, self.walker, self.engine)

    @once
    def key_speeds(self) -> list[float]:
        """Steady speed (m/s) in eight directions by keys, clockwise from forward."""
        if self.table.steer.frame == "drive":
            raise NotHere("a vehicle goes where it points")
        return speeds_all_round(self.moving, self.keys, self.engine)

    @once
    def tilt_entry(self) -> tuple[str, Any]:
        """The entry whose tilt is examined, and its channel: a stick of `move` rather than axes, a thumb on the touch
        screen or the pointer; otherwise the entry that drives.
        """
        tilts = [
            (channel, bind)
            for channel, bind in entries_of(self.table)
            if isinstance(bind, Tilted) and bind.called() != "hands" and (not self.by or self.by in known_as(bind))
        ]
        if not tilts:
            by = f" by {self.by}" if self.by else ""
            raise NotHere(f"nothing tilts{by}")
        # The first entry of a kind counts: sorting is stable.
        return min(tilts, key=lambda pair: (pair[0] != "move", not isinstance(pair[1], StickBind)))

    @once
    def stick_response(self) -> StickResponse:
        """The request at each tilt, after all rules of the channel."""
        channel, bind = self.tilt_entry
        return StickResponse(bind, self.table.move if channel == "move" else None, self.from_side, self.move_scale)

    @cached_property
    def move_scale(self) -> float:
        """The factor by which the held press scales requests."""
        amounts = self.table.move.press_amounts if self.table.move else {}
        return amounts.get(self.held, 1.0) if self.held else 1.0

    @once
    def look_stick(self) -> LookStickBind:
        """The `look` stick that turns at a rate, see `look_entry`."""
        bind = self.look_entry(LookStickBind)
        if bind is None:
            raise NotHere("no stick turns the view at a rate")
        return bind

    def look_entry(self, kind: type[AnyLook]) -> AnyLook | None:
        """Return the first entry of a kind that turns the view sideways without snapping, otherwise the first that
        turns it up and down; None if there is none.
        """
        binds = self.table.look.bind if self.table.look else ()
        found = [bind for bind in binds if isinstance(bind, kind) and not bind.snaps]
        wanted = [bind for bind in found if not self.by or self.by in known_as(bind)]
        return min(wanted, key=lambda bind: not bind.sideways, default=None)

    @cached_property
    def zoom_scale(self) -> float:
        """The factor by which the held press scales turns of the view."""
        zoom = self.table.look.zoom if self.table.look else None
        return zoom.scale if zoom and zoom.press == self.held else 1.0

    @once
    def jump(self) -> JumpPress:
        """The press that jumps or waits for the ground, and how to press it."""
        return jump_press(self.moving, self.mode, self.lead)

    @once
    def flight(self) -> Flight:
        """A jump whose press is held, or as short as its style requires."""
        return self.jump.flight(self.engine)

    def helm(self, profile: Profile | None = None) -> Helm:
        """Return a helm in this mode, with the press held."""
        helm = Helm(profile or self.moving)
        for changes, wait_s in self.lead:
            for control, value in changes:
                helm.apply(Event(0.0, control, value))
            helm.tick(1e-3)
            for _ in range(round(wait_s / 0.01)):
                helm.tick(0.01)
        return helm
