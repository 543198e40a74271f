/** Recordings: keeps play, and replays recordings through the present numbers. */

import { shown } from "../panels/element.js";
import { Recorder } from "../models/recorder.js";
import { Replay } from "../play/replay.js";
import { download } from "./download.js";

export class Tape {
    /** @param {Object} app what main.js passes */
    constructor(app) {
        this.app = app;
        this.recorder = null;
        this.replay = null;
        /** Recordings made here, if there is no server to keep them. */
        this.own = [];
    }

    /** Takes an event that was given to the helm. */
    take(control, value) {
        this.recorder?.take(this.app.helm, control, value);
    }

    /** Begins a recording, or ends it. */
    record() {
        const { app } = this;
        if (this.recorder) {
            this.end();
            return;
        }
        if (this.replay) {
            app.notices.say("record", `${this.replay.name} is being replayed: choose "no replay" to record your own play`);
            return;
        }
        app.notices.clear("record");
        this.recorder = new Recorder(`${app.profile.title}, played`);
        const { helm, seen } = app;
        const left = this.recorder.begin(helm, seen?.run === helm.run ? seen.goal(helm.record) : null);
        if (left.length) {
            const names = left.map((number) => app.profile.pressNames[number]).join(" and ");
            const [were, them] = left.length > 1 ? ["were", "them"] : ["was", "it"];
            app.notices.say("record", `${names} ${were} toggled before, and no control toggles ${them} alone: the recording begins with ${them} in the opposite state`);
        }
    }

    /** Keeps the recording so far: when the clock restarts, the recording ends. */
    end() {
        if (!this.recorder) return;
        // It includes how the body comes to rest.
        this.take("mark", "end");
        const lines = this.recorder.lines();
        this.recorder = null;
        this.#keep(lines);
    }

    async #keep(lines) {
        const { app } = this;
        if (!app.live) {
            const name = `${app.file.stem}_${this.own.length + 1}.jsonl`;
            this.own.push({ name, events: lines.slice(1).map((line) => JSON.parse(line)) });
            download(name, `${lines.join("\n")}\n`);
            app.bar.recordings();
            return;
        }
        const answer = await app.wire.ask({ do: "keep", lines });
        if (answer.kind === "kept") {
            app.notices.say("kept", `recording saved as ${answer.path}, next to the profile`);
            app.bar.recordings();
        } else app.notices.fault("kept", answer.faults ?? [{ what: "the server has stopped: the recording was not saved" }]);
    }

    mark() {
        if (!this.recorder) return;
        const { app } = this;
        this.take("mark", "felt wrong here");
        app.notices.say("mark", `marked at ${shown(app.helm.t - this.recorder.startS, 4)} s`);
    }

    /** Plays a recording in a loop, or none. */
    play(events, name = "") {
        this.end();
        for (const about of ["record", "replay"]) this.app.notices.clear(about);
        this.replay = events ? new Replay(events, name) : null;
        this.app.again();
    }

    /** Gives the helm the events of the next `dt` seconds; at the end it starts again. */
    feed(dt) {
        if (this.replay?.feed(dt, (control, value) => this.app.helm.apply(control, value))) this.app.again();
    }

    /** The present state, in words. */
    get words() {
        const { replay, recorder } = this;
        const lines = [];
        if (replay) lines.push(`replay of ${replay.name}: ${shown(replay.t - replay.start, 3)} of ${shown(replay.duration, 3)} s`);
        if (recorder) lines.push(`recording: ${recorder.events.length} events, ${shown(this.app.helm.t - recorder.startS, 3)} s`);
        return lines;
    }
}
