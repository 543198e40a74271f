/** A bar that says how long something is, in the unit that the profile is written in. */

import { line } from "./canvas.js";

const ABOUT_M = 2;

/** A round number (1, 2 or 5 times a power of ten) near a value. */
export function roundNear(value) {
    const power = 10 ** Math.floor(Math.log10(value));
    return [1, 2, 5, 10].map((one) => one * power).reduce((best, one) => (Math.abs(Math.log(one / value)) < Math.abs(Math.log(best / value)) ? one : best));
}

/** @param {{unit: string, perM: number}} length the profile's unit of length */
export function scaleBar(context, scale, { unit, perM }, colours, width, height) {
    const units = roundNear(ABOUT_M * perM);
    const long = (units / perM) * scale;
    context.strokeStyle = colours.ink;
    context.fillStyle = colours.ink;
    context.lineWidth = 1.5;
    context.beginPath();
    line(context, width - 16 - long, height - 16, width - 16, height - 16);
    line(context, width - 16 - long, height - 20, width - 16 - long, height - 12);
    line(context, width - 16, height - 20, width - 16, height - 12);
    context.stroke();
    context.font = "12px system-ui, sans-serif";
    context.textAlign = "center";
    context.fillText(`${units} ${unit}`, width - 16 - long / 2, height - 21);
}
