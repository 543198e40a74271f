"""The `bind` entries of `look`."""

from collections.abc import Iterator, Mapping
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from wendonic.arithmetic import radians
from wendonic.devices.sources.base import Source
from wendonic.devices.sources.gyro import GyroSource
from wendonic.devices.sources.keys import KeysSource
from wendonic.devices.sources.mouse import MouseSource
from wendonic.devices.sources.stick import StickSource
from wendonic.devices.sources.touch import TouchDragSource
from wendonic.kernels.look.displacement import PLAIN_DISPLACEMENT, DisplacementTuning
from wendonic.kernels.look.gyro import GyroTuning
from wendonic.kernels.look.look import (
    LOOK_DISPLACEMENT,
    LOOK_KEYS,
    LOOK_RATE,
    LOOK_STICK,
    PLAIN_LOOK_SOURCE,
    LookSourceTuning,
)
from wendonic.kernels.look.stick import STICK_LOOK, StickLookTuning
from wendonic.kernels.source.stick import BOTH_AXES, X_ALONE, Y_ALONE, StickTuning
from wendonic.look_units import CM_PER_INCH, deg_per_count_from_cm
from wendonic.profile.schema.bind import Bind, Degrees, NameLists, by_key, zone_control
from wendonic.profile.schema.dead_zone import DeadZone
from wendonic.profile.schema.keyed import OPPOSITES
from wendonic.profile.schema.names import GyroName, KeyList, PressName, Seconds, StickName, ZoneName
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.seat import Seat
from wendonic.profile.schema.table import Table, entry, own_fault, own_faults
from wendonic.profile.schema.tilted import Centred
from wendonic.profile.schema.window import Window
from wendonic.profile.schema.words import Word, Words

SlowRate = Annotated[float, Field(ge=0.0, le=360.0)]

TREMBLING_DEG_S = 4.0
"""Turn rate of a gyro from which the pad counts as the device in use."""


TURNS = Words(
    Word("both", "", BOTH_AXES, meaning="Turns sideways and up and down."),
    Word("yaw", "sideways only", X_ALONE, meaning="Turns sideways only; of a stick, only that axis counts."),
    Word("pitch", "up and down only", Y_ALONE, meaning="Turns up and down only; of a stick, only that axis counts."),
)


class LookBind(Bind):
    """The common part of all sources of `look`."""

    of_one_axis: ClassVar[Mapping[str, tuple[str, ...]]] = {
        "yaw": ("invert_pitch", "pitch_ratio", "pitch_deg_s"),
        "pitch": ("invert_yaw", "yaw_deg_s"),
    }
    """The fields without effect for a source that turns only one axis."""

    turns: Annotated[str, TURNS] = entry("Whether it turns the view sideways, up and down, or both.", "both")
    invert_yaw: bool = entry("Whether right turns the view left.", False)
    invert_pitch: bool = entry("Whether up turns the view down.", False)

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        for name in self.of_one_axis.get(self.turns, ()):
            if name in self.model_fields_set:
                yield name, f'does nothing with turns = "{self.turns}"'

    @model_validator(mode="after")
    def _snaps_are_sideways(self) -> Self:
        if self.snaps and self.turns == "pitch":
            words = 'found "pitch" with snap_deg, which turns sideways; allowed: one of the two'
            raise own_faults([("turns", words)])
        return self

    @property
    def snaps(self) -> bool:
        """Whether it turns by an angle at once instead of at a rate."""
        return False

    @property
    def sideways(self) -> bool:
        """Whether it turns the view sideways, perhaps among other directions."""
        return self.turns != "pitch"

    def what(self) -> str:
        """Return its controls and numbers in words."""
        raise NotImplementedError

    def rates_sentence(self, yaw_deg_s: float, pitch_deg_s: float) -> str:
        """Describe the turn rates of its axes."""
        rates = {"pitch": f"{yaw_deg_s:g} deg/s yaw", "yaw": f"{pitch_deg_s:g} deg/s pitch"}
        return " and ".join(words for other, words in rates.items() if self.turns != other)

    def sentence(self) -> str:
        """Describe it: its controls, then its numbers."""
        turned = [axis for axis, inverted in (("yaw", self.invert_yaw), ("pitch", self.invert_pitch)) if inverted]
        words = [self.what(), TURNS.sentence(self.turns), f"{' and '.join(turned)} inverted" if turned else ""]
        return "; ".join(filter(None, words))

    def source(self, window: Window, seat: Seat) -> Source:
        """Return the source that a sampler reads."""
        raise NotImplementedError

    def kind_tuning(self, rows: NumberRows, press_names: tuple[str, ...]) -> LookSourceTuning:
        """Return the kernels' numbers for it, not inverted."""
        raise NotImplementedError

    def tuning(self, rows: NumberRows, press_names: tuple[str, ...]) -> LookSourceTuning:
        """Return the kernels' numbers for it; an inverted axis has a negative one."""
        source = self.kind_tuning(rows, press_names)
        yaw_sign = 0.0 if self.turns == "pitch" else -1.0 if self.invert_yaw else 1.0
        pitch_sign = 0.0 if self.turns == "yaw" else -1.0 if self.invert_pitch else 1.0
        return source._replace(yaw=source.yaw * yaw_sign, pitch=source.pitch * pitch_sign)


