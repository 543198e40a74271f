/** Notices, one of each kind at a time; each can be dismissed. */

import { element } from "./element.js";

const STAYS_MS = 6000;

export class Notices {
    constructor(root) {
        this.root = root;
        this.shown = new Map();
    }

    say(kind, text) {
        this.#put(kind, "notice", text);
        const made = this.shown.get(kind);
        setTimeout(() => this.shown.get(kind) === made && kind !== "tabs" && this.clear(kind), STAYS_MS);
    }

    /** @param {Array<{line?: number, where?: string, what: string}>} faults */
    fault(kind, faults, head = "") {
        const lines = faults.map(({ line, where, what }) => [line ? `line ${line}` : "", where ?? "", what].filter(Boolean).join(": "));
        this.#put(kind, "fault", [head, ...lines].filter(Boolean).join("\n"));
    }

    clear(kind) {
        this.shown.get(kind)?.remove();
        this.shown.delete(kind);
    }

    #put(kind, className, text) {
        const away = element("button", { textContent: "Close", onclick: () => this.clear(kind) });
        const made = element("div", { className, "data-kind": kind }, element("p", { textContent: text }), away);
        const old = this.shown.get(kind);
        if (old) old.replaceWith(made);
        else this.root.append(made);
        this.shown.set(kind, made);
    }
}
