"""The live page in a real browser: it walks by real keys, its numbers count at once, and the file is looked after."""

import json
import math
import os
import pickle
import re
import shutil
import subprocess
import sys
import time
import urllib.error
import urllib.request
from contextlib import contextmanager
from pathlib import Path

import pytest

from shelf_jumper import SHELF_JUMPER
from test_command_line import called
from test_page_play import differences, plain
from test_page_text import FEW_LINES, PIXELS
from test_seats import APART
from wendonic import Recording, WendonicError, load_profile, shape
from wendonic.demo import FOLDER, demo_profile, demo_recording
from wendonic.errors import ControlError, ProfileError
from wendonic.export.page.fields import field_contents
from wendonic.export.page.formulas import traced
from wendonic.export.page.one_file import write_page
from wendonic.live.desk import Desk
from wendonic.live.workers import feel_rows
from wendonic.profile.load import profile_from_text
from wendonic.study.feel_sheet import measure

ALL_TOOLS = os.environ.get("WENDONIC_ALL_TOOLS") == "1"
CHROMIUM = shutil.which("chromium") or "/usr/bin/chromium"
PLAIN_BROWSER = (
    "--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking "
    "--disable-component-update --disable-sync --use-gl=angle --use-angle=swiftshader --enable-unsafe-swiftshader"
).split()
pytestmark = pytest.mark.skipif(not Path(CHROMIUM).exists() and not ALL_TOOLS, reason="Chromium is not here")


@pytest.fixture(scope="module")
def browser():
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        found = playwright.chromium.launch(executable_path=CHROMIUM, args=PLAIN_BROWSER)
        yield found
        found.close()


@contextmanager
def served(profile, *options):
    """Serve a profile as the command line does; give the address and the process."""
    process = subprocess.Popen(
        [sys.executable, "-m", "wendonic", "live", str(profile), "--no-open", *options],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        env={**os.environ, "PYTHONUNBUFFERED": "1"},
    )
    try:
        for line in process.stdout:
            found = re.search(r"http://\S+", line)
            if found:
                yield found[0], process
                break
        else:
            raise AssertionError(process.stderr.read())
    finally:
        process.terminate()
        process.wait(10)
        process.stdout.close()
        process.stderr.close()


@pytest.fixture(scope="module")
def file(tmp_path_factory):
    folder = tmp_path_factory.mktemp("live")
    shutil.copy(FOLDER / "beekeeper_keys.jsonl", folder)
    return folder / "beekeeper.toml"


@pytest.fixture(scope="module")
def server(file):
    shutil.copy(FOLDER / "beekeeper.toml", file)
    with served(file) as (address, _):
        yield address


@pytest.fixture
def page(browser, server, file):
    """The page, opened anew on the beekeeper as shipped."""
    if file.read_text() != (FOLDER / "beekeeper.toml").read_text():
        shutil.copy(FOLDER / "beekeeper.toml", file)
        time.sleep(0.6)
    made = opened(browser, server)
    yield made
    faults = made.faults
    made.context.close()
    assert faults == []


def opened(browser, address, **context):
    # Conditions are waited for by what the page forbids itself: to evaluate texts.
    made = browser.new_context(bypass_csp=True, **{"viewport": {"width": 960, "height": 560}, **context}).new_page()
    made.faults = []
    made.on("pageerror", lambda fault: made.faults.append(str(fault)))
    made.goto(address)
    made.wait_for_selector(".field", state="attached")
    made.wait_for_function("wendonicPage.seen && (!wendonicPage.live || wendonicPage.wire.open)")
    return made


def speed(page):
    return page.evaluate("Math.hypot(wendonicPage.seen.values.velX, wendonicPage.seen.values.velY)")


def moving(page, at_least, at_most=1e9):
    page.wait_for_function(
        "([low, high]) => { const v = wendonicPage.seen?.values ?? {}, s = Math.hypot(v.velX, v.velY);"
        " return s >= low && s <= high; }",
        arg=[at_least, at_most],
        timeout=4000,
    )


def put(page, path, value):
    page.fill(f'[id="field-{path}"]', str(value))
    page.keyboard.press("Enter")
    page.locator("#stage").focus()


def test_real_keys_walk_and_a_dragged_slider_counts_at_once_with_its_effect_on_the_feel(page):
    page.keyboard.down("KeyW")
    moving(page, 3.19, 3.21)
    assert page.evaluate("wendonicPage.seen.values.y") > 0.1
    page.wait_for_function("wendonicPage.stage.said.startsWith('3.20 m/s, amount 1.00')")
    slider = page.locator('[data-path="gait.walk.top_speed_m_s"] input[type=range]')
    slider.scroll_into_view_if_needed()
    page.wait_for_function("wendonicPage.feel.sheet !== null")
    box = slider.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 3, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.75, box["y"] + box["height"] / 2, steps=6)
    shown = page.evaluate("wendonicPage.settings.value('gait.walk.top_speed_m_s')")
    now = page.evaluate(
        "wendonicPage.helm.run.numbers.includes(wendonicPage.settings.value('gait.walk.top_speed_m_s'))"
    )
    assert shown > 5.0
    assert now
    page.mouse.up()
    moving(page, shown * 0.99, shown * 1.01)
    # The key is still held: a slider takes no key from the body.
    effect = page.locator('[data-path="gait.walk.top_speed_m_s"] .effect li').first
    effect.wait_for(timeout=12_000)
    assert "→" in effect.text_content()
    page.keyboard.press("Control+z")
    assert page.evaluate("wendonicPage.settings.changes.size") == 0
    page.keyboard.press("Control+y")
    assert page.evaluate("wendonicPage.settings.changes.size") == 1
    page.click('[data-path="gait.walk.top_speed_m_s"] .file')
    moving(page, 3.19, 3.21)
    page.keyboard.up("KeyW")
    moving(page, 0.0, 0.01)


