"""Whole games with nothing wrong, drawn at random, each kind as its programmer would write it: units of their own,
screens with y down, players who share a keyboard, presses that aim, crouch and dash, headsets and phones.
"""

import random
import re
from typing import Any

from sound_profiles import ARROWS, KEYS, text_of

Content = dict[str, Any]
HANDS = (KEYS, ARROWS, {"forward": ["KeyI"], "back": ["KeyK"], "left": ["KeyJ"], "right": ["KeyL"]})
WORLDS: tuple[Content, ...] = (
    {"right": "+x", "forward": "-y"},
    {"right": "+x", "forward": "-z", "up": "+y"},
    {"right": "+x", "forward": "+y", "up": "+z"},
    {"right": "-x", "forward": "+z", "up": "+y"},
)


def sound_game(seed: int) -> str:
    """Return the text of a sound profile; the same seed gives the same one."""
    kinds = (couch, pixels, platformer, drone, pointed, shooter, swimmer, headset, phone, cells, racer, stealth)
    draw = random.Random(seed)
    game = kinds[seed % len(kinds)](draw)
    return text_of({"format": "wendonic-profile", "version": 1, **game})


def near(draw: random.Random, low: float, high: float) -> float:
    """Return a number between two, as one writes it."""
    return float(f"{draw.uniform(low, high):.3g}")


def walk(draw: random.Random, body_m: float = 0.6) -> Content:
    """Return a gait on foot that stops within its body."""
    top = near(draw, 2.0, 6.0)
    brake = float(f"{top * top / (2.0 * draw.uniform(0.3, 0.9) * body_m):.3g}")
    return {"top_speed_m_s": top, "accel_m_s2": float(f"{top / draw.uniform(0.06, 0.3):.3g}"), "brake_m_s2": brake}


def in_pixels(fields: Content, units_per_m: float) -> Content:
    """Return fields with their lengths in the game's own unit."""
    found: Content = {}
    for name, value in fields.items():
        own = re.sub(r"_m(_s2?)?$", r"_u\1", name)
        if isinstance(value, dict):
            found[name] = in_pixels(value, units_per_m)
        else:
            found[own] = float(f"{value * units_per_m:.4g}") if own != name else value
    return found


def stick(draw: random.Random, name: str = "pad.left_stick") -> Content:
    """Return a stick as it is usually set."""
    zone = {"inner": near(draw, 0.09, 0.18), "outer": near(draw, 0.88, 0.97)}
    curves: list[Content] = [{"form": "linear"}, {"form": "power", "exponent": near(draw, 1.2, 2.2)}]
    return {"stick": name, "dead_zone": zone, "curve": draw.choice(curves)}


def couch(draw: random.Random) -> Content:
    """Players who share a keyboard, by seats or with all keys for everybody."""
    hands = draw.sample(HANDS, draw.choice([2, 2, 3]))
    keys = {side: [hand[side][0] for hand in hands] for side in KEYS}
    mode: Content = {"steer": {"frame": "map", "sectors": draw.choice([4, 8])}, "gait": "walk"}
    mode["move"] = {"bind": [{"keys": keys}, stick(draw)]}
    game: Content = {"mode": {"yard": mode}, "gait": {"walk": walk(draw)}}
    if draw.random() < 0.7:
        names = ["anna", "bela", "cleo"]
        game["seat"] = {
            name: {"keys": [codes[0] for codes in hand.values()]} for name, hand in zip(names, hands, strict=False)
        }
    return game


def pixels(draw: random.Random) -> Content:
    """From above in pixels, y down."""
    units = draw.choice([16, 32, 48, 100])
    world = {**WORLDS[0], "unit": "px", "units_per_m": units}
    mode: Content = {"steer": {"frame": "map", "sectors": draw.choice([2, 4, 8])}, "gait": "walk"}
    mode["move"] = {"bind": [{"keys": KEYS}, {"dpad": "pad.dpad"}, stick(draw)]}
    mode["press"] = {"dash": {"bind": ["key.Space", "pad.south"], "style": "tap"}}
    if draw.random() < 0.5:
        mode["move"]["press_amounts"] = {"sneak": near(draw, 0.3, 0.6)}
        mode["press"]["sneak"] = {"bind": ["key.ShiftLeft", "pad.left_bumper"]}
    return {"world": world, "mode": {"yard": mode}, "gait": {"walk": in_pixels(walk(draw), units)}}


