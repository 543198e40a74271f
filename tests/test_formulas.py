"""Every formula of the reference, evaluated as it is printed, against a helm in play, or against its kernel."""

import math
import random

import pytest
from scipy.interpolate import PchipInterpolator

from conftest import HEAD, KEYS
from few_of_many import few_of
from wendonic import Helm
from wendonic.kernels.body.comfort import NO_COMFORT, vignetted
from wendonic.kernels.body.gait import PLAIN_GAIT
from wendonic.kernels.frames.goal import NO_GOTO, approach_speed
from wendonic.kernels.look.gyro import steady_gain
from wendonic.kernels.move.one_euro import ONE_EURO_AT_REST, OneEuroTuning, one_euro
from wendonic.kernels.source.swing import of_both
from wendonic.profile.load import profile_from_text
from wendonic.reference.explain import explain
from wendonic.reference.formulas import FORMULAS, formulas_of

NOTATION = {name: getattr(math, name) for name in "sqrt hypot exp tan atan radians degrees copysign pi".split()}
NOTATION |= {
    "abs": abs,
    "min": min,
    "max": max,
    "pchip": lambda points, u: float(PchipInterpolator(*zip(*points, strict=True))(u)),
}
STICK = '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
PLAIN = 'dead_zone = { form = "none" }\ncurve = { form = "linear" }'
AT_ONCE = "[mode.m.move]\nhalf_life_s = 0\n"
KEYBOARD = f"{AT_ONCE}[[mode.m.move.bind]]\n{KEYS}\nrise_s = 0\nfall_s = 0\n"
TINY_S = 1e-6


def played(text, gait=""):
    """Return a helm of a mode, and what plays so many seconds of it in one tick."""
    helm = Helm(profile_from_text(f"{HEAD}max_dt_s = 10\n{text}\n{gait}"), prepare="first")
    return helm, helm.tick


def tilted(x, y, bind=PLAIN, channel=""):
    """Return what tilts of a stick come to (right, forward), x and y raw."""
    helm, play = played(f"{AT_ONCE}{channel}\n{STICK}{bind}\n")
    helm.stick("pad.left_stick", x, y)
    return tuple(play(1 / 60).local)


def tilt(draw):
    """Return a position, y towards the player, and what it is right and forward."""
    length, heading = draw(0.02, 1.0), draw(-math.pi, math.pi)
    x, y = length * math.sin(heading), length * math.cos(heading)
    return x, -y, {"x": x, "y": y, "tilt": math.hypot(x, y)}


def walking(gait, seconds, release_s=0.0):
    """Return the motion after full input for some seconds, then none."""
    helm, play = played(f'[mode.m]\ngait = "own"\nsteer = {{ frame = "map" }}\n{KEYBOARD}', f"[gait.own]\n{gait}\n")
    helm.key("KeyW", True)
    before = play(seconds).motion
    helm.key("KeyW", False)
    return before, (play(release_s) if release_s else helm.tick(0.0)).motion


def jumping(gait):
    """Return a helm that jumps, and what plays it."""
    return played(
        f'[mode.m]\ngait = "own"\n{KEYBOARD}[mode.m.press]\njump = {{ bind = ["key.Space"] }}\n',
        f"[gait.own]\n{gait}\n",
    )


def centre(draw):
    rest = [draw(-0.3, 0.3), draw(-0.3, 0.3)]
    x, y = draw(-0.6, 0.6), draw(-0.6, 0.6)
    return {"centre": rest, "x": x, "y": y}, tilted(x, y, f"{PLAIN}\ncentre = {rest}")


def gate_square(draw):
    x, y, names = tilt(draw)
    return names, math.hypot(*tilted(x, y, f'{PLAIN}\ngate = "square"'))


