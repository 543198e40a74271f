"""Printing for languages with braces: blocks without braces around a single line, and counting loops."""

import ast
import re
from collections.abc import Sequence

from wendonic.export.languages.printer import WIDTH, Printer
from wendonic.export.languages.scopes import Scopes


class BracePrinter(Printer):
    """Prints blocks and branches."""

    def block(self, head: str, body: Sequence[ast.stmt], scopes: Scopes, indent: str) -> list[str]:
        """Return a block with a head; a single line needs no braces."""
        lines = self.body(body, scopes, indent + "    ")
        if len(lines) == 1:
            return [*self.wrapped(head, indent), *lines]
        return [*self.wrapped(f"{head} {{", indent), *lines, f"{indent}}}"]

    def condition(self, statement: ast.If, scopes: Scopes, indent: str) -> list[str]:
        """Return a branch with its alternatives; all of them have braces, or none."""
        parts: list[tuple[str, list[str]]] = []
        head, rest = f"if ({self.expression(statement.test)})", list(statement.body)
        after: list[ast.stmt] = list(statement.orelse)
        while True:
            parts.append((head, self.body(rest, scopes, indent + "    ")))
            if not after:
                break
            only = after[0]
            if len(after) == 1 and isinstance(only, ast.If) and not scopes.before.get(id(only)):
                head, rest, after = f"else if ({self.expression(only.test)})", list(only.body), list(only.orelse)
            else:
                head, rest, after = "else", after, []
        braces = any(len(lines) > 1 or lines[0].lstrip().startswith(("if ", "for ", "while ")) for _, lines in parts)
        made: list[str] = []
        for head, lines in parts:
            if not braces:
                made += [*self.wrapped(head, indent), *lines]
                continue
            start = f"}} {head} {{" if made else f"{head} {{"
            made += [*self.wrapped(start, indent), *lines]
        return [*made, f"{indent}}}"] if braces else made

    def counting(self, statement: ast.For, scopes: Scopes, indent: str) -> list[str]:
        """Return a loop that counts from 0."""
        assert isinstance(statement.iter, ast.Call)
        assert isinstance(statement.target, ast.Name)
        end = statement.iter.args[0]
        count = self.expression(end, 6, self.is_int(end) or isinstance(end, ast.Constant))
        head = self.counting_head(self.variable(statement.target.id), count)
        return self.block(head, statement.body, scopes, indent)

    def counting_head(self, name: str, count: str) -> str:
        """Return the head of a loop that counts from 0."""
        return f"for (int {name} = 0; {name} < {count}; {name}++)"


_PLAIN = re.compile(r"^( +)([\w>.-]+) = (-?[\d.e-]+f?);$")
_DECLARED = re.compile(r"^( +)(const |let )?(double |float |bool |int |)(\w+ = [^;]+);$")
_MOST_TOGETHER = 100


def joined_lines(lines: Sequence[str], width: int = WIDTH) -> list[str]:
    """Return lines of source with neighbouring lines joined that set the same constant, or are short declarations."""
    made: list[str] = []
    for line in lines:
        last = made[-1] if made else ""
        here = _PLAIN.match(line)
        chained = re.match(r"^( +)(.+ = )(-?[\d.e-]+f?);$", last)
        if (
            here
            and chained
            and chained[1] == here[1]
            and chained[3] == here[3]
            and "(" not in last
            and not _type(last)
        ):
            joined = f"{chained[1]}{chained[2]}{here[2]} = {here[3]};"
            if len(joined) <= width:
                made[-1] = joined
                continue
        now, before = _DECLARED.match(line), _DECLARED.match(last)
        if now and before and now.groups()[:3] == before.groups()[:3] and (now[2] or now[3]):
            joined = f"{last[:-1]}, {now[4]};"
            if len(joined) <= _MOST_TOGETHER and joined.count(" = ") <= 4:
                made[-1] = joined
                continue
        made.append(line)
    return made


def _type(line: str) -> bool:
    return line.lstrip().startswith(("const ", "double ", "float ", "bool ", "int ", "let "))
