"""Frame `facing`: keys move the body along its own heading, and the body turns to where the mouse looks."""

from wendonic import Helm
from wendonic.demo import demo_profile
from wendonic.devices.standins import MouseStandIn

helm = Helm(demo_profile("smoker"))
helm.key("KeyA", down=True)

# Strafing to the left while the mouse turns to the right by 30 cm, a full turn: once round the hive.
swipe = MouseStandIn(counts_per_inch=800, seed=4).swipe(cm=30.0, duration_s=4.0)
for tick in range(240):
    while swipe and swipe[0].t < (tick + 1) / 60:
        helm.apply(swipe.pop(0))
    intent = helm.tick(1 / 60)
    if tick % 40 == 39:
        x, y, _ = intent.motion[:3]
        place = f"({x:z.1f}, {y:z.1f}) m"
        print(f"{intent.t:.2f} s: faces {intent.face_deg:3.0f} deg, goes {intent.heading_deg:3.0f} deg, at {place}")

helm.enter("guard")  # from above: the body turns to a bee, whichever way it walks
bee = (5.0, 0.0, -10.0)
helm.aim_at(*bee)
for _ in range(30):
    intent = helm.tick(1 / 60)
print(f"guarding: goes {intent.heading_deg:.0f} deg, faces {intent.face_deg:.0f} deg, to the bee")
