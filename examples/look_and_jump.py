"""Mouse look, a jump pressed too early, and a sprint that is switched on: what a game reads every tick."""

from wendonic import Helm
from wendonic.demo import demo_profile
from wendonic.devices.standins import MouseStandIn

helm = Helm(demo_profile())
helm.key("ShiftLeft", down=True)
helm.key("ShiftLeft", down=False)  # down and up between two ticks: still seen
intent = helm.tick(1 / 60)
print("sprint:", "on" if intent.press("sprint").held else "off")

turned_deg = 0.0
for event in MouseStandIn(counts_per_inch=800, seed=3).swipe(cm=8.5, duration_s=0.25):
    helm.apply(event)
    turned_deg += helm.tick(1 / 1000).look.yaw_deg
print(f"8.5 cm of mouse turn the camera by {turned_deg:.1f} deg, to a yaw of {helm.tick(0).view.yaw_deg:.1f} deg")

helm.ground(False)  # off the edge of a terrace, long ago
for _ in range(30):
    helm.tick(1 / 60)
helm.key("Space", down=True)
for tick in range(1, 9):
    helm.ground(tick >= 5)  # landing at the fifth tick
    if helm.tick(1 / 60).press("jump").began:
        print(f"Space came {tick - 1} ticks before the ground: the jump begins on tick {tick}")
