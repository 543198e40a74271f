"""A pyglet window that steers a helm (extra `pyglet`): WASD or a pad walks, the mouse turns; a click captures it."""

import math
import sys

import pyglet

from wendonic import Helm
from wendonic.demo import demo_profile
from wendonic.devices.adapters.pyglet_events import PygletEvents

SECONDS = float(sys.argv[1]) if len(sys.argv) > 1 else math.inf
PIXELS_PER_M = 40.0

window = pyglet.window.Window(640, 480, caption="Hollowmere Apiary")
helm = Helm(demo_profile())
adapter = PygletEvents(window, helm.apply)
adapter.open_pads()
pyglet.gl.glClearColor(0.98, 0.97, 0.94, 1.0)
body = pyglet.shapes.Circle(320, 240, 12, color=(217, 144, 47))
face = pyglet.shapes.Line(320, 240, 320, 262, thickness=4, color=(31, 36, 48))


def on_mouse_press(*_: float) -> None:
    """Capture the mouse: it is hidden, and turns without end. Escape closes the window."""
    window.set_exclusive_mouse(True)


def on_draw() -> None:
    """Draw the body from above."""
    window.clear()
    body.draw()
    face.draw()


def step(dt: float) -> None:
    """Take one tick."""
    intent = helm.tick(dt)
    body.x = 320 + PIXELS_PER_M * intent.motion.pos_x
    body.y = 240 + PIXELS_PER_M * intent.motion.pos_y
    turn = math.radians(intent.face_deg)
    face.x, face.y, face.x2, face.y2 = body.x, body.y, body.x + 22 * math.sin(turn), body.y + 22 * math.cos(turn)
    if intent.t >= SECONDS:
        pyglet.app.exit()


window.push_handlers(on_mouse_press=on_mouse_press, on_draw=on_draw)
pyglet.clock.schedule_interval(step, 1 / 60)
pyglet.app.run()
print(helm.tick(0.0))
