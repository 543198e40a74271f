"""Frame `drive`: throttle and turn steer the honey cart."""

import math

from wendonic import Helm
from wendonic.demo import demo_profile

helm = Helm(demo_profile("cart"))


def drive(seconds: float, *codes: str, otherwise: str = "hands off") -> None:
    """Hold some keys, and say what comes of it."""
    for code in codes:
        helm.key(code, down=True)
    for _ in range(round(seconds * 60)):
        intent = helm.tick(1 / 60)
    for code in codes:
        helm.key(code, down=False)
    motion = intent.motion
    keys = " + ".join(codes) or otherwise
    print(
        f"{keys:11} faces {intent.face_deg:3.0f} deg, velocity ({motion.vel_x:+z.1f}, {motion.vel_y:+z.1f}) m/s, "
        f"at ({motion.pos_x:z.1f}, {motion.pos_y:z.1f}) m"
    )


drive(1.0, "KeyD")  # a cart at rest cannot turn
drive(2.0, "KeyW")
drive(2.0, "KeyW", "KeyD")
drive(1.5)
drive(1.0, "KeyS", "KeyD")  # backwards, the nose comes round to the left
drive(1.0)

# Wet grass: it keeps some of its way when it turns.
helm = Helm(demo_profile("cart").changed({"mode.cart.steer.grip": 0.3}))
drive(2.0, "KeyW")
drive(1.0, "KeyW", "KeyD")
went_deg = math.degrees(math.atan2(helm.tick(0.0).motion.vel_x, helm.tick(0.0).motion.vel_y))
print(f"grip 0.3: it faces {helm.tick(0.0).face_deg:.0f} deg and goes {went_deg:.0f} deg")

helm.enter("tracks")  # a crawler turns on the spot
helm.stick("pad.left_stick", 1.0, 0.0)
drive(1.0, otherwise="the stick")
