/**
 * A headset by WebXR, where a browser has it: poses and controllers are given as they come, and both eyes are drawn.
 * Where a hand is, is its grip; where it points, its target ray.
 */

const BUTTONS = { 0: "trigger", 1: "squeeze", 3: "stick_press", 4: "lower", 5: "upper" };

export class HeadsetSession {
    /** @param {Object} app what main.js hands over */
    constructor(app) {
        this.app = app;
        this.session = null;
        this.head = [0, 1.6, 0];
        this.places = {};
        this.known = new Map();
    }

    static async isThere() {
        return (await navigator.xr?.isSessionSupported("immersive-vr").catch(() => false)) ?? false;
    }

    get runs() {
        return this.session !== null;
    }

    async begin() {
        const { app } = this;
        const session = await navigator.xr.requestSession("immersive-vr", { requiredFeatures: ["local-floor"] });
        const gl = app.stage.inSpace().gl;
        await gl.makeXRCompatible();
        this.layer = new XRWebGLLayer(session, gl);
        session.updateRenderState({ baseLayer: this.layer });
        this.space = await session.requestReferenceSpace("local-floor");
        this.session = session;
        session.addEventListener("end", () => this.#ended());
        session.requestAnimationFrame((now, frame) => this.#frame(now, frame));
    }

    end() {
        this.session?.end();
    }

    #ended() {
        this.session = null;
        this.known.clear();
        this.app.give("lost.focus", 1, performance.now());
        this.app.goOn();
    }

    /** Where the hands are, seen from under the head: right, up and back each (m). */
    get hands() {
        const [x, , z] = this.head;
        return Object.fromEntries(Object.entries(this.places).map(([side, at]) => [side, [at[0] - x, at[1], at[2] - z]]));
    }

    #frame(now, frame) {
        if (!this.session) return;
        this.session.requestAnimationFrame((next, again) => this.#frame(next, again));
        const pose = frame.getViewerPose(this.space);
        if (pose) {
            const { position, orientation } = pose.transform;
            this.head = [position.x, position.y, position.z];
            this.#give("head.pose", [...this.head, orientation.x, orientation.y, orientation.z, orientation.w], now);
        }
        for (const source of this.session.inputSources) this.#controller(source, frame, now);
        this.app.frame(now, (scene, colours) => {
            if (pose) this.app.stage.inSpace().drawEyes(scene, colours, this.layer, pose.views, this.head);
        });
    }

    #controller(source, frame, now) {
        const side = source.handedness;
        if (side !== "left" && side !== "right") return;
        const grip = source.gripSpace && frame.getPose(source.gripSpace, this.space);
        const ray = frame.getPose(source.targetRaySpace, this.space);
        if (!grip || !ray) {
            if (this.places[side]) this.app.give(`lost.hand.${side}`, 1, now);
            delete this.places[side];
            return;
        }
        const { position } = grip.transform;
        const { x, y, z, w } = ray.transform.orientation;
        this.places[side] = [position.x, position.y, position.z];
        this.#give(`hand.${side}.pose`, [...this.places[side], x, y, z, w], now);
        const pad = source.gamepad;
        if (!pad || pad.mapping !== "xr-standard") return;
        for (const [number, name] of Object.entries(BUTTONS))
            if (pad.buttons[number]) this.#give(`hand.${side}.${name}`, pad.buttons[number].value, now);
        if (pad.axes.length >= 4) this.#give(`hand.${side}.stick`, [pad.axes[2], pad.axes[3]], now);
    }

    /** What has not changed is not given again. */
    #give(control, value, now) {
        const key = String(value);
        if (this.known.get(control) === key) return;
        this.known.set(control, key);
        this.app.give(control, value, now);
    }
}
