/** Sticks under a thumb: where the thumb landed, how far it may go, and where it is. */

import { element } from "../panels/element.js";

export class Thumbs {
    /** @param {HTMLElement} root */
    constructor(root) {
        this.root = root;
        this.sampler = null;
        this.drawn = [];
    }

    /** Takes the sticks of the mode that is played. */
    #take(sampler) {
        this.sampler = sampler;
        this.drawn = sampler.readers
            .filter((reader) => reader.middle)
            .map((reader) => ({ reader, rim: element("div", { className: "rim", hidden: true }), dot: element("div", { className: "dot", hidden: true }) }));
        this.root.replaceChildren(...this.drawn.flatMap(({ rim, dot }) => [rim, dot]));
    }

    draw(sampler, width, height) {
        if (sampler !== this.sampler) this.#take(sampler);
        for (const { reader, rim, dot } of this.drawn) {
            // One with a place of its own is there before the thumb is.
            const middle = reader.thumb < 0 ? reader.source.middle : reader.middle;
            rim.hidden = !middle;
            dot.hidden = reader.thumb < 0;
            if (!middle) continue;
            const [x, y] = [middle[0] * width, middle[1] * height];
            const radius = reader.source.radius * height;
            const [right, forward] = reader.tilt;
            Object.assign(rim.style, { left: `${x - radius}px`, top: `${y - radius}px`, width: `${2 * radius}px`, height: `${2 * radius}px` });
            Object.assign(dot.style, { left: `${x + right * radius}px`, top: `${y - forward * radius}px` });
        }
    }
}
