"""Width of the smallest circle at top speed."""

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.profile.schema.steer.drive import DriveSteer
from wendonic.profile.schema.steer.facing import FacingSteer
from wendonic.study.bench import Bench
from wendonic.study.motion import speeds_m_s
from wendonic.study.probes.walker import Steps, probe
from wendonic.study.quantity import quantity
from wendonic.study.step_response import hold_s


@quantity(120, "m", "width of the smallest circle at top speed")
def turn_circle_m(bench: Bench) -> float | None:
    """Go forward and turn, where a body drives along its own heading."""
    steer, walker = bench.table.steer, bench.walker
    turns_by_moving = isinstance(steer, FacingSteer) and steer.face == "travel"
    if walker is None or not (isinstance(steer, DriveSteer) or turns_by_moving):
        return None
    held_s = hold_s(bench.moving)
    steps: Steps = [(0.0, walker.full("forward", "right"))]
    if not walker.stick:
        steps = [(0.0, walker.full("forward")), (held_s, walker.full("right"))]
    walked = shaped(probe(steps, 2.0 * held_s + 2.0), bench.moving, hz=240, engine=bench.engine)
    faces = np.unwrap(np.radians(walked["face_deg"][-120:]))
    turned = abs(float(faces[-1] - faces[0]))
    covered_m = float(speeds_m_s(walked)[-119:].sum() / 240.0)
    return 2.0 * covered_m / turned if turned > 1e-6 and covered_m > 0.0 else None
