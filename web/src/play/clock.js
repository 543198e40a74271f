/** From frames of a display to ticks: one a frame, a fixed number a second, or uneven ones. */

export const RATES = ["display", "30", "60", "144", "uneven"];

/** At most this much time is caught up after a long frame. */
const MOST_S = 0.25;
/** Uneven ticks, in turn: what a busy game may give. */
const UNEVEN_S = [1 / 60, 1 / 60, 1 / 30, 1 / 60, 1 / 90, 1 / 60, 1 / 20, 1 / 60];

export class Clock {
    constructor(rate = "display") {
        this.rate = rate;
        this.left = 0;
        this.turn = 0;
    }

    set(rate) {
        this.rate = rate;
        this.left = 0;
    }

    /** The lengths (s) of the ticks in a frame of this many seconds. */
    ticks(frameS) {
        const time = Math.min(Math.max(frameS, 0), MOST_S);
        if (this.rate === "display") return time > 0 ? [time] : [];
        this.left += time;
        const found = [];
        for (;;) {
            const step = this.rate === "uneven" ? UNEVEN_S[this.turn % UNEVEN_S.length] : 1 / Number(this.rate);
            if (this.left < step - 1e-9) return found;
            this.left -= step;
            this.turn++;
            found.push(step);
        }
    }
}
