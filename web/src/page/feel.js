/** The effect of a change on the feel sheet, which Python measures during play. */

import { same } from "../models/settings.js";

const MEASURE_MS = 60;

export class Feel {
    /** @param {Object} app what main.js passes */
    constructor(app) {
        this.app = app;
        this.sheet = null;
        /** Number of requests so far: only the latest one counts. */
        this.turn = 0;
        this.forget();
    }

    /** The next change is the first one. */
    forget() {
        this.reference = { path: null, sheet: null };
        /** The shown effect of the last change. */
        this.effect = null;
    }

    /** Measures after a field was changed; the path is null if that was not the reason. */
    measure(path) {
        const { app } = this;
        if (!app.wire?.open || app.trial.blind) return;
        const key = JSON.stringify([app.helm.mode, app.profile.text, app.settings.plain()]);
        if (path === null && key === this.measured) {
            // The rows may have been rebuilt.
            if (this.effect) app.numbers.showEffect(this.effect.path, this.effect.lines);
            return;
        }
        this.measured = key;
        const of = path ?? this.#lastChanged();
        if (path !== null && path !== this.reference.path) this.reference = { path, sheet: this.sheet, changes: this.#before(path) };
        // The file or the mode has changed: the effect of the last change is measured again.
        else if (path === null && of !== null) this.reference = { ...this.reference, sheet: null };
        clearTimeout(this.measuring);
        this.measuring = setTimeout(() => this.#ask(of), path === null ? 0 : MEASURE_MS);
    }

    /** The field whose effect is shown or measured; null if it has been taken back, or does not belong to this mode. */
    #lastChanged() {
        const { path } = this.reference;
        return path !== null && this.app.settings.isChanged(path) && this.app.numbers.has(path) ? path : null;
    }

    /** The changes before the last one, which was of that field. */
    #before(path) {
        const { settings } = this.app;
        const changes = settings.plain();
        const last = settings.done[settings.done.length - 1];
        delete changes[path];
        if (last?.path === path && !same(last.before, settings.fileValue(path))) changes[path] = last.before;
        return changes;
    }

    async #ask(path) {
        const { app, reference } = this;
        const turn = ++this.turn;
        const changes = app.settings.plain();
        const { mode } = app.helm;
        if (path !== null && !reference.sheet) {
            // Changed before anything was measured, so the old value is measured now.
            const was = await app.wire.ask({ do: "feel", changes: reference.changes, mode });
            if (was.kind === "feel") reference.sheet = was.rows;
            // A further request would supersede one made since.
            if (turn !== this.turn) return;
        }
        const answer = await app.wire.ask({ do: "feel", changes, mode });
        if (answer.kind === "refused") {
            app.notices.fault("form", answer.faults, answer.faults.some(({ where }) => where) ? "these values do not fit together and cannot be saved" : "");
            return;
        }
        if (answer.kind === "feel") app.notices.clear("form");
        if (answer.kind === "feel" && mode === app.helm.mode) {
            const before = reference.sheet;
            this.sheet = answer.rows;
            if (path !== null && before && reference === this.reference) {
                this.effect = { path, lines: differences(before, answer.rows) };
                app.numbers.showEffect(path, this.effect.lines);
            }
        }
        const checked = await app.wire.ask({ do: "findings", changes });
        if (checked.kind === "findings") app.numbers.showFindings(checked.rows);
    }
}

/** The differences between two feel sheets, in words. */
export function differences(before, after) {
    const was = new Map(before.map((row) => [row.name, row]));
    return after
        .filter(({ name, words }) => was.has(name) && was.get(name).words !== words)
        .map(({ name, unit, words, value }) => {
            const arrow = value > was.get(name).value ? "↑" : "↓";
            return `${name.replaceAll("_", " ").replace(/ (m s|deg s|s|m|deg|ratio)$/, "")} ${arrow} ${was.get(name).words} → ${words} ${unit}`;
        });
}
