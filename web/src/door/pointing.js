/** Readers for places that are pointed at, and for the positions and directions of head and hands. */

import { DEVICES } from "./controls.js";
import { holds } from "./touch.js";

const MOUSE = DEVICES.indexOf("mouse");
const TOUCH = DEVICES.indexOf("touch");
const STEEP = 0.985;

/** The place (m) that a plan of left, back, right, forward shows at a point of the window. */
export function shownPlace([left, back, right, forward], x, y) {
    return [left + x * (right - left), forward - y * (forward - back)];
}

export class GoalReader {
    constructor(goal, start, controls) {
        this.controls = controls;
        this.start = start;
        this.wait = goal.wait;
        this.pointed = goal.pointed.map(({ held, plan }) => ({ held: new Set(held), plan }));
        this.touched = goal.touched;
        this.goalSlot = controls.slot("goal");
        this.planSlot = controls.slot("plan");
        this.watched = [
            this.goalSlot,
            ...(goal.pointed.length + goal.touched.length ? [this.planSlot] : []),
            ...this.pointed.flatMap(({ held }) => [...held]),
            ...(this.pointed.length ? [controls.pointer] : []),
            ...(this.touched.length ? controls.touchSlots : []),
        ];
        this.held = new Set();
        this.pointer = [0.5, 0.5];
        this.scrolled = [0, 0];
        this.touches = new Map();
        this.given = [];
        this.device = -1;
    }

    begin(values) {
        const { pointer, touchSlots } = this.controls;
        this.held = new Set();
        this.pointer = [values[pointer], values[pointer + 1]];
        this.scrolled = [values[this.planSlot], values[this.planSlot + 1]];
        this.touches = new Map(touchSlots.filter((slot) => values[slot + 2] > 0).map((slot) => [slot, -1]));
        this.given = [];
    }

    take({ slot, value, lost }) {
        if (slot === this.goalSlot) {
            this.#give([value[0], value[1]], -1);
        } else if (slot === this.planSlot) {
            this.scrolled = [value[0], value[1]];
        } else if (slot === this.controls.pointer) {
            this.pointer = [value[0], value[1]];
            if (!lost) this.#point(this.held);
        } else if (this.controls.touchSlots.includes(slot)) {
            this.#touch(slot, value);
        } else if (value[0] <= 0.5) {
            this.held.delete(slot);
        } else if (!this.held.has(slot)) {
            this.held.add(slot);
            this.#point(new Set([slot]));
        }
    }

    #give(place, device) {
        this.given = this.wait ? [...this.given, place] : [place];
        this.device = device;
    }

    #giveShown([right, forward], device) {
        this.#give([right + this.scrolled[0], forward + this.scrolled[1]], device);
    }

    #point(held) {
        for (const { held: slots, plan } of this.pointed) {
            if (!slots.size || [...slots].some((slot) => held.has(slot))) {
                this.#giveShown(shownPlace(plan, ...this.pointer), MOUSE);
                return;
            }
        }
    }

    #touch(slot, [x, y, pressure]) {
        if (pressure === 0) {
            this.touches.delete(slot);
            return;
        }
        if (!this.touches.has(slot)) this.touches.set(slot, this.touched.findIndex(({ zone }) => holds(zone, x, y)));
        const number = this.touches.get(slot);
        if (number >= 0) this.#giveShown(shownPlace(this.touched[number].plan, x, y), TOUCH);
    }

    read(state, row) {
        if (!this.given.length) {
            row[this.start] = 0;
            this.device = -1;
            return false;
        }
        const [x, y] = this.given.shift();
        row[this.start] = 1;
        row[this.start + 1] = x;
        row[this.start + 2] = y;
        return true;
    }
}

export class AimReader {
    constructor(start, controls) {
        this.start = start;
        this.slot = controls.slot("aim");
    }

    read(state, row) {
        row[this.start] = state.placed.has(this.slot) ? 1 : 0;
        row[this.start + 1] = state.values[this.slot];
        row[this.start + 2] = state.values[this.slot + 1];
        return false;
    }
}

/** The horizontal directions in which the head and each hand point; a lost device keeps its last direction. */
export class ForwardReader {
    constructor(start, head, controls) {
        this.start = start;
        this.headPlace = head;
        this.poses = ["head.pose", "hand.left.pose", "hand.right.pose"].map((name) => controls.slot(name));
    }

    read(state, row) {
        this.poses.forEach((slot, number) => {
            const [x, y, z, w] = state.values.slice(slot + 3, slot + 7);
            if (x === 0 && y === 0 && z === 0 && w === 0) return;
            const forward = turnedBy(x, y, z, w, 0, 0, -1);
            const up = turnedBy(x, y, z, w, 0, 1, 0);
            const level = levelForward(forward[0], 0 - forward[2], forward[1], up[0], 0 - up[2], up[1]);
            [row[this.start + 2 * number], row[this.start + 2 * number + 1]] = level;
            if (number === 0) {
                row[this.headPlace] = state.values[slot];
                row[this.headPlace + 1] = 0 - state.values[slot + 2];
            }
        });
        return false;
    }
}

/** The position and direction of a hand in the play space; zeros while it is lost. */
export class PointReader {
    constructor(slot, start) {
        this.slot = slot;
        this.start = start;
    }

    read(state, row) {
        const [right, up, back, x, y, z, w] = state.values.slice(this.slot, this.slot + 7);
        let direction = [0, 0, 0];
        if (!(x === 0 && y === 0 && z === 0 && w === 0)) {
            const [across, rising, behind] = turnedBy(x, y, z, w, 0, 0, -1);
            direction = [across, 0 - behind, rising];
        }
        [right, 0 - back, up, ...direction].forEach((number, index) => (row[this.start + index] = number));
        return false;
    }
}

/** The direction on the plan that is forward for a view; straight down it is the upper edge of the screen. */
export function levelForward(forwardX, forwardY, forwardZ, upX, upY, upZ) {
    const forwardLength = Math.hypot(Math.hypot(forwardX, forwardY), forwardZ);
    const upLength = Math.hypot(Math.hypot(upX, upY), upZ);
    if (!(forwardLength > 0 && forwardLength < Infinity)) return [0, 0];
    let x = forwardX / forwardLength;
    let y = forwardY / forwardLength;
    const steep = Math.abs(forwardZ) / forwardLength;
    if (steep > STEEP && upLength > 0 && upLength < Infinity) {
        let s = Math.min((steep - STEEP) / (1 - STEEP), 1);
        s = s * s * (3 - 2 * s);
        const sign = forwardZ > 0 ? -s / upLength : s / upLength;
        x += upX * sign - x * s;
        y += upY * sign - y * s;
    }
    const length = Math.sqrt(x * x + y * y);
    return length === 0 ? [0, 0] : [x / length, y / length];
}

/** The vector (across, up, back) turned by a quaternion of any length (Shoemake, SIGGRAPH 1985). */
export function turnedBy(x, y, z, w, across, up, back) {
    const square = x * x + y * y + z * z + w * w;
    if (square === 0) return [across, up, back];
    const crossX = y * back - z * up;
    const crossY = z * across - x * back;
    const crossZ = x * up - y * across;
    const twice = 2 / square;
    return [
        across + twice * (w * crossX + y * crossZ - z * crossY),
        up + twice * (w * crossY + z * crossX - x * crossZ),
        back + twice * (w * crossZ + x * crossY - y * crossX),
    ];
}
