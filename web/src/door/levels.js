/** Sources that are read as they are: sticks, axes, mouse, rate sensors, the pointer. */

export class StickReader {
    constructor(source) {
        this.source = source;
    }

    /** y, positive towards the player in its own standard, becomes positive forward. */
    read(state, row) {
        const { start, slot } = this.source;
        row[start] = state.values[slot];
        row[start + 1] = 0 - state.values[slot + 1];
        return false;
    }
}

export class AxesReader {
    constructor(source) {
        this.source = source;
    }

    read(state, row) {
        for (const [index, slot, sign] of this.source.axes) row[index] = state.values[slot] * sign;
        return false;
    }
}

export class MouseReader {
    constructor(source) {
        this.source = source;
    }

    read(state, row) {
        const right = state.values[state.controls.mouse];
        const down = state.values[state.controls.mouse + 1];
        row[this.source.start] = right;
        row[this.source.start + 1] = 0 - down;
        return right !== 0 || down !== 0;
    }
}

export class RatesReader {
    constructor(source) {
        this.source = source;
    }

    read(state, row) {
        const { start, gyro, accel } = this.source;
        for (let axis = 0; axis < 3; axis++) {
            row[start + axis] = state.values[gyro + axis];
            row[start + 3 + axis] = state.values[accel + axis];
        }
        return false;
    }
}

export class PointerReader {
    constructor(source) {
        this.source = source;
    }

    read(state, row) {
        const { start, held, reach, aspectRatio } = this.source;
        const { values, controls } = state;
        let right = 0;
        let forward = 0;
        if (!held.length || held.some((slot) => values[slot] > 0.5)) {
            right = ((values[controls.pointer] - 0.5) * (values[controls.window] || aspectRatio)) / reach;
            forward = (0.5 - values[controls.pointer + 1]) / reach;
        }
        row[start] = right;
        row[start + 1] = forward;
        return false;
    }
}
