/** Play as a recording in the usual format: a header, then one event per line. */

const JUST_AFTER_S = 1e-6;

export class Recorder {
    constructor(title) {
        this.title = title;
        this.events = [];
        this.startS = null;
    }

    /** Begins with what comes first in a recording: mode, body, view and the goal on the way, in the plan frame; then
     *  a tap for each toggle that is on. Returns the numbers of those that no control toggles alone. */
    begin(helm, goal = null) {
        this.startS = helm.t;
        this.events = [];
        const [face, x, y, z, ...velocity] = helm.run.body.read(helm.record);
        const [yaw, pitch] = helm.run.view.read(helm.record);
        const deg = 180 / Math.PI;
        this.#put("mode", helm.mode, 0);
        this.#put("body.place", [x, y, z], 0);
        this.#put("body.velocity", velocity, 0);
        this.#put("body.facing", face * deg, 0);
        if (yaw !== 0 || pitch !== 0) this.#put("view", [yaw * deg, pitch * deg], 0);
        if (goal) this.#put("goal", goal, 0);
        const toggled = helm.run.toggled(helm.record);
        for (const [, control] of toggled) {
            if (control) for (const level of [1, 0]) this.#put(control, level, 0);
        }
        this.#putHeld(helm.state);
        return toggled.filter(([, control]) => !control).map(([number]) => number);
    }

    /** Controls that are held already, and the window's shape. */
    #putHeld({ controls, values, placed, landings }) {
        let slid = false;
        for (const { name, kind, slot, width, rest } of controls.bySlot.values()) {
            if (["reported", "view", "counts", "wheel"].includes(kind) || (kind === "place" && !placed.has(slot))) continue;
            // A goal that was set may have been reached, or dropped for a key.
            if (name === "goal") continue;
            const held = values.slice(slot, slot + width);
            const idle = kind === "touch" ? held[2] === 0 : held.every((level) => level === rest);
            if (idle) continue;
            const landing = kind === "touch" ? landings[controls.touchSlots.indexOf(slot)] : null;
            if (landing && (landing[0] !== held[0] || landing[1] !== held[1])) {
                // The tilt of a thumb is its distance from there.
                this.#put(name, [...landing, held[2]], 0);
                slid = true;
            }
            this.#put(name, width === 1 ? held[0] : held, 0);
        }
        // The motion from there to here belongs to the past.
        if (slid) this.#put("discard", 1, 0);
    }

    /** An event is timed a microsecond after the tick before it: the same ticks again give the same walk. */
    take(helm, control, value) {
        const t = helm.t - this.startS;
        this.#put(control, value, t > 0 ? t + JUST_AFTER_S : 0);
    }

    #put(c, v, t) {
        this.events.push({ t, c, v });
    }

    lines() {
        const devices = [...new Set(this.events.map(({ c }) => c.split(".")[0]))];
        const known = { key: "keys", pad: "pad", mouse: "mouse", pointer: "mouse", touch: "touch", hand: "hands", head: "hands" };
        const head = {
            format: "wendonic-recording",
            version: 1,
            title: this.title,
            devices: [...new Set(devices.map((name) => known[name.replace(/\d$/, "")]).filter(Boolean))],
        };
        return [head, ...this.events].map((line) => JSON.stringify(line));
    }
}
