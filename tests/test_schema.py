"""Every field and every word of a profile and a course is described, and shown in a shipped file."""

import ast
import inspect
import re
from pathlib import Path
from typing import Literal, get_args, get_origin

import pytest
from pydantic import create_model

import wendonic.kernels
from wendonic.course.course import Course
from wendonic.demo import COURSES, RECORDINGS, demo_course, demo_profile
from wendonic.profile.schema.field_words import field_words
from wendonic.profile.schema.move_binds import HandsBind, KeysBind, StickBind
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.table import Table
from wendonic.profile.schema.words import Words


def tables_of(kind, found):
    """Go through every table that an annotation may hold."""
    if isinstance(kind, type) and issubclass(kind, Table):
        if kind not in found:
            found.append(kind)
            for field in kind.model_fields.values():
                tables_of(field.annotation, found)
    else:
        for part in get_args(kind):
            tables_of(part, found)
    return found


TABLES = tables_of(Profile, tables_of(Course, []))
WORDS = {
    (table, name): mark
    for table in TABLES
    for name, field in table.model_fields.items()
    for mark in field.metadata
    if isinstance(mark, Words)
}
FORMS = [table for table in TABLES if hasattr(table, "number")]
KERNELS = {
    node.value.value
    for path in Path(wendonic.kernels.__file__).parent.rglob("*.py")
    for node in ast.parse(path.read_text()).body
    if isinstance(node, ast.Assign) and isinstance(node.value, ast.Constant) and isinstance(node.value.value, int)
}


def tables_in(value):
    """Go through every table within a profile or a course."""
    if isinstance(value, Table):
        yield value
        for name in type(value).model_fields:
            yield from tables_in(getattr(value, name))
    elif isinstance(value, dict | tuple):
        for part in value.values() if isinstance(value, dict) else value:
            yield from tables_in(part)


SHIPPED = [
    table
    for whole in (*map(demo_profile, dict.fromkeys(RECORDINGS.values())), *map(demo_course, COURSES))
    for table in tables_in(whole)
]


@pytest.mark.parametrize("table", TABLES, ids=lambda table: table.__name__)
def test_every_field_is_described(table):
    for words in field_words(table):
        field = table.model_fields[words.name]
        assert re.fullmatch(r"[A-Z].{8,199}\.", words.description), words
        assert words.required or words.default, words
        assert words.example, words
        if {field.annotation, *get_args(field.annotation)} & {int, float}:
            assert words.unit, words
            assert words.range or words.name in FREE, words
        # The example is one that a file may hold.
        create_model("One", __config__=Table.model_config, one=(field.annotation, field))(one=field.examples[0])


FREE = {"min", "max", "left_m", "right_m", "back_m", "forward_m", "version", "sectors"}
"""Numbers that may be any."""


@pytest.mark.parametrize(("table", "field"), WORDS, ids=lambda part: getattr(part, "__name__", part))
def test_every_word_has_its_integer_its_fields_its_sentence_and_a_demo(table, field):
    words = WORDS[table, field]
    numbers = [words.number(name) for name in words]
    assert len(set(numbers)) == len(numbers) or set(numbers) == {-1}
    assert set(numbers) <= KERNELS | {-1}
    filled = table.model_construct(**dict.fromkeys(table.model_fields, 0.5))
    sentences = [words.sentence(name, filled) for name in words]
    assert len(set(sentences)) == len(sentences)
    assert "{" not in "".join(sentences)
    for name in words:
        assert set(words[name].fields) <= set(table.model_fields)
        shown = [other for other in SHIPPED if field in type(other).model_fields and getattr(other, field) == name]
        assert any(words in type(other).model_fields[field].metadata for other in shown), f"no demo of {field} {name}"


@pytest.mark.parametrize("table", FORMS, ids=lambda table: table.__name__)
def test_every_form_that_is_a_table_has_its_integer_its_sentence_and_a_demo(table):
    of_its_kind = [other for other in FORMS if other.__mro__[-5:] == table.__mro__[-5:]]
    assert table.number in KERNELS
    shown = [found for found in SHIPPED if type(found) is table]
    assert shown, f"no demo of {table.__name__}"
    assert len({found.sentence() for found in shown}) >= 1
    assert len({other.number for other in of_its_kind}) == len(of_its_kind)
    assert inspect.getdoc(table)


SHAPING = [
    table
    for table in TABLES
    if re.search(r"schema\.(dead_zone|curve|tilted|keyed|look|look_binds|move|steer\..*)$", table.__module__)
    or table in (KeysBind, StickBind, HandsBind)
]


def test_the_shipped_profiles_write_every_field_and_every_choice_of_shaping():
    written = {(kind, name) for found in SHIPPED for kind in type(found).__mro__ for name in found.model_fields_set}
    missing = []
    for table in SHAPING:
        for name in table.__annotations__.keys() & table.model_fields.keys():
            if not any((kind, name) in written for kind in TABLES if issubclass(kind, table)):
                missing.append(f"{table.__name__}.{name}")
            if get_origin(table.model_fields[name].annotation) is Literal:
                shown = {getattr(found, name) for found in SHIPPED if isinstance(found, table)}
                missing += [
                    f"{table.__name__}.{name} = {option}"
                    for option in get_args(table.model_fields[name].annotation)
                    if option not in shown
                ]
    assert missing == []
