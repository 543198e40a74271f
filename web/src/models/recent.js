/** The median of the last few values, so that a single slow one, as while the page loads, does not show. */

const MOST = 9;

export class Recent {
    constructor() {
        this.values = [];
    }

    /** Takes a value; returns the median of the last ones. @param {number} value */
    take(value) {
        this.values.push(value);
        if (this.values.length > MOST) this.values.shift();
        const sorted = [...this.values].sort((a, b) => a - b);
        return sorted[sorted.length >> 1];
    }
}
