"""Before and after of each symptom."""

import math
from collections.abc import Callable
from typing import Any

import matplotlib.pyplot as plt
import numpy as np
from matplotlib.axes import Axes

from pictures.panels import LINES, SIZE, before_after, plain
from wendonic import Event, Profile, Recording, shape
from wendonic.demo import demo_profile
from wendonic.pictures import draw_diagonals, draw_feel
from wendonic.pictures.style import BRICK, HONEY, MOSS, PAPER, SLATE
from wendonic.profile.load import profile_from_text
from wendonic.study.stick_response import StickResponse

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = '[[mode.foot.move.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
STICK = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'


def profile(text: str) -> Profile:
    """Return the profile of a few lines."""
    return profile_from_text(HEAD + text)


def _either(which: str, before: str, after: str) -> Profile:
    return profile(before if which == "before" else after)


def diagonals() -> Any:
    """Diagonals 41 % too fast, and capped."""

    def draw(axes: Axes, which: str) -> None:
        rule = "free" if which == "before" else "cap"
        draw_diagonals(profile(f'[mode.foot.move]\ndiagonal = "{rule}"\n{KEYS}'), ax=axes)

    return before_after(draw, 'diagonal = "free"', 'diagonal = "cap"', share=False)


def slides() -> Any:
    """A weak brake and a strong one."""
    weak, strong = (demo_profile().changed({"gait.walk.brake_m_s2": brake}) for brake in (4.0, 30.0))
    figure, axes = plt.subplots(figsize=SIZE, facecolor=PAPER, layout="constrained")
    draw_feel({"before: brake_m_s2 = 4": weak, "after: brake_m_s2 = 30": strong}, ax=axes)
    return figure


def camera_turned() -> Any:
    """W held while the camera turns a quarter to the right after a second."""
    views = [(0.0, 0.0), *((1.0 + 0.01 * step, 90.0 * step / 50) for step in range(51))]
    events = [Event(0.0, "key.KeyW", 1.0), *(Event(t, "view", (yaw, 0.0)) for t, yaw in views)]
    events += [Event(2.6, "mark", "end")]
    recording = Recording(sorted(events, key=lambda event: event.t))

    def draw(axes: Axes, which: str) -> None:
        frame = "map" if which == "before" else "camera"
        trace = shape(recording, profile(f'[mode.foot]\nsteer = {{ frame = "{frame}" }}\n{KEYS}'))
        axes.plot(trace["pos_x"], trace["pos_y"], color=MOSS, label="path")
        for row in range(0, len(trace), 20):
            yaw = math.radians(trace["view_yaw_deg"].iloc[row])
            place = (trace["pos_x"].iloc[row], trace["pos_y"].iloc[row])
            axes.annotate(
                "",
                (place[0] + 0.5 * math.sin(yaw), place[1] + 0.5 * math.cos(yaw)),
                place,
                arrowprops={"arrowstyle": "->", "color": SLATE},
            )
        axes.plot([], [], color=SLATE, marker=">", linestyle="", label="where the camera looks")
        axes.set_aspect("equal", "datalim")
        axes.legend(loc="lower right", frameon=False)
        plain(axes, "right (m)", "forward (m)")

    return before_after(draw, 'steer.frame = "map"', 'steer.frame = "camera"')


def drifts() -> Any:
    """A worn stick that lies untouched at (0.03, -0.02), for ten seconds."""
    random = np.random.default_rng(3)
    rests = zip(
        0.03 + 0.004 * random.standard_normal(1250), -0.02 + 0.004 * random.standard_normal(1250), strict=True
    )
    events = [Event(number / 125, "pad.left_stick", place) for number, place in enumerate(rests)]

    def draw(axes: Axes, which: str) -> None:
        small = 'dead_zone = { inner = 0.02 }\ncurve = { form = "linear" }\n'
        fixed = 'dead_zone = { inner = 0.1 }\ncentre = [0.03, -0.02]\ncurve = { form = "linear" }\n'
        trace = shape(Recording(events), _either(which, STICK + small, STICK + fixed))
        axes.plot(trace["t"], np.hypot(trace["pos_x"], trace["pos_y"]), color=BRICK if which == "before" else MOSS)
        plain(axes, "time with hands off the stick (s)", "distance walked (m)")

    return before_after(draw, "inner = 0.02", "inner = 0.1, centre = [0.03, -0.02]")


