"""Frame `goto`: the pointed place becomes the goal; time goes with the distance, and nothing jitters at the end."""

from wendonic import Helm
from wendonic.demo import demo_profile

for hz in (30, 60, 144):
    helm = Helm(demo_profile("orchard"))
    helm.go_to(9.0, -12.0)  # in the game's own axes: y grows down the screen
    while not (intent := helm.tick(1 / hz)).arrived:
        pass
    x, y = intent.position()
    print(f"{hz:3d} Hz: 15 m in {intent.t:.2f} s, arrived at ({x:.2f}, {y:.2f}) m")

helm = Helm(demo_profile("orchard"))
helm.pointer(0.75, 0.25)  # the window shows the plan: 8 m to the right, 4.5 m forward
helm.button("mouse.left", True)
helm.button("mouse.left", False)
for _ in range(60):
    intent = helm.tick(1 / 60)
print(f"clicked: goal {intent.goal} m, {intent.distance_m:.1f} m to go, heading {intent.heading_deg:.0f} deg")

helm.key("KeyA", down=True)  # any key takes over
intent = helm.tick(1 / 60)
print(f"by hand: goal {intent.goal}, heading {intent.heading_deg:.0f} deg")
