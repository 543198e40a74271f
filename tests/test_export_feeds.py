"""Exported functions that take fingers and poses: what they make of them is what a helm makes of them."""

import math
import os
import random
import shutil
import subprocess

import pytest

from few_of_many import few_of
from wendonic import Helm
from wendonic.demo import demo_profile
from wendonic.export.export import packaged
from wendonic.export.targets import TARGETS
from wendonic.profile.load import profile_from_text

TWO_THUMBS = """
format = "wendonic-profile"
version = 1

[window]
zone.left = { left = 0.0, top = 0.4, right = 0.4, bottom = 1.0 }
zone.right = { left = 0.6, top = 0.4, right = 1.0, bottom = 1.0 }
zone.top = { left = 0.3, top = 0.0, right = 0.7, bottom = 0.3 }
zone.corner = { left = 0.8, top = 0.0, right = 1.0, bottom = 0.3 }

[[mode.foot.move.bind]]
touch_stick = "left"
past_rim = "drag"

[[mode.foot.move.bind]]
touch_stick = "right"
middle = "zone"
past_rim = "stay"
radius = 0.2

[[mode.foot.look.bind]]
touch_drag = "top"
deg_per_width = 120

[mode.foot.press]
jump = { bind = [{ zone = "corner" }, { zone = "top" }], shared = true }
smoke = { bind = [{ zone = "corner" }, "key.KeyE"], shared = true }
"""


class Played:
    """A mode as exported Python, and a helm beside it."""

    def __init__(self, profile, mode):
        package = packaged(profile, "played", modes=[mode])
        text = TARGETS["python"].sources(package)["played.py"]
        self.space = {"__name__": "played"}
        exec(compile(text, "played.py", "exec"), self.space)
        self.state, self.given, self.result = (self.space[name]() for name in ("State", "Input", "Result"))
        self.ground = [self.space["COURSE"]] if "COURSE" in self.space else []
        self.helm = Helm(profile, mode=mode)
        self.call("discard_counts", self.given)

    def call(self, name, *given):
        if name in self.space:
            self.space[name](*given)

    def tick(self, dt):
        intent = self.helm.tick(dt)
        self.space["step"](self.state, self.given, *self.ground, dt, self.result)
        self.call("discard_counts", self.given)
        found = [getattr(self.result, f"game_position_{axis}") for axis in "xyz"[: len(intent.position())]]
        wanted = [*intent.position(), intent.look.yaw_deg, intent.amount]
        found += [getattr(self.result, "look_yaw_deg", 0.0), getattr(self.result, "amount", 0.0)]
        assert found == pytest.approx(wanted, abs=1e-9)
        return intent


@pytest.mark.parametrize(
    ("profile", "mode"),
    [
        (profile_from_text(TWO_THUMBS), "foot"),
        (demo_profile("tablet"), "foot"),
        pytest.param(demo_profile("tablet"), "inspect", marks=pytest.mark.long),
    ],
    ids=["two thumbs", "tablet on foot", "tablet bent over a hive"],
)
def test_fingers_do_what_they_do_to_a_helm(profile, mode):
    played, rng = Played(profile, mode), random.Random(7)
    assert played.given.window_aspect_ratio == profile.window.aspect_ratio
    structs = [played.space["Finger"]() for _ in range(4)]
    fingers = {}
    seen = set()
    for tick in range(900):
        if tick % 300 == 290:
            played.given.window_aspect_ratio = rng.uniform(0.5, 2.5)
            played.helm.window(played.given.window_aspect_ratio, 1.0)
        for _ in range(rng.randrange(4)):
            finger = rng.randrange(4)
            if finger not in fingers:
                place = fingers[finger] = [rng.random(), rng.random()]
                played.helm.touch(finger, *place)
                played.call("touch_down", structs[finger], played.given, *place)
            elif rng.random() < 0.1:
                place = fingers.pop(finger)
                played.helm.touch(finger, *place, down=False)
                played.call("touch_up", structs[finger], played.given)
            else:
                place = fingers[finger]
                place[:] = [min(max(part + rng.gauss(0.0, 0.05), 0.0), 1.0) for part in place]
                played.helm.touch(finger, *place)
                played.call("touch_move", structs[finger], played.given, *place)
        if tick % 200 == 199:
            played.helm.lose("touch")
            for finger in list(fingers):
                played.call("touch_up", structs[finger], played.given)
                del fingers[finger]
            for name in {"jump_lost", "smoke_lost"} & {*played.given.__slots__}:
                setattr(played.given, name, 1.0)
        intent = played.tick(rng.choice((1 / 60, 1 / 144, 0.03)))
        seen |= {"moves"} if intent.amount > 0.0 else set()
        seen |= {"looks"} if intent.look.yaw_deg != 0.0 else set()
        for name in ("jump", "smoke"):
            # The other controls of a press are the game's to join.
            if f"{name}_fingers" in played.given.__slots__:
                assert getattr(played.state, f"{name}_held") == float(intent.press(name).held), name
                seen |= {name} if intent.press(name).began else set()
    assert seen >= ({"moves", "looks"} if mode == "foot" else {"moves"})
    assert seen & {"jump", "smoke"}