@pytest.mark.long
def test_another_form_takes_effect_and_what_does_not_go_together_is_refused(page):
    put(page, "gait.walk.top_speed_m_s", 5)
    page.select_option('[id="field-mode.foot.move.bind[1].dead_zone.form"]', "axes")
    page.wait_for_function("wendonicPage.profile.fields.some(f => f.path.endsWith('form') && f.value === 'axes')")
    # A number that was changed before the form can be taken back after it.
    page.click('[data-path="gait.walk.top_speed_m_s"] .file')
    assert page.evaluate("[5, 3.2].map(one => wendonicPage.helm.run.numbers.includes(one))") == [False, True]
    assert page.input_value('[data-path="gait.walk.top_speed_m_s"] input[type=number]') == "3.2"
    page.evaluate("wendonicPage.settings.set('mode.foot.move.bind[1].dead_zone.inner', 0.99)")
    page.wait_for_selector("#notices .fault")
    assert "inner" in page.text_content("#notices .fault")
    page.keyboard.press("F3")
    page.keyboard.press("F3")
    page.keyboard.down("KeyD")
    moving(page, 3.0)
    # The last good numbers go on, and there is none that is no number.
    assert page.evaluate("wendonicPage.helm.run.numbers.every(Number.isFinite)")
    assert not page.evaluate("wendonicPage.helm.run.numbers.includes(0.99)")


@pytest.mark.long
def test_a_and_b_swap_and_a_blind_vote_ends_when_it_is_settled(page):
    page.keyboard.press("F3")
    put(page, "gait.walk.top_speed_m_s", 5)
    page.keyboard.down("KeyW")
    moving(page, 4.9, 5.1)
    page.keyboard.press("F3")
    moving(page, 3.1, 3.3)
    page.click("text=Blind")
    # Space is the body's again after a click, and presses no button.
    page.keyboard.press("Space")
    assert page.evaluate("wendonicPage.trial.blind")
    # What would tell which of both is felt is hidden.
    assert not page.locator('[id="field-gait.walk.top_speed_m_s"]').is_visible()
    assert not page.locator("#words").is_visible()
    for _ in range(60):
        if not page.evaluate("wendonicPage.trial.blind"):
            break
        assert "(F3)" not in page.text_content("#bar").replace("Swap (F3)", "")
        if page.evaluate("wendonicPage.trial.side") != "b":
            page.keyboard.press("F3")
        page.click("text=This one")
    votes = page.evaluate("wendonicPage.trial.counts")
    # So many votes for one side, all of a kind, as preference() says.
    assert votes == {"a": 0, "b": 8}
    assert "Settled: B" in page.text_content("#notices")


@pytest.mark.long
def test_a_copied_side_plays_what_it_shows_and_no_number_goes_where_it_may_not(page):
    put(page, "gait.walk.top_speed_m_s", 5)
    page.click("text=Copy")
    page.keyboard.press("F3")
    page.keyboard.down("KeyW")
    moving(page, 4.9, 5.1)
    page.keyboard.up("KeyW")
    # A speed of 0 is not allowed: the last one stays.
    put(page, "gait.walk.top_speed_m_s", 0)
    assert page.evaluate("wendonicPage.settings.value('gait.walk.top_speed_m_s')") == 5
    refused = page.locator('[data-path="gait.walk.top_speed_m_s"] .refused')
    assert refused.text_content().startswith("found 0; allowed: 1e-9 to ")
    assert page.evaluate("wendonicPage.helm.record.every(Number.isFinite)")
    # A copy over another form is taken back as a whole.
    form, amount = (f"mode.foot.move.bind[1].curve.{name}" for name in ("form", "amount"))
    page.evaluate("path => wendonicPage.settings.set(path, 'expo')", form)
    page.wait_for_function("path => wendonicPage.profile.paths.includes(path)", arg=amount)
    page.keyboard.press("F3")
    page.wait_for_function("path => !wendonicPage.profile.paths.includes(path)", arg=amount)
    page.click("text=Copy")
    page.keyboard.press("F3")
    assert page.evaluate("path => wendonicPage.settings.value(path)", form) == "power"
    page.locator("#stage").focus()
    page.keyboard.press("Control+z")
    page.wait_for_function("path => wendonicPage.profile.paths.includes(path)", arg=amount)
    page.keyboard.press("Control+y")
    page.wait_for_function("path => !wendonicPage.profile.paths.includes(path)", arg=amount)


@pytest.mark.long
def test_a_tab_opened_after_many_forms_plays_and_bad_requests_are_refused(tmp_path):
    file = tmp_path / "beekeeper.toml"
    shutil.copy(FOLDER / "beekeeper.toml", file)
    desk = Desk(file)
    desk.make_module({})
    for number in range(12):
        desk.make_module({"gait.walk.accel_m_s2": 10.0 + number})
    assert "export const profile" in desk.module(desk.first)
    # What is wrong comes back whole from the process that measures.
    with pytest.raises(ProfileError, match="inner") as caught:
        desk.changed({"mode.foot.move.bind[1].dead_zone.inner": 0.99})
    assert pickle.loads(pickle.dumps(caught.value)).faults == caught.value.faults
    with pytest.raises(WendonicError, match=r'no recording "\.\./x\.jsonl"'):
        desk.recording("../x.jsonl")
    file.write_text(file.read_text().replace("22", "21", 1))
    with pytest.raises(WendonicError, match="changed on disk"):
        desk.save({"gait.walk.accel_m_s2": 9.0})
    desk.save({"gait.walk.accel_m_s2": 9.0})
    assert load_profile(file).gait["walk"].accel_m_s2 == 9.0


def test_a_game_in_pixels_is_shown_in_pixels(tmp_path):
    file = tmp_path / "yard.toml"
    file.write_text(PIXELS)
    desk = Desk(file)
    fields = {field["path"]: field for field in field_contents(desk.profile)}
    speed = fields["gait.walk.top_speed_m_s"]
    assert (speed["value"], speed["factor"], speed["unit"]) == (4.0, 50.0, "px/s")
    rows = {
        row["name"]: row for row in feel_rows(desk.text, desk.as_written({"gait.walk.top_speed_m_s": 6.0}), "foot")
    }
    assert rows["stop_distance_u"]["unit"] == "px"
    wanted = measure(desk.profile.changed({"gait.walk.top_speed_u_s": 300.0})).stop_distance_m
    assert float(rows["stop_distance_u"]["words"]) == pytest.approx(50.0 * wanted, rel=1e-3)
    desk.save({"gait.walk.top_speed_m_s": 6.0})
    assert "top_speed_u_s = 300.0" in file.read_text()


def test_a_desk_keeps_its_seat(tmp_path):
    file = tmp_path / "apart.toml"
    file.write_text(APART)
    desk = Desk(file, seat="two")
    sheets = [feel_rows(desk.text, {}, "yard", seat) for seat in ("one", desk.seat)]
    reach = [{row["name"]: row["value"] for row in rows}["reach90_s"] for rows in sheets]
    assert reach == pytest.approx([0.45, 0.09])
    file.write_text(APART.replace("two", "three"))
    assert desk.look()
    assert 'unknown seat "two"' in str(desk.fault)
    with pytest.raises(ControlError, match='unknown seat "two"'):
        Desk(file, seat="two")


