/** The body as a figure simple enough to read the feel by: how it leans, and where its feet are. */

const STRIDE_M = 0.72;
const LEAN_PER_M_S2 = 0.008;
const MOST_LEAN_M = 0.16;
const LEAN_S = 0.08;

export class Figure {
    constructor() {
        this.walked = 0;
        this.leanX = 0;
        this.leanY = 0;
        this.last = null;
        /** No leaning for a user who prefers reduced motion. */
        this.calm = false;
    }

    /** Follows one tick: place and velocity (m, m/s). */
    take(atX, atY, velX, velY, dt) {
        const { last } = this;
        if (last && dt > 0) {
            const step = Math.hypot(atX - last.atX, atY - last.atY);
            if (step < 2) this.walked += step;
            const share = 1 - Math.exp(-dt / LEAN_S);
            const [x, y] = this.calm ? [0, 0] : [(velX - last.velX) / dt, (velY - last.velY) / dt];
            this.leanX += (lean(x) - this.leanX) * share;
            this.leanY += (lean(y) - this.leanY) * share;
        }
        this.last = { atX, atY, velX, velY };
    }

    /** Where a foot is along the way, in metres before the body: 0 is the left one, 1 the right one. */
    foot(side) {
        return 0.5 * STRIDE_M * 0.55 * Math.sin((this.walked / STRIDE_M) * Math.PI + side * Math.PI);
    }
}

function lean(accel) {
    return Math.max(-MOST_LEAN_M, Math.min(MOST_LEAN_M, accel * LEAN_PER_M_S2));
}
