"""A jump and three gaits: how high and far each press carries, on a course and off it."""

from wendonic import Helm
from wendonic.demo import demo_course, demo_profile

HZ = 100


def jump(held_s: float, running: bool = False) -> str:
    """Run up for a second, press jump for so long, and say how high and how far it went."""
    helm = Helm(demo_profile("harvest"))
    helm.key("KeyW", down=True)
    helm.key("ShiftLeft", down=running)
    for _ in range(HZ):
        intent = helm.tick(1 / HZ)
    begins, top = intent.motion.pos_y, 0.0
    helm.key("Space", down=True)
    for tick in range(HZ):
        if tick == round(held_s * HZ):
            helm.key("Space", down=False)
        intent = helm.tick(1 / HZ)
        top = max(top, intent.motion.pos_z)
        if tick and intent.motion.grounded:
            break
    return f"{top:.2f} m high, {intent.motion.pos_y - begins:.2f} m far"


print("walking, tapped:  ", jump(0.05))
print("walking, held:    ", jump(1.0))
print("running, held:    ", jump(1.0, running=True))

helm = Helm(demo_profile("harvest"), course=demo_course("harvest"))
helm.key("KeyW", down=True)
for _ in range(3 * HZ):
    intent = helm.tick(1 / HZ)
print(f"the terrace is too high to step on: {intent.motion.pos_y:.2f} m forward, {intent.velocity()} m/s")
helm.key("Space", down=True)
for _ in range(HZ):
    intent = helm.tick(1 / HZ)
print(f"with a jump he is on it: {intent.motion.pos_y:.2f} m forward, {intent.motion.pos_z:.1f} m up")
