"""Numba's compiler with only the passes that code of plain floats needs, which halves the time."""

from typing import Any

from numba.core import cgutils, types
from numba.core.compiler import CompilerBase
from numba.core.compiler_machinery import PassManager, register_pass
from numba.core.lowering import Lower
from numba.core.typed_passes import (
    AnnotateTypes,
    BaseNativeLowering,
    IRLegalization,
    NoPythonBackend,
    NopythonTypeInference,
)
from numba.core.untyped_passes import FixupArgs, IRProcessing, TranslateByteCode


class RememberedTypes:
    """A typing context that resolves each operator once for its operand types, not at each use."""

    def __init__(self, context: Any) -> None:
        """Wrap a typing context."""
        self._context = context
        self._known: dict[Any, Any] = {}

    def __getattr__(self, attribute: str) -> Any:
        """Delegate everything else to the wrapped context."""
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
    """Type inference with remembered operators."""

    _name = "scalar_types"

    def run_pass(self, state: Any) -> bool:
        """Give every variable its type."""
        context = state.typingctx
        state.typingctx = RememberedTypes(context)
        try:
            return bool(super().run_pass(state))
        finally:
            state.typingctx = context


class ScalarLower(Lower):  # type: ignore[misc]
    """A lowering that resolves each float operator once, and indexes arrays directly."""

    def __init__(self, *given: Any, **keywords: Any) -> None:
        """Begin without any known operators."""
        super().__init__(*given, **keywords)
        self._known: dict[Any, Any] = {}

    def lower_binop(self, result: Any, expr: Any, op: Any) -> Any:
        """Return the value of an operation on two numbers."""
        signature = self.fndesc.calltypes[expr]
        if any(not isinstance(side, types.Float) for side in signature.args):
            return super().lower_binop(result, expr, op)
        key = (op, signature.args)
        if key not in self._known:
            context = self.context.typing_context
            function = context.resolve_value_type(op)
            found = function.get_call_type(context, signature.args, {})
            self._known[key] = self.context.get_function(function, found)
        sides = [
            self.context.cast(self.builder, self.loadvar(side.name), self.typeof(side.name), wanted)
            for side, wanted in zip((expr.lhs, expr.rhs), signature.args, strict=True)
        ]
        value = self._known[key](self.builder, sides)
        return self.context.cast(self.builder, value, signature.return_type, result)

    def lower_getitem(self, result: Any, expr: Any, value: Any, index: Any, signature: Any) -> Any:
        """Return a number of an array."""
        pointer = self._element(value, index)
        if pointer is None:
            return super().lower_getitem(result, expr, value, index, signature)
        return self.context.cast(self.builder, self.builder.load(pointer), signature.return_type, result)

    def lower_setitem(self, target: Any, index: Any, value: Any, signature: Any) -> Any:
        """Write a number into an array."""
        pointer = self._element(target, index)
        if pointer is None:
            return super().lower_setitem(target, index, value, signature)
        wanted = self.typeof(target.name).dtype
        self.builder.store(
            self.context.cast(self.builder, self.loadvar(value.name), self.typeof(value.name), wanted), pointer
        )
        return None

    def alloca_lltype(self, name: str, kind: Any, **_: Any) -> Any:
        """Return storage for a variable, without debug information, which alone would take longer than the rest."""
        return cgutils.alloca_once(self.builder, kind, name=name, zfill=False)

    def decref(self, kind: Any, value: Any) -> None:
        """Release a reference, which matters for arrays only."""
        if not isinstance(kind, types.Number | types.Boolean):
            super().decref(kind, value)

    def _element(self, array: Any, index: Any) -> Any:
        """Return the address of one number of an array of floats, or None for anything else.

        Negative indices are not supported: the loops compiled here never use them.
        """
        of, kind = self.typeof(array.name), self.typeof(index.name)
        if not isinstance(of, types.Array) or not isinstance(of.dtype, types.Float):
            return None
        kinds = tuple(kind) if isinstance(kind, types.containers.BaseTuple) else (kind,)
        if len(kinds) != of.ndim or any(not isinstance(one, types.Integer) for one in kinds):
            return None
        value = self.loadvar(index.name)
        given = cgutils.unpack_tuple(self.builder, value) if isinstance(kind, types.containers.BaseTuple) else [value]
        indices = [
            self.context.cast(self.builder, one, own, types.intp) for one, own in zip(given, kinds, strict=True)
        ]
        made = self.context.make_array(of)(self.context, self.builder, self.loadvar(array.name))
        return cgutils.get_item_pointer(self.context, self.builder, of, made, indices, wraparound=False)


@register_pass(mutates_CFG=True, analysis_only=False)
class ScalarLowering(BaseNativeLowering):  # type: ignore[misc]
    """Lowering of numbers and arrays of them."""

    _name = "scalar_lowering"

    @property
    def lowering_class(self) -> type:
        """Return the lowering class."""
        return ScalarLower


class ScalarCompiler(CompilerBase):  # type: ignore[misc]
    """Translates, infers types and lowers; a tick function has no closures, no arrays to fuse and no variables of
    several types.
    """

    def define_pipelines(self) -> list[PassManager]:
        """Return the single pipeline."""
        passes = PassManager("scalar")
        for step in (
            TranslateByteCode,
            FixupArgs,
            IRProcessing,
            ScalarTypes,
            AnnotateTypes,
            IRLegalization,
            ScalarLowering,
            NoPythonBackend,
        ):
            passes.add_pass(step, step.__name__)
        passes.finalize()
        return [passes]
