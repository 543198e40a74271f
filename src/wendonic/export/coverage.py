"""Branch coverage of a mode's functions: their Python text with a mark at every test."""

import ast
import copy
from collections.abc import Sequence
from typing import Any

from wendonic.export.build import Made
from wendonic.export.program import Function


class Branches:
    """Runs the printed Python of one mode with every test marked, and records the outcomes of each."""

    def __init__(self, made: Made, functions: Sequence[Function]) -> None:
        """Mark every test; `functions` are copies that may be changed."""
        self.tests: list[tuple[str, str]] = []
        self.seen: set[tuple[int, bool]] = set()
        for function in functions:
            self._mark(function.body, function)
        self.made = made

    @property
    def count(self) -> int:
        """The number of branches: two for each test."""
        return 2 * len(self.tests)

    def note(self, number: int, value: Any) -> Any:
        """Record the outcome of a test."""
        self.seen.add((number, bool(value)))
        return value

    def missing(self, hair: set[tuple[int, bool]]) -> tuple[list[str], list[str], list[str]]:
        """Return the branches that were not taken: of tests that always had the other outcome, of tests that were
        never reached, and those in `hair`.
        """
        every = [(number, way) for number in range(len(self.tests)) for way in (True, False)]
        left = [branch for branch in every if branch not in self.seen]
        tested = {number for number, _ in self.seen}
        return (
            [self._words(branch) for branch in left if branch not in hair and branch[0] in tested],
            [self._words(branch) for branch in left if branch not in hair and branch[0] not in tested],
            [self._words(branch) for branch in left if branch in hair],
        )

    def _words(self, branch: tuple[int, bool]) -> str:
        function, test = self.tests[branch[0]]
        return f"{function}: {test} never {'held' if branch[1] else 'failed'}"

    def _mark(self, body: list[ast.stmt], function: Function) -> None:
        for statement in body:
            match statement:
                case ast.If() | ast.While():
                    statement.test = self._noted(self._choices(statement.test, function), function)
                    self._mark(statement.body, function)
                    self._mark(statement.orelse, function)
                case ast.For():
                    self._mark(statement.body, function)
                case ast.Assign() | ast.Return() if statement.value is not None:
                    statement.value = self._choices(statement.value, function)

    def _noted(self, test: ast.expr, function: Function) -> ast.expr:
        text = ast.unparse(ast.fix_missing_locations(ast.Expression(copy.deepcopy(test))))
        for struct in ("raw", "last", "next", "out", "number", "settings"):
            text = text.replace(f"{struct}.", "")
        self.tests.append((function.name, text))
        return ast.Call(ast.Name("noted", ast.Load()), [ast.Constant(len(self.tests) - 1), test], [])

    def _choices(self, node: ast.expr, function: Function) -> ast.expr:
        """Mark expressions that choose between two values."""
        match node:
            case ast.IfExp(test=test, body=yes, orelse=no):
                marked = self._noted(self._choices(test, function), function)
                return ast.IfExp(marked, self._choices(yes, function), self._choices(no, function))
            case ast.BinOp(left=left, op=operator, right=right):
                return ast.BinOp(self._choices(left, function), operator, self._choices(right, function))
            case ast.UnaryOp(op=operator, operand=operand):
                return ast.UnaryOp(operator, self._choices(operand, function))
            case ast.BoolOp(op=operator, values=values):
                return ast.BoolOp(operator, [self._choices(value, function) for value in values])
            case ast.Compare(left=left, ops=ops, comparators=others):
                return ast.Compare(
                    self._choices(left, function), ops, [self._choices(one, function) for one in others]
                )
            case ast.Call(func=func, args=args):
                return ast.Call(func, [self._choices(part, function) for part in args], [])
            case ast.Tuple(elts=parts):
                return ast.Tuple([self._choices(part, function) for part in parts], ast.Load())
        return node
