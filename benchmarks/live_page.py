"""The live page: frames a second of its three views in software drawing, its tick, memory over play, its forms.

Usage: python benchmarks/live_page.py [--minutes 1]      (needs Node.js, Chromium and Playwright)
"""

import argparse
import json
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from wendonic.demo import FOLDER, demo_profile, profile_names
from wendonic.export.page.contents import PageProfile, profile_module

BROWSER = (
    "--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-sync "
    "--disable-component-update --use-gl=angle --use-angle=swiftshader --enable-unsafe-swiftshader"
).split()
TICK = """
import { pathToFileURL } from "node:url";
import { Controls } from "WEB/src/door/controls.js";
import { Helm } from "WEB/src/play/helm.js";
const found = {};
for (const file of FILES) {
    const { controls: table, profile } = await import(pathToFileURL(file));
    for (const mode of Object.keys(profile.modes)) {
        const helm = new Helm(profile, new Controls(table.table, table.releases), mode);
        helm.stays = true;
        const some = (tick) => {
            helm.apply("pad.left_stick", [Math.sin(tick / 20), Math.cos(tick / 31)]);
            helm.apply("mouse.move", [3, -1]);
            if (tick % 40 === 0) helm.apply("key.KeyW", (tick / 40) % 2);
            helm.tick(1 / 60);
        };
        for (let tick = 0; tick < 3000; tick++) some(tick);
        const began = performance.now();
        for (let tick = 0; tick < 20000; tick++) some(tick);
        found[`${profile.title}, ${mode}`] = (performance.now() - began) / 20;
    }
}
console.log(JSON.stringify(found));
"""
FRAMES = """(seconds) => new Promise((done) => {
    let frames = 0;
    const began = performance.now();
    const next = () => {
        frames++;
        const took = performance.now() - began;
        if (took < 1000 * seconds) requestAnimationFrame(next);
        else done(1000 * frames / took);
    };
    requestAnimationFrame(next);
})"""


def ticks():
    web = Path(__file__).parent.parent / "web"
    with tempfile.TemporaryDirectory() as folder:
        files = []
        for name in profile_names():
            files.append(str(Path(folder, f"{name}.mjs")))
            Path(files[-1]).write_text(profile_module(PageProfile(demo_profile(name), name)))
        script = Path(folder, "tick.mjs")
        script.write_text(TICK.replace("WEB", str(web)).replace("FILES", json.dumps(files)))
        found = json.loads(subprocess.run(["node", str(script)], capture_output=True, text=True, check=True).stdout)
    slowest = max(found, key=found.get)
    print(f"a tick with its events: {min(found.values()):.1f} to {found[slowest]:.1f} µs over {len(found)} modes")
    print(f"  slowest: {slowest} (below 100 µs wanted)")


def pages(minutes):
    from playwright.sync_api import sync_playwright

    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        for name in ("harvest.toml", "harvest_course.toml"):
            shutil.copy(FOLDER / name, folder)
        process = subprocess.Popen(
            [
                sys.executable,
                "-m",
                "wendonic",
                "live",
                "harvest.toml",
                "--course",
                "harvest_course.toml",
                "--no-open",
            ],
            stdout=subprocess.PIPE,
            text=True,
            cwd=folder,
        )
        address = next(found[0] for line in process.stdout if (found := re.search(r"http://\S+", line)))
        path = shutil.which("chromium") or "/usr/bin/chromium"
        browser = playwright.chromium.launch(executable_path=path, args=BROWSER)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.wait_for_selector(".field")
        page.wait_for_timeout(2500)
        page.keyboard.down("KeyD")
        page.keyboard.down("KeyS")
        for view, wanted in (("from above", 60), ("over the shoulder", 25), ("through the eyes", 25)):
            page.evaluate("view => wendonicPage.stage.show(view)", view)
            page.wait_for_timeout(6000)
            rate = page.evaluate(FRAMES, 6)
            scale = page.evaluate("wendonicPage.stage.solid?.scale ?? 1")
            print(f"{view}: {rate:.1f} frames a second at {100.0 * scale:.0f} % of the pixels ({wanted} wanted)")
        page.evaluate("wendonicPage.stage.show('from above')")
        took = page.evaluate(
            """async () => {
                const began = performance.now();
                wendonicPage.settings.set("mode.foot.move.bind[1].dead_zone.form", "axes");
                while (!wendonicPage.profile.fields.some((one) => one.path.endsWith("form") && one.value === "axes"))
                    await new Promise((next) => setTimeout(next, 2));
                return performance.now() - began;
            }"""
        )
        print(f"another dead zone: {took:.0f} ms until it counts (500 wanted)")
        took = page.evaluate(
            """async () => {
                await new Promise((next) => setTimeout(next, 3000));
                const began = performance.now();
                wendonicPage.settings.set("gait.walk.accel_m_s2", 11);
                while (!document.querySelector('[data-path="gait.walk.accel_m_s2"] .effect li'))
                    await new Promise((next) => setTimeout(next, 2));
                return performance.now() - began;
            }"""
        )
        print(f"a number's effect on the feel sheet: {took:.0f} ms until it is shown (1000 wanted)")
        wire = page.context.new_cdp_session(page)

        def heap():
            wire.send("HeapProfiler.collectGarbage")
            return wire.send("Runtime.getHeapUsage")["usedSize"] / 1e6

        page.wait_for_timeout(4000)
        before = heap()
        for _ in range(round(minutes * 60)):
            page.mouse.move(700, 300)
            page.wait_for_timeout(1000)
        print(f"memory in use: {before:.2f} MB, {heap():.2f} MB after {minutes:g} minutes of play")
        browser.close()
        process.terminate()


if __name__ == "__main__":
    parser = argparse.ArgumentParser()
    parser.add_argument("--minutes", type=float, default=1.0)
    given = parser.parse_args()
    ticks()
    pages(given.minutes)