def _smoothed(half_life_s: float) -> str:
    return f", half-life {half_life_s:g} s" if half_life_s else ""


def _displacement(half_life_s: float) -> DisplacementTuning:
    return PLAIN_DISPLACEMENT._replace(smooths=int(half_life_s > 0.0), half_life_s=half_life_s)


class HandGain(Table):
    """A gain that rises evenly with the speed of the hand, from `slow` at `from_cm_s` to `fast` at `to_cm_s`."""

    from_cm_s: Annotated[float, Field(ge=0.0, le=1000.0)] = entry(
        "Speed of the hand up to which the slow gain counts.", 5.0
    )
    slow: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Gain of a slow hand: lower it to aim more finely, raise it if aiming feels sticky.", 1.0, unit="times"
    )
    to_cm_s: Annotated[float, Field(gt=0.0, le=1000.0)] = entry(
        "Speed of the hand from which the fast gain counts.", 40.0
    )
    fast: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Gain of a fast hand: raise it to turn round in less space, lower it if flicks overshoot.", 1.5, unit="times"
    )

    @model_validator(mode="after")
    def _rising(self) -> Self:
        if self.from_cm_s >= self.to_cm_s:
            raise own_fault(f"from_cm_s {self.from_cm_s:g} is not below to_cm_s {self.to_cm_s:g}")
        if self.slow > self.fast:
            raise own_fault(f"slow {self.slow:g} is above fast {self.fast:g}; a faster hand must not turn less")
        return self


