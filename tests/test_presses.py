"""Presses: six styles against their definitions, ground, buffer and grace, and every edge seen once in any order."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, rule

from wendonic import Event, Helm, WendonicError
from wendonic.kernels.press.press import (
    PRESS_AT_REST,
    SILENT_PRESS,
    STYLE_DOUBLE,
    STYLE_HOLD,
    STYLE_LONG,
    STYLE_REPEAT,
    STYLE_TAP,
    STYLE_TOGGLE,
    PressInput,
    press_output,
)
from wendonic.profile.load import profile_from_text
from wendonic.runtime.intent import Press

DT = 0.01
HEAD = 'format = "wendonic-profile"\nversion = 1\n[mode.foot.press]\n'


def played(tuning, timeline, dt=DT):
    """Give a letter for each tick: b began, e ended, x both, h held, . nothing; capitals while held too.

    `timeline` has a character a tick: d while down, . while up, t for a tap between ticks, D for up and down again,
    l for a loss that lifts it; a number sets the ground: 1 there, 0 gone.
    """
    state, down, ground, letters = PRESS_AT_REST, 0.0, 1.0, ""
    for sign in timeline:
        if sign in "01":
            ground = float(sign)
            continue
        now = float(sign in "dD")
        edges = 2.0 + abs(now - down) if sign in "tD" else abs(now - down)
        state = press_output(tuning, state, PressInput(now, edges, float(sign == "l")), ground, dt)
        down = now
        letter = {(0, 0): "h" if state.held else ".", (1, 0): "b", (0, 1): "e", (1, 1): "x"}[state.began, state.ended]
        letters += letter.upper() if state.held and letter in "bex" else letter
    return letters


HOLD = SILENT_PRESS._replace(style=STYLE_HOLD)
TAP = SILENT_PRESS._replace(style=STYLE_TAP, tap_s=0.03)
LONG = SILENT_PRESS._replace(style=STYLE_LONG, long_s=0.03)
DOUBLE = SILENT_PRESS._replace(style=STYLE_DOUBLE, double_s=0.05)
JUMP = HOLD._replace(waits=1, buffer_s=0.03, grace_s=0.02)
AIR_JUMP = JUMP._replace(airs=1, air_jumps=2.0)
REPEAT = SILENT_PRESS._replace(style=STYLE_REPEAT, repeat_delay_s=0.03, repeat_interval_s=0.02)


@pytest.mark.parametrize(
    ("tuning", "timeline", "expected"),
    [
        (HOLD, ".dd.t.dDd.", ".Bhex.BXhe"),
        (HOLD, ".ddl.", ".Bhe."),
        (SILENT_PRESS._replace(style=STYLE_TOGGLE), ".dd.d.t.tl", ".Bhhe.Bhe."),
        # Let go within three ticks of the press, not later, and not by a loss.
        (TAP, ".d.ddd.dddd.t.dl", "..x...x.....x..."),
        # On at the end of its third tick, which is three ticks after the press.
        (LONG, ".dd.dddddd.t", "......Bhhhe."),
        # The second press within five ticks of the first; a third begins a new pair.
        (DOUBLE, "d.d.d.d.", "..Be..Be"),
        (DOUBLE, "d....d.d.", ".....Be.."),
        (DOUBLE, "d.....d..d.", ".........Be"),
        (DOUBLE, "tt", ".x"),
        (SILENT_PRESS, "dd.t", "...."),
        # On the ground at once; in the air only if the ground comes within three ticks, held still or not.
        (JUMP, "dd.", "Bhe"),
        (JUMP, "0.....d..1.", "........x"),
        (JUMP, "0.....d.1..", ".......x."),
        (JUMP, "0.....ddd1dd.", "........Bhe"),
        (JUMP, "0.....dddd1d.", "..........."),
        # Two ticks after the edge it is still given, three are too many.
        (JUMP, "..0..d.", "....Be"),
        (JUMP, "..0...d.", "......."),
        # It took the ground away itself: no second one in the air.
        (JUMP, "d.0.d.d.", "Be....."),
        # Held over the landing, let go, and pressed again: once more.
        (JUMP, "d0ddddd1.d", "BhhhhheB"),
        # In the air twice at once, then only early before landing; the ground gives both back.
        (AIR_JUMP, "0.....d.d.d.....1d0.d.d.d.", ".....BeBe......BeBeBe.."),
        (AIR_JUMP, "0.....d.d.d.1.", ".....BeBe..x"),
        # Off the edge it is the grace that gives it, and the air gives two more.
        (AIR_JUMP, "..0.d.d.d.d.", "...BeBeBe.."),
        # Again three ticks after the press, and every second one from there on; a new press begins anew.
        (REPEAT, "dddddddd.ddd", "BhBhBhBheBhB"),
        (REPEAT, "ddl..t.ddd", "Bhe..x.BhB"),
    ],
)
def test_each_style_is_what_it_says(tuning, timeline, expected):
    assert played(tuning, timeline) == expected


def test_only_the_last_release_of_a_tick_is_by_a_loss():
    """Down, up, down, lost between two ticks: the first was a tap."""
    tapped = press_output(TAP, PRESS_AT_REST, PressInput(0.0, 4.0, 1.0), 1.0, DT)
    assert (tapped.began, tapped.ended) == (1.0, 1.0)
    assert press_output(TAP, PRESS_AT_REST, PressInput(0.0, 2.0, 1.0), 1.0, DT).began == 0.0
    # And of a down after the loss: up by loss, down again.
    held = press_output(TAP, PRESS_AT_REST, PressInput(1.0, 1.0, 0.0), 1.0, DT)
    assert press_output(TAP, held, PressInput(1.0, 2.0, 1.0), 1.0, DT).began == 0.0


@pytest.mark.parametrize("ticks", [6, 19, 30])
def test_a_limit_that_is_a_whole_number_of_ticks_is_reached_whatever_rounding_makes_of_it(ticks):
    dt = 0.01
    limit_s = ticks / 100.0
    double = SILENT_PRESS._replace(style=STYLE_DOUBLE, double_s=limit_s)
    assert played(double, "t" + "." * (ticks - 1) + "t", dt)[-1] == "x"
    assert played(double, "t" + "." * ticks + "t", dt)[-1] == "."
    early = HOLD._replace(waits=1, buffer_s=limit_s)
    assert played(early, "0" + "." * 9 + "t" + "." * (ticks - 1) + "1.", dt)[-1] == "x"
    assert played(early, "0" + "." * 9 + "t" + "." * ticks + "1.", dt)[-1] == "."


@given(
    style=st.sampled_from([STYLE_HOLD, STYLE_TOGGLE, STYLE_TAP, STYLE_LONG, STYLE_DOUBLE]),
    waits=st.integers(0, 1),
    timeline=st.text("dDt..l01", max_size=60),
    dt=st.sampled_from([0.001, 0.01, 0.3]),
)
def test_a_press_ends_if_and_only_if_it_began(style, waits, timeline, dt):
    """Between two beginnings lies an end, and between two ends a beginning; held is what has begun and not ended."""
    tuning = SILENT_PRESS._replace(style=style, tap_s=0.02, long_s=0.05, double_s=0.1, waits=waits, buffer_s=0.05)
    held = False
    for letter in played(tuning, timeline, dt):
        if letter in "bB":
            assert not held
            held = True
            assert letter == "B"
        elif letter == "e":
            assert held
            held = False
        elif letter == "X":
            # Ended and began again if it was held, or the opposite way in one tick: held either way.
            held = True
        elif letter == "x":
            held = False
        else:
            assert (letter == "h") == held


def test_a_profile_without_times_has_usual_ones():
    helm = Helm(profile_from_text(HEAD + 'call = { bind = ["KeyE"], style = "long" }\n'))
    helm.key("KeyE", down=True)
    began = [tick for tick in range(60) if helm.tick(1 / 60).press("call").began]
    assert began == [29]


def test_the_game_reports_the_ground():
    helm = Helm(profile_from_text(HEAD + 'jump = { bind = ["key.Space"], buffer_s = 0.1, grace_s = 0.05 }\n'))
    helm.ground(False)
    for _ in range(20):
        helm.tick(0.01)
    helm.key("Space", down=True)
    assert not any(helm.tick(0.01).press("jump").began for _ in range(8))
    helm.ground(True)
    assert helm.tick(0.01).press("jump")[:3] == (True, True, False)
    assert helm.tick(0.0).press("jump")[:3] == (True, False, False)


MODES = (
    HEAD
    + """
    jump = { bind = ["key.Space", "pad.south"] }
    lamp = { bind = ["KeyL"], style = "toggle" }
    puff = { bind = [{ control = "pad.right_trigger", above = 0.6, release = 0.3 }, "ControlLeft+KeyP"] }
    [[mode.foot.look.bind]]
    mouse = "mouse.move"
    deg_per_count = 0.5
    [mode.cart]
    held_presses = "drop"
    [mode.cart.press]
    jump = { bind = ["key.Space"] }
    horn = { bind = ["pad.south"] }
    [[mode.cart.look.bind]]
    mouse = "mouse.move"
    deg_per_count = 0.5
    """
)
BINDS = {
    "foot": {
        "jump": [{"key.Space"}, {"pad.south"}],
        "lamp": [{"key.KeyL"}],
        "puff": [{"pad.right_trigger"}, {"key.ControlLeft", "key.KeyP"}],
    },
    "cart": {"jump": [{"key.Space"}], "horn": [{"pad.south"}]},
}
TRIGGER = "pad.right_trigger"
KEYS = ["key.Space", "key.KeyL", "key.ControlLeft", "key.KeyP", "pad.south"]
LOST = {"lost.focus": ("key", "pad"), "lost.pad": ("pad",), "lost.keys": ("key",), "lost.mouse": ()}


class HelmMachine(RuleBasedStateMachine):
    """Any order of downs, ups, losses, ticks and mode changes, beside a model that counts every change by itself.

    What no tick has seen yet is `pending`; `level` is what each press was at the last tick.
    """

    def __init__(self):
        super().__init__()
        self.helm = Helm(profile_from_text(MODES))
        self.mode = "foot"
        self.down = dict.fromkeys([*KEYS, TRIGGER], False)
        self.now = dict(self.down)
        self.pending = []
        self.level = dict.fromkeys(("jump", "lamp", "puff", "horn"), False)
        self.more_edges = dict.fromkeys(self.level, 0)
        self.asleep = set()
        self.lamp_on = False
        self.shown = dict.fromkeys(self.level, False)
        self.held_s = dict.fromkeys(self.level, 0.0)
        self.counts = 0
        self.turned_deg = 0.0

    def binds(self, name):
        return [frozenset(controls) for controls in BINDS[self.mode].get(name, [])]

    def change(self, control, down):
        if self.now[control] != down:
            self.now[control] = down
            self.pending.append((control, down))

    @rule(control=st.sampled_from(KEYS), down=st.booleans())
    def press_or_lift(self, control, down):
        self.helm.apply(Event(0.0, control, float(down)))
        self.change(control, down)

    @rule(pull=st.sampled_from([0.0, 0.25, 0.5, 0.7, 1.0]))
    def pull(self, pull):
        self.helm.button(TRIGGER, pull)
        self.change(TRIGGER, pull > 0.3 if self.now[TRIGGER] else pull >= 0.6)

    @rule(loss=st.sampled_from(sorted(LOST)))
    def lose(self, loss):
        self.helm.apply(Event(0.0, loss, 1.0))
        for control in self.now:
            if control.split(".")[0] in LOST[loss]:
                self.change(control, False)

    @rule(counts=st.integers(-40, 40))
    def move(self, counts):
        self.helm.mouse(counts, 0.0)
        self.counts += counts

    def edges_until_now(self, name):
        """Return how often a press changed since the last tick, and what is asleep and down after that."""
        down, level, edges = dict(self.down), self.level[name], self.more_edges[name]
        for control, is_down in self.pending:
            down[control] = is_down
            for bind in self.binds(name):
                if not all(down[part] for part in bind):
                    self.asleep.discard((name, bind))
            awake = [bind for bind in self.binds(name) if (name, bind) not in self.asleep]
            new_level = any(all(down[part] for part in bind) for bind in awake)
            edges += new_level != level
            level = new_level
        return edges, level

    @rule(dt=st.sampled_from([0.004, 0.016, 0.5]))
    def tick(self, dt):
        intent = self.helm.tick(dt)
        self.turned_deg += intent.look.yaw_deg
        assert math.isclose(self.turned_deg, 0.5 * self.counts, abs_tol=1e-9)
        for name, was_shown in self.shown.items():
            edges, level = self.edges_until_now(name)
            was, lamp_was_on = level ^ (edges % 2 == 1), self.lamp_on
            rises = (edges + (not was)) // 2
            if name == "lamp":
                on = self.lamp_on ^ (rises % 2 == 1)
                began = rises > 1 or (rises == 1 and on)
                ended = rises > 1 or (rises == 1 and not on) or (was_shown and not on)
                self.lamp_on = on
            else:
                on, began = level, rises > 0
                ended = edges - rises > 0 or (was_shown and not on)
            begins = (rises + (not lamp_was_on)) // 2 if name == "lamp" else rises
            was_s = self.held_s[name]
            held_s = (dt if on else 0.0) + (was_s if not began and (on or ended) else 0.0)
            assert intent.press(name)[:3] == (on, began, ended), (name, edges)
            assert intent.press(name)[3:] == (pytest.approx(held_s, abs=1e-9), begins)
            self.level[name], self.shown[name], self.held_s[name] = level, on, held_s
            self.more_edges[name] = 0
        self.down, self.pending = dict(self.now), []
        if not any(self.down.values()):
            assert not any(intent.press(name).held for name in self.level if name != "lamp")

    @rule()
    def tick_without_time(self):
        intent = self.helm.tick(0.0)
        assert intent.look.yaw_deg == 0.0
        assert all(intent.press(name)[:3] == (held, False, False) for name, held in self.shown.items())

    @rule(mode=st.sampled_from(["foot", "cart"]))
    def enter(self, mode):
        self.helm.enter(mode)
        if mode == self.mode:
            return
        had = {name: bool(self.binds(name)) for name in self.level}
        self.mode, self.lamp_on, self.asleep = mode, False, set()
        for name, level in self.level.items():
            held_binds = [bind for bind in self.binds(name) if all(self.down[part] for part in bind)]
            carried = level and mode == "foot" and had[name] and bool(self.binds(name))
            self.level[name] = carried and bool(held_binds)
            # Carried over to where nothing of it is held: it goes up.
            self.more_edges[name] = int(carried and not held_binds)
            if not carried:
                self.asleep |= {(name, bind) for bind in held_binds}


def test_every_notch_of_the_wheel_counts_and_turning_back_begins_a_new_one():
    helm = Helm(profile_from_text(HEAD + 'lamp = { bind = [{ wheel = "towards" }, "KeyL"], style = "toggle" }\n'))
    for notches, expected in (
        ([1.0], (True, True, False, 0.01, 1)),
        ([1.0, 1.0], (True, True, True, 0.01, 1)),
        ([1.0, 1.0, 3.0], (False, True, True, 0.0, 2)),
        ([1.0], (True, True, False, 0.01, 1)),
        ([0.5, -0.25, 0.5], (True, False, False, 0.02, 0)),
        ([0.5], (False, False, True, 0.02, 0)),
        ([-3.0], (False, False, False, 0.0, 0)),
    ):
        for turned in notches:
            helm.wheel(turned)
        assert helm.tick(0.01).press("lamp") == expected
    # While a key holds it down, a notch is no second press.
    helm.key("KeyL", down=True)
    assert helm.tick(0.01).press("lamp")[:3] == (True, True, False)
    helm.wheel(1.0)
    assert helm.tick(0.01).press("lamp")[:3] == (True, False, False)


@pytest.mark.parametrize("losing_s", [0.0, 0.02])
@pytest.mark.parametrize("released", [False, True])
@pytest.mark.parametrize(
    ("bind", "control", "loss"),
    [
        ('"key.Space"', "key.Space", "focus"),
        ('"key.Space"', "key.Space", "keys"),
        ('"key.Space"', "key.Space", "pad"),
        ('{ zone = "left half" }', "touch.0", "focus"),
        ('{ zone = "left half" }', "touch.3", "touch"),
        ('{ stick = "pad.left_stick", towards = "up" }', "pad.left_stick", "pad"),
        ('{ wheel = "away" }', "mouse.wheel", "mouse"),
        ('{ wheel = "away" }', "mouse.wheel", "focus"),
    ],
)
def test_a_press_that_waits_for_the_ground_is_forgotten_when_its_control_is_lost(
    losing_s, released, bind, control, loss
):
    helm = Helm(profile_from_text(HEAD + f"jump = {{ bind = [{bind}], buffer_s = 0.15 }}\n"))

    def press(down):
        levels = {"touch": (0.4, 0.4, down), "pad": (0.0, -down), "mouse": -down}
        helm.apply(Event(0.0, control, levels.get(control.split(".")[0], down)))

    helm.ground(False)
    press(1.0)
    if losing_s:
        helm.tick(losing_s)
    if released:
        press(0.0)
        helm.tick(0.01)
    helm.lose(loss)
    helm.tick(0.01)
    helm.ground(True)
    assert helm.tick(0.01).press("jump").began == (control == "key.Space" and loss == "pad")
    # A new press counts, also one that comes between the same two ticks as the loss.
    press(0.0)
    helm.tick(0.01)
    helm.lose(loss)
    press(1.0)
    assert helm.tick(0.01).press("jump").began


@pytest.mark.parametrize("hz", [20, 60, 144])
def test_a_menu_scrolls_as_far_at_every_rate_and_through_a_hitch(hz):
    """Held for 2 s: at once, at 0.4 s, and every 0.125 s from there on; what a hitch holds is counted, not lost."""
    helm = Helm(profile_from_text(HEAD + 'down = { bind = ["KeyS"], style = "repeat", repeat_interval_s = 0.125 }\n'))
    helm.key("KeyS", down=True)
    counts = [helm.tick(1 / hz).press("down")[3:] for _ in range(round(1.45 * hz))]
    held_s, last = helm.tick(2.0 - round(1.45 * hz) / hz).press("down")[3:]
    assert held_s == pytest.approx(2.0)
    assert [held for held, _ in counts] == sorted(held for held, _ in counts)
    assert sum(count for _, count in counts) + last == 1 + 1 + int(1.6 / 0.125)
    helm.key("KeyS", down=False)
    assert helm.tick(1 / hz).press("down")[:3] == (False, False, True)


def test_a_stick_presses_from_one_tilt_until_another_and_only_its_own_way():
    bind = '{ stick = "pad.left_stick", towards = "up", above = 0.6, release = 0.4 }'
    helm = Helm(profile_from_text(HEAD + f"up = {{ bind = [{bind}] }}\n"))
    for x, y, expected in (
        (0.0, -0.59, (False, False, False)),
        (0.0, -0.6, (True, True, False)),
        (0.9, -0.41, (True, False, False)),
        (0.0, -0.4, (False, False, True)),
        (0.0, 1.0, (False, False, False)),
        (-1.0, -0.3, (False, False, False)),
        (0.0, -1.0, (True, True, False)),
    ):
        helm.stick("pad.left_stick", x, y)
        assert helm.tick(0.01).press("up")[:3] == expected
    helm.lose("pad")
    assert helm.tick(0.01).press("up")[:3] == (False, False, True)
    # Between two ticks, there and back: both are seen.
    helm.stick("pad.left_stick", 0.0, -1.0)
    helm.stick("pad.left_stick", 0.0, 0.0)
    assert helm.tick(0.01).press("up") == Press(False, True, True, 0.0, 1)
    text = HEAD + f"up = {{ bind = [{bind}] }}\n"
    with pytest.raises(WendonicError, match=r"release 0\.7 is not below above 0\.6"):
        profile_from_text(text.replace("0.4", "0.7"))


def test_unless_keeps_a_press_from_going_down_but_not_from_staying_so():
    """C, but not with Ctrl: in every order of the two."""
    copy = 'copy = { bind = ["ControlLeft+KeyC"] }\n'
    close = 'close = { bind = ["KeyC", { wheel = "towards" }], unless = ["ControlLeft", "pad.left_bumper"] }\n'
    helm = Helm(profile_from_text(HEAD + copy + close))

    def after(*changes):
        for name, down in changes:
            helm.apply(Event(0.0, name, down))
        intent = helm.tick(0.01)
        return intent.press("copy")[:2], intent.press("close")[:2]

    on, off, stays = (True, True), (False, False), (True, False)
    control, c = "key.ControlLeft", "key.KeyC"
    assert after((c, True)) == (off, on)
    assert after((control, True)) == (on, stays)
    assert after((c, False)) == (off, off)
    assert after((c, True)) == (on, off)
    assert after((control, False)) == (off, off)
    assert after((c, False)) == (off, off)
    assert after((c, True), (c, False)) == (off, (False, True))
    helm.button("pad.left_bumper", True)
    helm.wheel(1.0)
    assert after() == (off, off)
    assert after(("pad.left_bumper", False), (c, True)) == (off, on)
    # Controls are wanted, not presses; whoever names one is told what to write.
    with pytest.raises(
        WendonicError, match=r'unknown key code "copy"; .*; copy is a press; name its controls: "KeyV"'
    ):
        profile_from_text(
            f'{HEAD}copy = {{ bind = ["KeyV", {{ wheel = "away" }}] }}\nx = {{ bind = ["KeyX"], unless = ["copy"] }}'
        )
    # Without `unless` the two are one too many.
    with pytest.raises(WendonicError, match=r"key\.KeyC is also bound to press copy"):
        profile_from_text(HEAD + copy + 'close = { bind = ["KeyC"] }\n')


def test_a_trigger_held_half_way_through_two_modes_is_not_pressed_anew():
    helm = Helm(profile_from_text(MODES))
    for pull in (0.7, 0.5):
        helm.button(TRIGGER, pull)
    assert helm.tick(0.01).press("puff").held
    for mode in ("cart", "foot"):
        helm.enter(mode)
        helm.tick(0.01)
    helm.button(TRIGGER, 0.9)
    assert helm.tick(0.01).press("puff") == Press()
    for pull in (0.1, 0.9):
        helm.button(TRIGGER, pull)
    assert helm.tick(0.01).press("puff")[:3] == (True, True, False)


def bumper_and_south(down):
    """Return what presses or releases both."""
    return lambda helm: [helm.button(name, down) for name in ("pad.left_bumper", "pad.south")]


@pytest.mark.parametrize("rule", ["carry", "drop", "retune"])
@pytest.mark.parametrize(
    ("bind", "press", "release"),
    [
        ('"KeyE"', lambda helm: helm.key("KeyE", True), lambda helm: helm.key("KeyE", False)),
        ('"pad.left_bumper+pad.south"', bumper_and_south(True), bumper_and_south(False)),
        ('{ zone = "corner" }', lambda helm: helm.touch(4, 0.9, 0.1), lambda helm: helm.touch(4, 0.2, 0.6, False)),
        (
            '{ stick = "pad.right_stick", towards = "left" }',
            lambda helm: helm.stick("pad.right_stick", -0.9, 0.3),
            lambda helm: helm.stick("pad.right_stick", -0.1, 0.3),
        ),
    ],
    ids=["key", "chord", "finger", "stick"],
)
def test_controls_held_through_a_change_continue_or_count_after_a_release(rule, bind, press, release):
    text = HEAD.replace(
        "[mode.foot.press]", "[window]\nzone.corner = { left = 0.8, top = 0, right = 1, bottom = 0.3 }\n"
    )
    text += f'[mode.foot]\nleave_to = ["cart"]\n[mode.foot.press]\npuff = {{ bind = [{bind}] }}\n'
    cart = f'[mode.cart]\nlike = "foot"\nheld_presses = "{"drop" if rule == "drop" else "carry"}"\n'
    helm = Helm(profile_from_text(text + cart))
    press(helm)
    assert helm.tick(0.01).press("puff")[:3] == (True, True, False)
    if rule == "retune":
        # Other bindings, so it is read anew.
        helm.retune(helm.profile.changed({"mode.foot.press.smoke.bind": ["KeyP"]}))
    else:
        helm.enter("cart")
    carried = rule != "drop"
    assert helm.tick(0.01).press("puff")[:3] == (carried, False, not carried)
    assert helm.tick(0.01).press("puff")[:3] == (carried, False, False)
    release(helm)
    assert helm.tick(0.01).press("puff")[:3] == (False, False, carried)
    press(helm)
    assert helm.tick(0.01).press("puff")[:3] == (True, True, False)


def test_a_press_carried_on_without_a_held_control_ends_at_once():
    text = HEAD.replace("[mode.foot.press]", '[mode.foot]\nleave_to = ["cart"]\n[mode.foot.press]')
    text += 'puff = { bind = ["KeyE"] }\n[mode.cart]\nlike = "foot"\npress.puff.bind = ["KeyR"]\n'
    helm = Helm(profile_from_text(text))
    helm.key("KeyE", True)
    helm.tick(0.01)
    helm.enter("cart")
    assert helm.tick(0.01).press("puff")[:3] == (False, False, True)
    helm.key("KeyR", True)
    assert helm.tick(0.01).press("puff")[:3] == (True, True, False)


HelmMachine.TestCase.settings = settings(max_examples=80, stateful_step_count=40, deadline=None)
TestHelmMachine = HelmMachine.TestCase


@pytest.mark.parametrize("style", [STYLE_HOLD, STYLE_REPEAT])
def test_a_press_in_the_air_counts_its_time_from_when_it_began(style):
    """A second landing does not go on where the first press ended."""
    press = SILENT_PRESS._replace(style=style, repeat_delay_s=9.0, waits=1, buffer_s=0.2)
    state, times = PRESS_AT_REST, []
    for _ in range(2):
        for down, edges, grounded in ((1.0, 1.0, 0.0), (1.0, 0.0, 1.0), (1.0, 0.0, 1.0), (0.0, 1.0, 0.0)):
            state = press_output(press, state, PressInput(down, edges, 0.0), grounded, 0.1)
            times.append((state.held, state.held_s))
    assert times == [(0.0, 0.0), (1.0, 0.1), (1.0, 0.2), (0.0, 0.2)] * 2
