/** The page: the loop from devices to pictures, and the links between its parts. */

import { Devices } from "./input/devices.js";
import { Readings } from "./models/readings.js";
import { Recent } from "./models/recent.js";
import { Ring } from "./models/ring.js";
import { Settings } from "./models/settings.js";
import { Trial } from "./models/trial.js";
import { Feel } from "./page/feel.js";
import { ProfileFile } from "./page/profile_file.js";
import { Pair } from "./page/pair.js";
import { Tape } from "./page/tape.js";
import { Tuner } from "./page/tuner.js";
import { Bar } from "./panels/bar.js";
import { Notices } from "./panels/notices.js";
import { NumbersPanel } from "./panels/numbers.js";
import { Rebinding } from "./panels/rebinding.js";
import { StripsPanel } from "./panels/strips.js";
import { Clock } from "./play/clock.js";
import { Helm } from "./play/helm.js";
import { Seen } from "./play/seen.js";
import { firstMode, traceOf } from "./play/trace.js";
import { Stage } from "./stage/stage.js";

const RING_ROWS = 2000;
const PANEL_MS = 50;
const MOST_PRESSES = 32;
const COLUMNS = ["t", "x", "y", "z", "raw", "shaped", "intent", "speed", "height", "yawRate"];
const RAW_NAMES = Array.from({ length: MOST_PRESSES }, (_, number) => `press${number}`);

export class App {
    constructor(profiles, controls, { mode, live }) {
        this.profiles = profiles;
        this.controls = controls;
        this.live = live;
        /** The changes, votes and rebound keys of each profile of the page. */
        this.kept = new Map();
        this.clock = new Clock();
        this.readings = new Readings();
        this.ring = new Ring([...COLUMNS, ...RAW_NAMES], RING_ROWS);
        this.frames = { frameMs: 0, tickMs: 0, eventMs: null };
        this.answers = new Recent();
        this.ringRow = {};
        this.calm = matchMedia("(prefers-reduced-motion: reduce)");
        this.fingers = matchMedia("(pointer: coarse)");
        this.tuner = new Tuner(this);
        this.feel = new Feel(this);
        this.pair = new Pair(this);
        this.tape = new Tape(this);
        this.file = new ProfileFile(this);
        this.#begin(profiles[0], mode);
        this.notices = new Notices(document.getElementById("notices"));
        this.stage = new Stage(document.getElementById("stage"), this);
        this.numbers = new NumbersPanel(document.getElementById("numbers"), this);
        this.strips = new StripsPanel(document.getElementById("strips"), this);
        this.rebinding = new Rebinding(this);
        this.bar = new Bar(document.getElementById("bar"), this);
        if (matchMedia("(max-width: 760px), (max-height: 480px)").matches) document.body.classList.add("closed");
        this.devices = new Devices(this);
        if (live) this.file.connect();
        this.built();
        this.last = performance.now();
        this.panelAt = 0;
        this.goOn();
    }

