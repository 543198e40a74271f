"""Checks whether the gaits of a mode fit it."""

from collections.abc import Iterator, Mapping
from typing import Any

from wendonic.profile.schema.gait import Gait


def gait_faults(name: str, mode: Any, gaits: Mapping[str, Gait]) -> Iterator[tuple[str, str]]:
    """Yield (field path, what is wrong) for each gait that does not fit the mode: weight if nothing falls, gaits with
    weight next to gaits without, a jump by a press that does not exist or is used for something else, kept speed if
    the body has to stop.
    """
    frame = mode.steer.frame
    if frame == "goto":
        for gait, numbers in gaits.items():
            if numbers.keeps_speed and numbers.drag_per_s is None:
                words = f'does not go with mode "{name}": under frame "goto" the body has to stop at its goal'
                yield f"gait.{gait}.keeps_speed", words
    weighs = [gait for gait, numbers in gaits.items() if numbers.falls]
    if not weighs:
        return
    if mode.steer.weightless:
        words = f'{mode.steer.weightless} has no weight: under frame "{frame}" gravity_m_s2 and jump do nothing'
        yield f"mode.{name}.gait", f'"{weighs[0]}" does not go with it; {words}'
        return
    if len(weighs) < len(gaits):
        without = next(gait for gait in gaits if gait not in weighs)
        words = f'"{weighs[0]}" has weight and "{without}" has none; give both gravity_m_s2, or neither'
        yield f"mode.{name}.press_gaits", words
    jumps = {gait: numbers.jump.press for gait, numbers in gaits.items() if numbers.jump}
    for gait, press in jumps.items():
        if press not in mode.press:
            yield f"gait.{gait}.jump.press", f'mode "{name}" has no press "{press}"; bind it there'
    if len(set(jumps.values())) > 1:
        found = ", ".join(f'"{gait}" by "{press}"' for gait, press in jumps.items())
        words = (
            f"the gaits of a mode jump by one press; found: {found}; name one press in each, or give them two modes"
        )
        yield f"mode.{name}.press_gaits", words


def idle_gait_faults(modes: Mapping[str, Any], gaits: Mapping[str, Gait]) -> Iterator[tuple[str, str]]:
    """Yield the gaits with `rise_m_s` that no flying mode uses."""
    flying = {gait for mode in modes.values() if mode.steer.frame == "fly" for gait in _names(mode)}
    for name, gait in gaits.items():
        used = any(name in _names(mode) for mode in modes.values())
        if "rise_m_s" in gait.model_fields_set and used and name not in flying:
            yield f"gait.{name}.rise_m_s", 'does nothing here; it is for modes with frame "fly"'


def _names(mode: Any) -> list[str]:
    return [mode.gait, *mode.press_gaits.values()]