class MouseBind(LookBind):
    """The mouse as a source of `look`: by `deg_per_count`, or by `cm_per_turn` and `dpi`.

    `hand_gain` needs `dpi` too, to know the speed of the hand. `half_life_s` delays the turn and loses nothing of
    it.
    """

    mouse: Literal["mouse.move"] = entry("Motion of the mouse, in counts.", example="mouse.move")
    deg_per_count: Annotated[float, Field(gt=0.0, le=360.0)] | None = entry(
        "Turn for each count, in place of cm_per_turn: raise it to turn further, lower it to aim more finely.",
        None,
        example=0.022,
        unit="deg",
        otherwise="from cm_per_turn and dpi",
    )
    cm_per_turn: Annotated[float, Field(gt=0.0, le=10_000.0)] = entry(
        "Mouse travel for a full turn: raise it to aim more finely, lower it to turn faster.", 34.0, unit="cm"
    )
    dpi: Annotated[float, Field(gt=0.0, le=1_000_000.0)] = entry(
        "Counts per inch of the mouse: what its maker says, or what calibrate measures.", 800.0, unit="counts/inch"
    )
    pitch_ratio: Annotated[float, Field(ge=0.0, le=10.0)] = entry(
        "Pitch sensitivity over yaw sensitivity: lower it for calmer vertical motion, raise it for quicker.", 1.0
    )
    hand_gain: HandGain | None = entry(
        "Gain that depends on the speed of the hand (mouse acceleration).",
        None,
        example={"fast": 1.5},
        otherwise="none",
    )
    half_life_s: Seconds = entry(
        "Half-life of the smoothing of the turn: raise it for steadier aim, lower it for less delay; 0 for none.", 0.0
    )

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        if self.deg_per_count is not None:
            says_dpi = "dpi" in self.model_fields_set
            if "cm_per_turn" in self.model_fields_set or (says_dpi and self.hand_gain is None):
                words = "found deg_per_count together with cm_per_turn or dpi; allowed: one of them"
                raise own_fault(words)
            if self.hand_gain is not None and not says_dpi:
                raise own_faults(
                    [("hand_gain", "needs dpi together with deg_per_count, to know the speed of the hand")]
                )
        return self

    def uses(self, name: str) -> bool:
        """Return whether a field has an effect: with an angle per count the mouse's travel has none, nor does its
        dpi, except for the hand's speed.
        """
        by_counts = {"cm_per_turn"} if self.hand_gain else {"cm_per_turn", "dpi"}
        return super().uses(name) and not (self.deg_per_count is not None and name in by_counts)

    @property
    def count_deg(self) -> float:
        """Degrees of one count; without any number 34 cm of an 800 dpi mouse are a full turn."""
        return deg_per_count_from_cm(self.cm_per_turn, self.dpi) if self.deg_per_count is None else self.deg_per_count

    def controls(self) -> list[str]:
        """Return its controls."""
        return [self.mouse]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return self.mouse

    def what(self) -> str:
        """Return its controls and numbers in words."""
        words = f"{self.count_deg:g} deg per count"
        if self.deg_per_count is None:
            words = f"{self.cm_per_turn:g} cm per turn at {self.dpi:g} dpi ({self.count_deg:.4g} deg per count)"
        words += f", pitch {self.pitch_ratio:g} of yaw" if self.pitch_ratio != 1.0 else ""
        if self.hand_gain:
            gain = self.hand_gain
            ends = f"from {gain.slow:g} at {gain.from_cm_s:g} cm/s to {gain.fast:g} at {gain.to_cm_s:g} cm/s"
            words += f", gain {ends} of hand speed"
        return f"mouse: {words}{_smoothed(self.half_life_s)}"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return MouseSource()

    def displacement_tuning(self) -> DisplacementTuning:
        """Return smoothing and gain as the kernels' numbers."""
        drag, gain = _displacement(self.half_life_s), self.hand_gain
        if gain is None:
            return drag
        return drag._replace(
            follows_hand=1,
            cm_per_count=CM_PER_INCH / self.dpi,
            slow_cm_s=gain.from_cm_s,
            slow_gain=gain.slow,
            fast_cm_s=gain.to_cm_s,
            fast_gain=gain.fast,
        )

    def kind_tuning(self, rows: NumberRows, press_names: tuple[str, ...]) -> LookSourceTuning:  # noqa: ARG002
        """Return the kernels' numbers for it, not inverted."""
        yaw = radians(self.count_deg)
        return PLAIN_LOOK_SOURCE._replace(
            kind=LOOK_DISPLACEMENT, yaw=yaw, pitch=yaw * self.pitch_ratio, displacement=self.displacement_tuning()
        )


