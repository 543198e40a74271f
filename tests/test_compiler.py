"""Tick functions against the plain kernels, bit for bit; what the compiler takes and what it refuses."""

import ast
import copy
import importlib.util
import itertools
import json
import math
import os
import struct
import subprocess
import sys
from types import SimpleNamespace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import wendonic.compiler.ready
import wendonic.compiler.store
import wendonic.compiler.tick_function
from few_of_many import few_of
from wendonic import Helm, shape
from wendonic.batch.samples import samples_of
from wendonic.compiler.coalesce import coalesced
from wendonic.compiler.fold import Folder
from wendonic.compiler.folded import Result
from wendonic.compiler.inline import inline
from wendonic.compiler.layout import built, flat, structure_of
from wendonic.compiler.liveness import read_first
from wendonic.compiler.python_text import python_text
from wendonic.compiler.read import KernelError, SourceMissingError
from wendonic.compiler.ready import plain, ready
from wendonic.compiler.tick_function import tick_function
from wendonic.compiler.tidy import drop_tested_again, tidied
from wendonic.compiler.trees import cloned, names_in
from wendonic.compiler.tried import changed_when_tried
from wendonic.compiler.values import Dynamic, expression, known, leaves, name
from wendonic.demo import ON_COURSE, RECORDINGS, demo_course, demo_profile, demo_recording
from wendonic.devices.sample_layout import sample_layout
from wendonic.export.plainer import usual_first
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.kernels.tick import standing, tick, tick_part
from wendonic.kernels.tick_record import tick_at_rest
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning
from wide_runs import wide_runs

MODES = [(name, mode) for name in RECORDINGS for mode in demo_profile(RECORDINGS[name]).mode]
TICKS = 120


def bits(numbers):
    return [struct.pack("d", number) for number in numbers]


def assert_alike(tuning, tables, course, sample, rows, dts):
    """Run both over the same rows; every number of every tick is the same to its last bit."""
    compiled = ready(tuning, sample)
    assert compiled.digest != "plain"
    layout = compiled.layout
    _, run, stand = compiled.make(compiled.numbers(tuning), tables, course)
    last, record = tick_at_rest(tuning), compiled.record_at_rest(tuning)
    for row, dt in zip(rows, dts, strict=False):
        last = tick(tuning, tables, course, last, built(sample, iter(row)), dt)
        record = run(record, row, dt)
        assert bits(record) == bits(layout.flat_record(last))
        assert bits(stand(record)) == bits(layout.flat_record(standing(last)))
    # What a record leaves out is as it was, all the time.
    whole = dict(zip(map(tuple, wendonic.compiler.ready.paths_of(last)), flat(last), strict=True))
    for path, number in layout.constants.items():
        if path[0] == "outcome":
            assert whole[path] == number, path


@pytest.mark.parametrize(("recording", "mode"), few_of(MODES, MODES[::2]))
def test_every_mode_of_every_shipped_profile_runs_bit_for_bit_as_the_plain_kernels(recording, mode):
    profile = demo_profile(RECORDINGS[recording])
    course = demo_course(ON_COURSE[recording]).numbers if recording in ON_COURSE else NO_COURSE
    sources = mode_sources(profile, mode, None)
    tuning = mode_tuning(profile, mode, course[0] + course[1] > 0.0)
    rows = samples_of(demo_recording(recording), 20.0, sources).rows
    # From where something happens on, with a hitch now and then.
    busy = int(np.argmax((rows != rows[0]).any(axis=1)))
    dts = itertools.cycle([1.0 / 60.0, 0.007, 1.0 / 30.0, 0.1, 0.45])
    rows = rows[busy : busy + TICKS].tolist()
    assert_alike(tuning.tick, tuning.tables, course, sample_layout(sources).sample, rows, dts)


