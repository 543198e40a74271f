/** Plays recordings as the page does, and writes rows and traces: tests hold them against the library's. */

import { readFileSync, writeFileSync } from "node:fs";
import { pathToFileURL } from "node:url";
import { Controls } from "../src/door/controls.js";
import { Helm } from "../src/play/helm.js";
import { firstMode, traceOf } from "../src/play/trace.js";

const results = [];
for (const { module, events, hz, mode, wantsRows, changes = {} } of JSON.parse(readFileSync(process.argv[2], "utf8"))) {
    const { controls, profile } = await import(pathToFileURL(module));
    const helm = new Helm(profile, new Controls(controls.table, controls.releases), mode ?? firstMode(events));
    const values = profile.values.map((value, index) => changes[profile.paths[index]] ?? value);
    if (!helm.keepsStructure(values)) throw new Error(`${profile.name}: these numbers need another form`);
    helm.retune(values);
    const rows = [];
    if (wantsRows) {
        const { tick } = helm.run;
        helm.run.tick = (record, row, dt) => {
            rows.push(row.slice());
            return tick(record, row, dt);
        };
    }
    results.push({ rows, ...traceOf(helm, events, hz, Boolean(mode)) });
}
writeFileSync(process.argv[3], JSON.stringify(results));
