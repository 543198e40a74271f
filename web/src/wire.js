/** The connection to Python: requests with answers, and messages that Python sends by itself. */

const AGAIN_MS = 1500;

export class Wire {
    /** @param {string} address @param {(message: Object) => void} heard @param {(open: boolean) => void} changed */
    constructor(address, heard, changed) {
        this.address = address;
        this.heard = heard;
        this.changed = changed;
        this.number = 0;
        this.waiting = new Map();
        this.open = false;
        this.#connect();
    }

    #connect() {
        this.socket = new WebSocket(this.address);
        this.socket.onopen = () => {
            this.open = true;
            this.changed(true);
        };
        this.socket.onmessage = ({ data }) => {
            const message = JSON.parse(data);
            const waiting = this.waiting.get(message.id);
            this.waiting.delete(message.id);
            if (waiting) waiting(message);
            else this.heard(message);
        };
        this.socket.onclose = () => {
            const was = this.open;
            this.open = false;
            for (const waiting of this.waiting.values()) waiting({ kind: "lost" });
            this.waiting.clear();
            if (was) this.changed(false);
            setTimeout(() => this.#connect(), AGAIN_MS);
        };
    }

    /** Sends a request; the answer is a message, of kind "lost" if the server is gone. */
    ask(request) {
        if (!this.open) return Promise.resolve({ kind: "lost" });
        const id = ++this.number;
        this.socket.send(JSON.stringify({ ...request, id }));
        return new Promise((done) => this.waiting.set(id, done));
    }
}
