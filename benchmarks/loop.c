/* The beekeeper's tick as a plain C loop: what the compiled batch is measured against. */
#include <math.h>
#include <stddef.h>

/* The same roots and powers as exported source takes. */
#ifdef SAME_MATHS
#define hypot(x, y) sqrt((x) * (x) + (y) * (y))
#define pow(base, exponent) ((base) == 0.5 ? exp2(-(exponent)) : (pow)(base, exponent))
#endif

static const double PI = 3.14159265358979323846;

static double ramp(double value, double target, double rise_s, double fall_s, double dt)
{
    if (value == target || dt <= 0.0)
        return value;
    if (value * target < 0.0 || target == 0.0) {
        double needed_s = fabs(value) * fall_s;
        if (needed_s > dt)
            return value - copysign(dt / fall_s, value);
        dt -= needed_s;
        value = 0.0;
    }
    if (fabs(target - value) * rise_s > dt)
        return value + copysign(dt / rise_s, target - value);
    return target;
}

static double followed(double smooth, double begin, double end, double duration_s, double half_life_s)
{
    if (duration_s <= 0.0)
        return smooth;
    const double lag = (end - begin) / duration_s * half_life_s / log(2.0);
    return end - lag + (smooth - begin + lag) * pow(0.5, duration_s / half_life_s);
}

static double ramp_felt(double value, double target, double rise_s, double fall_s, double dt, double half_life_s)
{
    const double share = -expm1(-log(2.0) * dt / half_life_s);
    double smooth = 0.0, left_s = dt;
    if (value * target < 0.0 || target == 0.0) {
        const double part_s = fabs(value) * fall_s;
        if (part_s > left_s)
            return followed(smooth, value, value - copysign(left_s / fall_s, value), left_s, half_life_s) / share;
        smooth = followed(smooth, value, 0.0, part_s, half_life_s);
        value = 0.0;
        left_s -= part_s;
    }
    const double part_s = fabs(target - value) * rise_s;
    if (part_s > left_s)
        return followed(smooth, value, value + copysign(left_s / rise_s, target - value), left_s, half_life_s) / share;
    smooth = followed(smooth, value, target, part_s, half_life_s);
    return followed(smooth, target, target, left_s - part_s, half_life_s) / share;
}

static double wrapped(double angle)
{
    if (angle > PI)
        return angle - 2.0 * PI;
    if (angle <= -PI)
        return angle + 2.0 * PI;
    return angle;
}

/* The mean of a key's ramp in a tick, and how long it runs. */
static double mean_of_ramp(double key, double end, double target, double rise_s, double fall_s, double dt, double *run)
{
    const double whole = key * target < 0.0 || target == 0.0 ? fabs(key) * fall_s + fabs(target) * rise_s
                                                             : fabs(target - key) * rise_s;
    *run = fmin(whole, dt);
    return end + 0.5 * (key - end) * *run / dt;
}

typedef struct {
    double vel_x, vel_y, pos_x, pos_y;
} body;

static void walk(body *at, double wanted_x, double wanted_y, double accel, double brake, double dt)
{
    const double step_x = wanted_x - at->vel_x, step_y = wanted_y - at->vel_y, step = hypot(step_x, step_y);
    at->pos_x += at->vel_x * dt;
    at->pos_y += at->vel_y * dt;
    if (step == 0.0 || dt <= 0.0)
        return;
    const double way_x = step_x / step, way_y = step_y / step;
    const double falling = fmin(fmax(-(at->vel_x * way_x + at->vel_y * way_y), 0.0), step);
    const double brake_s = fmin(falling / brake, dt);
    const double accel_s = fmin((step - falling) / accel, dt - brake_s);
    const double braked = brake * brake_s, gained = accel * accel_s;
    const double along = 0.5 * braked * brake_s + braked * (dt - brake_s) + 0.5 * gained * accel_s +
                         gained * (dt - brake_s - accel_s);
    at->pos_x += way_x * along;
    at->pos_y += way_y * along;
    if (accel_s < dt - brake_s) {
        at->vel_x = wanted_x;
        at->vel_y = wanted_y;
    } else {
        at->vel_x += way_x * (braked + gained);
        at->vel_y += way_y * (braked + gained);
    }
}