class LookStickBind(LookBind, Centred):
    """A stick as a source of `look`, by turn rates at full tilt.

    Rates ease in over `ease_s`; after `hold_s` at the rim, `rim_boost` of them is added. With `snap_deg` the stick
    makes snap turns instead: one by that angle each time it is tilted to `snap_at`, the next after it was back at
    `rearm_at`.
    """

    stick: StickName = entry("Stick that turns the view.", example="pad.right_stick")
    dead_zone: DeadZone = entry(
        "How much of the tilt is ignored at rest and at the rim.", DeadZone(inner=0.12, outer=0.97)
    )
    yaw_deg_s: Degrees = entry(
        "Yaw rate at full tilt: raise it to look round faster, lower it to aim more finely.", 230.0
    )
    pitch_deg_s: Degrees = entry(
        "Pitch rate at full tilt: raise it to look up and down faster, lower it to aim more finely.", 140.0
    )
    ease_s: Seconds = entry(
        "Time in which the turn reaches its full rate: raise it for a softer start, lower it for "
        "less delay; 0 for none.",
        0.0,
    )
    rim_boost: Annotated[float, Field(ge=0.0, le=10.0)] = entry(
        "Share of the turn rate that is added after hold_s at the rim: raise it to turn round faster "
        "without losing fine aim, lower it if turns overshoot.",
        0.0,
        unit="share",
    )
    hold_s: Seconds = entry(
        "Time at the rim before rim_boost counts: raise it if the boost comes unasked, lower it to "
        "turn round sooner.",
        0.25,
    )
    snap_deg: Annotated[float, Field(gt=0.0, le=180.0)] | None = entry(
        "Angle turned at once by a tilt to the side (snap turn), for comfort in a headset.",
        None,
        example=30.0,
        otherwise="smooth turning",
    )
    snap_at: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "Tilt that makes a snap turn: raise it if turns happen by accident, lower it for shorter travel.",
        0.7,
        unit="tilt",
    )
    rearm_at: Annotated[float, Field(ge=0.0, lt=1.0)] = entry(
        "Tilt below which the next snap turn is ready: lower it if one tilt turns twice, raise it "
        "if a second tilt is missed.",
        0.35,
        unit="tilt",
    )

    @property
    def snaps(self) -> bool:
        """Whether it turns by an angle at once instead of at a rate."""
        return self.snap_deg is not None

    @property
    def snap_tilts(self) -> tuple[float, float]:
        """The tilts at which it snaps, and at which it may snap again."""
        says_rearm = "rearm_at" in self.model_fields_set
        return self.snap_at, self.rearm_at if says_rearm else min(self.rearm_at, self.snap_at)

    @model_validator(mode="after")
    def _one_way_to_turn(self) -> Self:
        snap_at, rearm_at = self.snap_tilts
        if rearm_at > snap_at:
            words = f"{rearm_at:g} is above the {snap_at:g} of snap_at; it would never make a second turn"
            raise own_faults([("rearm_at", words)])
        return self

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        smooth = ("yaw_deg_s", "pitch_deg_s", "ease_s", "rim_boost", "hold_s", "invert_pitch", "dead_zone", "curve")
        for name in smooth if self.snaps else ("snap_at", "rearm_at"):
            if name in self.model_fields_set:
                yield name, "does nothing with snap_deg" if self.snaps else "does nothing without snap_deg"
        if not self.snaps and "hold_s" in self.model_fields_set and self.rim_boost == 0.0:
            yield "hold_s", "does nothing without rim_boost"
        if not self.snaps and not self.comes_back and self.dead_zone.release is not None:
            words = 'does nothing unless the turn starts with a jump: form "cut", or a curve with a floor'
            yield "dead_zone.release", words

    @property
    def comes_back(self) -> bool:
        """Whether it turns noticeably just past the dead zone, and would flicker there without a release."""
        return self.dead_zone.form == "cut" or self.curve.floor > 0.0

    def controls(self) -> list[str]:
        """Return the controls that it names: one axis of the stick, if it turns only sideways or up and down."""
        if self.snaps or self.turns == "yaw":
            return [f"{self.stick}.x"]
        return [f"{self.stick}.y"] if self.turns == "pitch" else [f"{self.stick}.x", f"{self.stick}.y"]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return self.stick

    def what(self) -> str:
        """Return its controls and numbers in words."""
        if self.snap_deg is not None:
            snap_at, rearm_at = self.snap_tilts
            words = (
                f"snap turns of {self.snap_deg:g} deg at tilt {snap_at:g}, the next after it was back at {rearm_at:g}"
            )
            return f"{self.stick}: {words}{self.device_sentence()}"
        words = f"{self.rates_sentence(self.yaw_deg_s, self.pitch_deg_s)} at full tilt"
        words += f", eased in over {self.ease_s:g} s" if self.ease_s else ""
        words += f", plus {100.0 * self.rim_boost:.0f} % after {self.hold_s:g} s at the rim" if self.rim_boost else ""
        return f"{self.stick}: {words}; {self.shape_sentence()}"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return StickSource(seat.own(self.stick))

    def stick_tuning(self, rows: NumberRows) -> StickTuning:
        """Return the kernels' numbers for it; an axis that turns nothing does not count."""
        axes = X_ALONE if self.snaps else TURNS.number(self.turns)
        return super().stick_tuning(rows)._replace(axes=axes)

    def kind_tuning(self, rows: NumberRows, press_names: tuple[str, ...]) -> LookSourceTuning:  # noqa: ARG002
        """Return the kernels' numbers for it, not inverted."""
        snap_at, rearm_at = self.snap_tilts
        stick = StickLookTuning(
            self.stick_tuning(rows),
            int(self.ease_s > 0.0),
            int(self.rim_boost > 0.0),
            int(self.snaps),
            self.ease_s,
            self.rim_boost,
            self.hold_s,
            snap_at,
            rearm_at,
        )
        yaw = radians(self.yaw_deg_s if self.snap_deg is None else self.snap_deg)
        return PLAIN_LOOK_SOURCE._replace(kind=LOOK_STICK, yaw=yaw, pitch=radians(self.pitch_deg_s), stick=stick)


