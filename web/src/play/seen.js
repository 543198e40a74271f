/** What the stage and the strips read of a tick, by indices that are looked up once a mode. */

const NAMES = {
    rawX: "raw_x", rawY: "raw_y", localX: "local_x", localY: "local_y", moveX: "move_x", moveY: "move_y",
    amount: "amount", rise: "rise", throttle: "throttle", turn: "turn", lookYaw: "look_yaw_deg", lookPitch: "look_pitch_deg",
    viewYaw: "view_yaw_deg", viewPitch: "view_pitch_deg", face: "face_deg", x: "pos_x", y: "pos_y", z: "pos_z",
    velX: "vel_x", velY: "vel_y", velZ: "vel_z", grounded: "grounded",
};

export class Seen {
    /** @param {import("./mode_run.js").ModeRun} run @param {string[]} pressNames */
    constructor(run, pressNames) {
        this.run = run;
        const columns = new Map(run.content.columns.map(([name, , reads]) => [name, reads]));
        this.reads = Object.entries(NAMES).map(([key, name]) => [key, columns.get(name)[0]]);
        this.bound = pressNames.map((name, number) => ({ name, number })).filter(({ number }) => run.content.bindings.presses[number].length);
        this.held = this.bound.map(({ name }) => columns.get(`${name}_held`)[0]);
        this.began = this.bound.map(({ name }) => columns.get(`${name}_began`)[0]);
        this.goalReads = columns.get("goal_x") && [...columns.get("goal_x"), columns.get("goal_y")[1]];
        this.stepReads = columns.get("step_x") && [columns.get("step_x")[0], columns.get("step_y")[0], ...columns.get("refused_x"), ...columns.get("refused_y").slice(1)];
        this.vignette = columns.get("vignette")?.[0];
        this.values = {};
    }

    static number(record, read) {
        return typeof read === "number" ? record[read] : read[0];
    }

    /** The numbers of a record; angles in radians. The object is the same every time. */
    read(record) {
        const { values } = this;
        for (const [key, read] of this.reads) values[key] = Seen.number(record, read);
        return values;
    }

    /** Whether a press is held, or began in this tick and is over already. */
    isOn(record, press) {
        return Seen.number(record, this.held[press]) > 0 || Seen.number(record, this.began[press]) > 0;
    }

    /** The goal that is walked to (m), or null. */
    goal(record) {
        if (!this.goalReads) return null;
        const [there, x, y] = this.goalReads.map((read) => Seen.number(record, read));
        return there > 0 ? [x, y] : null;
    }

    /** On squares: the square that it steps to, and the one that was refused. */
    squares(record) {
        if (!this.stepReads) return null;
        const [toX, toY, refused, atX, refusedX, atY, refusedY] = this.stepReads.map((read) => Seen.number(record, read));
        const { squareM: size, middleX, middleY } = this.run;
        return { size, middleX, middleY, to: [toX, toY], refused: refused > 0 ? [atX + refusedX, atY + refusedY] : null };
    }
}
