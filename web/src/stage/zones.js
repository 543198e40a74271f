/** Where a finger does what: the touch zones of a mode, outlined over the stage. */

import { element } from "../panels/element.js";

const SIDES = ["right", "left", "forward", "back"];
const WHOLE = 0.98;
const LOW = 0.94;

/** The zones of what a mode binds, as [label, [left, top, right, bottom]] in fractions of the stage.
 *  @param {Object} bindings what a mode binds, as the page's contents have it @param {string[]} pressNames */
export function zonesOf(bindings, pressNames) {
    const found = [];
    for (const [channel, sources] of Object.entries(bindings.channels)) {
        for (const source of sources) {
            if (source.zone) found.push([channel, source.zone]);
            if (source.kind === "zones") source.lists.forEach((zones, side) => zones.forEach((zone) => found.push([SIDES[side], zone])));
        }
    }
    bindings.presses.forEach((binds, press) => {
        for (const bind of binds) if (bind.kind === "zone") found.push([pressNames[press], bind.zone]);
    });
    const byZone = new Map();
    for (const [label, zone] of found) {
        const [left, top, right, bottom] = zone;
        if ((right - left) * (bottom - top) >= WHOLE) continue;
        const known = byZone.get(zone.join());
        if (!known) byZone.set(zone.join(), [label, zone]);
        else if (!known[0].split(", ").includes(label)) known[0] += `, ${label}`;
    }
    return [...byZone.values()];
}

export function zoneOutlines(zones) {
    const percent = (share) => `${100 * share}%`;
    return zones.map(([label, [left, top, right, bottom]]) => {
        const made = element("div", { className: bottom > LOW ? "low" : "" }, element("span", { textContent: label }));
        Object.assign(made.style, { left: percent(left), top: percent(top), width: percent(right - left), height: percent(bottom - top) });
        return made;
    });
}