def jump_lost() -> Any:
    """Space pressed twice, the second time 80 ms before landing."""
    gait = "[gait.walk]\njump = { height_m = 1 }\n"
    jumps = '[mode.foot.press]\njump = { bind = ["Space"]%s }\n'
    landing_s = 0.1 + 2.0 * math.sqrt(2.0 * 1.0 / 20.0)
    early_s = landing_s - 0.08
    presses = [(0.1, 1.0), (0.5, 0.0), (early_s, 1.0), (early_s + 0.7, 0.0)]
    events = [Event(t, "key.Space", value) for t, value in presses] + [Event(1.7, "mark", "end")]

    def draw(axes: Axes, which: str) -> None:
        press = jumps % ("" if which == "before" else ", buffer_s = 0.12")
        trace = shape(Recording(events), profile(KEYS + press + gait), hz=240)
        axes.plot(trace["t"], trace["pos_z"], color=MOSS)
        for t, label in ((0.1, "pressed"), (early_s, "pressed again, 80 ms early")):
            axes.axvline(t, color=SLATE, linestyle=":")
            axes.annotate(label, (t + 0.01, 1.08), color="#1F2430", fontsize=9)
        plain(axes, "time (s)", "height (m)")
        axes.set_ylim(-0.05, 1.2)

    return before_after(draw, "no buffer_s", "buffer_s = 0.12")


def frame_rate() -> Any:
    """Speed after a release: times 0.9 each frame, and a half-life."""

    def draw(axes: Axes, which: str) -> None:
        for hz, (color, dash) in zip((30, 60, 144), LINES, strict=False):
            if which == "before":
                t = np.arange(0, 0.6, 1 / hz)
                speed = 3.2 * 0.9 ** (t * hz)
            else:
                rolls = "rise_s = 0\nfall_s = 0\n[gait.walk]\ncoast_half_life_s = 0.11\n"
                made = profile(f"[mode.foot.move]\nhalf_life_s = 0\n{KEYS}{rolls}")
                held = [Event(0.0, "key.KeyW", 1.0), Event(1.0001, "key.KeyW", 0.0), Event(1.7, "mark", "end")]
                trace = shape(Recording(held), made, hz=hz)
                later = trace["t"] >= 1.0 - 1e-9
                t = trace["t"][later].to_numpy() - 1.0
                speed = np.hypot(trace["vel_x"], trace["vel_y"])[later].to_numpy()
            axes.plot(t, speed, color=color, linestyle=dash, marker=".", label=f"{hz} ticks a second")
        axes.legend(frameon=False)
        plain(axes, "time since the release (s)", "speed (m/s)")

    return before_after(draw, "speed *= 0.9 each frame", "coast_half_life_s = 0.11")


def mouse_dpi() -> Any:
    """The same swipe with two mice."""

    def draw(axes: Axes, which: str) -> None:
        travel_cm = np.linspace(0.0, 10.0, 11)
        for dpi, (color, dash) in zip((800, 1600), LINES, strict=False):
            keys = "deg_per_count = 0.0336" if which == "before" else f"cm_per_turn = 34\ndpi = {dpi}"
            made = profile(f'{KEYS}[[mode.foot.look.bind]]\nmouse = "mouse.move"\n{keys}\n')
            angles = []
            for cm in travel_cm:
                swipe = [Event(0.01, "mouse.move", (cm / 2.54 * dpi, 0.0)), Event(0.1, "mark", "end")]
                angles.append(shape(Recording(swipe), made)["look_yaw_deg"].sum())
            axes.plot(travel_cm, angles, color=color, linestyle=dash, marker="o", label=f"{dpi} dpi")
        axes.legend(frameon=False)
        plain(axes, "mouse travel (cm)", "turn of the view (deg)")

    return before_after(draw, "deg_per_count", "cm_per_turn and the player's dpi")


def flickers() -> Any:
    """A stick that trembles near a border between two of eight facings."""
    random = np.random.default_rng(7)
    angles = np.radians(22.5) + np.radians(1.5) * random.standard_normal(240)
    sticks = [(math.sin(angle) * 0.9, -math.cos(angle) * 0.9) for angle in angles]
    events = [Event(number / 120, "pad.left_stick", place) for number, place in enumerate(sticks)]

    def draw(axes: Axes, which: str) -> None:
        margin = 0 if which == "before" else 6
        steer = f'[mode.foot]\nsteer = {{ frame = "map", sectors = 8, sector_margin_deg = {margin} }}\n'
        trace = shape(Recording(events), profile(steer + STICK + "dead_zone = { inner = 0.1 }\n"))
        axes.step(trace["t"], trace["sector"], where="post", color=HONEY if which == "after" else BRICK)
        axes.set_yticks([0, 1], ["forward", "forward right"])
        axes.set_ylim(-0.5, 1.5)
        plain(axes, "time (s)", "facing of the sprite")

    return before_after(draw, "sector_margin_deg = 0", "sector_margin_deg = 6")


