"""Folding of expressions: known parts are computed, and calls of kernels become statements before them."""

import ast
import builtins
import math
from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator, Sequence
from types import FunctionType, ModuleType
from typing import Any

from wendonic.compiler.read import refuse
from wendonic.compiler.scope import Scope
from wendonic.compiler.statements import assigned, put_if
from wendonic.compiler.values import (
    Dynamic,
    Known,
    Packed,
    Record,
    Value,
    expression,
    is_atom,
    known,
    leaves,
    name,
    rebuilt,
    same,
)

ARITHMETIC: dict[type[ast.operator], Callable[[Any, Any], Any]] = {
    ast.Add: lambda a, b: a + b,
    ast.Sub: lambda a, b: a - b,
    ast.Mult: lambda a, b: a * b,
    ast.Div: lambda a, b: a / b,
    ast.FloorDiv: lambda a, b: a // b,
    ast.Mod: lambda a, b: a % b,
    ast.Pow: lambda a, b: a**b,
}
COMPARISONS: dict[type[ast.cmpop], Callable[[Any, Any], bool]] = {
    ast.Eq: lambda a, b: a == b,
    ast.NotEq: lambda a, b: a != b,
    ast.Lt: lambda a, b: a < b,
    ast.LtE: lambda a, b: a <= b,
    ast.Gt: lambda a, b: a > b,
    ast.GtE: lambda a, b: a >= b,
}
COMPUTED = (abs, int, float, *(one for one in vars(math).values() if callable(one)))


