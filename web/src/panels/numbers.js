/** The numbers of the mode that is played, in the order of shaping: sliders, numbers, choices, and what they do. */

import { NOTHING, response } from "../models/response.js";
import { rangeOf } from "../models/slider_range.js";
import { element, palette, shown } from "./element.js";

const NAMES = { move: "move", rise: "rise", throttle: "throttle", turn: "turn", look: "look", press: "press", steer: "steer" };
const ORDER = ["move", "rise", "throttle", "turn", "look", "steer", "goal", "press", "comfort"];

export class NumbersPanel {
    /** @param {HTMLElement} root @param {Object} app what main.js hands over */
    constructor(root, app) {
        this.app = app;
        this.search = element("input", { type: "search", placeholder: "Search numbers", "aria-label": "Search numbers" });
        this.search.oninput = () => this.#filter();
        this.undo = element("button", { textContent: "Undo", title: "Ctrl+Z", onclick: () => app.settings.undo() });
        this.redo = element("button", { textContent: "Redo", title: "Ctrl+Y", onclick: () => app.settings.redo() });
        this.list = element("div", { className: "scroll" });
        this.findings = element("div", { className: "findings", hidden: true });
        root.addEventListener("pointerdown", () => app.settings.beginDrag(), true);
        for (const end of ["pointerup", "pointercancel"]) window.addEventListener(end, () => app.settings.endDrag(), true);
        root.append(element("div", { className: "tools" }, this.search, this.undo, this.redo), this.list, this.findings);
        if (!app.live) {
            this.findings.hidden = false;
            this.findings.append(element("p", { className: "notice", textContent: "The feel sheet, check, changing forms and following a file need Python: wendonic live PROFILE." }));
        }
        this.rows = new Map();
        this.curves = [];
        this.key = "";
    }

    /** Builds the panel for the mode and form that are played now. */
    build() {
        const { settings, helm } = this.app;
        const key = helm.mode + settings.profile.fields.map(({ path }) => path).join();
        if (key === this.key) {
            this.refresh();
            return;
        }
        this.key = key;
        const scrolled = this.list.scrollTop;
        this.list.replaceChildren();
        this.rows.clear();
        this.curves = [];
        let table = null;
        let heading = "";
        for (const field of this.#fields()) {
            const [name, bind] = this.#heading(field);
            if (name !== heading) {
                heading = name;
                table = element("section", { className: "table" }, element("h2", { textContent: name }));
                if (bind) table.append(this.#curve(...bind));
                this.list.append(table);
            }
            table.append(this.#row(field));
            if (field.kind === "points") this.#offerPoints(field.path);
        }
        this.list.scrollTop = scrolled;
        this.#filter();
        this.refresh();
    }

    /** Fields of the mode, then those of its gaits, then those of the whole profile. */
    #fields() {
        const { settings, helm } = this.app;
        const start = `mode.${helm.mode}.`;
        const gaits = new Set(helm.run.content.gaits);
        const rank = (path) => {
            if (path.startsWith(start)) {
                const index = ORDER.indexOf(path.slice(start.length).split(/[.[]/)[0]);
                return index < 0 ? ORDER.length : index;
            }
            return path.startsWith("gait.") ? ORDER.length - 2.5 : ORDER.length + 1;
        };
        return settings.profile.fields
            .filter(({ path }) => (path.startsWith("gait.") ? gaits.has(path.split(".")[1]) : !path.startsWith("mode.") || path.startsWith(start)))
            .map((field, index) => [rank(field.path), index, field])
            .sort((one, other) => one[0] - other[0] || one[1] - other[1])
            .map(([, , field]) => field);
    }

    /** The heading a field stands under, and the stick whose response is drawn there. */
    #heading({ path }) {
        const { helm, settings } = this.app;
        const parts = path.split(".");
        if (parts[0] === "gait") return [`gait ${parts[1]}`, null];
        if (parts[0] !== "mode") return ["whole profile", null];
        if (parts[2] === "press") return [`press ${parts[3]}`, null];
        const channel = parts[2];
        const bind = /^bind\[(\d+)\]/.exec(parts[3] ?? "");
        if (!bind || !(channel in NAMES)) return [parts.length > 3 ? channel : "mode", null];
        const number = Number(bind[1]);
        const source = helm.runs[helm.mode].content.bindings.channels[channel]?.[number];
        const label = settings.profile.modes[helm.mode].sourceNames?.[channel]?.[number] ?? `entry ${number + 1}`;
        const draws = source?.kind === "axes" || (source?.kind === "stick" && (channel === "move" || channel === "look"));
        return [`${channel}: ${label}`, draws ? [channel, source] : null];
    }

    #row(field) {
        const row = element("div", { className: "field", "data-path": field.path });
        const label = element("label", { textContent: labelOf(field.path), title: field.path });
        const line = element("div", { className: "line" }, label);
        const inputs = field.kind === "number" ? this.#number(field) : field.kind === "points" ? this.#points(field) : this.#choice(field);
        label.htmlFor = inputs.main.id = `field-${field.path}`;
        line.append(...inputs.all);
        const reset = element("button", { className: "file", hidden: true, onclick: () => this.app.settings.reset(field.path) });
        const effect = element("ul", { className: "effect" });
        row.append(line, ...(inputs.refused ? [inputs.refused] : []), reset, effect, element("p", { className: "about", textContent: field.about }));
        this.rows.set(field.path, { field, row, reset, effect, show: inputs.show });
        return row;
    }

