"""What every table of a profile has in common, and how its fields are declared."""

import functools
from typing import Any, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from wendonic.profile.schema.words import Words

OWN_WORDS: Literal["own_words"] = "own_words"
"""Type of those errors whose words are said here, as `words` of their context."""

OWN_FAULTS: Literal["own_faults"] = "own_faults"
"""The same, with a line for each fault that begins with its field path."""


LEAST_NUMBER = 1e-9
"""No length, time or share of a game is smaller, but for 0."""


def own_fault(words: str) -> PydanticCustomError:
    """Return an error of one's own words."""
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


class Table(BaseModel):
    """A table of the file: unknown keys are errors, numbers are finite, nothing changes after loading."""

    # Built when it is first needed: most tables only ever are as a part of another one.
    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, allow_inf_nan=False, defer_build=True)

    @model_validator(mode="after")
    def _fields_go_with_their_words(self) -> Self:
        """Refuse a field that does nothing under the word that is chosen."""
        wrong: list[tuple[str, str]] = []
        for field, words in _word_fields(type(self)):
            word = getattr(self, field)
            for name, goes_with in words.out_of_place(word):
                if name in self.model_fields_set:
                    allowed = ", ".join(f'"{other}"' for other in goes_with)
                    wrong.append((name, f'does nothing under {field} "{word}"; it goes with {field} {allowed}'))
        if wrong:
            raise own_faults(wrong)
        return self

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
                [(name, f"found {getattr(self, name)!r}; allowed: 0, or {LEAST_NUMBER:g} and more") for name in tiny]
            )
        return self

    def uses(self, name: str) -> bool:
        """Return whether a field does anything under the words that are chosen."""
        return all(
            name not in dict(words.out_of_place(getattr(self, field))) for field, words in _word_fields(type(self))
        )


@functools.cache
def _word_fields(table: type[Table]) -> list[tuple[str, Words]]:
    """Return the fields of a table that hold words of which some have fields of their own."""
    found = [
        (name, mark)
        for name, field in table.model_fields.items()
        for mark in field.metadata
        if isinstance(mark, Words)
    ]
    return [(name, words) for name, words in found if any(words[word].fields for word in words)]
