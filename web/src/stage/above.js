/** The course and the body from above, on a plain canvas: forward is up, a metre has the same length everywhere. */

import { disc, drawPath, ellipse, line, metreLines, sizedContext } from "./canvas.js";
import { scaleBar } from "./scale_bar.js";

const PX_PER_M = 62;
const PATH_S = 8;

export class Above {
    constructor(canvas) {
        this.canvas = canvas;
        this.scale = PX_PER_M;
        this.middle = [0, 0];
    }

    /** The place of the plan (m) at a point of the canvas. */
    place(x, y) {
        const { clientWidth: width, clientHeight: height } = this.canvas;
        return [this.middle[0] + (x - width / 2) / this.scale, this.middle[1] - (y - height / 2) / this.scale];
    }

    /** @param {Object} scene what is visible: body, figure, ground, path, goal and more; see main.js */
    draw(scene, colours) {
        const { canvas } = this;
        const { context, ratio, width, height } = sizedContext(canvas, colours);
        this.context = context;
        this.middle = scene.fixed ?? [scene.x, scene.y];
        const scale = this.scale * ratio;
        context.setTransform(
            scale, 0, 0, -scale,
            canvas.width / 2 - this.middle[0] * scale,
            canvas.height / 2 + this.middle[1] * scale,
        );
        const half = [width / 2 / this.scale, height / 2 / this.scale];
        const seen = {
            left: this.middle[0] - half[0], right: this.middle[0] + half[0],
            back: this.middle[1] - half[1], forward: this.middle[1] + half[1],
        };
        this.#ground(scene, colours, seen);
        this.#squares(scene, colours, seen);
        this.#path(scene, colours);
        this.#goal(scene, colours);
        this.#body(scene, colours);
        context.setTransform(ratio, 0, 0, ratio, 0, 0);
        scaleBar(context, this.scale, scene.length, colours, width, height);
    }

