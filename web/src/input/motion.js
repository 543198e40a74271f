/** A phone's motion sensors as those of a pad: rad/s and m/s² about axes to the right, up and towards the player. */

const RAD = Math.PI / 180;

export class Motion {
    constructor(window, give) {
        this.give = give;
        window.addEventListener("devicemotion", (event) => this.#take(event));
        // Some phones ask their owner first, and only after a touch.
        const ask = () => {
            window.removeEventListener("pointerup", ask);
            window.DeviceMotionEvent?.requestPermission?.().catch(() => {});
        };
        window.addEventListener("pointerup", ask);
    }

    #take({ rotationRate, accelerationIncludingGravity, timeStamp }) {
        if (rotationRate && rotationRate.beta !== null)
            this.give("pad.gyro", this.#seen(rotationRate.beta * RAD, rotationRate.gamma * RAD, rotationRate.alpha * RAD), timeStamp);
        if (accelerationIncludingGravity && accelerationIncludingGravity.x !== null) {
            const { x, y, z } = accelerationIncludingGravity;
            this.give("pad.accel", this.#seen(x, y, z), timeStamp);
        }
    }

    /** A vector of the device, whose y is its upper edge, as the screen is held. */
    #seen(x, y, z) {
        const angle = (screen.orientation?.angle ?? 0) * RAD;
        const [sine, cosine] = [Math.round(Math.sin(angle)), Math.round(Math.cos(angle))];
        return [x * cosine - y * sine, x * sine + y * cosine, z];
    }
}
