-- A walk by the exported beekeeper: forward, then to the right, then no keys.
--
--   wendonic export demo-out/beekeeper.toml --as lua --out beekeeper_lua
--   LUA_PATH="beekeeper_lua/?.lua" lua5.4 walk.lua
local beekeeper = require("beekeeper")

local state, input, result = beekeeper.new_state(), beekeeper.new_input(), beekeeper.new_result()
for tick = 1, 120 do
    -- W is held for a second, D from half a second on; after a second and a half nothing is.
    input.key_w = tick <= 60 and 1.0 or 0.0
    input.key_d = tick > 30 and tick <= 90 and 1.0 or 0.0
    beekeeper.tick(state, input, 1.0 / 60.0, result)
    if tick % 15 == 0 then
        local speed = math.sqrt(result.game_velocity_x ^ 2 + result.game_velocity_z ^ 2)
        print(("%.2f s: at %.3f %.3f %.3f, %.3f m/s, facing %.1f deg"):format(tick / 60, result.game_position_x,
            result.game_position_y, result.game_position_z, speed, result.face_deg))
    end
end
