"""Structures of any forms, for Hypothesis: presses of every style, gaits, frames, weight and walls."""

from hypothesis import strategies as st

from test_tick_properties import dts, samples, tunings
from wendonic.course import Course
from wendonic.kernels.body.comfort import ComfortTuning
from wendonic.kernels.body.facing import FACE_HOLD, FACE_TRAVEL, FACE_VIEW
from wendonic.kernels.body.fall import NO_FALL
from wendonic.kernels.body.gait import with_forms
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.kernels.frames.blocked import blocked_table
from wendonic.kernels.frames.goal import GoalInput, GotoTuning
from wendonic.kernels.frames.steer import (
    FRAME_CAMERA,
    FRAME_DRIVE,
    FRAME_FACING,
    FRAME_FLY,
    FRAME_GOTO,
    FRAME_GRID,
    FRAME_HANDS,
    FRAME_MAP,
)
from wendonic.kernels.press.press import SILENT_PRESS, STYLE_REPEAT, PressInput
from wendonic.kernels.sample import GroundInput
from wendonic.kernels.source.dead_zone import ZONE_CUT, ZONE_NONE, DeadZoneTuning
from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_KEYS, SOURCE_TRIGGERS
from wendonic.kernels.vector import UP, ZERO3, Vec2, Vec3

FRAMES = (FRAME_MAP, FRAME_CAMERA, FRAME_FACING, FRAME_DRIVE, FRAME_FLY, FRAME_GRID, FRAME_GOTO, FRAME_HANDS)
WALLED = (0.0, 2.0, 13.0, -9.0, 1.0, 9.0, 2.0, 3.0, 0.5, -9.0, 2.0, 9.0, 0.4, *blocked_table([(0.0, 1.0)]))
"""A wall ahead and a low one to the right, and one blocked square."""

UNEVEN = Course.model_validate(
    {
        "format": "wendonic-course",
        "version": 1,
        "piece": [
            {"form": "flat", "left_m": -9, "back_m": 0.3, "right_m": 0.4, "forward_m": 9, "height_m": 0.9},
            {
                "form": "ramp",
                "left_m": 0.4,
                "back_m": -9,
                "right_m": 3,
                "forward_m": 9,
                "up": "right",
                "to_height_m": 2,
            },
        ],
        "wall": [{"left_m": -2, "back_m": -3, "right_m": -0.5, "forward_m": -1, "height_m": 2}],
    }
).numbers
"""A terrace, a ramp and a wall about the origin."""

flag = st.integers(0, 1)
limit_s = st.floats(0.01, 0.5)


@st.composite
def presses(draw):
    """Any presses, silent ones among them."""
    return tuple(
        SILENT_PRESS._replace(
            style=draw(st.integers(0, STYLE_REPEAT)),
            tap_s=draw(limit_s),
            long_s=draw(limit_s),
            double_s=draw(limit_s),
            repeat_delay_s=draw(limit_s),
            repeat_interval_s=draw(limit_s),
            waits=draw(flag),
            buffer_s=draw(limit_s),
            grace_s=draw(limit_s),
            airs=draw(flag),
            air_jumps=2.0,
        )
        for _ in range(draw(st.integers(0, 3)))
    )


@st.composite
def held_zones(draw):
    """A dead zone of any form that may hold what is out."""
    inner = draw(st.floats(0.05, 0.4))
    return DeadZoneTuning(draw(st.integers(ZONE_NONE, ZONE_CUT)), draw(flag), inner, 0.95, 0.5 * inner)


@st.composite
def gaits(draw, gait, falls, press):
    """A gait with any forms."""
    fall = NO_FALL._replace(falls=falls, rising_m_s2=9.0, falling_m_s2=12.0, terminal_m_s=20.0, jump_m_s=5.0)
    coasts = draw(st.integers(0, 2))
    formed = gait._replace(
        press=press,
        reverses=draw(flag),
        reverse_m_s2=draw(st.floats(1.0, 90.0)),
        airborne=draw(flag) * falls,
        drags=draw(flag) * draw(flag),
        drag_per_s=draw(st.floats(0.5, 9.0)),
        keeps=coasts // 2,
        coasts=coasts % 2,
        coast_half_life_s=draw(limit_s),
        loses=draw(flag),
        turn_loss=draw(st.floats(0.0, 1.0)),
        fall=fall._replace(early_release_ratio=draw(st.floats(0.0, 1.0))),
    )
    return with_forms(formed)