    #number(field) {
        const { factor } = field;
        const ends = { ...field, low: scaled(field.low, factor), high: scaled(field.high, factor), default: scaled(field.default, factor) };
        const [low, high, step] = rangeOf(ends, this.app.settings.fileValue(field.path) * factor);
        const number = element("input", { type: "number", step: "any", min: ends.low ?? "", max: ends.high ?? "" });
        const slider = element("input", { type: "range", min: low, max: high, step, "aria-label": `${field.path} slider` });
        // What is shown in the game's own unit is kept in metres.
        const put = (given) => {
            const value = factor === 1 ? given : given / factor;
            let fitting = field.whole ? Math.round(value) : value;
            // What the ends are in the game's own unit is rounded.
            if (field.low !== null) fitting = Math.max(fitting, field.low);
            if (field.high !== null) fitting = Math.min(fitting, field.high);
            refused.hidden = true;
            if (Number.isFinite(fitting)) this.app.settings.set(field.path, fitting);
        };
        const refused = element("p", { className: "refused", role: "alert", hidden: true });
        number.onchange = () => {
            const { rangeUnderflow, rangeOverflow } = number.validity;
            if (rangeUnderflow || rangeOverflow) {
                refused.textContent = `found ${number.value}; allowed: ${allowedWords(ends)}`;
                refused.hidden = false;
            } else if (number.value !== "") put(Number(number.value));
        };
        // Whatever was typed and does not count gives way to what does.
        number.onblur = () => (number.value = shown(this.app.settings.value(field.path) * factor, 6));
        slider.oninput = () => put(Number(slider.value));
        // After a drag the keys are the body's again.
        slider.onpointerup = () => this.app.focusStage();
        const fixed = field.number < 0 && !this.app.live;
        number.disabled = slider.disabled = fixed;
        const show = (value) => {
            if (document.activeElement !== number) number.value = shown(value * factor, 6);
            slider.value = value * factor;
        };
        return { main: number, all: [number, element("span", { className: "unit", textContent: labelOf(field.path).endsWith(field.unit) ? "" : field.unit }), slider], refused, show };
    }

    /** Points as the file writes them: what a drag finds out can be read, typed and pasted. */
    #points(field) {
        const text = element("input", { type: "text", spellcheck: false, disabled: !this.app.live });
        const refused = element("p", { className: "refused", role: "alert", hidden: true });
        text.onchange = () => {
            const points = pointsOf(text.value);
            refused.hidden = points !== null;
            if (points) this.app.settings.set(field.path, points, null);
            else refused.textContent = `found ${text.value}; allowed: points [tilt, amount], such as ${wordsOf(field.value)}`;
        };
        text.onblur = () => (text.value = wordsOf(this.app.settings.value(field.path)));
        const show = (value) => {
            if (document.activeElement !== text) text.value = wordsOf(value);
        };
        return { main: text, all: [text], refused, show };
    }

    #choice(field) {
        const fixed = !this.app.live;
        if (field.kind === "switch") {
            const box = element("input", { type: "checkbox", disabled: fixed });
            box.onchange = () => this.app.settings.set(field.path, box.checked, null);
            return { main: box, all: [box], show: (value) => (box.checked = value) };
        }
        const options = field.choices.map((word) => element("option", { value: word, textContent: word }));
        const select = element("select", { disabled: fixed }, ...options);
        select.onchange = () => {
            this.app.settings.set(field.path, field.choices[select.selectedIndex], null);
            this.app.focusStage();
        };
        return { main: select, all: [select], show: (value) => (select.value = value) };
    }

    #curve(channel, source) {
        const canvas = element("canvas", { className: "response" });
        canvas.setAttribute("role", "img");
        canvas.setAttribute("aria-label", `Response of the stick: ${channel}`);
        const curve = { channel, source, canvas, response: null };
        this.curves.push(curve);
        canvas.onpointerdown = (event) => this.#grab(curve, event);
        canvas.onkeydown = (event) => this.#nudge(curve, event);
        return canvas;
    }

    /** Lets the points of the curve that was drawn last be moved. */
    #offerPoints(path) {
        const canvas = this.curves[this.curves.length - 1]?.canvas;
        if (!canvas) return;
        canvas.setAttribute("data-points", path);
        if (!this.app.live) return;
        canvas.tabIndex = 0;
        canvas.setAttribute("aria-label", "Response of the stick: arrow keys move a point of the curve, Enter goes on to the next");
    }

    /** Moves a point by the arrow keys; Enter goes on to the next one. */
    #nudge(curve, event) {
        const handles = this.#handles(curve);
        if (!handles) return;
        const inner = handles.points.length - 2;
        if (inner < 1) return;
        curve.held = Math.min(Math.max(curve.held ?? 1, 1), inner);
        const ways = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
        if (event.code === "Enter") curve.held = (curve.held % inner) + 1;
        else if (ways[event.code]) {
            const [x, y] = handles.points[curve.held];
            this.#move(handles, curve.held, [x + 0.02 * ways[event.code][0], y + 0.02 * ways[event.code][1]]);
        } else return;
        event.preventDefault();
        event.stopPropagation();
    }

    /** Moves a point as far as its neighbours allow: the curve keeps rising. */
    #move(handles, held, [x, y]) {
        const points = this.app.settings.value(handles.path).map((point) => point.slice());
        const [before, after] = [points[held - 1], points[held + 1]];
        points[held] = [round(Math.min(Math.max(x, before[0] + 0.02), after[0] - 0.02)), round(Math.min(Math.max(y, before[1]), after[1]))];
        this.app.settings.set(handles.path, points);
    }

    /** The points of a curve through points, and the share of the tilt in which they count. */
    #handles(curve) {
        const { settings } = this.app;
        const path = curve.canvas.dataset.points;
        if (!path || !this.app.live) return null;
        const start = path.replace(/curve\.points$/, "dead_zone.");
        const [inner, outer] = [settings.value(`${start}inner`) ?? 0, settings.value(`${start}outer`) ?? 1];
        const bend = path.replace(/points$/, "");
        const [floor, ceiling] = [settings.value(`${bend}floor`) ?? 0, settings.value(`${bend}ceiling`) ?? 1];
        return { path, points: settings.value(path), inner, outer, floor, ceiling };
    }

    /** Drags the nearest point of a curve; its ends stay, and it keeps rising. */
    #grab(curve, event) {
        const handles = this.#handles(curve);
        if (!handles) return;
        const { canvas } = curve;
        const area = areaOf(canvas);
        const box = canvas.getBoundingClientRect();
        const at = (one) => [
            ((one.clientX - box.left - area.left) / (area.right - area.left) - handles.inner) / (handles.outer - handles.inner),
            ((area.bottom - (one.clientY - box.top)) / (area.bottom - area.top) - handles.floor) / (handles.ceiling - handles.floor),
        ];
        const from = at(event);
        let held = -1;
        handles.points.forEach(([x, y], index) => {
            const away = Math.hypot(x - from[0], y - from[1]);
            if (index > 0 && index < handles.points.length - 1 && away < 0.12 && (held < 0 || away < Math.hypot(handles.points[held][0] - from[0], handles.points[held][1] - from[1]))) held = index;
        });
        if (held < 0) return;
        canvas.setPointerCapture(event.pointerId);
        canvas.onpointermove = (move) => {
            this.#move(handles, held, at(move));
        };
        canvas.onpointerup = canvas.onpointercancel = () => {
            canvas.onpointermove = null;
            this.app.focusStage();
        };
    }

    #filter() {
        const wanted = this.search.value.trim().toLowerCase();
        for (const { field, row } of this.rows.values())
            row.hidden = wanted !== "" && !`${field.path} ${field.about}`.toLowerCase().includes(wanted);
        for (const table of this.list.children) table.hidden = ![...table.querySelectorAll(".field")].some((row) => !row.hidden);
    }

    /** Shows the values as they are now. */
    refresh() {
        const { settings } = this.app;
        for (const [path, { field, row, reset, effect, show }] of this.rows) {
            const value = settings.value(path);
            // A row of the form before goes with the next build.
            if (value === undefined) continue;
            const changed = settings.isChanged(path);
            show(value);
            row.classList.toggle("changed", changed);
            reset.hidden = !changed;
            if (changed) reset.textContent = `reset to ${wordsOf(settings.fileValue(path), field.factor)} (file)`;
            else effect.replaceChildren();
        }
        this.undo.disabled = !settings.done.length;
        this.redo.disabled = !settings.undone.length;
        for (const curve of this.curves) curve.response = null;
    }

    /** Whether there is a row of a field. */
    has(path) {
        return this.rows.has(path);
    }

    /** What the last change did to the feel sheet, shown beside the field that was changed. */
    showEffect(path, lines) {
        const row = this.rows.get(path);
        // What is measured late may be of a change that has been taken back since.
        if (!row || !this.app.settings.isChanged(path)) return;
        row.effect.replaceChildren(...lines.map((line) => element("li", { textContent: line })));
    }

    showFindings(found) {
        this.findings.hidden = !found.length;
        this.findings.replaceChildren(
            ...found.map(({ slug, severity, where, measured, why, advice }) =>
                element("p", { className: severity, title: advice ? `${why}\n${advice}` : why, textContent: `${slug.replaceAll("-", " ")} (${where}): ${measured}` }),
            ),
        );
    }

    /** Draws the response of each stick, with where it is now. */
    drawCurves() {
        const { helm } = this.app;
        const colours = palette();
        const box = this.list.getBoundingClientRect();
        for (const curve of this.curves) {
            const seen = curve.canvas.getBoundingClientRect();
            if (!seen.width || seen.bottom < box.top || seen.top > box.bottom) continue;
            const [[index, slot, sign]] = curve.source.axes ?? [[curve.source.start, curve.source.slot, 0]];
            curve.response ??= response(helm.run, curve.channel, index);
            const { values } = helm.state;
            const { points, axes } = curve.response;
            const tilt = Math.min(sign ? Math.abs(values[slot]) : Math.hypot(...axes.map((axis) => values[slot + axis])), 1);
            drawResponse(curve.canvas, points, tilt, colours, this.#handles(curve));
        }
    }
}