def assert_run_alike(run):
    """Run a structure that Hypothesis made up; return which one it was."""
    tuning, course, steps = run
    rows, dts = [flat(sample) for sample, _ in steps], [dt for _, dt in steps]
    assert_alike(tuning, (), course, steps[0][0], rows, dts)
    return structure_of(tuning, steps[0][0])


@settings(max_examples=2)
@given(run=wide_runs())
def test_random_structures_run_bit_for_bit_as_the_plain_kernels(run):
    assert_run_alike(run)


@pytest.mark.long
@settings(max_examples=60)
@given(run=wide_runs())
def test_many_random_structures_run_bit_for_bit_as_the_plain_kernels(run):
    assert_run_alike(run)


def test_a_copy_shares_no_call_with_the_original():
    """Arguments of a call are taken out in place, however deep in an expression it stands."""
    original = ast.parse("1.0 + x * _press(y, dt)", mode="eval").body
    copy = cloned(original, {"x": name("z")})
    assert ast.unparse(copy) == "1.0 + z * _press(y, dt)"
    (there,), (here,) = ([node for node in ast.walk(tree) if isinstance(node, ast.Call)] for tree in (original, copy))
    here.args.pop()
    assert len(there.args) == 2


@pytest.mark.long
def test_the_text_of_a_structure_is_the_same_from_run_to_run(tmp_path):
    script = (
        "from wendonic import Helm; from wendonic.demo import demo_profile\n"
        "print(Helm(demo_profile('harvest'), prepare='first').tick_function())"
    )

    def text(seed):
        environment = {**os.environ, "PYTHONHASHSEED": seed, "XDG_CACHE_HOME": str(tmp_path / seed)}
        command = [sys.executable, "-c", script]
        return subprocess.run(command, env=environment, capture_output=True, text=True, check=True).stdout

    assert text("1") == text("2") != ""


def function_of(profile, mode=None, course=False):
    mode = profile.mode_name(mode)
    sources = mode_sources(profile, mode, None)
    return tick_function(mode_tuning(profile, mode, course).tick, sample_layout(sources).sample)


@pytest.mark.parametrize(("name", "mode"), [("lookout", "log"), ("orchard", "round"), ("cart", "cart")])
def test_trying_beforehand_saves_rounds_and_changes_no_text(name, mode, monkeypatch):
    texts, rounds = [], []
    fold = Folder.fold

    def counted(self, function, arguments):
        rounds[-1] += function is tick_part
        return fold(self, function, arguments)

    monkeypatch.setattr(Folder, "fold", counted)
    for tried in (changed_when_tried, lambda *_: set()):
        monkeypatch.setattr(wendonic.compiler.tick_function, "changed_when_tried", tried)
        rounds.append(0)
        texts.append(python_text(function_of(demo_profile(name), mode)))
    assert texts[0] == texts[1]
    assert rounds[0] < rounds[1]


def test_dead_state_is_gone_and_so_are_its_branches(beekeeper):
    function = function_of(beekeeper)
    carried = {".".join(path[1:]) for path, place in function.layout.indices.items() if place < function.layout.state}
    assert not [path for path in carried if path.startswith(("frame", "comfort", "pointing", "fall", "up", "axes"))]
    assert {"body.face", "body.position.x", "body.velocity.y", "look.1.boost_s"} <= carried | {"look.1.boost_s"}
    text = ast.unparse(ast.fix_missing_locations(ast.Module(list(function.part.body), [])))
    for word in ("square", "vignette", "goal", "offset", "airborne", "radius", "rim"):
        assert word not in text, word
    # A grid is kept where there is one.
    crates = function_of(demo_profile("crates"))
    assert any(path[:3] == ("memory", "frame", "grid") for path in crates.layout.indices)


def test_numbers_are_parameters_and_rules_are_structure(foot_profile):
    def digest(profile):
        sources = mode_sources(profile, profile.first_mode, None)
        return ready(mode_tuning(profile, profile.first_mode, False).tick, sample_layout(sources).sample).digest

    zone = 'dead_zone = {{ form = "{}", inner = {} }}'
    one = digest(foot_profile(pad=zone.format("round", 0.1)))
    assert digest(foot_profile(pad=zone.format("round", 0.2), move="half_life_s = 0")) == digest(
        foot_profile(pad=zone.format("round", 0.1), move="half_life_s = 0")
    )
    assert digest(foot_profile(pad=zone.format("axes", 0.1))) != one


