/** What has been changed of a profile, over what its file holds: with undo, redo, and the file's value of each field. */

const TOGETHER_MS = 700;

export class Settings {
    /** @param {Object} profile the page's contents of the file as it stands */
    constructor(profile) {
        this.changes = new Map();
        this.undone = [];
        this.done = [];
        this.listeners = new Set();
        /** The last values that fitted together, in the order of the profile's paths; null before any change. */
        this.good = null;
        this.take(profile);
    }

    /** Takes the file as it is now; changes made here stay, except those that the file now has too. */
    take(profile) {
        this.file = fieldValues(profile);
        for (const [path, value] of [...this.changes]) if (same(this.file.get(path), value)) this.changes.delete(path);
        this.show(profile);
    }

    /** Shows the contents of a changed profile: other forms have other fields. */
    show(profile) {
        this.profile = profile;
        this.current = fieldValues(profile);
        this.good = null;
        this.#tell(null);
    }

    value(path) {
        if (this.changes.has(path)) return this.changes.get(path);
        // What a mode takes from another one follows that one.
        const from = this.profile.inherits?.[path];
        return from && this.#isMoved(from) ? this.value(from) : this.current.get(path);
    }

    #isMoved(path) {
        const from = this.profile.inherits?.[path];
        return this.changes.has(path) || (from !== undefined && this.#isMoved(from));
    }

    /** What the file has there; for a field that only another form has, its default. */
    fileValue(path) {
        return this.file.has(path) ? this.file.get(path) : this.current.get(path);
    }

    isChanged(path) {
        return this.changes.has(path);
    }

    /** The numbers of the profile in the order of its paths. */
    values() {
        return this.profile.paths.map((path, index) => {
            const changed = this.changes.get(path);
            if (changed !== undefined) return changed;
            const from = this.profile.inherits?.[path];
            return from && this.#isMoved(from) ? this.value(from) : this.profile.values[index];
        });
    }

    set(path, value, now = performance.now()) {
        const before = this.changes.get(path);
        if (same(before, value) || (before === undefined && same(this.fileValue(path), value))) return;
        const last = this.done[this.done.length - 1];
        this.undone = [];
        // A slider that is dragged is one change.
        if (last && last.path === path && now - last.time < TOGETHER_MS) last.time = now;
        else this.done.push({ path, before, time: now });
        this.#put(path, value);
    }

    reset(path) {
        if (this.changes.has(path)) this.set(path, this.fileValue(path), -Infinity);
    }

    #put(path, value) {
        if (value === undefined || same(value, this.fileValue(path))) this.changes.delete(path);
        else this.changes.set(path, value);
        this.#tell(path);
    }

    undo() {
        this.#step(this.done, this.undone);
    }

    redo() {
        this.#step(this.undone, this.done);
    }

    #step(from, to) {
        const last = from.pop();
        if (!last) return;
        to.push({ path: last.path, before: this.changes.get(last.path), time: -Infinity });
        this.#put(last.path, last.before);
    }

    /** The changes as plain values by their paths. */
    plain() {
        return Object.fromEntries(this.changes);
    }

    listen(listener) {
        this.listeners.add(listener);
    }

    #tell(path) {
        for (const listener of this.listeners) listener(path);
    }
}

/** Whether two values are the same: numbers, words, or lists of points. */
function same(one, other) {
    return one === other || (Array.isArray(one) && Array.isArray(other) && JSON.stringify(one) === JSON.stringify(other));
}

function fieldValues(profile) {
    return new Map(profile.fields.map((field) => [field.path, field.value]));
}