def gate_measured(draw):
    rim = [draw(0.7, 1.1) for _ in range(8)]
    share = draw(0.0, 1.0)
    heading, length = math.radians(45.0 * (2 + share)), draw(0.1, 0.6)
    x, y = length * math.sin(heading), -length * math.cos(heading)
    names = {"length": length, "rim": rim[2] + share * (rim[3] - rim[2])}
    return names, math.hypot(*tilted(x, y, f'{PLAIN}\ngate = "measured"\nrim = {rim}'))


def dead_zone(form):
    def case(draw):
        x, y, names = tilt(draw)
        names |= {"inner": draw(0.05, 0.3), "outer": draw(0.7, 1.0)}
        zone = f'dead_zone = {{ form = "{form}", inner = {names["inner"]}, outer = {names["outer"]} }}'
        right, forward = tilted(x, y, f'{zone}\ncurve = {{ form = "linear" }}', 'diagonal = "free"')
        if form == "axes":
            return names, right
        if form == "wedge":
            return names, math.atan2(right, forward)
        return names, math.hypot(right, forward)

    return case


def release(draw):
    inner = draw(0.1, 0.3)
    helm, play = played(f"{AT_ONCE}{STICK}dead_zone = {{ inner = {inner} }}\n")

    def is_out(raw):
        helm.stick("pad.left_stick", 0.5, 0.0)
        play(0.1)
        helm.stick("pad.left_stick", raw, 0.0)
        return play(0.1).amount > 0.0

    low, high = 0.5 * inner, inner
    for _ in range(50):
        middle = 0.5 * (low + high)
        low, high = (low, middle) if is_out(middle) else (middle, high)
    return {"inner": inner}, low


def curve(form, **numbers):
    """Return a case of a curve, with numbers that are drawn by functions."""

    def case(draw):
        u = draw(0.01, 1.0)
        drawn = {name: number(draw) for name, number in numbers.items()}
        fields = "".join(f", {'amount' if name == 'a' else name} = {value}" for name, value in drawn.items())
        bind = f'dead_zone = {{ form = "none" }}\ncurve = {{ form = "{form}"{fields} }}'
        return {"u": u, "f": u, **drawn}, tilted(u, 0.0, bind)[0]

    return case


def points(draw):
    inside = zip(sorted(draw(0.1, 0.9) for _ in range(3)), sorted(draw(0.1, 0.9) for _ in range(3)), strict=True)
    return [[0, 0], *map(list, inside), [1, 1]]


def key_ramp(field, is_up):
    def case(draw):
        whole, part = draw(0.1, 0.5), draw(0.05, 0.6)
        helm, play = played(f"{AT_ONCE}[[mode.m.move.bind]]\n{KEYS}\n{field} = {whole}\n")
        helm.key("KeyW", True)
        if not is_up:
            play(5.0)
            helm.key("KeyW", False)
        return {field: whole, "held_s": part, "released_s": part}, play(part).amount

    return case


def diagonal(rule):
    def case(draw):
        x, y, names = tilt(draw)
        factor = draw(0.3, 1.0)
        if rule == "cap":
            x, y = x / names["tilt"] * 1.2, y / names["tilt"] * 1.2
            x, y = min(max(x, -1.0), 1.0), min(max(y, -1.0), 1.0)
            names = {"x": x, "y": -y}
        bind = 'dead_zone = { form = "axes", inner = 0, outer = 1 }\ncurve = { form = "linear" }'
        ruled = f'diagonal = "{rule}"\ndiagonal_factor = {factor}'
        after = tilted(x, y, f'{bind}\ndiagonal = "{rule}"', ruled)
        return names | {"diagonal_factor": factor}, math.hypot(*after) / math.hypot(x, y)

    return case


def notch(draw):
    notches, pull = int(draw(2.0, 16.99)), draw(0.0, 0.99)
    off, point = draw(-0.99, 0.99) * 180 / notches, int(draw(0.0, notches)) * 360 / notches
    heading = math.radians(point + off)
    right, forward = tilted(math.sin(heading), -math.cos(heading), PLAIN, f"notches = {notches}\nnotch_pull = {pull}")
    after = (math.degrees(math.atan2(right, forward)) - point + 180) % 360 - 180
    return {"notches": notches, "notch_pull": pull, "off": off, "w": 180 / notches}, after


