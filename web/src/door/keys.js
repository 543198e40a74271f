/** Four lists of keys, and the order of pressing, which decides between opposite ones. */

export class HeldKeys {
    constructor(source) {
        this.source = source;
        this.watched = source.lists.flat();
        this.numbers = new Map();
        this.fresh = new Set();
        this.gone = new Set();
        this.isNew = true;
    }

    /** Numbers the keys that are held already, until putInOrder. */
    begin(values) {
        this.fresh = new Set();
        this.gone = new Set();
        this.isNew = true;
        for (const slot of this.watched) {
            this.numbers.delete(slot);
            if (values[slot] > 0.5) this.numbers.set(slot, this.#next());
        }
    }

    /** Numbers the keys that are held already in the order in which they went down. */
    putInOrder(order) {
        const slots = [...this.numbers.keys()].sort((one, other) => (order.get(one) ?? 0) - (order.get(other) ?? 0));
        slots.forEach((slot, index) => this.numbers.set(slot, index + 1));
    }

    #next() {
        let last = 0;
        for (const number of this.numbers.values()) last = Math.max(last, number);
        return last + 1;
    }

    /** Shares one order of pressing with another entry of the channel. */
    countWith(other) {
        this.numbers = other.numbers;
    }

    /** A key that comes up before a tick has seen it counts for one tick. */
    take({ slot, value, lost }) {
        if (value[0] > 0.5) {
            this.fresh.add(slot);
            if (!this.numbers.has(slot) || this.gone.has(slot)) {
                this.gone.delete(slot);
                this.numbers.set(slot, this.#next());
            }
        } else if (this.fresh.has(slot) && !lost) {
            this.gone.add(slot);
            return;
        } else {
            this.numbers.delete(slot);
        }
        this.isNew = true;
    }

    read(state, row) {
        if (!this.isNew) return false;
        const { lists, start, order } = this.source;
        lists.forEach((slots, side) => {
            let found = 0;
            for (const slot of slots) {
                const number = this.numbers.get(slot);
                if (number === undefined) continue;
                if (order === "") found = 1;
                else if (found === 0) found = number;
                else found = order === "latest" ? Math.max(found, number) : Math.min(found, number);
            }
            row[start + side] = found;
        });
        for (const slot of this.gone) this.numbers.delete(slot);
        this.isNew = this.gone.size > 0;
        this.fresh = new Set();
        this.gone = new Set();
        return this.isNew;
    }
}