class LookKeys(NameLists):
    """Keys for each direction of looking."""

    right: KeyList = entry("Keys for turning right.", (), example=["ArrowRight"])
    left: KeyList = entry("Keys for turning left.", (), example=["ArrowLeft"])
    up: KeyList = entry("Keys for looking up.", (), example=["ArrowUp"])
    down: KeyList = entry("Keys for looking down.", (), example=["ArrowDown"])


class LookKeysBind(LookBind):
    """Keys as a source of `look`, by turn rates while they are held.

    Rates ease in over `ease_s`. With `snap_deg` a key for right or left makes a snap turn instead: one for each
    press, as a camera from above turns by quarters.
    """

    keys: LookKeys = entry("Keys for each direction.", example={"right": ["ArrowRight"], "left": ["ArrowLeft"]})
    opposites: Annotated[str, OPPOSITES] = entry(
        "What wins while two opposite keys are held (SOCD): neither, the later, or the earlier one.", "cancel"
    )
    yaw_deg_s: Degrees = entry(
        "Yaw rate of a held key: raise it to look round faster, lower it to aim more finely.", 120.0
    )
    pitch_deg_s: Degrees = entry(
        "Pitch rate of a held key: raise it to look up and down faster, lower it to aim more finely.", 80.0
    )
    ease_s: Seconds = entry(
        "Time in which the turn reaches its full rate: raise it to aim with short presses, lower it for "
        "less delay; 0 for none.",
        0.15,
    )
    snap_deg: Annotated[float, Field(gt=0.0, le=180.0)] | None = entry(
        "Angle turned at once by each press of a key for right or left (snap turn).",
        None,
        example=45.0,
        otherwise="smooth turning",
    )

    @property
    def snaps(self) -> bool:
        """Whether it turns by an angle at once instead of at a rate."""
        return self.snap_deg is not None

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        if self.snaps:
            for name in ("yaw_deg_s", "pitch_deg_s", "ease_s", "invert_pitch"):
                if name in self.model_fields_set:
                    yield name, "does nothing with snap_deg"
            for side in ("up", "down"):
                if getattr(self.keys, side):
                    yield f"keys.{side}", "does nothing with snap_deg, which turns right and left"
        else:
            for side in {"yaw": ("up", "down"), "pitch": ("right", "left")}.get(self.turns, ()):
                if getattr(self.keys, side):
                    yield f"keys.{side}", f'does nothing with turns = "{self.turns}"'

    def controls(self) -> list[str]:
        """Return its controls."""
        return [f"key.{code}" for codes in self.keys.lists().values() for code in codes]

    @property
    def sideways(self) -> bool:
        """Whether it turns the view sideways, perhaps among other directions."""
        return super().sideways and bool(self.keys.right or self.keys.left)

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "keys"

    def what(self) -> str:
        """Return its controls and numbers in words."""
        words = f"snap turns of {self.snap_deg:g} deg" if self.snap_deg is not None else ""
        if not words:
            words = f"{self.rates_sentence(self.yaw_deg_s, self.pitch_deg_s)} while held"
            words += f", eased in over {self.ease_s:g} s" if self.ease_s else ""
        return f"keys: {self.keys.sentence()}; {words}; {OPPOSITES.sentence(self.opposites)}"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        keys, own = self.keys, seat.all_own
        return KeysSource(own(keys.right), own(keys.left), own(keys.up), own(keys.down), self.opposites)

    def kind_tuning(self, rows: NumberRows, press_names: tuple[str, ...]) -> LookSourceTuning:  # noqa: ARG002
        """Return the kernels' numbers for it, not inverted."""
        held = STICK_LOOK._replace(
            eases=int(self.ease_s > 0.0), ease_s=self.ease_s, snaps=int(self.snaps), snap_at=0.5, rearm_at=0.25
        )
        return PLAIN_LOOK_SOURCE._replace(
            kind=LOOK_KEYS,
            opposites=OPPOSITES.number(self.opposites),
            yaw=radians(self.yaw_deg_s if self.snap_deg is None else self.snap_deg),
            pitch=radians(self.pitch_deg_s),
            stick=held,
        )


