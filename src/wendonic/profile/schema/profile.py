"""A profile: every tuned number."""

import copy
from collections.abc import Iterable, Mapping
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import BeforeValidator, Field, ModelWrapValidatorHandler, PrivateAttr, ValidationError, model_validator

from wendonic.devices.joystick import JoystickMapping
from wendonic.errors import ProfileError, WendonicError, none_such
from wendonic.profile.edit_content import changed_content
from wendonic.profile.field_path import SEPARATES, path_parts
from wendonic.profile.inherited import with_inherited
from wendonic.profile.mode_gaits import gait_faults, idle_gait_faults
from wendonic.profile.plain_values import is_plain, plain_value
from wendonic.profile.references import unknown_references
from wendonic.profile.schema.budget import Budget
from wendonic.profile.schema.gait import USUAL_GAITS, Gait, begun_with_usual
from wendonic.profile.schema.joystick import JoystickTable
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.seat import Seats, seat_faults, seat_sentences
from wendonic.profile.schema.steer.grid import GridSteer
from wendonic.profile.schema.table import Table, entry, own_faults
from wendonic.profile.schema.window import Window
from wendonic.profile.schema.world import World
from wendonic.profile.units import in_metres


class Profile(Table):
    """One profile: every tuned number. `load_profile` reads it; a helm starts in its first mode.

    `check` reports the quantities of the first mode's feel sheet that exceed `budget`.

    >>> from wendonic.demo import demo_profile
    >>> profile = demo_profile("harvest")
    >>> profile.first_mode, list(profile.gaits_of("foot")), profile.press_names
    ('foot', ['walk', 'run', 'stroll'], ('jump', 'sprint', 'creep'))
    """

    refers_by_name: ClassVar[bool] = True

    format: Literal["wendonic-profile"] = entry("Kind of file.", example="wendonic-profile")
    version: Literal[1] = entry("Version of the file format.", example=1, unit="version")
    title: str = entry("Name of the profile, for people to read.", "", example="Beekeeper on the terraces")
    max_dt_s: Annotated[float, Field(gt=0.0, le=10.0)] = entry(
        "Longest tick: a longer one (a hitch) is cut into equal parts, so that no input is lost.", 0.1
    )
    world: World = entry("The game's own axes and unit of length.", World(right="+x", forward="+y", up="+z"))
    window: Window = entry("The window that touches and the pointer are measured in.", Window())
    seat: Seats = entry(
        "Players who share a machine, by name: which pad and which keys each has.",
        {},
        example={"one": {"keys": ["KeyW"]}, "two": {"keys": ["ArrowUp"]}},
    )
    joystick: dict[str, JoystickTable] = entry(
        "Joysticks that the system has no mapping for, by name: which element is which control of a pad.",
        {},
        example={"barrow": {"name": "Barrow stick", "controls": {"left_stick": ["a0", "a1"], "south": "b2"}}},
    )
    mode: Annotated[dict[str, Mode], Field(min_length=1)] = entry(
        "Modes by name. A helm starts in the first one.",
        example={"foot": {"move": {"bind": [{"stick": "pad.left_stick"}]}}},
    )
    gait: Annotated[dict[str, Gait], BeforeValidator(begun_with_usual)] = entry(
        "Gaits by name. walk, stroll, run, cart and scout exist without being written.",
        {},
        example={"walk": {"top_speed_m_s": 3.2}},
    )
    budget: Budget = entry(
        "Limits for quantities of the feel sheet. check reports those that the first mode exceeds.",
        {},
        example={"reach90_s": {"max": 0.2}},
    )

    _written: dict[str, Any] = PrivateAttr(default_factory=dict)

    @model_validator(mode="wrap")
    @classmethod
    def _with_inherited(cls, content: Any, handler: ModelWrapValidatorHandler[Self]) -> Self:
        profile = handler(with_inherited(in_metres(content)))
        if isinstance(content, dict) and is_plain(content):
            profile._written = copy.deepcopy(content)
        return profile

    def model_copy(self, *, update: Mapping[str, Any] | None = None, deep: bool = False) -> Self:
        """Return a copy, with some fields replaced; as in pydantic, but without what the file said."""
        copied = super().model_copy(update=update, deep=deep)
        if update:
            copied._written = {}
        return copied

    def __eq__(self, other: object) -> bool:
        """Return whether two profiles are equal, however their files spell them."""
        if not isinstance(other, Profile):
            return NotImplemented
        return all(getattr(self, name) == getattr(other, name) for name in Profile.model_fields)

    __hash__ = None  # type: ignore[assignment]

    def __repr__(self) -> str:
        """Return title, modes and gaits; `print` shows all of it, from `sentences`."""
        gaits = f"gaits {', '.join(self.gait)}" if self.gait else "the usual gaits"
        return f'<Profile "{self.title}": modes {", ".join(self.mode)}; {gaits}>'

    def __str__(self) -> str:
        """Describe it as `wendonic info` does."""
        return "\n".join(self.sentences())

    @property
    def written(self) -> dict[str, Any]:
        """Its content as written: without what its file leaves out, and in the game's own unit if the file uses it.
        Empty for a profile made from tables, or copied with others.
        """
        return copy.deepcopy(self._written)

    @model_validator(mode="after")
    def _names_exist(self) -> Self:
        wrong = unknown_references(self.model_dump())
        wrong += seat_faults(self.seat)
        groups: dict[str, Iterable[str]] = {"mode": self.mode, "gait": self.gait, "seat": self.seat}
        groups |= {"joystick": self.joystick, "window.zone": self.window.zone}
        groups |= {f"mode.{name}.press": mode.press for name, mode in self.mode.items()}
        wrong += [
            (group, f"found the name {name!r}; allowed: printable characters except {' '.join(SEPARATES)}")
            for group, names in groups.items()
            for name in names
            if not name.isprintable() or not name or set(name) & set(SEPARATES)
        ]
        if self.window.plan and (words := self.window.plan.fault(self.world)):
            wrong.append(("window.plan", words))
        for name, mode in self.mode.items():
            if self.world.forward is None and not mode.steer.seen_from_side:
                words = 'the world has no forward; allowed: frame "map" or "goto" with side_view = true'
                wrong.append((f"mode.{name}.steer", words))
            if mode.goal is not None and self.window.plan is None:
                words = "points into the window, but [window.plan] does not say which part of the plan it shows"
                wrong.append((f"mode.{name}.goal.bind.0", words))
            wrong += gait_faults(name, mode, self.gaits_of(name))
        wrong += idle_gait_faults(self.mode, self.gait)
        if wrong:
            raise own_faults(wrong)
        for mode in self.mode.values():
            if isinstance(mode.steer, GridSteer):
                mode.steer.lay_out(self.world.axes)
        return self

    @property
    def first_mode(self) -> str:
        """Name of the mode in which a helm starts."""
        return next(iter(self.mode))

    @property
    def press_names(self) -> tuple[str, ...]:
        """Names of the presses of all modes, in the order of the file."""
        return tuple(dict.fromkeys(name for mode in self.mode.values() for name in mode.press))

    @property
    def joysticks(self) -> tuple[JoystickMapping, ...]:
        """The mappings of joysticks, for an adapter."""
        return tuple(table.mapping() for table in self.joystick.values())

    def mode_name(self, name: str | None) -> str:
        """Return `name` if there is such a mode, or the first mode for None; raises `WendonicError` otherwise.

        >>> from wendonic.demo import demo_profile
        >>> demo_profile().mode_name(None)
        'foot'
        """
        if name is None:
            return self.first_mode
        if name not in self.mode:
            raise WendonicError(none_such("mode", name, self.mode))
        return name

    def gait_of(self, mode_name: str) -> Gait:
        """Return the gait of a mode; a usual one, such as `walk`, need not be in the file.

        >>> from wendonic.demo import demo_profile
        >>> demo_profile().gait_of("foot").top_speed_m_s
        3.2
        """
        return self.gaits_of(mode_name)[self.mode[mode_name].gait]

    def gaits_of(self, mode_name: str) -> dict[str, Gait]:
        """Return the gaits of a mode by name: its own first, then those of `press_gaits`, in order."""
        mode = self.mode[mode_name]
        names = dict.fromkeys([mode.gait, *mode.press_gaits.values()])
        return {name: self.gait.get(name) or USUAL_GAITS.get(name) or Gait() for name in names}

    @property
    def every_gait(self) -> dict[str, Gait]:
        """The gaits of the file, and predefined ones that a mode uses, by name."""
        used = {name: gait for mode in self.mode for name, gait in self.gaits_of(mode).items()}
        return {**self.gait, **used}

    def with_every_gait(self) -> "Profile":
        """Return the profile as if its file contained every gait that a mode uses.

        >>> from wendonic.demo import demo_profile
        >>> list(demo_profile("tablet").with_every_gait().gait)
        ['walk']
        """
        return self.model_copy(update={"gait": self.every_gait})

    def changed(self, changes: Mapping[str, Any]) -> "Profile":
        """Return the profile with the values at some field paths changed, checked as if it had been loaded so. A
        value of None takes a field out, so that its default counts again. Paths are those of the error messages.

        Raises `ProfileError` with all faults at once, and `WendonicError` for a path that does not exist. A path into
        a gait that neither was there nor is used afterwards is one; `{"gait.sneak": {…}}` adds a gait all the same.

        >>> from wendonic.demo import demo_profile
        >>> profile = demo_profile().changed({"mode.foot.look.bind[0].cm_per_turn": 28})
        >>> profile.mode["foot"].look.bind[0].cm_per_turn
        28.0
        """
        made = self.from_content(self.file_content(), changes)
        known = dict.fromkeys((*self.gait, *USUAL_GAITS))
        for path in changes:
            table, *within = path_parts(path)
            is_new = table == "gait" and len(within) > 1 and within[0] not in known
            if is_new and not any(within[0] in made.gaits_of(mode) for mode in made.mode):
                raise WendonicError(f"{path}: {none_such('gait', within[0], known)}")
        return made

    def file_content(self) -> dict[str, Any]:
        """Return it as the content of a file, without defaults and without derived values.

        >>> from wendonic.demo import demo_profile
        >>> demo_profile().file_content()["gait"]["walk"]
        {'top_speed_m_s': 3.2, 'accel_m_s2': 22, 'brake_m_s2': 30}
        """
        if self._written:
            return plain_value(self._written)  # type: ignore[no-any-return]
        content: dict[str, Any] = self.model_dump(exclude_unset=True)
        for gait in content.get("gait", {}).values():
            if "drag_per_s" in gait:
                # These are derived from thrust and drag.
                for name in ("top_speed_m_s", "accel_m_s2", "brake_m_s2"):
                    gait.pop(name, None)
        return plain_value(content)  # type: ignore[no-any-return]

    @classmethod
    def from_content(cls, content: Mapping[str, Any], changes: Mapping[str, Any] | None = None) -> Self:
        """Return the profile that a file of this content would hold, with the values at some field paths changed as
        `changed` does it: quicker than by its text. Raises as `changed` does.

        >>> stick = {"move": {"bind": [{"stick": "pad.left_stick"}]}}
        >>> walks = {"format": "wendonic-profile", "version": 1, "mode": {"foot": stick}}
        >>> Profile.from_content(walks, {"gait.walk.accel_m_s2": 9.0}).gait["walk"].accel_m_s2
        9.0
        >>> Profile.from_content({**walks, "gait": {"walk": {"accel_m_s2": -9.0}}})
        Traceback (most recent call last):
        wendonic.errors.ProfileError: <content>: gait.walk.accel_m_s2: found -9.0; allowed: above 0, up to 100000
        """
        changed = changed_content(content, changes or {}, cls.model_validate)
        try:
            return cls.model_validate(changed)
        except ValidationError as fault:
            from wendonic.profile.faults import table_faults

            path = "<changed>" if changes else "<content>"
            raise ProfileError(path, table_faults(cls, fault, changed, "")) from None

    def sentences(self) -> list[str]:
        """Describe it, line by line: the axes, then every mode with its steering, sources and gait.

        >>> from wendonic.demo import demo_profile
        >>> print(*demo_profile().sentences()[:2], sep="\\n")
        Profile "Beekeeper on the terraces"
          axes: right-handed, y up; forward is -z, right is +x
        """
        length = self.world.length
        lines = [
            f'Profile "{self.title}"' if self.title else "Profile without a title",
            f"  axes: {self.world.sentence()}",
            *(f"  {line}" for line in self.window.sentences(length)),
        ]
        lines += [f"  {table.sentence()}" for table in self.joystick.values()]
        lines += [f"  seat {name}: {words}" for name, words in seat_sentences(self.seat)]
        for name, mode in self.mode.items():
            lines.append(f"  mode {name}{' (starts here)' if name == self.first_mode else ''}")
            lines += [f"    {line}" for line in mode.sentences(self.gaits_of(name), length)]
        return lines


def known_profile(given: object) -> Profile:
    """Return the argument if it is a profile; raises `WendonicError` for anything else, such as a path.

    >>> known_profile("beekeeper.toml")
    Traceback (most recent call last):
    wendonic.errors.WendonicError: found 'beekeeper.toml'; allowed: a Profile, as load_profile returns it
    """
    if not isinstance(given, Profile):
        raise WendonicError(f"found {given!r}; allowed: a Profile, as load_profile returns it")
    return given


def named_profiles(given: object) -> Mapping[str, Any]:
    """Return the argument if it is a mapping of profiles by name; raises `WendonicError` for a list of them.

    >>> named_profiles([])
    Traceback (most recent call last):
    wendonic.errors.WendonicError: found a list; allowed: profiles by name, such as {"before": one, "after": other}
    """
    if not isinstance(given, Mapping):
        kind = "one profile" if isinstance(given, Profile) else f"a {type(given).__name__}"
        raise WendonicError(f'found {kind}; allowed: profiles by name, such as {{"before": one, "after": other}}')
    return given
