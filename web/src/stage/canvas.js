/** Drawing on a plain canvas: its size, lines, discs, and a grid of metres. */

export function line(context, fromX, fromY, toX, toY) {
    context.moveTo(fromX, fromY);
    context.lineTo(toX, toY);
}

export function disc(context, x, y, radius) {
    context.beginPath();
    context.arc(x, y, radius, 0, 2 * Math.PI);
    context.fill();
}

export function ellipse(context, x, y, across, along) {
    context.beginPath();
    context.ellipse(x, y, across, along, 0, 0, 2 * Math.PI);
    context.fill();
    context.stroke();
}

/** The canvas's context, as large as it is shown and wiped clean; `ratio` is how many of its pixels are one of the page. */
export function sizedContext(canvas, colours) {
    const context = canvas.getContext("2d", { alpha: false });
    const ratio = Math.min(window.devicePixelRatio || 1, 2);
    const [width, height] = [canvas.clientWidth, canvas.clientHeight];
    if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
        canvas.width = Math.round(width * ratio);
        canvas.height = Math.round(height * ratio);
    }
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.fillStyle = colours.paper;
    context.fillRect(0, 0, canvas.width, canvas.height);
    return { context, ratio, width, height };
}

/** A line each metre, a darker one each five. */
export function metreLines(context, scale, colours, seen) {
    context.lineWidth = 1 / scale;
    for (const [apart, colour] of [[1, colours.wash], [5, colours.fog]]) {
        context.strokeStyle = colour;
        context.beginPath();
        for (let x = Math.ceil(seen.left / apart) * apart; x <= seen.right; x += apart) line(context, x, seen.back, x, seen.forward);
        for (let y = Math.ceil(seen.back / apart) * apart; y <= seen.forward; y += apart) line(context, seen.left, y, seen.right, y);
        context.stroke();
    }
}

/** The way gone, broken where the body was put elsewhere, with a mark of `radius` each `everyS` seconds: far apart is fast. */
export function drawPath(context, scale, [times, xs, ys], colour, everyS, radius) {
    if (xs.length < 2) return;
    context.lineWidth = 2 / scale;
    context.strokeStyle = colour;
    context.lineJoin = "round";
    context.beginPath();
    context.moveTo(xs[0], ys[0]);
    for (let index = 1; index < xs.length; index++) {
        if (Math.hypot(xs[index] - xs[index - 1], ys[index] - ys[index - 1]) > 2) context.moveTo(xs[index], ys[index]);
        else context.lineTo(xs[index], ys[index]);
    }
    context.stroke();
    context.fillStyle = colour;
    let next = Math.ceil(times[0] / everyS) * everyS;
    for (let index = 0; index < times.length; index++) {
        if (times[index] < next) continue;
        next += everyS;
        disc(context, xs[index], ys[index], radius / scale);
    }
}
