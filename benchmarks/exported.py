"""Exported source against the plain C loop: the same walk, in one run, best of several goes in turns.

python benchmarks/exported.py
"""

import ctypes
import shutil
import statistics
import subprocess
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np

from c_loop import compiled_c_loop
from run import C_OUTCOME, C_POSITION, c_tuning
from walks import HZ, beekeeper_walk, walk_profile
from wendonic.export.export import packaged
from wendonic.export.targets import TARGETS

ROUNDS = 9
GOES = 20
"""Times that the walk is walked in a go."""

C = """
#include "walker.h"
#include <stddef.h>
/* As in the loop by hand, inputs are read where they lie, and results are left where the tick writes them. */
void run_exported(const double *inputs, double dt, double *outcomes, size_t ticks, size_t width)
{
    walker_state state;
    walker_result result;
    walker_begin(&state, &result);
    for (size_t k = 0; k < ticks; k++)
        walker_tick(&state, (const walker_input *)(inputs + k * width), dt, &result);
    outcomes[0] = state.position_x;
    outcomes[1] = state.position_y;
}
"""
JAVASCRIPT = """
import { readFileSync } from "node:fs";
import { Foot, newInput } from "./walker.js";
const bytes = readFileSync("inputs.bin");
const rows = new Float64Array(bytes.buffer, bytes.byteOffset, bytes.length / 8);
const input = newInput();
const names = Object.keys(input);
const width = names.length;
const fill = new Function("input", "rows", "at", names.map((name, k) => `input.${name} = rows[at + ${k}];`).join(""));
let best = Infinity, body;
for (let go = 0; go < 400; go++) {
    body = new Foot();
    const start = process.hrtime.bigint();
    for (let at = 0; at < rows.length; at += width) {
        fill(input, rows, at);
        body.tick(input, 1 / 60);
    }
    best = Math.min(best, Number(process.hrtime.bigint() - start) / (rows.length / width));
}
console.log(best, body.state.positionX, body.state.positionY);
"""
LUA = """
local walker = require("walker")
local names = { %s }
local rows = {}
for line in io.lines("inputs.csv") do
    local row, k = {}, 0
    for part in line:gmatch("[^,]+") do
        k = k + 1
        row[names[k]] = tonumber(part)
    end
    rows[#rows + 1] = row
end
local best, state = math.huge, nil
for _ = 1, 8 do
    state = walker.new_state()
    local result = walker.new_result()
    local start = os.clock()
    for k = 1, #rows do
        walker.tick(state, rows[k], 1 / 60, result)
    end
    best = math.min(best, (os.clock() - start) * 1e9 / #rows)
end
print(best, state.position_x, state.position_y)
"""
CSHARP = """
using System;
using System.Diagnostics;
using System.IO;
using System.Reflection;
public static class Bench
{
    public static void Main()
    {
        byte[] bytes = File.ReadAllBytes("inputs.bin");
        double[] rows = new double[bytes.Length / 8];
        Buffer.BlockCopy(bytes, 0, rows, 0, bytes.Length);
        FieldInfo[] fields = typeof(Walker.Input).GetFields();
        int width = fields.Length, ticks = rows.Length / width;
        Walker.Input[] inputs = new Walker.Input[ticks];
        for (int k = 0; k < ticks; k++) {
            inputs[k] = new Walker.Input();
            for (int f = 0; f < width; f++)
                fields[f].SetValue(inputs[k], rows[k * width + f]);
        }
        double best = double.PositiveInfinity;
        Walker.FootBody body = null;
        for (int go = 0; go < 100; go++) {
            body = new Walker.FootBody();
            Stopwatch watch = Stopwatch.StartNew();
            for (int k = 0; k < ticks; k++)
                body.Tick(inputs[k], 1.0 / 60.0);
            best = Math.Min(best, watch.Elapsed.TotalMilliseconds * 1e6 / ticks);
        }
        Console.WriteLine("{0:R} {1:R} {2:R}", best, body.State.PositionX, body.State.PositionY);
    }
}
"""


def hand_loop(*options: str) -> Callable[..., None]:
    """Return the loop by hand, compiled with some options."""
    loop = compiled_c_loop(*options)
    assert loop is not None, "no C compiler"
    return loop


