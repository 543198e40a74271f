/** How far each hand that counts has moved since the last tick, relative to the head if that is tracked. */

const NOWHERE = [0, 0, 0];

/** The position of a pose; null if it is not tracked: its quaternion is zeros. */
function position(values, slot) {
    return values.slice(slot + 3, slot + 7).some(Boolean) ? values.slice(slot, slot + 3) : null;
}

export class HandSwing {
    constructor(source, controls) {
        this.hands = source.hands.map((hand) => ({
            ...hand,
            at: null,
            moved: [0, 0, 0],
            posed: false,
            fresh: false,
            squeezed: 0,
        }));
        this.byPose = new Map(this.hands.map((hand) => [hand.pose, hand]));
        this.bySqueeze = new Map(this.hands.map((hand) => [hand.squeeze, hand]));
        this.least = source.least;
        this.headSlot = controls.slot("head.pose");
        this.head = null;
        this.watched = [...this.byPose.keys(), ...this.bySqueeze.keys(), this.headSlot];
    }

    begin(values) {
        this.head = position(values, this.headSlot);
        for (const hand of this.hands) {
            hand.squeezed = values[hand.squeeze];
            hand.moved = [0, 0, 0];
            hand.posed = false;
            const head = this.head ?? NOWHERE;
            hand.at = position(values, hand.pose)?.map((at, axis) => at - head[axis]) ?? null;
        }
    }

    take({ slot, value, lost }) {
        const squeezing = this.bySqueeze.get(slot);
        if (squeezing) {
            if (squeezing.squeezed < this.least && value[0] >= this.least) {
                // A pose just before it is the first that counts.
                squeezing.posed = squeezing.fresh;
            }
            squeezing.squeezed = value[0];
            return;
        }
        if (slot === this.headSlot) {
            // If the head's tracking changes, the motion since the last pose is unknown.
            if (lost || this.head === null) for (const hand of this.hands) hand.at = null;
            this.head = lost ? null : value.slice(0, 3);
            return;
        }
        const hand = this.byPose.get(slot);
        if (lost) {
            hand.at = null;
            return;
        }
        const head = this.head ?? NOWHERE;
        const at = head.map((of, axis) => value[axis] - of);
        hand.fresh = true;
        if (hand.squeezed >= this.least) {
            if (hand.at) hand.moved = hand.moved.map((moved, axis) => moved + at[axis] - hand.at[axis]);
            hand.posed = true;
        }
        hand.at = at;
    }

    discard() {
        for (const hand of this.hands) {
            hand.moved = [0, 0, 0];
            hand.posed = false;
        }
    }

    read(state, row) {
        let posed = false;
        for (const hand of this.hands) {
            for (let axis = 0; axis < 3; axis++) row[hand.index + axis] = hand.moved[axis];
            const counts = hand.squeezed >= this.least && hand.at !== null;
            row[hand.index + 3] = !counts ? 0 : hand.posed ? 2 : 1;
            hand.fresh = false;
            if (hand.posed) {
                posed = true;
                hand.posed = false;
                hand.moved = [0, 0, 0];
            }
        }
        return posed;
    }
}
