"""What exported source says once, where both sides of a branch or two lines in a row said it."""

import ast

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic.export.said_once import common_first, drop_again

NAMES = ("a", "b", "c", "d")
values = st.sampled_from(["0.0", "1.0", *NAMES])
assignments = st.builds("{} = {}".format, st.sampled_from(NAMES), st.one_of(values, st.just("a + 1.0")))


def indented(lines):
    return "\n".join(f"    {line}" for line in "\n".join(lines).splitlines()) or "    pass"


@st.composite
def branches(draw, inside):
    sides = [indented(draw(st.lists(inside, min_size=1, max_size=4))) for _ in range(2)]
    test = f"{draw(st.sampled_from(NAMES))} > {draw(st.sampled_from(NAMES))}"
    if draw(st.integers(0, 5)) == 0:
        return f"while {test}:\n{sides[0]}\n    a = a - 9.0\n    b = b + 9.0\n    c = c - 9.0\n    d = 0.0\n    break"
    return f"if {test}:\n{sides[0]}\nelse:\n{sides[1]}"


programs = st.lists(st.one_of(assignments, branches(st.one_of(assignments, branches(assignments)))), max_size=6)


def shortened(text):
    body = ast.parse(text).body
    common_first(body)
    drop_again(body, {}, ())
    for node in ast.walk(ast.Module(body, [])):
        if isinstance(node, ast.If | ast.While) and not node.body:
            node.body = [ast.Pass()]
    return ast.unparse(ast.fix_missing_locations(ast.Module(body, [])))


@given(program=programs, start=st.tuples(*[st.sampled_from([0.0, 1.0, 2.0, 3.0])] * 4))
def test_it_comes_to_the_same(program, start):
    text = "\n".join(program)
    before, after = dict(zip(NAMES, start, strict=True)), dict(zip(NAMES, start, strict=True))
    exec(text, {}, before)
    exec(shortened(text), {}, after)
    assert after == before


@pytest.mark.parametrize(
    ("said", "once"),
    [
        ("if t:\n    x = 0.0\n    y = 1.0\nelse:\n    x = 0.0\n    y = 2.0", "x = 0.0|if t:|y = 1.0|else:|y = 2.0"),
        ("if x:\n    x = 0.0\n    y = 1.0\nelse:\n    x = 0.0", "if x:|x = 0.0|y = 1.0|else:|x = 0.0"),
        ("x = 0.0\nif t:\n    x = 0.0\n    y = x", "x = 0.0|if t:|y = x"),
        ("x = 0.0\ny = f(x)\nx = 0.0", "x = 0.0|y = f(x)"),
        ("x = 0.0\nwhile t:\n    x = 0.0\n    x = x + 1.0", "x = 0.0|while t:|x = 0.0|x = x + 1.0"),
    ],
)
def test_what_is_said_once(said, once):
    assert "|".join(line.strip() for line in shortened(said).splitlines()) == once


def test_called_functions_may_write_fields():
    """A name with a dot is a field of a struct, as source in trees has it."""
    field = ast.Name("state.held", ast.Store())
    call = ast.parse("_press(dt)").body[0].value
    body = [
        ast.Assign([field], ast.Constant(0.0)),
        ast.Assign([ast.Name("x", ast.Store())], call),
        ast.Assign([field], ast.Constant(0.0)),
    ]
    harmless = list(body)
    drop_again(harmless, {}, {"_move"})
    assert len(harmless) == 2
    drop_again(body, {}, {"_press"})
    assert len(body) == 3
    called_first = ast.If(ast.Name("t", ast.Load()), [body[1], body[2]], [body[0]])
    whole = [called_first]
    common_first(whole)
    assert whole == [called_first]