LOSSES = """
format = "wendonic-profile"
version = 1
[[mode.foot.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
opposites = "latest"
rise_s = 0.05
[[mode.foot.move.bind]]
stick = "pad.left_stick"
[[mode.foot.rise.bind]]
triggers = { up = "pad.right_trigger", down = "pad.left_trigger" }
[mode.foot.press]
jump = { bind = ["Space"], buffer_s = 0.2, grace_s = 0.1 }
dash = { bind = ["KeyQ"], style = "tap" }
aim = { bind = ["KeyE"], style = "toggle" }
call = { bind = ["KeyR"], style = "long" }
"""


@pytest.mark.long
def test_release_in_exported_source_does_what_a_loss_does_in_a_helm():
    """Keys in their order, sticks, triggers, presses of all kinds; what waits for the ground is forgotten."""
    played, rng = Played(profile_from_text(LOSSES), "foot"), random.Random(5)
    given, helm = played.given, played.helm
    keys = dict.fromkeys(("KeyW", "KeyS", "KeyA", "KeyD"), 0)
    presses = {"jump": "Space", "dash": "KeyQ", "aim": "KeyE", "call": "KeyR"}
    down, began, ended, count = set(), set(), set(), 0
    for tick in range(3000):
        grounded = tick // 40 % 2 == 0
        helm.ground(grounded)
        given.grounded = float(grounded)
        if rng.random() < 0.06:
            helm.lose("focus")
            played.call("release", given)
            keys, down = dict.fromkeys(keys, 0), set()
        for code, order in keys.items():
            if rng.random() < 0.05:
                # Later is larger: that is all that counts.
                count += (order == 0) * rng.randrange(1, 9)
                keys[code] = 0 if order else count
                helm.key(code, order == 0)
                setattr(given, f"key_{code[-1].lower()}", float(keys[code]))
        if rng.random() < 0.05:
            x, y, trigger = rng.uniform(-1.0, 1.0), rng.uniform(-1.0, 1.0), rng.random()
            helm.stick("pad.left_stick", x, y)
            helm.button("pad.right_trigger", trigger)
            given.left_stick_x, given.left_stick_y, given.right_trigger = x, y, trigger
        for name, code in presses.items():
            while rng.random() < 0.15:
                down ^= {name}
                helm.key(code, name in down)
                played.space[f"press_{name}"](given, name in down)
            # Told again, as by a game that asks its keys in every frame: nothing new.
            played.space[f"press_{name}"](given, float(name in down))
        intent = played.tick(rng.choice((1 / 60, 1 / 144, 0.05)))
        assert played.result.rise == pytest.approx(intent.rise, abs=1e-9)
        for name in presses:
            press, result = intent.press(name), played.result
            flags = (press.held, press.began, press.ended)
            assert flags == (
                getattr(played.state, f"{name}_held") > 0.0,
                getattr(result, f"{name}_began") > 0.0,
                getattr(result, f"{name}_ended") > 0.0,
            ), (tick, name)
            began |= {name} if press.began else set()
            ended |= {name} if press.ended else set()
    assert began == ended == set(presses)