def test_a_gait_that_the_file_does_not_write_has_its_numbers_and_is_saved_under_its_own_header(tmp_path):
    file = tmp_path / "few.toml"
    file.write_text(FEW_LINES)
    desk = Desk(file)
    trace = traced(desk.profile)
    fields = field_contents(desk.profile, trace.paths, trace.paths)
    speeds = {field["path"]: field["value"] for field in fields if field["path"].endswith("top_speed_m_s")}
    assert speeds == {"gait.walk.top_speed_m_s": 3.2, "gait.run.top_speed_m_s": 5.6}
    desk.save({"gait.run.top_speed_m_s": 6.0})
    assert file.read_text().startswith(FEW_LINES.rstrip())
    assert "\n[gait.run]\n" in file.read_text()
    assert load_profile(file).every_gait["run"].top_speed_m_s == 6.0
    assert load_profile(file).every_gait["run"].accel_m_s2 == 26.0


def test_a_broken_file_shows_its_error_and_what_an_editor_saves_is_followed(page, file):
    text = file.read_text()
    page.evaluate("wendonicPage.settings.set('gait.walk.accel_m_s2', 9)")
    file.write_text(text + "\n[gait.walk.fall]\ngravity_rato = 2.0\n")
    fault = page.locator("#notices .fault")
    fault.wait_for(timeout=4000)
    assert f"line {text.count(chr(10)) + 3}" in fault.text_content()
    assert "gravity_ratio" in fault.text_content()
    page.keyboard.down("KeyW")
    moving(page, 3.1)
    file.write_text(text.replace("top_speed_m_s = 3.2", "top_speed_m_s = 4.5"))
    moving(page, 4.4, 4.6)
    assert page.locator("#notices .fault").count() == 0
    # What was changed on the page stays changed, until it is taken back.
    assert page.evaluate("wendonicPage.helm.run.numbers.includes(9)")
    page.click('[data-path="gait.walk.accel_m_s2"] .file')
    assert page.evaluate("[9, 22].map(one => wendonicPage.helm.run.numbers.includes(one))") == [False, True]
    assert page.input_value('[data-path="gait.walk.accel_m_s2"] input[type=number]') == "22"


def test_save_writes_what_is_shown_with_comments_kept_and_never_over_somebody_else(page, file):
    before = file.read_text()
    number = page.locator('[data-path="gait.walk.accel_m_s2"] input[type=number]')
    refused = page.locator('[data-path="gait.walk.accel_m_s2"] .refused')
    for typed, said in (("-9", "found -9; allowed: 1e-9 to 100000"), ("1e6", "found 1e6; allowed: 1e-9 to 100000")):
        number.fill(typed)
        number.press("Enter")
        assert refused.text_content() == said
    page.locator("#stage").focus()
    assert number.input_value() == "22"
    assert page.evaluate("wendonicPage.settings.changes.size") == 0
    # What is still being typed is saved as well.
    number.fill("9")
    number.press("Control+s")
    page.wait_for_selector("#notices > div")
    assert "saved to" in page.text_content("#notices")
    assert refused.is_hidden()
    after = file.read_text()
    assert load_profile(file).gait["walk"].accel_m_s2 == 9.0
    changed = [(one, two) for one, two in zip(before.splitlines(), after.splitlines(), strict=True) if one != two]
    assert len(changed) == 1
    assert changed[0][0].partition("#")[2] == changed[0][1].partition("#")[2] != ""
    page.wait_for_function("wendonicPage.settings.changes.size === 0")
    # B stays what it was: the file before. So does undo.
    page.keyboard.press("F3")
    assert number.input_value() == "22"
    page.keyboard.press("F3")
    page.locator("#stage").focus()
    page.keyboard.press("Control+z")
    assert number.input_value() == "22"


def test_a_pad_steers_and_a_window_that_loses_the_focus_lets_go_of_everything(page):
    page.evaluate(
        """() => {
            window.pad = { index: 0, connected: true, mapping: "standard", axes: [0, -1, 0, 0],
                buttons: Array.from({ length: 17 }, () => ({ value: 0, pressed: false })) };
            navigator.getGamepads = () => [window.pad];
        }"""
    )
    moving(page, 3.1)
    assert page.evaluate("wendonicPage.helm.deviceName") == "pad"
    page.keyboard.down("KeyD")
    page.evaluate("window.pad.buttons[0].value = 1")
    page.wait_for_function("wendonicPage.helm.state.value('pad.south') === 1")
    page.evaluate("window.dispatchEvent(new Event('blur'))")
    moving(page, 0.0, 0.01)
    # A worn stick trembles behind another window, too.
    page.evaluate("window.pad.axes[1] = -0.97")
    moving(page, 0.0, 0.01)
    page.evaluate("window.dispatchEvent(new Event('focus'))")
    moving(page, 3.0)
    assert page.evaluate("wendonicPage.helm.state.value('pad.south')") == 0
    page.evaluate("window.pad = null")
    moving(page, 0.0, 0.01)
    page.keyboard.up("KeyD")


@pytest.mark.long
def test_the_trace_of_a_recording_in_the_browser_is_the_librarys(page):
    recording = demo_recording("beekeeper_pad")
    found = page.evaluate(
        "text => JSON.stringify(wendonicPage.trace(JSON.parse(text), 60))", json.dumps(plain(recording))
    )
    assert differences(shape(recording, demo_profile()), json.loads(found)) == []


@pytest.mark.long
def test_a_replay_shows_the_mode_that_its_recording_says(browser, tmp_path):
    """By events of the mode, as a game or a click on the page leaves them, with no press that enters it."""
    events = [(0.0, "mode", "foot"), (0.1, "key.KeyW", 1), (0.8, "mode", "cart"), (1.6, "mark", "end")]
    page = in_one_file(browser, tmp_path, "rounds")
    page.evaluate("events => wendonicPage.tape.play(events)", [{"t": t, "c": c, "v": v} for t, c, v in events])
    for mode, field in (("cart", "mode.cart.steer.turn_deg_s"), ("foot", "gait.walk.top_speed_m_s"), ("cart", "")):
        page.wait_for_function("mode => document.querySelector('[aria-label=Mode]').value === mode", arg=mode)
        assert page.evaluate("wendonicPage.helm.mode") == mode
        assert not field or page.locator(f'[data-path="{field}"]').count() == 1
    assert page.faults == []
    page.context.close()


