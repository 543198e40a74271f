"""What all tests share: Hypothesis settings, the beekeeper's profile, and profiles from a few words."""

import pytest
from hypothesis import settings

from wendonic import Profile
from wendonic.demo import demo_profile
from wendonic.profile.load import profile_from_text

settings.register_profile("wendonic", deadline=None, max_examples=150)
settings.load_profile("wendonic")

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = 'keys = { ahead = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }'


@pytest.fixture(scope="session")
def beekeeper() -> Profile:
    return demo_profile()


@pytest.fixture(scope="session")
def foot_profile():
    """A maker of profiles with keys and left stick on foot, with lines of one's own in move, keys, stick, steer."""

    def make(move: str = "", keys: str = "", pad: str = "", steer: str = "{}", rest: str = "") -> Profile:
        return profile_from_text(
            f"{HEAD}[mode.foot]\nsteer = {steer}\n[mode.foot.move]\n{move}\n"
            f"[[mode.foot.move.bind]]\n{KEYS}\n{keys}\n"
            f'[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n{pad}\n{rest}\n'
        )

    return make
