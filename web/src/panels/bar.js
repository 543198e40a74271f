/** The bar: mode, view, rate, A and B, recordings, and the file. */

import { votesToSettle } from "../models/preference.js";
import { RATES } from "../play/clock.js";
import { VIEWS } from "../stage/stage.js";
import { element } from "./element.js";

const HELP = [
    ["F2", "next view: from above, over the shoulder, through the eyes, from the side"],
    ["F3", "swap A and B"],
    ["F4", "“this one”, in a blind trial"],
    ["F6", "record, and stop"],
    ["F7", "pause the strips"],
    ["F8", "back to the start"],
    ["F9", "mark where it felt wrong, while recording"],
    ["Ctrl+Z, Ctrl+Y", "undo, redo"],
    ["Ctrl+S", "save into the file"],
    ["Escape", "release the mouse"],
];

const MOST_CHIPS = 2;
const WORDS = { display: "display rate", uneven: "uneven ticks", 30: "30 ticks/s", 60: "60 ticks/s", 144: "144 ticks/s" };
const NONE = "no replay";
const OPEN = "open a file…";

export class Bar {
    constructor(root, app) {
        this.app = app;
        this.title = element("h1", {});
        this.which = select("Profile", app.profiles.map(({ title }) => title), () => app.choose(this.which.selectedIndex));
        this.which.hidden = app.profiles.length < 2;
        this.modes = element("div", { className: "group" });
        this.view = select("View", VIEWS, (value) => {
            app.stage.show(value);
            app.focusStage();
        });
        this.rate = select("Ticks a second", RATES, (value) => {
            app.clock.set(value);
            app.focusStage();
        });
        this.side = element("button", { title: "F3 swaps", onclick: () => app.pair.swap() });
        this.copy = element("button", { textContent: "Copy", title: "Copy this set of numbers to the other one", onclick: () => app.pair.copy() });
        this.blind = element("button", { onclick: () => app.pair.blind() });
        this.vote = element("button", { textContent: "This one (F4)", hidden: true, onclick: () => app.pair.vote() });
        this.votes = element("span", { title: "how many votes would settle it if they go on like this" });
        this.record = element("button", { title: "F6", onclick: () => app.tape.record() });
        this.replay = select("Replay", [NONE, OPEN], (value) => this.#replay(value));
        this.file = element("input", { type: "file", accept: ".jsonl", hidden: true });
        this.file.onchange = () => this.#read(this.file.files[0]);
        this.save = element("button", { textContent: "Save", title: "Ctrl+S", onclick: () => app.file.save() });
        this.headset = element("button", { textContent: "Headset", hidden: true, title: "Enter the headset, or leave it", onclick: () => app.devices.enterHeadset() });
        this.rebind = element("button", { textContent: "Rebind", onclick: () => app.rebinding.open() });
        this.downloads = element("button", { textContent: "Votes", title: "Download the votes", onclick: () => app.pair.downloadVotes() });
        this.drawer = element("button", { className: "drawer-toggle", textContent: "Numbers", onclick: () => document.body.classList.toggle("closed") });
        const help = element("button", { textContent: "Keys", title: "F1", onclick: () => this.help() });
        root.append(
            this.title,
            this.drawer,
            this.which,
            this.modes,
            element("div", { className: "group rare" }, this.view, this.rate),
            element("div", { className: "group" }, this.side, this.vote, this.copy, this.blind, this.votes),
            element("div", { className: "group open" }, this.record),
            element("div", { className: "group open rare" }, this.replay, this.file),
            element("div", { className: "group push open rare" }, this.downloads, this.headset, this.rebind, help, this.save),
        );
        this.dialog = element(
            "dialog",
            {},
            element("h2", { textContent: "Keys of the page" }),
            element("table", {}, ...HELP.map(([key, what]) => element("tr", {}, element("td", {}, ...key.split(", ").flatMap((one) => [element("kbd", { textContent: one }), " "])), element("td", { textContent: what })))),
            element("p", { textContent: app.live
                ? "Save writes to the file and keeps its comments. Changes you save in an editor take effect here at once."
                : "This page works on its own. The feel sheet, check, changing forms and following a file need Python: wendonic live PROFILE." }),
            element("p", { textContent: "All other keys belong to the profile, by their place on the keyboard." }),
            element("button", { textContent: "Close", onclick: () => this.dialog.close() }),
        );
        document.body.append(this.dialog);
        // After a click the keys move the body again: Space must not press the button once more.
        root.addEventListener("click", ({ target, detail }) => {
            if (detail > 0 && target.matches("button") && !document.querySelector("dialog[open]")) app.focusStage();
        });
    }

    offerHeadset(there) {
        this.headset.hidden = !there;
    }

    help() {
        if (!this.dialog.open) this.dialog.showModal();
    }

    build() {
        const { app } = this;
        this.title.textContent = app.profile.title;
        this.title.title = app.profile.name;
        const names = Object.keys(app.helm.runs);
        const chip = (name) => element("button", { textContent: name, "aria-pressed": name === app.helm.mode, onclick: () => app.enter(name) });
        if (names.length < 2) this.modes.replaceChildren();
        else if (names.length <= MOST_CHIPS) this.modes.replaceChildren(...names.map(chip));
        else {
            const choice = select("Mode", names, (name) => {
                app.enter(name);
                choice.value = app.helm.mode;
            });
            choice.value = app.helm.mode;
            this.modes.replaceChildren(choice);
        }
        this.show();
    }

    show() {
        const { app } = this;
        const { trial } = app;
        const { a, b } = trial.counts;
        this.side.textContent = trial.blind ? "Swap (F3)" : `${trial.side.toUpperCase()} (F3)`;
        this.blind.textContent = trial.blind ? "End blind trial" : "Blind";
        this.copy.hidden = trial.blind;
        this.vote.hidden = !trial.blind;
        // Computed once per vote, not once per frame.
        if (this.counted !== `${a},${b}`) {
            this.counted = `${a},${b}`;
            this.left = votesToSettle(a, b) - a - b;
        }
        const { left } = this;
        this.votes.textContent = !trial.votes.length ? "" : trial.blind
            ? `${a + b} vote${a + b === 1 ? "" : "s"}${Number.isFinite(left) ? `, ${left} to go` : ""}`
            : `A ${a}, B ${b}`;
        this.record.textContent = app.tape.recorder ? "Stop" : "Record";
        this.record.setAttribute("aria-pressed", Boolean(app.tape.recorder));
        const count = app.settings.changes.size;
        const changed = count ? ` ${count} change${count > 1 ? "s" : ""}` : "";
        this.save.textContent = app.live ? `Save${changed}` : "Download profile";
        this.save.disabled = trial.blind || (app.live && (!app.wire?.open || (!count && !app.rebinding.size)));
        this.downloads.hidden = !trial.votes.length || trial.blind;
        this.view.value = app.stage.view;
    }

    async recordings() {
        const answer = this.app.live
            ? await this.app.wire.ask({ do: "recordings" })
            : { kind: "recordings", names: [] };
        if (answer.kind !== "recordings") return;
        const { tape } = this.app;
        const names = [...answer.names, ...tape.own.map(({ name }) => name), ...(tape.replay ? [tape.replay.name] : [])];
        this.replay.replaceChildren(...[...new Set([NONE, ...names, OPEN])].map((name) => element("option", { value: name, textContent: name })));
        this.#showReplay();
    }

    /** Restores the last choice: a file dialog may be cancelled, and a recording may be broken. */
    #showReplay() {
        this.replay.value = this.app.tape.replay?.name ?? NONE;
    }

