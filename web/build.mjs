/** Bundles the page into the Python package. Usage: node build.mjs [folder] */
import { build } from "esbuild";
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const here = dirname(fileURLToPath(import.meta.url));
const folder = process.argv[2] ?? join(here, "../src/wendonic/export/page/built");
mkdirSync(folder, { recursive: true });
await build({
    entryPoints: [join(here, "src/main.js")],
    outfile: join(folder, "page.js"),
    bundle: true,
    format: "esm",
    minify: true,
    target: "es2022",
    legalComments: "none",
    charset: "utf8",
});
await build({
    entryPoints: [join(here, "src/page.css")],
    outfile: join(folder, "page.css"),
    bundle: true,
    minify: true,
    legalComments: "none",
    charset: "utf8",
});
copyFileSync(join(here, "src/page.html"), join(folder, "page.html"));
const UNLICENSE = readFileSync(join(here, "licences/ogl.txt"), "utf8").trim();
const licence = (name) => readFileSync(join(here, "node_modules", name, "LICENSE"), "utf8").trim();
writeFileSync(join(folder, "LICENCES.txt"), `OGL\n\n${UNLICENSE}\n\n\nuPlot\n\n${licence("uplot")}\n`);