    #ground({ ground, squares }, colours, seen) {
        const { context } = this;
        for (const [form, a, b, c, d, e, f, g] of ground.pieces) {
            context.beginPath();
            if (form === 0) context.rect(a, b, c - a, d - b);
            else context.arc(a, b, c, 0, 2 * Math.PI);
            context.globalAlpha = 0.16 + 0.1 * Math.min(form === 0 ? e + Math.max(f, g, 0) : d, 3);
            context.fillStyle = colours.moss;
            context.fill();
            context.globalAlpha = 1;
            context.lineWidth = 1.2 / this.scale;
            context.strokeStyle = colours.moss;
            context.stroke();
        }
        if (!squares) metreLines(context, this.scale, colours, seen);
        context.fillStyle = colours.fog;
        context.strokeStyle = colours.edge;
        context.lineWidth = 1.5 / this.scale;
        for (const [left, back, right, forward] of ground.walls) {
            context.fillRect(left, back, right - left, forward - back);
            context.strokeRect(left, back, right - left, forward - back);
        }
        if (ground.bounds) {
            const { left, right, back, forward } = ground.bounds;
            context.strokeRect(left, back, right - left, forward - back);
        }
    }

    #squares({ squares, ground }, colours, seen) {
        if (!squares) return;
        const { context } = this;
        const { size, middleX, middleY, to, refused } = squares;
        context.strokeStyle = colours.edge;
        context.lineWidth = 1 / this.scale;
        context.beginPath();
        const first = Math.floor((seen.left - middleX) / size);
        for (let n = first; middleX + (n + 0.5) * size < seen.right; n++)
            line(context, middleX + (n + 0.5) * size, seen.back, middleX + (n + 0.5) * size, seen.forward);
        for (let n = Math.floor((seen.back - middleY) / size); middleY + (n + 0.5) * size < seen.forward; n++)
            line(context, seen.left, middleY + (n + 0.5) * size, seen.right, middleY + (n + 0.5) * size);
        context.stroke();
        const fill = ([x, y], colour, alpha) => {
            context.globalAlpha = alpha;
            context.fillStyle = colour;
            context.fillRect(middleX + (x - 0.46) * size, middleY + (y - 0.46) * size, 0.92 * size, 0.92 * size);
            context.globalAlpha = 1;
        };
        for (const square of ground.blocked) fill(square, colours.edge, 0.7);
        if (to) fill(to, colours.slate, 0.25);
        if (refused) fill(refused, colours.brick, 0.4);
    }

    #path({ path, t }, colours) {
        drawPath(this.context, this.scale, path.since("t", t - PATH_S, ["t", "x", "y"]), colours.moss, 0.5, 3);
    }

    #goal({ goal, plan }, colours) {
        const { context } = this;
        context.lineWidth = 2 / this.scale;
        if (plan) {
            context.setLineDash([0.2, 0.2]);
            context.strokeStyle = colours.slate;
            const [left, back, right, forward] = plan;
            context.strokeRect(left, back, right - left, forward - back);
            context.setLineDash([]);
        }
        if (!goal) return;
        context.strokeStyle = colours.brick;
        context.beginPath();
        const [x, y] = goal;
        line(context, x - 0.18, y - 0.18, x + 0.18, y + 0.18);
        line(context, x - 0.18, y + 0.18, x + 0.18, y - 0.18);
        context.stroke();
    }

    #body(scene, colours) {
        const { context } = this;
        const { x, y, z, face, viewYaw, figure, frame, wanted, height } = scene;
        const up = Math.max(z - height, 0);
        if (scene.looks) this.#view(x, y, viewYaw, colours);
        if (wanted.amount > 0.001) {
            context.strokeStyle = colours.slate;
            context.lineWidth = 3 / this.scale;
            context.setLineDash([0.09, 0.07]);
            context.beginPath();
            line(context, x, y, x + 1.5 * wanted.x, y + 1.5 * wanted.y);
            context.stroke();
            context.setLineDash([]);
        }
        context.save();
        context.translate(x, y);
        if (up > 0.01) {
            context.globalAlpha = 0.3;
            context.fillStyle = colours.ink;
            disc(context, 0, 0, 0.3 / (1 + 0.2 * up));
            context.globalAlpha = 1;
            context.scale(1 + 0.06 * Math.min(up, 6), 1 + 0.06 * Math.min(up, 6));
        }
        context.save();
        context.rotate(-face);
        context.lineWidth = 1.6 / this.scale;
        context.strokeStyle = colours.ink;
        if (frame === "drive") cart(context, colours);
        else if (frame === "fly") bee(context, colours, scene.t);
        else walker(context, colours, figure, up > 0.01);
        context.restore();
        if (scene.hands) {
            context.save();
            context.rotate(-viewYaw);
            context.fillStyle = colours.slate;
            for (const [across, , back] of Object.values(scene.hands)) disc(context, across, -back, 0.07);
            context.restore();
        }
        if (frame !== "drive") {
            context.fillStyle = colours.honey;
            context.beginPath();
            context.arc(figure.leanX * 1.6, figure.leanY * 1.6, 0.135, 0, 2 * Math.PI);
            context.fill();
            context.stroke();
            const [sine, cosine] = [Math.sin(face), Math.cos(face)];
            context.beginPath();
            line(context, figure.leanX * 1.6 + 0.09 * sine, figure.leanY * 1.6 + 0.09 * cosine, figure.leanX * 1.6 + 0.24 * sine, figure.leanY * 1.6 + 0.24 * cosine);
            context.stroke();
        }
        context.restore();
    }

    #view(x, y, yaw, colours) {
        const { context } = this;
        context.globalAlpha = 0.13;
        context.fillStyle = colours.slate;
        context.beginPath();
        context.moveTo(x, y);
        const around = Math.PI / 2 - yaw;
        context.arc(x, y, 3.2, around - 0.55, around + 0.55);
        context.closePath();
        context.fill();
        context.globalAlpha = 1;
    }
}

function walker(context, colours, figure, airborne) {
    context.fillStyle = colours.ink;
    for (const side of [0, 1]) ellipse(context, side ? 0.12 : -0.12, airborne ? -0.05 : figure.foot(side), 0.065, 0.13);
    context.fillStyle = colours.sheet;
    ellipse(context, 0, 0, 0.27, 0.15);
}

function cart(context, colours) {
    context.fillStyle = colours.ink;
    for (const x of [-0.47, 0.35]) for (const y of [-0.55, 0.3]) context.fillRect(x, y, 0.12, 0.28);
    context.fillStyle = colours.honey;
    context.fillRect(-0.37, -0.72, 0.74, 1.4);
    context.strokeRect(-0.37, -0.72, 0.74, 1.4);
    context.beginPath();
    line(context, -0.2, 0.5, 0, 0.75);
    line(context, 0.2, 0.5, 0, 0.75);
    context.stroke();
}

function bee(context, colours, t) {
    const spread = 0.3 + 0.06 * Math.sin(t * 40);
    context.fillStyle = colours.sheet;
    ellipse(context, -0.28, 0.02, spread, 0.12);
    ellipse(context, 0.28, 0.02, spread, 0.12);
    context.fillStyle = colours.honey;
    ellipse(context, 0, -0.08, 0.14, 0.3);
}
