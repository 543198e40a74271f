"""Profiles with nothing wrong, drawn at random from what the schema allows, within what people play with."""

import random
from typing import Any

import tomlkit

from wendonic.profile.edit_text import inlined

Content = dict[str, Any]
KEYS = {"forward": ["KeyW"], "back": ["KeyS"], "left": ["KeyA"], "right": ["KeyD"]}
ARROWS = {"forward": ["ArrowUp"], "back": ["ArrowDown"], "left": ["ArrowLeft"], "right": ["ArrowRight"]}
FRAMES = ("camera", "map", "facing", "drive", "fly", "grid", "goto")
OTHERS = ("ship", "side", "slip")
"""What is turned by the channel turn against drag, what is seen from the side, and a cart that slips."""


def other_sound_profile(seed: int) -> str:
    """Return the text of a sound profile of one mode of the `OTHERS`; the same seed gives the same one."""
    draw = random.Random(seed)
    kind = OTHERS[seed % len(OTHERS)]
    if kind == "ship":
        drag = _near(draw, 0.6, 2.0)
        gait: Content = {"thrust_m_s2": float(f"{drag * draw.uniform(3.0, 8.0):.3g}"), "drag_per_s": drag}
        steer: Content = {"frame": draw.choice(["facing", "facing", "map"]), "face": "turn"}
        steer["turn_deg_s"] = _near(draw, 90, 270)
        mode = {"steer": steer, "turn": {"bind": [_pair(draw, "turn", ("right", "left"), ["KeyD"], ["KeyA"], "x")]}}
        mode["move"] = {"bind": [{"keys": {"forward": ["KeyW"], "back": ["KeyS"]}}]}
    elif kind == "side":
        keys = {"left": ["KeyA"], "right": ["KeyD"]}
        mode = {"steer": {"frame": "map", "side_view": True, "sectors": 2}, "move": {"bind": [{"keys": keys}]}}
        if draw.random() < 0.5:
            mode["move"]["bind"].append({"stick": "pad.left_stick", "dead_zone": _zone(draw), "curve": _curve(draw)})
        mode["press"] = {"jump": {"bind": ["key.Space", "pad.south"], "buffer_s": 0.1, "grace_s": 0.08}}
        gait = _gait(draw, mode)
    else:
        mode = _mode(draw, "drive")
        mode["steer"]["grip"] = _near(draw, 0.1, 0.9)
        gait = _gait(draw, mode)
    content = {"format": "wendonic-profile", "version": 1, "mode": {"foot": {**mode, "gait": "foot"}}}
    return text_of({**content, "gait": {"foot": gait}})


def sound_profile(seed: int) -> str:
    """Return the text of a sound profile; the same seed gives the same one."""
    draw = random.Random(seed)
    frame = FRAMES[seed % len(FRAMES)]
    modes = {"foot": _mode(draw, frame)}
    if draw.random() < 0.3:
        modes["other"] = _mode(draw, draw.choice(FRAMES))
        for name, other in (("foot", "other"), ("other", "foot")):
            modes[name]["leave_to"] = [other]
    gaits: Content = {}
    for name, mode in modes.items():
        if mode["steer"]["frame"] == "grid":
            continue
        gaits[name] = _gait(draw, mode)
        mode["gait"] = name
        if "sprint" in mode.get("press", {}):
            gaits[f"{name}_run"] = _gait(draw, mode, faster=1.4, jumps=gaits[name].get("jump"))
            mode["press_gaits"] = {"sprint": f"{name}_run"}
    content: Content = {"format": "wendonic-profile", "version": 1, "mode": modes}
    if gaits:
        content["gait"] = gaits
    if any("goal" in mode for mode in modes.values()):
        content["window"] = {"plan": {"left_m": -8.0, "back_m": -4.5, "right_m": 8.0, "forward_m": 4.5}}
    return text_of(content)


def text_of(content: Content) -> str:
    """Return content as TOML."""
    return tomlkit.dumps({name: _listed(value) for name, value in content.items()})


