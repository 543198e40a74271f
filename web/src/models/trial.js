/** Two sets of numbers: shown by their names, or blind, where they swap unlabelled and votes are counted. */

import { settled } from "./preference.js";

export class Trial {
    /** @param {() => number} random from 0 up to 1 */
    constructor(random = Math.random) {
        this.random = random;
        this.side = "a";
        this.blind = false;
        this.votes = [];
    }

    get counts() {
        const a = this.votes.filter(({ side }) => side === "a").length;
        return { a, b: this.votes.length - a };
    }

    get verdict() {
        const { a, b } = this.counts;
        return settled(a, b);
    }

    /** Begins a blind trial: chance decides which of the two is felt first. */
    begin() {
        this.blind = true;
        this.votes = [];
        this.#draw();
    }

    end() {
        this.blind = false;
    }

    swap() {
        this.side = this.side === "a" ? "b" : "a";
    }

    #draw() {
        this.side = this.random() < 0.5 ? "a" : "b";
    }

    /** "This one": a vote for the present one; then chance decides which comes next. */
    vote(t = 0) {
        if (!this.blind || this.verdict) return;
        this.votes.push({ side: this.side, t });
        this.#draw();
        if (this.verdict) this.end();
    }
}
