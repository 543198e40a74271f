/** One page of play: the loop from devices to pictures, and what each part is told. */

import { followKeyboard } from "./input/keyboard.js";
import { HeadsetStandIn } from "./input/headset.js";
import { HeadsetSession } from "./input/headset_session.js";
import { Motion } from "./input/motion.js";
import { Mouse } from "./input/mouse.js";
import { Pads } from "./input/pads.js";
import { Readings } from "./models/readings.js";
import { editedText, reboundText } from "./models/profile_text.js";
import { Recorder } from "./models/recorder.js";
import { Ring } from "./models/ring.js";
import { Settings } from "./models/settings.js";
import { Trial } from "./models/trial.js";
import { Bar } from "./panels/bar.js";
import { shown } from "./panels/element.js";
import { Notices } from "./panels/notices.js";
import { Rebinding } from "./panels/rebinding.js";
import { NumbersPanel } from "./panels/numbers.js";
import { StripsPanel } from "./panels/strips.js";
import { Clock } from "./play/clock.js";
import { Helm } from "./play/helm.js";
import { Replay } from "./play/replay.js";
import { Seen } from "./play/seen.js";
import { firstMode, traceOf } from "./play/trace.js";
import { Stage } from "./stage/stage.js";
import { Wire } from "./wire.js";

const RING_ROWS = 2000;
const PANEL_MS = 50;
const MEASURE_MS = 60;
const MOST_PRESSES = 32;
const COLUMNS = ["t", "x", "y", "z", "raw", "shaped", "intent", "speed", "height", "yawRate"];
const RAW_NAMES = Array.from({ length: MOST_PRESSES }, (_, number) => `press${number}`);

export class App {
    constructor(profiles, controls, { mode, live }) {
        this.profiles = profiles;
        this.controls = controls;
        this.live = live;
        this.trial = new Trial();
        this.clock = new Clock();
        this.readings = new Readings();
        this.ring = new Ring([...COLUMNS, ...RAW_NAMES], RING_ROWS);
        this.frames = { frameMs: 0, tickMs: 0, eventMs: null };
        this.recorder = null;
        this.replay = null;
        /** Recordings that were made here, where there is no server to keep them. */
        this.own = [];
        this.sheet = null;
        this.reference = { path: null, sheet: null };
        this.ringRow = {};
        this.calm = matchMedia("(prefers-reduced-motion: reduce)");
        this.fingers = matchMedia("(pointer: coarse)");
        this.#begin(profiles[0], mode);
        this.notices = new Notices(document.getElementById("notices"));
        this.stage = new Stage(document.getElementById("stage"), this);
        this.numbers = new NumbersPanel(document.getElementById("numbers"), this);
        this.strips = new StripsPanel(document.getElementById("strips"), this);
        this.rebinding = new Rebinding(this);
        this.bar = new Bar(document.getElementById("bar"), this);
        if (matchMedia("(max-width: 760px), (max-height: 480px)").matches) document.body.classList.add("closed");
        this.#devices();
        if (live) this.#connect();
        this.#built();
        this.last = performance.now();
        this.panelAt = 0;
        this.goOn();
    }

    #begin(profile, mode) {
        this.profile = profile;
        this.sides = { a: new Settings(profile), b: new Settings(profile) };
        for (const side of ["a", "b"]) this.sides[side].listen((path) => this.#changed(side, path));
        this.helm = new Helm(profile, this.controls, mode);
    }

    get settings() {
        return this.sides[this.trial.side];
    }

    focusStage() {
        this.stage.root.focus({ preventScroll: true });
    }

    // --- devices

