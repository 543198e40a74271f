"""What the page writes by itself: a profile's text with other numbers, and the models behind its panels."""

import json
import random
import re
import shutil
import subprocess

import pytest

from few_of_many import few_of
from test_house import TOP
from test_page_play import ALL_TOOLS
from wendonic.demo import FOLDER, demo_profile, profile_names
from wendonic.errors import WendonicError
from wendonic.export.page.edits import text_edits
from wendonic.export.page.fields import field_contents
from wendonic.export.page.formulas import traced
from wendonic.export.page.inherited import inherited_paths
from wendonic.export.page.mode_contents import made_runs, mode_text
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.live.desk import Desk, rebound_text
from wendonic.profile.load import profile_from_text
from wendonic.profile.value_at import limits_of, value_at

pytestmark = pytest.mark.skipif(shutil.which("node") is None and not ALL_TOOLS, reason="Node.js is not here")
PIXELS = """
format = "wendonic-profile"
version = 1
[world]
right = "+x"
forward = "-y"
units_per_m = 50
unit = "px"
[[mode.foot.move.bind]]
stick = "pad.left_stick"
[gait.walk]  # quick
top_speed_u_s = 200
"""
FEW_LINES = """
format = "wendonic-profile"
version = 1
[mode.foot]
press_gaits = { sprint = "run" }  # gaits that the file does not write
[[mode.foot.move.bind]]
stick = "pad.left_stick"
[mode.foot.press]
sprint = { bind = ["key.ShiftLeft"] }
"""


def texts():
    for name in profile_names():
        yield (FOLDER / f"{name}.toml").read_text()
    yield PIXELS
    yield FEW_LINES


def shown(profile):
    trace = traced(profile)
    runs = made_runs(profile, NO_COURSE, False)
    return field_contents(
        profile, trace.paths, trace.used([mode_text(run, profile, trace, False) for run in runs.values()])
    )


@pytest.mark.parametrize("name", few_of(profile_names(), {"lookout"}))
def test_each_number_that_the_page_shows_can_be_changed_alone(name):
    """But for a pace that begins at once: begun later, it needs another margin as well."""
    profile, count = demo_profile(name), 0
    for field in shown(profile):
        path, value = field["path"], field["value"]
        others = []
        if field["kind"] == "number":
            most = field["high"] if field["high"] is not None else value + 1.0
            other = value * 1.05 + (1e-3 if value == 0.0 else 0.0)
            others = [value + 1 if value < most else value - 1] if field["whole"] else [min(other, most)]
        elif field["kind"] == "choice" and not isinstance(value, str):
            others = field["choices"]
        for other in others:
            if not (path.endswith("paces[0].above") and value == 0.0):
                count += 1
                assert value_at(profile.changed({path: other}), path) == pytest.approx(other), path
    assert count > 10


def written(folder, jobs):
    asked, answers = folder / "asked.json", folder / "answers.json"
    asked.write_text(json.dumps(jobs))
    script = TOP / "web" / "test" / "edit_texts.mjs"
    subprocess.run(["node", str(script), str(asked), str(answers)], check=True, timeout=60)
    return json.loads(answers.read_text())


@pytest.mark.long
def test_numbers_written_by_the_page_load_as_the_changed_profile_and_keep_every_comment(tmp_path):
    rng = random.Random(3)
    jobs, wanted, refused = [], [], []
    for text in texts():
        profile = profile_from_text(text)
        trace = traced(profile)
        edits = text_edits(profile, text, trace.paths)
        inherits = inherited_paths(profile, trace.paths)
        assert len(edits) > 0.9 * len(trace.paths)
        values = dict(zip(trace.paths, trace.values, strict=True))
        singles = [[path] for path in rng.sample(sorted(edits), min(len(edits), 24))]
        for paths in singles + [rng.sample(sorted(edits), 6) for _ in range(5)]:
            changes = {}
            for path in paths:
                low, high = limits_of(profile, path) if "units_per_m" not in text else (0.0, 1e6)
                value = value_at(profile, path) if "units_per_m" not in text else values[path]
                changes[path] = min(max(value * rng.choice([0.9, 1.1]) + 0.01, low), high)
            try:
                changed = Desk.__new__(Desk)
                changed.profile = profile
                wanted.append((text, changed.changed(changes)))
            except WendonicError as fault:
                refused.append(str(fault))
                continue
            now = values | changes
            for path, other in inherits.items():
                now[path] = changes.get(path, now[other])
            jobs.append({"text": text, "edits": edits, "changes": changes, "values": now})
    assert len(jobs) > 250
    # Some numbers have to stay in order; but every path leads somewhere.
    assert not [fault for fault in refused if "does not exist" in fault]
    for (before, profile), job, found in zip(wanted, jobs, written(tmp_path, jobs), strict=True):
        assert found["left"] == []
        after = found["text"]
        assert profile_from_text(after).model_dump() == profile.model_dump(), job["changes"]
        comments = [line.partition("#")[2] for line in before.splitlines() if "#" in line]
        kept = [line.partition("#")[2] for line in after.splitlines() if "#" in line]
        assert kept == comments


