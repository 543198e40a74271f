"""Whatever stands in a file, it loads or it is refused in words: never another exception, never half."""

import json
import math
import tomllib

import pytest
import tomlkit
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from wendonic import (
    Helm,
    ProfileError,
    Recording,
    RecordingError,
    WendonicError,
    pictures,
    save_profile,
    shape,
    study,
)
from wendonic.cli.main import main
from wendonic.demo import CAPTURE_PATH, FOLDER, RECORDINGS, demo_profile, demo_recording
from wendonic.profile.load import profile_from_text

LINES = (FOLDER / "beekeeper_keys.jsonl").read_bytes().splitlines(keepends=True)[:12]
pieces = st.sampled_from(
    [
        "",
        "=",
        "[",
        "]",
        "{",
        "}",
        '"',
        "0",
        "-1",
        "1e999",
        "nan",
        "inf",
        "true",
        "[]",
        "{}",
        '""',
        "[[",
        "'''",
        "\n",
        "\0",
        "é",
    ]
)

PROFILE_WORDS = "found 'beekeeper.toml'; allowed: a Profile, as load_profile returns it"
NAMES_WORDS = 'found a list; allowed: profiles by name, such as {"before": one, "after": other}'
RECORDING_WORDS = "found 'beekeeper.toml'; allowed: a Recording, as Recording.read returns it"


def assert_faults_lie_within(error, lines):
    assert error.faults
    for fault in error.faults:
        assert fault.what
        assert fault.line is None or 1 <= fault.line <= lines


@st.composite
def spoiled(draw, text):
    """Replace a few stretches of `text` by pieces that mean something to a parser."""
    for _ in range(draw(st.integers(1, 3))):
        start = draw(st.integers(0, len(text)))
        end = min(start + draw(st.integers(0, 30)), len(text))
        text = text[:start] + draw(pieces) + text[end:]
    return text


odd_values = st.recursive(
    st.booleans()
    | st.floats()
    | st.integers(-5, 5)
    | st.sampled_from(["", "expo", "KeyW", "camera", "pad.left_stick"]),
    lambda inner: (
        st.lists(inner, max_size=2) | st.dictionaries(st.sampled_from(["form", "keys", "x"]), inner, max_size=2)
    ),
    max_leaves=4,
)


EXTRA_KEYS = ["look", "curve", "leave_to", "gait", "press", "shared", "zz"]
SPOILED_PROFILES = [(FOLDER / f"{name}.toml").read_text() for name in dict.fromkeys(RECORDINGS.values())]


def places(node, path=()):
    """Every place of a profile, tables and lists included."""
    for key, value in node.items() if isinstance(node, dict) else enumerate(node):
        yield (*path, key)
        if isinstance(value, dict | list):
            yield from places(value, (*path, key))


@settings(max_examples=15)
@given(data=st.data())
def test_odd_values_in_the_places_of_a_profile_are_faults_in_words(data):
    """Good TOML, wrong content: replace, add or take away at up to three places."""
    content = tomllib.loads(data.draw(st.sampled_from(SPOILED_PROFILES)))
    for _ in range(data.draw(st.integers(1, 3))):
        *above, last = data.draw(st.sampled_from(list(places(content))))
        holder = content
        for part in above:
            holder = holder[part]
        match data.draw(st.sampled_from(["replace", "add", "remove"])):
            case "replace":
                holder[last] = data.draw(odd_values)
            case "add" if isinstance(holder, dict):
                holder[data.draw(st.sampled_from(EXTRA_KEYS))] = data.draw(odd_values)
            case "remove":
                del holder[last]
    text = tomlkit.dumps(content)
    try:
        profile = profile_from_text(text)
    except ProfileError as error:
        assert_faults_lie_within(error, text.count("\n") + 1)
        return
    assert math.isfinite(Helm(profile).tick(0.05).amount)


@settings(max_examples=15)
@given(text=st.sampled_from(SPOILED_PROFILES).flatmap(spoiled))
def test_a_spoiled_profile_loads_or_says_where_it_is_spoiled(text):
    try:
        profile = profile_from_text(text)
    except ProfileError as error:
        assert_faults_lie_within(error, text.count("\n") + 1)
        return
    helm = Helm(profile)
    for code in ("KeyW", "KeyD"):
        helm.key(code, down=True)
    assert all(map(math.isfinite, helm.tick(0.05).record))


values = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=5) | st.just(10**400),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=3), inner, max_size=2),
    max_leaves=4,
)


@given(data=st.data())
def test_a_spoiled_recording_loads_or_says_where_it_is_spoiled(tmp_path_factory, data):
    path = tmp_path_factory.mktemp("spoiled") / "walk.jsonl"
    content = b"".join(LINES)
    if data.draw(st.booleans()):
        content = data.draw(spoiled(content.decode())).encode()
    else:
        entry = {"t": data.draw(values), "c": data.draw(values | st.just("pad.left_stick")), "v": data.draw(values)}
        content += json.dumps(entry).encode() + b"\n"
    path.write_bytes(content)
    try:
        recording = Recording.read(path)
    except RecordingError as error:
        assert_faults_lie_within(error, content.count(b"\n") + 1)
        return
    times = [event.t for event in recording]
    assert times == sorted(times)
    assert all(map(math.isfinite, times))