class TouchDragBind(LookBind):
    """A dragging finger that landed in the zone: degrees for the whole width of the window."""

    touch_drag: ZoneName = entry("Zone in which a dragging finger turns the view.", example="right half")
    deg_per_width: Degrees = entry(
        "Turn for a drag across the whole window: raise it to turn with less travel, lower it to aim more finely.",
        180.0,
        unit="deg",
    )
    half_life_s: Seconds = entry(
        "Half-life of the smoothing of the turn: raise it for steadier aim, lower it for less delay; 0 for none.", 0.0
    )

    def controls(self) -> list[str]:
        """Return its controls."""
        return [zone_control(self.touch_drag)]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "touch_drag"

    def what(self) -> str:
        """Return its controls and numbers in words."""
        words = f"{self.deg_per_width:g} deg per window width{_smoothed(self.half_life_s)}"
        return f'finger dragged from "{self.touch_drag}": {words}'

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return TouchDragSource(window.zone_of(self.touch_drag), window.aspect_ratio)

    def kind_tuning(self, rows: NumberRows, press_names: tuple[str, ...]) -> LookSourceTuning:  # noqa: ARG002
        """Return the kernels' numbers for it, not inverted."""
        turn = radians(self.deg_per_width)
        drag = _displacement(self.half_life_s)
        return PLAIN_LOOK_SOURCE._replace(kind=LOOK_DISPLACEMENT, yaw=turn, pitch=turn, displacement=drag)


