"""A single kernel, outside any tick, as functions of plain numbers."""

from collections.abc import Callable
from typing import Any

from wendonic.compiler.fold import Folder
from wendonic.compiler.folded import Folded
from wendonic.compiler.inline import inline
from wendonic.compiler.read import kernel_tree
from wendonic.compiler.tidy import tidied
from wendonic.compiler.values import Dynamic, name


def kernel_functions(kernel: Callable[..., Any]) -> list[Folded]:
    """Return a kernel whose arguments are all numbers, preceded by the functions that it calls.

    >>> from wendonic.kernels.view_axes import pose_forward
    >>> [one.name for one in kernel_functions(pose_forward)][-1]
    '_pose_forward'
    """
    folder = Folder()
    whole = folder.fold(kernel, [Dynamic(name(one.arg)) for one in kernel_tree(kernel).args.args])
    functions = [*inline(whole, list(folder.folded.values()), readable=True).values(), whole]
    for function in functions:
        tidied(function)
    return functions
