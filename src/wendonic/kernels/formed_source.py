"""Steps 1 to 4 for a source of any form, before the tick: its numbers come into the sample shaped."""

from typing import NamedTuple

from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.stick import StickForm, formed

FORM_STICK = 0
FORM_AXES = 1


class FormTuning(NamedTuple):
    """The numbers of one such source."""

    kind: int
    inner: float
    outer: float
    curve_form: int
    curve_exponent: float
    form: StickForm


class FormState(NamedTuple):
    """What a source came to: shaped, then raw; right and ahead."""

    x: float
    y: float
    raw_x: float
    raw_y: float


FORM_AT_REST = FormState(0.0, 0.0, 0.0, 0.0)


@kernel
def formed_source(tuning: FormTuning, tables: Row, state: FormState, raw_x: float, raw_y: float) -> FormState:
    """Return the new state of a stick in any form, or of axes, each by itself.

    `tables` holds what is of any length: measured rims and curves through points. With raw numbers that have not
    changed the state stays; so it goes with one tuning.

    >>> from wendonic.kernels.stick import USUAL_FORM
    >>> axes = FormTuning(FORM_AXES, 0.0, 0.5, 0, 1.0, USUAL_FORM)
    >>> formed_source(axes, (), FORM_AT_REST, 0.25, -0.5)[:2]
    (0.5, -1.0)
    """
    kind, inner, outer, curve_form, exponent, form = tuning
    was_x, was_y, was_raw_x, was_raw_y = state
    if raw_x == was_raw_x and raw_y == was_raw_y:
        return state
    if kind == FORM_AXES:
        x, _ = formed(raw_x, 0.0, inner, outer, curve_form, exponent, form, 1 if was_x != 0.0 else 0, tables)
        _, y = formed(0.0, raw_y, inner, outer, curve_form, exponent, form, 1 if was_y != 0.0 else 0, tables)
        return FormState(x, y, raw_x, raw_y)
    was_out = 1 if was_x != 0.0 or was_y != 0.0 else 0
    x, y = formed(raw_x, raw_y, inner, outer, curve_form, exponent, form, was_out, tables)
    return FormState(x, y, raw_x, raw_y)
