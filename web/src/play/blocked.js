/** The table of blocked squares at the end of a course: open addressing, at most half of it taken. */

const firstPlace = (x, y, size) => {
    const mixed = Math.abs(x * 73856093 + y * 19349663);
    return Math.trunc(mixed - Math.floor(mixed / size) * size);
};

export function squaresIn(course) {
    const start = course[2];
    const found = [];
    for (let number = 0; number < course[start]; number++) {
        const index = start + 1 + 3 * number;
        if (course[index] > 0) found.push([course[index + 1], course[index + 2]]);
    }
    return found;
}

export function withSquares(course, squares) {
    const known = [...new Map(squares.map((square) => [square.join(), square])).values()];
    const before = course.slice(0, course[2]);
    if (!known.length) return [...before, 0];
    const size = 2 * known.length + 1;
    const table = new Array(3 * size).fill(0);
    for (const [x, y] of known) {
        let index = firstPlace(x, y, size);
        while (table[3 * index]) index = (index + 1) % size;
        table[3 * index] = 1;
        table[3 * index + 1] = x;
        table[3 * index + 2] = y;
    }
    return [...before, size, ...table];
}
