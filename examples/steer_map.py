"""Frame `map`: the store room from above. Forward is up the plan whatever the camera does; y grows downwards."""

from wendonic import Helm, View
from wendonic.demo import demo_profile

helm = Helm(demo_profile("store_room"))
FACINGS = ("up", "right", "down", "left")

for keys in (["KeyW"], ["KeyD"], ["KeyS"], ["KeyA"], ["KeyW", "KeyD"]):
    for code in keys:
        helm.key(code, down=True)
    for _ in range(30):
        intent = helm.tick(1 / 60, view=View(yaw_deg=123))
    x, y = intent.direction()
    facing = FACINGS[intent.sector or 0]
    print(
        f"{' + '.join(keys):11} heading {intent.heading_deg:3.0f} deg, on the screen ({x:+z.2f}, {y:+z.2f}), {facing}"
    )
    for code in keys:
        helm.key(code, down=False)
    for _ in range(30):
        helm.tick(1 / 60)

helm.enter("ledge")  # the same room from the side: only right and left are ways to go
helm.stick("pad.left_stick", -0.7, -0.7)
for _ in range(30):
    intent = helm.tick(1 / 60)
print(f"on the ledge: heading {intent.heading_deg:.0f} deg, the sprite looks {('right', 'left')[intent.sector or 0]}")
