"""`wendonic fields`: the fields of profiles and courses."""

from typing import Annotated

import typer

from wendonic.cli.say import say


def fields(
    path: Annotated[
        str | None,
        typer.Argument(
            metavar="PATH",
            help="A field or table: its path, or the end of one, such as dead_zone, mode.foot.look or gait.walk; "
            "or profile, or course: all tables of one.",
        ),
    ] = None,
) -> None:
    """List the fields of profiles and courses, with unit, range, default and what each does."""
    from wendonic.cli.definitions import say_definitions
    from wendonic.cli.show_fields import show_found
    from wendonic.course.course import Course
    from wendonic.profile.schema.profile import Profile
    from wendonic.reference.find_fields import find_fields
    from wendonic.reference.tables import groups_of

    roots = {"profile": Profile, "course": Course}
    if path is not None and path not in roots:
        show_found(find_fields(path))
        return
    for kind, root in roots.items() if path is None else [(path, roots[path])]:
        say(f"Tables of a {kind}; NAME is a name of your own, [] an entry of a list:")
        say_definitions((group.place or "top of the file", group.summary) for group in groups_of(root))
        say()
    say(f"The fields of one of them: wendonic fields {'wall' if path == 'course' else 'dead_zone'}")