@st.composite
def wide_runs(draw):
    """A tuning, a course, and some ticks for it: (sample, dt)."""
    tuning = draw(tunings())
    frame = draw(st.sampled_from(FRAMES))
    pressed = draw(presses())
    falls = draw(flag) if frame in (FRAME_MAP, FRAME_CAMERA, FRAME_FACING, FRAME_HANDS) else 0
    slope = tuning.frame.slope._replace(follows=draw(flag), steepest_tangent=1.0, slide_m_s=1.0, lean_half_life_s=0.1)
    room = ComfortTuning(draw(flag), 12.0, 3.0, 0.05, 0.2, 0.5, 0.5, 0.1, draw(st.sampled_from([0.03, 0.5])))
    own = draw(gaits(tuning.gaits[0], falls, -1))
    others = [draw(gaits(own, falls, number)) for number in range(len(pressed)) if draw(st.booleans())]
    walled = draw(flag) if frame not in (FRAME_GRID, FRAME_FLY) else 0
    many = len(tuning.move.sources)
    keys = sum(source.kind == SOURCE_KEYS for source in tuning.move.sources)
    triggers = PLAIN_SOURCE._replace(
        kind=SOURCE_TRIGGERS, stick=PLAIN_SOURCE.stick._replace(dead_zone=draw(held_zones()))
    )
    tuning = tuning._replace(
        throttle=tuning.throttle._replace(sources=(triggers,) * draw(flag)),
        move=tuning.move._replace(
            joined=int(keys > 1) * draw(flag),
            between=draw(st.integers(0, 2)),
            diagonals=draw(st.sampled_from([(), tuple(draw(st.integers(0, 3)) for _ in range(many))])),
        ),
        presses=pressed,
        gaits=(own, *others),
        comfort=room,
        jump_press=draw(st.integers(-1, len(pressed) - 1)),
        turning=int(frame not in (FRAME_GRID, FRAME_MAP)),
        walled=walled,
        sectors=draw(st.sampled_from([0, 2, 4, 8])),
        sector_tie=draw(st.integers(0, 2)),
        sector_by_heading=draw(flag),
        frame=tuning.frame._replace(
            frame=frame,
            slope=slope,
            face=draw(st.sampled_from([FACE_TRAVEL, FACE_VIEW, FACE_HOLD])),
            face_limited=draw(flag),
            face_above=draw(st.sampled_from([0.3, 0.9])),
            holds=draw(flag),
            hold_s=draw(st.sampled_from([0.03, 0.2])),
            drive=tuning.frame.drive._replace(slips=draw(flag), slip_half_life_s=draw(limit_s)),
            goto=GotoTuning(
                0.1,
                draw(st.sampled_from([0.0, 0.5])),
                draw(flag),
                draw(st.sampled_from([0, 1, 3])),
                draw(flag),
                draw(flag),
            ),
        ),
    )

    def sample():
        inputs = tuple(
            PressInput(float(draw(flag)), float(draw(st.integers(0, 4))), float(draw(st.integers(0, 2))))
            for _ in pressed
        )
        goal = GoalInput(float(draw(flag)), draw(st.floats(-3.0, 3.0)), draw(st.floats(-3.0, 3.0)))
        ground = GroundInput(draw(st.sampled_from([0.0, 1.0, 2.0])), UP)
        reported = draw(
            st.sampled_from([ZERO3, ZERO3, Vec3(0.0, -1.0, 0.0), Vec3(-0.8, 0.6, 0.0), Vec3(0.0, 0.0, 1.0)])
        )
        pulled = ((draw(st.floats(0.0, 1.0)), draw(st.floats(0.0, 1.0))),) * len(tuning.throttle.sources)
        head = Vec2(draw(st.floats(-1.0, 1.0)), draw(st.floats(-1.0, 1.0)))
        given = draw(samples(tuning))
        return given._replace(presses=inputs, ground=ground, goal=goal, wall=reported, throttle=pulled, head=head)

    steps = [(sample(), draw(dts)) for _ in range(draw(st.integers(1, 8)))]
    if frame == FRAME_GRID:
        return tuning, WALLED, steps
    return tuning, draw(st.sampled_from([WALLED, UNEVEN])) if walled else NO_COURSE, steps