@pytest.mark.parametrize("rebound", [{"key.KeyW": "key.KeyZ", "key.KeyZ": "key.KeyW"}, {"pad.south": "pad.north"}])
def test_the_page_and_the_server_bind_anew_alike(rebound):
    # In whatever quotes, and never within a comment, a title or a text of several lines.
    odd = "# 'KeyW'\nforward = ['KeyW', 'AltLeft+KeyW', \"Key\\\\W\"]  # \"KeyW\"\n"
    odd += "title = \"KeyW\"\nwords = '''\n'KeyW'\n'''\n"
    assert rebound_text(odd, {"key.KeyW": "key.KeyZ"}) == (
        odd.replace("['KeyW', 'AltLeft+KeyW'", "['KeyZ', 'AltLeft+KeyZ'"),
        [],
    )
    text = "\n".join([*texts(), odd])
    module = (TOP / "web" / "src" / "models" / "profile_text.js").as_uri()
    script = f"""
        import {{ reboundText }} from "{module}";
        import {{ readFileSync }} from "node:fs";
        process.stdout.write(JSON.stringify(reboundText(readFileSync(0, "utf8"), {json.dumps(rebound)})));
    """
    done = subprocess.run(
        ["node", "--input-type=module", "-e", script], input=text, capture_output=True, text=True, check=True
    )
    changed, unnamed = rebound_text(text, rebound)
    assert json.loads(done.stdout) == {"text": changed, "left": unnamed}
    assert changed != text


def test_the_models_of_the_page():
    done = subprocess.run(
        ["node", "--test", str(TOP / "web" / "test" / "models.test.mjs")], capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stdout[-4000:]


def luminance(colour):
    """Relative luminance of an sRGB colour (WCAG 2.2)."""
    parts = [int(colour[place : place + 2], 16) / 255.0 for place in (1, 3, 5)]
    linear = [part / 12.92 if part <= 0.04045 else ((part + 0.055) / 1.055) ** 2.4 for part in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one, other):
    lighter, darker = sorted((luminance(one), luminance(other)), reverse=True)
    return (lighter + 0.05) / (darker + 0.05)


@pytest.mark.parametrize("scheme", [0, 1], ids=["light", "dark"])
def test_text_and_marks_stand_out_from_the_page(scheme):
    style = (TOP / "web" / "src" / "page.css").read_text()
    blocks = re.findall(r":root \{(.*?)\}", style, re.DOTALL)
    colours = dict(re.findall(r"--(\w+): (#\w{6});", blocks[scheme]))
    for ground in ("paper", "sheet", "wash"):
        assert contrast(colours["ink"], colours[ground]) >= 7.0
        assert contrast(colours["quiet"], colours[ground]) >= 4.5, ground
    for mark in ("slate", "heather", "moss", "brick", "edge"):
        assert contrast(colours[mark], colours["paper"]) >= 3.0, mark
    # Honey and fog have an outline where they are too near to the paper.
    assert contrast(colours["honey"], colours["paper"]) >= (2.4 if scheme == 0 else 3.0)
    if scheme == 0:
        decided = {"paper": "#faf7f0", "ink": "#1f2430", "honey": "#d9902f", "slate": "#4a6fa5", "heather": "#8e5b8f"}
        decided |= {"moss": "#4e7a51", "brick": "#b4483b", "fog": "#c9c4b8"}
        assert {name: colours[name] for name in decided} == decided


def test_what_a_file_does_not_name_by_itself_is_not_saved_silently_under_another_name(tmp_path):
    """The four ways of a d-pad that is bound as a whole have no names of their own in the file."""
    path = tmp_path / "crates.toml"
    before = (FOLDER / "crates.toml").read_text()
    path.write_text(before)
    with pytest.raises(
        WendonicError, match=r"crates\.toml does not name pad\.dpad_up by itself; rebind that by hand"
    ):
        Desk(path).save({"mode.push.steer.step_s": 0.3}, {"pad.dpad_up": "pad.north", "key.KeyW": "key.KeyZ"})
    assert path.read_text() == before