# ---- the kernel language -----------------------------------------------------------------------------------------

ACCEPTED = '''
"""Kernels of every construct."""
import math
from typing import NamedTuple

FIRST, SECOND = 0, 1
HALF = 0.5


class Pair(NamedTuple):
    x: float
    y: float


class Nested(NamedTuple):
    pair: Pair
    rows: tuple[Pair, ...]
    form: int


def length(pair: Pair) -> float:
    """Call a kernel, use math."""
    return math.hypot(pair.x, pair.y)


def halved(pair: Pair) -> Pair:
    return Pair(pair.x * HALF, pair.y * HALF)


def branches(a: float, b: float, form: int) -> float:
    if form == FIRST:
        return a + b
    elif form == SECOND:
        c = a if a > b else b
    else:
        c = -a
    if c > 1.0 and not b < 0.0 or a == b:
        c -= 1.0
    return c


def records(a: float, b: float, form: int) -> Pair:
    nested = Nested(Pair(a, b), (Pair(b, a), Pair(1.0, a)), form)
    nested = nested._replace(pair=halved(nested.pair))
    x, (y, _) = nested.pair.x, nested.rows[1]
    if form in (FIRST, SECOND):
        x, y = y, x
    return Pair(x, y)._replace(x=x + length(nested.rows[0]))


def loops(a: float, b: float, form: int) -> Pair:
    total = 0.0
    pairs: tuple[Pair, ...] = ()
    steps = (1.0, 2.0, 4.0)
    for k in range(len(steps)):
        pairs = (*pairs, Pair(a + steps[k], b))
    for k in range(len(pairs)):
        total += pairs[k].x
    for step in range(math.ceil(abs(b))):
        if step > 5:
            break
        if step == 2:
            continue
        total += a
    while total > 10.0:
        total /= 2.0
    for _ in range(2):
        a, b = b, a + total
    return Pair(total, a - b)


def chained(a: float, b: float, form: int) -> float:
    inside = -1.0 < a < b <= 3.0
    other = a // 1.0 + b % 2.0 + a**2.0
    far = length(Pair(a, b)) > 0.5
    return min(a, b, 2.0) + max(a, b) * abs(a) if inside and far else other


def early(a: float, b: float, form: int) -> Pair:
    if a > b:
        return Pair(a, 0.0)
    for k in range(2):
        if b > 2.0 + k:
            return Pair(0.0, b)
    pass
    return Pair(b, a)


def row(a: float, b: float, form: int) -> float:
    table = (1.0, 4.0, 9.0)
    return table[form] + a
'''


def module_of(path, text):
    path.write_text(text)
    spec = importlib.util.spec_from_file_location(path.stem, path)
    module = sys.modules[path.stem] = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def folded(kernel, *arguments):
    """Return a kernel folded and tidied, as a function of the numbers that are open, giving the numbers it makes."""
    folder = Folder()
    part = folder.fold(kernel, list(arguments))
    functions = inline(part, list(folder.folded.values()))
    space = {**vars(math), "abs": abs, "min": min, "max": max}
    template = [leaf for _, leaf in leaves(part.template)]
    for one in (*functions.values(), part):
        tidied(one)
        made = ast.parse(f"def {one.name}({', '.join(one.parameters)}): pass").body[0]
        made.body = one.body
        exec(compile(ast.fix_missing_locations(ast.Module([made], [])), one.name, "exec"), space)

    def run(*numbers):
        result = space[part.name](*numbers)
        given = result if part.results > 1 else (result,)
        values = dict(zip(part.parameters, numbers, strict=True))
        reported = []
        for leaf in template:
            if isinstance(leaf, Result):
                reported.append(given[leaf.index])
            else:
                reported.append(eval(ast.unparse(expression(leaf)), {}, values))
        return reported

    return run


