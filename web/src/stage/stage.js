/** The stage: one of four views of the same scene. */

import { element, palette } from "../panels/element.js";
import { Above } from "./above.js";
import { Figure } from "./figure.js";
import { Ground } from "./ground.js";
import { Side } from "./side.js";
import { Solid } from "./solid.js";
import { Thumbs } from "./thumbs.js";
import { zoneOutlines, zonesOf } from "./zones.js";

const [ABOVE, SHOULDER, EYES, SIDE] = ["from above", "over the shoulder", "through the eyes", "from the side"];

export const VIEWS = [ABOVE, SHOULDER, EYES, SIDE];

export class Stage {
    constructor(root, app) {
        this.root = root;
        this.app = app;
        this.figure = new Figure();
        this.above = new Above(root.querySelector("#flat"));
        this.side = new Side(this.above.canvas);
        this.words = root.querySelector("#words");
        this.vignette = root.querySelector("#vignette");
        this.zones = root.querySelector("#zones");
        this.thumbs = new Thumbs(root.querySelector("#thumbs"));
        this.view = ABOVE;
        this.course = null;
        this.said = "";
        this.colours = palette();
        matchMedia("(prefers-color-scheme: dark)").addEventListener("change", () => (this.colours = palette()));
    }

    /** Takes a course, and shows it as the mode requires: from the side, or from above; with its touch zones. */
    take(course, { sideView, bindings }) {
        this.zones.replaceChildren(...zoneOutlines(zonesOf(bindings, this.app.profile.pressNames)));
        if (sideView && this.view === ABOVE) this.show(SIDE);
        if (!sideView && this.view === SIDE && this.sideView) this.show(ABOVE);
        this.sideView = sideView;
        if (course === this.course) return;
        this.course = course;
        this.ground = new Ground(course);
    }

    show(view) {
        const flat = view === ABOVE || view === SIDE;
        if (!flat) {
            try {
                this.inSpace();
            } catch {
                this.app.notices.fault("view", [{ what: "this browser cannot draw WebGL, so the view from above stays" }]);
                this.app.bar.show();
                return;
            }
        }
        this.view = view;
        this.above.canvas.hidden = !flat;
        this.root.querySelector("#solid").hidden = flat;
        this.app.bar.show();
    }

    /** The view in space, made when it is first needed. */
    inSpace() {
        return (this.solid ??= new Solid(this.root.querySelector("#solid")));
    }

    next() {
        this.show(VIEWS[(VIEWS.indexOf(this.view) + 1) % VIEWS.length]);
    }

    /** Where the plan for pointing at goals lies (m), or null. */
    get plan() {
        const { goal } = this.app.helm.run.content.bindings;
        return goal?.pointed[0]?.plan ?? goal?.touched[0]?.plan ?? null;
    }

    /** Which fractions of the window a point of the stage is: of the plan that it shows, where a goal is pointed at. */
    fractions(x, y) {
        const { plan } = this;
        const { clientWidth: width, clientHeight: height } = this.root;
        const flat = { [ABOVE]: this.above, [SIDE]: this.side }[this.view];
        if (!plan || !flat) return [x / width, y / height];
        const [placeX, placeY] = flat.place(x, y);
        const [left, back, right, forward] = plan;
        return [(placeX - left) / (right - left), (forward - placeY) / (forward - back)];
    }

    /** The aspect ratio of the window, or of the part of the plan that it shows. */
    get aspectRatio() {
        const { plan } = this;
        if (plan && [ABOVE, SIDE].includes(this.view)) return (plan[2] - plan[0]) / (plan[3] - plan[1]);
        return this.root.clientWidth / Math.max(this.root.clientHeight, 1);
    }

    /** @param {Function|null} eyes draws the scene in a headset, in place of the stage */
    draw(scene, eyes = null) {
        if (!scene) return;
        scene.figure = this.figure;
        scene.ground = this.ground;
        scene.height = this.ground.height(scene.x, scene.y);
        scene.plan = this.plan;
        const { plan } = scene;
        scene.fixed = plan ? [(plan[0] + plan[2]) / 2, (plan[1] + plan[3]) / 2] : null;
        if (plan) {
            const { clientWidth: width, clientHeight: height } = this.root;
            this.above.scale = this.side.scale = 0.9 * Math.min(width / (plan[2] - plan[0]), height / (plan[3] - plan[1]));
        }
        this.thumbs.draw(this.app.helm.run.sampler, this.root.clientWidth, this.root.clientHeight);
        this.vignette.style.opacity = this.view === EYES ? scene.vignette : 0;
        this.figure.calm = scene.calm;
        if (eyes) eyes(scene, this.colours);
        else if (this.view === ABOVE) this.above.draw(scene, this.colours);
        else if (this.view === SIDE) this.side.draw(scene, this.colours);
        else this.solid.draw(scene, this.colours, this.view === EYES, this.app.frames.frameMs);
    }

    say(lines) {
        const text = lines.join("\n");
        if (text === this.said) return;
        this.said = text;
        this.words.replaceChildren(...lines.map((line) => element("p", { textContent: line })));
    }
}