    #devices() {
        const give = (control, value, time) => this.give(control, value, time);
        followKeyboard(window, give, (code) => !this.#own(code) && this.#isBound(`key.${code}`));
        window.addEventListener("keydown", (event) => this.#hotkey(event));
        this.mouse = new Mouse(this.stage.root, give, {
            captures: () => this.#binds("mouse") || this.standsIn,
            place: (x, y) => this.stage.fractions(x, y),
        });
        this.pads = new Pads(give, (id) => this.notices.say("pad", `${id} does not report the standard gamepad layout, so it is ignored`));
        this.headset = new HeadsetStandIn(give);
        this.session = new HeadsetSession(this);
        HeadsetSession.isThere().then((there) => this.bar.offerHeadset(there));
        this.motion = new Motion(window, give);
        const leave = () => {
            this.give("lost.focus", 1, performance.now());
            this.pads.forget();
            this.headset.forget();
        };
        window.addEventListener("blur", leave);
        document.addEventListener("visibilitychange", () => document.hidden && leave());
    }

    /** Whether a control does something here: all others are left to the browser. */
    #isBound(control) {
        const found = this.controls.byName.get(this.rebinding.control(control));
        return found !== undefined && (this.helm.state.watched.has(found.slot) || this.standsIn);
    }

    /** Whether mouse and keys stand in for a headset: in a mode that is steered by hands or by the head. */
    get standsIn() {
        if (this.session?.runs) return false;
        const { bindings, frame } = this.helm.run.content;
        return frame === "hands" || bindings.tracks || this.#binds("hands");
    }

