"""The pictures of the other pages, from the demo data."""

from collections.abc import Callable
from typing import Any

from wendonic import shape
from wendonic.demo import demo_course, demo_profile, demo_recording
from wendonic.pictures import draw_curve, draw_feel, draw_frame, draw_path, draw_timeline


def timeline() -> Any:
    """The beekeeper with keys, for ten seconds."""
    recording = demo_recording("beekeeper_keys")
    trace = shape(recording, demo_profile())
    return draw_timeline(trace[(trace["t"] > 5.0) & (trace["t"] < 15.0)], recording)


def feel() -> Any:
    """A strong brake and a weak one."""
    weak = demo_profile().changed({"gait.walk.brake_m_s2": 4.0})
    return draw_feel({"beekeeper.toml": demo_profile(), "bee.toml, brake_m_s2 = 4": weak})


def curve() -> Any:
    """The curves of the beekeeper."""
    return draw_curve(demo_profile())


def _walk(recording_name: str, name: str) -> Any:
    profile, recording, course = demo_profile(name), demo_recording(recording_name), demo_course(name)
    trace = shape(recording, profile, course=course)
    return draw_path(trace, recording.title, profile=profile, recording=recording, course=course)


def path_terraces() -> Any:
    """Up and down the terraces."""
    return _walk("terraces_walk", "terraces")


def path_harvest() -> Any:
    """Harvest day."""
    return _walk("harvest_run", "harvest")


def frame_cart() -> Any:
    """The honey cart."""
    recording, profile = demo_recording("cart_ride"), demo_profile("cart")
    return draw_frame(shape(recording, profile), profile, title=recording.title)


PICTURES: dict[str, Callable[[], Any]] = {
    draw.__name__: draw for draw in (timeline, feel, curve, path_terraces, path_harvest, frame_cart)
}
"""Every picture by its name."""