def platformer(draw: random.Random) -> Content:
    """From the side in pixels: a jump that is cut, an air jump, a gait to duck in."""
    units = draw.choice([32, 48, 64])
    world = {"right": "+x", "up": draw.choice(["+y", "-y"]), "unit": "px", "units_per_m": units}
    steer = {"frame": "map", "side_view": True}
    keys = {"left": ["KeyA", "ArrowLeft"], "right": ["KeyD", "ArrowRight"]}
    mode: Content = {"steer": steer, "gait": "walk", "move": {"bind": [{"keys": keys}, stick(draw)]}}
    jump = {"bind": ["key.Space", "pad.south"], "buffer_s": near(draw, 0.06, 0.14), "grace_s": near(draw, 0.05, 0.12)}
    if draw.random() < 0.5:
        jump["air_jumps"] = 1
    duck = {"bind": ["key.KeyS", {"stick": "pad.left_stick", "towards": "down", "above": near(draw, 0.3, 0.8)}]}
    mode["press"] = {"jump": jump, "duck": {**duck, "shared": True}}
    mode["press_gaits"] = {"duck": "ducked"}
    gait = walk(draw)
    flight = {"gravity_m_s2": near(draw, 18, 40)}
    flight["jump"] = {"press": "jump", "height_m": near(draw, 1.2, 2.3), "early_release_ratio": near(draw, 0.3, 0.6)}
    airborne = {"accel_m_s2": gait["accel_m_s2"] * 0.6, "brake_m_s2": gait["brake_m_s2"] * 0.5}
    low = {**gait, "top_speed_m_s": float(f"{0.4 * gait['top_speed_m_s']:.3g}")}
    gaits = {"walk": {**gait, **flight, "airborne": airborne}, "ducked": {**low, **flight}}
    return {
        "world": world,
        "mode": {"hop": mode},
        "gait": {name: in_pixels(one, units) for name, one in gaits.items()},
    }


def drone(draw: random.Random) -> Content:
    """One stick climbs and turns, the other flies."""
    mode: Content = {"steer": {"frame": "fly", "face": "view"}, "gait": "drone"}
    mode["move"] = {"bind": [stick(draw, "pad.right_stick")]}
    mode["rise"] = {"bind": [{"axis": "pad.left_stick.y", "dead_zone": {"inner": near(draw, 0.1, 0.18)}}]}
    turns = {"stick": "pad.left_stick", "yaw_deg_s": near(draw, 90, 200), "turns": "yaw"}
    mode["look"] = {"bind": [turns]}
    top = near(draw, 4, 12)
    gait = {"top_speed_m_s": top, "accel_m_s2": near(draw, top / 2, top), "brake_m_s2": near(draw, top / 2, 2 * top)}
    return {
        "world": draw.choice(WORLDS[1:]),
        "mode": {"air": mode},
        "gait": {"drone": {**gait, "rise_m_s": near(draw, 1, 4)}},
    }


def pointed(draw: random.Random) -> Content:
    """Point, click, walk: in pixels or in metres."""
    units = draw.choice([1, 32, 60])
    shown = (1280, 720) if units > 1 else (24.0, 13.5)
    of = "u" if units > 1 else "m"
    plan = {f"left_{of}": 0, f"right_{of}": shown[0], f"forward_{of}": 0, f"back_{of}": shown[1]}
    steer = {"frame": "goto", "arrival_m": near(draw, 0.05, 0.2), "slow_down_m": near(draw, 0.4, 1.2)}
    gait = walk(draw)
    world: Content = dict(WORLDS[0])
    if units > 1:
        world |= {"unit": "px", "units_per_m": units}
        steer, gait = in_pixels(steer, units), in_pixels(gait, units)
    mode: Content = {"steer": steer, "gait": "walk", "goal": {"bind": [{"pointer": "pointer.at"}]}}
    if draw.random() < 0.5:
        mode["goal"]["bind"].append({"touch": "window"})
    return {
        "world": world,
        "window": {"plan": plan, "zone": {"window": {"left": 0, "top": 0, "right": 1, "bottom": 1}}},
        "mode": {"shed": mode},
        "gait": {"walk": gait},
    }