def main() -> None:
    walk = beekeeper_walk()
    package = packaged(walk_profile(), "walker")
    made = package.modes[0]
    names = [one.name for one in made.program.inputs]
    inputs = np.array([[made.inputs_from(row)[name] for name in names] for row in walk.rows.tolist()])
    folder = Path(tempfile.mkdtemp(prefix="walker"))
    for target in TARGETS.values():
        for name, text in target.sources(package).items():
            (folder / name).write_text(text, encoding="utf-8")
    inputs.tofile(folder / "inputs.bin")
    np.savetxt(folder / "inputs.csv", inputs, delimiter=",", fmt="%.17g")
    (folder / "bench.c").write_text(C)
    subprocess.run(
        ["gcc", "-O3", "-shared", "-fPIC", "-o", "bench.so", "bench.c", "walker.c", "-lm"], cwd=folder, check=True
    )
    exported = ctypes.CDLL(str(folder / "bench.so")).run_exported
    numbers = np.ctypeslib.ndpointer(dtype=np.float64, flags="C_CONTIGUOUS")
    exported.argtypes = [numbers, ctypes.c_double, numbers, ctypes.c_size_t, ctypes.c_size_t]
    loop, alike = hand_loop(), hand_loop("-DSAME_MATHS")
    ticks, width = walk.rows.shape
    filled, outcomes, tuning = np.zeros((ticks, C_OUTCOME)), np.zeros(200), c_tuning()
    by_hand, by_alike, by_export = [], [], []
    for _ in range(ROUNDS):
        start = time.perf_counter()
        for _ in range(GOES):
            alike(tuning, walk.rows, 1.0 / HZ, filled, ticks, width, walk.layout.view + 1)
        by_alike.append((time.perf_counter() - start) / GOES / ticks * 1e9)
        start = time.perf_counter()
        for _ in range(GOES):
            loop(tuning, walk.rows, 1.0 / HZ, filled, ticks, width, walk.layout.view + 1)
        middle = time.perf_counter()
        for _ in range(GOES):
            exported(inputs, 1.0 / HZ, outcomes, ticks, inputs.shape[1])
        by_hand.append((middle - start) / GOES / ticks * 1e9)
        by_export.append((time.perf_counter() - middle) / GOES / ticks * 1e9)
    apart = float(np.abs(outcomes[:2] - filled[-1, C_POSITION][:2]).max())
    hand = statistics.median(by_hand)
    speed = statistics.median(a / b for a, b in zip(by_hand, by_export, strict=True))
    print(f"C loop by hand, gcc -O3:  {hand:6.1f} ns a tick")
    spent = statistics.median(by_export)
    print(f"exported C, gcc -O3:      {spent:6.1f} ns, {speed:.2f} x its speed, {apart:.1e} m apart")
    ratio = statistics.median(a / b for a, b in zip(by_alike, by_export, strict=True))
    print(
        f"C loop, same roots:       {statistics.median(by_alike):6.1f} ns; exported C is at {ratio:.2f} x its speed"
    )
    (folder / "bench.mjs").write_text(JAVASCRIPT)
    (folder / "bench.lua").write_text(LUA % ", ".join(f'"{name}"' for name in names))
    (folder / "Bench.cs").write_text(CSHARP)
    (folder / "package.json").write_text('{ "type": "module" }')
    ways = {"JavaScript, node": ["node", "bench.mjs"]}
    ways |= {"Lua, LuaJIT": ["luajit", "bench.lua"], "Lua 5.4": ["lua5.4", "bench.lua"]}
    if shutil.which("mcs"):
        subprocess.run(["mcs", "-optimize+", "-out:bench.exe", "Bench.cs", "Walker.cs"], cwd=folder, check=True)
        ways["C#, mono"] = ["mono", "bench.exe"]
    for words, command in ways.items():
        if shutil.which(command[0]):
            done = subprocess.run(command, cwd=folder, check=True, capture_output=True, text=True)
            spent = float(done.stdout.split()[0])
            print(f"{words + ':':25} {spent:6.1f} ns, {hand / spent:.2f} x its speed")


if __name__ == "__main__":
    main()
