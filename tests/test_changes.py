"""Profiles changed while a game runs, and saved: what is not changed stays, in the file as well."""

import codecs
import difflib
import itertools
import shutil
import tomllib
from decimal import Decimal
from fractions import Fraction

import numpy as np
import pytest

from conftest import HEAD
from few_of_many import few_of
from wendonic import (
    Event,
    Helm,
    ProfileError,
    Recording,
    WendonicError,
    load_profile,
    next_control,
    profile_from_text,
    save_profile,
)
from wendonic.demo import FOLDER, RECORDINGS, demo_profile
from wendonic.profile.edit_text import edited
from wendonic.profile.field_path import path_parts
from wendonic.profile.save import HEADED, saved_text
from wendonic.profile.value_at import limits_of

SHIPPED = sorted(set(RECORDINGS.values()))


def numbers_in(content, path=""):
    """Go through every number that a profile says: its field path, as errors name it."""
    if isinstance(content, dict):
        for name, part in content.items():
            yield from numbers_in(part, f"{path}.{name}".removeprefix("."))
    elif isinstance(content, list):
        for index, part in enumerate(content):
            yield from numbers_in(part, f"{path}[{index}]")
    elif isinstance(content, int | float) and not isinstance(content, bool):
        yield path, content


def dotted_away(path):
    """Return whether a path ends in a list of plain numbers, which are changed together."""
    return path.endswith("]")


def test_a_name_in_a_path_may_be_quoted_as_in_the_file():
    profile = demo_profile().changed({'gait."run uphill".top_speed_m_s': 4.0, "mode.'foot'.gait": "run uphill"})
    assert (profile.mode["foot"].gait, profile.gait["run uphill"].top_speed_m_s) == ("run uphill", 4.0)
    assert profile == demo_profile().changed({"gait.run uphill.top_speed_m_s": 4.0, "mode.foot.gait": "run uphill"})


def test_saving_follows_a_link_and_leaves_permissions_line_ends_and_a_byte_order_mark_as_they_are(tmp_path):
    real, link = tmp_path / "kept" / "bee.toml", tmp_path / "bee.toml"
    real.parent.mkdir()
    real.write_bytes(codecs.BOM_UTF8 + (FOLDER / "beekeeper.toml").read_bytes().replace(b"\n", b"\r\n"))
    real.chmod(0o640)
    link.symlink_to(real)
    save_profile(load_profile(link).changed({"gait.walk.top_speed_m_s": 4.5}), link)
    assert (link.is_symlink(), load_profile(real).gait["walk"].top_speed_m_s) == (True, 4.5)
    assert real.stat().st_mode & 0o777 == 0o640
    assert real.read_bytes().count(codecs.BOM_UTF8) == 1
    assert real.read_bytes().count(b"\r\n") == real.read_bytes().count(b"\n") > 50
    real.parent.rename(tmp_path / "gone")
    with pytest.raises(WendonicError, match=r"there is no folder .*kept$"):
        save_profile(load_profile(tmp_path / "gone" / "bee.toml"), link)


@pytest.mark.parametrize("name", few_of(SHIPPED, {"beekeeper", "headset"}))
def test_each_number_is_changed_alone_and_saved_into_its_line(name, tmp_path):
    profile = demo_profile(name)
    original = (FOLDER / f"{name}.toml").read_text(encoding="utf-8")
    path, changed_ones = tmp_path / "mine.toml", 0
    for where, number in numbers_in(profile.file_content()):
        if dotted_away(where):
            continue
        low, high = limits_of(profile, where)
        other = number * 1.01 + 0.001 if number * 1.01 + 0.001 <= high else number * 0.99
        assert low <= other <= high
        try:
            changed = profile.changed({where: other})
        except ProfileError:
            # It is tied to another one.
            continue
        changed_ones += 1
        path.write_text(original, encoding="utf-8")
        save_profile(changed, path)
        after = path.read_text(encoding="utf-8")
        assert load_profile(path) == changed, where
        difference = list(difflib.ndiff(original.splitlines(), after.splitlines()))
        gone = [line for line in difference if line.startswith("- ")]
        new = [line for line in difference if line.startswith("+ ") and line.strip() != "+"]
        assert (len(gone), len(new)) == (1, 1), where
        assert original.count("#") == after.count("#")
    assert changed_ones >= 3
    assert demo_profile(name) == profile


