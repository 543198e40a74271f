/**
 * Fingers on a touch screen: zones, a stick under the thumb, a drag. Zones are left, top, right, bottom. The
 * window has the shape of the profile until another one is reported.
 */

export function holds([left, top, right, bottom], x, y) {
    return left <= x && x <= right && top <= y && y <= bottom;
}

/** Slots of the touches that are down and landed in the zone. */
export function landedIn(controls, zone, values, landings) {
    return controls.touchSlots.filter((slot, finger) => values[slot + 2] > 0 && holds(zone, ...landings[finger]));
}

export class ZoneLists {
    constructor(source) {
        this.source = source;
        this.watched = [];
        this.changesSeen = -1;
    }

    begin() {
        this.changesSeen = -1;
    }

    take() {}

    read(state, row) {
        if (state.touchChanges === this.changesSeen) return false;
        this.changesSeen = state.touchChanges;
        const { values, controls } = state;
        const fingers = controls.touchSlots.filter((slot) => values[slot + 2] > 0);
        this.source.lists.forEach((zones, side) => {
            const held = zones.some((zone) => fingers.some((slot) => holds(zone, values[slot], values[slot + 1])));
            row[this.source.start + side] = held ? 1 : 0;
        });
        return false;
    }
}

export class ThumbStick {
    constructor(source, controls) {
        this.source = source;
        this.controls = controls;
        this.watched = [...controls.touchSlots, controls.window];
        this.known = new Set();
        this.aspectRatio = source.aspectRatio;
        this.#release();
    }

    #release() {
        this.thumb = -1;
        this.middle = [0, 0];
        this.tilt = [0, 0];
    }

    /** Continues with a thumb that is already on the screen. */
    begin(values, landings) {
        this.#release();
        this.aspectRatio = values[this.controls.window] || this.source.aspectRatio;
        this.known = new Set(this.controls.touchSlots.filter((slot) => values[slot + 2] > 0));
        const [slot] = landedIn(this.controls, this.source.zone, values, landings);
        if (slot !== undefined) {
            this.thumb = slot;
            this.middle = this.source.middle ?? landings[this.controls.touchSlots.indexOf(slot)];
            this.#point(values[slot], values[slot + 1]);
        }
    }

    take({ slot, value: [x, y, pressure] }) {
        if (slot === this.controls.window) {
            this.aspectRatio = x || this.source.aspectRatio;
            return;
        }
        const landing = !this.known.has(slot);
        if (pressure === 0) {
            this.known.delete(slot);
            if (slot === this.thumb) this.#release();
            return;
        }
        this.known.add(slot);
        if (landing && this.thumb < 0 && holds(this.source.zone, x, y)) {
            this.thumb = slot;
            this.middle = this.source.middle ?? [x, y];
        }
        if (slot === this.thumb) this.#point(x, y);
    }

    #point(x, y) {
        const { radius, drag } = this.source;
        const { aspectRatio } = this;
        let right = ((x - this.middle[0]) * aspectRatio) / radius;
        let forward = (this.middle[1] - y) / radius;
        const length = Math.hypot(right, forward);
        if (length > 1) {
            right /= length;
            forward /= length;
            if (drag) this.middle = [x - (right * radius) / aspectRatio, y + forward * radius];
        }
        this.tilt = [right, forward];
    }

    read(state, row) {
        [row[this.source.start], row[this.source.start + 1]] = this.tilt;
        return false;
    }
}

export class FingerDrag {
    constructor(source, controls) {
        this.source = source;
        this.controls = controls;
        this.watched = [...controls.touchSlots, controls.window];
        this.aspectRatio = source.aspectRatio;
        this.at = new Map();
        this.known = new Set();
        this.discard();
    }

    begin(values, landings) {
        this.aspectRatio = values[this.controls.window] || this.source.aspectRatio;
        this.known = new Set(this.controls.touchSlots.filter((slot) => values[slot + 2] > 0));
        const inside = landedIn(this.controls, this.source.zone, values, landings);
        this.at = new Map(inside.map((slot) => [slot, [values[slot], values[slot + 1]]]));
        this.discard();
    }

    take({ slot, value: [x, y, pressure] }) {
        if (slot === this.controls.window) {
            this.aspectRatio = x || this.source.aspectRatio;
            return;
        }
        const was = this.at.get(slot);
        // A lost finger stays where it was, which adds nothing.
        if (was) {
            this.right += x - was[0];
            this.up += (was[1] - y) / this.aspectRatio;
            this.at.set(slot, [x, y]);
        }
        if (pressure === 0) {
            this.at.delete(slot);
            this.known.delete(slot);
        } else if (!this.known.has(slot)) {
            this.known.add(slot);
            if (holds(this.source.zone, x, y)) this.at.set(slot, [x, y]);
        }
    }

    discard() {
        this.right = this.up = 0;
    }

    read(state, row) {
        row[this.source.start] = this.right;
        row[this.source.start + 1] = this.up;
        const moved = this.right !== 0 || this.up !== 0;
        this.discard();
        return moved;
    }
}
