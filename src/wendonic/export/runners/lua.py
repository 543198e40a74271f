"""The runner in Lua."""

from wendonic.export.languages.lua import LuaPackage
from wendonic.export.languages.reserved import WORDS
from wendonic.export.languages.words import adjustable
from wendonic.export.made_ground import grounds_of
from wendonic.export.package import Package
from wendonic.export.vectors import vectors_name

TEXT = """-- Replays the test vectors: reads them, ticks, and compares every number.
local folder = arg[0]:match("^(.*)[/\\\\]") or "."
package.path = folder .. "/?.lua;" .. package.path
local profile = require("{stem}")

local reserved = {{ {reserved} }}
local ticks, worst, faults = 0, 0.0, 0
{grounds}
local function field(name)
    return reserved[name] and name .. "_" or name
end

local function split(line)
    local parts = {{}}
    for part in line:gmatch("[^,]+") do
        parts[#parts + 1] = part
    end
    return parts
end

local function run(mode, file, tick, new_state, new_input, new_result, more)
    local lines = {{}}
    for line in io.lines(folder .. "/" .. file) do
        lines[#lines + 1] = line
    end
    local names, rows, first = split(lines[1]), {{}}, nil
    for k = 2, #lines do
        local row = split(lines[k])
        for column = 1, #row do
            row[column] = tonumber(row[column]) + 0.0
        end
        rows[#rows + 1] = row
    end
    for column = #names, 1, -1 do
        if names[column]:sub(1, 5) == "want_" then
            first = column
        end
    end
    local whole, largest = {{}}, {{}}
    for column = first, #names do
        whole[column], largest[column] = true, 1.0
        for _, row in ipairs(rows) do
            whole[column] = whole[column] and row[column] == math.floor(row[column])
            largest[column] = math.max(largest[column], math.abs(row[column]))
        end
    end
    local input, state, result = new_input(), new_state(), new_result()
    for number, row in ipairs(rows) do
        if row[1] > 0.0 then
            state, result = new_state(), new_result()
{stands}        end
        for column = first, #names do
            local name = field(names[column]:sub(6))
            if row[1] > 0.0 and row[1] % 2.0 == 0.0 and state[name] ~= nil then
                state[name] = row[column]
            end
        end
        for column = 3, first - 1 do
            input[field(names[column])] = row[column]
        end
        tick(state, input, row[2], result, more)
        for column = first, #names do
            local name = field(names[column]:sub(6))
            local found = state[name]
            if found == nil then
                found = result[name]
            end
            local difference = math.abs(found - row[column]) / largest[column]
            local fits = difference <= 1e-12
            if whole[column] then
                fits = difference == 0.0
            end
            if not fits then
                faults = faults + 1
                if faults <= 3 then
                    io.stderr:write(
                        ("%s, tick %d, %s: %.17g, wanted %.17g\\n"):format(mode, number, name, found, row[column])
                    )
                end
            end
            if difference > worst then
                worst = difference
            end
        end
    end
    ticks = ticks + #rows
end

"""


def lua_runner(package: Package) -> dict[str, str]:
    """Return the runner by its file's name."""
    printed = LuaPackage(package)
    reserved = ", ".join(f'["{word}"] = true' for word in sorted(WORDS["lua"]))
    grounds = stands = ""
    if any("course" in made.program.tick.context for made in package.modes):
        rows = "".join(f"    {{ {', '.join(map(repr, row))} }},\n" for row in grounds_of(package.course))
        grounds = f"local grounds = {{\n{rows}}}\nlocal course = grounds[1]\n"
        stands = "            course = grounds[math.floor((row[1] + 1) / 2)]\n"
    text = TEXT.format(stem=package.stem, reserved=reserved, grounds=grounds, stands=stands)
    for made in package.modes:
        more = ""
        if adjustable(made.program):
            more += f"profile.new_{package.prefix(made)}settings(), "
        if "course" in made.program.tick.context:
            more += "course, "
        makers = ", ".join(
            printed.maker(made, kind).replace("M.", "profile.") for kind in ("state", "input", "result")
        )
        tick = f"profile.{package.prefix(made)}tick"
        text += (
            f'run("{package.word(made.mode)}", "{vectors_name(package, made)}", function(state, input, dt, result)\n'
            f"    {tick}(state, input, {more}dt, result)\nend, {makers})\n"
        )
    text += 'print(("%d ticks, worst difference %.1e"):format(ticks, worst))\nos.exit(faults > 0 and 1 or 0)\n'
    return {f"{package.stem}_runner.lua": text.replace(", more)", ")")}