def tables_in(content, way=""):
    for name, part in content.items():
        where = f"{way}.{name}".removeprefix(".")
        if isinstance(part, dict):
            yield where
            yield from tables_in(part, where)
        for index, entry in enumerate(part if isinstance(part, list) else ()):
            if isinstance(entry, dict):
                yield f"{where}[{index}]"
                yield from tables_in(entry, f"{where}[{index}]")


def about(text):
    """Return each comment that has a line to itself, with the line that it stands above."""
    lines = [line for line in text.splitlines() if line.strip()]
    return [
        (line, next((below.partition("=")[0] for below in lines[number:] if below[0] != "#"), ""))
        for number, line in enumerate(lines)
        if line[0] == "#"
    ]


@pytest.mark.parametrize("name", few_of(SHIPPED, ["beekeeper", "tablet"]))
def test_a_new_line_of_a_table_never_separates_a_comment_from_its_line(name):
    text = (FOLDER / f"{name}.toml").read_text(encoding="utf-8")
    tables = list(tables_in(tomllib.loads(text)))
    assert len(tables) > 3
    for where in tables:
        new = {"deep": {"new": 2}} | ({} if where in HEADED else {"new": 1})
        after = edited(text, {f"{where}.deep.new": 2} | ({} if where in HEADED else {f"{where}.new": 1}))
        for (comment, below), (same, still) in zip(about(text), about(after), strict=True):
            # A table that had entries only has a header of its own now.
            assert (same, below.strip("[]").startswith(still.strip("[]"))) == (comment, True), where
        table = tomllib.loads(after)
        for part in path_parts(where):
            table = table[part]
        assert {name: table[name] for name in new} == new


@pytest.mark.parametrize("name", SHIPPED)
def test_a_newly_written_profile_is_the_same(name, tmp_path):
    path = tmp_path / "new.toml"
    save_profile(demo_profile(name), path)
    assert load_profile(path) == demo_profile(name)
    assert [file.name for file in tmp_path.iterdir()] == ["new.toml"]


@pytest.mark.parametrize(
    "changes",
    [
        {"mode.foot.move.bind[0].keys.forward": ["KeyI"]},
        {"mode.foot.move.bind[1].dead_zone": {"form": "axes", "inner": 0.2}},
        {"mode.foot.move.bind[1].curve": {"form": "points", "points": [[0, 0], [0.5, 0.2], [1, 1]]}},
        {"mode.foot.move.bind[1]": None},
        {"mode.foot.press.jump": None, "mode.foot.press.hop": {"bind": ["key.KeyH"], "style": "tap"}},
        {"mode.foot.look": None},
        {"gait.walk.jump": {"height_m": 1.2}, "gait.walk.fall": {"gravity_ratio": 2}},
        {"mode.lounge": {"press": {"sit": {"bind": ["key.KeyX"]}}}, "title": "Beekeeper, changed"},
        {"budget": {"reach90_s": {"max": 0.2}}, "window.aspect_ratio": 1.6},
        {"mode.foot.move.half_life_s": None, "mode.foot.move.one_euro": {"beta": 2.0}},
    ],
    ids=lambda changes: next(iter(changes)),
)
def test_forms_bindings_and_whole_tables_are_changed_and_saved(changes, tmp_path):
    path = tmp_path / "beekeeper.toml"
    shutil.copy(FOLDER / "beekeeper.toml", path)
    changed = load_profile(path).changed(changes)
    assert changed != load_profile(path)
    save_profile(changed, path)
    assert load_profile(path) == changed
    assert path.read_text().startswith((FOLDER / "beekeeper.toml").read_text()[:12])
    Helm(changed, prepare="first").tick(1 / 60)
    # Saved once more, nothing moves.
    text = path.read_text()
    save_profile(changed, path)
    assert path.read_text() == text