def parquet_bytes(folder):
    path = folder / "walk.parquet"
    demo_recording("tablet_walk").between(1.0, 1.3).write(path)
    return path.read_bytes()


@pytest.fixture(scope="session")
def good_files(tmp_path_factory):
    """Short good files of every format, by ending and by what `convert` calls it."""
    folder = tmp_path_factory.mktemp("good")
    walk = demo_recording("beekeeper_mouse").between(1.0, 2.2)
    walk.write(folder / "walk.csv")
    walk.write(folder / "walk.jsonl")
    web = "".join(
        json.dumps({"timestamp": 16 * n, "axes": [0.1 * n, 0.0, 0.0, 0.0], "buttons": [0.0] * 17}) + "\n"
        for n in range(4)
    )
    return {
        (".csv", None): (folder / "walk.csv").read_bytes(),
        (".jsonl", None): (folder / "walk.jsonl").read_bytes(),
        (".parquet", None): parquet_bytes(folder),
        (".bin", "linux-input"): CAPTURE_PATH.read_bytes()[: 24 * 40],
        (".web", "gamepad-api"): web.encode(),
        (".toml", None): (FOLDER / "tablet.toml").read_bytes(),
    }


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(data=st.data())
def test_no_bytes_make_a_command_print_a_traceback(good_files, tmp_path_factory, monkeypatch, capsys, data):
    """Whatever was cut, changed or put into a file: a result and 0, or plain words on stderr and 2."""
    (ending, source), content = data.draw(st.sampled_from(sorted(good_files.items(), key=str)))
    for _ in range(data.draw(st.integers(1, 4))):
        start = data.draw(st.integers(0, len(content)))
        end = min(start + data.draw(st.integers(0, 12)), len(content))
        content = content[:start] + data.draw(st.binary(max_size=12)) + content[end:]
    folder = tmp_path_factory.mktemp("spoiled")
    path = folder / f"walk{ending}"
    path.write_bytes(content)
    commands = [["info", path]]
    if ending != ".toml":
        commands += [["convert", path, folder / "out.jsonl", *(["--format", source] if source else [])]]
    profile, recording = (path, FOLDER / "tablet_walk.jsonl") if ending == ".toml" else (FOLDER / "tablet.toml", path)
    commands += [["shape", profile, recording, "--hz", "10", "-o", folder / "trace.csv"]]
    for words in commands:
        monkeypatch.setattr("sys.argv", ["wendonic", *map(str, words)])
        with pytest.raises(SystemExit) as stopped:
            main()
        printed = capsys.readouterr()
        assert "Traceback" not in printed.err
        if stopped.value.code == 2:
            assert printed.err.startswith("wendonic: ")
            assert not (folder / "out.jsonl").exists() or words[0] != "convert"
        else:
            assert stopped.value.code == 0


@pytest.mark.parametrize(
    ("call", "words"),
    [
        (Helm, PROFILE_WORDS),
        (lambda path: Helm(demo_profile()).retune(path), PROFILE_WORDS),
        (lambda path: shape(demo_recording("beekeeper_keys"), path), PROFILE_WORDS),
        (lambda path: shape(path, demo_profile()), RECORDING_WORDS),
        (lambda path: save_profile(path, path), PROFILE_WORDS),
        (study.measure, PROFILE_WORDS),
        (lambda _: study.compare([demo_profile(), demo_profile()]), NAMES_WORDS),
        (lambda _: study.corpus(".", [demo_profile()]), NAMES_WORDS),
        (lambda _: pictures.draw_feel([demo_profile(), demo_profile()]), NAMES_WORDS),
        (pictures.draw_stick, PROFILE_WORDS),
        (pictures.draw_diagonals, PROFILE_WORDS),
        (pictures.draw_feel, PROFILE_WORDS),
        (pictures.draw_devices, RECORDING_WORDS),
        (study.check, PROFILE_WORDS),
        (study.calibrate, RECORDING_WORDS),
        (lambda path: study.compare({"one": path, "other": path}), PROFILE_WORDS),
        (lambda path: study.fit(path, {"reach90_s": 0.1}, ["gait.walk.accel_m_s2"]), PROFILE_WORDS),
        (lambda path: study.sweep(path, {"gait.walk.accel_m_s2": [9.0]}, ["reach90_s"]), PROFILE_WORDS),
        (lambda path: study.sweep_on(path, {"gait.walk.accel_m_s2": [9.0]}, ["most_apart_m"], "."), PROFILE_WORDS),
    ],
)
def test_a_path_instead_of_an_object_names_the_function_that_loads_it(call, words):
    with pytest.raises(WendonicError, match=words):
        call("beekeeper.toml")
