"""One mode of a profile on the bench: what its probes are made of, and what several quantities are read from."""

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
    """What the quantities of one mode share; everything is made once, on first use. What a mode
    does not have raises `NotHere`, what cannot be measured `Unmeasured`.

    A mode is measured by the device `by` (see `walker_of`), or by what suits it best, while the press `held` stays
    held. One that is seen from the side (`from_side`) is measured to the right.
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
        """Take one mode; the engine is that of `wendonic.shape`. Raises `WendonicError` for a device that moves or
        turns nothing in this mode, and a press that it does not have or that does not stay held.
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
        """The profile with what moves the body in this mode, and nothing else."""
        return only_moving(self.profile, self.mode, self.held)

    @cached_property
    def looking(self) -> Profile:
        """The profile with look and presses of this mode, and nothing that moves the body."""
        return without_moving(self.profile, self.mode)

    @property
    def moves_body(self) -> bool:
        """Whether the mode has a gait, by which something moves."""
        return self.table.gait != "none" or bool(self.table.press_gaits)

    def need_gait(self) -> None:
        """Raise `NotHere` where nothing moves by itself: on squares, and without a gait."""
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
        """What the mode is moved by, on squares too."""
        walker = walker_of(self.table, self.profile.window, self.by)
        if walker is not None and self.by and not any(self.by in known_as(bind) for bind in walker.entries.values()):
            walker = None
        return self._ready(walker, "no control that can be held moves the body")

    @once
    def walker(self) -> Walker:
        """What the body is walked, driven or flown by, where it has a gait."""
        self.need_gait()
        return self.any_walker

    @once
    def keys(self) -> Walker:
        """Keys, a d-pad or zones of the glass with all four directions."""
        self.need_gait()
        if self.from_side:
            raise NotHere("seen from the side there are two directions")
        return self._ready(keys_of(self.table, self.profile.window, self.by), "no keys with all four directions")

    @once
    def any_stick(self) -> Walker:
        """A stick of `move`, on squares too."""
        return self._ready(stick_of(self.table, self.profile.window, self.by), "no stick moves the body")

    @once
    def stick(self) -> Walker:
        """A stick that walks, where the body has a gait."""
        self.need_gait()
        return self.any_stick

    @property
    def stick_bind(self) -> StickBind:
        """The entry of the stick that walks."""
        bind: StickBind = self.any_stick.main
        return bind

    @once
    def step_response(self) -> StepResponse:
        """The answer to everything pressed at once."""
        return step_response(self.moving, self.walker, self.engine)

    @once
    def key_speeds(self) -> list[float]:
        """Steady speed (m/s) in eight directions by keys, clockwise from forward."""
        if self.table.steer.frame == "drive":
            raise NotHere("a vehicle goes where it points")
        return speeds_all_round(self.moving, self.keys, self.engine)

    @once
    def tilt_entry(self) -> tuple[str, Any]:
        """The entry of tilt that is looked at, and its channel: a stick of `move` before axes, a thumb on the glass,
        or the pointer; else what drives.
        """
        tilts = [
            (channel, bind)
            for channel, bind in entries_of(self.table)
            if isinstance(bind, Tilted) and bind.called() != "hands" and (not self.by or self.by in known_as(bind))
        ]
        if not tilts:
            by = f" by {self.by}" if self.by else ""
            raise NotHere(f"nothing tilts{by}")
        # The first of a kind counts: sorting keeps the order of the file.
        return min(tilts, key=lambda pair: (pair[0] != "move", not isinstance(pair[1], StickBind)))

    @once
    def stick_response(self) -> StickResponse:
        """What the mode asks for at each tilt, after all rules of its channel."""
        channel, bind = self.tilt_entry
        return StickResponse(bind, self.table.move if channel == "move" else None, self.from_side, self.move_scale)

    @cached_property
    def move_scale(self) -> float:
        """What the held press multiplies requests by."""
        amounts = self.table.move.press_amounts if self.table.move else {}
        return amounts.get(self.held, 1.0) if self.held else 1.0

    @once
    def look_stick(self) -> LookStickBind:
        """The stick of `look` that turns by a rate, see `look_entry`."""
        bind = self.look_entry(LookStickBind)
        if bind is None:
            raise NotHere("no stick turns the view at a rate")
        return bind

    def look_entry(self, kind: type[AnyLook]) -> AnyLook | None:
        """Return the first entry of a kind that turns the view sideways and not by snaps, or else the first that
        turns it up and down; None without.
        """
        binds = self.table.look.bind if self.table.look else ()
        found = [bind for bind in binds if isinstance(bind, kind) and not bind.snaps]
        wanted = [bind for bind in found if not self.by or self.by in known_as(bind)]
        return min(wanted, key=lambda bind: not bind.sideways, default=None)

    @cached_property
    def zoom_scale(self) -> float:
        """What the held press multiplies turns of the view by."""
        zoom = self.table.look.zoom if self.table.look else None
        return zoom.scale if zoom and zoom.press == self.held else 1.0

    @once
    def jump(self) -> JumpPress:
        """The press that jumps or waits for the ground, ready to be pressed."""
        return jump_press(self.moving, self.mode, self.lead)

    @once
    def flight(self) -> Flight:
        """A jump whose press stays held, or as short as its style wants it."""
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