@pytest.mark.parametrize(
    ("read", "between", "asked"),
    [
        ("up", "other = hop(state)", 1),
        ("up", "up = hop(state)", 2),
        ("state_up", "state_up = 0.0", 2),
        ("state_up", "other = hop(state)", 2),
        ("state_up", "other = other + fall(state)", 1),
    ],
)
def test_a_test_is_repeated_once_its_names_may_have_changed(read, between, asked):
    """`state_up` stands for a field of a struct, which `hop` writes, and `fall` does not."""
    body = ast.parse(f"if {read}:\n  {between}\n  if {read}:\n    last = 1.0").body
    for part in names_in(body):
        part.id = part.id.replace("state_up", "state.up")
    drop_tested_again(body, ["hop"])
    assert sum(isinstance(part, ast.If) for part in ast.walk(body[0])) == asked


LOCALS = "abcde"
local = st.sampled_from(LOCALS)


@st.composite
def blocks(draw, depth=2):
    """Statements that copy names, add to them, branch and loop."""
    lines = []
    for _ in range(draw(st.integers(1, 5))):
        form = draw(st.sampled_from(["copy", "copy", "copy", "add", *(["if", "loop"] if depth else [])]))
        if form == "copy":
            lines.append(f"{draw(local)} = {draw(local)}")
        elif form == "add":
            lines.append(f"{draw(local)} = {draw(local)} * 3 + {draw(local)}")
        else:
            inside = ["    " + line for line in draw(blocks(depth=depth - 1))]
            head = f"if {draw(local)} > {draw(local)}:" if form == "if" else "for _ in range(2):"
            lines += [head, *inside]
            if form == "if" and draw(st.booleans()):
                lines += ["else:", *("    " + line for line in draw(blocks(depth=depth - 1)))]
    return lines


@given(
    lines=blocks(), given_numbers=st.tuples(*[st.integers(-9, 9)] * len(LOCALS)), reported=st.lists(local, max_size=3)
)
def test_names_that_are_united_never_carry_two_things_at_once(lines, given_numbers, reported):
    """Any program says the same with its copies united, and never gets longer; and with what is usual said first."""
    begin = [f"{one} = p{one} + 0" for one in LOCALS]
    body = ast.parse("\n".join([*begin, *lines])).body
    parameters = [f"p{one}" for one in LOCALS]
    end = ast.parse(f"def f():\n    return ({''.join(f'{one}, ' for one in reported)})").body[0].body

    def results(statements):
        made = ast.parse(f"def f({', '.join(parameters)}): pass").body[0]
        made.body = statements
        space = {}
        exec(compile(ast.fix_missing_locations(ast.Module([made], [])), "f", "exec"), space)
        return space["f"](*given_numbers)

    expected = results(
        ast.parse("def f():\n" + "\n".join(f"    {line}" for line in [*begin, *lines])).body[0].body + end
    )
    before = sum(isinstance(node, ast.stmt) for one in body for node in ast.walk(one))
    first = copy.deepcopy(body)
    usual_first(first)
    assert results([*first, *end]) == expected
    united = SimpleNamespace(parameters=parameters, body=[*body, *end])
    coalesced(united)
    assert results(united.body) == expected
    assert sum(isinstance(node, ast.stmt) for one in united.body for node in ast.walk(one)) <= before + 1


def test_a_chosen_value_is_passed_on_without_a_copy():
    body = ast.parse("a = p\nb = q\nif a > b:\n    c = a\nelse:\n    c = b + 1\na = c\nd = a\nreturn_ = d * 2").body
    united = SimpleNamespace(
        parameters=["p", "q"], body=[*body, *ast.parse("def f():\n    return return_").body[0].body]
    )
    coalesced(united)
    copies = [node for one in united.body for node in ast.walk(one) if isinstance(node, ast.Assign)]
    assert [node.value.id for node in copies if isinstance(node.value, ast.Name)] == ["p", "q"]


