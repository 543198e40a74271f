"""A third-person game, y up, right-handed, whose camera follows: on foot, aiming, into the cart and out of it."""

from wendonic import Helm, View, profile_from_text

DT = 1 / 60
PROFILE = """
format = "wendonic-profile"
version = 1
world = { right = "+x", forward = "-z", up = "+y" }
[mode.foot]
steer = { frame = "camera", face = "travel", turn_deg_s = 540 }
[[mode.foot.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
[[mode.foot.look.bind]]
mouse = "mouse.move"
cm_per_turn = 34
dpi = 800
[mode.foot.press]
aim = { bind = ["mouse.right"], enter = "aim" }
ride = { bind = ["KeyE"], enter = "cart" }
[mode.aim]
like = "foot"
movement = "carry"
steer = { frame = "camera", face = "view" }
gait = "stroll"
[mode.aim.press]
aim = { enter = "foot", enter_at = "end" }
[mode.cart]
like = "foot"
gait = "cart"
steer = { frame = "drive" }
[mode.cart.press]
aim = { enter = "none" }
ride = { enter = "foot" }
"""


class Game:
    """Its own places of body and camera; the helm says what the player wants."""

    helm = Helm(profile_from_text(PROFILE))
    place: tuple[float, ...] = (0.0, 0.0, 0.0)

    def step(self) -> None:
        """Take one frame: the body by the helm's velocity, the camera 4 m behind where it looks."""
        self.intent = self.helm.tick(DT)
        self.place = tuple(at + by * DT for at, by in zip(self.place, self.intent.velocity(), strict=True))
        self.helm.place(*self.place)
        _, forward, _ = self.intent.view.basis(self.helm.axes)
        self.camera = tuple(at - 4.0 * by for at, by in zip(self.place, forward, strict=True))

    def play(self, words: str, seconds: float) -> None:
        """Go on for a while, and say what came of it."""
        for _ in range(round(seconds / DT)):
            self.step()
        speed_m_s = sum(part * part for part in self.intent.velocity()) ** 0.5
        camera = ", ".join(f"{part:.2f}" for part in self.camera)
        at = f"x {self.place[0]:5.2f} z {self.place[2]:5.2f} m"
        print(f"{words:20} {self.helm.mode:4} at {at}, {speed_m_s:.1f} m/s, camera at {camera}")


game = Game()
helm = game.helm
helm.key("KeyW", down=True)
game.play("forward is -z", 1.0)
helm.mouse(2677.2, 0.0)  # a quarter of 34 cm at 800 counts an inch
game.play("a quarter right: +x", 1.0)
helm.button("mouse.right", True)
game.play("aiming, no dip", 0.5)
helm.button("mouse.right", False)
helm.key("KeyE", down=True)
game.play("into the cart", 2.0)
helm.key("KeyE", down=False)
game.play("driving on", 0.1)
helm.key("KeyE", down=True)
game.play("and out of it", 0.5)
print("back from the engine's camera:", View.from_quaternion(game.intent.view.quaternion(helm.axes), helm.axes))
