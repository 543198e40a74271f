"""Frame `hands`: walking by swinging the two smokers, a snap turn, and pointing at a place to be at."""

from wendonic import Helm
from wendonic.demo import demo_course, demo_profile
from wendonic.devices.standins import HandsStandIn

helm = Helm(demo_profile("headset"), course=demo_course("yard"))
events = HandsStandIn(cadence_hz=0.9, amplitude_m=0.28, tremor_m=0.001, seed=5).walk(0.0, 4.0)

best = closed = 0.0
for tick in range(240):
    while events and events[0].t < (tick + 1) / 60:
        helm.apply(events.pop(0))
    intent = helm.tick(1 / 60)
    best, closed = max(best, intent.amount), max(closed, intent.comfort.vignette if intent.comfort else 0.0)
x, height, z = intent.position()
print(f"swinging for 4 s: {-z:.1f} m forward, at most {best:.2f} of full speed, vignette up to {closed:.2f}")

helm.stick("hand.right.stick", 1.0, 0.0)  # over to the right: one snap, however long it is held
for _ in range(30):
    intent = helm.tick(1 / 60)
print(f"a snap turn: the view is at {intent.view.yaw_deg:.0f} deg, and the walk with it")

helm.button("hand.right.lower", True)
helm.pose("hand.right.pose", (0.2, 1.2, 0.0), (0.1, 0.0, 0.0, 0.995))  # a little upwards
intent = helm.tick(1 / 60)
place = intent.landing
print(f"pointing: it would land at x {place[0]:.1f}, z {place[2]:.1f} m" if place else "pointing: nowhere to land")
helm.button("hand.right.lower", False)
intent = helm.tick(1 / 60)
x, height, z = intent.position()
print(f"released: teleported {intent.teleported}, now at x {x:.1f}, z {z:.1f} m")