def test_play_is_recorded_and_gives_the_same_walk_again(page, file):
    page.select_option("[aria-label='Ticks a second']", "60")
    page.keyboard.press("F8")
    # A sprint that is switched on before is on in the recording, too.
    page.keyboard.press("ShiftLeft")
    page.wait_for_function("wendonicPage.helm.run.toggled(wendonicPage.helm.record).length === 1")
    page.keyboard.press("F6")
    page.keyboard.down("KeyW")
    page.wait_for_timeout(300)
    page.keyboard.down("KeyD")
    page.wait_for_timeout(200)
    page.keyboard.press("F9")
    page.keyboard.up("KeyW")
    page.keyboard.up("KeyD")
    page.keyboard.press("F6")
    where = page.evaluate("[wendonicPage.tape.recorder, wendonicPage.seen.values.x]")
    page.wait_for_selector("#notices >> text=recording saved as")
    (kept,) = file.parent.glob("beekeeper_2*.jsonl")
    recording = Recording.read(kept)
    kept.unlink()
    assert {"mark", "key.KeyW", "key.KeyD"} <= recording.controls
    trace = shape(recording, demo_profile())
    assert where[0] is None
    assert trace["pos_y"].max() > 0.3
    assert trace["sprint_held"].all()
    page.select_option("[aria-label=Replay]", "beekeeper_keys.jsonl")
    page.wait_for_function("wendonicPage.tape.replay && wendonicPage.tape.replay.index > 2")


@pytest.mark.long
def test_a_replay_ends_a_recording_as_a_whole_file_and_is_not_recorded_itself(page, file):
    page.keyboard.press("F6")
    page.keyboard.down("KeyW")
    page.wait_for_timeout(300)
    page.select_option("[aria-label=Replay]", "beekeeper_keys.jsonl")
    page.wait_for_selector("#notices >> text=recording saved as")
    (kept,) = file.parent.glob("beekeeper_2*.jsonl")
    recording = Recording.read(kept)
    kept.unlink()
    assert "key.KeyW" in recording.controls
    assert recording.duration_s < 5.0
    page.keyboard.press("F6")
    page.wait_for_selector("#notices >> text=beekeeper_keys.jsonl is being replayed")
    assert page.evaluate("wendonicPage.tape.recorder") is None
    # The choice says what is replayed: after a file dialog that was cancelled, and after a recording that is broken.
    broken = file.parent / "broken.jsonl"
    broken.write_text('{"format": "wendonic-recording", "version": 1}\nnone\n{"t": 1}\n')
    page.evaluate("wendonicPage.bar.recordings()")
    for choice in ("open a file…", "broken.jsonl"):
        page.select_option("[aria-label=Replay]", choice)
        page.wait_for_function("document.querySelector('[aria-label=Replay]').value === 'beekeeper_keys.jsonl'")
    assert "broken.jsonl" in page.text_content("#notices .fault")
    broken.unlink()
    page.select_option("[aria-label=Replay]", "no replay")
    assert page.evaluate("wendonicPage.tape.replay") is None
    assert page.locator("#notices .fault").count() == 0
    page.keyboard.press("F6")
    assert page.evaluate("wendonicPage.tape.recorder.events.length") == 4


@pytest.mark.long
def test_points_of_a_curve_are_dragged_and_saved(page, file):
    form = page.locator('[id="field-mode.foot.move.bind[1].curve.form"]')
    assert form.locator("option").all_text_contents() == ["linear", "power", "expo", "s", "knee", "points"]
    form.select_option("points")
    curve = page.locator("canvas[data-points]").first
    curve.scroll_into_view_if_needed()
    path = curve.get_attribute("data-points")
    inner, outer = (
        load_profile(file).mode["foot"].move.bind[1].dead_zone.model_dump()[one] for one in ("inner", "outer")
    )
    box = curve.bounding_box()
    x = box["x"] + 26 + (inner + 0.4 * (outer - inner)) * (box["width"] - 34)
    y = box["y"] + box["height"] - 18 - 0.1 * (box["height"] - 26)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 12, steps=4)
    page.mouse.up()
    shown = "wendonicPage.profile.fields.find(field => field.path === path).value[1][1]"
    page.wait_for_function(f"path => {shown} > 0.15", arg=path)
    after = page.evaluate("path => wendonicPage.settings.value(path)", path)
    assert after[1] == pytest.approx([0.4, 0.1 + 12 / (box["height"] - 26)], abs=0.03)
    assert after[0] == [0, 0]
    curve.focus()
    page.keyboard.press("ArrowRight")
    page.wait_for_function(f"path => {shown.replace('[1][1]', '[1][0]')} > 0.41", arg=path)
    after = page.evaluate("path => wendonicPage.settings.value(path)", path)
    assert page.evaluate("wendonicPage.seen.values.rawX") == 0
    page.keyboard.press("Control+s")
    page.wait_for_selector("#notices >> text=saved to")
    points = load_profile(file).mode["foot"].move.bind[1].curve.points
    assert [list(point) for point in points] == after
    # They are a row like others: typed, refused, with what they do to the feel, and one click from the file's.
    row = page.locator(f'[data-path="{path}"]')
    text = row.locator("input")
    assert json.loads(f"[{text.input_value()}]") == after
    text.fill("[0, 0], [0.5")
    text.press("Enter")
    assert (
        row.locator(".refused").inner_text().startswith("found [0, 0], [0.5; allowed: points [tilt, amount], such as")
    )
    text.fill("[[0, 0], [0.3, 0.2], [0.6, 0.3], [1, 1]]")
    text.press("Enter")
    row.locator(".effect li", has_text="amount at tilt").wait_for()
    assert page.evaluate("path => wendonicPage.settings.value(path).length", path) == 4
    row.locator(".file").click()
    assert page.evaluate("path => wendonicPage.settings.value(path)", path) == after
    assert row.locator(".effect li").count() == 0


