"""Known faults, each with the findings that name it, and how to put it into a sound profile.

Kept apart from `findings/`: what a player would complain about, in kinds and sizes, not what `check` looks for. Each
changes the content of a file in place, and returns False where the profile has nothing that could have the fault.
"""

from collections.abc import Callable
from typing import Any, NamedTuple

Content = dict[str, Any]


class Defect(NamedTuple):
    """A fault by name, the slugs of which one has to be found, and what puts it into a file's content."""

    name: str
    slugs: tuple[str, ...]
    seed: Callable[[Content], bool]


def _binds(content: Content, channel: str, key: str) -> list[Any]:
    table = content["mode"]["foot"].get(channel, {})
    return [bind for bind in table.get("bind", ()) if key in bind]


def _first(channel: str, key: str, **values: Any) -> Callable[[Content], bool]:
    """Set fields of the first entry of a kind; None takes one out."""

    def seed(content: Content) -> bool:
        found = _binds(content, channel, key)
        if not found:
            return False
        for name, value in values.items():
            if value is None:
                found[0].pop(name, None)
            else:
                found[0][name] = value
        return True

    return seed


def _zone(channel: str, key: str, **values: Any) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        found = _binds(content, channel, key)
        if not found or "centre" in found[0]:
            return False
        found[0]["dead_zone"] = {**found[0].get("dead_zone", {}), **values}
        return True

    return seed


def _move(needs: str, **values: Any) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        move = content["mode"]["foot"].get("move")
        if move is None or content["mode"]["foot"]["steer"]["frame"] == "grid" or not _binds(content, "move", needs):
            return False
        for rule in ("paces", "notches", "notch_pull"):
            move.pop(rule, None)
        move.update(values)
        return True

    return seed


def _cut(inner: float, release: float) -> Callable[[Content], bool]:
    zone = _zone("move", "stick", form="cut", inner=inner, release=release)

    def seed(content: Content) -> bool:
        return _first("move", "stick", curve={"form": "linear"})(content) and zone(content)

    return seed


def _gait(frames: tuple[str, ...] = ("camera", "map", "facing", "goto"), **values: Any) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        mode = content["mode"]["foot"]
        gait = content.get("gait", {}).get(mode.get("gait", ""), {})
        if mode["steer"]["frame"] not in frames or "drag_per_s" in gait or not gait:
            return False
        for name, value in values.items():
            gait.pop(name, None) if value is None else gait.update({name: value})
        return True

    return seed


def _run(**values: Any) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        gait = content.get("gait", {}).get("foot_run")
        if gait is None:
            return False
        gait.update(values)
        return True

    return seed


def _ceiling(share: float) -> Callable[[Content], bool]:
    """A lower ceiling, where neither paces nor squares make full speed of it again."""
    lowered = _first("move", "stick", curve={**ONLY_KEYS, "ceiling": share})

    def seed(content: Content) -> bool:
        mode = content["mode"]["foot"]
        if "paces" in mode.get("move", {}) or mode.get("steer", {}).get("frame") == "grid":
            return False
        return lowered(content)

    return seed


def _steer(frames: tuple[str, ...], needs: str = "", **values: Any) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        steer = content["mode"]["foot"]["steer"]
        if steer["frame"] not in frames or (needs and not _binds(content, "move", needs)):
            return False
        if needs == "stick":
            # Pulled to a direction, no stick trembles about a border.
            content["mode"]["foot"]["move"].pop("notches", None)
            content["mode"]["foot"]["move"].pop("notch_pull", None)
        steer.update(values)
        return True

    return seed


def _for_one_player(content: Content) -> bool:
    """Give all keys, and with them a press that no pad makes, to the first of two players."""
    foot = content["mode"]["foot"]
    pressed = [
        press for press in foot.get("press", {}).values() if not any("pad" in str(one) for one in press["bind"])
    ]
    keys = [code for bind in _binds(content, "move", "keys") for side in bind["keys"].values() for code in side]
    keys += [str(one).removeprefix("key.") for press in pressed for one in press["bind"] if "key." in str(one)]
    if content.get("seat") or not pressed or not _binds(content, "move", "stick") or not keys:
        return False
    content["seat"] = {"one": {"keys": sorted(set(keys))}, "two": {}}
    return True