@pytest.mark.long
@pytest.mark.parametrize(
    ("old", "new"), [("foot", "inspect"), pytest.param("inspect", "foot", marks=pytest.mark.long)]
)
def test_fingers_that_are_down_go_on_in_another_mode(old, new):
    profile = demo_profile("tablet")
    space = {"__name__": "played"}
    exec(compile(TARGETS["python"].sources(packaged(profile, "played"))["played.py"], "played.py", "exec"), space)
    helm, landed, at = Helm(profile, mode=old), [(0.3, 0.7), (0.9, 0.8)], [(0.34, 0.62), (0.9, 0.8)]

    def structs(mode):
        return [space[f"{mode.capitalize()}{kind}"]() for kind in ("State", "Input", "Result", "Finger", "Finger")]

    def land(mode):
        for finger in (0, 1):
            space[f"{mode}_touch_down"](fingers[finger], given, *landed[finger])
            space[f"{mode}_touch_move"](fingers[finger], given, *at[finger])

    def tick(mode):
        intent = helm.tick(1 / 60)
        space[f"{mode}_step"](state, given, 1 / 60, result)
        space[f"{mode}_discard_counts"](given)
        smoke = intent.press("smoke")
        assert [result.game_position_x, result.game_position_z] == pytest.approx(intent.position()[::2], abs=1e-9)
        assert (state.smoke_held, result.smoke_began, result.smoke_ended) == (smoke.held, smoke.began, smoke.ended)
        return smoke

    state, given, result, *fingers = structs(old)
    for finger in (0, 1):
        helm.touch(finger, *landed[finger])
        helm.touch(finger, *at[finger])
    land(old)
    assert [tick(old).held for _ in range(20)] == [True] * 20
    helm.enter(new)
    entered = space[f"enter_{new}_from_{old}"](state, result, given)
    state, given, result, *fingers = structs(new)
    state = entered
    land(new)
    space[f"{new}_discard_counts"](given)
    # Bent over a hive, presses that were held before end.
    assert [tick(new).held for _ in range(20)] == [new == "foot"] * 20
    helm.touch(1, *at[1], down=False)
    space[f"{new}_touch_up"](fingers[1], given)
    assert not tick(new).held
    helm.touch(1, *at[1])
    space[f"{new}_touch_down"](fingers[1], given, *at[1])
    assert tick(new).began


def turned(rng, about):
    """A quaternion of length 1, somewhere about a heading (rad), now and then steep."""
    pitch = rng.choice((0.0, 0.4, -1.5, 1.5)) + rng.gauss(0.0, 0.05)
    yaw = [0.0, math.sin(about / 2.0), 0.0, math.cos(about / 2.0)]
    tilt = [math.sin(pitch / 2.0), 0.0, 0.0, math.cos(pitch / 2.0)]
    (ax, ay, az, aw), (bx, by, bz, bw) = yaw, tilt
    return (
        aw * bx + ax * bw + ay * bz - az * by,
        aw * by - ax * bz + ay * bw + az * bx,
        aw * bz + ax * by - ay * bx + az * bw,
        aw * bw - ax * bx - ay * by - az * bz,
    )


@pytest.mark.parametrize("mode", few_of(["foot", "stroll", "point", "torch"], ["foot"]))
def test_poses_do_what_they_do_to_a_helm(mode):
    played, rng = Played(demo_profile("headset"), mode), random.Random(11)
    walked = 0.0
    for tick in range(900):
        about = 0.002 * tick
        lost = rng.choice(["head", "hand.left", "hand.right"]) if tick % 150 == 149 else ""
        for _ in range(rng.randrange(3) if lost != "head" else 0):
            place = [0.1 * math.sin(0.01 * tick), 1.6, -0.05 * math.sin(0.02 * tick)]
            quaternion = turned(rng, about)
            played.helm.pose("head.pose", place, quaternion)
            played.call("head_pose", played.given, *place, *quaternion)
        for hand, side in (("left", 1.0), ("right", -1.0)):
            squeeze = 1.0 if math.sin(0.03 * tick + side) > -0.5 else 0.2
            played.helm.button(f"hand.{hand}.squeeze", squeeze)
            for _ in range(rng.choice((1, 1, 2)) if lost != f"hand.{hand}" else 0):
                swing = math.sin(0.2 * tick + side + rng.gauss(0.0, 0.05))
                place = [0.25 * -side, 1.0 + 0.15 * swing, -0.2 - 0.25 * swing]
                quaternion = turned(rng, about)
                played.helm.pose(f"hand.{hand}.pose", place, quaternion)
                more = () if mode != "foot" else (squeeze,)
                played.call(f"hand_{hand}_pose", played.given, *place, *quaternion, *more)
        if lost:
            played.helm.lose(lost)
            played.call(f"{lost.replace('.', '_')}_lost", played.given)
        walked = max(walked, played.tick(rng.choice((1 / 60, 1 / 72))).amount)
    assert walked > 0.5 or mode != "foot"


def calls():
    """Ticks of two fingers on the glass: what is called before each."""
    rng = random.Random(3)
    told = [[("down", 0, 0.2, 0.7)], [("down", 1, 0.5, 0.2)]]
    place = [[0.2, 0.7], [0.5, 0.2]]
    for _ in range(60):
        for at in place:
            at[:] = [min(max(part + rng.gauss(0.0, 0.04), 0.0), 1.0) for part in at]
        told.append([("move", finger, *place[finger]) for finger in (0, 1)])
    return [*told, [("up", 0)], [("up", 1), ("down", 0, 0.9, 0.8)], [("up", 0)], []]


