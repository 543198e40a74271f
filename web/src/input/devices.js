/** Every device of the page: what each says goes to one place, and leaving the page lets all of it go. */

import { HeadsetStandIn } from "./headset.js";
import { HeadsetSession } from "./headset_session.js";
import { followHotkeys, isHotkey } from "./hotkeys.js";
import { followKeyboard } from "./keyboard.js";
import { Motion } from "./motion.js";
import { Mouse } from "./mouse.js";
import { Pads } from "./pads.js";

export class Devices {
    /** @param {Object} app what main.js hands over */
    constructor(app) {
        this.app = app;
        const give = (control, value, time) => app.give(control, value, time);
        followKeyboard(window, give, (code) => !isHotkey(code) && this.#isBound(`key.${code}`));
        followHotkeys(app);
        this.mouse = new Mouse(app.stage.root, give, {
            captures: () => this.binds("mouse") || this.standsIn,
            place: (x, y) => app.stage.fractions(x, y),
        });
        this.pads = new Pads(give, (id) => app.notices.say("pad", `${id} does not report the standard gamepad layout, so it is ignored`));
        this.headset = new HeadsetStandIn(give);
        this.session = new HeadsetSession(app);
        HeadsetSession.isThere().then((there) => app.bar.offerHeadset(there));
        this.motion = new Motion(window, give);
        const leave = () => {
            give("lost.focus", 1, performance.now());
            this.headset.forget();
            this.pads.leave();
        };
        const comeBack = () => this.pads.comeBack();
        window.addEventListener("blur", leave);
        document.addEventListener("visibilitychange", () => document.hidden && leave());
        // A click or a key can only be meant for the page.
        for (const kind of ["focus", "pointerdown", "keydown"]) window.addEventListener(kind, comeBack, true);
    }

    /** Asks those devices that say nothing by themselves. */
    poll(frameS, now) {
        this.pads.poll(now);
        this.app.rebinding.poll();
        if (this.standsIn) this.headset.poll(frameS, now);
    }

    /** Whether the stand-in for a headset has taken an event for itself. */
    takes(control, value) {
        return this.standsIn && this.headset.take(control, value);
    }

    /** Whether mouse and keys stand in for a headset: in a mode that is steered by hands or by the head. */
    get standsIn() {
        if (this.session?.runs) return false;
        const { bindings, frame } = this.app.helm.run.content;
        return frame === "hands" || bindings.tracks || this.binds("hands");
    }

    /** Where the hands are, of a headset or of what stands in for it. */
    get hands() {
        if (this.session.runs) return this.session.hands;
        return this.standsIn ? this.headset.hands : null;
    }

    /** Whether the mode has a source of a kind. */
    binds(kind) {
        return Object.values(this.app.helm.run.content.bindings.channels).some((sources) => sources.some((one) => one.kind === kind));
    }

    /** Whether a control does something here: all others are left to the browser. */
    #isBound(control) {
        const { controls, rebinding, helm } = this.app;
        const found = controls.byName.get(rebinding.control(control));
        return found !== undefined && (helm.state.watched.has(found.slot) || this.standsIn);
    }

    /** Enters a headset, or leaves it. */
    async enterHeadset() {
        if (this.session.runs) {
            this.session.end();
            return;
        }
        try {
            await this.session.begin();
        } catch (fault) {
            this.app.notices.fault("headset", [{ what: `no headset: ${fault.message}` }]);
        }
        this.app.bar.show();
    }
}
