"""A pygame window that steers a helm: every event of the window goes through one adapter (extra `live`)."""

import os
import sys

import pygame

from wendonic import Helm
from wendonic.demo import demo_profile
from wendonic.devices.adapters.pygame_events import PygameEvents

DUMMY = "--dummy" in sys.argv  # no screen: press W by ourselves, and stop after a second
if DUMMY:
    os.environ["SDL_VIDEODRIVER"] = "dummy"
pygame.display.init()
screen = pygame.display.set_mode((640, 480))
if DUMMY:
    pygame.event.post(pygame.event.Event(pygame.KEYDOWN, scancode=pygame.KSCAN_W))

helm, adapter, clock = Helm(demo_profile()), PygameEvents(), pygame.time.Clock()
adapter.open_pads()
intent, is_open = helm.tick(0.0), True
while is_open and not (DUMMY and intent.tick > 60):
    for raw in pygame.event.get():
        is_open = is_open and raw.type != pygame.QUIT
        for event in adapter.events(raw):
            helm.apply(event)
    intent = helm.tick(clock.tick(60) / 1000)
    screen.fill("#FAF7F0")
    pygame.draw.circle(screen, "#D9902F", (320 + 60 * intent.motion.pos_x, 240 - 60 * intent.motion.pos_y), 12)
    pygame.display.flip()
print(f"{intent.device}: {intent}")
