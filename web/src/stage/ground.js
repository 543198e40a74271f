/** A course, read from its row of numbers: pieces, walls, blocked squares, and how high the ground is. */

import { squaresIn } from "../play/blocked.js";

const FAR_M = 1e5;

export class Ground {
    constructor(course) {
        const [pieces, walls] = course;
        this.pieces = Array.from({ length: pieces }, (_, piece) => course.slice(3 + 8 * piece, 11 + 8 * piece));
        const start = 3 + 8 * pieces;
        const all = Array.from({ length: walls }, (_, wall) => course.slice(start + 5 * wall, start + 5 * wall + 5));
        this.walls = all.filter((wall) => wall.slice(0, 4).every((edge) => Math.abs(edge) < FAR_M));
        this.bounds = boundsOf(all.filter((wall) => !this.walls.includes(wall)));
        this.blocked = squaresIn(course);
    }

    /** Height (m) of the ground at a place: that of the highest piece there, 0 elsewhere. */
    height(x, y) {
        let found = 0;
        for (const piece of this.pieces) found = Math.max(found, pieceHeight(piece, x, y));
        return found;
    }

    get flat() {
        return !this.pieces.length;
    }
}

/** As the library's kernels have it: a plane over a rectangle, or a round mound. */
function pieceHeight([form, a, b, c, d, e, f, g], x, y) {
    if (form === 0) return x >= a && x <= c && y >= b && y <= d ? e + f * (x - a) + g * (y - b) : 0;
    const away = Math.hypot(x - a, y - b) / c;
    return away < 1 ? 0.5 * d * (1 + Math.cos(Math.PI * away)) : 0;
}

function boundsOf(walls) {
    if (!walls.length) return null;
    const edge = (index, far, pick) => pick(...walls.map((wall) => wall[index]).filter((one) => Math.abs(one) < far));
    return { left: edge(2, FAR_M, Math.min), right: edge(0, FAR_M, Math.max), back: edge(3, FAR_M, Math.min), forward: edge(1, FAR_M, Math.max) };
}
