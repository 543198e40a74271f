/** The mouse: captured on a click where a mode looks by it, else the pointer and its buttons; and fingers. */

const BUTTONS = ["mouse.left", "mouse.middle", "mouse.right", "mouse.back", "mouse.forward"];
const PIXELS_PER_NOTCH = 100;

export class Mouse {
    /** @param {HTMLElement} stage
     *  @param {(control: string, value: any, time: number) => void} give
     *  @param {{captures: () => boolean, place: (x: number, y: number) => [number, number]}} options whether a click
     *  captures, and which fractions of the window a point of the stage is */
    constructor(stage, give, options) {
        this.stage = stage;
        this.give = give;
        this.options = options;
        this.touches = new Map();
        stage.addEventListener("pointerdown", (event) => this.#down(event));
        stage.addEventListener("pointermove", (event) => this.#move(event));
        for (const kind of ["pointerup", "pointercancel"]) window.addEventListener(kind, (event) => this.#up(event));
        stage.addEventListener("contextmenu", (event) => event.preventDefault());
        stage.addEventListener("wheel", (event) => this.#wheel(event), { passive: false });
        document.addEventListener("pointerlockchange", () => {
            if (!this.captured) give("lost.mouse", 1, performance.now());
        });
    }

    get captured() {
        return document.pointerLockElement === this.stage;
    }

    async #capture() {
        try {
            // Raw counts where the browser can give them: acceleration belongs to the profile.
            await this.stage.requestPointerLock({ unadjustedMovement: true });
        } catch {
            try {
                await this.stage.requestPointerLock();
            } catch {
                // The browser may refuse right after Escape: the next click asks again.
            }
        }
    }

    #down(event) {
        this.stage.focus({ preventScroll: true });
        if (event.pointerType === "touch") {
            const finger = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9].find((one) => ![...this.touches.values()].includes(one));
            if (finger === undefined) return;
            this.touches.set(event.pointerId, finger);
            this.#touch(event, 1);
            return;
        }
        if (this.options.captures() && !this.captured) {
            this.#capture();
            return;
        }
        this.#point(event);
        if (BUTTONS[event.button]) this.give(BUTTONS[event.button], 1, event.timeStamp);
    }

    #up(event) {
        if (this.touches.has(event.pointerId)) {
            this.#touch(event, 0);
            this.touches.delete(event.pointerId);
        } else if (event.pointerType !== "touch" && BUTTONS[event.button]) {
            this.give(BUTTONS[event.button], 0, event.timeStamp);
        }
    }

    #move(event) {
        if (this.touches.has(event.pointerId)) this.#touch(event, 1);
        else if (this.captured) {
            if (event.movementX || event.movementY)
                this.give("mouse.move", [event.movementX, event.movementY], event.timeStamp);
        } else if (event.pointerType !== "touch") this.#point(event);
    }

    #point(event) {
        if (!this.captured) this.give("pointer.at", this.#fractions(event), event.timeStamp);
    }

    #touch(event, pressure) {
        const [x, y] = this.#fractions(event);
        this.give(`touch.${this.touches.get(event.pointerId)}`, [x, y, pressure], event.timeStamp);
    }

    #fractions(event) {
        const box = this.stage.getBoundingClientRect();
        const [x, y] = this.options.place(event.clientX - box.left, event.clientY - box.top);
        return [Math.min(Math.max(x, 0), 1), Math.min(Math.max(y, 0), 1)];
    }

    #wheel(event) {
        event.preventDefault();
        const notches = event.deltaMode === 0 ? event.deltaY / PIXELS_PER_NOTCH : event.deltaY / 3;
        this.give("mouse.wheel", notches, event.timeStamp);
    }
}
