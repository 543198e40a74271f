"""The helm's own tick functions as a Python module, for a game that is frozen: no kernel source is needed."""

from wendonic.compiler.ready import ReadyTick, ready
from wendonic.export.languages.printer import comment_lines, wrapped
from wendonic.export.languages.words import about
from wendonic.export.package import Package
from wendonic.profile.tuning import mode_tuning


def tick_functions_module(package: Package) -> str:
    """Return the module that `Helm(profile, tick_functions=module)` takes."""
    head = f"{about(package)} For Helm(profile, tick_functions=this module) in a game that is frozen."
    lines = [*comment_lines(head, '"""', "", '"""'), "", f'WENDONIC = "{package.version}"', "TICK_FUNCTIONS = {}", ""]
    for made in package.modes:
        tuning = mode_tuning(made.profile, made.mode, bool(package.course)).tick
        found = ready(tuning, made.sampler.layout.sample, made.mode)
        lines += _mode(package.word(made.mode), found)
    return "\n".join(lines)


def _mode(name: str, found: ReadyTick) -> list[str]:
    layout = found.layout
    lines = ["", f"def {name}():", '    """Return what makes the tick function of its numbers."""']
    for line in found.text.splitlines():
        lines += wrapped(f"    {line}" if line else "", lambda depth: "" if depth else " \\")
    lines += ["    return make", "", "", f'TICK_FUNCTIONS["{found.digest}"] = {{', f'    "make": {name}(),']
    lines += [f'    "state": {layout.state},', f'    "width": {layout.width},']
    lines += wrapped(f'    "numbers": {found.indices!r},')
    for key, of_paths in (("indices", layout.indices), ("constants", layout.constants)):
        lines.append(f'    "{key}": {{')
        lines += [f'        "{".".join(path)}": {value!r},' for path, value in of_paths.items()]
        lines.append("    },")
    return [*lines, "}", ""]