def _press(name: str, **values: Any) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        press = content["mode"]["foot"].get("press", {}).get(name)
        if press is None or (name == "jump" and not content["gait"]["foot"].get("jump")):
            return False
        press.update(values)
        return True

    return seed


def _jump(**values: Any) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        gait = content.get("gait", {}).get("foot", {})
        if "jump" not in gait:
            return False
        gait["jump"] = values
        return True

    return seed


def _run_without_a_jump(content: Content) -> bool:
    run = content.get("gait", {}).get("foot_run", {})
    # All gaits of a mode have weight, or none has.
    run["gravity_m_s2"] = 20.0
    return run.pop("jump", None) is not None


def _exchange(channel: str, one: str, other: str) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        found = _binds(content, channel, "keys")
        keys = found[0]["keys"] if found else {}
        if one not in keys or other not in keys or keys[one] == ["Space"] or keys[other] == ["Space"]:
            return False
        found[0]["keys"] = {**keys, one: keys[other], other: keys[one]}
        return True

    return seed


def _without(channel: str, side: str) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        table = content["mode"]["foot"].get(channel)
        found = _binds(content, channel, "keys")
        if table is None or not found or content["mode"]["foot"]["steer"]["frame"] == "grid":
            return False
        table["bind"] = [
            {**found[0], "keys": {name: codes for name, codes in found[0]["keys"].items() if name != side}}
        ]
        return True

    return seed


def _added(channel: str, **bind: Any) -> Callable[[Content], bool]:
    def seed(content: Content) -> bool:
        mode = content["mode"]["foot"]
        if channel not in mode or _binds(content, channel, next(iter(bind))):
            return False
        mode[channel]["bind"].append(dict(bind))
        return True

    return seed


def _no_way_out(content: Content) -> bool:
    if "other" not in content["mode"]:
        return False
    content["mode"]["other"]["leave_to"] = []
    return True


def _no_way_in(content: Content) -> bool:
    if "other" not in content["mode"]:
        return False
    content["mode"]["foot"]["leave_to"] = []
    return True


def _mouse_and_stick_rise(content: Content) -> bool:
    rise = content["mode"]["foot"].get("rise")
    if rise is None:
        return False
    rise["bind"] = [{"keys": {"up": ["ArrowDown"], "down": ["ArrowUp"]}}]
    move = content["mode"]["foot"].get("move", {"bind": []})
    return not any("ArrowUp" in bind.get("keys", {}).get("forward", ()) for bind in move["bind"])


ON_FOOT = ("camera", "map", "facing")
FAST = ("diagonal-too-fast",)
SLOW = ("diagonal-too-slow",)
SMOOTH = ("slow-answer",)
JERKS = ("jump-at-dead-zone",)
ONLY_KEYS = {"form": "power", "exponent": 1.5}


def _free_corners(content: Content) -> bool:
    if not _move("stick", diagonal="free")(content):
        return False
    curve = {"form": "linear", "ceiling": 0.6}
    zone = {"form": "axes", "inner": 0.12, "outer": 0.85}
    return _first("move", "stick", dead_zone=zone, curve=curve, diagonal=None)(content)


def _key_missing_beside_a_stick(content: Content) -> bool:
    found = _binds(content, "move", "keys")
    if not found or not _binds(content, "move", "stick"):
        return False
    found[0]["keys"].pop("left")
    return True


def _without_turn(content: Content) -> bool:
    mode = content["mode"]["foot"]
    return mode["steer"]["frame"] == "drive" and mode.pop("turn", None) is not None


def _gait_of_no_mode(content: Content) -> bool:
    content.setdefault("gait", {})["run"] = {"top_speed_m_s": 9.0}
    return True


