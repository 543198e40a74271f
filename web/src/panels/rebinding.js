/** Keys and buttons in place of others: for this player, at once, and in the profile once it is saved. */

import { BUTTONS } from "../input/pads.js";
import { element } from "./element.js";

/** What the four directions of keys do, channel by channel: right, left, forward, back. */
const SIDES = {
    move: ["right", "left", "forward", "back"],
    look: ["look right", "look left", "look up", "look down"],
    rise: ["", "", "up", "down"],
    throttle: ["", "", "throttle forward", "throttle back"],
    turn: ["turn right", "turn left", "", ""],
};

export class Rebinding {
    constructor(app) {
        this.app = app;
        /** Which control each pressed one stands in for. */
        this.stands = new Map();
        this.waiting = null;
        this.list = element("table", {});
        this.dialog = element(
            "dialog",
            {},
            element("h2", { textContent: "Rebind" }),
            element("p", { textContent: "Choose a control, then press the key or pad button to use instead, wherever the profile binds it. If that one is already in use, the two swap." }),
            this.list,
            element("p", {}, element("button", { textContent: "Reset", onclick: () => this.clear() }), " ", element("button", { textContent: "Close", onclick: () => this.dialog.close() })),
        );
        document.body.append(this.dialog);
        this.dialog.addEventListener("keydown", (event) => this.#take(`key.${event.code}`, event), true);
        this.dialog.addEventListener("close", () => (this.waiting = null));
    }

    get size() {
        return this.stands.size;
    }

    /** The control that a pressed one stands in for. */
    control(pressed) {
        const found = this.stands.get(pressed);
        if (found) return found;
        // A control whose key was reassigned no longer responds to it.
        for (const old of this.stands.values()) if (old === pressed) return this.#spare(pressed);
        return pressed;
    }

    #spare(pressed) {
        const swapped = [...this.stands].find(([, old]) => old === pressed);
        return swapped ? swapped[0] : pressed;
    }

    /** For each control of the file, the one that stands in for it now. */
    plain() {
        const found = {};
        for (const [pressed, old] of this.stands) {
            found[old] = pressed;
            found[pressed] ??= old;
        }
        return found;
    }

    /** The same, for controls that the profile binds. */
    bound() {
        const names = new Set(this.#controls().map(({ name }) => name));
        return Object.fromEntries(Object.entries(this.plain()).filter(([control]) => names.has(control)));
    }

    /** Held controls would be released under another name. */
    #release() {
        this.app.give("lost.focus", 1, performance.now());
    }

    open() {
        this.#show();
        this.dialog.showModal();
    }

    clear() {
        this.take();
    }

    /** The file contains them now: held controls stay held, under their own names. */
    settle() {
        const { app } = this;
        const held = Object.entries(this.plain())
            .map(([old, pressed]) => ({ old, pressed, value: app.helm.state.value(old) }))
            .filter(({ value }) => value > 0);
        this.stands = new Map();
        this.waiting = null;
        const now = performance.now();
        for (const { old } of held) app.give(old, 0, now);
        for (const { pressed, value } of held) app.give(pressed, value, now);
    }

    /** Shows what the profile binds now. */
    refresh() {
        this.#show();
        this.app.bar.show();
    }

    /** Takes controls that replace those of the file. */
    take(stands = new Map()) {
        this.stands = stands;
        this.waiting = null;
        this.#release();
        this.refresh();
    }

    /** The controls that can be rebound, each with what it does in any of the modes. */
    #controls() {
        const { controls, helm, profile } = this.app;
        const found = new Map();
        const gather = (value, use) => {
            if (Array.isArray(value)) value.forEach((part) => gather(part, use));
            else if (typeof value === "number") found.set(value, (found.get(value) ?? new Set()).add(use));
        };
        for (const run of Object.values(helm.runs)) {
            const { channels, presses } = run.content.bindings;
            for (const [channel, sources] of Object.entries(channels))
                for (const source of sources) if (source.kind === "keys") source.lists.forEach((list, side) => gather(list, SIDES[channel][side]));
            presses.forEach((binds, number) => {
                for (const bind of binds) if (bind.kind === "switches") gather(bind.slots, profile.pressNames[number].replaceAll("_", " "));
            });
        }
        return [...found]
            .map(([slot, uses]) => ({ name: controls.bySlot.get(slot).name, uses: [...uses].join(", ") }))
            .filter(({ name }) => /^(key|pad\d*)\./.test(name));
    }

    #show() {
        const standing = this.plain();
        this.list.replaceChildren(
            ...this.#controls().map(({ name, uses }) => {
                const now = standing[name] ?? name;
                const button = element("button", {
                    textContent: this.waiting === name ? "press a key or button" : now,
                    "aria-pressed": this.waiting === name,
                    onclick: () => {
                        this.waiting = name;
                        this.#show();
                    },
                });
                const was = now === name ? "" : `was ${name}`;
                return element("tr", {}, element("td", { textContent: uses }), element("td", {}, button), element("td", { className: "was", textContent: was }));
            }),
        );
        if (this.waiting) this.list.querySelector("[aria-pressed=true]")?.focus();
    }

    /** Reads the pads once a frame while a control waits for a press. */
    poll() {
        if (!this.waiting) return;
        for (const pad of navigator.getGamepads?.() ?? []) {
            const number = pad ? pad.buttons.findIndex(({ value }) => value > 0.6) : -1;
            if (number >= 0 && BUTTONS[number]) this.#take(`${pad.index ? `pad${pad.index}` : "pad"}.${BUTTONS[number]}`, null);
        }
    }

    #take(pressed, event) {
        if (!this.waiting || !this.app.controls.byName.has(pressed)) return;
        if (event && event.code === "Escape") return;
        event?.preventDefault();
        event?.stopPropagation();
        for (const [one, old] of [...this.stands]) if (old === this.waiting || one === pressed) this.stands.delete(one);
        if (pressed !== this.waiting) this.stands.set(pressed, this.waiting);
        this.waiting = null;
        this.#release();
        this.refresh();
    }
}
