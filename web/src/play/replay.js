/** Plays a recording in a loop, tick by tick, through the present numbers. */

import { firstMode } from "./trace.js";

export class Replay {
    constructor(events, name) {
        this.events = events.filter(({ c }) => c !== "mark");
        this.marks = events.filter(({ c }) => c === "mark");
        this.name = name;
        this.start = events.length ? events[0].t : 0;
        this.duration = events.length ? events[events.length - 1].t - this.start : 0;
        this.mode = firstMode(events);
        this.rounds = 0;
        this.restart();
    }

    restart() {
        this.t = this.start;
        this.index = 0;
    }

    /** Hands over the events of the next dt seconds. Returns whether the recording has ended. */
    feed(dt, apply) {
        this.t += dt;
        while (this.index < this.events.length && this.events[this.index].t <= this.t) {
            const { t, c, v } = this.events[this.index++];
            if (!(c === "mode" && t === this.start)) apply(c, v);
        }
        return this.index >= this.events.length && this.t >= this.start + this.duration;
    }
}
