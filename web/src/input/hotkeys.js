/** Keys of the page itself, which no game gets. */

const PLAIN = {
    F1: (app) => app.bar.help(),
    F2: (app) => app.stage.next(),
    F3: (app) => app.pair.swap(),
    F4: (app) => app.pair.vote(),
    F6: (app) => app.tape.record(),
    F7: (app) => app.strips.toggle(),
    F8: (app) => app.restart(),
    F9: (app) => app.tape.mark(),
};
const WITH_CONTROL = {
    KeyS: (app) => app.file.save(),
    KeyZ: (app, shifted) => (shifted ? app.settings.redo() : app.settings.undo()),
    KeyY: (app) => app.settings.redo(),
};

/** Whether a key by itself is one of the page's own. */
export function isHotkey(code) {
    return code in PLAIN;
}

/** @param {Object} app what main.js hands over */
export function followHotkeys(app) {
    window.addEventListener("keydown", (event) => {
        if (event.ctrlKey || event.metaKey) {
            const found = WITH_CONTROL[event.code];
            const typing = event.target.matches?.("input[type=number], input[type=search]");
            // Undo while typing is that of the field; saving takes what has been typed.
            if (!found || (typing && event.code !== "KeyS")) return;
            event.preventDefault();
            if (typing) event.target.blur();
            // In a blind trial the two stay as they are.
            if (!app.trial.blind) found(app, event.shiftKey);
        } else if (isHotkey(event.code)) {
            event.preventDefault();
            if (!event.repeat) PLAIN[event.code](app);
        }
    });
}
