"""A press that stays held while a mode is measured: sprint, creep, zoom."""

from wendonic.devices.event import Event
from wendonic.devices.push import Changes
from wendonic.errors import WendonicError, none_such
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.helm import Helm
from wendonic.study.probes.press_entry import entry_changes

TICK_S = 0.01


def held_press(profile: Profile, name: str) -> tuple[tuple[Changes, float], ...]:
    """Return the changes that keep a press held, in a profile of one mode, and how long (s) to wait after them.

    Raises `WendonicError` for a press that the mode does not have, or that nothing keeps held.

    >>> from wendonic.demo import demo_profile
    >>> held_press(demo_profile("harvest"), "sprint")
    (([('key.ShiftLeft', 1.0)], 0.01),)
    """
    mode = profile.first_mode
    presses = profile.mode[mode].press
    if name not in presses or not presses[name].bind:
        own = [known for known, press in presses.items() if press.bind]
        raise WendonicError(none_such(f'such press in mode "{mode}":', name, own))
    press = presses[name]
    for entry in press.bind:
        down, up = entry_changes(profile, entry)
        steps = [(_changes(events), max(wait_s, TICK_S)) for events, wait_s in press.trial(down, up)]
        helm = Helm(profile)
        for changes, wait_s in steps:
            for control, value in changes:
                helm.apply(Event(0.0, control, value))
            for _ in range(round(wait_s / TICK_S)):
                helm.tick(TICK_S)
        for _ in range(20):
            intent = helm.tick(TICK_S)
        if intent.press(name).held:
            return tuple(steps)
    raise WendonicError(f'press "{name}" of mode "{mode}" cannot be held (style "{press.style}")')


def _changes(events: list[Event]) -> Changes:
    return [(event.control, event.value) for event in events]