def shooter(draw: random.Random) -> Content:
    """Mouse, stick and motion sensor, a press that aims, one that crouches and one that runs."""
    presses: Content = {
        "aim": {"bind": ["mouse.right", {"control": "pad.left_trigger", "above": near(draw, 0.2, 0.6)}]},
        "crouch": {"bind": ["key.KeyC", "pad.east"], "style": draw.choice(["hold", "toggle"])},
        "sprint": {"bind": ["key.ShiftLeft", "pad.left_stick_press"], "style": draw.choice(["hold", "toggle"])},
        "jump": {"bind": ["key.Space", "pad.south"], "buffer_s": 0.1, "grace_s": 0.1},
    }
    mouse: Content = {
        "mouse": "mouse.move",
        "cm_per_turn": near(draw, 20, 60),
        "dpi": draw.choice([400, 800, 1600, 3200]),
    }
    if draw.random() < 0.4:
        mouse["hand_gain"] = {"fast": near(draw, 1.2, 2.0)}
    gyro = {"gyro": "pad.gyro", "turn_ratio": near(draw, 1, 4), "while_press": "aim"}
    pad = {
        **stick(draw, "pad.right_stick"),
        "yaw_deg_s": near(draw, 120, 300),
        "curve": {"form": "expo", "amount": 0.6},
    }
    zoom = {"press": "aim", "fov_deg": 90, "zoom_fov_deg": near(draw, 40, 70)}
    mode: Content = {"steer": {"frame": "camera", "face": "view"}, "gait": "walk", "press": presses}
    mode["move"] = {"bind": [{"keys": KEYS}, stick(draw)]}
    mode["look"] = {"zoom": zoom, "bind": [mouse, pad, gyro]}
    mode["press_gaits"] = {"crouch": "crouched", "sprint": "run"}
    gait = walk(draw)
    flight = {"gravity_m_s2": near(draw, 12, 25), "jump": {"press": "jump", "height_m": near(draw, 0.8, 1.4)}}
    gaits: Content = {"walk": {**gait, **flight}}
    for name, ratio in (("crouched", 0.5), ("run", 1.5)):
        top = float(f"{ratio * gait['top_speed_m_s']:.3g}")
        brake = float(f"{gait['brake_m_s2'] * max(ratio, 1.0) ** 2:.3g}")
        gaits[name] = {**gait, **flight, "top_speed_m_s": top, "brake_m_s2": brake}
    return {"world": draw.choice(WORLDS[1:]), "mode": {"field": mode}, "gait": gaits}


def swimmer(draw: random.Random) -> Content:
    """Under water: thrust against drag, or coasting, along the view."""
    mode: Content = {"steer": {"frame": "fly", "level": False, "face": "travel"}, "gait": "swim"}
    mode["move"] = {"bind": [{"keys": KEYS}, stick(draw)]}
    mode["rise"] = {
        "bind": [
            {"keys": {"up": ["Space"], "down": ["ControlLeft"]}},
            {"triggers": {"up": "pad.right_trigger", "down": "pad.left_trigger"}},
        ]
    }
    mode["look"] = {"bind": [{"mouse": "mouse.move"}, {"stick": "pad.right_stick"}]}
    drag = near(draw, 1.5, 4)
    gait: Content = {"thrust_m_s2": float(f"{drag * draw.uniform(2, 4):.3g}"), "drag_per_s": drag}
    if draw.random() < 0.5:
        gait = {"top_speed_m_s": near(draw, 1.5, 4), "accel_m_s2": near(draw, 3, 8), "brake_m_s2": near(draw, 3, 8)}
        gait["coast_half_life_s"] = near(draw, 0.15, 0.5)
    return {"world": draw.choice(WORLDS[1:]), "mode": {"pond": mode}, "gait": {"swim": {**gait, "rise_m_s": 1.2}}}


def headset(draw: random.Random) -> Content:
    """A headset: walking by a stick or by swinging hands, snap turns, a vignette, an arc to jump along."""
    mode: Content = {"steer": {"frame": "hands", "forward": draw.choice(["head", "hand.left"])}, "gait": "walk"}
    mode["steer"]["teleport"] = {"press": "beam", "hand": "hand.right"}
    mode["comfort"] = {"vignette": {}, "room": {"width_m": near(draw, 2, 4), "depth_m": near(draw, 2, 4)}}
    turn = (
        {"snap_deg": draw.choice([22.5, 30, 45])}
        if draw.random() < 0.6
        else {"yaw_deg_s": near(draw, 60, 120), "turns": "yaw"}
    )
    mode["look"] = {"bind": [{"stick": "hand.right.stick", **turn}]}
    swings = {"hands": ["hand.left", "hand.right"], "dead_zone": {"inner": 0.16}}
    mode["move"] = {"bind": [swings if draw.random() < 0.5 else stick(draw, "hand.left.stick")]}
    mode["press"] = {
        "beam": {"bind": [draw.choice(["hand.right.lower", {"stick": "hand.right.stick", "towards": "up"}])]}
    }
    return {"world": WORLDS[1], "mode": {"room": mode}, "gait": {"walk": walk(draw)}}