/* Meets a wanted velocity that runs straight, then keeps up with it, or falls behind. */
static void follow_part(body *at, double from_x, double from_y, double to_x, double to_y, double accel, double brake,
                   double dt)
{
    const double gap_x = from_x - at->vel_x, gap_y = from_y - at->vel_y, away = hypot(gap_x, gap_y);
    double meet = 0.0;
    if (away > 0.0) {
        const double rate = at->vel_x * gap_x + at->vel_y * gap_y < 0.0 ? brake : accel;
        const double closes = rate - ((to_x - from_x) * gap_x + (to_y - from_y) * gap_y) / away / dt;
        meet = closes > 0.0 && away < closes * dt ? away / closes : dt;
    }
    double at_x = from_x + (to_x - from_x) * meet / dt, at_y = from_y + (to_y - from_y) * meet / dt;
    if (meet >= dt) {
        /* Not met: towards the middle, as far as the end is. */
        const double way_x = 0.5 * (from_x + to_x) - at->vel_x, way_y = 0.5 * (from_y + to_y) - at->vel_y;
        const double longer = hypot(to_x - at->vel_x, to_y - at->vel_y) / fmax(hypot(way_x, way_y), 1e-12);
        at_x = at->vel_x + way_x * longer;
        at_y = at->vel_y + way_y * longer;
    }
    walk(at, at_x, at_y, accel, brake, meet);
    const body met = *at;
    walk(at, to_x, to_y, accel, brake, dt - meet);
    if (at->vel_x == to_x && at->vel_y == to_y) {
        at->pos_x = met.pos_x + 0.5 * (met.vel_x + to_x) * (dt - meet);
        at->pos_y = met.pos_y + 0.5 * (met.vel_y + to_y) * (dt - meet);
    }
}

/* Follows a wanted velocity that runs straight; where the way to it is not, in parts of at most 1/240 s. */
static void follow(body *at, double from_x, double from_y, double to_x, double to_y, double accel, double brake,
                   double dt)
{
    const double run_x = to_x - from_x, run_y = to_y - from_y;
    const double gap_x = from_x - at->vel_x, gap_y = from_y - at->vel_y, across = gap_x * run_y - gap_y * run_x;
    int parts = 1;
    const double runs = run_x * run_x + run_y * run_y;
    if (runs > 1e-12 && across * across > 1e-12 * runs)
        parts = (int)fmax(1.0, ceil(dt * 240.0 - 1e-6));
    double last_x = from_x, last_y = from_y;
    for (int part = 0; part < parts; part++) {
        const double share = (part + 1.0) / parts, next_x = from_x + run_x * share, next_y = from_y + run_y * share;
        follow_part(at, last_x, last_y, next_x, next_y, accel, brake, dt / parts);
        last_x = next_x;
        last_y = next_y;
    }
}

/* tuning: rise_s fall_s inner outer release exponent half_life_s turn_rate top_speed accel brake.
   samples: `width` numbers a tick, keys at 0 (right left forward back), stick at 4 (right forward), the view's yaw at
   `view`. outcomes: 14 numbers a tick. */
