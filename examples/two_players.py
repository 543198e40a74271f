"""Two beekeepers in one yard: first at one keyboard, then each with a pad, and one of them changes seats."""

from wendonic import Event, Helm, profile_from_text

DT = 1 / 60
PROFILE = """
format = "wendonic-profile"
version = 1
[world]
right = "+x"
forward = "-y"
[seat.rose]
keys = ["KeyW", "KeyS", "KeyA", "KeyD", "Space"]
[seat.till]
keys = ["ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight", "Enter"]
[mode.yard]
steer = { frame = "map" }
[[mode.yard.move.bind]]
[mode.yard.move.bind.keys]
forward = ["KeyW", "ArrowUp"]
back = ["KeyS", "ArrowDown"]
left = ["KeyA", "ArrowLeft"]
right = ["KeyD", "ArrowRight"]
[[mode.yard.move.bind]]
stick = "pad.left_stick"
[mode.yard.press]
puff = { bind = ["Space", "Enter", "pad.south"] }
pause = { bind = ["Escape"] }
"""
profile = profile_from_text(PROFILE)
keepers = {seat: Helm(profile, seat=seat) for seat in profile.seat}
places = {seat: [0.0, 0.0] for seat in profile.seat}


def played(words: str, *events: Event) -> None:
    """Hand everybody the same events, go on for half a second, and say where everybody is and what was pressed."""
    pressed = []
    for frame in range(30):
        for name, helm in keepers.items():
            for event in events if frame == 0 else ():
                helm.apply(event)
            intent = helm.tick(DT)
            places[name] = [at + by * DT for at, by in zip(places[name], intent.velocity(), strict=True)]
            helm.place(*places[name])
            pressed += [f"{name}: {press}" for press, state in intent.presses.items() if state.began]
    where = "  ".join(f"{name} at {x:+.2f}, {y:+.2f} m" for name, (x, y) in places.items())
    print(f"{words:26} {where}  {', '.join(pressed)}".rstrip())


def key(code: str, down: bool = True) -> Event:
    """Return a key that goes down or up."""
    return Event(0.0, f"key.{code}", float(down))


played("Rose right, Till left", key("KeyD"), key("ArrowLeft"))
played("both stop, Till puffs", key("KeyD", False), key("ArrowLeft", False), key("Enter"))
played("Escape is for both", key("Escape"))
played(
    "pads: Rose up, Till down", Event(0.0, "pad.left_stick", (0.0, -1.0)), Event(0.0, "pad1.left_stick", (0.0, 1.0))
)
played("Till's pad is pulled out", Event(0.0, "lost.pad1", 1.0), Event(0.0, "pad.south", 1.0))
keepers["till"].take_seat("pad2")
played("Till takes a third pad", Event(0.0, "pad2.left_stick", (1.0, 0.0)), Event(0.0, "lost.pad", 1.0))