    /** Takes a recording from the disk. */
    async #read(file) {
        if (!file) return;
        const { app } = this;
        try {
            app.tape.own = [...app.tape.own.filter(({ name }) => name !== file.name), { name: file.name, events: eventsOf(await file.text()) }];
            app.tape.play(app.tape.own[app.tape.own.length - 1].events, file.name);
            await this.recordings();
        } catch (fault) {
            app.notices.fault("replay", [{ what: `${file.name}: ${fault.message}` }]);
        }
        this.file.value = "";
        app.focusStage();
    }

    async #replay(name) {
        const { app } = this;
        if (name === NONE) {
            app.tape.play(null);
            app.focusStage();
            return;
        }
        if (name === OPEN) {
            this.#showReplay();
            this.file.click();
            return;
        }
        const own = app.tape.own.find((one) => one.name === name);
        const answer = own ? { kind: "recording", events: own.events } : await app.wire.ask({ do: "recording", name });
        if (answer.kind === "recording") app.tape.play(answer.events, name);
        else app.notices.fault("replay", answer.faults ?? [{ what: "the server has stopped" }], `${name} cannot be replayed`);
        this.#showReplay();
        app.focusStage();
    }
}

/** The events of a recording's text; a last line cut off by a crash is dropped. */
export function eventsOf(text) {
    const lines = text.split("\n").filter((line) => line.trim());
    const head = JSON.parse(lines[0] ?? "null");
    if (head?.format !== "wendonic-recording") throw new SyntaxError("not a recording: its first line does not say so");
    return lines.slice(1).flatMap((line, index) => {
        try {
            return [JSON.parse(line)];
        } catch {
            if (index === lines.length - 2) return [];
            throw new SyntaxError(`line ${index + 2} is not an event`);
        }
    });
}

function select(label, names, chosen) {
    const made = element("select", { "aria-label": label }, ...names.map((name) => element("option", { value: name, textContent: WORDS[name] ?? name })));
    made.onchange = () => chosen(made.value);
    return made;
}
