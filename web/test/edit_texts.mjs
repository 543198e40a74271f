/** Writes changes into profiles' texts as the page does: tests load them with the library. */
import { readFileSync, writeFileSync } from "node:fs";
import { editedText } from "../src/models/profile_text.js";

const jobs = JSON.parse(readFileSync(process.argv[2], "utf8"));
writeFileSync(process.argv[3], JSON.stringify(jobs.map(({ text, edits, changes, values }) => editedText(text, edits, changes, (path) => values[path]))));
