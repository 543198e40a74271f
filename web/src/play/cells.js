/** Some numbers of a record, by where they are read and everywhere they are written. */

export class Cells {
    constructor({ sources, constants, targets }) {
        this.sources = sources;
        this.constants = constants;
        this.targets = targets;
    }

    read(record) {
        return this.sources.map((index, number) => (index >= 0 ? record[index] : this.constants[number]));
    }

    write(record, numbers) {
        numbers.forEach((number, index) => {
            for (const target of this.targets[index]) record[target] = number;
        });
    }
}