def test_names_read_before_written_are_found_whether_or_not_the_result_is_read():
    written = ast.parse("b = a\nb = b + c\nif d > 0:\n    a = 1").body
    assert (read_first(written, whole=True), read_first(written)) == ({"a", "c", "d"}, {"d"})
    body = ast.parse("if run > 0:\n    ran = ran * 2\nelse:\n    ran = x").body
    usual_first(body)
    assert ast.unparse(ast.Module(body, [])) == "if run > 0:\n    ran = ran * 2\nelse:\n    ran = x"


def test_arguments_of_a_function_with_effects_are_live_in_every_iteration():
    """Such a call gives nothing, or a field of a struct; what it takes is as needed as what is reported."""
    for call in ("() = g(b)", "state = g(b)"):
        chosen = "    if c > 0:\n        b = a\n    else:\n        b = h(a)"
        lines = f"a, c = f(p)\nfor part in range(3):\n{chosen}\n    {call}"
        body = ast.parse(lines).body
        for one in body[-1].body[-1].targets:
            if isinstance(one, ast.Name):
                one.id = "next.state"
        coalesced(SimpleNamespace(parameters=["p"], body=body))
        assert ast.unparse(body[0].targets[0]) == "(a, c)"
        assert "b = h(a)" in ast.unparse(body[-1])


NUMBERS = [-3.5, -1.0, -0.0, 0.0, 0.25, 1.0, 2.5, 6.75]


@pytest.mark.parametrize("kernel", ["branches", "records", "loops", "chained", "early", "row"])
@pytest.mark.parametrize("form", [0, 1, 2])
def test_each_construct_of_the_kernel_language_means_what_python_means(tmp_path, kernel, form):
    function = getattr(module_of(tmp_path / "accepted_kernels.py", ACCEPTED), kernel)
    run = folded(function, Dynamic(name("a")), Dynamic(name("b")), known(form))
    for a, b in itertools.product(NUMBERS, NUMBERS):
        expected = function(a, b, form)
        assert bits(run(a, b)) == bits(expected if isinstance(expected, tuple) else (expected,)), (a, b)


REFUSED = {
    "a list": ("return [a][0]", "List"),
    "a dict": ("return {1: a}[1]", "Dict"),
    "a comprehension": ("return sum(a for _ in range(2))", "GeneratorExp"),
    "a lambda": ("f = lambda x: x\n    return f(a)", "Lambda"),
    "an inner function": ("def f(x): return x\n    return f(a)", "FunctionDef"),
    "try": ("try:\n        return a\n    except ValueError:\n        return 0.0", "Try"),
    "raise": ("raise ValueError", "Raise"),
    "with": ("with a:\n        return a", "With"),
    "an attribute that is set": ("a.x = 1.0\n    return a", "only names are assigned to"),
    "a text": ("return 'a'", "Constant"),
    "another module": ("return os.getpid() + a", "os: kernels use math only"),
    "math that is not there": ("return math.hypotenuse(a)", "math has no hypotenuse"),
    "keywords": ("return same(a=a)", "keywords are outside the kernel language, but for _replace"),
    "an unknown field": ("return Pair(a, a)._replace(z=a).x", "Pair has no field z"),
    "something else called": ("return print(a)", "print"),
    "records compared": ("return 1.0 if Pair(a, a) == Pair(0.0, 0.0) else 0.0", "records are not compared"),
    "no end": ("if a > 0.0:\n        return a", "may end without returning anything"),
    "a bare return": ("return", "a kernel returns something"),
    "an open index": ("return (1.0, 2.0)[a]", "an index into a tuple has to be known"),
    "an open name": ("return unheard_of", "unheard_of has no value here"),
    "while with else": ("while a > 0.0:\n        a -= 1.0\n    else:\n        a = 2.0\n    return a", "while … else"),
    "a for over a tuple": ("for x in (a, a):\n        a = x\n    return a", "a for that does not go over range"),
    "an expression by itself": ("a + 1.0\n    return a", "an expression by itself does nothing"),
    "two shapes": ("b = a\n    if a > 0.0:\n        b = Pair(a, a)\n    return b", "another shape in each branch"),
    "a growing tuple": (
        "b = ()\n    for k in range(3):\n        b = (*b, a)\n    return b[0]",
        "its shape in a loop",
    ),
    "global": ("global b\n    return a", "Global"),
    "bits": ("return ~a", "outside the kernel language"),
}