def phone(draw: random.Random) -> Content:
    """A phone: a thumb that walks, a finger that looks, a zone that jumps."""
    zones = {
        "jump": {"left": 0.84, "top": 0.7, "right": 1.0, "bottom": 1.0},
        "glance": {"left": 0.5, "top": 0.0, "right": 1.0, "bottom": 0.7},
    }
    thumb: Content = {
        "touch_stick": "left half",
        "radius": near(draw, 0.1, 0.2),
        "past_rim": draw.choice(["drag", "stay"]),
    }
    mode: Content = {"steer": {"frame": "camera"}, "gait": "walk", "move": {"bind": [thumb]}}
    mode["look"] = {"bind": [{"touch_drag": "glance", "deg_per_width": near(draw, 120, 240)}]}
    mode["press"] = {"jump": {"bind": [{"zone": "jump"}], "buffer_s": 0.1, "grace_s": 0.1}}
    gait = {**walk(draw), "gravity_m_s2": 20, "jump": {"press": "jump", "height_m": near(draw, 0.8, 1.4)}}
    return {
        "world": draw.choice(WORLDS[1:]),
        "window": {"aspect_ratio": near(draw, 1.4, 2.2), "zone": zones},
        "mode": {"path": mode},
        "gait": {"walk": gait},
    }


def cells(draw: random.Random) -> Content:
    """Square by square, by keys of several hands, a d-pad and a stick."""
    steer = {"frame": "grid", "step_s": near(draw, 0.1, 0.25), "turn_deg_s": 1440, "above": near(draw, 0.3, 0.7)}
    if draw.random() < 0.5:
        steer |= {"delay_s": near(draw, 0.2, 0.4), "repeat_s": near(draw, 0.1, 0.25)}
    vi = {"forward": ["KeyK"], "back": ["KeyJ"], "left": ["KeyH"], "right": ["KeyL"]}
    hands = draw.sample([KEYS, ARROWS, vi], 2)
    keys = {side: [hand[side][0] for hand in hands] for side in KEYS}
    mode: Content = {
        "steer": steer,
        "move": {"bind": [{"keys": keys}, {"dpad": "pad.dpad"}, {"stick": "pad.left_stick"}]},
    }
    world = {**WORLDS[0], "unit": "tiles", "units_per_m": 1}
    return {"world": world, "mode": {"cellar": mode}}


def racer(draw: random.Random) -> Content:
    """A cart: throttle by keys and triggers, steering by keys and a stick."""
    steer = {"frame": "drive", "turn_deg_s": near(draw, 90, 180), "turn_radius_m": near(draw, 1.5, 4)}
    if draw.random() < 0.5:
        steer["grip"] = near(draw, 0.2, 0.9)
    mode: Content = {"steer": steer, "gait": "cart"}
    mode["throttle"] = {
        "bind": [
            {"keys": {"forward": ["KeyW", "ArrowUp"], "back": ["KeyS", "ArrowDown"]}},
            {"triggers": {"forward": "pad.right_trigger", "back": "pad.left_trigger"}},
        ]
    }
    mode["turn"] = {
        "bind": [
            {
                "keys": {"left": ["KeyA", "ArrowLeft"], "right": ["KeyD", "ArrowRight"]},
                "rise_s": near(draw, 0.05, 0.15),
            },
            {"axis": "pad.left_stick.x"},
        ]
    }
    top = near(draw, 6, 16)
    gait = {"top_speed_m_s": top, "accel_m_s2": near(draw, top / 2, top), "brake_m_s2": near(draw, top, 2 * top)}
    return {"world": draw.choice(WORLDS), "mode": {"track": mode}, "gait": {"cart": gait}}


def stealth(draw: random.Random) -> Content:
    """Paces of a stick, a press that slows, cameras that turn by keys."""
    move: Content = {"bind": [{"keys": KEYS}, stick(draw)], "press_amounts": {"slow": near(draw, 0.3, 0.6)}}
    move["paces"] = [{"above": 0.0, "amount": near(draw, 0.3, 0.5)}, {"above": 0.6, "amount": 1.0}]
    mode: Content = {"steer": {"frame": "camera", "turn_deg_s": near(draw, 400, 900)}, "gait": "walk", "move": move}
    mode["press"] = {
        "slow": {"bind": ["key.AltLeft", "pad.left_bumper"]},
        "use": {"bind": ["key.KeyE", "pad.west"], "style": "long"},
    }
    mode["look"] = {
        "bind": [
            {"keys": {"left": ["KeyQ"], "right": ["KeyR"]}, "snap_deg": 45},
            {"stick": "pad.right_stick", "invert_pitch": True},
        ]
    }
    return {"world": draw.choice(WORLDS[1:]), "mode": {"store": mode}, "gait": {"walk": walk(draw)}}