def half_life(draw):
    half_life_s, dt = draw(0.01, 0.5), draw(0.001, 0.2)
    helm, play = played(f"[mode.m.move]\nhalf_life_s = {half_life_s}\n{STICK}{PLAIN}\n")
    helm.stick("pad.left_stick", 1.0, 0.0)
    was = play(0.03).local.right
    helm.stick("pad.left_stick", -0.5, 0.0)
    return {"half_life_s": half_life_s, "dt": dt, "wanted": -0.5, "was": was}, play(dt).local.right


def filtered(draw):
    tuning, dt = OneEuroTuning(draw(0.5, 3.0), draw(0.1, 3.0), draw(0.5, 2.0)), draw(0.001, 0.05)
    rate = 2.0 * math.pi * tuning.d_cutoff_hz
    # From rest the input jumps by 0.7: an impulse of speed that fades, taken by its mean.
    speed = 0.7 * (1.0 - math.exp(-rate * dt)) / dt
    names = tuning._asdict() | {"dt": dt, "wanted": 0.7, "was": 0.2, "speed": speed}
    return names, one_euro(tuning, ONE_EURO_AT_REST, 0.7, 0.0, 0.2, 0.0, dt)[1]


def looking(bind, more=""):
    return played(f"[mode.m.look]\npitch_limits_deg = [-89, 89]\n{more}\n[[mode.m.look.bind]]\n{bind}\n")


def mouse(draw):
    names = {"cm_per_turn": draw(5.0, 80.0), "dpi": draw(200.0, 3200.0)}
    bind = "\n".join(f"{name} = {value}" for name, value in names.items())
    helm, play = looking(f'mouse = "mouse.move"\n{bind}')
    helm.mouse(7, 0)
    return names, play(0.01).look.yaw_deg / 7


def hand_gain(draw):
    slow, fast, start, end = draw(0.5, 1.0), draw(1.1, 3.0), draw(1.0, 9.0), draw(15.0, 60.0)
    gain = f"hand_gain = {{ slow = {slow}, fast = {fast}, from_cm_s = {start}, to_cm_s = {end} }}"
    helm, play = looking(f'mouse = "mouse.move"\ncm_per_turn = 36\ndpi = 254\n{gain}')
    counts = round(draw(1.0, 80.0))
    for _ in range(200):
        helm.mouse(counts, 0)
        turn = play(0.01).look.yaw_deg
    # A count is 0.01 cm and turns by 0.1 deg; so many a hundredth of a second are as many cm/s.
    names = {"slow": slow, "fast": fast, "from_cm_s": start, "to_cm_s": end, "hand_cm_s": float(counts)}
    return names, turn / (0.1 * counts)


def zoom(draw):
    names = {"fov_deg": draw(60.0, 110.0), "zoom_fov_deg": draw(10.0, 55.0), "match_at": draw(-0.5, 1.0)}
    names["match_at"] = max(names["match_at"], 0.0)
    fields = ", ".join(f"{name} = {value}" for name, value in names.items())
    helm, play = looking(
        'mouse = "mouse.move"\n[mode.m.press]\nspyglass = { bind = ["mouse.right"] }\n',
        f'zoom = {{ press = "spyglass", {fields} }}',
    )
    helm.mouse(10, 0)
    plain = play(0.01).look.yaw_deg
    helm.button("mouse.right", True)
    helm.mouse(10, 0)
    return names, play(0.01).look.yaw_deg / plain


def stick_rate(held_s, fields):
    """Return which share of its rate a stick turns with that has been held at its rim for a time."""
    helm, play = looking(f'stick = "pad.right_stick"\nyaw_deg_s = 200\n{PLAIN}\n{fields}')
    helm.stick("pad.right_stick", 1.0, 0.0)
    play(held_s - 0.5 * TINY_S)
    return play(TINY_S).look.yaw_deg / TINY_S / 200.0


