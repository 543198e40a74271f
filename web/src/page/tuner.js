/** Applies changed numbers: to the helm at once, or by tick functions of another form, which Python makes. */

import { ALL } from "../models/settings.js";

export class Tuner {
    /** @param {Object} app what main.js passes */
    constructor(app) {
        this.app = app;
    }

    /** A number of one side was changed; the path is null if all of them were. */
    changed(side, path) {
        const { app } = this;
        if (side !== app.trial.side || !app.numbers) return;
        const values = app.settings.values();
        if (path === ALL) {
            // They may have another form than the present file.
            if (app.wire) this.#reform(path);
            else this.retune(values);
            app.numbers.refresh();
            app.feel.forget();
            app.feel.measure(null);
            return;
        }
        const field = path === null ? null : app.settings.profile.fields.find((one) => one.path === path);
        const known = path === null || (field && field.number >= 0);
        if (known && app.helm.keepsStructure(values)) this.retune(values);
        else if (path !== null) this.#reform(path);
        app.numbers.refresh();
        if (path !== null) app.feel.measure(path);
    }

    /** Takes numbers that fit together, and keeps the last valid ones of each side. */
    retune(values) {
        this.app.helm.retune(values);
        this.app.settings.good = values;
        this.app.readings.retuned();
    }

    /** Requests tick functions of another structure; if that is refused, the last valid numbers stay in use. */
    async #reform(path) {
        const { app } = this;
        const { settings } = app;
        if (!app.wire) {
            app.notices.fault("form", [{ what: `${path}: this value needs another form or does not fit the others; changing forms needs wendonic live` }]);
            settings.set(path, (settings.good ?? app.profile.values)[app.profile.paths.indexOf(path)]);
            return;
        }
        if (this.forming) {
            // A drag requests them faster than they are made: the last request counts.
            this.formAgain = path;
            return;
        }
        this.forming = true;
        const changes = settings.plain();
        const answer = await app.wire.ask({ do: "form", changes });
        if (answer.kind === "module") {
            const { profile } = await this.module(answer.number);
            app.notices.clear("form");
            settings.show(profile, changes);
            settings.good = settings.values();
            if (settings === app.settings) this.play(profile);
        } else if (answer.kind === "refused") {
            app.notices.fault("form", answer.faults, "these values do not fit together; the last good ones stay in use");
        }
        this.forming = false;
        const again = this.formAgain;
        this.formAgain = null;
        if (again) this.#reform(again);
    }

    /** A profile as the server wrote it, with its tick functions. */
    module(number) {
        return import(new URL(`profile.js?n=${number}`, location.href).href);
    }

    /** Continues with a profile of another structure. */
    play(profile) {
        const { app } = this;
        const { settings } = app;
        app.profile = profile;
        app.helm.reform(profile);
        if (app.helm.keepsStructure(settings.values())) this.retune(settings.values());
        app.seen = null;
        app.readings.retuned();
        app.built();
    }
}
