"""Frame `camera`: forward is where the camera looks, flattened, so that looking down does not slow the walk."""

import math

from wendonic import Helm, View, on_slope
from wendonic.demo import demo_profile

helm = Helm(demo_profile("terraces"))
helm.key("KeyW", down=True)


def walk(view: View) -> str:
    """Walk for a second under a view, and say how it goes."""
    for _ in range(60):
        intent = helm.tick(1 / 60, view=view)
    x, y, z = intent.velocity()
    heading = "refused        " if intent.heading_deg is None else f"heading {intent.heading_deg:3.0f} deg"
    return f"{heading}, {math.hypot(x, y, z):.2f} m/s, height {y:+z.2f} m/s"


print("level view:        ", walk(View(yaw_deg=90)))
print("looking down 80:   ", walk(View(yaw_deg=90, pitch_deg=-80)))
# From the camera's own axes, here scaled by 5 and looking straight down: the screen's upper edge is forward.
straight_down = View.from_basis(forward=(0.0, -5.0, 0.0), up=(5.0, 0.0, 0.0), axes=helm.axes)
print("straight down:     ", walk(straight_down))
half = math.sqrt(0.5)  # a camera turned to the right by 90 deg, as a quaternion
print("by quaternion:     ", walk(View.from_quaternion(0.0, -half, 0.0, half, helm.axes)))

helm.ground(True, normal=(-0.6, 0.8, 0.0))  # the ground rises to the east by 37 deg
print("up a slope, east:  ", walk(View(yaw_deg=90)))
helm.ground(True, normal=(-0.8, 0.6, 0.0))  # 53 deg: too steep
print("up a bank, east:   ", walk(View(yaw_deg=90)))
x, y, z = on_slope((1.0, 0.0, 0.0), normal=(-0.6, 0.8, 0.0), axes=helm.axes)
print(f"laid on the slope:  ({x:.2f}, {y:.2f}, {z:.2f})")
