/** How a stick, an axis or a trigger responds, by trial: the tick function itself, from rest, over tilts from 0 to 1. */

const POINTS = 64;
const MOST_TICKS = 25;
const HALVINGS = 10;
/** Below this an amount counts as 0. */
export const NOTHING = 1e-9;

const COLUMNS = { look: "look_yaw_deg", move: "local_x" };
const UPWARDS = "look_pitch_deg";

/** The amount (or share of the fastest turn) that each tilt gives: to the right, or of an axis or trigger in its own
 *  direction, or up for a stick that turns the view up and down only. Returns pairs of tilt and amount, and the numbers
 *  of the axes that count: 0 to the right, 1 up.
 *  @param {import("../play/mode_run.js").ModeRun} run
 *  @param {"move"|"look"|"rise"|"throttle"|"turn"} channel @param {number} start where its raw number stands in a row */
export function response(run, channel, start) {
    const found = tried(run, COLUMNS[channel] ?? channel, start);
    if (channel !== "look") return { points: found, axes: [0, 1] };
    const both = [found, tried(run, UPWARDS, start + 1)];
    const axes = [0, 1].filter((axis) => both[axis].some(([, amount]) => amount > NOTHING));
    const points = both[axes[0] ?? 0];
    const most = Math.max(...points.map(([, amount]) => amount), NOTHING);
    for (const pair of points) pair[1] /= most;
    return { points, axes };
}

/** What a column holds at each tilt of the raw number at `start`. */
function tried(run, name, start) {
    const column = run.content.columns.find((each) => each[0] === name);
    const index = column[2][0];
    if (typeof index !== "number") return [];
    const row = run.content.bindings.atRest.slice();
    const amountAt = (tilt) => {
        row[start] = tilt;
        let record = run.content.recordAtRest;
        let last = NaN;
        for (let tick = 0; tick < MOST_TICKS; tick++) {
            record = run.tick(record, row, 0.1);
            if (Math.abs(record[index] - last) < 1e-5) break;
            last = record[index];
        }
        return Math.abs(record[index]);
    };
    const found = Array.from({ length: POINTS + 1 }, (_, point) => [point / POINTS, amountAt(point / POINTS)]);
    const first = found.findIndex(([, amount]) => amount > NOTHING);
    if (first > 0) {
        // Where the dead zone ends, to a ten-thousandth.
        let [dead, alive] = [found[first - 1][0], found[first][0]];
        for (let halving = 0; halving < HALVINGS; halving++) {
            const middle = (dead + alive) / 2;
            if (amountAt(middle) > NOTHING) alive = middle;
            else dead = middle;
        }
        found.splice(first, 0, [dead, 0]);
    }
    return found;
}