def _listed(value: Any) -> Any:
    if isinstance(value, dict):
        return {name: _listed(part) for name, part in value.items()}
    if isinstance(value, list) and value and isinstance(value[0], dict):
        array = tomlkit.aot()
        for part in value:
            table = tomlkit.table()
            table.update({name: inlined(one) for name, one in part.items()})
            array.append(table)
        return array
    return value


def _near(draw: random.Random, low: float, high: float) -> float:
    return float(f"{draw.uniform(low, high):.3g}")


def _mode(draw: random.Random, frame: str) -> Content:
    mode: Content = {"steer": _steer(draw, frame)}
    if frame == "drive":
        mode["throttle"] = {"bind": [_pair(draw, "throttle", ("forward", "back"), ["KeyW"], ["KeyS"], "y")]}
        mode["turn"] = {"bind": [_pair(draw, "turn", ("right", "left"), ["KeyD"], ["KeyA"], "x")]}
    else:
        mode["move"] = _move(draw, frame)
    if frame == "fly":
        mode["rise"] = {"bind": [{"keys": {"up": ["Space"], "down": ["ControlLeft"]}}]}
    if frame == "goto":
        mode["goal"] = {"bind": [{"pointer": "pointer.at"}]}
    if draw.random() < 0.6 and frame not in ("grid", "goto"):
        mode["look"] = _look(draw)
    presses: Content = {}
    if frame in ("camera", "map", "facing") and draw.random() < 0.6:
        presses["jump"] = {"bind": ["key.Space", "pad.south"]}
        presses["jump"] |= {"buffer_s": _near(draw, 0.05, 0.15), "grace_s": _near(draw, 0.05, 0.15)}
    if frame in ("camera", "map") and draw.random() < 0.4:
        presses["sprint"] = {"bind": ["key.ShiftLeft", "pad.left_bumper"], "style": draw.choice(["hold", "toggle"])}
    if draw.random() < 0.3:
        presses["use"] = {"bind": ["key.KeyE"], "style": draw.choice(["tap", "long", "double", "repeat", "hold"])}
    if presses:
        mode["press"] = presses
    return mode


def _steer(draw: random.Random, frame: str) -> Content:
    steer: Content = {"frame": frame}
    if frame == "drive":
        steer |= {"turn_deg_s": _near(draw, 70, 180), "turn_radius_m": _near(draw, 1.0, 4.0)}
        steer["reverse_ratio"] = _near(draw, 0.3, 0.8)
    elif frame == "grid":
        steer |= {"step_s": _near(draw, 0.12, 0.3), "turn_deg_s": 1440.0}
    elif frame == "fly":
        steer["level"] = draw.random() < 0.5
    elif frame == "goto":
        steer |= {"arrival_m": _near(draw, 0.05, 0.3), "slow_down_m": _near(draw, 0.3, 1.5)}
    else:
        steer["turn_deg_s"] = _near(draw, 360, 900)
    if frame in ("camera", "map") and draw.random() < 0.5:
        steer |= {"sectors": draw.choice([4, 8, 16]), "sector_margin_deg": _near(draw, 5, 8)}
    return steer


def _ramps(draw: random.Random) -> Content:
    return {"rise_s": _near(draw, 0.0, 0.12), "fall_s": _near(draw, 0.0, 0.1)} if draw.random() < 0.7 else {}


def _pair(draw: random.Random, channel: str, sides: Any, first: Any, second: Any, axis: str) -> Content:
    kind = draw.choice(["keys", "axis", "triggers"] if channel == "throttle" else ["keys", "axis"])
    if kind == "keys":
        return {"keys": dict(zip(sides, (first, second), strict=True)), **_ramps(draw)}
    if kind == "axis":
        return {"axis": f"pad.left_stick.{axis}", "dead_zone": _zone(draw, ("round", "axes"))}
    return {"triggers": dict(zip(sides, ("pad.right_trigger", "pad.left_trigger"), strict=True))}


