"""Keys by their number in the USB HID Usage Tables, page 7, which the kernel and window libraries report."""

_FROM_4 = """
    KeyA KeyB KeyC KeyD KeyE KeyF KeyG KeyH KeyI KeyJ KeyK KeyL KeyM
    KeyN KeyO KeyP KeyQ KeyR KeyS KeyT KeyU KeyV KeyW KeyX KeyY KeyZ
    Digit1 Digit2 Digit3 Digit4 Digit5 Digit6 Digit7 Digit8 Digit9 Digit0
    Enter Escape Backspace Tab Space Minus Equal BracketLeft BracketRight Backslash Backslash
    Semicolon Quote Backquote Comma Period Slash CapsLock
    F1 F2 F3 F4 F5 F6 F7 F8 F9 F10 F11 F12
    PrintScreen ScrollLock Pause Insert Home PageUp Delete End PageDown
    ArrowRight ArrowLeft ArrowDown ArrowUp
    NumLock NumpadDivide NumpadMultiply NumpadSubtract NumpadAdd NumpadEnter
    Numpad1 Numpad2 Numpad3 Numpad4 Numpad5 Numpad6 Numpad7 Numpad8 Numpad9 Numpad0 NumpadDecimal
    IntlBackslash ContextMenu Power NumpadEqual
    F13 F14 F15 F16 F17 F18 F19 F20 F21 F22 F23 F24
""".split()

_OTHERS = {
    117: "Help",
    119: "Select",
    121: "Again",
    122: "Undo",
    123: "Cut",
    124: "Copy",
    125: "Paste",
    126: "Find",
    127: "AudioVolumeMute",
    128: "AudioVolumeUp",
    129: "AudioVolumeDown",
    133: "NumpadComma",
    135: "IntlRo",
    136: "KanaMode",
    137: "IntlYen",
    138: "Convert",
    139: "NonConvert",
    144: "Lang1",
    145: "Lang2",
    146: "Lang3",
    147: "Lang4",
    148: "Lang5",
    182: "NumpadParenLeft",
    183: "NumpadParenRight",
    224: "ControlLeft",
    225: "ShiftLeft",
    226: "AltLeft",
    227: "MetaLeft",
    228: "ControlRight",
    229: "ShiftRight",
    230: "AltRight",
    231: "MetaRight",
}

USB_KEYS: dict[int, str] = dict(enumerate(_FROM_4, start=4)) | _OTHERS
"""W3C code by usage number."""
