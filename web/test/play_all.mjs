/** Plays recordings as the page does, and writes rows and traces: tests hold them against the library's. */
import { readFileSync, writeFileSync } from "node:fs";
import { pathToFileURL } from "node:url";
import { Controls } from "../src/door/controls.js";
import { Helm } from "../src/play/helm.js";
import { firstMode, play, rowOf } from "../src/play/trace.js";

const jobs = JSON.parse(readFileSync(process.argv[2], "utf8"));

const results = [];
for (const { module, events, hz, mode, wantsRows } of jobs) {
    const { controls: table, profile } = await import(pathToFileURL(module));
    const helm = new Helm(profile, new Controls(table.table, table.releases), mode ?? firstMode(events));
    const rows = [];
    if (wantsRows) {
        const { tick } = helm.run;
        helm.run.tick = (record, row, dt) => {
            rows.push(row.slice());
            return tick(record, row, dt);
        };
    }
    const trace = {};
    let count = 0;
    play(
        helm,
        events,
        hz,
        () => {
            const row = { ...rowOf(helm.ticked.content.columns, helm.tickedRecord), mode: helm.ticked.name, device: helm.deviceName };
            for (const [name, value] of Object.entries(row)) {
                trace[name] ??= new Array(count).fill(null);
                while (trace[name].length < count) trace[name].push(null);
                trace[name].push(typeof value === "number" && Number.isNaN(value) ? null : value);
            }
            count++;
        },
        Boolean(mode),
    );
    for (const column of Object.values(trace)) while (column.length < count) column.push(null);
    results.push({ rows, trace, count });
}
writeFileSync(process.argv[3], JSON.stringify(results));
