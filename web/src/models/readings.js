/** Read off the play itself: press to movement, reach-90, stopping distance, how much faster diagonals are, jumps. */

const MOVING_M_S = 0.02;
const AT_REST = 1e-3;
const SETTLED_S = 0.1;
/** Who leaves the ground and rises less walked off an edge. */
const LEAST_JUMP_M = 0.1;

export class Readings {
    constructor() {
        this.pressToMoveS = null;
        this.reach90S = null;
        this.stopM = null;
        this.straightM_s = 0;
        this.diagonalM_s = 0;
        /** Height (m) and airtime (s) of the last jump, null before the first. */
        this.jump = null;
        this.reset();
    }

    /** Forgets what is under way: the body was placed, or the recording starts again. */
    reset() {
        this.rawWas = 0;
        this.speedWas = 0;
        this.push = null;
        this.stop = null;
        this.flight = null;
        this.floor = null;
    }

    get diagonalRatio() {
        return this.straightM_s > 0 && this.diagonalM_s > 0 ? this.diagonalM_s / this.straightM_s : null;
    }

    /** Takes one tick: time, length of the step, the raw request, speed, and how high the body is. */
    take({ t, dt, rawX, rawY, speed, height = 0, grounded = true }) {
        this.#fly(dt, height, grounded);
        const raw = Math.hypot(rawX, rawY);
        if (raw > AT_REST && this.rawWas <= AT_REST && this.speedWas < MOVING_M_S) {
            this.push = { t: t - dt, moved: false, speeds: [], steady: 0, last: 0 };
            this.stop = null;
        }
        if (raw <= AT_REST && this.rawWas > AT_REST && this.speedWas > MOVING_M_S) this.stop = { metres: 0 };
        this.#follow(t, dt, raw, speed);
        if (raw > 0.95) this.#directions(rawX, rawY, speed);
        this.rawWas = raw;
        this.speedWas = speed;
    }

    #fly(dt, height, grounded) {
        if (grounded) {
            if (this.flight && this.flight.top > this.flight.from + LEAST_JUMP_M) this.jump = { heightM: this.flight.top - this.flight.from, airtimeS: this.flight.airS };
            this.flight = null;
            this.floor = height;
        } else if (this.floor !== null) {
            this.flight ??= { from: this.floor, top: height, airS: 0 };
            this.flight.top = Math.max(this.flight.top, height);
            this.flight.airS += dt;
        }
    }

    #follow(t, dt, raw, speed) {
        const { push, stop } = this;
        if (push) {
            if (!push.moved && speed >= MOVING_M_S) {
                push.moved = true;
                this.pressToMoveS = t - push.t;
            }
            push.speeds.push([t, speed]);
            push.steady = Math.abs(speed - push.last) < 0.005 * Math.max(speed, MOVING_M_S) ? push.steady + dt : 0;
            push.last = speed;
            if (push.steady > SETTLED_S && speed > MOVING_M_S) {
                const reached = push.speeds.find(([, one]) => one >= 0.9 * speed);
                this.reach90S = reached[0] - push.t;
                this.push = null;
            } else if (raw <= AT_REST || push.speeds.length > 2000) {
                this.push = null;
            }
        }
        if (stop) {
            if (raw > AT_REST) {
                this.stop = null;
                return;
            }
            stop.metres += speed * dt;
            if (speed < MOVING_M_S) {
                this.stopM = stop.metres;
                this.stop = null;
            }
        }
    }

    #directions(rawX, rawY, speed) {
        const least = Math.min(Math.abs(rawX), Math.abs(rawY)) / Math.max(Math.abs(rawX), Math.abs(rawY));
        if (least < 0.05) this.straightM_s = Math.max(this.straightM_s, speed);
        else if (least > 0.9) this.diagonalM_s = Math.max(this.diagonalM_s, speed);
    }
}
