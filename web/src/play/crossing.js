/** The record with which a mode is entered from another one, or continues in another form. */

/** @param {Object} crossing as the page's contents have it */
export function entered(crossing, old, now, record, carried, row) {
    const after = crossing.sources.map((index, number) => (index >= 0 ? record[index] : crossing.fixed[number]));
    const movement = crossing.movement;
    if (movement) {
        for (const [index, start] of movement.copied) after[index] = record[start];
        for (const [index, start] of movement.held)
            after[index] = (row[start] > 0 ? 1 : 0) - (row[start + 1] > 0 ? 1 : 0);
        if (movement.lastSource >= 0) {
            const numbers = new Map(movement.sourceNumbers);
            after[movement.lastSource] = numbers.get(after[movement.lastSource]) ?? -1;
        }
    }
    carried.forEach((carriesOn, number) => {
        if (carriesOn) now.presses[number].write(after, old.presses[number].read(record));
    });
    const [, x, y, , , , speedUp] = old.body.read(record);
    if (now.airborne && speedUp !== 0) now.airborne.write(after, [1]);
    if (now.content.onSquares) now.standOnSquare(after, x, y);
    return after;
}

/** The presses that continue in the new mode: held ones of the same style, if the mode carries them. */
export function carriedPresses(old, now, record) {
    return old.pressesDown(record).map((down, number) => {
        const same = old.content.pressStyles[number] === now.content.pressStyles[number];
        return down && now.content.carries && same;
    });
}

/** A record of a mode whose form has changed: what both have continues by name, the rest begins at rest. */
export function reformed(old, now, record, pressNames, before) {
    const after = now.content.recordAtRest.slice();
    const indices = old.content.layout.indices;
    for (const [path, index] of Object.entries(now.content.layout.indices)) {
        const there = indices[renamed(path, pressNames, before)];
        if (there !== undefined) after[index] = record[there];
    }
    return after;
}

/** Presses are matched by name, whatever their numbers. */
function renamed(path, pressNames, before) {
    return path.replace(/(\.presses\.)(\d+)/, (_, head, number) => `${head}${before.indexOf(pressNames[number])}`);
}