@pytest.mark.parametrize(
    ("name", "changes"),
    [
        # Squares know no ramps; the file does not say so, and another frame has some.
        ("crates", {"mode.push.steer.frame": "map"}),
        ("crates", {"mode.hop.move.half_life_s": 0.0, "mode.hop.gait": "walk"}),
        ("cart", {"mode.tracks.steer.frame": "fly"}),
        # Numbers that do nothing any more stay in the file, with keys in the file's own spelling.
        ("lookout", {"mode.foot.move.bind[1].dead_zone.form": "none"}),
        ("lookout", {"mode.foot.steer.frame": "hands", "mode.foot.move.bind[1].dead_zone.form": "wedge"}),
        ("scout", {"mode.fly.press.buzz.style": "long", "gait.walk.rise_m_s": 7.8}),
    ],
)
def test_what_a_file_leaves_out_and_what_does_nothing_is_saved_with_the_rest(name, changes, tmp_path):
    path = tmp_path / "mine.toml"
    shutil.copy(FOLDER / f"{name}.toml", path)
    changed = load_profile(path).changed(changes)
    save_profile(changed, path)
    assert load_profile(path) == changed
    assert load_profile(path).model_dump() == changed.model_dump()
    # What the changes imply for the rest is not written: only the lines that hold a change are others.
    before, after = ((file.read_text(encoding="utf-8")).splitlines() for file in (FOLDER / f"{name}.toml", path))
    other = [line for line in difflib.ndiff(before, after) if line[:2] in ("+ ", "- ")]
    assert len(other) <= 2 * len(changes)
    # A number that does nothing is saved as well.
    idle = [path_of for path_of, _ in numbers_in(changed.file_content()) if path_of.endswith("tap_s")]
    for one in idle:
        save_profile(load_profile(path).changed({one: 0.2}), path)
        assert "tap_s = 0.2" in path.read_text(encoding="utf-8")


def test_a_profile_that_was_copied_with_other_tables_is_changed_as_it_is_now():
    title = "Beekeeper at the gate"
    copied = demo_profile().model_copy(update={"title": title, "max_dt_s": 0.2})
    changed = copied.changed({"gait.walk.accel_m_s2": 9.0})
    assert (changed.title, changed.max_dt_s) == (title, 0.2)
    assert changed.mode == copied.mode
    assert changed.gait["walk"].accel_m_s2 == 9.0


def test_thrust_and_drag_are_changed_without_what_follows_from_them():
    harvest = demo_profile("harvest")
    changed = harvest.changed({"gait.barrow.thrust_m_s2": 4.0})
    gait = harvest.gait["barrow"]
    assert changed.gait["barrow"].top_speed_m_s == pytest.approx(4.0 / gait.drag_per_s)


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"mode.foot.look.bind[0].cm_per_trn": 28}, 'cm_per_trn: unknown key; did you mean "cm_per_turn"'),
        ({"mode.foot.look.bind[7].cm_per_turn": 28}, r"does not exist; allowed: mode.foot.look.bind\[0\] to \[1\]"),
        ({"mode.foot.look.bind.1.dpi": 7}, r"look.bind is a list; allowed: mode.foot.look.bind\[0\] to \[1\]"),
        ({"gait.walk.accel_m_s2[0]": 1}, r"accel_m_s2\[0\] does not exist: gait.walk.accel_m_s2 is not a list"),
        (
            {"mode.foot.look.bind[0].dpi": -1, "gait.walk.accel_m_s2": "fast"},
            '(?s)dpi: found -1.*accel_m_s2: found "fast"',
        ),
        ({"title.deep": 1}, "does not exist: title is not a table"),
        ({"gait.wlak.accel_m_s2": 9}, 'gait.wlak.accel_m_s2: no gait "wlak"; did you mean "walk"'),
        ({"mode.foot.move.merge": "strongst"}, 'did you mean "strongest"'),
        ({"mode..x": 1}, "is not a field path"),
        ({"mode.foot.": 1}, "is not a field path"),
        ({'gait."walk': 1}, "is not a field path"),
        ({"mode.foot.move.bind[0].keys.forward": ["KeyQQ"]}, "unknown key code"),
    ],
)
def test_an_invalid_change_is_reported_with_its_path_and_changes_nothing(changes, words):
    profile = demo_profile()
    with pytest.raises(WendonicError, match=words):
        profile.changed(changes)
    assert profile == demo_profile()


