/** Keys by their W3C code, while they are not typed into a field. */

const MOVES_SLIDER = new Set(["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "Home", "End", "PageUp", "PageDown"]);

/** With Ctrl these are the page's: save, undo, redo. */
const PAGE_KEYS = new Set(["KeyS", "KeyZ", "KeyY"]);

/** Whether a key is meant for the element that has the focus, not for the body. */
export function isTyped(target, code) {
    if (!target || !target.matches) return false;
    if (target.closest("dialog")) return true;
    if (target.matches("select, textarea, input:not([type=range])")) return true;
    if (target.matches("input[type=range]")) return MOVES_SLIDER.has(code);
    if (target.matches("canvas[data-points]")) return MOVES_SLIDER.has(code) || code === "Enter";
    return target.matches("button, summary, a") && (code === "Enter" || code === "Space");
}

/** @param {(control: string, value: number, time: number) => void} give
 *  @param {(code: string) => boolean} known whether a key is bound: all others are the browser's */
export function followKeyboard(target, give, known) {
    target.addEventListener("keydown", (event) => {
        if (event.code === "Tab" || isTyped(event.target, event.code) || !known(event.code)) return;
        if ((event.ctrlKey || event.metaKey) && PAGE_KEYS.has(event.code)) return;
        event.preventDefault();
        if (!event.repeat) give(`key.${event.code}`, 1, event.timeStamp);
    });
    // A key that comes up is released, wherever the focus is by then.
    target.addEventListener("keyup", (event) => {
        if (known(event.code)) give(`key.${event.code}`, 0, event.timeStamp);
    });
}
