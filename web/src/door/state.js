/** The state of all controls of every device: events in, levels and displacements out. */

export const MOST_CHANGES_KEPT = 20000;

export class DeviceState {
    /** @param {import("./controls.js").Controls} controls */
    constructor(controls) {
        this.controls = controls;
        this.rest = controls.atRest();
        this.values = this.rest.slice();
        this.changes = 0;
        this.touchChanges = 0;
        this.viewChanges = 0;
        this.placed = new Set();
        this.landings = controls.touchSlots.map(() => [0, 0]);
        /** Numbers of keys and buttons in the order in which they went down, by slot. */
        this.order = new Map();
        /** Slots of the controls of which every change is kept, in order, until takeKept. */
        this.watched = new Set();
        this.kept = [];
        this.overrun = false;
        this.countsEnd = 0;
        this.clamped = new Map();
        this.refused = new Map();
    }

    /** Takes one event: the name of a control, and its number or numbers in the device's own standard. */
    apply(name, value) {
        this.set(this.controls.find(name), value);
    }

    set(control, value) {
        if (control.kind === "loss") {
            for (const held of this.controls.releasedBy.get(control.name)) this.#release(held);
            this.changes++;
            return;
        }
        if (!control.width) return;
        const levels = typeof value === "object" ? value : [Number(value)];
        if (levels.length !== control.width) throw new RangeError(`${control.name}: ${control.width} numbers`);
        // All or none: half a stick position would be a direction that was never pushed.
        for (const level of levels) {
            if (!Number.isFinite(level)) {
                count(this.refused, control.name);
                return;
            }
        }
        const { kind, slot, low, high } = control;
        let cut = false;
        const fitting = levels.map((level) => {
            const fits = Math.min(Math.max(level, low), high);
            cut ||= fits !== level;
            return fits;
        });
        if (cut) count(this.clamped, control.name);
        if (kind === "counts" || kind === "wheel") {
            this.#displace(control, fitting);
            return;
        }
        if (kind === "view") this.viewChanges++;
        else if (kind === "place") this.placed.add(slot);
        const was = this.values.slice(slot, slot + control.width);
        // Pointing at the same place again sets a new goal.
        if (kind !== "place" && was.every((level, index) => level === fitting[index])) return;
        if (kind === "touch" && fitting[2] === 0 && was[2] === 0) return;
        for (let index = 0; index < fitting.length; index++) this.values[slot + index] = fitting[index];
        this.changes++;
        if (control.width === 1 && fitting[0] > 0.5 && was[0] <= 0.5) this.order.set(slot, this.changes);
        if (kind === "touch") {
            this.touchChanges++;
            if (was[2] === 0) this.landings[this.controls.touchSlots.indexOf(slot)] = [fitting[0], fitting[1]];
        }
        if (this.watched.has(slot)) this.#keep({ slot, value: fitting, was, lost: false });
    }

    #displace(control, counts) {
        for (let index = 0; index < counts.length; index++) this.values[control.slot + index] += counts[index];
        this.changes++;
        if (this.watched.has(control.slot))
            this.#keep({ slot: control.slot, value: counts, was: counts.map(() => 0), lost: false });
    }

    #release(control) {
        const { slot, width, kind } = control;
        const rest = this.rest.slice(slot, slot + width);
        if (kind === "counts" || kind === "wheel") {
            // Motion before the loss still counts; presses that wait for the ground are informed.
            if (this.watched.has(slot)) this.#keep({ slot, value: rest, was: rest, lost: true });
            return;
        }
        const was = this.values.slice(slot, slot + width);
        // A lost finger stays where it was.
        if (kind === "touch") [rest[0], rest[1]] = was;
        if (was.every((level, index) => level === rest[index])) {
            // Presses that wait for the ground are informed as well.
            if (this.watched.has(slot) && ["button", "key", "stick", "touch"].includes(kind))
                this.#keep({ slot, value: was, was, lost: true });
            return;
        }
        if (kind === "touch") this.touchChanges++;
        for (let index = 0; index < width; index++) this.values[slot + index] = rest[index];
        if (this.watched.has(slot)) this.#keep({ slot, value: rest, was, lost: true });
    }

    #keep(change) {
        if (this.kept.length < MOST_CHANGES_KEPT) this.kept.push(change);
        else this.overrun = true;
    }

    /** The changes of the watched controls since the last call, in order. */
    takeKept() {
        const kept = this.kept;
        if (!kept.length) return kept;
        this.kept = [];
        this.countsEnd = 0;
        if (this.overrun) {
            this.overrun = false;
            for (const slot of this.watched) {
                const control = this.controls.bySlot.get(slot);
                if (control.kind === "wheel") continue;
                const now = this.values.slice(slot, slot + control.width);
                kept.push({ slot, value: now, was: now, lost: false });
            }
        }
        return kept;
    }

    /** Forgets displacements that no tick has taken: counts, and the motion of fingers and hands. */
    discardCounts() {
        for (const control of this.controls.bySlot.values())
            if (control.kind === "counts" || control.kind === "wheel")
                this.values.fill(0, control.slot, control.slot + control.width);
        this.countsEnd = this.kept.length;
        this.changes++;
    }

    /** The held state as it was when takeKept was called last, for the watched controls. */
    valuesBeforeKept() {
        const values = this.values.slice();
        for (let number = this.kept.length - 1; number >= 0; number--) {
            const { slot, was } = this.kept[number];
            for (let index = 0; index < was.length; index++) values[slot + index] = was[index];
        }
        return values;
    }

    value(name) {
        const { slot, width } = this.controls.find(name);
        return width === 1 ? this.values[slot] : this.values.slice(slot, slot + width);
    }
}

function count(counter, name) {
    counter.set(name, (counter.get(name) ?? 0) + 1);
}