class GyroBind(LookBind):
    """A pad's motion sensor: the view turns `turn_ratio` times as far as the pad.

    It turns about the pad's own axes or, `levelled`, about the world's up axis, which the accelerometer feels. Below
    `steady_below_deg_s` the turn fades out. A pad whose readings vary by less than `still_deg_s`, and whose
    accelerometer feels no hand, is lying still; then its bias is measured and subtracted (0 never measures). With
    `while_press` the pad turns the view only while that press is held; while `pause_press` is held, the pad can be
    brought back without turning the view.
    """

    gyro: GyroName = entry("Motion sensor that turns the view.", example="pad.gyro")
    turn_ratio: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Turn of the view over turn of the pad: raise it to aim with smaller motions, lower it to aim more finely.",
        1.0,
    )
    levelled: bool = entry(
        "Whether yaw turns about the world's up axis however the pad is held, or about the pad's own axis.", False
    )
    steady_below_deg_s: SlowRate = entry(
        "Rate below which the turn fades out: raise it if the hand trembles, lower it for finer aim.", 0.0
    )
    still_deg_s: SlowRate = entry(
        "Spread of the rates below which the pad counts as lying still, so that its bias is "
        "measured: raise it for a noisy sensor, lower it if slow aim is taken for bias; 0 never "
        "measures.",
        0.6,
    )
    while_press: PressName | None = entry(
        "Press that must be held for it to turn the view, such as the one that aims.",
        None,
        example="aim",
        otherwise="it always does",
    )
    pause_press: PressName | None = entry(
        "Press that stops turning while held, so that the player can bring the pad back.",
        None,
        example="steady",
        otherwise="none",
    )

    @model_validator(mode="after")
    def _two_presses(self) -> Self:
        if self.while_press is not None and self.while_press == self.pause_press:
            words = f'found "{self.pause_press}", which is while_press, too, so that it would never turn'
            raise own_faults([("pause_press", words)])
        return self

    def controls(self) -> list[str]:
        """Return its controls."""
        return [self.gyro]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return self.gyro

    def what(self) -> str:
        """Return its controls and numbers in words."""
        words = f"{self.gyro}: turns the view {self.turn_ratio:g} times as far as the pad"
        words += f" while {self.while_press} is held" if self.while_press else ""
        words += ", about the world's up" if self.levelled else ", about the pad's own axes"
        words += f", fading out below {self.steady_below_deg_s:g} deg/s" if self.steady_below_deg_s else ""
        words += (
            f", bias measured while it lies still within {self.still_deg_s:g} deg/s"
            if self.still_deg_s
            else ", bias not measured"
        )
        return words + (f", paused while {self.pause_press} is held" if self.pause_press else "")

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return GyroSource(seat.own(self.gyro))

    def kind_tuning(self, rows: NumberRows, press_names: tuple[str, ...]) -> LookSourceTuning:  # noqa: ARG002
        """Return the kernels' numbers for it, not inverted."""
        gyro = GyroTuning(
            int(self.levelled),
            int(self.steady_below_deg_s > 0.0),
            int(self.still_deg_s > 0.0),
            -1 if self.while_press is None else press_names.index(self.while_press),
            -1 if self.pause_press is None else press_names.index(self.pause_press),
            radians(self.steady_below_deg_s),
            radians(self.still_deg_s),
        )
        return PLAIN_LOOK_SOURCE._replace(
            kind=LOOK_RATE,
            yaw=self.turn_ratio,
            pitch=self.turn_ratio,
            least=radians(TREMBLING_DEG_S) * self.turn_ratio,
            gyro=gyro,
        )


AnyLookBind = Annotated[
    Annotated[MouseBind, Tag("mouse")]
    | Annotated[LookStickBind, Tag("stick")]
    | Annotated[LookKeysBind, Tag("keys")]
    | Annotated[TouchDragBind, Tag("touch_drag")]
    | Annotated[GyroBind, Tag("gyro")],
    Discriminator(by_key("mouse", "stick", "keys", "touch_drag", "gyro")),
]