function labelOf(path) {
    const tail = path.replace(/^mode\.[^.]+\.(press\.[^.]+\.)?([a-z]+\.)?(bind\[\d+\]\.)?/, "").replace(/^gait\.[^.]+\./, "");
    return tail.replaceAll("_", " ").replaceAll(".", " · ").replace(/ (m s2|m s|deg s|per s|deg|hz|ratio|s|m)(?=$|\[)/, "").replace("[0]", ", first").replace("[1]", ", second");
}

/** Which numbers a field takes, as the errors of a file say it. */
function allowedWords({ low, high }) {
    if (high === null) return `${shown(low, 6)} and more`;
    return low === null ? `up to ${shown(high, 6)}` : `${shown(low, 6)} to ${shown(high, 6)}`;
}

const scaled = (value, factor) => (value === null ? null : value * factor);

function wordsOf(value, factor = 1) {
    if (typeof value === "boolean") return value ? "on" : "off";
    if (Array.isArray(value)) return value.map((point) => `[${point.join(", ")}]`).join(", ");
    return typeof value === "number" ? shown(value * factor, 6) : String(value);
}

/** Points from text such as "[0, 0], [0.5, 0.2], [1, 1]", with or without brackets around them; null for anything else. */
export function pointsOf(text) {
    try {
        const found = JSON.parse(`[${text}]`);
        const points = found.length === 1 && Array.isArray(found[0]?.[0]) ? found[0] : found;
        const pairs = points.length > 0 && points.every((point) => Array.isArray(point) && point.length === 2 && point.every(Number.isFinite));
        return pairs ? points : null;
    } catch {
        return null;
    }
}

const round = (value) => Math.round(value * 1000) / 1000;

function areaOf(canvas) {
    return { left: 26, right: canvas.clientWidth - 8, top: 8, bottom: canvas.clientHeight - 18 };
}

function drawResponse(canvas, points, tilt, colours, handles) {
    const ratio = Math.min(window.devicePixelRatio || 1, 2);
    const [width, height] = [canvas.clientWidth, canvas.clientHeight];
    if (canvas.width !== Math.round(width * ratio)) {
        canvas.width = Math.round(width * ratio);
        canvas.height = Math.round(height * ratio);
    }
    const context = canvas.getContext("2d");
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, width, height);
    const { left, right, top, bottom } = areaOf(canvas);
    const x = (value) => left + value * (right - left);
    const y = (value) => bottom - value * (bottom - top);
    const alive = points.findIndex(([, amount]) => amount > NOTHING);
    const dead = alive > 0 ? points[alive - 1][0] : 0;
    const full = points.findIndex(([, amount]) => amount > 0.999 * Math.max(...points.map(([, one]) => one)));
    context.fillStyle = colours.wash;
    context.fillRect(left, top, x(dead) - left, bottom - top);
    if (full >= 0) context.fillRect(x(points[full][0]), top, right - x(points[full][0]), bottom - top);
    context.strokeStyle = colours.fog;
    context.lineWidth = 1;
    context.strokeRect(left, top, right - left, bottom - top);
    context.strokeStyle = colours.edge;
    context.lineWidth = 4;
    const path = () => {
        context.beginPath();
        points.forEach(([one, amount], index) => (index ? context.lineTo(x(one), y(amount)) : context.moveTo(x(one), y(amount))));
        context.stroke();
    };
    path();
    context.strokeStyle = colours.honey;
    context.lineWidth = 2.5;
    path();
    const near = points.reduce((best, pair) => (Math.abs(pair[0] - tilt) < Math.abs(best[0] - tilt) ? pair : best), points[0] ?? [0, 0]);
    context.fillStyle = colours.ink;
    context.beginPath();
    context.arc(x(tilt), y(near[1]), 4, 0, 2 * Math.PI);
    context.fill();
    for (const [one, value] of handles ? handles.points.slice(1, -1) : []) {
        context.fillStyle = colours.sheet;
        context.strokeStyle = colours.ink;
        context.lineWidth = 1.5;
        context.beginPath();
        context.rect(x(handles.inner + one * (handles.outer - handles.inner)) - 4, y(handles.floor + value * (handles.ceiling - handles.floor)) - 4, 8, 8);
        context.fill();
        context.stroke();
    }
    context.fillStyle = colours.ink;
    context.font = "11px system-ui, sans-serif";
    context.textAlign = "right";
    context.fillText("1", left - 5, top + 9);
    context.fillText("0", left - 5, bottom);
    context.fillText("tilt 1", right, bottom + 13);
    context.textAlign = "left";
    context.fillText("tilt 0", left, bottom + 13);
    context.textAlign = "center";
    context.fillText(alive >= 0 ? `dead up to ${shown(dead, 2)}` : "", (left + right) / 2, bottom + 13);
}
