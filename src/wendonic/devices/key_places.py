"""The places of keys: a W3C code is a place on the keyboard, so it has neighbours."""

from typing import NamedTuple


class KeyPlace(NamedTuple):
    """A block of keys, and a place in it, in widths of a key: x to the right, y away from the player."""

    block: str
    x: float
    y: float


_ROWS: tuple[tuple[str, float, float, str], ...] = (
    (
        "letters",
        0.0,
        3.0,
        "Backquote Digit1 Digit2 Digit3 Digit4 Digit5 Digit6 Digit7 Digit8 Digit9 Digit0 Minus Equal",
    ),
    ("letters", 1.5, 2.0, "KeyQ KeyW KeyE KeyR KeyT KeyY KeyU KeyI KeyO KeyP BracketLeft BracketRight"),
    ("letters", 1.75, 1.0, "KeyA KeyS KeyD KeyF KeyG KeyH KeyJ KeyK KeyL Semicolon Quote"),
    ("letters", 2.25, 0.0, "KeyZ KeyX KeyC KeyV KeyB KeyN KeyM Comma Period Slash"),
    ("arrows", 0.0, 0.0, "ArrowLeft ArrowDown ArrowRight"),
    ("arrows", 1.0, 1.0, "ArrowUp"),
    ("numpad", 0.0, 3.0, "Numpad7 Numpad8 Numpad9"),
    ("numpad", 0.0, 2.0, "Numpad4 Numpad5 Numpad6"),
    ("numpad", 0.0, 1.0, "Numpad1 Numpad2 Numpad3"),
)

KEY_PLACES: dict[str, KeyPlace] = {
    code: KeyPlace(block, first_x + column, y)
    for block, first_x, y, codes in _ROWS
    for column, code in enumerate(codes.split())
}
"""Keys with their places; the rows of letters are staggered."""
