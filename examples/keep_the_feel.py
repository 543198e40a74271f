"""A game's own test: whoever changes a number in the profile and loses the feel hears of it."""

from pathlib import Path

from wendonic.demo import FOLDER
from wendonic.testing import assert_feel

PROFILE = FOLDER / "beekeeper.toml"  # in a game: its own file


def test_the_beekeeper_stops_where_he_should() -> None:
    """Limits are (least, most), in the units of `wendonic measure`; None means no limit."""
    assert_feel(PROFILE, reach90_s=(None, 0.16), stop_distance_m=(0.1, 0.35), diagonal_ratio=(0.99, 1.01))


test_the_beekeeper_stops_where_he_should()
print("the feel is kept")

slippery = Path("slippery.toml")
slippery.write_text(PROFILE.read_text().replace("brake_m_s2 = 30", "brake_m_s2 = 6"))
try:
    assert_feel(slippery, stop_distance_m=(None, 0.35))
except AssertionError as missed:
    print(missed)