void run_ticks(const double *tuning, const double *samples, double dt, double *outcomes, size_t ticks, size_t width,
               size_t view)
{
    const double rise_s = tuning[0], fall_s = tuning[1], inner = tuning[2], outer = tuning[3], release = tuning[4];
    const double exponent = tuning[5], half_life_s = tuning[6], turn_rate = tuning[7];
    const double top_speed = tuning[8], accel = tuning[9], brake = tuning[10];
    int out = 0;
    double key_x = 0, key_y = 0, local_x = 0, local_y = 0, face = 0;
    body at = {0, 0, 0, 0};
    for (size_t k = 0; k < ticks; k++) {
        const double *sample = samples + width * k;
        const double yaw = sample[view];
        double raw_x = sample[0] - sample[1], raw_y = sample[2] - sample[3];
        const double was_key_x = key_x, was_key_y = key_y, target_x = raw_x, target_y = raw_y;
        double x = key_x, y = key_y;
        if ((key_x != raw_x || key_y != raw_y) && (key_x != 0 || raw_x != 0) && (key_y != 0 || raw_y != 0)) {
            const double part_s = dt / 8, kept = pow(0.5, part_s / half_life_s);
            const double share = -expm1(-log(2.0) * dt / half_life_s);
            const double end_x = ramp(key_x, raw_x, rise_s, fall_s, dt);
            const double end_y = ramp(key_y, raw_y, rise_s, fall_s, dt);
            double smooth_x = 0, smooth_y = 0;
            for (int part = 0; part < 8; part++) {
                const double felt_x = ramp_felt(key_x, raw_x, rise_s, fall_s, part_s, half_life_s);
                const double felt_y = ramp_felt(key_y, raw_y, rise_s, fall_s, part_s, half_life_s);
                key_x = ramp(key_x, raw_x, rise_s, fall_s, part_s);
                key_y = ramp(key_y, raw_y, rise_s, fall_s, part_s);
                const double length = fmax(hypot(felt_x, felt_y), 1.0);
                smooth_x = felt_x / length + (smooth_x - felt_x / length) * kept;
                smooth_y = felt_y / length + (smooth_y - felt_y / length) * kept;
            }
            x = smooth_x / share;
            y = smooth_y / share;
            key_x = end_x;
            key_y = end_y;
        } else if (key_x != raw_x) {
            x = ramp_felt(key_x, raw_x, rise_s, fall_s, dt, half_life_s);
            key_x = ramp(key_x, raw_x, rise_s, fall_s, dt);
        } else if (key_y != raw_y) {
            y = ramp_felt(key_y, raw_y, rise_s, fall_s, dt, half_life_s);
            key_y = ramp(key_y, raw_y, rise_s, fall_s, dt);
        }
        int runs = was_key_x != target_x || was_key_y != target_y;
        double length = hypot(x, y), index = 0;
        const double tilt = hypot(sample[4], sample[5]);
        out = tilt > (out ? release : inner);
        if (out) {
            const double share = tilt >= outer ? 1.0 : tilt > inner ? (tilt - inner) / (outer - inner) : 1e-12;
            const double amount = pow(share, exponent);
            if (amount > length) {
                length = amount;
                index = 1;
                raw_x = sample[4];
                raw_y = sample[5];
                x = raw_x / tilt * amount;
                y = raw_y / tilt * amount;
                runs = 0;
            }
        } else if (length == 0.0 && raw_x == 0.0 && raw_y == 0.0) {
            raw_x = sample[4];
            raw_y = sample[5];
        }
        const double size = hypot(x, y);
        if (size > 1.0) {
            x *= 1.0 / size;
            y *= 1.0 / size;
        }
        const double was_x = local_x, was_y = local_y;
        const double left = half_life_s > 0.0 ? pow(0.5, dt / half_life_s) : 0.0;
        local_x = x + (local_x - x) * left;
        local_y = y + (local_y - y) * left;
        double amount = hypot(local_x, local_y);
        if (length == 0.0 && amount < 1e-3)
            local_x = local_y = amount = 0.0;
        else if (amount > 1.0)
            amount = 1.0;
        const double sine = sin(yaw), cosine = cos(yaw);
        const double move_x = local_x * cosine + local_y * sine;
        const double move_y = local_y * cosine - local_x * sine;
        double heading = 0.0;
        if (amount > 0.0) {
            heading = atan2(move_x, move_y);
            const double difference = wrapped(heading - face), step = turn_rate * dt;
            face = fabs(difference) <= step ? heading : wrapped(face + copysign(step, difference));
        }
        const double wanted_x = move_x * top_speed, wanted_y = move_y * top_speed;
        if (fabs(local_x - was_x) + fabs(local_y - was_y) > 1e-5) {
            double mean_x = x, mean_y = y;
            if (runs) {
                double run_x, run_y;
                mean_x = mean_of_ramp(was_key_x, key_x, target_x, rise_s, fall_s, dt, &run_x);
                mean_y = mean_of_ramp(was_key_y, key_y, target_y, rise_s, fall_s, dt, &run_y);
                const double long_mean = fmax(hypot(mean_x, mean_y), 1.0);
                mean_x /= long_mean;
                mean_y /= long_mean;
            }
            const double lag = half_life_s / (dt * log(2.0)), first = fmin(0.5 * dt, 2.0 * half_life_s);
            const double step_x = local_x - was_x, step_y = local_y - was_y;
            double over_x = 2.0 * (mean_x - step_x * lag) - local_x + step_x * first / dt;
            double over_y = 2.0 * (mean_y - step_y * lag) - local_y + step_y * first / dt;
            const double most = fmax(hypot(was_x, was_y), fmax(hypot(local_x, local_y), hypot(mean_x, mean_y)));
            const double over = hypot(over_x, over_y);
            if (over > most) {
                over_x *= most / over;
                over_y *= most / over;
            }
            const double from_x = was_x * cosine + was_y * sine, from_y = was_y * cosine - was_x * sine;
            const double corner_x = (over_x * cosine + over_y * sine) * top_speed;
            const double corner_y = (over_y * cosine - over_x * sine) * top_speed;
            follow(&at, from_x * top_speed, from_y * top_speed, corner_x, corner_y, accel, brake, first);
            follow(&at, corner_x, corner_y, wanted_x, wanted_y, accel, brake, dt - first);
        } else {
            walk(&at, wanted_x, wanted_y, accel, brake, dt);
        }
        double *row = outcomes + 14 * k;
        row[0] = length > 0.0 ? index : -1.0;
        row[1] = raw_x;
        row[2] = raw_y;
        row[3] = local_x;
        row[4] = local_y;
        row[5] = move_x;
        row[6] = move_y;
        row[7] = amount;
        row[8] = heading;
        row[9] = face;
        row[10] = at.pos_x;
        row[11] = at.pos_y;
        row[12] = at.vel_x;
        row[13] = at.vel_y;
    }
}
