"""Whatever stands in a file, it loads or it is refused in words: never another exception, never half."""

import json
import math
import tomllib

import tomlkit
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


def places(node, path=()):
    """Every place of a profile, tables and lists included."""
    for key, value in node.items() if isinstance(node, dict) else enumerate(node):
        yield (*path, key)
        if isinstance(value, dict | list):
            yield from places(value, (*path, key))


@settings(max_examples=400)
@given(data=st.data())
def test_odd_values_in_the_places_of_a_profile_are_faults_in_words(data):
    """Good TOML, wrong content: replace, add or take away at up to three places."""
    content = tomllib.loads(PROFILE)
    for _ in range(data.draw(st.integers(1, 3))):
        *above, last = data.draw(st.sampled_from(list(places(content))))
        holder = content
        for part in above:
            holder = holder[part]
        match data.draw(st.sampled_from(["replace", "add", "remove"])):
            case "replace":
                holder[last] = data.draw(odd_values)
            case "add" if isinstance(holder, dict):
                holder[data.draw(st.sampled_from(["look", "curve", "leave_to", "gait", "zz"]))] = data.draw(
                    odd_values
                )
            case "remove":
                del holder[last]
    text = tomlkit.dumps(content)
    try:
        profile = profile_from_text(text)
    except ProfileError as error:
        assert_faults_lie_within(error, text.count("\n") + 1)
        return
    assert math.isfinite(Helm(profile).tick(0.05).amount)


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