def test_a_file_with_faults_is_left_as_it_is_and_so_is_one_that_cannot_be_written(tmp_path):
    path = tmp_path / "broken.toml"
    path.write_text("format = 'wendonic-profile'\nversion = 2\n")
    with pytest.raises(ProfileError, match="version: found 2"):
        save_profile(demo_profile(), path)
    assert path.read_text() == "format = 'wendonic-profile'\nversion = 2\n"
    with pytest.raises(WendonicError, match="there is no folder"):
        save_profile(demo_profile(), tmp_path / "nowhere" / "a.toml")


@pytest.mark.parametrize(
    ("control", "value", "named"),
    [
        ("key.KeyI", 1, "key.KeyI"),
        ("key.KeyI", 0, None),
        ("pad1.south", 1.0, "pad1.south"),
        ("pad.right_trigger", 0.3, None),
        ("pad.right_trigger", 0.9, "pad.right_trigger"),
        ("pad.left_stick", (-0.8, 0.1), "pad.left_stick"),
        ("pad.left_stick", (0.2, 0.3), None),
        ("mouse.right", 1.0, "mouse.right"),
        ("mouse.move", (40.0, 0.0), None),
        ("pointer.at", (0.9, 0.9), None),
        ("lost.focus", 1, None),
        ("mark", "felt late", None),
    ],
)
def test_a_menu_learns_which_control_it_was_given(control, value, named):
    assert next_control(Event(0.0, control, value)) == named


def test_a_key_that_a_menu_was_given_walks():
    """A settings menu in a few lines: the next key becomes forward."""
    given = next_control(Event(0.0, "key.KeyI", 1))
    helm = Helm(demo_profile().changed({"mode.foot.move.bind[0].keys.forward": [given]}))
    helm.key("KeyI", down=True)
    for _ in range(30):
        intent = helm.tick(1 / 60)
    assert intent.amount == pytest.approx(1.0, abs=1e-3)


TEXT = 'format = "wendonic-profile"\nversion = 1\n[[mode.foot.look.bind]]\nmouse = "mouse.move"\ndeg_per_count = 1\n'


def test_breaking_out_of_the_loop_doubles_nothing_and_loses_nothing():
    helm = Helm(profile_from_text(TEXT))
    turned = 0.0
    for frame in range(60):
        helm.mouse(1.0, 0.0)
        for number, intent in enumerate(helm.fixed_ticks(0.05, 0.01)):
            turned += intent.look.yaw_deg
            if frame % 2 and number == 1:
                break
    for _ in range(3):
        turned += sum(intent.look.yaw_deg for intent in helm.fixed_ticks(0.0, 0.01, max_catch_up_s=10.0))
    assert turned == pytest.approx(60.0)


@pytest.mark.parametrize("step_s", [1 / 144, 0.01, 1 / 30])
def test_a_long_frame_is_caught_up_with_for_a_bounded_time_and_the_rest_is_counted(step_s):
    helm = Helm(profile_from_text(TEXT))
    took = len(list(helm.fixed_ticks(5.0, step_s, max_catch_up_s=0.2)))
    assert took == int(0.2 / step_s + 1e-6)
    assert helm.dropped_s == pytest.approx(4.8)
    assert 0.0 <= helm.leftover_ratio < 1.0
    # A step longer than the catch-up is taken all the same.
    assert len(list(helm.fixed_ticks(0.6, 0.5, max_catch_up_s=0.1))) == 1


