/** The page: puts together play, stage, numbers and strips. */

import { Controls } from "./door/controls.js";
import { App } from "./app.js";

const script = document.getElementById("page");
const start = JSON.parse(script.dataset.start);
const given = globalThis.wendonicGiven ?? (await import(new URL(`profile.js?n=${start.first}`, location.href).href));
const controls = new Controls(given.controls.table, given.controls.releases);
const profiles = given.profiles ?? [given.profile];
globalThis.wendonicPage = new App(profiles, controls, { mode: start.mode ?? null, live: !globalThis.wendonicGiven });
