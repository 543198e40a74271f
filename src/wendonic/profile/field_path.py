"""Field paths, as error messages write them."""

import re
from collections.abc import Sequence

from wendonic.errors import WendonicError


def path_parts(path: str) -> list[str | int]:
    """Return the parts of a field path.

    >>> path_parts("mode.foot.move.bind[1].curve.exponent")
    ['mode', 'foot', 'move', 'bind', 1, 'curve', 'exponent']
    """
    parts: list[str | int] = []
    for word in path.split("."):
        match = re.fullmatch(r"([^\[\]]+)((?:\[\d+\])*)", word)
        if match is None:
            raise WendonicError(f"{path} is not a field path; allowed: such as mode.foot.move.bind[0].rise_s")
        parts.append(match[1])
        parts += [int(index) for index in re.findall(r"\[(\d+)\]", match[2])]
    return parts


def dotted(path: Sequence[str | int]) -> str:
    """Return a path the way a programmer writes it.

    >>> dotted(["mode", "foot", "move", "bind", 1, "curve"])
    'mode.foot.move.bind[1].curve'
    """
    return "".join(f"[{part}]" if isinstance(part, int) else f".{part}" for part in path).removeprefix(".")
