"""The house: who imports whom, what a wheel carries, and that the benchmarks compare the same walk."""

import ast
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

TOP = Path(__file__).parent.parent
SOURCE = TOP / "src" / "wendonic"
FLOORS = {
    "arithmetic": 0,
    "errors": 0,
    "look_units": 1,
    "frame_units": 1,
    "counted": 0,
    "significant": 0,
    "file_kind": 0,
    "length_unit": 1,
    "kernels": 0,
    "atomic_file": 1,
    "world_axes": 1,
    "compiler": 1,
    "devices": 1,
    "recording": 2,
    "profile": 3,
    "runtime": 4,
    "batch": 5,
    "course": 6,
    "study": 7,
    "reference": 8,
    "testing": 8,
    "demo": 9,
    "pictures": 8,
    "export": 8,
    "live": 10,
    "cli": 11,
}
DOORS = set(
    "arc_point blocked_table curve_amount displacement_output ground_at hand_gain in_wall key_rates laid_on_slope "
    "level_forward move_output pose_forward rim_length squares_in stick_output tick_at_rest turned_ahead turned_by "
    "with_forms within_circle".split()
)
"""The kernels that are called outside of a tick; everything else that others import of the kernels is data."""


def imported(path):
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.ImportFrom):
            yield node.module
        elif isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)


def room(module):
    return module.split(".")[1] if module.startswith("wendonic.") else None


def test_imports_run_downwards_only():
    wrong = []
    for path in sorted(SOURCE.rglob("*.py")):
        place = path.relative_to(SOURCE).parts[0].removesuffix(".py")
        if place in ("__init__", "__main__"):
            continue
        at_the_edge = place in ("pictures", "live", "cli", "demo") or path.name == "pygame_events.py"
        for module in imported(path):
            below = room(module)
            if below is not None:
                allowed = below == place or FLOORS[below] < FLOORS[place]
            elif place == "kernels":
                allowed = module in ("math", "typing", "collections.abc")
            else:
                allowed = at_the_edge or module.split(".")[0] not in ("matplotlib", "typer", "rich", "pygame")
            if not allowed:
                wrong.append(f"{path.relative_to(SOURCE)} imports {module}")
    assert wrong == []


def test_outside_the_compiler_only_named_kernels_are_called():
    called = set()
    for path in SOURCE.rglob("*.py"):
        if path.relative_to(SOURCE).parts[0] in ("kernels", "compiler"):
            continue
        text = path.read_text()
        for node in ast.walk(ast.parse(text)) if "wendonic.kernels" in text else ():
            if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("wendonic.kernels"):
                called |= {alias.name for alias in node.names if alias.name[0].islower()}
    assert called == DOORS


def test_line_ends_of_what_is_written_do_not_depend_on_the_machine():
    """Without `newline` a file whose lines end in CR and LF would end them in CR, CR and LF on Windows."""
    written = []
    for path in SOURCE.rglob("*.py"):
        text = path.read_text(encoding="utf-8")
        for node in ast.walk(ast.parse(text)) if "write_text" in text or ".open(" in text else ():
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
                modes = [one.value for one in node.args if isinstance(one, ast.Constant)]
                opened = node.func.attr == "open" and modes and modes[0] in ("w", "a", "x")
                # Not that of the help's formatter.
                saved = node.func.attr == "write_text" and any(one.arg == "encoding" for one in node.keywords)
                if opened or saved:
                    written.append((path.name, node.lineno, {one.arg for one in node.keywords}))
    assert len(written) > 12
    assert [one[:2] for one in written if not {"encoding", "newline"} <= one[2]] == []


def test_a_wheel_carries_the_demo_and_the_types(tmp_path):
    command = [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", str(tmp_path)]
    subprocess.run(command, cwd=TOP, check=True, capture_output=True, timeout=120)
    (wheel,) = tmp_path.glob("wendonic-*-py3-none-any.whl")
    names = set(zipfile.ZipFile(wheel).namelist())
    shipped = {"beekeeper.toml", "beekeeper_keys.jsonl", "beekeeper_pad.jsonl"}
    assert {f"wendonic/demo/{name}" for name in shipped} | {"wendonic/py.typed"} <= names
    assert not [name for name in names if name.startswith(("tests", "benchmarks", "examples"))]


def test_the_guide_counts_the_faults_of_the_benchmark(monkeypatch):
    monkeypatch.syspath_prepend(str(TOP / "benchmarks"))
    import defects

    guide = " ".join((TOP / "docs" / "guides" / "feel.md").read_text(encoding="utf-8").split())
    assert f"puts {len(defects.DEFECTS)} kinds and sizes of fault into sound profiles" in guide


@pytest.mark.long
def test_all_ways_of_the_benchmark_walk_the_same_walk(monkeypatch):
    """By hand, in NumPy, in C, through the helm and both batches: one end of the walk, to a nanometre."""
    monkeypatch.syspath_prepend(str(TOP / "benchmarks"))
    import c_loop
    import run
    import walks

    walk = walks.beekeeper_walk()
    ways = run.tick_ways(walk, walks.walk_profile(), run.by_hand_tick, (0.0,) * 10)
    ways |= {way.__name__: way(walk) for way in (run.numpy_way, run.batch_way, run.compiled_way)}
    loop = c_loop.compiled_c_loop()
    if loop:
        ways["C"] = run.c_way(walk, loop)
    plain = run.tick_ways(walk, walks.plain_profile(), run.by_hand_plain_tick, (0.0,) * 6)
    for some in (ways, plain):
        first, *others = (way()[1] for way in some.values())
        assert abs(first[0]) + abs(first[1]) > 1.0
        for end in others:
            assert end == pytest.approx(first, abs=1e-9)


def test_the_bench_is_at_hand_by_name_and_loaded_when_it_is_asked_for():
    loaded = "print(sorted(name for name in ('pandas', 'scipy', 'matplotlib') if name in sys.modules))"
    script = (
        f"import sys, wendonic.study\n{loaded}\nfrom wendonic.study import *\nprint(check.__name__, fit.__name__)"
    )
    script += "\nimport wendonic.study.checking\nprint(wendonic.study.check is check, preference.__name__)"
    done = subprocess.run([sys.executable, "-c", script], check=True, capture_output=True, text=True, timeout=60)
    assert done.stdout.splitlines() == ["[]", "check fit", "True wendonic.study.preference"]
