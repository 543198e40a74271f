"""Movement that a mode takes over: as if there had been one mode all along."""

import math
from random import Random

import pytest

from few_of_many import few_of
from wendonic import Event, Helm, profile_from_text
from wendonic.demo import demo_profile
from wendonic.profile.load import ProfileError

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = """
[[mode.{name}.move.bind]]
keys = {{ forward = ["KeyW"], right = ["KeyD"], back = ["KeyS"] }}
rise_s = 0.4
fall_s = 0.3
"""
STICK = '[[mode.{name}.move.bind]]\nstick = "pad.left_stick"\ndead_zone = {{ form = "none" }}\n'
THROTTLE = """
[[mode.{name}.throttle.bind]]
keys = {{ forward = ["KeyI"], back = ["KeyK"] }}
rise_s = 0.5
"""
MODES = {
    "smoothed": "[mode.{name}.move]\nhalf_life_s = 0.2\n" + KEYS + STICK,
    "one euro": "[mode.{name}.move]\none_euro = {{ min_cutoff_hz = 1.0, beta = 0.1 }}\n" + STICK + KEYS,
    "throttle": KEYS + THROTTLE,
}


def profile(walk, aim, movement="carry"):
    return profile_from_text(
        HEAD + walk.format(name="walk") + aim.format(name="aim") + f'[mode.aim]\nmovement = "{movement}"\n'
        f'[mode.walk]\nmovement = "{movement}"\n'
    )


def played(helm, swaps):
    """Return what the body and the intent do while keys and a stick go to and fro, and modes are swapped."""
    found = []
    for tick in range(240):
        if tick % 40 == 5:
            helm.key("KeyW", down=tick % 80 == 5)
        if tick % 30 == 7:
            helm.key("KeyI", down=tick % 60 == 7)
        if tick % 25 == 11:
            helm.stick("pad.left_stick", 0.9 if tick % 50 == 11 else 0.0, -0.3 if tick % 75 == 11 else 0.0)
        if tick % 7 == 3 and swaps:
            helm.enter("aim" if helm.mode == "walk" else "walk")
        intent = helm.tick(1 / 60)
        found.append((intent.local, intent.amount, intent.throttle, intent.motion))
    return found


WAYS = '[[mode.walk.move.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
LATEST = WAYS + 'opposites = "latest"\nrise_s = 0.2\nfall_s = 0.15\n'
LOOK = """
[[mode.walk.look.bind]]
mouse = "mouse.move"
half_life_s = 0.05
[[mode.walk.look.bind]]
stick = "pad.right_stick"
ease_s = 0.3
[[mode.walk.look.bind]]
keys = { right = ["ArrowRight"], left = ["ArrowLeft"], up = ["ArrowUp"], down = ["ArrowDown"] }
opposites = "latest"
"""
SNAP = '[[mode.walk.look.bind]]\nstick = "pad.right_stick"\nsnap_deg = 30\n'
HOPS = "[gait.hop]\ncoast_half_life_s = 0.3\njump = { height_m = 1.2, early_release_ratio = 0.3 }\n"
PRESSES = (
    '[mode.walk.press]\nrun = { bind = ["ShiftLeft"], style = "long", long_s = 0.3 }\n'
    'dash = { bind = ["KeyQ"], style = "double" }\nnudge = { bind = ["KeyE"], style = "tap" }\n'
)
JUMP = 'jump = { bind = ["Space"], buffer_s = 0.1, grace_s = 0.1, air_jumps = 1 }\n'
EVERYTHING = {
    "jumps": ('gait = "hop"\nsteer = { frame = "camera", sectors = 8, diagonal_hold_s = 0.1 }', LATEST, JUMP, HOPS),
    "squares": ('steer = { frame = "grid", step_s = 0.15, turn_first_s = 0.1 }', LATEST, "", ""),
    "drift": ('gait = "own"\nsteer = { frame = "drive", grip = 0.5 }', LATEST, "", "[gait.own]\nturn_loss = 0.4\n"),
    "errand": ('steer = { frame = "goto", queue = 3 }', LATEST, "", ""),
    "swings": (
        'steer = { frame = "hands" }\ncomfort = {}',
        '[[mode.walk.move.bind]]\nhands = ["hand.left", "hand.right"]\nsqueezed = false\n' + SNAP,
        "",
        "",
    ),
}


def equal_modes(frame):
    steer, binds, jump, gait = EVERYTHING[frame]
    presses = PRESSES + jump if frame != "swings" else ""
    look = "" if frame == "swings" else LOOK
    carries = 'movement = "carry"\nheld_presses = "carry"\n'
    text = f"{HEAD}[mode.walk]\n{steer}\n{carries}{binds}{look}{presses}[mode.aim]\nlike = 'walk'\n{carries}{gait}"
    return profile_from_text(text)


def anything(random, frame, tick):
    """Give the events of a tick: at random, and hands that swing."""
    for code in (
        "KeyW",
        "KeyS",
        "KeyA",
        "KeyD",
        "Space",
        "ShiftLeft",
        "KeyQ",
        "KeyE",
        "ArrowRight",
        "ArrowLeft",
        "ArrowUp",
    ):
        if random.random() < 0.05:
            yield f"key.{code}", float(random.random() < 0.6)
    if random.random() < 0.1:
        yield "pad.right_stick", (random.choice((-0.9, 0.9, 0.3)), random.uniform(-0.7, 0.7))
    if random.random() < 0.1:
        yield "mouse.move", (random.randrange(-50, 50), random.randrange(-50, 50))
    if frame == "errand" and random.random() < 0.02:
        yield "goal", (random.uniform(-3.0, 3.0), random.uniform(-3.0, 3.0))
    if frame == "swings":
        yield "head.pose", (0.0, 1.7, 0.0, 0.0, 0.0, 0.0, 1.0)
        for side, hand in ((-1, "left"), (1, "right")):
            swing = 0.15 * side * math.sin(0.15 * tick)
            yield f"hand.{hand}.pose", (0.2 * side, 1.0, swing - 0.3, 0.0, 0.0, 0.0, 1.0)


