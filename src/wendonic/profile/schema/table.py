"""The base of all tables of a profile, and the declaration of fields."""

import functools
from collections.abc import Iterable, Iterator
from typing import Any, ClassVar, Literal, Self, get_args

from pydantic import BaseModel, ConfigDict, Field, ModelWrapValidatorHandler, PrivateAttr, model_validator
from pydantic.fields import FieldInfo
from pydantic_core import PydanticCustomError

from wendonic.profile.schema.words import Words

OWN_WORDS: Literal["own_words"] = "own_words"
"""Type of errors with messages of ours, in `words` of their context."""

OWN_FAULTS: Literal["own_faults"] = "own_faults"
"""The same, with a line for each fault that begins with its field path."""


LEAST_NUMBER = 1e-9
"""No length, time or share of a game is smaller, except 0."""


def goes_with_words(field: str, word: str, goes_with: Iterable[str]) -> str:
    """Return the words of a field with which something belongs that has no effect under this one.

    >>> goes_with_words("form", "none", ["round", "axes"])
    'does nothing under form "none"; it goes with form "round", "axes"'
    """
    allowed = ", ".join(f'"{other}"' for other in goes_with)
    return f'does nothing under {field} "{word}"; it goes with {field} {allowed}'


def own_fault(words: str) -> PydanticCustomError:
    """Return an error with a message of ours."""
    return PydanticCustomError(OWN_WORDS, "{words}", {"words": words})


def own_faults(faults: list[tuple[str, str]]) -> PydanticCustomError:
    """Return an error of several faults: (field path from the table's own, words) each."""
    return PydanticCustomError(OWN_FAULTS, "{words}", {"words": "\n".join(map(": ".join, faults))})


def entry(
    description: str, default: Any = ..., *, example: Any = None, unit: str = "", otherwise: str = "", **limits: Any
) -> Any:
    """Declare a field: what it does to the feel, its default, and its limits, as pydantic's `Field` has them.

    `unit` is for fields whose names end in none. An `example` is for fields whose default is none; where the default
    is None, `otherwise` says what counts then.
    """
    shown = default if example is None else example
    return Field(
        default,
        description=description,
        examples=[shown],
        json_schema_extra={"unit": unit, "otherwise": otherwise},
        **limits,
    )


def marks_of(field: FieldInfo) -> Iterator[Any]:
    """Yield all annotations of a field, anywhere within its type: limits, words."""
    yield from field.metadata
    yield from _marks(field.annotation)


def _marks(kind: Any) -> Iterator[Any]:
    for part in get_args(kind):
        if isinstance(part, FieldInfo):
            yield from part.metadata
        else:
            yield part
            yield from _marks(part)


