/** Reads the downs and ups of a press from its bindings: each once, in order, however short. */

import { holds, landedIn } from "./touch.js";

/** Most downs and ups of one press per tick. */
export const MOST_EDGES = 10000;

class Switches {
    constructor(bind) {
        this.watched = bind.slots;
        this.device = bind.device;
        this.held = new Map(bind.slots.map((slot) => [slot, false]));
        this.above = bind.above;
        this.release = bind.release;
        this.isDown = false;
    }

    begin(values) {
        for (const slot of this.watched)
            // Between the two limits it keeps its state, which take has followed.
            this.held.set(slot, values[slot] >= this.above || (this.held.get(slot) && values[slot] > this.release));
        this.isDown = this.#all();
    }

    take(change) {
        const level = change.value[0];
        this.held.set(change.slot, this.held.get(change.slot) ? level > this.release : level >= this.above);
        this.isDown = this.#all();
        return 0;
    }

    #all() {
        for (const held of this.held.values()) if (!held) return false;
        return true;
    }
}

class ZonePress {
    constructor(bind, controls) {
        this.controls = controls;
        this.watched = controls.touchSlots;
        this.device = "touch";
        this.zone = bind.zone;
        this.known = new Set();
        this.inside = new Set();
        this.isDown = false;
    }

    begin(values, landings) {
        this.known = new Set(this.watched.filter((slot) => values[slot + 2] > 0));
        this.inside = new Set(landedIn(this.controls, this.zone, values, landings));
        this.isDown = this.inside.size > 0;
    }

    take({ slot, value: [x, y, pressure] }) {
        if (pressure === 0) {
            this.known.delete(slot);
            this.inside.delete(slot);
        } else if (!this.known.has(slot)) {
            this.known.add(slot);
            if (holds(this.zone, x, y)) this.inside.add(slot);
        }
        this.isDown = this.inside.size > 0;
        return 0;
    }
}

class TiltedStick {
    constructor(bind) {
        this.watched = [bind.slot];
        this.device = bind.device;
        this.index = bind.index;
        this.sign = bind.sign;
        this.above = bind.above;
        this.release = bind.release;
        this.isDown = false;
    }

    begin(values) {
        this.#tilt(values[this.watched[0] + this.index]);
    }

    take(change) {
        this.#tilt(change.value[this.index]);
        return 0;
    }

    #tilt(level) {
        const tilt = level * this.sign;
        this.isDown = this.isDown ? tilt > this.release : tilt >= this.above;
    }
}

class WheelNotches {
    constructor(bind, controls) {
        this.watched = [controls.wheel];
        this.device = "mouse";
        this.sign = bind.towards ? 1 : -1;
        this.rest = 0;
        this.isDown = false;
    }

    begin() {
        this.rest = 0;
    }

    take(change) {
        const turned = change.value[0] * this.sign;
        // Turning back starts a new notch.
        this.rest = turned > 0 ? this.rest + turned : 0;
        const notches = Math.trunc(this.rest);
        this.rest -= notches;
        return notches;
    }
}

const KINDS = { switches: Switches, zone: ZonePress, stick: TiltedStick, wheel: WheelNotches };

export class PressReader {
    constructor(binds, controls) {
        this.binds = binds.filter((bind) => bind.kind !== "unless").map((bind) => new KINDS[bind.kind](bind, controls));
        this.unless = binds.filter((bind) => bind.kind === "unless").flatMap((bind) => bind.slots);
        this.blocking = new Set();
        this.bySlot = new Map();
        this.binds.forEach((bind, number) => {
            for (const slot of bind.watched) this.bySlot.set(slot, [...(this.bySlot.get(slot) ?? []), number]);
        });
        for (const slot of this.unless) if (!this.bySlot.has(slot)) this.bySlot.set(slot, []);
        this.watched = [...this.bySlot.keys()];
        this.downCount = 0;
        /** Bindings that were held before this mode began: they count after they have been released. */
        this.asleep = new Set();
        this.clear();
    }

    get down() {
        return this.downCount > 0;
    }

    clear() {
        this.edges = 0;
        this.lost = 0;
        this.device = null;
    }

    begin(values, landings, carried) {
        this.clear();
        this.downCount = 0;
        this.asleep = new Set();
        this.blocking = new Set(this.unless.filter((slot) => values[slot] > 0.5));
        this.binds.forEach((bind, number) => {
            bind.begin(values, landings);
            if (!bind.isDown) return;
            if (carried) this.downCount++;
            else this.asleep.add(number);
        });
        if (carried && this.downCount === 0) this.edges = 1;
    }

    /** Follows a change while another mode is played; it does not count here. */
    note(change) {
        this.#block(change);
        for (const number of this.bySlot.get(change.slot)) this.binds[number].take(change);
    }

    take(change) {
        this.#block(change);
        for (const number of this.bySlot.get(change.slot)) this.#takeBind(number, change);
    }

    #takeBind(number, change) {
        const bind = this.binds[number];
        const wasDown = bind.isDown;
        const notches = bind.take(change);
        if (notches && this.downCount === 0 && !this.blocking.size) {
            this.edges = Math.min(this.edges + 2 * notches, MOST_EDGES);
            this.lost = 0;
            this.device = bind.device;
        }
        if (bind.isDown === wasDown) {
            if (change.lost && this.downCount === 0 && this.lost === 0) this.lost = 2;
        } else if (this.asleep.has(number)) {
            // The last change was to up.
            this.asleep.delete(number);
        } else if (bind.isDown && this.blocking.size) {
            this.asleep.add(number);
        } else if (bind.isDown) {
            this.downCount++;
            this.device = bind.device;
            if (this.downCount === 1) this.edges++;
        } else {
            this.downCount--;
            if (this.downCount === 0) {
                this.edges++;
                this.lost = change.lost ? 1 : 0;
            }
        }
    }

    #block(change) {
        if (!this.unless.includes(change.slot)) return;
        if (change.value[0] > 0.5) this.blocking.add(change.slot);
        else this.blocking.delete(change.slot);
    }
}
