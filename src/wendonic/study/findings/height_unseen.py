"""A game seen from the side whose axes lack `up`."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding


@finding(
    12,
    "fault",
    "The body jumps and falls, but its position and velocity do not show it: on screen it stays on the ground.",
    once=True,
)
def height_unseen(case: Case) -> Iterator[Found]:
    """Look for a body that goes up and down in a side view, in a world without `up`."""
    profile = case.profile
    world = profile.world
    if world.up is not None:
        return
    from_side = [name for name, mode in profile.mode.items() if mode.steer.seen_from_side]
    rises = [
        name
        for name in from_side
        if profile.mode[name].rise or any(gait.jump or gait.gravity_m_s2 for gait in profile.gaits_of(name).values())
    ]
    if rises:
        only = len(from_side) == len(profile.mode)
        yield Found(
            "world.up",
            f"mode {rises[0]} is seen from the side and its body goes up and down, but no axis of the game points up",
            [{"world.up": world.forward, "world.forward": None}] if only else (),
            "" if only else "give [world] all three axes: right, forward and up",
        )