DEFECTS = (
    Defect("free diagonals, keys", FAST, _move("keys", diagonal="free")),
    Defect("a stick's corners, free and below full speed", FAST, _free_corners),
    Defect("diagonal factor 0.95", FAST, _move("keys", diagonal="factor", diagonal_factor=0.95)),
    Defect("diagonal factor 0.8", FAST, _move("keys", diagonal="factor", diagonal_factor=0.8)),
    Defect("diagonal factor 0.45", SLOW, _move("keys", diagonal="factor", diagonal_factor=0.45)),
    Defect("diagonal factor 0.07, a slip of a digit", SLOW, _move("keys", diagonal="factor", diagonal_factor=0.07)),
    Defect("a stick under the rule unit", ("tilt-by-the-rule-of-keys",), _first("move", "stick", diagonal="unit")),
    Defect("smoothing 60 ms", SMOOTH, _move("keys", half_life_s=0.06)),
    Defect("smoothing 80 ms, stick", SMOOTH, _move("stick", half_life_s=0.08)),
    Defect("smoothing 170 ms", SMOOTH, _move("keys", half_life_s=0.17)),
    Defect("smoothing 400 ms", SMOOTH, _move("keys", half_life_s=0.4)),
    Defect("key ramp 0.3 s", SMOOTH, _first("move", "keys", rise_s=0.3)),
    Defect("key ramp 0.5 s", SMOOTH, _first("move", "keys", rise_s=0.5)),
    Defect("throttle ramp 0.5 s", SMOOTH, _first("throttle", "keys", rise_s=0.5)),
    Defect("turn ramp 0.6 s", SMOOTH, _first("turn", "keys", rise_s=0.6)),
    Defect("mouse smoothing 80 ms", SMOOTH, _first("look", "mouse", half_life_s=0.08)),
    Defect("mouse smoothing 300 ms", SMOOTH, _first("look", "mouse", half_life_s=0.3)),
    Defect("dead zone 0.24", ("dead-zone-large",), _zone("move", "stick", form="round", inner=0.24)),
    Defect("dead zone 0.4", ("dead-zone-large",), _zone("move", "stick", form="round", inner=0.4)),
    Defect("dead zone 0.3, look", ("dead-zone-large",), _zone("look", "stick", form="round", inner=0.3)),
    Defect("dead zone 0.35, throttle", ("dead-zone-large",), _zone("throttle", "axis", form="round", inner=0.35)),
    Defect("dead zone 0.01", ("dead-zone-small",), _zone("move", "stick", form="round", inner=0.01)),
    Defect("no dead zone", ("dead-zone-small",), _zone("move", "stick", form="none")),
    Defect("dead zone 0.02, look", ("dead-zone-small",), _zone("look", "stick", form="round", inner=0.02)),
    Defect("no dead zone, turn", ("dead-zone-small",), _zone("turn", "axis", form="none")),
    Defect("cut at 0.2 with a margin", JERKS, _cut(0.2, 0.15)),
    Defect("cut at 0.15 without a margin", ("chatters",), _cut(0.15, 0.15)),
    Defect("floor 0.25", JERKS, _first("move", "stick", curve={"form": "linear", "floor": 0.25})),
    Defect("floor 0.4, look", JERKS, _first("look", "stick", curve={"form": "expo", "amount": 0.8, "floor": 0.4})),
    Defect("full from half the tilt on", ("full-too-early",), _zone("move", "stick", form="round", outer=0.5)),
    Defect("full from half the tilt on, look", ("full-too-early",), _zone("look", "stick", form="round", outer=0.45)),
    Defect("rim at 1.0", ("rim-out-of-reach",), _zone("move", "stick", form="round", outer=1.0)),
    Defect("rim at 0.995, look", ("rim-out-of-reach",), _zone("look", "stick", form="round", outer=0.995)),
    Defect("rim at 1.0, throttle axis", ("rim-out-of-reach",), _zone("throttle", "axis", form="round", outer=1.0)),
    Defect(
        "a flat curve",
        ("curve-flat",),
        _first("move", "stick", curve={"form": "points", "points": [[0, 0], [0.2, 0.3], [0.7, 0.3], [1, 1]]}),
    ),
    Defect(
        "a nearly flat curve",
        ("curve-flat",),
        _first("move", "stick", curve={"form": "points", "points": [[0, 0], [0.2, 0.3], [0.7, 0.32], [1, 1]]}),
    ),
    Defect("ceiling 0.7", ("full-input-too-little",), _ceiling(0.7)),
    Defect("ceiling 0.3", ("full-input-too-little",), _ceiling(0.3)),
    Defect(
        "ceiling 0.5, throttle",
        ("full-input-too-little",),
        _first("throttle", "axis", curve={**ONLY_KEYS, "ceiling": 0.5}),
    ),
    Defect(
        "look 900 deg/s, linear",
        ("look-too-fast-to-aim",),
        _first("look", "stick", yaw_deg_s=900.0, curve={"form": "linear"}),
    ),
    Defect("left and right keys exchanged", ("mirrored-keys",), _exchange("move", "left", "right")),
    Defect("forward and back keys exchanged", ("mirrored-keys",), _exchange("move", "forward", "back")),
    Defect("throttle keys exchanged", ("mirrored-keys",), _exchange("throttle", "forward", "back")),
    Defect("turn keys exchanged", ("mirrored-keys",), _exchange("turn", "left", "right")),
    Defect("rise keys exchanged", ("mirrored-keys",), _mouse_and_stick_rise),
    Defect(
        "axes crossed",
        ("crossed-axes",),
        _added("move", axes={"x": "pad.right_stick.y", "y": "pad.right_stick.x"}, shared=True),
    ),
    Defect("mouse mirrored", ("mirrored-look",), _first("look", "mouse", invert_yaw=True)),
    Defect("look stick mirrored", ("mirrored-look",), _first("look", "stick", invert_yaw=True)),
    Defect("gyro mirrored", ("mirrored-look",), _first("look", "gyro", invert_yaw=True)),
    Defect("opposites latest, keys", ("opposites-do-not-cancel",), _first("move", "keys", opposites="latest")),
    Defect("opposites earliest, d-pad", ("opposites-do-not-cancel",), _first("move", "dpad", opposites="earliest")),
    Defect(
        "opposites latest, throttle", ("opposites-do-not-cancel",), _first("throttle", "keys", opposites="latest")
    ),
    Defect("opposites latest, turn", ("opposites-do-not-cancel",), _first("turn", "keys", opposites="latest")),
    Defect("opposites latest, rise", ("opposites-do-not-cancel",), _first("rise", "keys", opposites="latest")),
    Defect("no key to the left", ("direction-missing",), _without("move", "left")),
    Defect("no key back", ("direction-missing",), _without("move", "back")),
    Defect("no key down", ("direction-missing",), _without("rise", "down")),
    Defect("no key to the left, beside a stick", ("direction-missing",), _key_missing_beside_a_stick),
    Defect("a cart that nothing turns", ("direction-missing",), _without_turn),
    Defect("a press that the second player has not", ("press-of-one-player",), _for_one_player),
    Defect("a sprint that is tapped", ("held-for-a-tick",), _press("sprint", style="tap")),
    Defect("a gait of no mode", ("gait-unused",), _gait_of_no_mode),
    Defect("brake 2", ("slides-on",), _gait(brake_m_s2=0.8, reverse_m_s2=None)),
    Defect("coasting half-life 1.5 s", ("slides-on",), _gait(coast_half_life_s=1.5, reverse_m_s2=None)),
    Defect("a sprint that slides", ("slides-on",), _run(top_speed_m_s=9.0, brake_m_s2=2.0)),
    Defect("acceleration 1", ("slow-start",), _gait(accel_m_s2=1.0)),
    Defect("a sprint that starts slowly", ("slow-start",), _run(accel_m_s2=1.5)),
    Defect("reverse weaker than the brake", ("reversing-brakes-less",), _gait(brake_m_s2=16.0, reverse_m_s2=5.0)),
    Defect("turning at 20 deg/s", ("turns-slowly",), _steer(("camera", "map"), "keys", turn_deg_s=20.0)),
    Defect("turning at 90 deg/s", ("turns-slowly",), _steer(("camera", "map"), "keys", turn_deg_s=90.0)),
    Defect("turning at 1 deg/s", ("turns-slowly",), _steer(("camera", "map"), "keys", turn_deg_s=1.0)),
    Defect("a cart that turns at 1 deg/s", ("turns-slowly",), _steer(("drive",), turn_deg_s=1.0)),
    Defect("a cart that turns at 10 deg/s", ("turns-slowly",), _steer(("drive",), turn_deg_s=10.0)),
    Defect(
        "facings without a margin",
        ("facing-flickers",),
        _steer(("camera", "map"), "stick", sectors=8, sector_margin_deg=0.0),
    ),
    Defect("a buffer of 1.5 s", ("jumps-by-itself",), _press("jump", buffer_s=1.9)),
    Defect("a grace of 0.4 s", ("grace-long",), _press("jump", grace_s=0.4)),
    Defect("a grace of 0.9 s", ("grace-long",), _press("jump", grace_s=0.9)),
    Defect(
        "a top speed in pixels",
        ("unit-mistaken",),
        _gait(top_speed_m_s=200.0, accel_m_s2=2000.0, brake_m_s2=3000.0, reverse_m_s2=None),
    ),
    Defect("a run that cannot jump", ("jump-lost-in-gait",), _run_without_a_jump),
    Defect("a jump of 12 m", ("jump-high",), _jump(height_m=12.0)),
    Defect("a jump at 30 m/s", ("jump-high",), _jump(speed_m_s=30.0)),
    Defect("a double press within no time", ("press-out-of-reach",), _press("use", style="double", double_s=0.0)),
    Defect("a jump that takes 3 s to the top", ("jump-time",), _jump(height_m=1.0, apex_s=3.0)),
    Defect("a jump that takes 0.03 s to the top", ("jump-time",), _jump(height_m=1.0, apex_s=0.03)),
    Defect("a double press within 0.05 s", ("press-too-quick",), _press("use", style="double", double_s=0.05)),
    Defect("a tap of 0.03 s", ("press-too-quick",), _press("use", style="tap", tap_s=0.03)),
    Defect("a look stick at 20 deg/s", ("stick-turn",), _first("look", "stick", yaw_deg_s=20.0)),
    Defect("a look stick at 2,000 deg/s", ("stick-turn",), _first("look", "stick", yaw_deg_s=2000.0)),
    Defect("a gyro that hardly turns", ("gyro-turn",), _first("look", "gyro", turn_ratio=0.02)),
    Defect("a gyro that spins", ("gyro-turn",), _first("look", "gyro", turn_ratio=40.0)),
    Defect("a thumb that hardly moves", ("thumb-slides",), _first("move", "touch_stick", radius=0.01)),
    Defect("a thumb that crosses the glass", ("thumb-slides",), _first("move", "touch_stick", radius=0.6)),
    Defect("a mouse turn of 3 cm", ("mouse-turn",), _first("look", "mouse", cm_per_turn=3.0)),
    Defect("a mouse turn of 300 cm", ("mouse-turn",), _first("look", "mouse", cm_per_turn=300.0)),
    Defect(
        "notches to 3 directions",
        ("no-mirror-image",),
        _move("stick", notches=3, notch_pull=1.0),
    ),
    Defect(
        "one pace",
        ("analogue-lost",),
        _move("stick", paces=[{"above": 0.0, "amount": 1.0}]),
    ),
    Defect(
        "paces without a margin",
        ("chatters",),
        _move("stick", paces=[{"above": 0.0, "amount": 0.4}, {"above": 0.5, "amount": 1.0}], pace_margin=0.0),
    ),
    Defect(
        "squares without a margin",
        ("chatters",),
        _steer(("grid",), "stick", margin_deg=0.0),
    ),
    Defect(
        "a trigger that presses without a margin",
        ("press-trembles",),
        _press(
            "use", style="hold", bind=[{"control": "pad.left_trigger", "above": 0.5, "release": 0.499}], shared=True
        ),
    ),
    Defect("a mode that cannot be left", ("mode-without-a-way-out",), _no_way_out),
    Defect("a mode that nobody enters", ("mode-without-a-way-in",), _no_way_in),
    Defect(
        "a setting that does nothing",
        ("idle-number",),
        _zone("look", "stick", form="none", inner=0.1),
    ),
)
