/** The profile's file: followed while it is edited elsewhere, and saved with its comments. */

import { editedText, reboundText } from "../models/profile_text.js";
import { Wire } from "../wire.js";
import { download } from "./download.js";

export class ProfileFile {
    /** @param {Object} app what main.js passes */
    constructor(app) {
        this.app = app;
        /** Whether rebound controls have been saved but are still translated, until the file has been read again. */
        this.rebound = false;
    }

    /** Connects the page with Python. */
    connect() {
        const address = new URL("wire", location.href);
        address.protocol = "ws:";
        this.app.wire = new Wire(address.href, (message) => this.#heard(message), (open) => this.#wired(open));
    }

    #wired(open) {
        const { notices, feel, bar } = this.app;
        if (open) {
            notices.clear("wire");
            feel.measure(null);
            bar.recordings();
        } else notices.fault("wire", [{ what: "The server has stopped. You can go on playing, but nothing is saved or measured. Start wendonic live again and open its new address." }]);
        bar.show();
    }

    async #heard(message) {
        const { notices, profile, tuner } = this.app;
        if (message.kind === "tabs") {
            if (message.count > 1) notices.say("tabs", `This page is open in ${message.count} tabs: both save into the same file.`);
            else notices.clear("tabs");
        } else if (message.kind === "faults") {
            const isProfile = message.name === profile.name;
            notices.fault(isProfile ? "file" : "course", message.faults, `${message.name} has errors; the last good ${isProfile ? "numbers stay" : "course stays"} in use`);
        } else if (message.kind === "file") {
            notices.clear("file");
            notices.clear("course");
            notices.clear("save");
            this.#changed((await tuner.module(message.number)).profile);
        }
    }

    /** Follows the file; changes made here stay. */
    async #changed(profile) {
        const { sides, wire, tuner, bar, rebinding } = this.app;
        for (const settings of Object.values(sides)) {
            settings.take(profile);
            if (!settings.changes.size) continue;
            const changes = settings.plain();
            const answer = await wire.ask({ do: "form", changes });
            if (answer.kind === "module") settings.show((await tuner.module(answer.number)).profile, changes);
        }
        if (this.rebound) rebinding.settle();
        this.rebound = false;
        tuner.play(this.app.settings.profile);
        rebinding.refresh();
        bar.build();
    }

    /** Its name without the ending. */
    get stem() {
        return this.app.profile.name.replace(/\.toml$/, "");
    }

    /** The profile's text with the present numbers and keys. */
    text() {
        const { settings, profile, rebinding } = this.app;
        const changes = Object.fromEntries([...settings.changes].filter(([, value]) => typeof value === "number"));
        const found = editedText(profile.text, profile.edits, changes, (path) => settings.value(path));
        const { text, left } = reboundText(found.text, rebinding.bound());
        return { text, left: [...found.left, ...left] };
    }

    async save() {
        const { live, wire, notices, profile, settings, sides, trial, rebinding } = this.app;
        if (!live) {
            const { text, left } = this.text();
            if (left.length) notices.fault("save", left.map((path) => ({ what: `${path} could not be written; set it by hand` })));
            download(profile.name, text);
            return;
        }
        if (!wire?.open) {
            notices.fault("save", [{ what: "nothing saved: the server has stopped" }]);
            return;
        }
        // The other side stays as it is.
        const forget = sides[trial.side === "a" ? "b" : "a"].keep(settings.changes.keys());
        const changes = settings.plain();
        const answer = await wire.ask({ do: "save", changes, rebound: this.rebound ? {} : rebinding.bound() });
        if (answer.kind === "saved") {
            for (const side of Object.values(sides)) side.saved(changes);
            notices.clear("save");
            this.rebound ||= rebinding.size > 0;
            notices.say("saved", `saved to ${answer.path}`);
        } else {
            forget();
            notices.fault("save", answer.faults ?? [{ what: "the server has stopped: nothing was saved" }], "not saved");
        }
    }
}