@pytest.mark.long
def test_another_frame_is_chosen_on_the_page_and_one_that_does_not_fit_is_refused_in_words(page, file):
    frame = page.locator('[id="field-mode.foot.steer.frame"]')
    assert frame.locator("option").all_text_contents() == "map camera facing drive fly grid goto hands".split()
    frame.select_option("drive")
    page.wait_for_function("wendonicPage.helm.runs.foot.content.frame === 'drive'")
    file.write_text(file.read_text().replace("[gait.walk]", "[gait.walk]\ngravity_m_s2 = 20"))
    page.wait_for_function("wendonicPage.profile.fields.some(field => field.path === 'gait.walk.gravity_m_s2')")
    frame.select_option("fly")
    page.wait_for_selector("#notices >> text=a body that flies has no weight")
    assert page.evaluate("wendonicPage.helm.runs.foot.content.frame") == "drive"


def in_one_file(browser, folder, *names, **context):
    """The page of some shipped profiles from the disk."""
    out = folder / "feel.html"
    write_page([FOLDER / f"{name}.toml" for name in names], out)
    return opened(browser, out.as_uri(), **context)


@pytest.mark.long
@pytest.mark.parametrize(
    ("name", "size", "words"),
    [
        pytest.param(
            "beekeeper",
            (390, 844),
            "nothing here is bound to touch: connect a pad or a keyboard",
            marks=pytest.mark.long,
        ),
        pytest.param("tablet", (844, 390), "", marks=pytest.mark.long),
        ("orchard", (844, 390), "touch a place to go there"),
        pytest.param(
            "headset",
            (390, 844),
            "nothing here is bound to touch: connect a pad or a keyboard",
            marks=pytest.mark.long,
        ),
    ],
)
def test_a_phone_upright_or_on_its_side_has_the_stage_and_one_drawer(browser, tmp_path, name, size, words):
    width, height = size
    phone = {"viewport": {"width": width, "height": height}, "has_touch": True, "is_mobile": True}
    page = in_one_file(browser, tmp_path, name, **phone)
    page.wait_for_function("wendonicPage.stage.said")
    stage = page.locator("#stage").bounding_box()
    assert (stage["width"], stage["height"] > 0.7 * height) == (width, True)
    assert page.evaluate("wendonicPage.stage.said") == "\n".join(["0.00 m/s", words]).strip()
    assert [page.locator(part).is_visible() for part in ("#numbers", "#strips")] == [False, False]
    page.locator(".drawer-toggle").tap()
    stage, drawer = (page.locator(part).bounding_box() for part in ("#stage", "#numbers"))
    assert page.locator("[type=range]").first.is_visible()
    assert drawer["x"] >= stage["x"] + stage["width"] or drawer["y"] >= stage["y"] + stage["height"]
    assert (drawer["x"] + drawer["width"], drawer["y"] + drawer["height"]) == (width, height)
    assert min(stage["width"], stage["height"]) > 250
    assert page.faults == []
    page.context.close()


@pytest.mark.long
def test_real_fingers_count_alike_in_both_directions_and_a_recording_begins_with_what_is_held(browser, tmp_path):
    phone = {"viewport": {"width": 844, "height": 390}, "has_touch": True, "is_mobile": True}
    page = in_one_file(browser, tmp_path, "tablet", accept_downloads=True, **phone)
    page.evaluate("wendonicPage.clock.rate = 60")
    glass, stage = page.context.new_cdp_session(page), page.locator("#stage").bounding_box()
    width, height = stage["width"], stage["height"]

    def touch(kind, *fingers):
        points = [{"id": number, "x": stage["x"] + x, "y": stage["y"] + y} for number, (x, y) in enumerate(fingers)]
        glass.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    # As far to the right as up, and beyond the rim, on glass that is 2.5 times as wide as high.
    thumb = (0.2 * width, 0.8 * height)
    touch("touchStart", thumb)
    for pixels in (20, 40, 60):
        touch("touchMove", (thumb[0] + pixels, thumb[1] - pixels))
    moving(page, 3.19)
    ways = page.evaluate("[wendonicPage.seen.values.velX, wendonicPage.seen.values.velY]")
    assert ways == pytest.approx([3.2 * math.sqrt(0.5)] * 2, abs=1e-6)
    # The stick under the thumb is drawn: its middle follows a radius behind.
    rim, away = page.locator("#thumbs .rim").bounding_box(), 0.14 * height
    assert rim["width"] == pytest.approx(2.0 * away, abs=0.1)
    middle = rim["x"] + away - stage["x"], rim["y"] + away - stage["y"]
    assert math.dist(middle, (thumb[0] + 60, thumb[1] - 60)) == pytest.approx(away, abs=0.5)
    page.keyboard.press("F6")
    page.wait_for_timeout(300)
    touch("touchEnd")
    moving(page, 0.0, 0.0)
    assert not page.locator("#thumbs .rim").is_visible()
    with page.expect_download() as kept:
        page.keyboard.press("F6")
    recording = Recording.read(kept.value.path())
    assert dict.fromkeys(event.control for event in recording if event.t == 0.0).keys() >= {"touch.0", "window"}
    trace = shape(recording, demo_profile("tablet"))
    ends = page.evaluate("[wendonicPage.seen.values.x, wendonicPage.seen.values.y]")
    assert trace["pos_y"].iloc[-1] - trace["pos_y"].iloc[0] > 0.5
    assert trace[["pos_x", "pos_y"]].iloc[-1].to_list() == pytest.approx(ends, abs=0.06)
    # How far it has to slide is a number that is turned while one plays.
    page.evaluate("wendonicPage.settings.set('mode.foot.move.bind[0].radius', 0.28)")
    touch("touchStart", thumb)
    touch("touchMove", (thumb[0], thumb[1] - away))
    page.wait_for_function("Math.abs(wendonicPage.seen.values.rawY - 0.5) < 1e-6")
    assert page.locator("#thumbs .rim").bounding_box()["width"] == pytest.approx(4.0 * away, abs=0.1)
    assert page.faults == []
    page.context.close()


@pytest.mark.long
def test_a_phone_turns_by_its_sensors(browser, tmp_path):
    page = in_one_file(browser, tmp_path, "lookout", reduced_motion="reduce")
    page.evaluate(
        """() => window.dispatchEvent(new DeviceMotionEvent("devicemotion", {
            rotationRate: { alpha: 0, beta: 0, gamma: -90 },
            accelerationIncludingGravity: { x: 0, y: 9.8, z: 0 },
        }))"""
    )
    assert page.evaluate("wendonicPage.helm.state.value('pad.gyro')") == pytest.approx([0, -1.5708, 0], abs=1e-3)
    # To the right by 90 deg/s: half of it in half a second, by the profile's own ratio.
    page.wait_for_function("wendonicPage.seen?.values.viewYaw > 0.05")
    page.context.close()


