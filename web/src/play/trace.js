/** The columns of a trace, made of the records of ticks. */

const flag = (number) => number > 0;
const degrees = (angle) => (angle * 180) / Math.PI;

/** An angle in degrees, from 0 up to 360. */
export function compassDeg(angle) {
    let found = degrees(angle);
    if (found < 0) found += 360;
    return found < 360 ? found : 0;
}

const MADE = {
    number: (number) => number,
    whole: (number) => Math.trunc(number),
    flag,
    degrees,
    compass_deg: compassDeg,
    heading_deg: (x, y, heading) => (x === 0 && y === 0 ? NaN : compassDeg(heading)),
    missing: () => NaN,
    where: (there, number) => (flag(there) ? number : NaN),
    refused: (refused, square, step) => (flag(refused) ? square + step : NaN),
};

/** What a record has in each column of its mode; device, mode and time are the helm's. */
export function rowOf(columns, record) {
    const found = {};
    for (const [name, kind, reads] of columns) {
        if (!reads.length || name === "device") continue;
        found[name] = MADE[kind](...reads.map((index) => (typeof index === "number" ? record[index] : index[0])));
    }
    return found;
}

/**
 * Plays a recording tick by tick, from its raw events on.
 * @param {import("./helm.js").Helm} helm at rest, in the mode that the recording begins in
 * @param {Array<{t: number, c: string, v: any}>} events
 * @param {(helm: Object, t: number) => void} seen is called after each tick
 * @param {boolean} stays whether the mode stays, whatever the recording says
 */
export function play(helm, events, hz, seen, stays = false) {
    if (!events.length) return;
    helm.stays = stays;
    const start = events[0].t;
    let index = 0;
    for (let tick = 1; index < events.length; tick++) {
        const t = start + tick / hz;
        while (index < events.length && events[index].t <= t) {
            const { t: at, c, v } = events[index++];
            if (c === "mark" || (c === "mode" && (stays || at === start))) continue;
            helm.apply(c, v);
        }
        helm.tick(1 / hz);
        seen(helm, t);
    }
}

/** The mode that a recording begins in; null where it does not say. */
export function firstMode(events) {
    const start = events.length ? events[0].t : 0;
    const found = events.find(({ t, c }) => t === start && c === "mode");
    return found ? found.v : null;
}

/** The trace of a recording: columns by their names, a value a tick; what a mode does not have is null. */
export function traceOf(helm, events, hz, stays = false) {
    const trace = {};
    let count = 0;
    const add = (name, value) => {
        const column = (trace[name] ??= []);
        while (column.length < count) column.push(null);
        column.push(Number.isNaN(value) ? null : value);
    };
    const seen = () => {
        for (const [name, value] of Object.entries(rowOf(helm.ticked.content.columns, helm.tickedRecord))) add(name, value);
        add("mode", helm.ticked.name);
        add("device", helm.deviceName);
        count++;
    };
    play(helm, events, hz, seen, stays);
    for (const column of Object.values(trace)) while (column.length < count) column.push(null);
    return { trace, count };
}