def test_the_share_that_is_left_of_a_step_says_where_to_draw():
    """Drawn between the last two places by it, a body moves evenly although frames and steps do not match."""
    helm = Helm(demo_profile())
    helm.key("KeyW", down=True)
    last = now = 0.0
    drawn = []
    for _ in range(120):
        for intent in helm.fixed_ticks(1 / 144, 1 / 50):
            last, now = now, intent.motion.pos_y
        drawn.append(last + (now - last) * helm.leftover_ratio)
    steps = [b - a for a, b in itertools.pairwise(drawn[60:])]
    assert steps == pytest.approx([3.2 / 144] * len(steps), abs=1e-4)


def test_a_number_that_is_written_leaves_its_unwritten_neighbours_as_they_are():
    """Triggers have a dead zone of their own, and a file that says one number of it means the others to stay."""
    before = demo_profile("scout").mode["fly"].rise.bind[1].dead_zone
    after = demo_profile("scout").changed({"mode.fly.rise.bind[1].dead_zone.outer": 0.9}).mode["fly"].rise.bind[1]
    assert before.inner == 0.05
    assert after.dead_zone == before.model_copy(update={"outer": 0.9})


@pytest.mark.parametrize("kind", [np.int64, np.float32, np.float64, Decimal, Fraction])
def test_numbers_of_any_kind_are_changed_to_and_recorded(kind, tmp_path):
    """As what Python's own would be, the game's own unit included."""
    stick = '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
    text = f'{HEAD}[world]\nright = "+x"\nforward = "-y"\nunits_per_m = 50\n{stick}'
    number, centre = {"gait.walk.top_speed_u_s": 200, "mode.m.steer.sectors": 8}, "mode.m.move.bind[0].centre"
    of_kind = {path: kind(value) for path, value in number.items()}
    plain = profile_from_text(text).changed({**number, centre: [0, 0]})
    changed = profile_from_text(text).changed({**of_kind, centre: [kind(0), kind(0)]})
    assert changed == plain
    assert changed.gait["walk"].top_speed_m_s == 4.0
    save_profile(changed, tmp_path / "mine.toml")
    assert load_profile(tmp_path / "mine.toml") == plain
    events = [Event(kind(0), "key.KeyW", kind(1)), Event(kind(1), "pad.left_stick", (kind(0), kind(-1)))]
    assert list(Recording(events)) == [Event(0.0, "key.KeyW", 1.0), Event(1.0, "pad.left_stick", (0.0, -1.0))]


def test_an_array_is_the_list_of_its_numbers():
    profile = profile_from_text(HEAD + '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n')
    changed = profile.changed({"mode.m.move.bind[0].centre": np.array([0.25, -0.125], dtype=np.float32)})
    assert changed.mode["m"].move.bind[0].centre == (0.25, -0.125)
    (event,) = Recording([Event(0.0, "pad.left_stick", np.array([0.5, -0.25]))])
    assert event == (0.0, "pad.left_stick", (0.5, -0.25))


def test_a_new_value_of_an_inline_table_leaves_its_spaces_as_they_are():
    text = (FOLDER / "beekeeper.toml").read_text()
    changes = {"mode.foot.move.bind[1].curve.floor": 0.05, "mode.foot.move.bind[1].curve.ceiling": 0.9}
    after = saved_text(demo_profile().changed(changes), text)
    new = [line for line in after.splitlines() if line not in text.splitlines()]
    assert [line.split("  #")[0].rstrip() for line in new] == [
        'curve = { form = "power", exponent = 1.6, floor = 0.05, ceiling = 0.9 }'
    ]


@pytest.mark.parametrize("broken", [lambda text, _: f"{text}[", lambda text, _: text], ids=["no TOML", "not changed"])
def test_a_text_that_would_not_load_as_the_same_profile_is_not_written(monkeypatch, tmp_path, broken):
    """Not every version of the library that edits TOML does so well."""
    path = tmp_path / "beekeeper.toml"
    path.write_text((FOLDER / "beekeeper.toml").read_text())
    monkeypatch.setattr("wendonic.profile.save.edited", broken)
    with pytest.raises(WendonicError, match="would not load as the same profile; nothing was written"):
        save_profile(load_profile(path).changed({"gait.walk.accel_m_s2": 9}), path)
    assert path.read_text() == (FOLDER / "beekeeper.toml").read_text()
