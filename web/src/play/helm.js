/** Events in, one tick's record out: the page's own runtime, which gives the same results as the library's Helm. */

import { DEVICES } from "../door/controls.js";
import { DeviceState } from "../door/state.js";
import { squaresIn, withSquares } from "./blocked.js";
import { carriedPresses, entered, reformed } from "./crossing.js";
import { ModeRun } from "./mode_run.js";

const DEG = Math.PI / 180;
const ON_GROUND = [2, 0, 0, 1];
const STILL = [0, 0, 0];

export class Helm {
    #course;
    /** All blocked squares, by their names, if the course does not have them yet. */
    #squares = null;

    /** @param {Object} profile the page's contents of a profile; @param {import("../door/controls.js").Controls} controls */
    constructor(profile, controls, mode = null) {
        this.controls = controls;
        this.state = new DeviceState(controls);
        this.profile = profile;
        this.values = profile.values.slice();
        this.course = profile.course.slice();
        this.runs = this.#made(profile, {});
        this.run = this.runs[mode ?? Object.keys(this.runs)[0]];
        if (!this.run) throw new RangeError(`no mode "${mode}"`);
        this.record = this.run.content.recordAtRest.slice();
        this.row = this.run.sampler.row();
        this.changesSeen = -1;
        this.viewChangesSeen = 0;
        this.viewGiven = false;
        this.device = -1;
        this.ground = ON_GROUND;
        this.wall = null;
        this.ticks = 0;
        this.t = 0;
        /** Whether presses leave the mode as it is. */
        this.stays = false;
        this.#watch();
        this.run.sampler.begin(this.state);
    }