@pytest.mark.long
def test_a_game_seen_from_the_side_is_shown_from_the_side(browser, tmp_path):
    file = tmp_path / "shelf.toml"
    file.write_text(SHELF_JUMPER)
    write_page([file], tmp_path / "feel.html")
    page = opened(browser, (tmp_path / "feel.html").as_uri())
    assert page.evaluate("wendonicPage.stage.view") == "from the side"
    page.keyboard.down("Space")
    jumped = "[...document.querySelectorAll('dt')].find((one) => one.textContent === 'last jump').nextSibling"
    page.wait_for_function(f"{jumped}.textContent.endsWith('px')", timeout=5000)
    page.keyboard.up("Space")
    shown = dict(zip(page.locator("dt").all_inner_texts(), page.locator("dd").all_inner_texts(), strict=True))
    height, unit = shown["last jump"].split()
    assert (float(height), unit) == (pytest.approx(96.0, rel=0.01), "px")
    assert "diagonal / straight" not in shown
    page.keyboard.press("F2")
    assert page.evaluate("wendonicPage.stage.view") == "from above"
    assert page.faults == []
    page.context.close()


@pytest.mark.long
def test_a_vehicle_has_readings_a_yaw_rate_and_curves(browser, tmp_path):
    page = in_one_file(browser, tmp_path, "cart")
    page.evaluate(
        "wendonicPage.helm.apply('pad.right_trigger', 1); wendonicPage.helm.apply('pad.left_stick', [1, 0])"
    )
    page.wait_for_function("wendonicPage.readings.pressToMoveS > 0 && wendonicPage.ringRow.yawRate > 5", timeout=5000)
    # The body turns, and nothing looks: what is shown is what the record turned by.
    wanted = page.evaluate("wendonicPage.helm.run.content.bindings.channels.look.length")
    assert wanted == 0
    curves = page.evaluate("wendonicPage.numbers.curves.map((curve) => curve.channel)")
    assert {"throttle", "turn"} >= set(curves) != set()
    assert page.faults == []
    page.context.close()


@pytest.mark.long
def test_mouse_and_keys_stand_in_for_a_headset_and_both_views_in_space_are_drawn(browser, tmp_path):
    page = in_one_file(browser, tmp_path, "headset", viewport={"width": 800, "height": 500})
    page.keyboard.press("F2")
    page.mouse.click(600, 200)
    page.wait_for_function("wendonicPage.devices.mouse.captured")
    page.mouse.move(700, 200, steps=3)
    page.wait_for_function("wendonicPage.devices.headset.yaw < -0.05")
    page.mouse.down()
    for swing in range(14):
        page.mouse.move(700, 200 + (60 if swing % 2 else -60), steps=3)
    page.wait_for_function("wendonicPage.seen?.values.y > 0.2 && wendonicPage.helm.deviceName === 'hands'")
    page.mouse.up()
    page.keyboard.press("F2")
    page.wait_for_function("wendonicPage.stage.view === 'through the eyes' && wendonicPage.stage.solid.camera")
    # Something is drawn: sky and ground differ.
    colours = page.evaluate(
        """async () => {
            await new Promise(requestAnimationFrame);
            wendonicPage.stage.draw(wendonicPage.scene());
            const gl = wendonicPage.stage.solid.gl, one = new Uint8Array(4), other = new Uint8Array(4);
            gl.readPixels(5, 5, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, one);
            gl.readPixels(5, gl.drawingBufferHeight - 5, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, other);
            return [[...one], [...other]];
        }"""
    )
    assert colours[0] != colours[1]
    assert page.faults == []
    page.context.close()


FAKE_HEADSET = """
() => {
    const quaternion = (yaw) => ({ x: 0, y: Math.sin(yaw / 2), z: 0, w: Math.cos(yaw / 2) });
    window.fake = { yaw: 0, right: 0, squeeze: 0, there: true, views: 0 };
    const at = (x, y, z, yaw) => ({ transform: { position: { x, y, z }, orientation: quaternion(yaw) } });
    const matrix = (x) => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, x, 1.6, 0, 1];
    const lens = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, -1.002, -1, 0, 0, -0.1001, 0];
    const eye = (name, x) => ({ eye: name, transform: { matrix: matrix(x) }, projectionMatrix: lens });
    const views = [eye("left", -0.03), eye("right", 0.03)];
    window.XRWebGLLayer = class {
        constructor() { this.framebuffer = null; }
        getViewport(view) { return { x: view.eye === "left" ? 0 : 100, y: 0, width: 100, height: 100 }; }
    };
    const session = new EventTarget();
    Object.assign(session, {
        updateRenderState() {},
        requestReferenceSpace: async () => "floor",
        requestAnimationFrame: (next) => requestAnimationFrame((now) => next(now, {
            getViewerPose: () => ({ ...at(0.3, 1.6, 0.2, fake.yaw), views }),
            getPose: (space) => fake.there && at(space === "right" ? 0.5 : 0.1, 1.1, -0.2 + fake.right, fake.yaw),
        })),
        end() { session.dispatchEvent(new Event("end")); },
    });
    Object.defineProperty(session, "inputSources", { get: () => ["left", "right"].map((side) => ({
        handedness: side, gripSpace: side, targetRaySpace: side,
        gamepad: { mapping: "xr-standard", axes: [0, 0, 0, 0],
            buttons: [0, fake.squeeze, 0, 0, 0, 0].map((value) => ({ value })) } })) });
    Object.defineProperty(navigator, "xr", {
        value: { isSessionSupported: async () => true, requestSession: async () => session } });
    WebGL2RenderingContext.prototype.makeXRCompatible = async () => {};
}
"""


