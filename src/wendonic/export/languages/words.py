"""Comments that every language has: about the file, and about numbers."""

from collections.abc import Mapping

from wendonic.compiler.trees import names_in
from wendonic.export.naming import in_comment
from wendonic.export.package import Crossing, Package
from wendonic.export.program import ModeProgram, Number


def entered_from(crossing: Crossing) -> str:
    """Return which modes can be entered from which."""
    return f'mode "{in_comment(crossing.new)}", entered from "{in_comment(crossing.old)}"'


def about(package: Package) -> str:
    """Return the first lines of every file."""
    return (
        f"{in_comment(package.title)}. Exported by Wendonic {package.version} from "
        f"{in_comment(package.profile_name)}; "
        "export it again rather than change it here. Angles are in radians, clockwise from forward as seen from "
        "above; places are in metres: right, forward, up."
    )


def course_words(package: Package) -> str:
    """Return the comment on the course that is written with the source."""
    return "The course that was given." if package.course else "Level ground; export with --course FILE for another."


def earlier_of(program: ModeProgram) -> bool:
    """Return whether joining two parts of a hitch needs the results of the first."""
    return any(part.id.startswith("earlier.") for part in names_in(program.joined))


def extra_parts(program: ModeProgram) -> list[str]:
    """Return what a game passes to each tick besides raw inputs: adjustable numbers, and a course of its own."""
    return [part for part in ("settings", "course") if part in program.tick.context]


def handed_parts(program: ModeProgram, words: Mapping[str, str]) -> list[str]:
    """Return the arguments of the function of one tick, with their names in a language."""
    handed = [words.get(part, part) for part in program.tick.context if part != "tables"]
    return [*handed, "dt"] if "dt" in program.tick.parameters else handed


def adjustable(program: ModeProgram) -> list[Number]:
    """Return the numbers that stay adjustable."""
    return [number for number in program.numbers if number.adjustable]


def number_words(number: Number) -> str:
    """Return the comment on a number: its unit, and its place in the profile."""
    places = " and ".join(number.paths)
    said = f"{number.law.replace('it', places)}" if number.law and number.law != "made from it" else places
    if number.law == "made from it" or len(number.paths) > 1:
        said = f"from {places}"
    return in_comment(", ".join(part for part in (number.unit, said or "not set in the profile") if part))
