"""Comments about kernels in printed source: over functions, or over inlined steps."""

import inspect
import re

from wendonic.compiler.steps import Step

WITHOUT_WORDS = ("length3", "plus3", "times3")
"""Kernels that need no comment when they are inlined."""


def kernel_words(docstring: str) -> str:
    """Return what a kernel does and its formula, in one line, without references to other kernels.

    >>> kernel_words("Return the height (m), see `fallen`.\\n\\n    It never falls below the ground.")
    'Return the height (m).'
    """
    paragraphs = re.split(r"\n\s*\n|\n\s*>>>", inspect.cleandoc(docstring))
    kept = [paragraphs[0], *(one for one in paragraphs[1:] if one.startswith("Formula"))]
    return re.sub(r"[,;:]? see `[^`]+`| \(see `[^`]+`\)", "", " ".join(" ".join(kept).split()))


def step_words(step: Step) -> str:
    """Return the comment over a step, "" for one that needs none, such as a sum of vectors.

    >>> step_words(Step("_gained_2", "Return how much is done.")), step_words(Step("plus3", "Return a sum."))
    ('gained: how much is done.', '')
    """
    kernel = re.sub("_[0-9]+$", "", step.kernel.strip("_"))
    words = kernel_words(step.about).removeprefix("Return ")
    return f"{kernel}: {words}" if words and kernel not in WITHOUT_WORDS else ""
