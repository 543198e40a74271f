"""Some of many cases in the suite, the others when there is time: `pytest -m long`."""

import pytest


def few_of(cases, kept):
    """Mark as long what is not among the kept cases."""
    assert all(case in cases for case in kept)
    return [
        case if case in kept else pytest.param(*(case if type(case) is tuple else (case,)), marks=pytest.mark.long)
        for case in cases
    ]
