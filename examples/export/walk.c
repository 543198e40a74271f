/* A walk by the exported beekeeper: forward, then to the right up to a fence, then no keys; on
   the way a puff of smoke.

   wendonic export demo-out/beekeeper.toml --as c99 --out beekeeper_c
   gcc -std=c99 -I beekeeper_c walk.c beekeeper_c/beekeeper.c -o walk -lm && ./walk */
#include "beekeeper.h"

#include <math.h>
#include <stdio.h>

static const double FENCE_X = 2.0;

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
        /* The game says in each tick whether it is held, or only when that changes. */
        beekeeper_press_smoke(&input, tick > 45 && tick <= 55);
        beekeeper_tick(&state, &input, 1.0 / 60.0, &result);
        beekeeper_discard_counts(&input);
        if (result.smoke_began > 0.0)
            printf("%.2f s: smoke\n", tick / 60.0);
        const double x = fmin(result.game_position_x, FENCE_X);
        if (result.game_position_x > FENCE_X) {
            /* The game has a fence: it says where the body is, and that its speed to the right is gone. */
            beekeeper_place(&state, x, result.game_position_y, result.game_position_z);
            beekeeper_set_velocity(&state, 0.0, result.game_velocity_y, result.game_velocity_z);
        }
        if (tick % 15 == 0)
            printf("%.2f s: at %.3f %.3f %.3f, %.3f m/s, facing %.1f deg\n", tick / 60.0, x,
                result.game_position_y, result.game_position_z,
                hypot(result.game_velocity_x, result.game_velocity_z), result.face_deg);
    }
    return 0;
}