def _move(draw: random.Random, frame: str) -> Content:
    binds: list[Content] = []
    crisp = frame == "grid"
    if draw.random() < 0.8:
        binds.append({"keys": draw.choice([KEYS, ARROWS]), **({} if crisp else _ramps(draw))})
    if draw.random() < 0.6 or not binds:
        stick = {"stick": "pad.left_stick", "dead_zone": _zone(draw), "curve": _curve(draw)}
        if draw.random() < 0.2:
            stick |= {"centre": [_near(draw, -0.04, 0.04), _near(draw, -0.04, 0.04)]}
        binds.append(stick)
    if draw.random() < 0.2:
        binds.append({"dpad": "pad.dpad"})
    if draw.random() < 0.15:
        binds.append({"touch_stick": "left half", "radius": _near(draw, 0.08, 0.2)})
    move: Content = {"bind": binds}
    if not crisp:
        move["half_life_s"] = _near(draw, 0.0, 0.04)
        if draw.random() < 0.15:
            move["paces"] = [{"above": 0.0, "amount": 0.4}, {"above": 0.6, "amount": 1.0}]
        elif draw.random() < 0.2:
            move |= {"notches": draw.choice([4, 8, 16]), "notch_pull": _near(draw, 0.2, 1.0)}
    return move


def _zone(draw: random.Random, forms: Any = ("round", "axes", "round+wedge")) -> Content:
    return {"form": draw.choice(forms), "inner": _near(draw, 0.09, 0.17), "outer": _near(draw, 0.9, 0.97)}


def _curve(draw: random.Random) -> Content:
    return draw.choice(
        [
            {"form": "linear"},
            {"form": "power", "exponent": _near(draw, 1.1, 2.4)},
            {"form": "expo", "amount": _near(draw, 0.2, 0.8)},
            {"form": "s", "amount": _near(draw, 0.2, 0.7)},
            {"form": "knee", "at": [_near(draw, 0.4, 0.6), _near(draw, 0.2, 0.4)]},
            {"form": "points", "points": [[0, 0], [0.4, _near(draw, 0.15, 0.3)], [1, 1]]},
        ]
    )


def _look(draw: random.Random) -> Content:
    binds: list[Content] = []
    if draw.random() < 0.7:
        binds.append(
            {"mouse": "mouse.move", "cm_per_turn": _near(draw, 15, 80), "dpi": draw.choice([400, 800, 1600])}
        )
    if draw.random() < 0.5 or not binds:
        stick: Content = {"stick": "pad.right_stick", "dead_zone": _zone(draw, ("round", "axes"))}
        stick |= {"yaw_deg_s": _near(draw, 120, 300), "curve": {"form": "expo", "amount": _near(draw, 0.4, 0.8)}}
        binds.append(stick)
    if draw.random() < 0.2:
        binds.append({"gyro": "pad.gyro", "turn_ratio": _near(draw, 0.8, 4.0)})
    return {"bind": binds}


def _gait(draw: random.Random, mode: Content, faster: float = 1.0, jumps: Any = None) -> Content:
    frame = mode["steer"]["frame"]
    glides = frame in ("drive", "fly")
    top = float(f"{faster * draw.uniform(2.0, 5.0):.3g}")
    body = _near(draw, 0.4, 0.9)
    gait: Content = {"body_m": body}
    kind = draw.random()
    if kind < 0.15 and faster == 1.0 and not jumps and "jump" not in mode.get("press", {}):
        drag = _near(draw, 4.0, 8.0)
        return {**gait, "thrust_m_s2": float(f"{drag * min(top, 3.0):.3g}"), "drag_per_s": drag}
    gait["top_speed_m_s"] = top
    gait["accel_m_s2"] = float(f"{top / (draw.uniform(0.5, 2.0) if glides else draw.uniform(0.08, 0.5)):.3g}")
    within = body * draw.uniform(0.3, 0.9)
    gait["brake_m_s2"] = float(f"{top / draw.uniform(0.5, 2.0) if glides else top * top / (2.0 * within):.3g}")
    if kind > 0.8 and not glides:
        gait["reverse_m_s2"] = float(f"{gait['brake_m_s2'] * draw.uniform(1.0, 1.6):.3g}")
    if frame == "fly":
        gait["rise_m_s"] = _near(draw, 1.0, 4.0)
    if "jump" in mode.get("press", {}):
        gait["jump"] = {"height_m": _near(draw, 0.8, 4.0 * body), "apex_s": _near(draw, 0.25, 0.5)}
    return gait