def stuck_key() -> Any:
    """W held as the window loses its focus; the release never comes."""

    def draw(axes: Axes, which: str) -> None:
        events = [Event(0.2, "key.KeyW", 1.0)]
        events += [Event(1.0, "lost.focus", 1.0)] if which == "after" else []
        trace = shape(Recording([*events, Event(2.5, "mark", "end")]), profile(KEYS))
        axes.plot(trace["t"], np.hypot(trace["vel_x"], trace["vel_y"]), color=MOSS)
        axes.axvline(1.0, color=SLATE, linestyle=":")
        axes.annotate("the window loses its focus", (1.15, 1.6), fontsize=9)
        plain(axes, "time (s)", "speed (m/s)")

    return before_after(draw, "the game says nothing", "lost.focus, which every adapter sends")


def _amounts(text: str) -> tuple[Any, Any]:
    made = profile(text)
    mode = made.mode["foot"]
    response = StickResponse(mode.move.bind[0], mode.move)
    tilts = np.linspace(0.0, 1.0, 201)
    return tilts, [response.amount(0.0, tilt) for tilt in tilts]


def edge_jumps() -> Any:
    """The edge of the dead zone: cut, and rescaled."""

    def draw(axes: Axes, which: str) -> None:
        form = "cut" if which == "before" else "round"
        zone = f'dead_zone = {{ form = "{form}", inner = 0.2 }}\ncurve = {{ form = "linear" }}\n'
        axes.plot(*_amounts(STICK + zone), color=BRICK if which == "before" else HONEY)
        plain(axes, "tilt", "amount")

    return before_after(draw, 'dead_zone form "cut"', 'dead_zone form "round"')


def full_never() -> Any:
    """A worn stick that ends at a tilt of 0.9."""

    def draw(axes: Axes, which: str) -> None:
        outer = 1.0 if which == "before" else 0.88
        tilts, amounts = _amounts(STICK + f'dead_zone = {{ outer = {outer} }}\ncurve = {{ form = "linear" }}\n')
        axes.plot(tilts, amounts, color=BRICK if which == "before" else HONEY)
        axes.axvspan(0.9, 1.0, color="#C9C4B8", alpha=0.6)
        axes.annotate("never reached", (0.905, 0.1), fontsize=9, rotation=90)
        plain(axes, "tilt", "amount")

    return before_after(draw, "outer = 1", "outer = 0.88")


def opposite_keys() -> Any:
    """A held, then D as well for half a second."""
    steps = [(0.2, "key.KeyA", 1.0), (0.8, "key.KeyD", 1.0), (1.3, "key.KeyD", 0.0), (1.8, "key.KeyA", 0.0)]
    events = [Event(*step) for step in steps] + [Event(2.2, "mark", "end")]

    def draw(axes: Axes, which: str) -> None:
        rule = "latest" if which == "before" else "cancel"
        trace = shape(
            Recording(events), profile(f'[mode.foot]\nsteer = {{ frame = "map" }}\n{KEYS}opposites = "{rule}"\n')
        )
        axes.plot(trace["t"], trace["move_x"], color=SLATE)
        axes.axvspan(0.8, 1.3, color="#C9C4B8", alpha=0.6)
        axes.annotate("A and D held", (0.82, 1.05), fontsize=9)
        plain(axes, "time (s)", "request to the right")
        axes.set_ylim(-1.2, 1.2)

    return before_after(draw, 'opposites = "latest"', 'opposites = "cancel"')


def late() -> Any:
    """Smoothing that lags behind the hand."""
    soft, quick = (demo_profile().changed({"mode.foot.move.half_life_s": half_life}) for half_life in (0.15, 0.02))
    figure, axes = plt.subplots(figsize=SIZE, facecolor=PAPER, layout="constrained")
    draw_feel({"before: half_life_s = 0.15": soft, "after: half_life_s = 0.02": quick}, ax=axes)
    return figure


PICTURES: dict[str, Callable[[], Any]] = {
    f"symptom_{draw.__name__}": draw
    for draw in (
        diagonals, slides, camera_turned, drifts, jump_lost, frame_rate, mouse_dpi, flickers, stuck_key, edge_jumps,
        full_never, opposite_keys, late,
    )
}  # fmt: skip
"""Every picture by its name."""
