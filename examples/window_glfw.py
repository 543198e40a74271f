"""A GLFW window that steers a helm (extra `glfw`), and is the beekeeper itself: WASD or a pad moves it."""

import math
import sys

import glfw

from wendonic import Helm
from wendonic.demo import demo_profile
from wendonic.devices.adapters.glfw_events import GlfwEvents

SECONDS = float(sys.argv[1]) if len(sys.argv) > 1 else math.inf
PIXELS_PER_M = 40.0

if not glfw.init():
    sys.exit("no window can be opened here")
glfw.window_hint(glfw.CLIENT_API, glfw.NO_API)
window = glfw.create_window(320, 240, "Hollowmere Apiary", None, None)
helm = Helm(demo_profile())
adapter = GlfwEvents(window, helm.apply)
glfw.set_window_pos(window, 400, 300)
last_s = glfw.get_time()
intent = helm.tick(0.0)
while not glfw.window_should_close(window) and intent.t < SECONDS:
    glfw.wait_events_timeout(1 / 60)
    adapter.poll()  # pads have no callbacks
    now_s = glfw.get_time()
    intent = helm.tick(now_s - last_s)
    last_s = now_s
    x, y, *_ = intent.motion
    glfw.set_window_pos(window, round(400 + PIXELS_PER_M * x), round(300 - PIXELS_PER_M * y))
    glfw.set_window_title(window, f"Beekeeper at x {x:.1f} m, y {y:.1f} m")
print(intent)
glfw.terminate()