MAINS = {
    "c99": (
        '#include <stdio.h>\n#include "thumbs.h"\nint main(void) {{\n    thumbs_state state; thumbs_result result; '
        "thumbs_input input; thumbs_finger f[2] = {{{{0}}, {{0}}}};\n    thumbs_begin(&state, &result); "
        "thumbs_input_at_rest(&input);\n{body}    return 0;\n}}\n",
        "thumbs_touch_{0}(&f[{1}], &input{2});",
        "thumbs_tick(&state, &input, 1.0 / 60.0, &result); thumbs_discard_counts(&input); "
        'printf("%.17g %.17g %.17g\\n", result.game_position_x, result.game_position_y, result.look_yaw_deg);',
    ),
    "javascript": (
        'import * as p from "./thumbs.js";\nconst f = [p.newFinger(), p.newFinger()];\n'
        "const body = new p.Foot(); const input = p.newInput();\n{body}",
        "p.touch{0}(f[{1}], input{2});",
        "{{ const r = body.tick(input, 1 / 60); p.discardCounts(input); "
        "console.log(`${{r.gamePositionX}} ${{r.gamePositionY}} ${{r.lookYawDeg}}`); }}",
    ),
    "lua": (
        'local p = require("thumbs")\nlocal f = {{ [0] = p.new_finger(), p.new_finger() }}\n'
        "local state, input, result = p.new_state(), p.new_input(), p.new_result()\n{body}",
        "p.touch_{0}(f[{1}], input{2})",
        "p.tick(state, input, 1 / 60, result); p.discard_counts(input); "
        'print(string.format("%.17g %.17g %.17g", '
        "result.game_position_x, result.game_position_y, result.look_yaw_deg))",
    ),
}
RUNS = {
    "c99": ("main.c", [["gcc", "-std=c99", "main.c", "thumbs.c", "-o", "main", "-lm"], ["./main"]]),
    "javascript": ("main.mjs", [["node", "main.mjs"]]),
    "lua": ("main.lua", [["lua5.4", "main.lua"]]),
}


@pytest.mark.parametrize("language", few_of(list(MAINS), ["c99"]))
def test_fingers_do_the_same_in_other_languages(language, tmp_path):
    name, commands = RUNS[language]
    if not shutil.which(commands[0][0]):
        if os.environ.get("WENDONIC_ALL_TOOLS") == "1":
            pytest.fail(f"{commands[0][0]} is not installed")
        pytest.skip(f"{commands[0][0]} is not installed")
    profile = profile_from_text(TWO_THUMBS)
    package = packaged(profile, "thumbs")
    for file, text in TARGETS[language].sources(package).items():
        (tmp_path / file).write_text(text, encoding="utf-8")
    played = Played(profile, "foot")
    structs = [played.space["Finger"]() for _ in range(2)]
    whole, call, tick = MAINS[language]
    lines, wanted, last = [], [], {}
    for number, told in enumerate(calls()):
        if number == 30:
            shape = "windowAspectRatio" if language == "javascript" else "window_aspect_ratio"
            lines.append(f"input.{shape} = 0.75;")
            played.given.window_aspect_ratio = 0.75
            played.helm.window(3, 4)
        for what, finger, *place in told:
            given = "".join(f", {part!r}" for part in place)
            lines.append(call.format(what.capitalize() if language == "javascript" else what, finger, given))
            played.helm.touch(finger, *(place or last[finger]), down=what != "up")
            played.call(f"touch_{what}", structs[finger], played.given, *place)
            last[finger] = place or last[finger]
        played.tick(1 / 60)
        lines.append(tick.replace("{{", "{").replace("}}", "}"))
        wanted.append([getattr(played.result, one) for one in ("game_position_x", "game_position_y", "look_yaw_deg")])
    (tmp_path / name).write_text(whole.format(body="\n".join(lines) + "\n"), encoding="utf-8")
    for command in commands:
        done = subprocess.run(command, cwd=tmp_path, capture_output=True, text=True, check=False)
        assert done.returncode == 0, done.stderr
    found = [[float(part) for part in line.split()] for line in done.stdout.splitlines()]
    assert found == [pytest.approx(row, abs=1e-9) for row in wanted]
    assert max(abs(row[0]) for row in found) > 0.1
    assert max(abs(row[2]) for row in found) > 1.0
