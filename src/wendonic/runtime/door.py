"""The door: takes the raw values of every device, each in its own standard."""

from collections.abc import Sequence

from wendonic.devices.controls import CONTROLS, find_control, find_key, find_kind
from wendonic.devices.event import Event, finite
from wendonic.devices.state import DeviceState
from wendonic.errors import ControlError

VIEW = CONTROLS["view"]
_MOUSE = CONTROLS["mouse.move"]
_WHEEL = CONTROLS["mouse.wheel"]
_POINTER = CONTROLS["pointer.at"]
WINDOW = CONTROLS["window"]


class Door:
    """Takes raw values as they arrive, and keeps what is held.

    >>> door = Door()
    >>> door.key("KeyW", down=True)
    >>> door.state.held()
    ('key.KeyW',)
    """

    __slots__ = ("state",)

    def __init__(self) -> None:
        """Begin with nothing held."""
        self.state = DeviceState()

    @property
    def health(self) -> dict[str, dict[str, int]]:
        """How often a raw value was clamped to its range (`clamped`) or was not finite (`refused`), by control."""
        return {"clamped": dict(self.state.clamped), "refused": dict(self.state.refused)}

    def apply(self, event: Event) -> None:
        """Take one event of any kind; raises `ControlError` for an unknown control or a value that does not fit."""
        self.state.apply(event)

    def key(self, code: str, down: bool) -> None:
        """Press or release a key, by its W3C code such as "KeyW". Repeating a press changes nothing."""
        self.state.set(find_key(code), 1.0 if down else 0.0)

    def button(self, control: str, down: float | bool) -> None:
        """Set a button or trigger such as "pad.south": 0 or False is up, 1 or True is fully pressed."""
        self.state.set(find_kind(control, "button"), down)

    def stick(self, control: str, x: float, y: float) -> None:
        """Set a stick such as "pad.left_stick": each axis -1..1, x to the right, y towards the player."""
        self.state.set(find_kind(control, "stick"), (x, y))

    def mouse(self, dx: float, dy: float) -> None:
        """Add counts of the mouse since its last report: dx to the right, dy towards the user."""
        self.state.set(_MOUSE, (dx, dy))

    def wheel(self, notches: float) -> None:
        """Add notches of the mouse wheel, positive towards the user.

        >>> door = Door()
        >>> door.wheel(-2)
        >>> door.state.value("mouse.wheel")
        -2.0
        """
        self.state.set(_WHEEL, notches)

    def pointer(self, x: float, y: float) -> None:
        """Set the position of the pointer, in window fractions: 0..1, y down."""
        self.state.set(_POINTER, (x, y))

    def window(self, width: float, height: float) -> None:
        """Set the size of the window, in any unit, so that thumbs and pointers count the same in both directions
        whatever its shape. Call it at the start and whenever the window is resized; until then `[window]
        aspect_ratio` of the profile holds. A size of 0 or less, as of a minimised window, changes nothing. Raises
        `ControlError` for a number that is not finite.

        >>> door = Door()
        >>> door.window(2400, 1080)
        >>> round(door.state.value("window"), 3)
        2.222
        """
        across, down = finite(width), finite(height)
        if across is None or down is None:
            raise ControlError(f"window: found {width!r} and {height!r}; allowed: a width and a height")
        if across > 0.0 and down > 0.0:
            self.state.set(WINDOW, across / down)

    def touch(self, finger: int, x: float, y: float, down: bool = True) -> None:
        """Set a finger, 0 to 9, that lands, moves or is lifted: its position, in window fractions, y down.

        >>> door = Door()
        >>> door.touch(0, 0.2, 0.8)
        >>> door.state.held()
        ('touch.0',)
        """
        self.state.set(find_control(f"touch.{finger}"), (x, y, 1.0 if down else 0.0))

    def pose(self, control: str, position: Sequence[float], quaternion: Sequence[float]) -> None:
        """Set the pose of a tracked thing: "head.pose", "hand.left.pose", "hand.right.pose".

        Position in metres and quaternion x, y, z, w as in WebXR: right-handed, y up, -z forward.

        >>> door = Door()
        >>> door.pose("head.pose", (0.0, 1.7, 0.0), (0.0, 0.0, 0.0, 1.0))
        >>> door.state.value("head.pose")[:3]
        (0.0, 1.7, 0.0)
        """
        self.state.set(find_kind(control, "pose"), (*position, *quaternion))

    def sensor(self, control: str, x: float, y: float, z: float) -> None:
        """Set a motion sensor: "pad.gyro" in rad/s, "pad.accel" in m/s²; x right, y up, z towards the player.

        >>> door = Door()
        >>> door.sensor("pad.gyro", 0.0, -0.5, 0.0)
        >>> door.state.value("pad.gyro")
        (0.0, -0.5, 0.0)
        """
        self.state.set(find_kind(control, "rates"), (x, y, z))

    def view(self, yaw_deg: float, pitch_deg: float = 0.0) -> None:
        """Set where the camera looks before this tick's look; it holds until it is set again, or turned by `look`.

        >>> door = Door()
        >>> door.view(yaw_deg=90.0, pitch_deg=-10.0)
        >>> door.state.value("view")
        (90.0, -10.0)
        """
        self.state.set(VIEW, (yaw_deg, pitch_deg))

    def lose(self, unit: str = "focus") -> None:
        """Release what a device held: "focus" for all of them, or "keys", "pad1", "mouse", "touch", "hand.left", …

        >>> door = Door()
        >>> door.key("KeyW", down=True)
        >>> door.lose("keys")
        >>> door.state.held()
        ()
        """
        self.state.set(find_kind(f"lost.{unit}", "loss"), 1.0)
