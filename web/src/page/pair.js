/** A and B: two sets of numbers, swapped while walking, and voted on without knowing which is which. */

import { download } from "./download.js";

export class Pair {
    /** @param {Object} app what main.js passes */
    constructor(app) {
        this.app = app;
    }

    swap() {
        this.app.trial.swap();
        this.#felt();
    }

    /** Plays the present side. */
    #felt() {
        const { app } = this;
        const { settings, helm, tuner } = app;
        const values = settings.values();
        if (settings.profile !== app.profile) tuner.play(settings.profile);
        else if (helm.keepsStructure(values)) tuner.retune(values);
        else helm.retune(settings.good ?? app.profile.values);
        app.numbers.build();
        app.bar.show();
        app.readings.retuned();
        app.feel.forget();
        app.feel.measure(null);
    }

    /** Begins a blind trial, or ends it. */
    blind() {
        const { trial, sides, notices } = this.app;
        if (trial.blind) trial.end();
        else {
            if (sides.a.isLike(sides.b)) {
                notices.say("trial", "A and B are the same: press F3 to go to B and change a number first");
                return;
            }
            trial.begin();
            notices.say("trial", "Blind trial: F3 swaps the two without saying which is which, F4 votes for the one you feel now. It ends when the votes settle it.");
        }
        document.body.classList.toggle("blind", trial.blind);
        this.#felt();
    }

    vote() {
        const { trial, helm, notices } = this.app;
        if (!trial.blind) return;
        trial.vote(helm.t);
        const { a, b } = trial.counts;
        if (trial.verdict) {
            document.body.classList.remove("blind");
            notices.say("trial", `Settled: ${trial.verdict.toUpperCase()} is preferred, A ${a} and B ${b} votes (95 % confidence, valid after each vote)`);
        }
        this.#felt();
    }

    /** Copies this side to the other one. */
    copy() {
        const { trial, sides, settings, notices } = this.app;
        sides[trial.side === "a" ? "b" : "a"].copy(settings);
        notices.say("trial", `${trial.side === "a" ? "B" : "A"} is now a copy of ${trial.side.toUpperCase()}`);
    }

    downloadVotes() {
        const { profile, sides, trial, file } = this.app;
        const head = { format: "wendonic-votes", version: 1, title: profile.title, a: sides.a.plain(), b: sides.b.plain() };
        const lines = [head, ...trial.votes.map(({ t, side }) => ({ t, vote: side }))];
        download(`${file.stem}_votes.jsonl`, `${lines.map((line) => JSON.stringify(line)).join("\n")}\n`);
    }
}