def ease(draw):
    """A tilt for a while, and then full tilt, or as much tilt again: the share goes on from where it was."""
    ease_s, held_s, first, amount = draw(0.1, 0.6), draw(0.05, 0.7), draw(0.2, 1.0), draw(0.2, 1.0)
    helm, play = looking(f'stick = "pad.right_stick"\nyaw_deg_s = 200\n{PLAIN}\nease_s = {ease_s}')
    helm.stick("pad.right_stick", first, 0.0)
    play(0.1)
    names = {"ease_s": ease_s, "held_s": held_s, "amount": amount, "before": min(0.1 / ease_s, first)}
    helm.stick("pad.right_stick", amount, 0.0)
    play(held_s - 0.5 * TINY_S)
    return names, play(TINY_S).look.yaw_deg / TINY_S / 200.0


def boost(draw):
    names = {"rim_boost": draw(0.1, 1.5), "hold_s": draw(0.1, 0.4), "ease_s": draw(0.05, 0.3)}
    rim_s = draw(0.35, 1.0)
    fields = "\n".join(f"{name} = {value}" for name, value in names.items())
    return names | {"rim_s": rim_s}, stick_rate(rim_s, fields)


def steady(draw):
    below, rate = draw(5.0, 60.0), draw(0.0, 90.0)
    return {"v": min(rate / below, 1.0)}, steady_gain(math.radians(rate), math.radians(below))


def facing(draw):
    turn, dt, off = draw(90.0, 720.0), draw(0.01, 0.2), draw(-179.0, 179.0)
    helm, play = played(
        f'[mode.m]\nsteer = {{ frame = "map", turn_deg_s = {turn} }}\n{AT_ONCE}'
        f'[[mode.m.move.bind]]\nstick = "pad.left_stick"\n{PLAIN}\n'
    )
    helm.stick("pad.left_stick", math.sin(math.radians(off)), -math.cos(math.radians(off)))
    return {"turn_deg_s": turn, "dt": dt, "off": off}, (play(dt).face_deg + 180) % 360 - 180


def accelerating(draw):
    names = {"accel_m_s2": draw(3.0, 30.0), "top_speed_m_s": draw(2.0, 8.0), "t": draw(0.02, 1.0)}
    gait = f"accel_m_s2 = {names['accel_m_s2']}\ntop_speed_m_s = {names['top_speed_m_s']}"
    return names, walking(gait, names["t"])[0].vel_y


def braking(draw):
    brake, t = draw(3.0, 30.0), draw(0.02, 1.0)
    before, after = walking(f"top_speed_m_s = 5\naccel_m_s2 = 20\nbrake_m_s2 = {brake}", t, 9.0)
    return {"brake_m_s2": brake, "v": before.vel_y}, after.pos_y - before.pos_y


def coasting(draw):
    half_life_s, t = draw(0.1, 1.0), draw(0.02, 0.5)
    before, after = walking(f"top_speed_m_s = 5\ncoast_half_life_s = {half_life_s}", 1.0, t)
    return {"coast_half_life_s": half_life_s, "v": before.vel_y, "t": t}, after.vel_y


def turning_at_speed(draw):
    accel, off, dt = draw(2.0, 30.0), draw(1.0, 89.0), draw(0.01, 0.3)
    helm, play = played(
        f'[mode.m]\ngait = "own"\nsteer = {{ frame = "map" }}\n{AT_ONCE}{STICK}{PLAIN}\n',
        f"[gait.own]\ntop_speed_m_s = 5\naccel_m_s2 = {accel}\nkeeps_speed = true\n",
    )
    helm.stick("pad.left_stick", 0.0, -1.0)
    play(10.0)
    helm.stick("pad.left_stick", 0.5 * math.sin(math.radians(off)), -0.5 * math.cos(math.radians(off)))
    after = play(dt).motion
    return {"accel_m_s2": accel, "v": 5.0, "off": off, "dt": dt}, math.degrees(math.atan2(after.vel_x, after.vel_y))