class Table(BaseModel):
    """A table of the file: unknown keys are errors, numbers are finite, nothing changes after loading."""

    # Built when first needed, since most tables are only used as a part of another one.
    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, allow_inf_nan=False, defer_build=True)

    refers_by_name: ClassVar[bool] = False
    """Whether tables within it refer to each other by name."""

    _idle: tuple[tuple[str, str], ...] = PrivateAttr(())

    @model_validator(mode="after")
    def _idle_fields_at_rest(self) -> Self:
        """Reset fields without effect to their defaults, so that a word can be tried without removing them."""
        found = tuple(self.idle_fields())
        if found:
            self._idle += found
            for path, _ in found:
                name, _, part = path.partition(".")
                if part:
                    inner: Table = getattr(self, name)
                    self.__dict__[name] = inner.model_copy(update={part: inner.at_rest(part)})
                else:
                    self.__dict__[name] = self.at_rest(name)
                    self.model_fields_set.discard(name)
        return self

    def at_rest(self, name: str) -> Any:
        """Return the value of a field without effect: its default."""
        return type(self).model_fields[name].default

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why: those that belong to other words."""
        for field, words in _word_fields(type(self)):
            word = getattr(self, field)
            for name, goes_with in words.out_of_place(word):
                if name in self.model_fields_set:
                    yield name, goes_with_words(field, word, goes_with)

    @property
    def idle(self) -> tuple[tuple[str, str], ...]:
        """The fields that were written but have no effect, by their path from here, and why; `check` reports them."""
        return self._idle

    @model_validator(mode="after")
    def _no_number_is_mere_rounding(self) -> Self:
        """Refuse numbers so small that dividing by them overflows."""
        tiny = [
            name
            for name in type(self).model_fields
            if isinstance(value := getattr(self, name), float) and 0.0 < abs(value) < LEAST_NUMBER
        ]
        if tiny:
            raise own_faults(
                [(name, f"found {getattr(self, name)!r}; allowed: {_least(type(self), name)}") for name in tiny]
            )
        return self

    def uses(self, name: str) -> bool:
        """Return whether a field has an effect under the chosen words."""
        return all(
            name not in dict(words.out_of_place(getattr(self, field))) for field, words in _word_fields(type(self))
        )


def _least(table: type[Table], name: str) -> str:
    above_zero = any(getattr(mark, "gt", None) is not None for mark in marks_of(table.model_fields[name]))
    return f"{'' if above_zero else '0, or '}{LEAST_NUMBER:g} and more"


def idle_settings(value: Any, path: tuple[str | int, ...] = ()) -> Iterator[tuple[tuple[str | int, ...], str]]:
    """Yield everything that is written in a table, or in those within it, but has no effect: its path, and why."""
    if isinstance(value, Table):
        for name, words in value.idle:
            yield (*path, *name.split(".")), words
        for name in type(value).model_fields:
            yield from idle_settings(getattr(value, name), (*path, name))
    elif isinstance(value, dict):
        for name, part in value.items():
            yield from idle_settings(part, (*path, name))
    elif isinstance(value, tuple):
        for index, part in enumerate(value):
            yield from idle_settings(part, (*path, index))


class Choice(Table):
    """A table that is one of several, chosen by a word of its own such as `form`: what belongs to another of them is
    no unknown key but does nothing, so that the word can be changed and changed back.
    """

    chosen_by: ClassVar[str]
    """The field that holds the word."""

    number: ClassVar[int]
    """The integer by which the kernels know the word."""

    @model_validator(mode="wrap")
    @classmethod
    def _fields_of_others_aside(cls, content: Any, validate: ModelWrapValidatorHandler[Self]) -> Self:
        aside = {}
        if isinstance(content, dict):
            others = fields_of_others(cls)
            # In a fixed order, whatever that of the file, so that profiles with the same content are equal.
            aside = {name: words for name, words in others.items() if name in content}
            if aside:
                content = {name: value for name, value in content.items() if name not in aside}
        table = validate(content)
        if aside:
            field = cls.chosen_by
            table._idle += tuple(
                (name, goes_with_words(field, getattr(table, field), goes_with)) for name, goes_with in aside.items()
            )
        return table


@functools.cache
def fields_of_others(table: type[Choice]) -> dict[str, list[str]]:
    """Return the fields that a table lacks but others of its family have, each with the words of those."""
    found: dict[str, list[str]] = {}
    for other in _family(table):
        for name in other.model_fields:
            if name not in table.model_fields:
                found.setdefault(name, []).append(_word(other))
    return found


def words_of_family(table: type[Choice]) -> list[str]:
    """Return the words by which a table and the others of its family are chosen, in the order of their integers."""
    return [_word(other) for other in sorted(_family(table), key=lambda other: other.number)]


def _word(table: type[Choice]) -> str:
    word: str = get_args(table.model_fields[table.chosen_by].annotation)[0]
    return word


def _family(table: type[Choice]) -> list[type[Any]]:
    return list(_leaves(table.__mro__[table.__mro__.index(Choice) - 1]))


def _leaves(table: type[Any]) -> Iterator[type[Any]]:
    below = table.__subclasses__()
    if not below:
        yield table
    for one in below:
        yield from _leaves(one)


@functools.cache
def _word_fields(table: type[Table]) -> list[tuple[str, Words]]:
    """Return the fields of a table whose words include some with fields of their own."""
    found = [
        (name, mark)
        for name, field in table.model_fields.items()
        for mark in field.metadata
        if isinstance(mark, Words)
    ]
    return [(name, words) for name, words in found if any(words[word].fields for word in words)]
