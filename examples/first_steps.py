"""First steps: load a profile, feed raw input, tick, read the intent."""

from wendonic import Helm, View, load_profile
from wendonic.demo import PROFILE_PATH

helm = Helm(load_profile(PROFILE_PATH))

# The beekeeper looks east and walks forward, then slants right, then releases everything.
for second, keys_down in enumerate([{"KeyW"}, {"KeyW", "KeyD"}, set()]):
    for code in ("KeyW", "KeyD"):
        helm.key(code, down=code in keys_down)
    for _ in range(60):
        intent = helm.tick(1 / 60, view=View(yaw_deg=90))
    velocity = ", ".join(f"{part:z.2f}" for part in intent.velocity())
    heading = "at rest" if intent.heading_deg is None else f"heading {intent.heading_deg:.0f} deg"
    print(f"{second + 1} s, {' + '.join(sorted(keys_down)) or 'hands off'}: {heading}, velocity ({velocity}) m/s")

# The profile says forward = "-z" and right = "+x": looking east, forward is the game's +x.
x, y, z = intent.position()
print(f"the beekeeper is at x {x:z.2f}, y {y:z.2f}, z {z:z.2f} m")