    #made(profile, last) {
        const made = {};
        for (const [name, content] of Object.entries(profile.modes))
            made[name] = new ModeRun(content, this.controls, this.values, this.course, last[name]);
        return made;
    }

    #watch() {
        for (const run of Object.values(this.runs)) for (const slot of run.sampler.watched) this.state.watched.add(slot);
        this.others = Object.values(this.runs)
            .filter((run) => run !== this.run && run.sampler.bindsPresses)
            .map((run) => run.sampler);
    }

    get mode() {
        return this.run.name;
    }

    /** Takes other numbers of the same structure, from the next tick on. */
    retune(values) {
        this.values = values.slice();
        for (const run of Object.values(this.runs)) run.retune(this.values);
    }

    /** Whether these numbers keep the structure; if not, other tick functions are needed. */
    keepsStructure(values) {
        return Object.values(this.profile.modes).every((mode) => mode.holds(values));
    }

    /** Continues under another profile: what both have stays as it was. */
    reform(profile, values = profile.values) {
        const before = this.profile;
        const old = this.run;
        this.values = values.slice();
        // Squares that were reported stay blocked on the same course.
        if (profile.course.join() !== before.course.join()) this.course = profile.course.slice();
        const runs = this.#made(profile, this.runs);
        const now = runs[old.name] ?? Object.values(runs)[0];
        const record = reformed(old, now, this.record, profile.pressNames, before.pressNames);
        const down = old.pressesDown(this.record);
        this.profile = profile;
        this.runs = runs;
        if (now.sampler === old.sampler) {
            this.run = now;
            this.record = record;
            this.#watch();
            return;
        }
        const carried = profile.pressNames.map((name, number) => {
            const was = before.pressNames.indexOf(name);
            return down[was] === true && old.content.pressStyles[was] === now.content.pressStyles[number];
        });
        this.#begin(now, record, carried);
    }

    /** Switches to another mode. Returns whether that is allowed from here. */
    enter(mode) {
        const now = this.runs[mode];
        if (!now) throw new RangeError(`no mode "${mode}"`);
        if (now === this.run) return true;
        const crossing = this.profile.crossings[`${this.run.name}>${mode}`];
        if (!crossing) return false;
        const carried = carriedPresses(this.run, now, this.record);
        this.#begin(now, entered(crossing, this.run, now, this.record, carried, this.row), carried);
        return true;
    }

    #begin(run, record, carried) {
        this.run = run;
        this.record = record;
        this.row = run.sampler.row();
        const { ground, wall, view } = run.starts;
        this.#put(ground, this.ground);
        this.#put(wall, this.wall ?? STILL);
        this.#put(view + 1, run.view.read(record));
        this.viewGiven = false;
        this.changesSeen = -1;
        this.#watch();
        run.sampler.begin(this.state, carried);
    }

    #put(start, numbers) {
        for (let number = 0; number < numbers.length; number++) this.row[start + number] = numbers[number];
    }

    /** A fresh start at rest where the body is: ramps, toggles, buffers and goals are forgotten. */
    restart() {
        const { run } = this;
        this.state.placed.delete(this.controls.slot("goal"));
        this.wall = null;
        const crossing = this.profile.crossings[`${run.name}>${run.name}`];
        const anew = entered(crossing, run, run, this.record, [], this.row);
        const body = [...run.body.read(this.record).slice(0, 4), 0, 0, 0];
        this.#begin(run, run.withBody(anew, body, true), []);
    }

    /** Takes one event of any kind: of a device, or a game's report to its helm. */
    apply(name, value) {
        const control = this.controls.find(name);
        if (control.kind === "mode") this.enter(value);
        else if (control.kind === "reported") this.#report(name, typeof value === "object" ? value : [value]);
        else this.state.set(control, value);
    }

    #report(name, numbers) {
        const body = this.run.body.read(this.record);
        const withBody = (changed, safe, turned) => (this.record = this.run.withBody(this.record, changed, safe, turned));
        if (name === "body.place") withBody([body[0], ...numbers, ...body.slice(4)], true);
        else if (name === "body.velocity") this.#setVelocity(body, numbers);
        else if (name === "body.facing") withBody([numbers[0] * DEG, ...body.slice(1)], false, true);
        else if (name === "body.push") withBody([...body.slice(0, 4), ...numbers.map((more, axis) => body[4 + axis] + more)]);
        else if (name === "body.contact") this.#touchWall(body, numbers);
        else if (name === "body.ground") this.#put(this.run.starts.ground, (this.ground = numbers));
        else if (name === "body.restart") this.restart();
        else if (name === "square") this.#blockSquare(numbers);
        else if (name === "discard") this.state.discardCounts();
    }

    #setVelocity(body, velocity) {
        this.record = this.run.withBody(this.record, [...body.slice(0, 4), ...velocity]);
        const taken = velocity.map((now, axis) => body[4 + axis] - now);
        const length = Math.hypot(...taken);
        const was = Math.hypot(...body.slice(4));
        const left = velocity.reduce((sum, now, axis) => sum + now * taken[axis], 0);
        if (was > 0 && length > 0.5 * was && left <= 1e-6 * length * was) this.#tellWall(taken.map((part) => -part / length));
    }

    #tellWall(normal) {
        const both = normal.map((part, axis) => (this.wall ?? STILL)[axis] + part);
        const length = Math.hypot(...both);
        this.wall = length > 1e-6 ? both.map((part) => part / length) : normal;
        this.#put(this.run.starts.wall, this.wall);
    }

    #touchWall(body, normal) {
        const into = Math.min(
            normal.reduce((sum, part, axis) => sum + body[4 + axis] * part, 0),
            0,
        );
        const moving = normal.map((part, axis) => body[4 + axis] - into * part);
        this.record = this.run.withBody(this.record, [...body.slice(0, 4), ...moving]);
        this.#tellWall(normal);
    }

    /** The course, blocked squares included. */
    get course() {
        this.#blockReported();
        return this.#course;
    }

    set course(course) {
        this.#course = course;
        this.#squares = null;
    }

    /** Blocks the squares that were reported one by one: their table is made once for all before a tick. */
    #blockReported() {
        if (!this.#squares) return;
        this.course = withSquares(this.#course, [...this.#squares.values()]);
        for (const run of Object.values(this.runs)) run.over(this.#course);
    }

    #blockSquare([x, y, blocked]) {
        this.#squares ??= new Map(squaresIn(this.#course).map((square) => [square.join(), square]));
        this.#squares.delete(`${x},${y}`);
        if (blocked > 0) this.#squares.set(`${x},${y}`, [x, y]);
        this.changesSeen = -1;
    }

    /** One tick of dt seconds, which consumes the input. Returns the record. */
    tick(dt) {
        const { state } = this;
        if (!(dt > 0 && dt < Infinity)) return this.run.standing(this.record);
        if (state.changes !== this.changesSeen) this.#takeChanges();
        const run = this.run;
        const row = this.row;
        if (state.viewChanges !== this.viewChangesSeen) {
            this.viewChangesSeen = state.viewChanges;
            const { view } = run.starts;
            row[view] = 1;
            row[view + 1] = state.values[this.controls.view] * DEG;
            row[view + 2] = state.values[this.controls.view + 1] * DEG;
            this.viewGiven = true;
        }
        const record = run.tick(this.record, row, dt);
        this.record = record;
        if (this.viewGiven) {
            row[run.starts.view] = 0;
            this.viewGiven = false;
        }
        this.ticks++;
        this.t += dt;
        const source = run.content.source >= 0 ? record[run.content.source] : -1;
        if (source >= 0) this.device = run.sampler.devices[source];
        else if (run.sampler.pressDevice >= 0) this.device = run.sampler.pressDevice;
        if (this.wall) {
            this.#put(run.starts.wall, STILL);
            this.wall = null;
        }
        /** The mode that this tick was in, and its record: a press may have switched to another one by now. */
        this.ticked = run;
        this.tickedRecord = record;
        for (const [index, mode] of this.stays ? [] : run.content.enters) {
            if (record[index] > 0) {
                this.enter(mode);
                break;
            }
        }
        return record;
    }

    #takeChanges() {
        const { state, run } = this;
        this.#blockReported();
        const kept = state.kept;
        this.changesSeen = run.sampler.fill(state, this.row) ? -1 : state.changes;
        if (kept.length) for (const other of this.others) other.note(kept);
    }

    get deviceName() {
        return DEVICES[this.device] ?? null;
    }
}
