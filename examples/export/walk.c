/* A walk by the exported beekeeper: forward, then to the right, then no keys.

   wendonic export demo-out/beekeeper.toml --as c99 --out beekeeper_c
   gcc -std=c99 -I beekeeper_c walk.c beekeeper_c/beekeeper.c -o walk -lm && ./walk */
#include "beekeeper.h"

#include <math.h>
#include <stdio.h>

int main(void)
{
    beekeeper_state state;
    beekeeper_result result;
    beekeeper_input input;
    beekeeper_begin(&state, &result);
    beekeeper_input_at_rest(&input);
    for (int tick = 1; tick <= 120; tick++) {
        /* W is held for a second, D from half a second on; after a second and a half nothing is. */
        input.key_w = tick <= 60;
        input.key_d = tick > 30 && tick <= 90;
        beekeeper_tick(&state, &input, 1.0 / 60.0, &result);
        if (tick % 15 == 0)
            printf("%.2f s: at %.3f %.3f %.3f, %.3f m/s, facing %.1f deg\n", tick / 60.0, result.game_position_x,
                result.game_position_y, result.game_position_z,
                hypot(result.game_velocity_x, result.game_velocity_z), result.face_deg);
    }
    return 0;
}
