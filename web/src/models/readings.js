/** Measured from play: press to movement, reach-90, stopping distance, how much faster diagonals are, jumps. */

const MOVING_M_S = 0.02;
/** A worn stick rests within this tilt. */
const AT_REST = 0.1;
/** A speed is steady if it has stayed within this share of itself for this long. */
const STEADY = 0.001;
const SETTLED_S = 0.25;
/** Longest time that anything is waited for. */
const LONGEST_S = 60;
/** A body that leaves the ground and rises less than this walked off an edge. */
const LEAST_JUMP_M = 0.1;

/**
 * When a row of [time, speed] that ends steady first reaches a speed: linear between two of them, but where it was
 * steady before the second one at the rate before.
 */
function timeAt(row, speed) {
    const index = row.findIndex(([, one]) => one >= speed);
    if (index <= 0) return row[0][0];
    const [[before, low], [after, high]] = row.slice(index - 1, index + 1);
    const within = ((after - before) * (speed - low)) / (high - low);
    if (index < 2 || high < 0.9999 * row.at(-1)[1]) return before + within;
    const [earlier, lower] = row[index - 2];
    return before + (low > lower ? Math.min(((before - earlier) * (speed - low)) / (low - lower), within) : within);
}

export class Readings {
    constructor() {
        this.pressToMoveS = null;
        this.reach90S = null;
        this.stopM = null;
        this.retuned();
        /** Height (m) and airtime (s) of the last jump, null before the first. */
        this.jump = null;
        this.reset();
    }

    /** Forgets what is under way: the body was placed, or the recording starts again. */
    reset() {
        this.rawWas = 0;
        this.speedWas = 0;
        this.xWas = this.yWas = null;
        this.push = null;
        this.stop = null;
        this.flight = null;
        this.floor = null;
        this.direction = null;
    }

    /** Forgets speeds that belong to other numbers. */
    retuned() {
        this.direction = null;
        /** Steady speeds, straight and diagonally, with the same presses held. */
        this.steady = { straight: 0, diagonal: 0, held: 0 };
    }

    get diagonalRatio() {
        const { straight, diagonal } = this.steady;
        return straight > 0 && diagonal > 0 ? diagonal / straight : null;
    }

    /**
     * Takes one tick: time, length of the step, the raw request, where the body is, its speed, how high it is, and which
     * presses are held (a bit each), since they may switch gaits.
     */
    take({ t, dt, rawX, rawY, x, y, speed, height = 0, grounded = true, held = 0 }) {
        this.#fly(dt, height, grounded);
        const movedM = this.xWas === null ? 0 : Math.hypot(x - this.xWas, y - this.yWas);
        const raw = Math.hypot(rawX, rawY);
        if (raw > AT_REST && this.rawWas <= AT_REST && this.speedWas < MOVING_M_S) {
            this.push = { t: t - dt, moved: false, speeds: [[t - dt, this.speedWas]], steady: { since: t - dt, at: 0 } };
            this.stop = null;
        }
        if (raw <= AT_REST && this.rawWas > AT_REST && this.speedWas > MOVING_M_S) this.stop = { metres: 0 };
        this.#follow(t, raw, speed, movedM);
        this.#compare(t, rawX, rawY, speed, held);
        this.rawWas = raw;
        this.speedWas = speed;
        this.xWas = x;
        this.yWas = y;
    }

    #fly(dt, height, grounded) {
        if (grounded) {
            if (this.flight && this.flight.top > this.flight.from + LEAST_JUMP_M) {
                const { top, from, airS, at, fallM } = this.flight;
                // It lands within a tick: after the share of it that the rest of the height takes at the last tick's fall.
                this.jump = { heightM: top - from, airtimeS: airS + (fallM > 0 ? dt * Math.min((at - height) / fallM, 1) : 0) };
            }
            this.flight = null;
            this.floor = height;
        } else if (this.floor !== null) {
            this.flight ??= { from: this.floor, top: height, airS: 0, at: this.floor, fallM: 0 };
            this.flight.fallM = this.flight.at - height;
            this.flight.at = height;
            this.flight.top = Math.max(this.flight.top, height);
            this.flight.airS += dt;
        }
    }

    #follow(t, raw, speed, movedM) {
        const { push, stop } = this;
        if (push) {
            if (!push.moved && speed >= MOVING_M_S) {
                push.moved = true;
                this.pressToMoveS = t - push.t;
            }
            push.speeds.push([t, speed]);
            if (Math.abs(speed - push.steady.at) > STEADY * push.steady.at) push.steady = { since: t, at: speed };
            if (t - push.steady.since > SETTLED_S && speed > MOVING_M_S) {
                this.reach90S = timeAt(push.speeds, 0.9 * speed) - push.t;
                this.push = null;
            } else if (raw <= AT_REST || t - push.t > LONGEST_S) {
                this.push = null;
            }
        }
        if (stop) {
            if (raw > AT_REST) {
                this.stop = null;
                return;
            }
            stop.metres += movedM;
            if (speed < MOVING_M_S) {
                this.stopM = stop.metres;
                this.stop = null;
            }
        }
    }

    /** Keeps the steady speeds straight and diagonally, not those while the body accelerates or turns. */
    #compare(t, rawX, rawY, speed, held) {
        const [less, more] = [Math.abs(rawX), Math.abs(rawY)].sort((a, b) => a - b);
        const name = Math.hypot(rawX, rawY) <= 0.95 ? "" : less < 0.05 * more ? "straight" : less > 0.9 * more ? "diagonal" : "";
        const { direction } = this;
        if (!direction || direction.name !== name || direction.held !== held || Math.abs(speed - direction.speed) > STEADY * direction.speed) {
            this.direction = { name, held, speed, since: t };
        } else if (name && t - direction.since > SETTLED_S) {
            if (this.steady.held !== held) this.steady = { straight: 0, diagonal: 0, held };
            // Along a wall or uphill it is slower.
            this.steady[name] = Math.max(this.steady[name], speed);
        }
    }
}
