"""Whatever stands in a file, it loads or it is refused in words: never another exception, never half."""

import json
import math

from hypothesis import given, settings
from hypothesis import strategies as st

from wendonic import Helm, ProfileError, Recording, RecordingError
from wendonic.demo import FOLDER, PROFILE_PATH
from wendonic.profile.load import profile_from_text

PROFILE = PROFILE_PATH.read_text()
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


@settings(max_examples=400)
@given(text=spoiled(PROFILE))
def test_a_spoiled_profile_loads_or_says_where_it_is_spoiled(text):
    try:
        profile = profile_from_text(text)
    except ProfileError as error:
        assert_faults_lie_within(error, text.count("\n") + 1)
        return
    helm = Helm(profile)
    for code in ("KeyW", "KeyD"):
        helm.key(code, down=True)
    assert all(map(math.isfinite, helm.tick(0.05).outcome))


values = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=5) | st.just(10**400),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=3), inner, max_size=2),
    max_leaves=4,
)


@settings(max_examples=300)
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
