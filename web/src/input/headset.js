/**
 * Mouse and keys in place of a headset: the mouse turns the head; with a button held it swings that hand, squeezed.
 * Poses are WebXR's: right-handed, y up, -z ahead, metres, quaternions x, y, z, w.
 */

const RAD_PER_COUNT = 0.0022;
const M_PER_COUNT = 0.0015;
const EYES_M = 1.6;
const REACH_M = 0.45;
const BACK_S = 0.25;
const REST = { left: [-0.22, 1.15, -0.3], right: [0.22, 1.15, -0.3] };
const STICKS = { KeyA: ["left", -1, 0], KeyD: ["left", 1, 0], KeyW: ["left", 0, -1], KeyS: ["left", 0, 1], ArrowLeft: ["right", -1, 0], ArrowRight: ["right", 1, 0], ArrowUp: ["right", 0, -1], ArrowDown: ["right", 0, 1] };
const BUTTONS = { Space: "hand.right.trigger", ShiftLeft: "hand.left.trigger", KeyE: "hand.right.lower", KeyQ: "hand.left.lower", KeyR: "hand.right.upper", KeyF: "hand.left.upper" };

export class HeadsetStandIn {
    constructor(give) {
        this.give = give;
        this.yaw = this.pitch = 0;
        this.forget();
    }

    get words() {
        return ["the mouse turns the head; hold a button and move it to swing that hand", "WASD and arrows: sticks; Shift, Space: triggers; Q, E: lower buttons"];
    }

    forget() {
        this.held = new Set();
        this.swing = { left: [0, 0], right: [0, 0] };
        this.sent = "";
    }

    /** Takes what mouse and keys gave. Returns whether it stood in for something else. */
    take(control, value) {
        if (this.passing) return false;
        if (control === "mouse.left" || control === "mouse.right") {
            const side = control.slice(6);
            if (value) this.held.add(side);
            else this.held.delete(side);
            this.#pass(`hand.${side}.squeeze`, value ? 1 : 0);
            return true;
        }
        if (control === "mouse.move") {
            this.#move(value);
            return true;
        }
        const code = control.startsWith("key.") ? control.slice(4) : "";
        if (code in STICKS) {
            if (value) this.held.add(code);
            else this.held.delete(code);
            const side = STICKS[code][0];
            const sum = (axis) => Object.entries(STICKS).reduce((total, [key, [of, ...ways]]) => total + (of === side && this.held.has(key) ? ways[axis] : 0), 0);
            this.#pass(`hand.${side}.stick`, [sum(0), sum(1)]);
            return true;
        }
        if (code in BUTTONS) {
            this.#pass(BUTTONS[code], value);
            return true;
        }
        return false;
    }

    #move([right, down]) {
        let swung = false;
        for (const side of ["left", "right"]) {
            if (!this.held.has(side)) continue;
            swung = true;
            const swing = this.swing[side];
            swing[0] = clamp(swing[0] + right * M_PER_COUNT, REACH_M);
            swing[1] = clamp(swing[1] - down * M_PER_COUNT, REACH_M);
        }
        if (swung) return;
        this.yaw -= right * RAD_PER_COUNT;
        this.pitch = clamp(this.pitch - down * RAD_PER_COUNT, 1.4);
    }

    #pass(control, value) {
        this.passing = true;
        this.give(control, value, performance.now());
        this.passing = false;
    }

    /** Where the hands are, seen from the feet: right, up and back each (m), before the head is turned. */
    get hands() {
        return Object.fromEntries(["left", "right"].map((side) => {
            const [x, y, z] = REST[side];
            const [across, ahead] = this.swing[side];
            return [side, [x + across, y + Math.abs(ahead) * 0.35, z - ahead]];
        }));
    }

    /** Gives the poses of this frame; a hand that is released comes back. */
    poll(frameS, now) {
        for (const side of ["left", "right"]) {
            if (this.held.has(side)) continue;
            const left = Math.exp(-frameS / BACK_S);
            this.swing[side] = this.swing[side].map((one) => (Math.abs(one) < 1e-4 ? 0 : one * left));
        }
        const key = [this.yaw, this.pitch, ...this.swing.left, ...this.swing.right].join();
        if (key === this.sent) return;
        this.sent = key;
        const turned = this.#turned(this.pitch);
        this.#pass("head.pose", [0, EYES_M, 0, ...turned]);
        const [sine, cosine] = [Math.sin(this.yaw), Math.cos(this.yaw)];
        const { hands } = this;
        for (const side of ["left", "right"]) {
            const [x, y, z] = hands[side];
            this.#pass(`hand.${side}.pose`, [x * cosine + z * sine, y, z * cosine - x * sine, ...this.#turned(this.pitch * 0.7 - 0.2)]);
        }
        void now;
    }

    /** The quaternion of the head's yaw and a pitch. */
    #turned(pitch) {
        const [sy, cy, sp, cp] = [Math.sin(this.yaw / 2), Math.cos(this.yaw / 2), Math.sin(pitch / 2), Math.cos(pitch / 2)];
        return [cy * sp, sy * cp, -sy * sp, cy * cp];
    }
}

function clamp(value, most) {
    return Math.max(-most, Math.min(most, value));
}
