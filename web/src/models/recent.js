/** The middle one of the last few values: one slow one, as while the page loads, does not show for long. */

const MOST = 9;

export class Recent {
    constructor() {
        this.values = [];
    }

    /** Takes a value; gives the middle one of the last. @param {number} value */
    take(value) {
        this.values.push(value);
        if (this.values.length > MOST) this.values.shift();
        const sorted = [...this.values].sort((a, b) => a - b);
        return sorted[sorted.length >> 1];
    }
}