    #begin(profile, mode) {
        this.profile = profile;
        const kept = this.kept.get(profile);
        this.sides = kept?.sides ?? { a: new Settings(profile), b: new Settings(profile) };
        this.trial = kept?.trial ?? new Trial();
        if (!kept) for (const side of ["a", "b"]) this.sides[side].listen((path) => this.tuner.changed(side, path));
        this.helm = new Helm(profile, this.controls, mode);
    }

    get settings() {
        return this.sides[this.trial.side];
    }

    focusStage() {
        this.stage.root.focus({ preventScroll: true });
    }

    /** Takes one raw event. Devices are ignored while a recording is replayed. */
    give(control, value, time) {
        if (this.tape.replay) return;
        const named = this.rebinding.control(control);
        if (this.devices.takes(named, value)) return;
        this.helm.apply(named, value);
        this.tape.take(named, value);
        if (!control.startsWith("lost.")) this.eventAt ??= time;
    }

    /** Reports the shape of the stage, so that thumbs and pointers count the same in both directions. */
    #tellShape() {
        const { aspectRatio } = this.stage;
        if (this.tape.replay || !(aspectRatio > 0) || !["thumb", "drag", "pointer"].some((kind) => this.devices.binds(kind))) return;
        if (aspectRatio === this.helm.state.value("window")) return;
        this.helm.apply("window", aspectRatio);
        this.tape.take("window", aspectRatio);
    }

    // --- the loop

    /** Frames come from the window again: at the beginning, and after a headset. */
    goOn() {
        this.last = performance.now();
        // Frames while the page was loading do not count.
        this.eventAt = undefined;
        const next = (now) => {
            if (this.devices.session.runs) return;
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
        this.devices.poll(frameS, now);
        this.#tellShape();
        const steps = document.hidden ? [] : this.clock.ticks(frameS);
        for (const dt of steps) this.#tick(dt);
        if (steps.length) this.frames.tickMs += 0.05 * (this.tickedMs / steps.length - this.frames.tickMs);
        this.stage.draw(this.scene(), draw);
        if (steps.length && this.eventAt !== undefined) {
            this.frames.eventMs = this.answers.take(performance.now() - this.eventAt);
            this.eventAt = undefined;
        }
        if (now - this.panelAt > PANEL_MS) {
            this.panelAt = now;
            this.#panels();
        }
    }

    #tick(dt) {
        this.tape.feed(dt);
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
        let held = 0;
        for (let press = 0; press < MOST_PRESSES; press++) {
            const on = press < this.seen.held.length && this.seen.isOn(record, press);
            row[RAW_NAMES[press]] = press < this.seen.held.length ? press + (on ? 0.8 : 0) : 0;
            if (on) held |= 1 << press;
        }
        this.ring.push(row);
        this.readings.take({ t: this.helm.t, dt, ...this.#push(now), x: now.x, y: now.y, speed, height: now.z, grounded: now.grounded > 0, held });
        if (this.helm.run !== this.builtFor) this.built();
    }

    /** How far the view turned, or the body of a mode that has no look (rad). */
    #turned(now) {
        const turn = now.face - (this.faceWas ?? now.face);
        this.faceWas = now.face;
        return this.seen.run.content.bindings.channels.look.length ? now.lookYaw : Math.atan2(Math.sin(turn), Math.cos(turn));
    }

    /** The raw request to move: the channel move, or the throttle of a vehicle. */
    #push(now) {
        const { move } = this.seen.run.content.bindings.channels;
        return move.length ? { rawX: now.rawX, rawY: now.rawY } : { rawX: 0, rawY: now.throttle };
    }

    /** Raw and shaped request to move; turn and throttle of a vehicle. */
    #sticks(now) {
        if (this.seen.run.content.bindings.channels.move.length) return [[now.rawX, now.rawY], [now.localX, now.localY]];
        const driven = [now.turn, now.throttle];
        return [driven, driven];
    }

    /** The scene to be drawn. */
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
        scene.hands = this.devices.hands;
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
        lines.push(...this.tape.words);
        const { mouse, headset, standsIn } = this.devices;
        if (this.fingers.matches && !mouse.captured) lines.push(...this.#touchWords());
        else if (standsIn) lines.push(...(mouse.captured ? headset.words : ["click to look and swing with the mouse, in place of a headset"]));
        else if (this.devices.binds("mouse")) lines.push(mouse.captured ? "mouse captured; press Escape to release it" : "click to capture the mouse");
        else if (helm.run.content.frame === "goto") lines.push("click a place to go there");
        return lines;
    }

    /** What a player with a touch screen can do; nothing if no zone, place or motion sensor is bound. */
    #touchWords() {
        if (this.helm.run.content.frame === "goto") return ["touch a place to go there"];
        return this.stage.zones.childElementCount > 0 || this.devices.binds("rates") ? [] : ["nothing here is bound to touch: connect a pad or a keyboard"];
    }

    /** Shows the mode that is played now. */
    built() {
        this.builtFor = this.helm.run;
        this.stage.take(this.helm.course, this.helm.run.content);
        this.numbers.build();
        this.strips.build();
        this.bar.build();
        if (this.live) this.feel.measure(null);
    }

    // --- what is played

    /** The trace of a recording under the present numbers: columns by name, one value per tick. */
    trace(events, hz, mode = null) {
        const helm = new Helm(this.profile, this.controls, mode ?? firstMode(events));
        helm.retune(this.settings.values());
        return traceOf(helm, events, hz, Boolean(mode));
    }

    /** Begins anew with the present numbers, in the first mode of a replay. */
    again() {
        const { replay } = this.tape;
        const mode = replay?.mode && this.helm.runs[replay.mode] ? replay.mode : this.helm.mode;
        const { values } = this.helm;
        this.helm = new Helm(this.profile, this.controls, mode);
        this.helm.retune(values);
        this.devices.pads.forget();
        replay?.restart();
        this.seen = null;
        this.readings.reset();
        this.ring.clear();
        this.built();
    }

    /** A fresh start at the origin. */
    restart() {
        this.helm.apply("body.place", [0, 0, 0]);
        this.helm.apply("body.facing", 0);
        this.helm.restart();
        for (const [control, value] of [["body.place", [0, 0, 0]], ["body.facing", 0], ["body.restart", 1]])
            this.tape.take(control, value);
        this.readings.reset();
    }

    enter(mode) {
        if (!this.helm.enter(mode)) {
            this.notices.say("mode", `you cannot go from ${this.helm.mode} to ${mode}: see leave_to of ${this.helm.mode}`);
            return;
        }
        this.tape.take("mode", mode);
        this.seen = null;
        this.built();
        this.focusStage();
    }

    /** Switches to another profile of the page; changes of the present one are kept. */
    choose(number) {
        this.tape.end();
        const { profile, sides, trial } = this;
        this.kept.set(profile, { sides, trial, stands: this.rebinding.stands });
        const next = this.profiles[number];
        const stands = this.kept.get(next)?.stands;
        this.#begin(next, null);
        this.rebinding.take(stands);
        document.body.classList.toggle("blind", this.trial.blind);
        this.notices.clear("trial");
        this.helm.retune(this.settings.values());
        this.numbers.key = "";
        this.readings = new Readings();
        this.again();
        this.focusStage();
    }
}
