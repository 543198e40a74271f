"""What the feel sheet of a mode says is wrong: stops that slide, ticks that matter, drift, flicker, late jumps."""

import math
from collections.abc import Iterator

from wendonic.profile.look_binds import LookStickBind, MouseBind
from wendonic.profile.move_binds import StickBind
from wendonic.profile.schema import Profile
from wendonic.study.directions import NOISE, REST
from wendonic.study.feel_sheet import FeelSheet
from wendonic.study.finding import Finding
from wendonic.study.full_input import full_inputs
from wendonic.study.look_response import yaw_rate_deg_s
from wendonic.study.response import StickResponse

TICK_SHARE = 0.01
STOP_LENGTHS = 1.5
GLIDES = ("drive", "fly", "grid")
"""Steer frames whose bodies are meant to roll or glide on, or have no speed to stop from."""

NOISE_SIGMAS = 3.0
MIRROR_SHARE = 0.02
DELAY_S = 0.05
"""Delay of half the answer from which smoothing is told."""


def sheet_findings(profile: Profile, mode: str, sheet: FeelSheet) -> Iterator[Finding]:
    """Give what is wrong with a mode by its feel sheet."""
    table, gait = profile.mode[mode], profile.gait_of(mode)
    if sheet.tick_dependence is not None and sheet.tick_dependence > TICK_SHARE:
        yield Finding(
            "depends-on-ticks",
            "notice",
            f"mode.{mode}",
            f"the path differs by {sheet.tick_dependence:.1%} between 30, 60 and 144 ticks a second",
            "Players with another screen play another game.",
            "half_life_s = 0.02 in move; or tick at a fixed step: helm.fixed_ticks(frame_dt, step_s)",
        )
    most_m = STOP_LENGTHS * gait.body_m
    stops_m = sheet.stop_distance_m
    if stops_m is not None and stops_m > most_m and table.steer.frame not in GLIDES:
        brake = gait.top_speed_m_s**2 / (2.0 * most_m)
        yield Finding(
            "slides-on",
            "notice",
            f"gait.{table.gait}.brake_m_s2",
            f"from top speed it takes {stops_m:.2f} m to stop, {stops_m / gait.body_m:.1f} body lengths",
            "Whoever lets go at an edge goes over it.",
            f"brake_m_s2 = {math.ceil(brake)}",
        )
    if sheet.sector_flicker_per_min:
        yield Finding(
            "facing-flickers",
            "notice",
            f"mode.{mode}.steer.sector_margin_deg",
            f"on a border between two facings they change {sheet.sector_flicker_per_min:.0f} times a minute",
            "A heading that trembles on a border makes the sprite flicker between two facings.",
            "sector_margin_deg = 6",
        )
    buffer_s, aloft_s = sheet.jump_buffer_s, sheet.jump_aloft_s
    if buffer_s is not None and aloft_s is not None and buffer_s > aloft_s:
        press = gait.jump.press if gait.jump else "jump"
        yield Finding(
            "jumps-by-itself",
            "fault",
            f"mode.{mode}.press.{press}.buffer_s",
            f"a press counts for {buffer_s:.2f} s, and a jump is aloft for {aloft_s:.2f} s",
            "Pressed twice by a nervous thumb, it jumps again by itself after landing.",
            f"buffer_s = {min(0.12, aloft_s / 2.0):.2f}",
        )
    half_s = sheet.smoothing_delay_s
    if half_s is not None and half_s > DELAY_S:
        yield Finding(
            "slow-answer",
            "notice",
            f"mode.{mode}.move.half_life_s",
            f"half of what a stick asks for is there after {half_s * 1000.0:.0f} ms",
            "The hand is ahead of the body; from about 50 ms on that is felt.",
            "half_life_s = 0.02",
        )
    yield from _noisy_rest(profile, mode)
    yield from _mirror_images(profile, mode)
    for index, bind in enumerate(table.look.bind if table.look else ()):
        # By definition half of a displacement is there after a half-life.
        if isinstance(bind, MouseBind) and bind.half_life_s > DELAY_S:
            yield Finding(
                "slow-answer",
                "notice",
                f"mode.{mode}.look.bind[{index}].half_life_s",
                f"half of a swipe is there after {bind.half_life_s * 1000.0:.0f} ms",
                "The hand is ahead of the view; from about 50 ms on that is felt.",
                "half_life_s = 0.01",
            )


def _noisy_rest(profile: Profile, mode: str) -> Iterator[Finding]:
    """Give sticks that ask for something while a usual worn stick lies untouched."""
    table = profile.mode[mode]
    tilt = math.hypot(*REST) + NOISE_SIGMAS * NOISE
    for channel in ("move", "look"):
        of_channel = getattr(table, channel)
        for index, bind in enumerate(of_channel.bind if of_channel else ()):
            if not isinstance(bind, StickBind | LookStickBind):
                continue
            stick = StickResponse(bind)
            right, down = (part * tilt / math.hypot(*REST) for part in REST)
            amount = stick.amount(right, -down)
            if amount > 0.0 and bind.centre == (0.0, 0.0):
                yield Finding(
                    "dead-zone-small",
                    "notice",
                    f"mode.{mode}.{channel}.bind[{index}].dead_zone.inner",
                    f"a usual worn stick lies at a tilt of up to {tilt:.3f}, and asks for {amount:.3f} there",
                    "Hands off, the body walks or the view turns by itself.",
                    "dead_zone = { inner = 0.1 }; or wendonic calibrate a recording of the stick",
                )


def _mirror_images(profile: Profile, mode: str) -> Iterator[Finding]:
    """Give sources that ask for more to one side than to the other."""
    table = profile.mode[mode]
    binds = table.move.bind if table.move else ()
    if any(isinstance(bind, StickBind) for bind in binds):
        for full in full_inputs(profile, mode, steps=16):
            by_heading = dict(zip(full.headings_deg, full.wanted, strict=True))
            for heading, (right, ahead) in by_heading.items():
                for words, other, sign_x, sign_y in (
                    ("left and right", (360.0 - heading) % 360.0, -1.0, 1.0),
                    ("ahead and back", (540.0 - heading) % 360.0, 1.0, -1.0),
                ):
                    mirrored = by_heading.get(other)
                    if mirrored is None:
                        continue
                    off = math.hypot(right - sign_x * mirrored[0], ahead - sign_y * mirrored[1])
                    if off > MIRROR_SHARE:
                        yield _lopsided(f"mode.{mode}.move", f"{full.name}: {words} differ by {off:.0%} of top speed")
                        return
    for index, bind in enumerate(table.look.bind if table.look else ()):
        if isinstance(bind, LookStickBind) and bind.snap_deg is None:
            right, left = yaw_rate_deg_s(bind, [0.5, -0.5])
            most = max(abs(right), abs(left))
            if most > 0.0 and abs(right + left) > MIRROR_SHARE * most:
                words = f"half a tilt turns {abs(right):.0f} deg/s to the right, {abs(left):.0f} deg/s to the left"
                yield _lopsided(f"mode.{mode}.look.bind[{index}]", words)


def _lopsided(where: str, measured: str) -> Finding:
    return Finding(
        "no-mirror-image",
        "notice",
        where,
        measured,
        "Turning to one side feels unlike turning to the other, and nobody can tell why.",
        'centre = [0, 0] and gate = "circle"; or wendonic calibrate a recording of this stick',
    )
