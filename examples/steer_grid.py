"""Frame `grid`: crates pushed square by square, drawn in text. `python steer_grid.py`"""

from wendonic import Helm
from wendonic.demo import demo_course, demo_profile

room = demo_course("store_room")
helm = Helm(demo_profile("crates"), course=room)
trail = {(0, 0)}


def push(code: str, held_s: float) -> None:
    """Hold a key for a while, wait for the step to end, and tell what happened."""
    helm.key(code, down=True)
    refused = None
    for tick in range(90):
        if tick == round(held_s * 60):
            helm.key(code, down=False)
        step = helm.tick(1 / 60).step
        if step is not None:
            trail.add((step.x, step.y))
            refused = step.refused or refused
    square = f"({step.x}, {step.y})" if step else ""
    print(f"{code} for {held_s:.2f} s: on square {square}{f', {refused} is blocked' if refused else ''}")


push("KeyD", 0.05)  # a tap is one square
push("KeyD", 0.90)  # held on
push("KeyW", 0.60)
push("KeyD", 0.60)
push("KeyA", 0.40)

# The game's y grows downwards, and its squares with it; a course is in the plan frame, whose y goes forward.
for y in range(-5, 1):
    print("".join("#" if (x, -y) in room.blocked else "o" if (x, y) in trail else "." for x in range(-2, 8)))
