"""A game in pixels, seen from above, y down: tile walls of its own, a pause, and a settings menu while it runs."""

from wendonic import Event, Helm, next_control, profile_from_text

TILES = ["##########", "#........#", "#..#.....#", "#........#", "##########"]
TILE_PX, RADIUS_PX, DT = 32, 10, 1 / 60
PROFILE = """
format = "wendonic-profile"
version = 1
world = { right = "+x", forward = "-y", unit = "px", units_per_m = 50 }
[mode.yard]
steer = { frame = "map" }
[[mode.yard.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
[[mode.yard.move.bind]]
stick = "pad.left_stick"
curve = { form = "power", exponent = 2 }
[mode.yard.press]
pause = { bind = ["Escape", "pad.right_menu"] }
[mode.menu.press]
pause = { bind = ["Escape", "pad.right_menu"] }
down = { bind = ["KeyS", { stick = "pad.left_stick", towards = "down" }], style = "repeat" }
[gait.walk]
top_speed_u_s = 200
accel_u_s2 = 1500
brake_u_s2 = 2000
"""


class Game:
    """The game has the place, the walls and the menu; the helm has what the player wants."""

    helm = Helm(profile_from_text(PROFILE))
    place, row = [48.0, 48.0], 0

    def step(self) -> None:
        """Take one frame."""
        intent = self.helm.tick(DT)
        if intent.press("pause").began:
            self.helm.enter("menu" if self.helm.mode == "yard" else "yard")
            self.helm.stop()
            return
        if self.helm.mode == "menu":
            self.row += intent.press("down").began_count
            return
        velocity = list(intent.velocity())
        for axis in (0, 1):
            moved = self.place.copy()
            moved[axis] += velocity[axis] * DT
            corners = [
                (moved[0] + dx, moved[1] + dy) for dx in (-RADIUS_PX, RADIUS_PX) for dy in (-RADIUS_PX, RADIUS_PX)
            ]
            if all(TILES[int(y // TILE_PX)][int(x // TILE_PX)] == "." for x, y in corners):
                self.place = moved
            else:
                velocity[axis] = 0.0
        self.helm.place(*self.place, velocity=velocity)

    def play(self, words: str, seconds: float, *events: tuple[str, float | tuple[float, float]]) -> None:
        """Hand over events, go on for a while, and say where that led."""
        for control, value in events:
            self.helm.apply(Event(0.0, control, value))
        for _ in range(round(seconds / DT)):
            self.step()
        print(f"{words:32} {self.helm.mode}  at {self.place[0]:5.1f}, {self.place[1]:5.1f} px  row {self.row}")


game = Game()
game.play("D, against the wall", 2.0, ("key.KeyD", 1.0))
game.play("A, off it again", 0.5, ("key.KeyD", 0.0), ("key.KeyA", 1.0))
game.play("pause, A still held", 1.0, ("key.Escape", 1.0))
game.play("S held: the menu scrolls", 1.0, ("key.Escape", 0.0), ("key.KeyS", 1.0))
left = next_control(Event(0.0, "key.ArrowLeft", 1.0))
settings = {"mode.yard.move.bind[0].keys.left": [left], "mode.yard.move.bind[1].curve.exponent": 1}
game.helm.retune(game.helm.profile.changed(settings))
game.play("back; A means nothing now", 0.5, ("key.KeyS", 0.0), ("key.Escape", 1.0))
game.play("the new key does", 0.5, ("key.ArrowLeft", 1.0))
game.play("half a stick is half the speed", 0.5, ("key.ArrowLeft", 0.0), ("pad.left_stick", (0.55, 0.0)))
