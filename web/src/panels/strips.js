/** What just happened: the stick, strips of the last five seconds, and readings from them. */

import uPlot from "uplot";
import { element, palette, shown } from "./element.js";

export const SECONDS = 5;

/** Letters of a name that have room. */
const LETTERS = 18;

/** Heights that a strip needs at least, one press of it, and the axis of time. */
const STRIP_PX = 32, LANE_PX = 12, AXIS_PX = 24;

export class StripsPanel {
    constructor(root, app) {
        this.app = app;
        this.paused = false;
        this.stick = element("canvas", { width: 224, height: 224 });
        this.stick.setAttribute("role", "img");
        this.stick.setAttribute("aria-label", "Raw and shaped stick");
        this.pause = element("button", { className: "pause", textContent: "Pause (F7)", onclick: () => this.toggle() });
        this.plots = element("div", { className: "plots" });
        this.legend = element("div", { className: "legend" });
        this.list = element("dl", {});
        root.append(
            element("div", { className: "stick" }, this.stick, this.legend),
            this.plots,
            element("div", { className: "readings" }, this.list, this.pause),
        );
        this.made = [];
        this.key = "";
        new ResizeObserver(() => this.#resize()).observe(this.plots);
    }

    toggle() {
        this.paused = !this.paused;
        this.pause.setAttribute("aria-pressed", this.paused);
        this.pause.textContent = this.paused ? "Go on (F7)" : "Pause (F7)";
    }

    /** Rebuilds the strips: other presses, or other colours. */
    build() {
        const { profile, helm } = this.app;
        const bound = profile.pressNames.filter((_, number) => helm.run.content.bindings.presses[number].length);
        const key = helm.mode + bound.join() + matchMedia("(prefers-color-scheme: dark)").matches;
        if (key === this.key) return;
        this.key = key;
        this.presses = bound;
        for (const { plot } of this.made) plot.destroy();
        const colours = palette();
        this.plots.replaceChildren();
        const lines = [
            { label: "raw", stroke: colours.edge, dash: [2, 3], width: 1.5 },
            { label: "shaped", stroke: colours.honey, width: 2.5 },
            { label: "intent", stroke: colours.slate, dash: [7, 4], width: 1.5 },
        ];
        this.legend.replaceChildren(
            ...lines.map(({ label, stroke, dash }, index) => {
                const mark = element("i", {});
                mark.style.borderTop = `${dash ? 2 : 3}px ${dash ? (dash[0] < 4 ? "dotted" : "dashed") : "solid"} ${stroke}`;
                return element("span", {}, mark, `${label}${["  ○", "  ●", ""][index]}`);
            }),
        );
        this.made = [
            this.#strip({ name: "amount", unit: "", lines, columns: ["raw", "shaped", "intent"], ends: (low, high) => [0, Math.max(high, 1) * 1.1], splits: () => [0, 1] }),
            this.#strip({
                name: "speed", unit: `${profile.unit}/s`, lines: [{ stroke: colours.moss, width: 2 }], columns: ["speed"],
                ends: (low, high) => [0, Math.max(high, 0.5) * 1.15], splits: (low, high) => [0, rounded(high / 1.15)],
            }),
            helm.run.content.sideView ? this.#strip({
                name: "height", unit: profile.unit, lines: [{ stroke: colours.heather, width: 2 }], columns: ["height"],
                ends: (low, high) => [1.15 * low, Math.max(high, 0.5 * profile.unitsPerM) * 1.15], splits: (low, high) => [0, rounded(high / 1.15)],
                last: !bound.length,
            }) : this.#strip({
                name: "yaw rate", unit: "deg/s", lines: [{ stroke: colours.heather, width: 2 }], columns: ["yawRate"],
                ends: (low, high) => [-1.15 * Math.max(-low, high, 30), 1.15 * Math.max(-low, high, 30)],
                splits: (low, high) => [-rounded(high / 1.15), rounded(high / 1.15)],
                last: !bound.length,
            }),
        ];
        if (bound.length)
            this.made.push(this.#strip({
                name: "", unit: "", lines: bound.map(() => ({ stroke: colours.ink, width: 1.5 })), columns: bound.map((_, number) => `press${number}`),
                ends: () => [-0.25, bound.length], splits: () => bound.map((_, number) => number + 0.4), words: bound.map(shortened), last: true,
            }));
        this.#resize();
    }

    #strip({ name, unit, lines, columns, ends, splits, words = null, last = false }) {
        const colours = palette();
        const axis = { stroke: colours.quiet, grid: { stroke: colours.wash, width: 1 }, ticks: { show: false }, font: "11px system-ui" };
        const label = element("div", { className: "label" });
        if (name) label.append(element("b", { textContent: unit ? `${name}, ${unit}` : name }));
        const cell = element("div", { className: "cell" });
        const row = element("div", { className: words ? "strip words" : "strip" }, label, cell);
        this.plots.append(row);
        const plot = new uPlot(
            {
                width: 300, height: 40, legend: { show: false },
                cursor: { drag: { x: false, y: false }, points: { show: false }, sync: { key: "strips" } },
                padding: [5, 16, last ? 0 : 4, 0],
                scales: { x: { time: false, auto: false }, y: { auto: false } },
                axes: [
                    { ...axis, show: last, size: 18, gap: 1, values: (_, found) => found.map((t) => (t === 0 ? "now" : `${shown(t, 3)} s`)) },
                    {
                        ...axis, size: words ? 124 : 40, gap: 4,
                        splits: (_, __, low, high) => splits(low, high),
                        values: (_, found) => words ?? found.map((one) => shown(one, 3)),
                    },
                ],
                series: [{}, ...lines.map((one) => ({ ...one, points: { show: false } }))],
            },
            [[], ...lines.map(() => [])],
            cell,
        );
        const lanes = words ? words.length : 0;
        return { plot, cell, row, columns, ends, share: words ? 0.8 + 0.24 * lanes : 1, least: words ? LANE_PX * lanes + AXIS_PX : STRIP_PX };
    }

    #resize() {
        const height = this.plots.clientHeight - 4;
        if (!this.plots.clientWidth || !this.made.length) return;
        const sum = this.made.reduce((one, { share }) => one + share, 0);
        // Names of many presses need their height: then the strips scroll.
        const spare = Math.max(0, height - this.made.reduce((one, { least }) => one + least, 0));
        for (const { plot, cell, row, share, least } of this.made) {
            const rowHeight = Math.floor(least + (spare * share) / sum);
            row.style.height = `${rowHeight}px`;
            plot.setSize({ width: cell.clientWidth, height: rowHeight });
        }
    }

    /** Shows the last seconds; a few times a second is enough. */
    draw() {
        const { ring, helm } = this.app;
        this.#readings();
        if (this.paused || !this.made.length || !this.plots.clientWidth) return;
        const end = helm.t;
        for (const { plot, columns, ends } of this.made) {
            const [times, ...data] = ring.since("t", end - SECONDS, ["t", ...columns]);
            for (let index = 0; index < times.length; index++) times[index] -= end;
            let [low, high] = [0, 0];
            for (const column of data) for (const value of column) [low, high] = [Math.min(low, value), Math.max(high, value)];
            const [least, most] = ends(low, high);
            plot.setData([times, ...data], false);
            plot.batch(() => {
                plot.setScale("x", { min: -SECONDS, max: 0 });
                plot.setScale("y", { min: least, max: most });
            });
        }
    }

    #readings() {
        const { readings, frames, profile, helm } = this.app;
        const ms = (value) => (value === null ? "–" : `${shown(1000 * value, 3)} ms`);
        const length = (metres) => `${shown(metres * profile.unitsPerM, 3)} ${profile.unit}`;
        const { sideView, onSquares, frame } = helm.run.content;
        const perhaps = (value, words) => (value === null ? "–" : words(value));
        // On squares there are steps and no speeds, and a vehicle goes where it points.
        const rows = [
            ["press to movement", ms(readings.pressToMoveS)],
            !onSquares && ["reach 90 %", ms(readings.reach90S)],
            !onSquares && ["stopping distance", perhaps(readings.stopM, length)],
            !onSquares && !sideView && frame !== "drive" && ["diagonal / straight", perhaps(readings.diagonalRatio, (ratio) => shown(ratio, 3))],
            (readings.jump || sideView) && ["last jump", perhaps(readings.jump, ({ heightM }) => length(heightM))],
            sideView && ["airtime", perhaps(readings.jump, ({ airtimeS }) => `${shown(airtimeS, 3)} s`)],
            ["frame", `${shown(frames.frameMs, 3)} ms`],
            ["tick", `${shown(frames.tickMs * 1000, 3)} µs`],
            ["event to drawing", perhaps(frames.eventMs, (one) => `${shown(one, 3)} ms`)],
        ].filter(Boolean);
        const names = rows.map(([name]) => name);
        if (names.join() !== this.names) {
            this.names = names.join();
            this.list.replaceChildren(...names.flatMap((name) => [element("dt", { textContent: name }), element("dd", {})]));
        }
        rows.forEach(([, value], index) => {
            const cell = this.list.children[2 * index + 1];
            if (cell.textContent !== value) cell.textContent = value;
        });
    }

    /** The steering stick or keys: raw and shaped, on the unit disc. */
    drawStick(raw, local) {
        const colours = palette();
        const { stick } = this;
        const context = stick.getContext("2d");
        const size = stick.width;
        context.setTransform(1, 0, 0, 1, 0, 0);
        context.clearRect(0, 0, size, size);
        context.setTransform(size / 2.5, 0, 0, -size / 2.5, size / 2, size / 2);
        context.lineWidth = 0.02;
        context.strokeStyle = colours.edge;
        context.beginPath();
        context.arc(0, 0, 1, 0, 2 * Math.PI);
        context.moveTo(-1, 0);
        context.lineTo(1, 0);
        context.moveTo(0, -1);
        context.lineTo(0, 1);
        context.stroke();
        context.lineWidth = 0.05;
        context.strokeStyle = colours.edge;
        context.beginPath();
        context.arc(raw[0], raw[1], 0.12, 0, 2 * Math.PI);
        context.stroke();
        context.fillStyle = colours.honey;
        context.strokeStyle = colours.ink;
        context.lineWidth = 0.03;
        context.beginPath();
        context.arc(local[0], local[1], 0.1, 0, 2 * Math.PI);
        context.fill();
        context.stroke();
    }
}

/** A name that fits beside the strips. */
function shortened(name) {
    return name.length > LETTERS ? `${name.slice(0, LETTERS - 1)}…` : name;
}

/** A round number not above a value. */
function rounded(value) {
    const ten = 10 ** Math.floor(Math.log10(Math.max(value, 1e-6)));
    return ten * [5, 2, 1].find((step) => step * ten <= value * 1.0001);
}