@pytest.mark.long
def test_a_headset_of_the_browser_walks_by_its_hands_and_is_drawn_for_both_eyes(browser, tmp_path):
    """The browser's own parts are made up here: no headset is at hand where this runs."""
    out = tmp_path / "feel.html"
    write_page([FOLDER / "headset.toml"], out)
    context = browser.new_context(bypass_csp=True, viewport={"width": 800, "height": 500})
    context.add_init_script(f"({FAKE_HEADSET})()")
    page = context.new_page()
    faults = []
    page.on("pageerror", lambda fault: faults.append(str(fault)))
    page.goto(out.as_uri())
    page.click("text=Headset")
    page.wait_for_function("wendonicPage.devices.session.runs")
    pose = page.wait_for_function(
        "wendonicPage.helm.state.value('head.pose')[1] > 0 && wendonicPage.helm.state.value('head.pose')"
    )
    assert pose.json_value()[:3] == [0.3, 1.6, 0.2]
    # Both hands swing to and fro, squeezed, while all of it is turned a quarter to the left.
    page.evaluate(
        """() => {
            fake.squeeze = 1;
            fake.yaw = Math.PI / 2;
            window.swings = setInterval(() => (fake.right = 0.3 * Math.sin(performance.now() / 90)), 10);
        }"""
    )
    page.wait_for_function("wendonicPage.seen?.values.x < -0.4 && Math.abs(wendonicPage.seen.values.y) < 0.2")
    colours = page.evaluate(
        """async () => {
            const gl = wendonicPage.stage.solid.gl, found = [];
            for (const [x, y] of [[50, 5], [50, 95], [150, 5], [150, 95]]) {
                const one = new Uint8Array(4);
                wendonicPage.stage.inSpace().drawEyes(wendonicPage.made, wendonicPage.stage.colours,
                    wendonicPage.devices.session.layer, [
                        { eye: "left", transform: { matrix: [1,0,0,0,0,1,0,0,0,0,1,0,0,1.6,0,1] },
                          projectionMatrix: [1,0,0,0,0,1,0,0,0,0,-1.002,-1,0,0,-0.1001,0] },
                        { eye: "right", transform: { matrix: [1,0,0,0,0,1,0,0,0,0,1,0,0,1.6,0,1] },
                          projectionMatrix: [1,0,0,0,0,1,0,0,0,0,-1.002,-1,0,0,-0.1001,0] }], [0, 1.6, 0]);
                gl.readPixels(x, y, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, one);
                found.push([...one].join());
            }
            return found;
        }"""
    )
    ground, sky = colours[0], colours[1]
    assert ground != sky
    assert colours[2:] == [ground, sky]
    page.evaluate("fake.there = false")
    page.wait_for_function("wendonicPage.helm.state.value('hand.left.squeeze') === 0")
    page.click("text=Headset")
    page.wait_for_function("!wendonicPage.devices.session.runs")
    t = page.evaluate("wendonicPage.helm.t")
    page.wait_for_function("t => wendonicPage.helm.t > t + 0.1", arg=t)
    assert faults == []
    context.close()


@pytest.mark.long
def test_a_course_that_an_editor_saves_is_followed_and_a_broken_one_named(browser, tmp_path):
    (tmp_path / "ground").mkdir()
    course = tmp_path / "ground" / "yard.toml"
    text = 'format = "wendonic-course"\nversion = 1\n'
    course.write_text(f"{text}bounds = {{ left_m = -9, right_m = 9, back_m = -9, forward_m = 2 }}\n")
    shutil.copy(FOLDER / "beekeeper.toml", tmp_path)
    with served(tmp_path / "beekeeper.toml", "--course", str(course)) as (address, _):
        page = opened(browser, address)
        page.keyboard.down("KeyW")
        page.wait_for_function("wendonicPage.seen.values.y > 1.5")
        course.write_text(text + "bonds = 3\n")
        fault = page.locator("#notices .fault")
        fault.wait_for(timeout=4000)
        assert "yard.toml has errors; the last good course stays in use" in fault.text_content()
        # Faults of the profile stand beside it, and a course that is right again counts all the same.
        (tmp_path / "beekeeper.toml").write_text("format = 3\n")
        page.wait_for_selector("text=beekeeper.toml has errors")
        assert 1.5 < page.evaluate("wendonicPage.seen.values.y") <= 2.0
        course.write_text(f"{text}bounds = {{ left_m = -9, right_m = 9, back_m = -9, forward_m = 4 }}\n")
        page.wait_for_function("wendonicPage.seen.values.y > 3.5")
        page.wait_for_function("!document.querySelector('#notices').textContent.includes('yard.toml')")
        assert "beekeeper.toml has errors" in page.text_content("#notices")
        assert page.faults == []
        page.context.close()


@pytest.mark.long
def test_a_second_tab_and_a_lost_server_are_reported(browser, tmp_path):
    file = tmp_path / "crates.toml"
    shutil.copy(FOLDER / "crates.toml", file)
    with served(file) as (address, process):
        first = opened(browser, address)
        second = opened(browser, address)
        first.wait_for_selector("#notices >> text=open in 2 tabs")
        second.context.close()
        first.wait_for_function("!document.querySelector('#notices').textContent.includes('tabs')")
        process.terminate()
        first.wait_for_selector("#notices >> text=The server has stopped")
        first.keyboard.down("KeyD")
        first.wait_for_function("Math.abs(wendonicPage.seen.values.x) > 0.5")
        first.context.close()


@pytest.mark.long
def test_one_file_works_from_the_disk(browser, tmp_path):
    out = tmp_path / "feel.html"
    done = called("export", str(FOLDER / "beekeeper.toml"), str(FOLDER / "cart.toml"), "--as", "html", "-o", str(out))
    assert done.returncode == 0, done.stderr
    page = opened(browser, out.as_uri(), accept_downloads=True)
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    assert "Permission is hereby granted" in out.read_text()
    assert "wendonic live PROFILE" in page.text_content(".findings")
    page.keyboard.down("KeyW")
    moving(page, 3.1)
    put(page, "gait.walk.top_speed_m_s", 5)
    page.keyboard.down("KeyW")
    moving(page, 4.9, 5.1)
    page.keyboard.up("KeyW")
    # A number that does not go with the others goes no further than it may.
    put(page, "mode.foot.move.bind[1].dead_zone.inner", 0.99)
    assert page.evaluate("wendonicPage.settings.value('mode.foot.move.bind[1].dead_zone.inner')") == 0.14
    assert "wendonic live" in page.text_content("#notices .fault")
    assert page.locator('[id="field-mode.foot.move.diagonal"]').is_disabled()
    page.click("text=Rebind")
    # What is already in use swaps places.
    page.click("dialog[open] tr:has-text('key.Space') button")
    page.keyboard.press("KeyD")
    rows = page.eval_on_selector_all(
        "dialog[open] tr", "rows => rows.map((row) => row.innerText.split(/\\s*\\t\\s*/))"
    )
    assert ["right", "key.Space", "was key.KeyD"] in rows
    assert ["jump", "key.KeyD", "was key.Space"] in rows
    assert ["forward", "key.KeyW", ""] in rows
    page.click("dialog[open] >> text=Reset")
    page.click("dialog[open] tr:has-text('key.KeyW') button")
    page.keyboard.press("KeyZ")
    page.click("dialog[open] >> text=Close")
    page.locator("#stage").focus()
    page.keyboard.down("KeyZ")
    moving(page, 4.9, 5.1)
    with page.expect_download() as given:
        page.click("text=Download profile")
    text = Path(given.value.path()).read_text()
    found = profile_from_text(text)
    assert found.gait["walk"].top_speed_m_s == 5.0
    assert found.mode["foot"].move.bind[0].keys.forward == ("KeyZ", "ArrowUp")
    # What a comment says of a key does not change with the binding.
    assert '"KeyW" is the key left of "KeyE"' in text
    page.select_option("[aria-label=Profile]", "Honey cart")
    page.keyboard.down("KeyW")
    page.wait_for_function("wendonicPage.helm.mode === 'cart' && wendonicPage.seen?.values.y > 0.3")
    assert [url for url in asked if not url.startswith(("file:", "blob:", "data:"))] == []
    assert page.faults == []
    page.context.close()


