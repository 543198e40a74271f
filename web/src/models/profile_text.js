/** A profile's text with other numbers: comments, order and layout stay. */

/** A number as TOML writes a float. */
export function tomlNumber(value, whole = false) {
    if (whole) return String(Math.round(value));
    const text = String(value);
    return /[.e]/.test(text) ? text.replace(/^(-?\d+)e/, "$1.0e") : `${text}.0`;
}

/** @param {string} text @param {Object} edits how each number is written, see text_edits of the library
 *  @param {Object<string, number>} changes @param {(path: string) => number} valueOf of a number that is not changed
 *  @returns {{text: string, left: string[]}} `left` could not be written */
export function editedText(text, edits, changes, valueOf) {
    const left = [];
    const cuts = [];
    const lines = new Map();
    for (const [path, value] of Object.entries(changes)) {
        const edit = edits[path];
        if (!edit || typeof value !== "number") {
            left.push(path);
            continue;
        }
        const number = (of, one) => tomlNumber(one * edits[of].factor);
        const written = edit.list ? `[${edit.list.map((of) => number(of, changes[of] ?? valueOf(of))).join(", ")}]` : number(path, value);
        if (edit.at) {
            // A comment after it stays in its column.
            cuts.push([...edit.at, written.padEnd(edit.at[1] - edit.at[0])]);
            continue;
        }
        const key = edit.put ? edit.put[0] : edit.head;
        if (!lines.has(key)) lines.set(key, { edit, texts: new Map() });
        const { texts } = lines.get(key);
        for (const line of edit.with) texts.set(line.split(" = ")[0], texts.get(line.split(" = ")[0]) ?? line);
        texts.set(edit.name, `${edit.name} = ${written}`);
    }
    let found = text;
    for (const { edit, texts } of lines.values()) {
        if (!edit.put) continue;
        const [index, before, behind] = edit.put;
        const put = before === "{}" ? ` ${[...texts.values()].join(", ")} ` : [...texts.values()].map((line) => `${before}${line}${behind}`).join("");
        cuts.push([index, index, put]);
    }
    for (const [start, end, put] of cuts.sort((one, other) => other[0] - one[0])) found = found.slice(0, start) + put + found.slice(end);
    for (const { edit, texts } of lines.values())
        if (edit.head) found = `${found.trimEnd()}\n\n${edit.head}\n${[...texts.values()].join("\n")}\n`;
    return { text: found, left };
}

/** Everything in TOML that can contain a name; comments and multi-line strings do not bind anything. */
const TOKEN = /#[^\n]*|"{3}[\s\S]*?"{3}|'{3}[\s\S]*?'{3}|(?:\btitle\s*=\s*)?(?:"(?:[^"\\\n]|\\.)*"|'[^'\n]*')/g;

/** The text with every name of a key or button in place of another, wherever it is bound.
 *  @returns {{text: string, left: string[]}} `left` are those that the text never names */
export function reboundText(text, rebound) {
    const named = new Set();
    const part = (name) => {
        const control = (name.includes(".") ? name : `key.${name}`).replace("pad0.", "pad.");
        const now = rebound[control];
        if (!now) return name;
        named.add(control);
        return name.includes(".") ? now : now.replace(/^key\./, "");
    };
    const found = text.replace(TOKEN, (quoted) => {
        const quote = quoted[0];
        if (!`"'`.includes(quote) || quoted.startsWith(quote.repeat(3))) return quoted;
        // A chord has several.
        return `${quote}${quoted.slice(1, -1).split("+").map(part).join("+")}${quote}`;
    });
    return { text: found, left: Object.keys(rebound).filter((control) => !named.has(control)) };
}
