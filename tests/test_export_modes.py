"""Exported modes played by hand, as their page says, beside a helm: no number is taken over from the helm."""

import functools
import math
import random
import re

import pytest

from few_of_many import few_of
from wendonic import Event, Helm
from wendonic.demo import demo_profile, profile_names
from wendonic.export.export import packaged
from wendonic.export.guide_crossings import changes_of_mode
from wendonic.export.targets import TARGETS


class Page:
    """What the fields of a mode's input are, read from what is said of them."""

    def __init__(self, made):
        fields = {one.name: made.inputs.fields[one.name] for one in made.program.inputs}
        self.keys, self.presses, self.sticks = {}, {}, {}
        for name, field in fields.items():
            if found := re.match(r"(key\.\w+|mouse\.\w+|pad\.\w+):", field.about):
                self.keys[name] = found[1], field.kind == "order"
            elif found := re.match(r"(pad\.\w+_stick)(?:\.[xy])?, -1 to 1, ", field.about):
                self.sticks[name] = found[1], int("towards" in field.about)
            elif name.endswith("_down") and f"{name[:-5]}_edges" in fields:
                found = re.match(r"1 while (key\.\w+|pad\.[a-z_]+|mouse\.\w+)(?: or .*)? is held", field.about)
                if found:
                    self.presses[name[:-5]] = found[1]
        self.mouse = "mouse_dx" in fields


@functools.cache
def exported(name):
    package = packaged(demo_profile(name), "played")
    space = {"__name__": "played"}
    exec(compile(TARGETS["python"].sources(package)["played.py"], "played.py", "exec"), space)
    return package, space