class ExpressionFolder(ABC):
    """Folds the expressions of a kernel."""

    @abstractmethod
    def call(self, scope: Scope, function: FunctionType, arguments: list[Value], hints: list[str] | None) -> Value:
        """Return the result of a kernel; numbers that must be computed come from a call in a statement of its own."""

    def value(self, scope: Scope, node: ast.expr, hints: list[str] | None = None) -> Value:
        """Fold an expression; calls of kernels in it become statements before it."""
        match node:
            case ast.Constant(value=bool() | int() | float() as number):
                return Known(number)
            case ast.Name(id=identifier):
                return self._variable(scope, node, identifier)
            case ast.Attribute(value=owner, attr=attribute):
                return self._attribute(scope, node, self.value(scope, owner), attribute)
            case ast.Tuple(elts=parts):
                return Record(tuple, tuple(self._spread(scope, parts)))
            case ast.Subscript(value=owner, slice=index):
                return self._subscript(scope, node, self.value(scope, owner), self.value(scope, index))
            case ast.UnaryOp(op=operator, operand=operand):
                return self._unary(scope, node, operator, self.value(scope, operand))
            case ast.BinOp(left=left, op=operator, right=right):
                return self._binary(scope, node, self.value(scope, left), operator, self.value(scope, right))
            case ast.Compare():
                return self._compare(scope, node)
            case ast.BoolOp():
                return self._logic(scope, node)
            case ast.IfExp():
                return self._choice(scope, node)
            case ast.Call():
                return self._called(scope, node, hints)
        return refuse(scope.function, node, f"{_words(node)} is outside the kernel language")

    def _variable(self, scope: Scope, node: ast.expr, identifier: str) -> Value:
        if identifier in scope.env:
            return scope.env[identifier]
        if identifier in scope.function.__globals__:
            return known(scope.function.__globals__[identifier])
        if hasattr(builtins, identifier):
            return Known(getattr(builtins, identifier))
        return refuse(scope.function, node, f"{identifier} has no value here")

    def _attribute(self, scope: Scope, node: ast.expr, owner: Value, attribute: str) -> Value:
        if isinstance(owner, Record) and attribute in owner.fields:
            return owner.parts[owner.fields.index(attribute)]
        if isinstance(owner, Known) and isinstance(owner.value, ModuleType):
            if owner.value is not math:
                refuse(scope.function, node, f"{owner.value.__name__}: kernels use math only")
            if not hasattr(math, attribute):
                refuse(scope.function, node, f"math has no {attribute}")
            return Known(getattr(math, attribute))
        return refuse(scope.function, node, f".{attribute} of {_kind(owner)}")

    def _spread(self, scope: Scope, parts: Sequence[ast.expr]) -> Iterator[Value]:
        for part in parts:
            if isinstance(part, ast.Starred):
                value = self.value(scope, part.value)
                if not isinstance(value, Record):
                    refuse(scope.function, part, f"* of {_kind(value)}")
                yield from value.parts
            else:
                yield self.value(scope, part)

    def _subscript(self, scope: Scope, node: ast.expr, owner: Value, index: Value) -> Value:
        if isinstance(owner, Record):
            if not isinstance(index, Known):
                refuse(scope.function, node, "an index into a tuple has to be known; rows take any")
            return owner.parts[int(index.value)]
        if isinstance(owner, Dynamic):
            return Dynamic(ast.Subscript(owner.node, expression(index), ast.Load()))
        return refuse(scope.function, node, f"[…] of {_kind(owner)}")

    def _unary(self, scope: Scope, node: ast.expr, operator: ast.unaryop, operand: Value) -> Value:
        if isinstance(operator, ast.Not):
            if isinstance(operand, Known):
                return Known(not operand.value)
            return Dynamic(ast.UnaryOp(ast.Not(), expression(operand)))
        if isinstance(operator, ast.USub):
            if isinstance(operand, Known):
                return Known(-operand.value)
            return Dynamic(ast.UnaryOp(ast.USub(), expression(operand)))
        return refuse(scope.function, node, f"{_words(operator)} is outside the kernel language")

    def _binary(self, scope: Scope, node: ast.expr, left: Value, operator: ast.operator, right: Value) -> Value:
        compute = ARITHMETIC.get(type(operator))
        if compute is None or isinstance(left, Record) or isinstance(right, Record):
            refuse(scope.function, node, f"{_words(operator)} of {_kind(left)} and {_kind(right)}")
        if isinstance(left, Known) and isinstance(right, Known):
            return Known(compute(left.value, right.value))
        # Exact for every number, including zeros of either sign and infinities.
        if isinstance(right, Known) and right.value == 1 and isinstance(operator, ast.Mult | ast.Div | ast.Pow):
            return left
        if isinstance(left, Known) and left.value == 1 and isinstance(operator, ast.Mult):
            return right
        if isinstance(operator, ast.Sub) and isinstance(right, Known) and _is_plus_zero(right.value):
            return left
        # Exact for every finite number except for the sign of zero, and kernels have no other numbers.
        if _is_nothing(left) and isinstance(operator, ast.Mult | ast.Div):
            return Known(0.0)
        if _is_nothing(right) and isinstance(operator, ast.Mult):
            return Known(0.0)
        return Dynamic(ast.BinOp(expression(left), operator, expression(right)))

    def _compare(self, scope: Scope, node: ast.Compare) -> Value:
        values = [self.value(scope, part) for part in (node.left, *node.comparators)]
        operator = node.ops[0]
        if isinstance(operator, ast.In | ast.NotIn):
            members = values[1]
            if len(node.ops) > 1 or not isinstance(members, Record):
                refuse(scope.function, node, "in goes with a tuple written out")
            left = self._atom(scope, values[0])
            inside = isinstance(operator, ast.In)
            single: ast.cmpop = ast.Eq() if inside else ast.NotEq()
            tests = [self._compared(left, single, member) for member in members.parts]
            return _joined(ast.Or() if inside else ast.And(), tests)
        if any(type(operator) not in COMPARISONS for operator in node.ops):
            refuse(scope.function, node, f"{_words(node.ops[0])} is outside the kernel language")
        if any(isinstance(value, Record | Packed) for value in values):
            refuse(scope.function, node, "records are not compared; compare their numbers")
        if len(node.ops) == 1:
            return self._compared(values[0], operator, values[1])
        if all(isinstance(value, Dynamic) for value in values):
            first, *rest = map(expression, values)
            return Dynamic(ast.Compare(first, node.ops, rest))
        atoms = [self._atom(scope, value) for value in values]
        tests = [self._compared(a, op, b) for a, op, b in zip(atoms, node.ops, atoms[1:], strict=False)]
        return _joined(ast.And(), tests)

    def _compared(self, left: Value, operator: ast.cmpop, right: Value) -> Value:
        if isinstance(left, Known) and isinstance(right, Known):
            return Known(COMPARISONS[type(operator)](left.value, right.value))
        return Dynamic(ast.Compare(expression(left), [operator], [expression(right)]))

    def _atom(self, scope: Scope, value: Value, wanted: str = "value") -> Value:
        """Return a value that may be written twice."""
        if isinstance(value, Dynamic) and not is_atom(value.node):
            made = scope.unique(wanted)
            scope.out.append(assigned([made], value.node))
            return Dynamic(name(made))
        return value

    def _logic(self, scope: Scope, node: ast.BoolOp) -> Value:
        is_and = isinstance(node.op, ast.And)
        tests: list[ast.expr] = []
        for index, part in enumerate(node.values):
            outside, scope.out = scope.out, []
            value = self.value(scope, part)
            inside, scope.out = scope.out, outside
            if isinstance(value, Known):
                if bool(value.value) == is_and:
                    continue
                # No earlier statement can change it, and it has no side effects.
                return Known(not is_and)
            if not inside or not tests:
                scope.out += inside
                tests.append(expression(value))
                continue
            # Statements for this part run only if the part is evaluated.
            rest = ast.BoolOp(node.op, list(node.values[index:]))
            made = scope.unique("holds")
            so_far = tests[0] if len(tests) == 1 else ast.BoolOp(node.op, tests)
            scope.out.append(assigned([made], so_far))
            outside, scope.out = scope.out, []
            last = self.value(scope, ast.copy_location(rest, node) if len(rest.values) > 1 else rest.values[0])
            scope.out.append(assigned([made], expression(last)))
            inside, scope.out = scope.out, outside
            scope.mutable.add(made)
            test: ast.expr = name(made) if is_and else ast.UnaryOp(ast.Not(), name(made))
            scope.out.append(ast.If(test, inside, []))
            return Dynamic(name(made))
        if not tests:
            return Known(is_and)
        return Dynamic(tests[0] if len(tests) == 1 else ast.BoolOp(node.op, tests))

    def _choice(self, scope: Scope, node: ast.IfExp) -> Value:
        test = self.value(scope, node.test)
        if isinstance(test, Known):
            return self.value(scope, node.body if test.value else node.orelse)
        rows = []
        for part in (node.body, node.orelse):
            outside, scope.out = scope.out, []
            value = self.value(scope, part)
            inside, scope.out = scope.out, outside
            rows.append((value, inside))
        (first, yes), (second, no) = rows
        if not yes and not no and not isinstance(first, Record):
            if same(first, second):
                return first
            return Dynamic(ast.IfExp(expression(test), expression(first), expression(second)))
        parts: list[Value] = []
        if [path for path, _ in leaves(first)] != [path for path, _ in leaves(second)]:
            refuse(scope.function, node, "both sides of if … else have the same shape")
        for (path, left), (_, right) in zip(leaves(first), leaves(second), strict=True):
            if same(left, right):
                parts.append(left)
                continue
            made = scope.unique("_".join(("chosen", *path)))
            yes.append(assigned([made], expression(left)))
            no.append(assigned([made], expression(right)))
            parts.append(Dynamic(name(made)))
        put_if(scope.out, expression(test), yes, no)
        return rebuilt(first, iter(parts))

    def _called(self, scope: Scope, node: ast.Call, hints: list[str] | None) -> Value:
        function = node.func
        if isinstance(function, ast.Attribute) and function.attr == "_replace":
            return self._replaced(scope, node, self.value(scope, function.value))
        if node.keywords:
            refuse(scope.function, node, "keywords are outside the kernel language, but for _replace")
        target = self.value(scope, function)
        arguments = list(self._spread(scope, node.args))
        called: Any = target.value if isinstance(target, Known) else None
        if isinstance(called, FunctionType):
            return self.call(scope, called, arguments, hints)
        if isinstance(called, type) and issubclass(called, tuple):
            fields: tuple[str, ...] | None = getattr(called, "_fields", None)
            if fields is None or len(fields) != len(arguments):
                refuse(scope.function, node, f"{called.__name__} takes other parts")
            return Record(called, tuple(arguments))
        if called is len and len(arguments) == 1 and isinstance(arguments[0], Record):
            return Known(len(arguments[0].parts))
        if called is min or called is max:
            return self._least_or_most(scope, node, called, arguments)
        if any(called is one for one in COMPUTED):
            return self._computed(scope, node, called, arguments)
        return refuse(scope.function, node, f"{ast.unparse(function)} is not a kernel")

    def _computed(self, scope: Scope, node: ast.Call, called: Any, arguments: list[Value]) -> Value:
        if any(isinstance(argument, Record | Packed) for argument in arguments):
            refuse(scope.function, node, f"{called.__name__} of a record")
        if all(isinstance(argument, Known) for argument in arguments):
            return Known(called(*(argument.value for argument in arguments if isinstance(argument, Known))))
        if called is float:
            # Every dynamic number is a float already.
            return arguments[0]
        if called is math.hypot and len(arguments) == 2:
            others = [argument for argument in arguments if not _is_nothing(argument)]
            if len(others) == 1:
                called, arguments = math.fabs, others
        return Dynamic(ast.Call(name(called.__name__), [expression(argument) for argument in arguments], []))

    def _least_or_most(self, scope: Scope, node: ast.Call, called: Any, arguments: list[Value]) -> Value:
        if len(arguments) < 2 or any(isinstance(argument, Record | Packed) for argument in arguments):
            refuse(scope.function, node, "min and max go with two numbers or more")
        best = arguments[0]
        for other in arguments[1:]:
            if isinstance(best, Known) and isinstance(other, Known):
                best = Known(called(best.value, other.value))
                continue
            # As in Python, the first of equal values.
            first = expression(self._atom(scope, best))
            second = expression(self._atom(scope, other))
            operator: ast.cmpop = ast.Lt() if called is min else ast.Gt()
            best = Dynamic(ast.IfExp(ast.Compare(second, [operator], [first]), second, first))
        return best

    def _replaced(self, scope: Scope, node: ast.Call, owner: Value) -> Value:
        if not isinstance(owner, Record) or node.args:
            refuse(scope.function, node, f"_replace of {_kind(owner)}")
        new = {}
        for keyword in node.keywords:
            if keyword.arg is None or keyword.arg not in owner.fields:
                refuse(scope.function, node, f"_replace: {owner.kind.__name__} has no field {keyword.arg}")
            new[keyword.arg] = self.value(scope, keyword.value)
        parts = zip(owner.fields, owner.parts, strict=True)
        return Record(owner.kind, tuple([new.get(field_name, part) for field_name, part in parts]))


def _joined(operator: ast.boolop, tests: list[Value]) -> Value:
    is_and = isinstance(operator, ast.And)
    left: list[ast.expr] = []
    for test in tests:
        if isinstance(test, Known):
            if bool(test.value) != is_and:
                return Known(not is_and)
        else:
            left.append(expression(test))
    if not left:
        return Known(is_and)
    return Dynamic(left[0] if len(left) == 1 else ast.BoolOp(operator, left))


def _is_plus_zero(value: Any) -> bool:
    return isinstance(value, float) and value == 0.0 and math.copysign(1.0, value) > 0.0


def _is_nothing(value: Value) -> bool:
    return isinstance(value, Known) and isinstance(value.value, float) and value.value == 0.0


def _kind(value: Value) -> str:
    if isinstance(value, Record):
        return f"a {value.kind.__name__}"
    if isinstance(value, Known):
        return repr(value.value)
    return "a whole record" if isinstance(value, Packed) else "a number"


def _words(node: ast.AST) -> str:
    return type(node).__name__
