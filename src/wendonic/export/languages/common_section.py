"""The functions that several modes share, printed once, before the modes."""

from collections.abc import Callable, Sequence
from typing import TypeVar

from wendonic.export.languages.printer import Printer
from wendonic.export.package import Package
from wendonic.export.program import Function

HEADING = "Shared by several modes."

AnyPrinter = TypeVar("AnyPrinter", bound=Printer)


def common_section(
    package: Package,
    printer_of: Callable[[Sequence[Function]], AnyPrinter],
    printed: Callable[[AnyPrinter, Function], list[str]],
    blank: int = 1,
) -> tuple[list[str], set[str]]:
    """Return the lines, none if modes share no function, and the helpers and constants that they use; `blank` is the
    number of empty lines below the heading.
    """
    lines: list[str] = []
    used: set[str] = set()
    for function, others in package.common:
        printer = printer_of(others)
        if not lines:
            first, _, last = printer.remark
            lines += [f"{first}{HEADING}{last}", *[""] * blank]
        lines += printed(printer, function)
        used |= printer.used
    return lines, used
