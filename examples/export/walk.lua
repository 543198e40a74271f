-- A walk by the exported beekeeper: forward, then to the right up to a fence, then no keys; on
-- the way a puff of smoke.
--
--   wendonic export demo-out/beekeeper.toml --as lua --out beekeeper_lua
--   LUA_PATH="beekeeper_lua/?.lua" lua5.4 walk.lua
local beekeeper = require("beekeeper")

local FENCE_X = 2.0

local state, input, result = beekeeper.new_state(), beekeeper.new_input(), beekeeper.new_result()
for tick = 1, 120 do
    -- W is held for a second, D from half a second on; after a second and a half nothing is.
    input.key_w = tick <= 60 and 1.0 or 0.0
    input.key_d = tick > 30 and tick <= 90 and 1.0 or 0.0
    -- The game says in each tick whether it is held, or only when that changes.
    beekeeper.press_smoke(input, tick > 45 and tick <= 55 and 1.0 or 0.0)
    beekeeper.tick(state, input, 1.0 / 60.0, result)
    beekeeper.discard_counts(input)
    if result.smoke_began > 0.0 then
        print(("%.2f s: smoke"):format(tick / 60))
    end
    local x = math.min(result.game_position_x, FENCE_X)
    if result.game_position_x > FENCE_X then
        -- The game has a fence: it says where the body is, and that its speed to the right is gone.
        beekeeper.place(state, x, result.game_position_y, result.game_position_z)
        beekeeper.set_velocity(state, 0.0, result.game_velocity_y, result.game_velocity_z)
    end
    if tick % 15 == 0 then
        local speed = math.sqrt(result.game_velocity_x ^ 2 + result.game_velocity_z ^ 2)
        print(("%.2f s: at %.3f %.3f %.3f, %.3f m/s, facing %.1f deg"):format(tick / 60, x,
            result.game_position_y, result.game_position_z, speed, result.face_deg))
    end
end
