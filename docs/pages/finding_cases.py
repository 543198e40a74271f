"""A profile with each fault that `check` finds, and the picture in which it shows."""

from typing import NamedTuple

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = '[[mode.foot.move.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
STICK = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'
LOOK_STICK = '[[mode.foot.look.bind]]\nstick = "pad.right_stick"\n'
MOUSE = '[[mode.foot.look.bind]]\nmouse = "mouse.move"\ndpi = 800\n'
JUMP = '[mode.foot.press]\njump = { bind = ["key.Space"]%s }\n'
GAIT = "[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 20\n"


class Case(NamedTuple):
    """A profile with one fault, and the picture of `wendonic draw` in which it shows ("" where none does)."""

    text: str
    picture: str = ""


CASES: dict[str, Case] = {
    "left-handed-axes": Case('[world]\nright = "+x"\nforward = "+z"\nup = "+y"\n' + KEYS),
    "height-unseen": Case(
        '[world]\nright = "+x"\nforward = "-y"\n[mode.foot.steer]\nframe = "map"\nside_view = true\n'
        '[[mode.foot.move.bind]]\nkeys = { left = ["KeyA"], right = ["KeyD"] }\n'
        + JUMP % ""
        + '[gait.walk]\njump = { press = "jump", height_m = 1 }\n'
    ),
    "mode-without-a-way-out": Case(KEYS + "[mode.cart]\nleave_to = []\n" + KEYS.replace("foot", "cart")),
    "mode-without-a-way-in": Case(
        '[mode.foot]\nleave_to = ["cart"]\n[mode.cart]\nleave_to = ["foot"]\n[mode.boat]\nleave_to = ["foot"]\n'
        + "".join(KEYS.replace("foot", name) for name in ("foot", "cart", "boat"))
    ),
    "mirrored-keys": Case(KEYS.replace('["KeyA"]', '["KeyD"]').replace('right = ["KeyD"]', 'right = ["KeyA"]')),
    "direction-missing": Case(KEYS.replace('right = ["KeyD"]', "right = []")),
    "crossed-axes": Case('[[mode.foot.move.bind]]\naxes = { x = "pad.left_stick.y", y = "pad.left_stick.x" }\n'),
    "mirrored-look": Case(KEYS + MOUSE + "cm_per_turn = 34\ninvert_yaw = true\n"),
    "diagonal-too-fast": Case('[mode.foot.move]\ndiagonal = "free"\n' + KEYS, "diagonals"),
    "diagonal-too-slow": Case('[mode.foot.move]\ndiagonal = "factor"\ndiagonal_factor = 0.07\n' + KEYS, "diagonals"),
    "tilt-by-the-rule-of-keys": Case(STICK + 'diagonal = "unit"\n', "stick"),
    "analogue-lost": Case("[mode.foot.move]\npaces = [{ above = 0, amount = 1 }]\n" + STICK, "stick"),
    "opposites-do-not-cancel": Case(KEYS + 'opposites = "latest"\n'),
    "dead-zone-large": Case(STICK + "dead_zone = { inner = 0.25 }\n", "curve"),
    "jump-at-dead-zone": Case(STICK + 'curve = { form = "linear", floor = 0.3 }\n', "curve"),
    "chatters": Case(
        "[mode.foot.move]\npace_margin = 0\npaces = [{ above = 0, amount = 0.3 }, { above = 0.5, amount = 1 }]\n"
        + STICK,
        "stick",
    ),
    "rim-out-of-reach": Case(STICK + "dead_zone = { outer = 1 }\n", "stick"),
    "full-too-early": Case(STICK + "dead_zone = { outer = 0.5 }\n", "curve"),
    "full-input-too-little": Case(STICK + 'curve = { form = "power", exponent = 1.6, ceiling = 0.5 }\n', "curve"),
    "curve-flat": Case(
        STICK + 'curve = { form = "points", points = [[0, 0], [0.2, 0.3], [0.6, 0.3], [1, 1]] }\n', "curve"
    ),
    "look-too-fast-to-aim": Case(KEYS + LOOK_STICK + 'yaw_deg_s = 600\ncurve = { form = "linear" }\n', "look"),
    "mouse-turn": Case(KEYS + MOUSE + "cm_per_turn = 200\n", "look"),
    "stick-turn": Case(KEYS + LOOK_STICK + "yaw_deg_s = 30\n", "look"),
    "gyro-turn": Case(KEYS + '[[mode.foot.look.bind]]\ngyro = "pad.gyro"\nturn_ratio = 0.05\n'),
    "thumb-slides": Case('[[mode.foot.move.bind]]\ntouch_stick = "left half"\nradius = 0.01\n'),
    "control-on-two-channels": Case(STICK + '[[mode.foot.turn.bind]]\naxis = "pad.left_stick.x"\nshared = true\n'),
    "turn-unused": Case(
        KEYS
        + '[[mode.foot.turn.bind]]\nkeys = { right = ["KeyE"], left = ["KeyQ"] }\n[mode.foot.steer]\nframe = "facing"\n'
    ),
    "zones-overlap": Case(
        "[window.zone]\nthumb = { left = 0.0, top = 0.4, right = 0.5, bottom = 1.0 }\n"
        "jump = { left = 0.4, top = 0.6, right = 0.7, bottom = 1.0 }\n"
        '[[mode.foot.move.bind]]\ntouch_stick = "thumb"\n'
        '[mode.foot.press]\njump = { bind = [{ zone = "jump" }] }\n'
    ),
    "press-of-one-player": Case(
        '[seat.one]\nkeys = ["KeyW", "KeyS", "KeyA", "KeyD", "Space"]\n[seat.two]\n' + KEYS + STICK + JUMP % ""
    ),
    "press-out-of-reach": Case(KEYS + '[mode.foot.press]\ntrip = { bind = ["KeyF"], unless = ["KeyF"] }\n'),
    "double-of-two": Case(
        KEYS + "[mode.foot.press]\ndash = { bind = ['key.KeyA', 'key.KeyD'], style = 'double', shared = true }\n"
    ),
    "press-too-quick": Case(
        KEYS + '[mode.foot.press]\ndash = { bind = ["KeyE"], style = "double", double_s = 0.05 }\n'
    ),
    "held-for-a-tick": Case(
        KEYS
        + "[mode.foot]\npress_gaits = { sprint = 'run' }\n[mode.foot.press]\n"
        + "sprint = { bind = ['key.ShiftLeft'], style = 'tap' }\n"
    ),
    "press-trembles": Case(
        STICK + "[[mode.foot.press.fire.bind]]\ncontrol = 'pad.right_trigger'\nabove = 0.5\nrelease = 0.499\n"
    ),
    "depends-on-ticks": Case(
        "[mode.foot.move]\none_euro = { min_cutoff_hz = 0.6, beta = 3 }\n"
        + KEYS
        + "[gait.walk]\nbrake_m_s2 = 4\nreverse_m_s2 = 60\n"
    ),
    "unit-mistaken": Case(KEYS + "[gait.walk]\ntop_speed_m_s = 200\naccel_m_s2 = 2000\nbrake_m_s2 = 2000\n"),
    "slides-on": Case(KEYS + GAIT + "brake_m_s2 = 2\n", "feel"),
    "slow-start": Case(KEYS + "[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 1.5\n", "feel"),
    "reversing-brakes-less": Case(KEYS + GAIT + "brake_m_s2 = 20\nreverse_m_s2 = 5\n", "feel"),
    "turns-slowly": Case('[mode.foot]\nsteer = { frame = "map", turn_deg_s = 20 }\n' + KEYS),
    "facing-flickers": Case("[mode.foot]\nsteer = { sectors = 4, sector_margin_deg = 0 }\n" + STICK),
    "jumps-by-itself": Case(
        KEYS + JUMP % ", buffer_s = 0.4" + "[gait.walk]\njump = { speed_m_s = 2 }\ngravity_m_s2 = 20\n"
    ),
    "jump-high": Case(KEYS + JUMP % "" + GAIT + "brake_m_s2 = 20\njump = { height_m = 12 }\n"),
    "jump-time": Case(KEYS + JUMP % "" + GAIT + "brake_m_s2 = 20\njump = { height_m = 1, apex_s = 3 }\n"),
    "jump-lost-in-gait": Case(
        KEYS
        + "[mode.foot]\npress_gaits = { sprint = 'run' }\n[mode.foot.press]\njump = { bind = ['key.Space'] }\n"
        + "sprint = { bind = ['key.ShiftLeft'] }\n[gait.walk]\ngravity_m_s2 = 20\n"
        + "jump = { press = 'jump', height_m = 1 }\n[gait.run]\ngravity_m_s2 = 20\n"
    ),
    "grace-long": Case(KEYS + JUMP % ", grace_s = 0.9" + GAIT + "brake_m_s2 = 20\njump = { height_m = 1 }\n"),
    "slow-answer": Case("[mode.foot.move]\nhalf_life_s = 0.15\n" + KEYS, "feel"),
    "dead-zone-small": Case(STICK + 'dead_zone = { inner = 0.02 }\ncurve = { form = "linear" }\n', "stick"),
    "hands-tremble": Case(
        '[[mode.foot.move.bind]]\nhands = ["hand.left", "hand.right"]\ndead_zone = { inner = 0.05 }\n'
    ),
    "no-mirror-image": Case("[mode.foot.move]\nnotches = 3\nnotch_pull = 1\n" + STICK, "stick"),
    "not-measured": Case(KEYS + "[gait.walk]\ntop_speed_m_s = 900\naccel_m_s2 = 0.4\n"),
    "gait-unused": Case(KEYS + "[gait.run]\ntop_speed_m_s = 5\n"),
    "idle-number": Case(STICK + 'curve = { form = "linear", exponent = 2 }\n'),
    "over-budget": Case(KEYS + "[budget]\nstop_distance_m = { max = 0.1 }\n", "feel"),
}
"""A profile for each kind of finding, in the order of a report."""