@pytest.mark.parametrize("what", REFUSED)
def test_constructs_outside_the_kernel_language_are_refused_with_file_and_line(tmp_path, what):
    body, words = REFUSED[what]
    head = (
        "import math\nimport os\nfrom typing import NamedTuple\n\n\nclass Pair(NamedTuple):\n    x: float\n"
        "    y: float\n\n\ndef same(a):\n    return a\n\n\ndef kernel(a):\n    "
    )
    path = tmp_path / f"refused_{list(REFUSED).index(what)}.py"
    module = module_of(path, head + body + "\n")
    with pytest.raises(KernelError) as error:
        Folder().fold(module.kernel, [Dynamic(name("a"))])
    place, _, rest = str(error.value).partition(": in kernel kernel: ")
    found, _, line = place.rpartition(":")
    assert found == str(path)
    assert 14 <= int(line) <= 16 + body.count("\n")
    assert words in rest


# ---- where sources or caches are not at hand ----------------------------------------------------------------------


def test_without_sources_the_plain_kernels_run_and_give_the_same_numbers(beekeeper, monkeypatch):
    recording = demo_recording("beekeeper_pad").between(2.0, 6.0)
    expected = shape(recording, beekeeper, engine="interpreted")

    def missing(*_):
        raise SourceMissingError("frozen")

    monkeypatch.setattr(wendonic.compiler.ready, "_READY", {})
    monkeypatch.setattr(wendonic.compiler.ready, "_from_disk", missing)
    found = shape(recording, beekeeper, engine="auto")
    assert found.equals(expected)
    assert "plain kernels run" in Helm(beekeeper).tick_function()
    sources = mode_sources(beekeeper, "foot", None)
    assert plain(mode_tuning(beekeeper, "foot", False).tick, sample_layout(sources).sample).digest == "plain"


def run_with_cache(cache):
    """In a process of its own, so that nothing is at hand but what the cache has."""
    script = (
        "from wendonic import Helm; from wendonic.demo import demo_profile\n"
        "helm = Helm(demo_profile('tablet'), prepare='first')\n"
        "helm.touch(0, 0.2, 0.5); helm.tick(0.016); helm.touch(0, 0.3, 0.4)\n"
        "print([float(helm.tick(0.016).record[place]) for place in range(8)])"
    )
    environment = {**os.environ, "XDG_CACHE_HOME": str(cache)}
    done = subprocess.run([sys.executable, "-c", script], env=environment, capture_output=True, text=True, check=True)
    assert done.stderr == ""
    return done.stdout


@pytest.mark.long
def test_a_cache_that_is_missing_or_damaged_costs_time_and_nothing_else(tmp_path):
    """First a run that fills the cache, then a run beside each way of spoiling it."""
    cache = tmp_path / "cache"
    first = run_with_cache(cache)
    (kept,) = cache.rglob("*.json")
    content = kept.read_text()
    for spoiled in (content[: len(content) // 2], "[1, 2]", json.dumps({**json.loads(content), "text": "def make("})):
        kept.write_text(spoiled)
        assert run_with_cache(cache) == first
        assert kept.read_text() == content
    kept.unlink()
    kept.mkdir()
    assert run_with_cache(cache) == first
    (tmp_path / "file").write_text("a file where the folder would be")
    assert run_with_cache(tmp_path / "file") == first
