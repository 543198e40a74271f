"""Field paths, as error messages write them."""

import re
from collections.abc import Sequence

from wendonic.errors import WendonicError

SEPARATES = ".[]=,\"'"
"""Characters with a meaning in paths and lists of paths; no name contains one."""

_WORD = re.compile(r"""(?:"([^"]+)"|'([^']+)'|([^.\[\]"']+))((?:\[\d+\])*)(\.(?!$)|$)""")


def path_parts(path: str) -> list[str | int]:
    """Return the parts of a field path; a name may be quoted, as in TOML.

    >>> path_parts("mode.foot.move.bind[1].curve.exponent")
    ['mode', 'foot', 'move', 'bind', 1, 'curve', 'exponent']
    >>> path_parts('gait."run uphill".accel_m_s2')
    ['gait', 'run uphill', 'accel_m_s2']
    """
    parts: list[str | int] = []
    place = 0
    while place < len(path) or not parts:
        match = _WORD.match(path, place)
        if match is None:
            raise WendonicError(f"{path} is not a field path; allowed: such as mode.foot.move.bind[0].rise_s")
        parts.append(match[1] or match[2] or match[3])
        parts += [int(index) for index in re.findall(r"\[(\d+)\]", match[4])]
        place = match.end()
    return parts


def dotted(path: Sequence[str | int]) -> str:
    """Return a path as a programmer writes it.

    >>> dotted(["mode", "foot", "move", "bind", 1, "curve"])
    'mode.foot.move.bind[1].curve'
    """
    return "".join(f"[{part}]" if isinstance(part, int) else f".{part}" for part in path).removeprefix(".")


def no_step(found: object, above: Sequence[str | int], part: str | int, path: str) -> WendonicError:
    """Return the error for a path that leads past the end of a list, or into a value.

    >>> print(no_step(["a", "b"], ["mode", "foot", "move", "bind"], 7, "mode.foot.move.bind[7].gate"))
    mode.foot.move.bind[7].gate does not exist; allowed: mode.foot.move.bind[0] to [1]
    """
    name = dotted(above)
    if not isinstance(found, list | tuple):
        kind = "a list" if isinstance(part, int) else "a table"
        return WendonicError(f"{path} does not exist: {name} is not {kind}")
    entries = f"{name}[0]" + (f" to [{len(found) - 1}]" if len(found) > 1 else "") if found else "none yet"
    kind = "" if isinstance(part, int) else f": {name} is a list"
    return WendonicError(f"{path} does not exist{kind}; allowed: {entries}")
