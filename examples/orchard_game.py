"""A whole small game (extra `live`): fetch four jars in the orchard, by keys, pad, or a click on the plan.

`python orchard_game.py`, or `--dummy` to watch it play itself without a screen.
"""

import math
import os
import sys

import pygame

from wendonic import Helm
from wendonic.demo import demo_profile
from wendonic.devices.adapters.pygame_events import PygameEvents

WIDTH, HEIGHT, METRE = 960, 540, 30  # the plan of the profile: 32 x 18 m
STEP_S = 1 / 60
DUMMY = "--dummy" in sys.argv
if DUMMY:
    os.environ["SDL_VIDEODRIVER"] = "dummy"


def pixel(x: float, y: float) -> tuple[int, int]:
    """Return where a place of the game (y down, metres) is on the screen."""
    return round(WIDTH / 2 + x * METRE), round(HEIGHT / 2 + y * METRE)


pygame.display.init()
screen = pygame.display.set_mode((WIDTH, HEIGHT))
helm, adapter, clock = Helm(demo_profile("orchard")), PygameEvents(), pygame.time.Clock()
adapter.open_pads()
jars = [(6.0, -3.0), (-8.0, -4.0), (-5.0, 5.0), (9.0, 4.0)]
running, frames, walked_m, last = True, 0, 0.0, (0.0, 0.0)

while running and jars and frames < 3000:
    if DUMMY and frames % 360 == 0:  # a click on the next jar
        for kind in (pygame.MOUSEMOTION, pygame.MOUSEBUTTONDOWN, pygame.MOUSEBUTTONUP):
            words = {"rel": (0, 0), "buttons": (0, 0, 0)} if kind == pygame.MOUSEMOTION else {"button": 1}
            pygame.event.post(pygame.event.Event(kind, pos=pixel(*jars[0]), touch=False, **words))
    for raw in pygame.event.get():
        running = running and raw.type != pygame.QUIT
        for event in adapter.events(raw):
            helm.apply(event)
    for intent in helm.fixed_ticks(STEP_S if DUMMY else clock.tick(60) / 1000, STEP_S):
        place = intent.position()
        walked_m += math.dist(place, last)
        last = (place[0], place[1])
        jars = [jar for jar in jars if math.dist(jar, place) > 0.4]
    screen.fill("#FAF7F0")
    for jar in jars:
        pygame.draw.circle(screen, "#D9902F", pixel(*jar), 9)
    pygame.draw.circle(screen, "#4A6FA5", pixel(*last), 12)
    pygame.display.flip()
    frames += 1

print(f"{4 - len(jars)} of 4 jars in {intent.t:.1f} s, {walked_m:.1f} m walked")
