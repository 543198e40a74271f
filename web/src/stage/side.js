/** The course and the body from the side, on a plain canvas: right is right, up is up, a metre has the same length both ways. */

import { drawPath, ellipse, line, metreLines, sizedContext } from "./canvas.js";
import { scaleBar } from "./scale_bar.js";

const PX_PER_M = 62;
const PATH_S = 8;
const STEP_PX = 3;
const EYE_M = 1.6;

export class Side {
    constructor(canvas) {
        this.canvas = canvas;
        this.scale = PX_PER_M;
        this.middle = [0, EYE_M];
    }

    /** The place (m, right and up) at a point of the canvas. */
    place(x, y) {
        const { clientWidth: width, clientHeight: height } = this.canvas;
        return [this.middle[0] + (x - width / 2) / this.scale, this.middle[1] - (y - height / 2) / this.scale];
    }

    /** @param {Object} scene what is visible, as for the view from above */
    draw(scene, colours) {
        const { canvas } = this;
        const { context, ratio, width, height } = sizedContext(canvas, colours);
        this.context = context;
        // The ground stays in place for jumps of a usual height; higher or lower, the view follows.
        this.middle = scene.fixed ?? [scene.x, Math.max(scene.z - 1, Math.min(EYE_M, scene.z + 2.2))];
        const scale = this.scale * ratio;
        context.setTransform(scale, 0, 0, -scale, canvas.width / 2 - this.middle[0] * scale, canvas.height / 2 + this.middle[1] * scale);
        const half = [width / 2 / this.scale, height / 2 / this.scale];
        const seen = {
            left: this.middle[0] - half[0], right: this.middle[0] + half[0],
            back: this.middle[1] - half[1], forward: this.middle[1] + half[1],
        };
        metreLines(context, this.scale, colours, seen);
        this.#ground(scene, colours, seen);
        this.#path(scene, colours);
        this.#goal(scene, colours, seen);
        this.#body(scene, colours);
        context.setTransform(ratio, 0, 0, ratio, 0, 0);
        scaleBar(context, this.scale, scene.length, colours, width, height);
    }

    #ground({ ground, y }, colours, seen) {
        const { context } = this;
        const step = STEP_PX / this.scale;
        context.lineWidth = 1.5 / this.scale;
        context.strokeStyle = colours.edge;
        context.fillStyle = colours.fog;
        for (const [left, back, right, forward, top] of ground.walls) {
            if (y < back || y > forward) continue;
            context.fillRect(left, seen.back, right - left, top - seen.back);
            context.strokeRect(left, seen.back, right - left, top - seen.back);
        }
        const surface = () => {
            for (let x = seen.left; x <= seen.right + step; x += step) context.lineTo(x, ground.height(x, y));
        };
        context.beginPath();
        context.moveTo(seen.left, seen.back - 1);
        surface();
        context.lineTo(seen.right + step, seen.back - 1);
        context.globalAlpha = 0.2;
        context.fillStyle = colours.moss;
        context.fill();
        context.globalAlpha = 1;
        context.lineWidth = 2 / this.scale;
        context.strokeStyle = colours.moss;
        context.beginPath();
        surface();
        context.stroke();
        if (!ground.bounds) return;
        context.strokeStyle = colours.edge;
        context.beginPath();
        for (const x of [ground.bounds.left, ground.bounds.right]) line(context, x, seen.back, x, seen.forward);
        context.stroke();
    }

    #path({ path, t }, colours) {
        drawPath(this.context, this.scale, path.since("t", t - PATH_S, ["t", "x", "z"]), colours.slate, 0.1, 2.2);
    }

    #goal({ goal }, colours, seen) {
        if (!goal) return;
        const { context } = this;
        context.strokeStyle = colours.brick;
        context.lineWidth = 2 / this.scale;
        context.setLineDash([0.2, 0.2]);
        context.beginPath();
        line(context, goal[0], seen.back, goal[0], seen.forward);
        context.stroke();
        context.setLineDash([]);
    }

    #body({ x, z, face, figure, wanted, height }, colours) {
        const { context } = this;
        const airborne = z - height > 0.01;
        const ahead = Math.sin(face) < 0 ? -1 : 1;
        context.save();
        context.translate(x, z);
        if (wanted.amount > 0.001) {
            context.strokeStyle = colours.slate;
            context.lineWidth = 3 / this.scale;
            context.setLineDash([0.09, 0.07]);
            context.beginPath();
            line(context, 0, 0.6, 1.5 * wanted.x, 0.6);
            context.stroke();
            context.setLineDash([]);
        }
        const lean = figure.leanX * 1.6;
        context.strokeStyle = colours.ink;
        context.fillStyle = colours.ink;
        context.lineWidth = 0.07;
        context.lineCap = "round";
        context.beginPath();
        for (const side of [0, 1]) {
            const foot = airborne ? (side ? 0.14 : -0.1) * ahead : figure.foot(side) * 1.2 * ahead;
            line(context, 0, 0.45, foot, airborne ? 0.12 : 0.03);
        }
        context.stroke();
        context.lineWidth = 1.6 / this.scale;
        context.fillStyle = colours.honey;
        ellipse(context, lean / 2, 0.64, 0.16, 0.26);
        context.fillStyle = colours.sheet;
        ellipse(context, lean, 1.05, 0.14, 0.14);
        context.beginPath();
        line(context, lean + 0.14 * ahead, 1.05, lean + 0.24 * ahead, 1.03);
        context.stroke();
        context.restore();
    }
}
