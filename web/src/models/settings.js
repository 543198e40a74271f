/** The changes of a profile relative to its file, with undo, redo, and the file's value of each field. */

const TOGETHER_MS = 700;

/** In place of a path if all changes differ from before. */
export const ALL = "*";

export class Settings {
    /** @param {Object} profile the page's contents of the file as it stands */
    constructor(profile) {
        this.changes = new Map();
        this.undone = [];
        this.done = [];
        this.listeners = new Set();
        /** The drag under way, 0 for none: a drag is one change, however long it takes. */
        this.drag = 0;
        this.drags = 0;
        /** The last values that fitted together, in the order of the profile's paths; null before any change. */
        this.good = null;
        /** Values of fields that the file does not have, before they were changed. */
        this.untouched = new Map();
        this.take(profile);
    }

    /** Takes the file as it is now; changes made here stay, except those that the file now has too. */
    take(profile) {
        this.file = fieldValues(profile);
        this.fileInherits = profile.inherits;
        for (const [path, value] of [...this.changes]) if (same(this.file.get(path), value)) this.changes.delete(path);
        this.show(profile);
    }

    /** Keeps the values that the file has of some fields, which it is about to lose. */
    keep(paths) {
        const kept = [...paths].filter((path) => this.file.has(path) && !this.changes.has(path));
        for (const path of kept) this.changes.set(path, this.file.get(path));
        return () => {
            for (const path of kept) this.changes.delete(path);
        };
    }

    /** Takes changes as the file's own, since they have just been written into it: until it has been read again, what is
     *  taken back goes to what was saved. */
    saved(changes) {
        this.fileInherits = { ...this.fileInherits };
        for (const [path, value] of Object.entries(changes)) {
            this.file.set(path, value);
            this.applied.add(path);
            delete this.fileInherits[path];
            if (same(this.changes.get(path), value)) this.changes.delete(path);
        }
        this.#tell(null);
    }

    /** Shows the contents of a profile: other forms have other fields. The changes that were applied to it are in its
     *  values, and may be taken back while it is shown. */
    show(profile, applied = {}) {
        this.profile = profile;
        this.current = fieldValues(profile);
        this.applied = new Set(Object.keys(applied));
        for (const [path, value] of this.current) if (!this.applied.has(path)) this.untouched.set(path, value);
        this.good = null;
        this.#tell(null);
    }

    value(path) {
        if (this.changes.has(path)) return this.changes.get(path);
        // What a mode takes from another one follows that one.
        const from = this.#from(path);
        if (from && this.#isMoved(from)) return this.value(from);
        return this.applied.has(path) ? this.fileValue(path) : this.current.get(path);
    }

    /** The field of another mode that a field is taken from: in the file, where what was changed is taken back. */
    #from(path) {
        return (this.applied.has(path) ? this.fileInherits : this.profile.inherits)?.[path];
    }

    #isMoved(path) {
        const from = this.#from(path);
        return this.changes.has(path) || this.applied.has(path) || (from !== undefined && this.#isMoved(from));
    }

    /** What the file has there; for a field that only another form has, what that form begins with. */
    fileValue(path) {
        if (this.file.has(path)) return this.file.get(path);
        return this.untouched.has(path) ? this.untouched.get(path) : this.current.get(path);
    }

    isChanged(path) {
        return this.changes.has(path);
    }

    /** The numbers of the profile in the order of its paths. */
    values() {
        return this.profile.paths.map((path, index) => {
            const moved = this.#isMoved(path) ? this.value(path) : undefined;
            return moved === undefined ? this.profile.values[index] : moved;
        });
    }

    /** Changes a value; `now` is null for what is a change of its own, whatever came just before. */
    set(path, value, now = performance.now()) {
        const before = this.changes.get(path);
        if (same(before, value) || (before === undefined && same(this.fileValue(path), value))) return;
        const last = this.done[this.done.length - 1];
        this.undone = [];
        if (last?.path === path && this.#goesOn(last, now)) last.time = now;
        else this.done.push({ path, before: this.#now(path), time: now, drag: this.drag });
        this.#put(path, value);
    }

    /** The value itself, even if it is the file's: by the time of an undo the file may have another one. */
    #now(path) {
        return this.changes.has(path) ? this.changes.get(path) : this.fileValue(path);
    }

    #goesOn(last, now) {
        if (now === null || last.time === null) return false;
        return this.drag ? last.drag === this.drag : now - last.time < TOGETHER_MS;
    }

    /** A pointer goes down. */
    beginDrag() {
        this.drag = ++this.drags;
    }

    endDrag() {
        this.drag = 0;
    }

    reset(path) {
        if (this.changes.has(path)) this.set(path, this.fileValue(path), null);
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
        if (last.all) {
            to.push({ path: null, all: this.changes, time: null });
            this.changes = last.all;
            this.#tell(ALL);
            return;
        }
        to.push({ path: last.path, before: this.#now(last.path), time: null });
        this.#put(last.path, last.before);
    }

    /** Becomes a copy of another set of numbers; that is one change. */
    copy(other) {
        if (this.isLike(other)) return;
        this.done.push({ path: null, all: this.changes, time: null });
        this.undone = [];
        this.changes = new Map(other.changes);
        this.untouched = new Map([...other.untouched, ...this.untouched]);
        this.show(other.profile, Object.fromEntries([...other.applied].map((path) => [path, null])));
    }

    /** Whether another set of numbers is the same. */
    isLike(other) {
        const { changes } = other;
        return this.changes.size === changes.size && [...this.changes].every(([path, value]) => same(changes.get(path), value));
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
export function same(one, other) {
    return one === other || (Array.isArray(one) && Array.isArray(other) && JSON.stringify(one) === JSON.stringify(other));
}

function fieldValues(profile) {
    return new Map(profile.fields.map((field) => [field.path, field.value]));
}