    #binds(kind) {
        return Object.values(this.helm.run.content.bindings.channels).some((sources) => sources.some((one) => one.kind === kind));
    }

    /** Takes one raw event. Devices are ignored while a recording is replayed. */
    give(control, value, time) {
        if (this.replay) return;
        const named = this.rebinding.control(control);
        if (this.standsIn && this.headset.take(named, value)) return;
        this.helm.apply(named, value);
        this.recorder?.take(this.helm, named, value);
        if (!control.startsWith("lost.")) this.eventAt ??= time;
    }

    #own(code) {
        return code in this.hotkeys;
    }

    /** Enters a headset, or leaves it. */
    async enterHeadset() {
        if (this.session.runs) {
            this.session.end();
            return;
        }
        try {
            await this.session.begin();
        } catch (fault) {
            this.notices.fault("headset", [{ what: `no headset: ${fault.message}` }]);
        }
        this.bar.show();
    }

    hotkeys = {
        F1: () => this.bar.help(),
        F2: () => this.stage.next(),
        F3: () => this.swap(),
        F4: () => this.vote(),
        F6: () => this.record(),
        F7: () => this.strips.toggle(),
        F8: () => this.restart(),
        F9: () => this.mark(),
    };

    #hotkey(event) {
        if (event.ctrlKey || event.metaKey) {
            const found = { KeyS: () => this.save(), KeyZ: () => (event.shiftKey ? this.settings.redo() : this.settings.undo()), KeyY: () => this.settings.redo() }[event.code];
            const typing = event.target.matches?.("input[type=number], input[type=search]");
            // Undo while typing is that of the field; saving takes what has been typed.
            if (!found || (typing && event.code !== "KeyS")) return;
            event.preventDefault();
            if (typing) event.target.blur();
            // In a blind trial the two stay as they are.
            if (!this.trial.blind) found();
        } else if (this.#own(event.code)) {
            event.preventDefault();
            if (!event.repeat) this.hotkeys[event.code]();
        }
    }

    // --- the loop

    /** Frames come from the window again: at the beginning, and after a headset. */
    goOn() {
        this.last = performance.now();
        const next = (now) => {
            if (this.session?.runs) return;
            this.frame(now);
            requestAnimationFrame(next);
        };
        requestAnimationFrame(next);
    }

    /** One frame: devices, ticks, and the picture, which a headset draws by itself. */
    frame(now, draw = null) {
        this.tickedMs = 0;
        const frameS = (now - this.last) / 1000;
        this.last = now;
        if (frameS > 0) this.frames.frameMs += 0.1 * (1000 * frameS - this.frames.frameMs);
        this.pads.poll(now);
        this.rebinding.poll();
        if (this.standsIn) this.headset.poll(frameS, now);
        const steps = document.hidden ? [] : this.clock.ticks(frameS);
        for (const dt of steps) this.#tick(dt);
        if (steps.length) this.frames.tickMs += 0.05 * (this.tickedMs / steps.length - this.frames.tickMs);
        this.stage.draw(this.scene(), draw);
        if (steps.length && this.eventAt !== undefined) {
            const took = performance.now() - this.eventAt;
            this.frames.eventMs = this.frames.eventMs === null ? took : this.frames.eventMs + 0.1 * (took - this.frames.eventMs);
            this.eventAt = undefined;
        }
        if (now - this.panelAt > PANEL_MS) {
            this.panelAt = now;
            this.#panels();
        }
    }

    #tick(dt) {
        if (this.replay?.feed(dt, (control, value) => this.helm.apply(control, value))) this.#again();
        const began = performance.now();
        const record = this.helm.tick(dt);
        this.tickedMs += performance.now() - began;
        const run = this.helm.ticked;
        if (this.seen?.run !== run) this.seen = new Seen(run, this.profile.pressNames);
        const now = this.seen.read(record);
        const speed = Math.hypot(now.velX, now.velY);
        this.stage.figure.take(now.x, now.y, now.velX, now.velY, dt);
        const row = this.ringRow;
        row.t = this.helm.t;
        row.x = now.x;
        row.y = now.y;
        row.z = now.z;
        const [raw, local] = this.#sticks(now);
        const driven = !this.seen.run.content.bindings.channels.move.length;
        row.raw = driven ? Math.abs(now.throttle) : Math.hypot(...raw);
        row.shaped = driven ? Math.abs(now.throttle) : Math.hypot(...local);
        row.intent = now.amount;
        row.speed = speed * this.profile.unitsPerM;
        row.height = now.z * this.profile.unitsPerM;
        row.yawRate = ((this.#turned(now) / dt) * 180) / Math.PI;
        for (let press = 0; press < MOST_PRESSES; press++)
            row[RAW_NAMES[press]] = press < this.seen.held.length ? press + (this.seen.isOn(record, press) ? 0.8 : 0) : 0;
        this.ring.push(row);
        this.readings.take({ t: this.helm.t, dt, ...this.#push(now), x: now.x, y: now.y, speed, height: now.z, grounded: now.grounded > 0 });
        if (this.helm.run !== run) this.#built();
    }

    /** How far the view turned, or the body of a mode that has no look (rad). */
    #turned(now) {
        const turn = now.face - (this.faceWas ?? now.face);
        this.faceWas = now.face;
        return this.seen.run.content.bindings.channels.look.length ? now.lookYaw : Math.atan2(Math.sin(turn), Math.cos(turn));
    }

    /** What asks the body to move, raw: the channel move, or the throttle of what is driven. */
    #push(now) {
        const { move } = this.seen.run.content.bindings.channels;
        return move.length ? { rawX: now.rawX, rawY: now.rawY } : { rawX: 0, rawY: now.throttle };
    }

    /** Raw and shaped request to move; of a mode that is driven, its turn and throttle. */
    #sticks(now) {
        if (this.seen.run.content.bindings.channels.move.length) return [[now.rawX, now.rawY], [now.localX, now.localY]];
        const driven = [now.turn, now.throttle];
        return [driven, driven];
    }

    /** What is to be drawn now. */
    scene() {
        const { helm, seen } = this;
        if (!seen) return null;
        const record = helm.tickedRecord;
        const now = seen.read(helm.run === seen.run ? helm.record : record);
        const scene = (this.made ??= {});
        Object.assign(scene, now);
        scene.t = helm.t;
        scene.path = this.ring;
        scene.frame = seen.run.content.frame;
        scene.goal = seen.goal(record);
        scene.squares = seen.squares(record);
        scene.vignette = seen.vignette === undefined ? 0 : Seen.number(record, seen.vignette);
        scene.hands = this.session.runs ? this.session.hands : this.standsIn ? this.headset.hands : null;
        scene.looks = seen.run.content.bindings.channels.look.length > 0;
        scene.wanted = { x: now.moveX, y: now.moveY, amount: now.amount };
        scene.speed = Math.hypot(now.velX, now.velY, now.velZ);
        scene.calm = this.calm.matches;
        scene.length = { unit: this.profile.unit, perM: this.profile.unitsPerM };
        return scene;
    }

    #panels() {
        this.strips.draw();
        if (this.seen) {
            this.strips.drawStick(...this.#sticks(this.seen.values));
        }
        this.numbers.drawCurves();
        this.stage.say(this.#words());
        this.bar.show();
    }

    #words() {
        const { helm, profile } = this;
        const now = this.seen?.values;
        if (!now) return [];
        const speed = Math.hypot(now.velX, now.velY) * profile.unitsPerM;
        const reading = speed.toFixed(profile.unitsPerM > 5 ? 0 : 2);
        const lines = [`${reading} ${profile.unit}/s${now.amount > 0.001 ? `, amount ${now.amount.toFixed(2)}` : ""}`];
        if (this.replay) lines.push(`replay of ${this.replay.name}: ${shown(this.replay.t - this.replay.start, 3)} of ${shown(this.replay.duration, 3)} s`);
        if (this.recorder) lines.push(`recording: ${this.recorder.events.length} events, ${shown(helm.t - this.recorder.startS, 3)} s`);
        if (this.fingers.matches && !this.mouse.captured) lines.push(...this.#touchWords());
        else if (this.standsIn) lines.push(...(this.mouse.captured ? this.headset.words : ["click to look and swing with the mouse, in place of a headset"]));
        else if (this.#binds("mouse")) lines.push(this.mouse.captured ? "mouse captured; press Escape to release it" : "click to capture the mouse");
        else if (helm.run.content.frame === "goto") lines.push("click a place to go there");
        return lines;
    }

    /** What a player can do whose first pointer is a finger; where no zone, place or motion sensor is bound, nothing. */
    #touchWords() {
        if (this.helm.run.content.frame === "goto") return ["touch a place to go there"];
        return this.stage.zones.childElementCount > 0 || this.#binds("rates") ? [] : ["nothing here is bound to touch: connect a pad or a keyboard"];
    }

    #built() {
        this.stage.take(this.helm.course, this.helm.run.content);
        this.numbers.build();
        this.strips.build();
        this.bar.build();
        if (this.live) this.#measure(null);
    }

    // --- numbers

    #changed(side, path) {
        if (side !== this.trial.side || !this.numbers) return;
        const values = this.settings.values();
        const field = path === null ? null : this.settings.profile.fields.find((one) => one.path === path);
        const known = path === null || (field && field.number >= 0);
        if (known && this.helm.keepsStructure(values)) this.#retune(values);
        else if (path !== null) this.#reform(path);
        this.numbers.refresh();
        if (path !== null) this.#measure(path);
    }

    /** Takes numbers that fit together; the last ones of each side that did are kept. */
    #retune(values) {
        this.helm.retune(values);
        this.settings.good = values;
    }

    /** Asks for tick functions of another structure; where that is refused, the last good numbers go on. */
    async #reform(path) {
        if (!this.wire) {
            const { settings } = this;
            this.notices.fault("form", [{ what: `${path}: this value needs another form or does not fit the others; changing forms needs wendonic live` }]);
            settings.set(path, (settings.good ?? this.profile.values)[this.profile.paths.indexOf(path)]);
            return;
        }
        if (this.forming) {
            // A drag asks faster than tick functions are made: the last one counts.
            this.formAgain = path;
            return;
        }
        this.forming = true;
        const { settings } = this;
        const answer = await this.wire.ask({ do: "form", changes: settings.plain() });
        if (answer.kind === "module") {
            const { profile } = await this.#module(answer.number);
            this.notices.clear("form");
            settings.show(profile);
            settings.good = settings.values();
            if (settings === this.settings) this.#play(profile);
        } else if (answer.kind === "refused") {
            this.notices.fault("form", answer.faults, "these values do not fit together; the last good ones stay in use");
        }
        this.forming = false;
        const again = this.formAgain;
        this.formAgain = null;
        if (again) this.#reform(again);
    }

    #module(number) {
        return import(new URL(`profile.js?n=${number}`, location.href).href);
    }

    #play(profile) {
        const { settings } = this;
        this.profile = profile;
        this.helm.reform(profile);
        if (this.helm.keepsStructure(settings.values())) this.#retune(settings.values());
        this.seen = null;
        this.#built();
    }

    #measure(path) {
        if (!this.wire?.open || this.trial.blind) return;
        const key = JSON.stringify([this.helm.mode, this.profile.text, this.settings.plain()]);
        if (path === null && key === this.measured) return;
        this.measured = key;
        if (path !== null && path !== this.reference.path) this.reference = { path, sheet: this.sheet, changes: this.#before(path) };
        clearTimeout(this.measuring);
        this.measuring = setTimeout(() => this.#ask(path), path === null ? 0 : MEASURE_MS);
    }

    /** The changes as they were before the last one, which was of that field. */
    #before(path) {
        const changes = this.settings.plain();
        const last = this.settings.done[this.settings.done.length - 1];
        delete changes[path];
        if (last?.path === path && last.before !== undefined) changes[path] = last.before;
        return changes;
    }

    async #ask(path) {
        const changes = this.settings.plain();
        const { mode } = this.helm;
        const { reference } = this;
        if (path !== null && !reference.sheet) {
            // Changed before anything was measured: the old value is measured now.
            const was = await this.wire.ask({ do: "feel", changes: reference.changes, mode });
            if (was.kind === "feel") reference.sheet = was.rows;
        }
        const answer = await this.wire.ask({ do: "feel", changes, mode });
        if (answer.kind === "refused") {
            this.notices.fault("form", answer.faults, answer.faults.some(({ where }) => where) ? "these values do not fit together and cannot be saved" : "");
            return;
        }
        if (answer.kind === "feel") this.notices.clear("form");
        if (answer.kind === "feel" && mode === this.helm.mode) {
            const before = reference.sheet;
            this.sheet = answer.rows;
            if (path !== null && before && reference === this.reference) this.numbers.showEffect(path, differences(before, answer.rows));
        }
        const checked = await this.wire.ask({ do: "findings", changes });
        if (checked.kind === "findings") this.numbers.showFindings(checked.rows);
    }

    // --- A and B

    swap() {
        this.trial.swap();
        this.#felt();
    }

    /** Plays the side that is felt now. */
    #felt() {
        const { settings } = this;
        const values = settings.values();
        if (settings.profile !== this.profile) this.#play(settings.profile);
        else if (this.helm.keepsStructure(values)) this.#retune(values);
        else this.helm.retune(settings.good ?? this.profile.values);
        this.numbers.build();
        this.bar.show();
        this.reference = { path: null, sheet: null };
        this.#measure(null);
    }

    blind() {
        if (this.trial.blind) this.trial.end();
        else {
            const same = JSON.stringify(this.sides.a.plain()) === JSON.stringify(this.sides.b.plain());
            if (same) {
                this.notices.say("trial", "A and B are the same: press F3 to go to B and change a number first");
                return;
            }
            this.trial.begin();
            this.notices.say("trial", "Blind trial: F3 swaps the two without saying which is which, F4 votes for the one you feel now. It ends when the votes settle it.");
        }
        document.body.classList.toggle("blind", this.trial.blind);
        this.#felt();
    }

    vote() {
        if (!this.trial.blind) return;
        this.trial.vote(this.helm.t);
        const { a, b } = this.trial.counts;
        if (this.trial.verdict) {
            document.body.classList.remove("blind");
            this.notices.say("trial", `Settled: ${this.trial.verdict.toUpperCase()} is preferred, A ${a} and B ${b} votes (95 % confidence, valid after each vote)`);
        }
        this.#felt();
    }

    /** Makes the other side the same as this one. */
    copySide() {
        const other = this.sides[this.trial.side === "a" ? "b" : "a"];
        other.changes = new Map(this.settings.changes);
        other.show(this.settings.profile);
        this.notices.say("trial", `${this.trial.side === "a" ? "B" : "A"} is now a copy of ${this.trial.side.toUpperCase()}`);
    }

    // --- recordings

    record() {
        if (this.recorder) {
            this.#endRecording();
            return;
        }
        if (this.replay) {
            this.notices.say("record", `${this.replay.name} is being replayed: choose "no replay" to record your own play`);
            return;
        }
        this.notices.clear("record");
        this.recorder = new Recorder(`${this.profile.title}, played`);
        this.recorder.begin(this.helm);
    }

    /** Keeps what has been recorded: where the clock begins anew, the recording ends. */
    #endRecording() {
        if (!this.recorder) return;
        const lines = this.recorder.lines();
        this.recorder = null;
        this.keep(lines);
    }

    async keep(lines) {
        if (!this.live) {
            const name = `${this.#stem()}_${this.own.length + 1}.jsonl`;
            this.own.push({ name, events: lines.slice(1).map((line) => JSON.parse(line)) });
            download(name, `${lines.join("\n")}\n`);
            this.bar.recordings();
            return;
        }
        const answer = await this.wire.ask({ do: "keep", lines });
        if (answer.kind === "kept") {
            this.notices.say("kept", `recording saved as ${answer.path}, next to the profile`);
            this.bar.recordings();
        } else this.notices.fault("kept", answer.faults ?? [{ what: "the server has stopped: the recording was not saved" }]);
    }

    /** The trace of a recording under the numbers as they are: its columns by their names, a value a tick. */
    trace(events, hz, mode = null) {
        const helm = new Helm(this.profile, this.controls, mode ?? firstMode(events));
        helm.retune(this.settings.values());
        return traceOf(helm, events, hz, Boolean(mode));
    }

    mark() {
        if (!this.recorder) return;
        this.recorder.take(this.helm, "mark", "felt wrong here");
        this.notices.say("mark", `marked at ${shown(this.helm.t - this.recorder.startS, 4)} s`);
    }

    /** Plays a recording in a loop, or none. */
    play(events, name = "") {
        this.#endRecording();
        this.notices.clear("record");
        this.replay = events ? new Replay(events, name) : null;
        this.#again();
    }

    #again() {
        const { replay } = this;
        const mode = replay?.mode && this.helm.runs[replay.mode] ? replay.mode : this.helm.mode;
        const { values } = this.helm;
        this.helm = new Helm(this.profile, this.controls, mode);
        this.helm.retune(values);
        this.pads.forget();
        replay?.restart();
        this.seen = null;
        this.readings.reset();
        this.ring.clear();
        this.#built();
    }

    /** A fresh start at the origin. */
    restart() {
        this.helm.apply("body.place", [0, 0, 0]);
        this.helm.apply("body.facing", 0);
        this.helm.restart();
        for (const [control, value] of [["body.place", [0, 0, 0]], ["body.facing", 0], ["body.restart", 1]])
            this.recorder?.take(this.helm, control, value);
        this.readings.reset();
    }

    enter(mode) {
        if (!this.helm.enter(mode)) {
            this.notices.say("mode", `you cannot go from ${this.helm.mode} to ${mode}: see leave_to of ${this.helm.mode}`);
            return;
        }
        this.recorder?.take(this.helm, "mode", mode);
        this.seen = null;
        this.#built();
        this.focusStage();
    }

    // --- the file

    #connect() {
        const address = new URL("wire", location.href);
        address.protocol = "ws:";
        this.wire = new Wire(address.href, (message) => this.#heard(message), (open) => this.#wired(open));
    }

    #wired(open) {
        if (open) {
            this.notices.clear("wire");
            this.#measure(null);
            this.bar.recordings();
        } else this.notices.fault("wire", [{ what: "The server has stopped. You can go on playing, but nothing is saved or measured. Start wendonic live again and open its new address." }]);
        this.bar.show();
    }

    async #heard(message) {
        if (message.kind === "tabs") {
            if (message.count > 1) this.notices.say("tabs", `This page is open in ${message.count} tabs: both save into the same file.`);
            else this.notices.clear("tabs");
        } else if (message.kind === "faults") {
            this.notices.fault("file", message.faults, `${this.profile.name} has errors; the last good numbers stay in use`);
        } else if (message.kind === "file") {
            this.notices.clear("file");
            this.notices.clear("save");
            const { profile } = await this.#module(message.number);
            this.#fileIs(profile);
        }
    }

    /** Follows the file: what was changed here stays changed. */
    async #fileIs(profile) {
        for (const settings of Object.values(this.sides)) {
            settings.take(profile);
            if (!settings.changes.size) continue;
            const answer = await this.wire.ask({ do: "form", changes: settings.plain() });
            if (answer.kind === "module") settings.show((await this.#module(answer.number)).profile);
        }
        this.#play(this.settings.profile);
        this.bar.build();
    }

    #stem() {
        return this.profile.name.replace(/\.toml$/, "");
    }

    /** The profile's text with the numbers and keys as they are now. */
    text() {
        const { settings } = this;
        const changes = Object.fromEntries([...settings.changes].filter(([, value]) => typeof value === "number"));
        const found = editedText(this.profile.text, this.profile.edits, changes, (path) => settings.value(path));
        return { ...found, text: reboundText(found.text, this.rebinding.plain()) };
    }

    downloadVotes() {
        const head = { format: "wendonic-votes", version: 1, title: this.profile.title, a: this.sides.a.plain(), b: this.sides.b.plain() };
        const lines = [head, ...this.trial.votes.map(({ t, side }) => ({ t, vote: side }))];
        download(`${this.#stem()}_votes.jsonl`, `${lines.map((line) => JSON.stringify(line)).join("\n")}\n`);
    }

    /** Switches to another of the profiles that the page holds. */
    choose(number) {
        this.#endRecording();
        this.rebinding.clear();
        this.#begin(this.profiles[number], null);
        this.replay?.restart();
        this.trial = new Trial();
        this.numbers.key = "";
        this.seen = null;
        this.readings = new Readings();
        this.ring.clear();
        this.#built();
        this.focusStage();
    }

    async save() {
        if (!this.live) {
            const { text, left } = this.text();
            if (left.length) this.notices.fault("save", left.map((path) => ({ what: `${path} could not be written; set it by hand` })));
            download(this.profile.name, text);
            return;
        }
        if (!this.wire?.open) {
            this.notices.fault("save", [{ what: "nothing saved: the server has stopped" }]);
            return;
        }
        const answer = await this.wire.ask({ do: "save", changes: this.settings.plain(), rebound: this.rebinding.plain() });
        if (answer.kind === "saved") {
            this.notices.clear("save");
            this.rebinding.clear();
            this.notices.say("saved", `saved to ${answer.path}`);
        } else this.notices.fault("save", answer.faults ?? [{ what: "the server has stopped: nothing was saved" }], "not saved");
    }
}

/** What differs between two feel sheets, in words. */
export function differences(before, after) {
    const was = new Map(before.map((row) => [row.name, row]));
    return after
        .filter(({ name, words }) => was.has(name) && was.get(name).words !== words)
        .map(({ name, unit, words, value }) => {
            const arrow = value > was.get(name).value ? "↑" : "↓";
            return `${name.replaceAll("_", " ").replace(/ (m s|deg s|s|m|deg|ratio)$/, "")} ${arrow} ${was.get(name).words} → ${words} ${unit}`;
        });
}

export function download(name, text) {
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([text], { type: "text/plain" }));
    link.download = name;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