@pytest.mark.long
def test_a_key_that_was_rebound_walks_on_while_it_is_saved_twice(page, file):
    page.click("text=Rebind")
    page.click("dialog[open] tr:has-text('key.KeyW') button")
    page.keyboard.press("KeyZ")
    page.click("dialog[open] >> text=Close")
    page.locator("#stage").focus()
    page.keyboard.down("KeyZ")
    moving(page, 3.19, 3.21)
    page.keyboard.press("Control+s")
    page.keyboard.press("Control+s")
    page.evaluate(
        "() => { window.slowest = 9; setInterval(() => { const v = wendonicPage.seen?.values;"
        " window.slowest = Math.min(window.slowest, v ? Math.hypot(v.velX, v.velY) : 9); }, 5); }"
    )
    page.wait_for_selector("#notices >> text=saved to")
    page.wait_for_function("wendonicPage.rebinding.size === 0")
    assert load_profile(file).mode["foot"].move.bind[0].keys.forward == ("KeyZ", "ArrowUp")
    page.wait_for_timeout(300)
    assert page.evaluate("window.slowest") > 3.19
    page.keyboard.up("KeyZ")
    moving(page, 0.0, 0.01)
    page.keyboard.down("KeyZ")
    moving(page, 3.19, 3.21)
    assert page.faults == []


@pytest.mark.long
def test_changes_of_one_profile_are_kept_while_another_one_is_played(browser, tmp_path):
    page = in_one_file(browser, tmp_path, "beekeeper", "cart")
    put(page, "gait.walk.top_speed_m_s", 5)
    # A key that is held while it is rebound does not stay down for ever.
    page.keyboard.down("KeyW")
    moving(page, 4.9, 5.1)
    page.click("text=Rebind")
    page.click("dialog[open] tr:has-text('key.KeyW') button")
    page.keyboard.press("KeyZ")
    page.click("dialog[open] >> text=Close")
    page.keyboard.up("KeyW")
    moving(page, 0.0, 0.01)
    page.keyboard.press("F3")
    page.click("text=Blind")
    page.keyboard.press("F4")
    page.select_option("[aria-label=Profile]", "Honey cart")
    assert page.locator("#numbers .field").first.is_visible()
    page.keyboard.down("KeyW")
    page.wait_for_function("wendonicPage.helm.mode === 'cart' && wendonicPage.seen?.values.y > 0.3")
    page.keyboard.up("KeyW")
    page.select_option("[aria-label=Profile]", "Beekeeper on the terraces")
    assert not page.locator("#numbers .field").first.is_visible()
    page.click("text=End blind trial")
    assert sum(page.evaluate("Object.values(wendonicPage.trial.counts)")) == 1
    if page.evaluate("wendonicPage.trial.side") == "b":
        page.keyboard.press("F3")
    page.keyboard.down("KeyZ")
    moving(page, 4.9, 5.1)
    assert page.faults == []
    page.context.close()


def test_only_this_page_is_served_and_only_to_this_machine(server):
    start, token = server.rstrip("/").rsplit("/", 1)

    def status(path, **headers):
        request = urllib.request.Request(start + path, headers=headers)
        try:
            with urllib.request.urlopen(request, timeout=5) as reply:
                return reply.status, dict(reply.headers)
        except urllib.error.HTTPError as fault:
            return fault.code, dict(fault.headers)

    code, headers = status(f"/{token}/")
    assert code == 200
    assert "default-src 'none'" in headers["content-security-policy"]
    assert status("/")[0] == status("/wrong/")[0] == status(f"/{token}/../page.js")[0] == 404
    assert status(f"/{token}/profile.js?n=99")[0] == status(f"/{token}/profile.js?n=../x")[0] == 404
    assert status(f"/{token}/", Host="apiary.example")[0] == 403
    assert status(f"/{token}/page.js", Origin="http://apiary.example")[0] == 403


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--mode", "swim"], "swim"),
        (["--port", "99999"], "port"),
        (["--course", "no_such.toml"], "no_such.toml"),
    ],
)
def test_a_page_that_cannot_be_served_is_reported_in_plain_words(options, words, tmp_path):
    file = tmp_path / "beekeeper.toml"
    shutil.copy(FOLDER / "beekeeper.toml", file)
    done = called("live", str(file), "--no-open", *options)
    assert done.returncode == 2
    assert words in done.stderr
    assert "Traceback" not in done.stderr


def test_the_bundle_is_that_of_its_sources(tmp_path):
    """Where npm has put what it needs; `.ci/run` does."""
    web = Path(__file__).parent.parent / "web"
    if not (web / "node_modules" / "esbuild").exists() and not ALL_TOOLS:
        pytest.skip("web/node_modules is not here: npm ci --prefix web")
    subprocess.run(["node", str(web / "build.mjs"), str(tmp_path)], check=True, cwd=web, timeout=60)
    built = web.parent / "src" / "wendonic" / "export" / "page" / "built"
    assert {one.name for one in built.iterdir()} == {one.name for one in tmp_path.iterdir()}
    for one in tmp_path.iterdir():
        assert one.read_bytes() == (built / one.name).read_bytes(), f"{one.name}: run node web/build.mjs"
    assert json.loads((web / "package.json").read_text())["dependencies"] == {"ogl": "1.0.11", "uplot": "1.6.32"}
