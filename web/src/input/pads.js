/** Pads by the W3C Gamepad "standard" layout; what has not changed is not given again. */

export const BUTTONS = (
    "south east west north left_bumper right_bumper left_trigger right_trigger left_menu right_menu " +
    "left_stick_press right_stick_press dpad_up dpad_down dpad_left dpad_right home"
).split(" ");

/** Triggers are levels like sticks, though they are among the buttons. */
const LEVELS = [6, 7];

export class Pads {
    /** @param {(control: string, value: any, time: number) => void} give
     *  @param {(id: string) => void} unknown is reported once of a pad without the standard layout */
    constructor(give, unknown) {
        this.give = give;
        this.unknown = unknown;
        this.known = new Map();
        this.reported = new Set();
        this.isAway = false;
    }

    /** Looks at all pads: once a frame, before its ticks. */
    poll(now) {
        const found = navigator.getGamepads ? navigator.getGamepads() : [];
        const here = new Set();
        for (const pad of found) {
            if (!pad || !pad.connected || pad.index > 7) continue;
            if (pad.mapping !== "standard") {
                if (!this.reported.has(pad.id)) this.unknown(pad.id);
                this.reported.add(pad.id);
                continue;
            }
            const name = pad.index ? `pad${pad.index}` : "pad";
            here.add(name);
            this.#read(name, pad, now);
        }
        for (const name of [...this.known.keys()]) {
            if (here.has(name)) continue;
            this.known.delete(name);
            this.give(`lost.${name}`, 1, now);
        }
    }

    #read(name, pad, now) {
        let last = this.known.get(name);
        if (!last) this.known.set(name, (last = { buttons: [], axes: [] }));
        pad.buttons.slice(0, BUTTONS.length).forEach((button, number) => {
            if (last.buttons[number] === button.value || (last.buttons[number] === undefined && !button.value)) return;
            if (this.isAway && LEVELS.includes(number)) return;
            last.buttons[number] = button.value;
            if (this.isAway) return;
            this.give(`${name}.${BUTTONS[number]}`, button.value, now);
        });
        if (this.isAway) return;
        ["left_stick", "right_stick"].forEach((stick, side) => {
            const [x, y] = [pad.axes[2 * side] ?? 0, pad.axes[2 * side + 1] ?? 0];
            const [wasX, wasY] = last.axes[side] ?? [0, 0];
            if (x === wasX && y === wasY) return;
            last.axes[side] = [x, y];
            this.give(`${name}.${stick}`, [x, y], now);
        });
    }

    /** Another window has the focus: pads count for nothing until `comeBack`. */
    leave() {
        this.isAway = true;
        this.forget();
    }

    /** A stick or a trigger counts where it is by now, a button once it is pressed anew. */
    comeBack() {
        this.isAway = false;
    }

    /** Forgets what was held: what is still held is given again. */
    forget() {
        for (const last of this.known.values()) last.buttons = last.buttons.map(() => undefined);
        for (const last of this.known.values()) last.axes = [];
    }
}