def dragged(draw):
    names = {"thrust_m_s2": draw(2.0, 20.0), "drag_per_s": draw(0.5, 8.0), "t": draw(0.05, 2.0)}
    gait = f"thrust_m_s2 = {names['thrust_m_s2']}\ndrag_per_s = {names['drag_per_s']}"
    return names, walking(gait, names["t"])[0].vel_y


def turning_back(draw):
    loss, turned = draw(0.05, 0.95), draw(5.0, 175.0)
    helm, play = played(
        f'[mode.m]\ngait = "own"\nsteer = {{ frame = "map" }}\n{AT_ONCE}{STICK}{PLAIN}\n',
        f"[gait.own]\ntop_speed_m_s = 5\nturn_loss = {loss}\n",
    )
    helm.stick("pad.left_stick", 0.0, -1.0)
    play(3.0)
    helm.stick("pad.left_stick", math.sin(math.radians(turned)), -math.cos(math.radians(turned)))
    motion = play(1e-9).motion
    return {"turn_loss": loss, "turned_deg": turned}, math.hypot(motion.vel_x, motion.vel_y) / 5.0


def uphill(draw):
    names = {"uphill_ratio": draw(0.2, 0.9), "steepest_deg": draw(30.0, 60.0), "climb_deg": draw(-25.0, 29.0)}
    slope = f"slope = {{ uphill_ratio = {names['uphill_ratio']}, steepest_deg = {names['steepest_deg']} }}"
    helm, _ = played(
        f'[mode.m]\ngait = "own"\nsteer = {{ frame = "map", {slope} }}\n{KEYBOARD}', "[gait.own]\ntop_speed_m_s = 4\n"
    )
    helm.key("KeyW", True)
    climb = math.radians(names["climb_deg"])
    for _ in range(90):
        helm.ground(True, (0.0, -math.sin(climb), math.cos(climb)))
        motion = helm.tick(1 / 60).motion
    return names, math.hypot(motion.vel_y, motion.vel_z) / 4.0


def take_off(draw, jump):
    """Return what the upward speed is just after a jump, and the gravity while rising."""
    gravity = draw(8.0, 40.0)
    helm, play = jumping(f"gravity_m_s2 = {gravity}\njump = {{ {jump} }}")
    helm.key("Space", True)
    first = play(1e-3).motion.vel_z
    rising = (first - play(1e-3).motion.vel_z) / 1e-3
    return gravity, first + 1e-3 * rising, rising


def jump_height(draw):
    height = draw(0.3, 3.0)
    gravity, speed, _ = take_off(draw, f"height_m = {height}")
    return {"height_m": height, "gravity_m_s2": gravity}, speed


def jump_apex(draw):
    names = {"height_m": draw(0.3, 3.0), "apex_s": draw(0.2, 0.8)}
    _, speed, rising = take_off(draw, f"height_m = {names['height_m']}, apex_s = {names['apex_s']}")
    return names, (speed, rising)


def early_release(draw):
    ratio, gravity = draw(0.1, 0.9), draw(8.0, 40.0)
    helm, play = jumping(f"gravity_m_s2 = {gravity}\njump = {{ speed_m_s = 8, early_release_ratio = {ratio} }}")
    helm.key("Space", True)
    before = play(0.3 * 8.0 / gravity).motion
    helm.key("Space", False)
    after = play(ratio * before.vel_z / gravity).motion
    assert after.vel_z == pytest.approx(0.0, abs=1e-9)
    return {"early_release_ratio": ratio, "gravity_m_s2": gravity, "v": before.vel_z}, after.pos_z - before.pos_z


