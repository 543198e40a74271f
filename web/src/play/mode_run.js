/** One mode, ready to run: its tick function with its numbers, its sampler, and where everything stands. */

import { Sampler } from "../door/sampler.js";
import { Cells } from "./cells.js";

/** The numbers of a press that say whether it is held down, and whether it is on. */
export const PRESS_DOWN = 0;
export const PRESS_ON = 3;

export class ModeRun {
    /** @param {Object} content a mode as the page's contents have it
     *  @param {number[]} values the fields of the profile, in the order of its paths */
    constructor(content, controls, values, course, last = null) {
        this.content = content;
        this.name = content.name;
        const bindings = JSON.stringify(content.bindings);
        this.sampler = last && last.bindings === bindings ? last.sampler : new Sampler(content.bindings, controls);
        this.bindings = bindings;
        const cells = content.cells;
        this.body = new Cells(cells.body);
        this.view = new Cells(cells.view);
        this.square = new Cells(cells.square);
        this.turnedTo = new Cells(cells.turnedTo);
        this.safe = new Cells(cells.safe);
        this.airborne = content.airborne && new Cells(content.airborne);
        this.presses = content.presses.map((one) => new Cells(one));
        this.starts = content.bindings.starts;
        this.course = course;
        this.retune(values);
    }

    /** Takes other numbers from the next tick on. */
    retune(values) {
        this.numbers = this.content.numbers(values);
        [this.squareM, this.middleX, this.middleY] = this.content.square(values);
        for (const [channel, entry, name, number] of this.content.doorNumbers(values)) this.sampler.bindings.channels[channel][entry][name] = number;
        this.over(this.course);
    }

    /** Takes another course. */
    over(course) {
        this.course = course;
        [this.part, this.tick, this.standing] = this.content.make(this.numbers, this.content.tables, course);
    }

    pressesDown(record) {
        return this.presses.map((press) => press.read(record)[PRESS_DOWN] > 0);
    }

    /** The toggles that are not as pressing what is held now would leave them, each with a control that toggles it
     *  alone, or null. */
    toggled(record) {
        return this.content.toggles.filter(([number]) => {
            const press = this.presses[number].read(record);
            return press[PRESS_ON] > 0 !== press[PRESS_DOWN] > 0;
        });
    }

    /** A record with another body; see runtime/mode_run.py of the library. */
    withBody(record, body, safe = false, turned = false) {
        const [, x, y, , , , speedUp] = body;
        const after = record.slice();
        this.body.write(after, body);
        if (this.airborne && speedUp !== 0) this.airborne.write(after, [1]);
        if (safe && this.content.comfort) this.safe.write(after, [x, y, x, y]);
        if (this.content.onSquares) {
            this.standOnSquare(after, x, y);
            if (turned) this.turnedTo.write(after, [0, 0]);
        }
        return after;
    }

    /** Stands in the middle of the square at a place, unless that is part of the step under way. */
    standOnSquare(record, bodyX, bodyY) {
        const [right, forward] = this.content.squareAxes;
        const awayX = bodyX - this.middleX;
        const awayY = bodyY - this.middleY;
        // A place between two squares is in the one that begins there, as the game counts.
        const first = squareAt(awayX * right[0] + awayY * forward[0], this.squareM);
        const second = squareAt(awayX * right[1] + awayY * forward[1], this.squareM);
        const x = first * right[0] + second * right[1] + 0;
        const y = first * forward[0] + second * forward[1] + 0;
        const [stepX, stepY, toX, toY] = this.square.read(record);
        if ((x === stepX && y === stepY) || (x === toX && y === toY)) return;
        this.square.write(record, [x, y, x, y, ...new Array(this.square.sources.length - 4).fill(0)]);
    }
}

export function squareAt(place, squareM) {
    return Math.floor(place / squareM + 0.5);
}
