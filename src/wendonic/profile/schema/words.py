"""The words of a field, each defined once: its name, its integer, its fields, its sentence."""

from collections.abc import Iterator
from typing import Any, NamedTuple

from pydantic import GetCoreSchemaHandler
from pydantic_core import CoreSchema, core_schema


class Word(NamedTuple):
    """One word: what `info` says where a profile has it, with fields of its table, or the `table`, in braces; the
    integer that the kernels know it by, -1 where they never see it; the fields that go with it and not with every
    other word; how it is tried, where probes try it; and what it does, in one sentence of the reference.
    """

    name: str
    sentence: str
    number: int = -1
    fields: tuple[str, ...] = ()
    trial: tuple[Any, ...] = ()
    meaning: str = ""


class Words:
    """All words of one field; as the metadata of an annotated `str` they are what pydantic allows there.

    >>> gates = Words(Word("circle", "", 0), Word("measured", "{gate} gate", 2, ("rim",)))
    >>> gates.number("measured"), list(gates), list(gates.out_of_place("circle"))
    (2, ['circle', 'measured'], [('rim', ['measured'])])
    """

    def __init__(self, *words: Word) -> None:
        """Take the words, in the order in which they are shown."""
        self._words = {word.name: word for word in words}

    def __getitem__(self, name: str) -> Word:
        """Return a word by its name."""
        return self._words[name]

    def __iter__(self) -> Iterator[str]:
        """Go through the names."""
        return iter(self._words)

    def number(self, name: str) -> int:
        """Return the integer by which the kernels know a word."""
        return self._words[name].number

    def sentence(self, name: str, table: Any = None) -> str:
        """Return what `info` says of a word, with the numbers of a table filled in."""
        values = {} if table is None else {field: getattr(table, field) for field in type(table).model_fields}
        return self._words[name].sentence.format(**values, table=table)

    def out_of_place(self, name: str) -> Iterator[tuple[str, list[str]]]:
        """Yield the fields without effect under a word, each with the words to which it belongs."""
        fields = dict.fromkeys(field for word in self._words.values() for field in word.fields)
        for field in fields:
            if field not in self._words[name].fields:
                yield field, [word.name for word in self._words.values() if field in word.fields]

    def __get_pydantic_core_schema__(self, _source: Any, _handler: GetCoreSchemaHandler) -> CoreSchema:
        """Allow these words and no others."""
        return core_schema.literal_schema(list(self._words))