def falling(draw):
    names = {"gravity_ratio": draw(1.0, 2.5), "gravity_m_s2": draw(8.0, 40.0), "top_speed_m_s": draw(2.0, 5.0)}
    rise_s, t = 8.0 / names["gravity_m_s2"], draw(0.02, 0.2)
    helm, play = jumping(
        f"gravity_m_s2 = {names['gravity_m_s2']}\njump = {{ speed_m_s = 8 }}\n"
        f"fall = {{ gravity_ratio = {names['gravity_ratio']}, top_speed_m_s = {names['top_speed_m_s']} }}"
    )
    helm.key("Space", True)
    return names | {"t": t}, -play(rise_s + t).motion.vel_z


def driving(draw):
    names = {"turn_deg_s": draw(60.0, 200.0), "fast_turn_deg_s": draw(20.0, 60.0), "turn_radius_m": draw(0.5, 3.0)}
    top, throttle = draw(3.0, 9.0), draw(0.1, 1.0)
    fields = ", ".join(f"{name} = {value}" for name, value in names.items())
    helm, play = played(
        f'[mode.m]\ngait = "own"\nsteer = {{ frame = "drive", {fields} }}\n'
        f'[mode.m.throttle]\n[[mode.m.throttle.bind]]\naxis = "pad.left_stick.y"\n{PLAIN}\n'
        f'[mode.m.turn]\n[[mode.m.turn.bind]]\naxis = "pad.right_stick.x"\n{PLAIN}\n',
        f"[gait.own]\ntop_speed_m_s = {top}\n",
    )
    helm.stick("pad.left_stick", 0.0, -throttle)
    play(9.0)
    helm.stick("pad.right_stick", 1.0, 0.0)
    return names | {"v": top * throttle, "top_speed_m_s": top}, play(1e-3).face_deg / 1e-3


def grip(draw):
    share, t = draw(0.1, 0.95), draw(0.02, 0.3)
    helm, play = played(
        f'[mode.m]\ngait = "own"\nsteer = {{ frame = "drive", grip = {share} }}\n[mode.m.throttle]\n'
        '[[mode.m.throttle.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"] }\n',
        "[gait.own]\ntop_speed_m_s = 5\n",
    )
    helm.place(0.0, 0.0, 0.0, velocity=(2.0, 0.0, 0.0), facing=(0.0, 1.0, 0.0))
    return {"grip": share, "v": 2.0, "t": t}, play(t).motion.vel_x


def flying(draw):
    x, y, z = draw(-0.7, 0.7), draw(-0.7, 0.7), draw(0.2, 1.0)
    helm, play = played(
        f'[mode.m]\ngait = "own"\nsteer = {{ frame = "fly" }}\n'
        f'[[mode.m.move.bind]]\nstick = "pad.left_stick"\n{PLAIN}\n'
        f'[[mode.m.rise.bind]]\naxis = "pad.right_trigger"\n{PLAIN}\n',
        "[gait.own]\nrise_m_s = 3\n",
    )
    helm.stick("pad.left_stick", x, -y)
    helm.button("pad.right_trigger", z)
    return {"x": x, "y": y, "z": z}, play(3.0).motion.vel_z / (3.0 * z)


def slowing(draw):
    names = {"slow_down_m": draw(0.5, 3.0), "distance_m": draw(0.1, 4.0), "brake_m_s2": draw(3.0, 30.0)}
    tuning = NO_GOTO._replace(slow_down_m=names["slow_down_m"])
    gait = PLAIN_GAIT._replace(top_speed_m_s=4.0, brake_m_s2=names["brake_m_s2"])
    speed = approach_speed(tuning, gait, names["distance_m"], 0.0, 0.0)
    return names | {"top_speed_m_s": 4.0}, speed


