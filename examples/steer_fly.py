"""Frame `fly`: the scout bee. Forward is where the camera looks; rise goes along the world's up."""

from wendonic import Helm, View
from wendonic.demo import demo_profile

helm = Helm(demo_profile("scout"))


def fly(seconds: float, view: View, *codes: str, otherwise: str = "hands off") -> None:
    """Hold some keys, and say where that leads."""
    for code in codes:
        helm.key(code, down=True)
    for _ in range(round(seconds * 60)):
        intent = helm.tick(1 / 60, view=view)
    for code in codes:
        helm.key(code, down=False)
    x, height, z = intent.position()
    speed = sum(part * part for part in intent.velocity()) ** 0.5
    keys = " + ".join(codes) or otherwise
    print(f"{keys:13} {speed:4.2f} m/s, {x:z5.1f} m east, {-z:z5.1f} m north, {height:z4.1f} m up")


north, east_and_down = View(), View(yaw_deg=90, pitch_deg=-30)
fly(2.0, north, "KeyW")
fly(2.0, north, "Space")
fly(2.0, north, "KeyW", "Space")  # both at once are no faster than one of them
fly(2.0, north)
fly(2.0, east_and_down, "KeyW")  # level: the pitch plays no part

helm.enter("dive")  # here it does
helm.stick("pad.left_stick", 0.0, -1.0)
fly(2.0, east_and_down, otherwise="the stick")
