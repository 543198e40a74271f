"""The shipped profiles leave no form of shaping out."""

from typing import Literal, get_args, get_origin

from wendonic.demo import RECORDINGS, demo_profile
from wendonic.profile import binds, channels, look_binds, move_binds, shapes, steer
from wendonic.profile.binds import Bind
from wendonic.profile.table import Table

OF_MODULES = [*vars(shapes).values(), *vars(look_binds).values(), *vars(steer).values()]
SHAPING = [
    *(
        model
        for model in OF_MODULES
        if isinstance(model, type) and issubclass(model, Table) and model not in (Table, Bind)
    ),
    *(binds.Ramped, binds.Tilted, binds.Centred, move_binds.KeysBind, move_binds.StickBind, move_binds.HandsBind),
    *(channels.Move, channels.Pace, channels.OneEuro, channels.LookTable, channels.Zoom),
]


def tables_in(value):
    """Go through every table within a profile."""
    if isinstance(value, Table):
        yield value
        for name in type(value).model_fields:
            yield from tables_in(getattr(value, name))
    elif isinstance(value, dict | tuple):
        for part in value.values() if isinstance(value, dict) else value:
            yield from tables_in(part)


def test_the_shipped_profiles_have_every_form_and_every_number_of_shaping_at_least_once():
    """Each field is written somewhere, and each word that a field may be is there."""
    written, words = set(), set()
    for name in dict.fromkeys(RECORDINGS.values()):
        for table in tables_in(demo_profile(name)):
            for model in type(table).__mro__:
                written |= {(model.__name__, field) for field in table.model_fields_set}
            values = {field: getattr(table, field) for field in type(table).model_fields}
            words |= {(field, value) for field, value in values.items() if isinstance(value, str | int)}
    missing = []
    for model in SHAPING:
        for field in vars(model).get("__annotations__", {}):
            info = model.model_fields.get(field)
            if info is None:
                continue
            if (model.__name__, field) not in written:
                missing.append(f"{model.__name__}.{field}")
            for option in get_args(info.annotation) if get_origin(info.annotation) is Literal else ():
                if (field, option) not in words:
                    missing.append(f"{model.__name__}.{field} = {option}")
    assert missing == [], "\n".join(missing)
