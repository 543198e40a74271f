/** Some numbers of a record, by where they are read and everywhere they are written. */

export class Cells {
    constructor({ sources, constants, targets }) {
        this.sources = sources;
        this.constants = constants;
        this.targets = targets;
    }

    read(record) {
        return this.sources.map((place, number) => (place >= 0 ? record[place] : this.constants[number]));
    }

    write(record, numbers) {
        numbers.forEach((number, place) => {
            for (const target of this.targets[place]) record[target] = number;
        });
    }
}
