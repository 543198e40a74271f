/** Turns held state into the raw numbers of a mode's sources and the edges of its presses. */

import { DEVICES } from "./controls.js";
import { HandSwing } from "./hands.js";
import { HeldKeys } from "./keys.js";
import { AxesReader, MouseReader, PointerReader, RatesReader, StickReader } from "./levels.js";
import { AimReader, ForwardReader, GoalReader, PointReader } from "./pointing.js";
import { PressReader } from "./press_reader.js";
import { FingerDrag, ThumbStick, ZoneLists } from "./touch.js";

const READERS = {
    keys: HeldKeys,
    stick: StickReader,
    axes: AxesReader,
    mouse: MouseReader,
    rates: RatesReader,
    pointer: PointerReader,
    thumb: ThumbStick,
    drag: FingerDrag,
    zones: ZoneLists,
    hands: HandSwing,
};

export class Sampler {
    /** @param {Object} bindings what a mode binds, as the page's contents have it */
    constructor(bindings, controls) {
        this.bindings = bindings;
        this.starts = bindings.starts;
        this.readers = [];
        this.followers = [];
        this.devices = bindings.devices;
        this.hasEdges = false;
        this.edgesAreNew = true;
        /** The device (index in DEVICES) on which a press went down since the last tick, -1 for none. */
        this.pressDevice = -1;
        for (const sources of Object.values(bindings.channels)) {
            let first = null;
            for (const source of sources) {
                if (source.kind === "silent") continue;
                const reader = new READERS[source.kind](source, controls);
                if (reader instanceof HeldKeys) {
                    if (first) reader.countWith(first);
                    else first = reader;
                }
                this.#add(reader);
            }
        }
        this.goal = null;
        if (bindings.goal) {
            this.goal = new GoalReader(bindings.goal, this.starts.goal, controls);
            this.#add(this.goal);
        }
        if (bindings.aims) this.readers.push(new AimReader(this.starts.aim, controls));
        if (bindings.tracks) this.readers.push(new ForwardReader(this.starts.pointers, this.starts.head, controls));
        if (bindings.points >= 0) this.readers.push(new PointReader(bindings.points, this.starts.pointing));
        this.presses = bindings.presses.map((binds) => new PressReader(binds, controls));
        this.bindsPresses = bindings.presses.some((binds) => binds.length);
        this.bySlot = new Map();
        for (const follower of [...this.followers, ...this.presses])
            for (const slot of new Set(follower.watched))
                this.bySlot.set(slot, [...(this.bySlot.get(slot) ?? []), follower]);
        this.watched = [...this.bySlot.keys()];
    }

    #add(reader) {
        this.readers.push(reader);
        if (reader.take) this.followers.push(reader);
    }

    row() {
        return this.bindings.atRest.slice();
    }

    /** Begins with what was held at the last tick; presses that are carried over continue. */
    begin(state, carried = []) {
        for (const slot of this.watched) state.watched.add(slot);
        const values = state.valuesBeforeKept();
        this.edgesAreNew = true;
        for (const follower of this.followers) follower.begin(values, state.landings);
        for (const follower of this.followers) follower.putInOrder?.(state.order);
        this.presses.forEach((press, number) => press.begin(values, state.landings, Boolean(carried[number])));
    }

    /** Writes the state into a row. Returns whether some of it holds for this tick only. */
    fill(state, row) {
        let gone = false;
        if (state.kept.length || this.hasEdges || this.edgesAreNew) {
            if (this.presses.length) gone = this.#fillPresses(state, row);
            else if (state.kept.length) this.#follow(state);
        } else if (this.presses.length) {
            this.pressDevice = -1;
        }
        for (const reader of this.readers) {
            const alone = reader.read(state, row);
            gone ||= alone;
            if (reader === this.goal && (alone || !this.presses.length)) this.pressDevice = alone ? reader.device : -1;
        }
        const { mouse, wheel } = state.controls;
        state.values[mouse] = state.values[mouse + 1] = state.values[wheel] = 0;
        return gone;
    }

    #follow(state) {
        const countsEnd = state.countsEnd;
        state.takeKept().forEach((change, number) => {
            for (const follower of this.bySlot.get(change.slot) ?? []) follower.take(change);
            if (number + 1 === countsEnd) for (const reader of this.followers) reader.discard?.();
        });
    }

    #fillPresses(state, row) {
        const hadEdges = this.hasEdges || this.edgesAreNew;
        let gone = (this.hasEdges = this.#beginPresses());
        if (state.kept.length) {
            this.#follow(state);
            gone = this.hasEdges = this.#endPresses();
        }
        if (gone || hadEdges) {
            let start = this.starts.presses;
            for (const press of this.presses) {
                row[start] = press.down ? 1 : 0;
                row[start + 1] = press.edges;
                row[start + 2] = press.lost;
                start += 3;
            }
        }
        return gone;
    }

    /** Follows changes that another mode's sampler took, so that the state of a half-pressed trigger is known. */
    note(changes) {
        for (const change of changes)
            for (const follower of this.bySlot.get(change.slot) ?? [])
                if (follower instanceof PressReader) follower.note(change);
    }

    #beginPresses() {
        this.pressDevice = -1;
        if (this.edgesAreNew) {
            this.edgesAreNew = false;
            return this.presses.some((press) => press.edges);
        }
        if (this.hasEdges) for (const press of this.presses) press.clear();
        return false;
    }

    #endPresses() {
        let edges = false;
        for (const press of this.presses) {
            if (!press.edges && !press.lost) continue;
            edges = true;
            if (press.device) this.pressDevice = DEVICES.indexOf(press.device);
        }
        return edges;
    }
}
