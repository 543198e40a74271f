"""The Linux kernel's input event codes (include/uapi/linux/input-event-codes.h) as controls."""

EV_SYN, EV_KEY, EV_REL, EV_ABS = 0x00, 0x01, 0x02, 0x03
LAST_EVENT_TYPE = 0x1F
SYN_REPORT, SYN_DROPPED = 0, 3

_FIRST_KEYS = """
    Escape Digit1 Digit2 Digit3 Digit4 Digit5 Digit6 Digit7 Digit8 Digit9 Digit0 Minus Equal Backspace
    Tab KeyQ KeyW KeyE KeyR KeyT KeyY KeyU KeyI KeyO KeyP BracketLeft BracketRight Enter
    ControlLeft KeyA KeyS KeyD KeyF KeyG KeyH KeyJ KeyK KeyL Semicolon Quote Backquote
    ShiftLeft Backslash KeyZ KeyX KeyC KeyV KeyB KeyN KeyM Comma Period Slash ShiftRight
    NumpadMultiply AltLeft Space CapsLock F1 F2 F3 F4 F5 F6 F7 F8 F9 F10 NumLock ScrollLock
    Numpad7 Numpad8 Numpad9 NumpadSubtract Numpad4 Numpad5 Numpad6 NumpadAdd
    Numpad1 Numpad2 Numpad3 Numpad0 NumpadDecimal
""".split()
"""Codes 1 to 83, without a gap."""

_OTHER_KEYS = {
    85: "Lang5",
    86: "IntlBackslash",
    87: "F11",
    88: "F12",
    89: "IntlRo",
    90: "Lang3",
    91: "Lang4",
    92: "Convert",
    93: "KanaMode",
    94: "NonConvert",
    95: "NumpadComma",
    96: "NumpadEnter",
    97: "ControlRight",
    98: "NumpadDivide",
    99: "PrintScreen",
    100: "AltRight",
    102: "Home",
    103: "ArrowUp",
    104: "PageUp",
    105: "ArrowLeft",
    106: "ArrowRight",
    107: "End",
    108: "ArrowDown",
    109: "PageDown",
    110: "Insert",
    111: "Delete",
    113: "AudioVolumeMute",
    114: "AudioVolumeDown",
    115: "AudioVolumeUp",
    116: "Power",
    117: "NumpadEqual",
    119: "Pause",
    121: "NumpadComma",
    122: "Lang1",
    123: "Lang2",
    124: "IntlYen",
    125: "MetaLeft",
    126: "MetaRight",
    127: "ContextMenu",
    128: "BrowserStop",
    129: "Again",
    130: "Props",
    131: "Undo",
    133: "Copy",
    134: "Open",
    135: "Paste",
    136: "Find",
    137: "Cut",
    138: "Help",
    140: "LaunchApp2",
    142: "Sleep",
    143: "WakeUp",
    144: "LaunchApp1",
    155: "LaunchMail",
    156: "BrowserFavorites",
    158: "BrowserBack",
    159: "BrowserForward",
    161: "Eject",
    163: "MediaTrackNext",
    164: "MediaPlayPause",
    165: "MediaTrackPrevious",
    166: "MediaStop",
    172: "BrowserHome",
    173: "BrowserRefresh",
    **{183 + number: f"F{13 + number}" for number in range(12)},
    217: "BrowserSearch",
    226: "MediaSelect",
    0x1D0: "Fn",
}

_BUTTONS = {
    0x130: "south",
    0x131: "east",
    0x133: "north",
    0x134: "west",
    0x136: "left_bumper",
    0x137: "right_bumper",
    0x138: "left_trigger",
    0x139: "right_trigger",
    0x13A: "left_menu",
    0x13B: "right_menu",
    0x13C: "home",
    0x13D: "left_stick_press",
    0x13E: "right_stick_press",
    0x220: "dpad_up",
    0x221: "dpad_down",
    0x222: "dpad_left",
    0x223: "dpad_right",
}

_MOUSE_BUTTONS = {
    0x110: "left",
    0x111: "right",
    0x112: "middle",
    0x113: "back",
    0x114: "forward",
}

KEY_CONTROLS: dict[int, str] = {
    **{code: f"key.{key}" for code, key in enumerate(_FIRST_KEYS, start=1)},
    **{code: f"key.{key}" for code, key in _OTHER_KEYS.items()},
    **{code: f"pad.{button}" for code, button in _BUTTONS.items()},
    **{code: f"mouse.{button}" for code, button in _MOUSE_BUTTONS.items()},
}
"""Control by key or button code."""

STICK_AXES = {
    0x00: ("pad.left_stick", 0),
    0x01: ("pad.left_stick", 1),
    0x03: ("pad.right_stick", 0),
    0x04: ("pad.right_stick", 1),
}
"""Stick and its axis by absolute axis; in both standards x is to the right and y towards the player."""

MOUSE_AXES = {0x00: 0, 0x01: 1}
"""Axis of the mouse by relative axis; in both standards x is to the right and y towards the user."""

WHEEL_AXIS = 0x08
"""Notches of the wheel, away from the user positive."""

TRIGGER_AXES = {0x02: "pad.left_trigger", 0x05: "pad.right_trigger"}
TRIGGER_BUTTONS = (0x138, 0x139)

HAT_AXES = {0x10: ("pad.dpad_left", "pad.dpad_right"), 0x11: ("pad.dpad_up", "pad.dpad_down")}
"""The two buttons of a hat's axis: for -1 and for 1."""
