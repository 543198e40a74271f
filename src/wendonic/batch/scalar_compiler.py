"""Numba's compiler with the passes that code of plain floats needs, which takes half as long."""

from typing import Any

from numba.core import types
from numba.core.compiler import CompilerBase
from numba.core.compiler_machinery import PassManager, register_pass
from numba.core.typed_passes import (
    AnnotateTypes,
    IRLegalization,
    NativeLowering,
    NoPythonBackend,
    NopythonTypeInference,
)
from numba.core.untyped_passes import FixupArgs, IRProcessing, TranslateByteCode


class RememberedTypes:
    """A typing context that works out once what an operator makes of its operands, not at each of its uses."""

    def __init__(self, context: Any) -> None:
        """Stand before a typing context."""
        self._context = context
        self._known: dict[Any, Any] = {}

    def __getattr__(self, attribute: str) -> Any:
        """Leave everything else to the context itself."""
        return getattr(self._context, attribute)

    def resolve_function_type(self, function: Any, arguments: Any, keywords: Any) -> Any:
        """Return the signature of a call."""
        if keywords or not isinstance(function, types.Function):
            return self._context.resolve_function_type(function, arguments, keywords)
        key = (function, arguments)
        if key not in self._known:
            self._known[key] = self._context.resolve_function_type(function, arguments, keywords)
        return self._known[key]


@register_pass(mutates_CFG=True, analysis_only=False)
class ScalarTypes(NopythonTypeInference):  # type: ignore[misc]
    """Type inference over remembered operators."""

    _name = "scalar_types"

    def run_pass(self, state: Any) -> bool:
        """Give every variable its type."""
        context = state.typingctx
        state.typingctx = RememberedTypes(context)
        try:
            return bool(super().run_pass(state))
        finally:
            state.typingctx = context


class ScalarCompiler(CompilerBase):  # type: ignore[misc]
    """Reads, types, lowers; a tick function has no closures, arrays to fuse or variables of several types."""

    def define_pipelines(self) -> list[PassManager]:
        """Return the one row of passes."""
        passes = PassManager("scalar")
        for step in (
            TranslateByteCode,
            FixupArgs,
            IRProcessing,
            ScalarTypes,
            AnnotateTypes,
            IRLegalization,
            NativeLowering,
            NoPythonBackend,
        ):
            passes.add_pass(step, step.__name__)
        passes.finalize()
        return [passes]
