"""A helm that follows its file: good ones, broken ones, gone ones, and ones without its mode."""

import logging
import threading
import time
from pathlib import Path

import pytest

from wendonic import Helm, ProfileError, WendonicError, load_profile, watch
from wendonic.demo import demo_course

TEXT = """format = "wendonic-profile"
version = 1
[[mode.foot.move.bind]]
keys = { forward = ["KeyW"] }
[gait.walk]
top_speed_m_s = 2
"""


def until(helm, condition, seconds=10.0):
    """Tick until something holds; the file system needs a moment."""
    end = time.monotonic() + seconds
    while not condition():
        assert time.monotonic() < end, "nothing happened"
        helm.tick(1 / 60)
        time.sleep(0.005)


def speed(helm):
    return round(helm.tick(1 / 60).motion[4], 9)


def replace(path, text):
    """Write as many editors do: beside, and rename."""
    beside = path.with_suffix(".tmp")
    beside.write_text(text)
    beside.replace(path)


class Noting(dict):
    """What is ready, by structures; notes in which threads something was made."""

    def __init__(self, threads):
        super().__init__()
        self.threads = threads

    def __setitem__(self, structure, made):
        self.threads.append(threading.current_thread().name)
        super().__setitem__(structure, made)


@pytest.mark.parametrize("write", [Path.write_text, replace], ids=["in place", "beside"])
def test_a_saved_file_counts_from_the_next_tick_and_a_broken_one_does_not(tmp_path, caplog, write):
    path = tmp_path / "mine.toml"
    path.write_text(TEXT)
    helm = Helm(load_profile(path))
    helm.key("KeyW", down=True)
    for _ in range(120):
        helm.tick(1 / 60)
    assert speed(helm) == 2.0
    with caplog.at_level(logging.WARNING, "wendonic"), watch(path, helm) as followed:
        write(path, TEXT.replace("= 2\n", "= 3\n"))
        until(helm, lambda: helm.profile.gait["walk"].top_speed_m_s == 3.0)
        until(helm, lambda: speed(helm) == 3.0)
        for wrong, words in (
            (TEXT.replace("= 2\n", "= 'fast'\n"), "line 6, gait.walk.top_speed_m_s"),
            (TEXT[:30], "is not valid TOML"),
            ("", "is empty"),
        ):
            write(path, wrong)
            until(helm, lambda words=words: followed.fault is not None and words in str(followed.fault))
            assert words in caplog.text
        assert speed(helm) == 3.0
        # Another mode's name: the helm is in one that is not there any more.
        write(path, TEXT.replace("mode.foot", "mode.cart"))
        until(helm, lambda: 'the helm is in mode "foot"' in caplog.text)
        assert speed(helm) == 3.0
        path.unlink()
        until(helm, lambda: "cannot be read" in str(followed.fault))
        write(path, TEXT.replace("= 2\n", "= 4\n"))
        until(helm, lambda: speed(helm) == 4.0)
        assert followed.fault is None
        # Gone for a moment, and back as it was.
        path.rename(tmp_path / "away.toml")
        until(helm, lambda: followed.fault is not None)
        (tmp_path / "away.toml").rename(path)
        until(helm, lambda: followed.fault is None)
    write(path, TEXT)
    time.sleep(0.7)
    assert speed(helm) == 4.0


def test_another_structure_is_followed_too_and_what_is_held_stays_held(tmp_path, monkeypatch):
    path = tmp_path / "mine.toml"
    path.write_text(TEXT)
    # On a course a mode has another structure, which no tick may have to wait for either.
    helm = Helm(load_profile(path), course=demo_course("terraces"))
    ready_in = []
    monkeypatch.setattr("wendonic.compiler.ready._READY", Noting(ready_in))
    helm.key("KeyW", down=True)
    with watch(path, helm):
        path.write_text(
            TEXT.replace("[gait", "[[mode.foot.look.bind]]\nmouse = 'mouse.move'\ndeg_per_count = 1\n[gait")
        )
        until(helm, lambda: helm.profile.mode["foot"].look is not None)
        until(helm, lambda: speed(helm) == 2.0)
        helm.mouse(5.0, 0.0)
        intent = helm.tick(1 / 60)
        assert (intent.look.yaw_deg, intent.amount) == (pytest.approx(5.0), pytest.approx(1.0))
    assert set(ready_in) == {"wendonic mine.toml"}


def test_a_file_that_cannot_be_followed_is_reported_at_once(tmp_path):
    path = tmp_path / "mine.toml"
    path.write_text(TEXT)
    helm = Helm(load_profile(path))
    with pytest.raises(ProfileError, match="cannot be read"):
        watch(tmp_path / "other.toml", helm)
    path.write_text(TEXT.replace("mode.foot", "mode.cart"))
    with pytest.raises(WendonicError, match='the helm is in mode "foot"'):
        watch(path, helm)
