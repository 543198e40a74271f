/**
 * Every control: its kind, what is unplugged together with it, and its slots in the held state.
 * The table comes with the page's contents, so that names and ranges are defined in one place.
 */

export const DEVICES = ["keys", "pad", "mouse", "touch", "hands"];
export const TOUCHES = 10;

export class Controls {
    /** @param {Array<Array>} table rows of name, kind, device, unit, slot, width, low, high
     *  @param {Object<string, string[]>} releases units that each loss releases */
    constructor(table, releases) {
        this.byName = new Map();
        this.bySlot = new Map();
        this.width = 0;
        for (const [name, kind, device, unit, slot, width, low, high] of table) {
            const control = { name, kind, device, unit, slot, width, low, high, rest: kind === "pointer" ? 0.5 : 0 };
            this.byName.set(name, control);
            if (name.startsWith("pad.")) this.byName.set(`pad0${name.slice(3)}`, control);
            if (name === "lost.pad") this.byName.set("lost.pad0", control);
            if (width) this.bySlot.set(slot, control);
            this.width = Math.max(this.width, slot + width);
        }
        this.releasedBy = new Map();
        for (const [loss, units] of Object.entries(releases)) {
            const held = [...this.bySlot.values()].filter((control) => units.includes(control.unit));
            this.releasedBy.set(loss, held);
            if (loss === "lost.pad") this.releasedBy.set("lost.pad0", held);
        }
        this.touchSlots = Array.from({ length: TOUCHES }, (_, finger) => this.slot(`touch.${finger}`));
        this.mouse = this.slot("mouse.move");
        this.wheel = this.slot("mouse.wheel");
        this.pointer = this.slot("pointer.at");
        this.view = this.slot("view");
        this.window = this.slot("window");
    }

    slot(name) {
        return this.byName.get(name).slot;
    }

    /** @throws {RangeError} for a name that no control has */
    find(name) {
        const control = this.byName.get(name);
        if (!control) throw new RangeError(`unknown control "${name}"`);
        return control;
    }

    atRest() {
        const values = new Array(this.width).fill(0);
        for (const control of this.bySlot.values()) values.fill(control.rest, control.slot, control.slot + control.width);
        return values;
    }
}