def narrowing(draw):
    wanted, was, half_life_s, dt = draw(0.0, 1.0), draw(0.0, 1.0), draw(0.02, 0.5), draw(0.005, 0.1)
    tuning = NO_COMFORT._replace(
        full_accel_m_s2=8.0, full_turn_rate=1.0, close_half_life_s=half_life_s, open_half_life_s=half_life_s
    )
    names = {"wanted": wanted, "was": was, "half_life_s": half_life_s, "dt": dt}
    return names, vignetted(tuning, was, 8.0 * wanted, 0.0, dt)


def both(draw):
    left, right, boost = draw(0.0, 1.0), draw(0.0, 1.0), draw(1.0, 3.0)
    return {"left": left, "right": right, "both_boost": boost}, of_both(left, right, boost)


CASES = {
    "centre": centre,
    'gate = "square"': gate_square,
    'gate = "measured"': gate_measured,
    **{f'dead_zone.form = "{form}"': dead_zone(form) for form in ("round", "axes", "wedge", "cut")},
    "release, left out": release,
    'curve.form = "linear"': curve("linear"),
    'curve.form = "power"': curve("power", exponent=lambda draw: draw(0.3, 4.0)),
    'curve.form = "expo"': curve("expo", a=lambda draw: draw(0.0, 1.0)),
    'curve.form = "s"': curve("s", a=lambda draw: draw(0.0, 1.0)),
    'curve.form = "knee"': curve("knee", at=lambda draw: [draw(0.1, 0.9), draw(0.1, 0.9)]),
    'curve.form = "points"': curve("points", points=points),
    "floor and ceiling": curve("linear", floor=lambda draw: draw(0.0, 0.4), ceiling=lambda draw: draw(0.5, 1.0)),
    "rise_s": key_ramp("rise_s", True),
    "fall_s": key_ramp("fall_s", False),
    "both_boost": both,
    **{f'diagonal = "{rule}"': diagonal(rule) for rule in ("cap", "unit", "factor")},
    "notches and notch_pull": notch,
    "half_life_s": half_life,
    "one_euro": filtered,
    "cm_per_turn and dpi": mouse,
    "hand_gain": hand_gain,
    "zoom": zoom,
    "ease_s": ease,
    "rim_boost": boost,
    "steady_below_deg_s": steady,
    "turn_deg_s": facing,
    "accel_m_s2": accelerating,
    "brake_m_s2": braking,
    "coast_half_life_s": coasting,
    "keeps_speed": turning_at_speed,
    "thrust_m_s2 and drag_per_s": dragged,
    "turn_loss": turning_back,
    "uphill_ratio": uphill,
    "height_m": jump_height,
    "apex_s": jump_apex,
    "early_release_ratio": early_release,
    "fall": falling,
    "turn_deg_s of drive": driving,
    "grip": grip,
    "rise of fly": flying,
    "slow_down_m": slowing,
    "vignette": narrowing,
}
ROUGHLY = {"ease_s": 1e-4, "rim_boost": 1e-4, "hand_gain": 1e-6, "turn_loss": 1e-6}
"""What is a rate within a tick is measured over a short one."""


@pytest.mark.parametrize("formula", few_of(FORMULAS, FORMULAS[::2]), ids=[formula.of for formula in FORMULAS])
def test_every_formula_agrees_with_the_helm(formula):
    draws = random.Random(formula.of)
    for _ in range(12):
        names, measured = CASES[formula.of](draws.uniform)
        said = eval(formula.expression, {"__builtins__": {}}, NOTATION | names)
        if formula.of.endswith('"wedge"'):
            said = math.atan2(*said)
        assert measured == pytest.approx(said, rel=ROUGHLY.get(formula.of, 1e-9), abs=1e-9), names


def test_every_formula_is_tried_and_goes_by_names_that_are_explained():
    assert [formula.of for formula in FORMULAS] == list(CASES)
    for formula in FORMULAS:
        for name in formula.names:
            assert formula in formulas_of(name)
            assert any(thing.kind == "formula" and thing.says == formula.says for thing in explain(name).things), name