class Game:
    """A package in Python and a helm, given the same by one game."""

    def __init__(self, name, seed):
        self.package, self.space = exported(name)
        self.rng = random.Random(seed)
        self.helm = Helm(demo_profile(name))
        self.modes = {made.mode: made for made in self.package.modes}
        self.pages = {mode: Page(made) for mode, made in self.modes.items()}
        self.mode = self.package.modes[0].mode
        self.state, self.given, self.result = (self.new(self.mode, kind) for kind in ("State", "Input", "Result"))
        self.held, self.tilts, self.owed = {}, {}, set()

    def new(self, mode, kind):
        prefix = self.package.prefix(self.modes[mode])
        return self.space["".join(part.capitalize() for part in prefix.split("_")) + kind]()

    def call(self, name, *given):
        function = self.space.get(self.package.prefix(self.modes[self.mode]) + name)
        return function(*given) if function else None

    def play(self):
        """Let a player do something, and pass it on to both."""
        rng, page, given = self.rng, self.pages[self.mode], self.given
        controls = {name: None for one in self.pages.values() for name, _ in one.keys.values()}
        controls |= {name: None for one in self.pages.values() for name in one.presses.values()}
        for name in controls:
            if rng.random() < 0.06:
                down = name not in self.held
                self.helm.apply(Event(0.0, name, float(down)))
                if down:
                    self.held[name] = None
                else:
                    del self.held[name]
                for press, control in page.presses.items():
                    if control == name and press not in self.owed:
                        setattr(given, f"{press}_edges", getattr(given, f"{press}_edges") + 1)
                if not down:
                    self.owed -= {press for press, control in page.presses.items() if control == name}
        for name in {name: None for one in self.pages.values() for name, _ in one.sticks.values()}:
            if rng.random() < 0.1:
                length, angle = rng.choice([0.0, 1.0, rng.random()]), rng.uniform(-math.pi, math.pi)
                self.tilts[name] = length * math.cos(angle), length * math.sin(angle)
                self.helm.apply(Event(0.0, name, self.tilts[name]))
        if page.mouse and rng.random() < 0.2:
            counts = rng.randrange(-50, 50), rng.randrange(-50, 50)
            self.helm.mouse(*counts)
            given.mouse_dx, given.mouse_dy = given.mouse_dx + counts[0], given.mouse_dy + counts[1]
        self.set_levels()

    def set_levels(self):
        page, order = self.pages[self.mode], list(self.held)
        for field, (name, by_order) in page.keys.items():
            place = order.index(name) + 1 if name in order else 0
            setattr(self.given, field, float(place if by_order else place > 0))
        for field, (name, axis) in page.sticks.items():
            setattr(self.given, field, self.tilts.get(name, (0.0, 0.0))[axis])
        for press, name in page.presses.items():
            setattr(self.given, f"{press}_down", float(name in self.held and press not in self.owed))

    def tick(self):
        """Tick both, and return how far apart they are."""
        dt = self.rng.choice([1 / 60, 1 / 60, 1 / 30, 0.1, 0.3])
        intent = self.helm.tick(dt)
        course = [self.space["COURSE"]] if "course" in self.modes[self.mode].program.tick.context else []
        self.call("step", self.state, self.given, *course, dt, self.result)
        self.call("discard_counts", self.given)
        letters = [letter for letter in "xyz" if hasattr(self.result, f"game_position_{letter}")]
        found = [getattr(self.result, f"game_{what}_{one}") for what in ("position", "velocity") for one in letters]
        wanted = [*intent.position(), *intent.velocity()]
        return max(abs(one - other) / max(1.0, abs(other)) for one, other in zip(found, wanted, strict=True))

    def enter(self, crossing):
        """Go over as the page says."""
        name = f"enter_{self.package.word(crossing.new)}_from_{self.package.word(crossing.old)}"
        last, was = self.result, self.given
        self.state = self.space[name](self.state, self.result, self.given)
        self.mode, self.given, self.result = (
            crossing.new,
            *(self.new(crossing.new, one) for one in ("Input", "Result")),
        )
        self.owed = set()
        for press, control in self.pages[self.mode].presses.items():
            goes_on = press in crossing.carried and getattr(was, f"{press}_down") > 0.0
            if control in self.held and not goes_on:
                self.owed.add(press)
            elif goes_on and control not in self.held:
                setattr(self.given, f"{press}_edges", 1.0)
        for angle in ("view_yaw_deg", "view_pitch_deg"):
            if hasattr(self.given, angle):
                setattr(self.given, angle, getattr(last, angle))

    def go_over(self):
        """Enter what a press enters, and now and then what the game does."""
        exits = [one for one in self.package.crossings if one.old == self.mode]
        entered = [one for one in exits if any(getattr(self.result, signal) > 0 for signal in one.signals)]
        assert self.helm.mode == (entered[0].new if entered else self.mode)
        if entered:
            self.enter(entered[0])
        elif exits and self.rng.random() < 0.04:
            crossing = self.rng.choice(exits)
            self.helm.enter(crossing.new)
            self.enter(crossing)


PLAYED = [name for name in profile_names() if name not in ("tablet", "headset", "orchard", "crates")]


@pytest.mark.parametrize("name", few_of(PLAYED, {"rounds"}))
def test_a_session_through_all_modes_played_as_the_page_says_is_the_helms(name):
    modes = set()
    for seed in range(4):
        game = Game(name, seed)
        for _ in range(200):
            game.play()
            assert game.tick() < 1e-9, (seed, game.mode)
            game.go_over()
            modes.add(game.mode)
    assert modes == set(demo_profile(name).mode)


@pytest.mark.parametrize("language", TARGETS)
def test_the_page_names_the_functions_that_the_source_has(language):
    package, _ = exported("rounds")
    target = TARGETS[language]
    lines = [line for line in changes_of_mode(package, target) if line.startswith("- ")]
    said = [line.partition("`: ")[2] for line in lines]
    assert said == [
        re.sub("`([a-z_]+)` is above", lambda found: f"`{target.field_name(found[1])}` is above", line)
        for line in (
            "when `mount_began` is above 0; held presses end",
            "when `look_close_began` is above 0; `mount` and `look_close` go on while held",
            "when `look_close_ended` is above 0; `mount` and `look_close` go on while held",
            "when `dismount_began` is above 0; held presses end",
        )
    ]
    source = "\n".join(target.sources(package).values())
    for line in lines:
        name = re.search(r"(\w*[Ee]nter\w+)\((.*?)\)`", line)
        assert re.search(rf"\b{name[1]}\(", source)
