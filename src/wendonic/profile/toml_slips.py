"""Explains common slips in TOML files."""

import re
from collections.abc import Callable

_MEANT = {"true": "true", "yes": "true", "on": "true", "false": "false", "no": "false", "off": "false"}
_CURLY = "\u2018\u2019\u201c\u201d"
_VALUE = r"[=\[,]\s*\0"
_NUMBER = r"(?:^|[=\[,\s])(?P<number>[+-]?[0-9][0-9_]*(?:\.[0-9]+)?)"

_SLIPS: tuple[tuple[str, Callable[[re.Match[str]], str]], ...] = (
    (
        rf"{_VALUE}(?P<word>[+-]?\.[0-9][^\s,\]}}#]*)",
        lambda slip: f'found "{slip["word"]}"; a number begins with a digit: {slip["word"].replace(".", "0.", 1)}',
    ),
    (
        rf"(?i){_VALUE}(?P<word>{'|'.join(_MEANT)})\b",
        lambda slip: f'found "{slip["word"]}"; allowed: {_MEANT[slip["word"].lower()]}',
    ),
    (
        rf"(?i){_VALUE}(?P<word>none|null|nil)\b",
        lambda slip: f'found "{slip["word"]}"; TOML has no such value; leave the key out',
    ),
    (rf"{_VALUE}\s*(#|$)", lambda _: "a key without a value"),
    (
        rf"{_VALUE}[{_CURLY}](?P<word>[^{_CURLY}]*)",
        lambda slip: f'quotes are straight: "{slip["word"]}"',
    ),
    (
        rf"{_VALUE}(?P<word>[A-Za-z][^\s,\]}}#=]*)",
        lambda slip: f'found "{slip["word"]}"; text goes in quotes: "{slip["word"]}"',
    ),
    (r"\0\s*//", lambda _: 'found "//"; a comment begins with "#"'),
    (r"\0\s*;", lambda _: 'found ";"; lines need none'),
    (r"[\w\"'-]\s*\0\s*:", lambda _: 'found ":"; a key and its value are joined by "="'),
    (r"\0\s*[\w\"'.-]+\s*=", lambda _: "two settings on one line; each needs a line of its own"),
    (
        rf"{_NUMBER}\0\.(?![0-9])",
        lambda slip: f'found "{slip["number"]}."; a number ends with a digit: {slip["number"]}.0',
    ),
    (
        rf"^[^\[]*{_NUMBER}\0,\s*(?P<word>[0-9]+)\s*(#|$)",
        lambda slip: f"decimals take a point: {slip['number']}.{slip['word']}",
    ),
    (
        rf"{_NUMBER}\0(?P<word>[0-9][0-9.]*)",
        lambda slip: f'found "{slip["number"]}{slip["word"]}"; numbers do not begin with 0',
    ),
    (
        rf"{_NUMBER}\s*\0\s*(?P<word>[A-Za-z%°µ][^\s,\]}}#=]*)",
        lambda slip: f'found "{slip["number"]}{slip["word"]}"; the unit belongs in the name of the key',
    ),
    (r",\s*\0}", lambda _: 'found ", }"; no comma after the last one'),
    (r"\{[^}]*\0$", lambda _: '"}" is missing; what is in braces ends on the same line'),
    (r"^\s*(?P<word>\[[^\]]*)\0$", lambda slip: f'"]" is missing: {slip["word"]}]'),
    (r"""=\s*["'][^"']*\0$""", lambda _: "the closing quote is missing"),
)
"""Text before and (after a NUL) at the position of a parser's error, and the message for it."""


def toml_slip(text: str, line: int, column: int, parser_message: str) -> str:
    """Return what is wrong at a line and column (both from 1) of a TOML text and what was meant, or the parser's own
    message.

    >>> toml_slip("inner = .2", 1, 9, "Invalid value")
    'found ".2"; a number begins with a digit: 0.2'
    >>> toml_slip("inner = [0.1, 0.2 0.3]", 1, 19, "Unclosed array")
    'Unclosed array'
    """
    lines = text.splitlines()
    if not 1 <= line <= len(lines):
        return parser_message
    row = lines[line - 1]
    what = row.partition("=")[0].strip()
    # The parser looks up a table before it notices the missing bracket.
    closed = "]" in what or not what.startswith("[")
    if closed and ("twice" in parser_message or "overwrite" in parser_message):
        return f"{what} is written twice; {'put both into one' if what.startswith('[') else 'keep one'}"
    split = f"{row[: column - 1]}\0{row[column - 1 :]}"
    found = ((re.search(pattern, split), words) for pattern, words in _SLIPS)
    return next((words(slip) for slip, words in found if slip), parser_message)
