/** The last seconds of play, a number per tick in each of some columns, without growing. */
export class Ring {
    constructor(columns, size) {
        this.size = size;
        this.count = 0;
        this.next = 0;
        this.columns = Object.fromEntries(columns.map((name) => [name, new Float64Array(size)]));
    }

    push(row) {
        for (const name in this.columns) this.columns[name][this.next] = row[name];
        this.next = (this.next + 1) % this.size;
        this.count = Math.min(this.count + 1, this.size);
    }

    clear() {
        this.count = this.next = 0;
    }

    /** The index of the row that many rows before the last one. */
    index(back) {
        return (this.next - 1 - back + 2 * this.size) % this.size;
    }

    /** Columns of the rows of which the first is not below `least`, oldest first. */
    since(first, least, names) {
        let rows = 0;
        while (rows < this.count && this.columns[first][this.index(rows)] >= least) rows++;
        return names.map((name) => {
            const found = new Array(rows);
            for (let row = 0; row < rows; row++) found[row] = this.columns[name][this.index(rows - 1 - row)];
            return found;
        });
    }
}