def test_the_first_of_two_taps_and_a_jump_that_waits_go_on_in_another_mode():
    helm = Helm(equal_modes("jumps"))

    def tapped(code):
        helm.key(code, down=True)
        pressed = helm.tick(1 / 60)
        helm.key(code, down=False)
        helm.tick(1 / 60)
        return pressed

    assert not tapped("KeyQ").press("dash").began
    helm.enter("aim")
    assert tapped("KeyQ").press("dash").began
    # Pressed in the air with no jump left, and released: it waits for the ground.
    helm.ground(False)
    helm.tick(1.0)
    while tapped("Space").press("jump").began:
        pass
    helm.enter("walk")
    helm.ground(True)
    assert helm.tick(1 / 60).press("jump").began


@pytest.mark.parametrize("frame", few_of(list(EVERYTHING), list(EVERYTHING)[:2]))
def test_going_to_an_equal_mode_and_back_changes_nothing_at_all(frame):
    """Steps, jumps, goals, the order of keys, what a mouse's smoothing owes, a snap that is held: all goes on."""
    made, random = equal_modes(frame), Random(len(frame))
    straight, swapped = Helm(made), Helm(made)
    for tick in range(500):
        for control, value in anything(random, frame, tick):
            straight.apply(Event(0.0, control, value))
            swapped.apply(Event(0.0, control, value))
        if random.random() < 0.1:
            swapped.enter("aim" if swapped.mode == "walk" else "walk")
        dt = 0.35 if random.random() < 0.02 else 1 / 60
        expected = straight.tick(dt).as_dict()
        assert swapped.tick(dt).as_dict() | {"mode": "walk"} == expected, tick


def test_looking_goes_on_where_movement_does_not():
    """What smoothing owes of a mouse comes, and a stick that is held does not snap again."""
    steer = f"{HEAD}[mode.walk]\nsteer = {{ frame = 'map' }}\n"
    helm = Helm(
        profile_from_text(
            steer
            + LOOK.replace("half_life_s = 0.05", "deg_per_count = 0.1\nhalf_life_s = 0.05")
            + "[mode.aim]\nlike = 'walk'\n"
        )
    )
    helm.mouse(100, 0)
    turned = helm.tick(1 / 60).look.yaw_deg
    helm.enter("aim")
    turned += sum(helm.tick(1 / 60).look.yaw_deg for _ in range(120))
    assert turned == pytest.approx(10.0)
    helm = Helm(profile_from_text(steer + SNAP + "[mode.aim]\nlike = 'walk'\n"))
    helm.stick("pad.right_stick", 1.0, 0.0)
    assert helm.tick(1 / 60).look.yaw_deg == pytest.approx(30.0)
    helm.enter("aim")
    assert [helm.tick(1 / 60).look.yaw_deg for _ in range(30)] == [0.0] * 30


@pytest.mark.parametrize("mode", few_of(list(MODES), list(MODES)[:1]))
def test_two_equal_modes_swapped_seven_times_a_second_are_one_to_the_last_bit(mode):
    straight = played(Helm(profile(MODES[mode], MODES[mode])), swaps=False)
    assert played(Helm(profile(MODES[mode], MODES[mode])), swaps=True) == straight
    assert played(Helm(profile(MODES[mode], MODES[mode], "drop")), swaps=True) != straight


def test_entries_in_another_order_are_known_by_their_controls():
    straight = played(Helm(profile(KEYS + STICK, KEYS + STICK)), swaps=False)
    assert played(Helm(profile(KEYS + STICK, STICK + KEYS)), swaps=True) == straight


def test_a_key_without_a_ramp_is_wholly_down_where_it_gets_one():
    ramped = "[mode.{name}.move]\nhalf_life_s = 0.0\n" + KEYS
    crisp = ramped.replace("rise_s = 0.4", "rise_s = 0.0").replace("fall_s = 0.3", "fall_s = 0.0")
    helm = Helm(profile(crisp, ramped))
    helm.key("KeyW", down=True)
    helm.key("KeyD", down=True)
    for _ in range(60):
        before = helm.tick(1 / 60)
    helm.enter("aim")
    assert helm.tick(0.0).amount == before.amount
    assert helm.tick(1 / 60).local == pytest.approx(before.local, abs=1e-12)
    helm.key("KeyD", down=False)
    # Half of the way down the ramp of 0.3 s, forward at full: 1, to the right 0.5.
    for _ in range(9):
        after = helm.tick(1 / 60)
    assert after.local[0] / after.local[1] == pytest.approx(0.5, abs=1e-9)


def test_info_describes_and_a_misspelling_is_reported():
    says = "ramps and smoothing go on as it is entered, if both modes have them"
    plain = demo_profile("harvest")
    assert not any(says in line for line in plain.sentences())
    assert any(says in line for line in plain.changed({"mode.barrow.movement": "carry"}).sentences())
    with pytest.raises(ProfileError, match=r'mode\.barrow.movement: found "cary".*did you mean "carry"'):
        plain.changed({"mode.barrow.movement": "cary"})
