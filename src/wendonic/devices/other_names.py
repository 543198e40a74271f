"""Other names of controls, and the control that each of them means."""

PAD_NAMES: dict[str, str] = {
    "a": "south",
    "b": "east",
    "x": "west",
    "y": "north",
    "lb": "left_bumper",
    "rb": "right_bumper",
    "l1": "left_bumper",
    "r1": "right_bumper",
    "lt": "left_trigger",
    "rt": "right_trigger",
    "l2": "left_trigger",
    "r2": "right_trigger",
    "l3": "left_stick_press",
    "r3": "right_stick_press",
    "ls": "left_stick",
    "rs": "right_stick",
    "back": "left_menu",
    "select": "left_menu",
    "view": "left_menu",
    "share": "left_menu",
    "start": "right_menu",
    "menu": "right_menu",
    "options": "right_menu",
    "up": "dpad_up",
    "down": "dpad_down",
    "left": "dpad_left",
    "right": "dpad_right",
}
"""Controls of a pad; the four face buttons by their place in the W3C "standard" layout, whatever is printed on them.
"""

PAD_LETTERS = 2
"""Two-letter names mean a pad even without saying so; "up" could mean anything."""

OTHER_NAMES: dict[str, str] = {
    "mouse.scroll": "mouse.wheel",
    "mouse.x": "mouse.move",
    "mouse.y": "mouse.move",
    "mouse.delta": "mouse.move",
    "mouse.1": "mouse.left",
    "mouse.2": "mouse.right",
    "mouse.3": "mouse.middle",
    "mouse.position": "pointer.at",
    "pointer": "pointer.at",
    "cursor": "pointer.at",
}

KEY_NAMES: dict[str, str] = {
    "up": "ArrowUp",
    "down": "ArrowDown",
    "left": "ArrowLeft",
    "right": "ArrowRight",
    "shift": "ShiftLeft",
    "leftshift": "ShiftLeft",
    "rightshift": "ShiftRight",
    "leftctrl": "ControlLeft",
    "rightctrl": "ControlRight",
    "leftalt": "AltLeft",
    "rightalt": "AltRight",
    "lshift": "ShiftLeft",
    "rshift": "ShiftRight",
    "ctrl": "ControlLeft",
    "control": "ControlLeft",
    "lctrl": "ControlLeft",
    "rctrl": "ControlRight",
    "alt": "AltLeft",
    "lalt": "AltLeft",
    "ralt": "AltRight",
    "cmd": "MetaLeft",
    "win": "MetaLeft",
    "meta": "MetaLeft",
    "super": "MetaLeft",
    "esc": "Escape",
    "return": "Enter",
    "del": "Delete",
    "ins": "Insert",
    "pgup": "PageUp",
    "pgdn": "PageDown",
    "spacebar": "Space",
    "minus": "Minus",
    "plus": "Equal",
    "comma": "Comma",
    "dot": "Period",
    ".": "Period",
    ",": "Comma",
    "-": "Minus",
    "/": "Slash",
    " ": "Space",
}


def key_meant(name: str) -> str | None:
    """Return the W3C code of a key with another name, None for a name that does not certainly mean a key.

    >>> key_meant("W"), key_meant("up"), key_meant("7"), key_meant("left shift"), key_meant("F5"), key_meant("KeyWW")
    ('KeyW', 'ArrowUp', 'Digit7', 'ShiftLeft', 'F5', None)
    """
    plain = name.lower().removeprefix("key.").removeprefix("key_").replace("_", "").replace(" ", "")
    plain = plain or name
    if plain in KEY_NAMES:
        return KEY_NAMES[plain]
    plain = plain.removeprefix("key").removeprefix("digit") or plain
    if len(plain) == 1 and plain.isascii():
        if plain.isalpha():
            return f"Key{plain.upper()}"
        if plain.isdigit():
            return f"Digit{plain}"
    if plain[:1] == "f" and plain[1:].isdigit() and 1 <= int(plain[1:]) <= 24:
        return plain.upper()
    return None


def control_meant(name: str) -> str | None:
    """Return the control with another name, None for a name that does not certainly mean one.

    >>> control_meant("pad.a"), control_meant("pad1.lb"), control_meant("LS"), control_meant("pad.rz")
    ('pad.south', 'pad1.left_bumper', 'pad.left_stick', None)
    """
    lower = name.lower()
    if lower in OTHER_NAMES:
        return OTHER_NAMES[lower]
    if len(lower) == PAD_LETTERS and lower in PAD_NAMES and lower != "up":
        return f"pad.{PAD_NAMES[lower]}"
    unit, dot, part = lower.partition(".")
    for prefix in ("gamepad", "joystick", "controller"):
        if unit.startswith(prefix):
            unit = f"pad{unit.removeprefix(prefix)}"
    if unit.startswith("pad") and dot:
        part = part.replace("-", "_").removesuffix("_button").removeprefix("button_")
        if part in PAD_NAMES:
            return f"{unit}.{PAD_NAMES[part]}"
    if unit in ("key", "keys", "keyboard") and dot:
        code = key_meant(part)
        return f"key.{code}" if code else None
    return None
