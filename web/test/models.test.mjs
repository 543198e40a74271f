/** The page's models, without a browser: settings, undo, A and B, votes, the clock, recordings, readings. */

import assert from "node:assert/strict";
import { test } from "node:test";
import { Readings } from "../src/models/readings.js";
import { zonesOf } from "../src/stage/zones.js";
import { Recent } from "../src/models/recent.js";
import { Recorder } from "../src/models/recorder.js";
import { Ring } from "../src/models/ring.js";
import { Settings } from "../src/models/settings.js";
import { reboundText, tomlNumber } from "../src/models/profile_text.js";
import { Trial } from "../src/models/trial.js";
import { rangeOf } from "../src/models/slider_range.js";
import { Clock } from "../src/play/clock.js";
import { Replay } from "../src/play/replay.js";

const profile = (values, extra = []) => ({
    fields: [...Object.entries(values).map(([path, value]) => ({ path, value })), ...extra],
    paths: Object.keys(values),
    values: Object.values(values),
});

test("a slider that is dragged is one change, and undo and redo go through all of them", () => {
    const settings = new Settings(profile({ a: 1, b: 2 }));
    const heard = [];
    settings.listen((path) => heard.push(path));
    for (const [value, at] of [[3, 0], [4, 100], [5, 200]]) settings.set("a", value, at);
    settings.set("b", 9, 300);
    settings.set("a", 6, 5000);
    assert.deepEqual(settings.values(), [6, 9]);
    assert.deepEqual(heard, ["a", "a", "a", "b", "a"]);
    settings.undo();
    assert.deepEqual(settings.values(), [5, 9]);
    settings.undo();
    settings.undo();
    assert.deepEqual(settings.plain(), {});
    settings.undo();
    settings.redo();
    settings.redo();
    assert.deepEqual(settings.plain(), { a: 5, b: 9 });
    settings.set("b", 2, 9000);
    assert.deepEqual(settings.plain(), { a: 5 });
    settings.redo();
    assert.deepEqual(settings.plain(), { a: 5 });
    settings.reset("a");
    assert.equal(settings.isChanged("a"), false);
});

test("a drag is one change however long it takes, and going back to the file's value is one of its own", () => {
    const settings = new Settings(profile({ a: 1, b: 2 }));
    settings.beginDrag();
    for (const [value, at] of [[3, 0], [4, 5000], [5, 60000]]) settings.set("a", value, at);
    settings.endDrag();
    settings.beginDrag();
    settings.set("a", 6, 60100);
    settings.endDrag();
    settings.reset("a");
    assert.deepEqual(settings.plain(), {});
    const seen = [];
    for (let step = 0; step < 3; step++) {
        settings.undo();
        seen.push(settings.plain().a);
    }
    assert.deepEqual(seen, [6, 5, undefined]);
});

test("a file that is saved elsewhere keeps what is changed here, but for what it says by itself", () => {
    const settings = new Settings(profile({ a: 1, b: 2 }));
    settings.set("a", 5);
    settings.set("b", 7);
    settings.take(profile({ a: 5, b: 3 }));
    assert.deepEqual(settings.plain(), { b: 7 });
    assert.equal(settings.fileValue("b"), 3);
    // Another form has other fields: what was changed of the old one comes back with it.
    settings.show(profile({ a: 5, c: 1 }));
    assert.deepEqual(settings.values(), [5, 1]);
    settings.show(profile({ a: 5, b: 3 }));
    assert.deepEqual(settings.values(), [5, 7]);
});

test("undo goes back to what the file had before it was saved, and the other side stays what it is", () => {
    const [felt, other] = [new Settings(profile({ a: 1, b: 2 })), new Settings(profile({ a: 1, b: 2 }))];
    felt.set("a", 5);
    other.set("b", 8);
    const forget = other.keep(felt.changes.keys());
    forget();
    assert.deepEqual(other.plain(), { b: 8 }, "nothing was saved");
    other.keep(felt.changes.keys());
    for (const settings of [felt, other]) settings.take(profile({ a: 5, b: 2 }));
    assert.deepEqual([felt.plain(), other.plain()], [{}, { a: 1, b: 8 }]);
    felt.undo();
    assert.deepEqual([felt.value("a"), felt.plain()], [1, { a: 1 }]);
    felt.redo();
    assert.deepEqual([felt.value("a"), felt.plain()], [5, {}]);
});

test("a copy is one change, and sides are alike in whatever order they were changed", () => {
    const [one, two] = [new Settings(profile({ a: 1, b: 2, c: 3 })), new Settings(profile({ a: 1, b: 2, c: 3 }))];
    one.set("a", 5);
    one.set("b", 6);
    two.set("b", 6);
    two.set("c", 7);
    assert.equal(one.isLike(two), false);
    two.copy(one);
    assert.equal(one.isLike(two), true);
    two.copy(one);
    two.undo();
    assert.deepEqual(two.plain(), { b: 6, c: 7 });
    two.redo();
    assert.deepEqual(two.plain(), { a: 5, b: 6 });
    two.undo();
    two.undo();
    assert.deepEqual(two.plain(), { b: 6 });
    two.reset("b");
    two.set("b", 6);
    two.set("a", 5);
    assert.equal(two.isLike(one), true);
});

test("what was saved is the file's at once, also before the file has been read again", () => {
    const settings = new Settings({ ...profile({ foot: 1, inspect: 1, c: 3 }), inherits: { inspect: "foot" } });
    settings.set("foot", 4);
    settings.set("inspect", 2);
    settings.show({ ...profile({ foot: 4, inspect: 2, c: 3, d: 7 }), inherits: {} }, settings.plain());
    settings.set("d", 8);
    settings.set("c", 5);
    settings.saved(settings.plain());
    const shown = () => [settings.values(), settings.plain(), ["foot", "inspect", "c", "d"].map((path) => settings.fileValue(path))];
    const saved = [[4, 2, 5, 8], {}, [4, 2, 5, 8]];
    assert.deepEqual(shown(), saved);
    for (const [path, value] of [["d", 9], ["c", 6], ["inspect", 3]]) {
        settings.set(path, value, null);
        settings.reset(path);
    }
    assert.deepEqual(shown(), saved);
    settings.undo();
    assert.deepEqual(settings.plain(), { inspect: 3 });
    settings.reset("inspect");
    settings.take({ ...profile({ foot: 4, inspect: 2, c: 5, d: 8 }), inherits: {} });
    assert.deepEqual(shown(), saved);
});

test("what was applied to the profile that is shown can be taken back", () => {
    const settings = new Settings(profile({ a: 1, b: 2, c: 3 }));
    settings.set("a", 5, 0);
    settings.set("form", "other", 1000);
    settings.show(profile({ a: 5, b: 2, d: 7 }), settings.plain());
    settings.set("d", 8, 2000);
    settings.show(profile({ a: 5, b: 2, d: 8 }), settings.plain());
    assert.deepEqual(settings.values(), [5, 2, 8]);
    settings.reset("a");
    assert.deepEqual([settings.values(), settings.value("a"), settings.isChanged("a")], [[1, 2, 8], 1, false]);
    // A field that the file does not have goes back to what its form began with.
    settings.reset("d");
    assert.deepEqual([settings.values(), settings.fileValue("d")], [[1, 2, 7], 7]);
    settings.undo();
    settings.undo();
    assert.deepEqual(settings.values(), [5, 2, 8]);
    const copy = new Settings(profile({ a: 1, b: 2, c: 3 }));
    copy.copy(settings);
    copy.reset("a");
    assert.deepEqual(copy.values(), [1, 2, 8]);
});

test("what a mode has from another one follows it again, once what was applied is taken back", () => {
    const settings = new Settings({ ...profile({ foot: 1, inspect: 1, near: 1 }), inherits: { inspect: "foot", near: "inspect" } });
    settings.set("inspect", 2, 0);
    settings.set("foot", 4, 1000);
    settings.show({ ...profile({ foot: 4, inspect: 2, near: 2 }), inherits: { near: "inspect" } }, settings.plain());
    settings.reset("inspect");
    assert.deepEqual(settings.values(), [4, 4, 4]);
    settings.reset("foot");
    assert.deepEqual(settings.values(), [1, 1, 1]);
});

test("what a mode has from another one follows it until it is its own", () => {
    const settings = new Settings({ ...profile({ foot: 1, inspect: 1, near: 1 }), inherits: { inspect: "foot", near: "inspect" } });
    settings.set("foot", 4);
    assert.deepEqual(settings.values(), [4, 4, 4]);
    settings.set("inspect", 2);
    assert.deepEqual(settings.values(), [4, 2, 2]);
    settings.reset("inspect");
    assert.equal(settings.value("near"), 4);
});

test("a blind trial shows either side first, counts what is felt, and ends when it is settled", () => {
    const draws = [0.9, 0.1, 0.4, 0.7];
    const trial = new Trial(() => draws.shift() ?? 0.1);
    trial.vote();
    assert.equal(trial.votes.length, 0, "no votes before it begins");
    trial.begin();
    assert.equal(trial.side, "b");
    trial.swap();
    trial.vote(1.5);
    assert.deepEqual(trial.votes, [{ side: "a", t: 1.5 }]);
    while (trial.blind) {
        if (trial.side !== "a") trial.swap();
        trial.vote();
    }
    assert.deepEqual(trial.counts, { a: 8, b: 0 });
    assert.equal(trial.verdict, "a");
});

test("a clock gives as much time as frames had, in ticks of its rate, and drops what nobody could catch up with", () => {
    for (const [rate, step] of [["30", 1 / 30], ["60", 1 / 60], ["144", 1 / 144]]) {
        const clock = new Clock(rate);
        let count = 0;
        for (let frame = 0; frame < 600; frame++) count += clock.ticks(1 / 59.94).length;
        assert.ok(Math.abs(count * step - 600 / 59.94) <= step);
    }
    assert.deepEqual(new Clock("display").ticks(0.013), [0.013]);
    assert.deepEqual(new Clock("display").ticks(0), []);
    assert.equal(new Clock("60").ticks(3600).length, 15);
    const uneven = new Clock("uneven");
    const steps = Array.from({ length: 100 }, () => uneven.ticks(1 / 60)).flat();
    assert.ok(new Set(steps).size >= 4);
    assert.ok(Math.abs(steps.reduce((sum, step) => sum + step, 0) - 100 / 60) < 0.06);
});

test("the ring keeps its last rows and gives those since a time, oldest first", () => {
    const ring = new Ring(["t", "x"], 5);
    for (let t = 0; t < 12; t++) ring.push({ t, x: 10 * t });
    assert.deepEqual(ring.since("t", 9, ["t", "x"]), [[9, 10, 11], [90, 100, 110]]);
    assert.deepEqual(ring.since("t", -1, ["t"]), [[7, 8, 9, 10, 11]]);
    ring.clear();
    assert.deepEqual(ring.since("t", -1, ["t"]), [[]]);
});

test("a recording begins with the body and all that is held as it is, and its events follow the tick before them", () => {
    const kinds = [["window", "window", 0, 1], ["key.KeyA", "key", 1, 1], ["touch.0", "touch", 2, 3], ["touch.1", "touch", 5, 3], ["goal", "place", 8, 2]];
    const bySlot = new Map(kinds.map(([name, kind, slot, width]) => [slot, { name, kind, slot, width, rest: 0 }]));
    const state = {
        controls: { bySlot, touchSlots: [2, 5] }, placed: new Set([8]),
        values: [2.5, 1, 0.2, 0.6, 1, 0.9, 0.9, 0, 3, 4], landings: [[0.2, 0.8], [0.5, 0.5]],
    };
    const helm = {
        t: 2.5, mode: "foot", record: [], state,
        run: { body: { read: () => [Math.PI / 2, 1, 2, 0, 0.5, 0, 0] }, view: { read: () => [0, 0] }, toggled: () => [[1, "key.ShiftLeft"], [3, null]] },
    };
    const recorder = new Recorder("walk");
    // The goal that was given last was reached; it is on the way to another one. What a chord switches is told.
    assert.deepEqual(recorder.begin(helm, [5, 6]), [3]);
    recorder.take(helm, "key.KeyW", 1);
    helm.t = 2.75;
    recorder.take(helm, "mouse.move", [3, -1]);
    const [head, ...events] = recorder.lines().map((line) => JSON.parse(line));
    assert.deepEqual(head, { format: "wendonic-recording", version: 1, title: "walk", devices: ["keys", "touch", "mouse"] });
    assert.deepEqual(events[1], { t: 0, c: "body.place", v: [1, 2, 0] });
    assert.deepEqual(events[3], { t: 0, c: "body.facing", v: 90 });
    // A finger that has slid lands first, which is no motion; one that is up is not there.
    assert.deepEqual(events[4], { t: 0, c: "goal", v: [5, 6] });
    assert.deepEqual(events.slice(5, 7), [1, 0].map((v) => ({ t: 0, c: "key.ShiftLeft", v })), "a tap switches it on");
    const held = [["window", 2.5], ["key.KeyA", 1], ["touch.0", [0.2, 0.8, 1]], ["touch.0", [0.2, 0.6, 1]], ["discard", 1]];
    assert.deepEqual(events.slice(7, 12).map(({ c, v }) => [c, v]), held);
    assert.deepEqual(events.slice(-2).map(({ t }) => t), [0, 0.250001]);
});

test("a replay hands over each event once a round, and knows where it begins", () => {
    const replay = new Replay([{ t: 5, c: "mode", v: "cart" }, { t: 5, c: "key.KeyW", v: 1 }, { t: 5.5, c: "mark", v: "" }, { t: 6, c: "key.KeyW", v: 0 }], "x");
    assert.equal(replay.mode, "cart");
    for (let round = 0; round < 2; round++) {
        const seen = [];
        let ticks = 0;
        while (!replay.feed(0.1, (control, value) => seen.push([control, value]))) ticks++;
        assert.deepEqual(seen, [["key.KeyW", 1], ["key.KeyW", 0]]);
        assert.ok(ticks === 9 || ticks === 10);
        replay.restart();
    }
});

test("readings are those of a walk worked out by hand, at every tick rate, with a stick that rests off centre", () => {
    for (const hz of [16, 30, 60, 144]) {
        const readings = new Readings();
        const dt = 1 / hz;
        let [t, y, speed] = [0, 0, 0];
        // Straight to a speed at a rate, exactly: what is left of a tick goes on at that speed.
        const walk = (seconds, raw, rate, wanted) => {
            for (let tick = 0; tick < Math.round(seconds / dt); tick++) {
                t += dt;
                const changes = rate > 0 ? Math.min(Math.abs(wanted - speed) / rate, dt) : 0;
                const after = speed + Math.sign(wanted - speed) * rate * changes;
                y += ((speed + after) / 2) * changes + after * (dt - changes);
                speed = after;
                readings.take({ t, dt, rawX: raw[0], rawY: raw[1], x: 7, y, speed });
            }
        };
        walk(0.1, [0.03, 0.02], 0, 0);
        walk(1, [0, 1], 10, 3);
        // 90 % of 3 m/s at 10 m/s² takes 0.27 s, and the first step is in the first tick.
        assert.ok(Math.abs(readings.reach90S - 0.27) < 1e-9);
        assert.ok(Math.abs(readings.pressToMoveS - dt) < 1e-9);
        walk(1, [0.03, 0.02], 15, 0);
        assert.ok(Math.abs(readings.stopM - 9 / 30) < 1e-9);
        assert.equal(readings.diagonalRatio, null);
        walk(1, [1, 1], 10, 4.2);
        assert.ok(Math.abs(readings.diagonalRatio - 1.4) < 1e-9);
    }
    // However slowly it gets there and however short a tick is, what still speeds up is not at its top.
    const speeds = [
        [(t) => Math.min(0.6 * t, 3), 4.5],
        [(t) => 6 * (1 - Math.exp(-0.5 * t)), Math.log(10) / 0.5],
        [(t) => 4 + 2 * Math.sin(t), null],
    ];
    for (const hz of [30, 240]) {
        for (const [speed, expected] of speeds) {
            const readings = new Readings();
            readings.take({ t: 0, dt: 1 / hz, rawX: 0, rawY: 0, x: 0, y: 0, speed: 0 });
            for (let tick = 1; tick < 20 * hz; tick++) {
                readings.take({ t: tick / hz, dt: 1 / hz, rawX: 0, rawY: 1, x: 0, y: 0, speed: speed(tick / hz) });
            }
            if (expected === null) assert.equal(readings.reach90S, null);
            else assert.ok(Math.abs(readings.reach90S / expected - 1) < 0.03, `${hz} Hz: ${readings.reach90S}`);
        }
    }
    // Diagonals are compared with a straight line at its top, of the same gait and the same numbers.
    const steady = new Readings();
    let clock = 0;
    const go = (seconds, rawX, rawY, speed, held = 0) => {
        for (let tick = 0; tick < Math.round(seconds * 60); tick++)
            steady.take({ t: (clock += 1 / 60), dt: 1 / 60, rawX, rawY, x: 0, y: 0, speed: speed(tick / 60), held });
        return steady.diagonalRatio;
    };
    const top = (metres) => (at) => Math.min(0.3 + 20 * at, metres);
    go(1 / 60, 0, 1, top(3));
    assert.equal(go(1, 1, 1, top(4.2)), null);
    go(1, 0, 1, top(3));
    assert.ok(Math.abs(steady.diagonalRatio - 1.4) < 1e-9);
    // Slowed down by a wall; faster with a press held; with other numbers.
    assert.ok(Math.abs(go(1, 1, 1, top(2)) - 1.4) < 1e-9);
    assert.equal(go(1, 1, 1, top(6), 2), null);
    assert.equal(go(1, 0, 1, top(6), 2), 1);
    steady.retuned();
    assert.equal(go(1, 0, 1, top(9), 2), null);
    const readings = new Readings();
    const dt = 0.01;
    const t = 0;
    // Up by v t - g t² / 2 from a ledge of 1 m, and down to the floor; then off an edge without a jump.
    const hop = (from, rise) => {
        for (let airS = 0, height = from; height >= 0; airS += dt, height = from + rise * airS - 10 * airS * airS) {
            readings.take({ t, dt, rawX: 0, rawY: 0, x: 0, y: 0, speed: 0, height, grounded: airS === 0 });
        }
        readings.take({ t, dt, rawX: 0, rawY: 0, x: 0, y: 0, speed: 0, height: 0, grounded: true });
    };
    hop(1, 6);
    assert.ok(Math.abs(readings.jump.heightM - 36 / 40) < 1e-3);
    assert.ok(Math.abs(readings.jump.airtimeS - (0.3 + Math.sqrt(1.9 / 10))) < 5e-4);
    const jump = readings.jump;
    hop(0.5, 0.2);
    assert.equal(readings.jump, jump);
});

test("of recent values the middle one counts, and a slow one is soon forgotten", () => {
    const recent = new Recent();
    assert.deepEqual([165, 8, 9, 7, 8].map((value) => recent.take(value)), [165, 165, 9, 9, 8]);
    for (let round = 0; round < 20; round++) recent.take(20);
    assert.equal(recent.take(1), 20);
    assert.equal(recent.values.length, 9);
});

test("touch zones are those of channels and presses, each once, without what is all of the window", () => {
    const [left, right, corner] = [[0, 0, 0.5, 1], [0.5, 0, 1, 1], [0.8, 0.8, 1, 1]];
    const channels = {
        move: [{ kind: "keys" }, { kind: "thumb", zone: left }, { kind: "zones", lists: [[right], [], [], [corner]] }],
        look: [{ kind: "drag", zone: [0, 0, 1, 1] }],
    };
    const presses = [[{ kind: "zone", zone: corner }], [{ kind: "zone", zone: corner }, { kind: "switch" }]];
    assert.deepEqual(zonesOf({ channels, presses }, ["jump", "smoke"]), [["move", left], ["right", right], ["back, jump, smoke", corner]]);
});

test("a pad and a key are bound anew wherever a text has them, and numbers are TOML's", () => {
    const text = `forward = ["KeyW", 'ArrowUp'] # "KeyW"\nbind = ['key.KeyW', "pad.south", "pad0.west"]\ntitle = "KeyW"\nwords = """\n"KeyW"\n"""\n`;
    const swapped = { "key.KeyW": "key.KeyZ", "key.ArrowUp": "key.KeyW", "pad.south": "pad.north", "pad.west": "pad.east", "pad.dpad_up": "pad.north" };
    const found = reboundText(text, swapped);
    assert.equal(found.text, `forward = ["KeyZ", 'KeyW'] # "KeyW"\nbind = ['key.KeyZ', "pad.north", "pad.east"]\ntitle = "KeyW"\nwords = """\n"KeyW"\n"""\n`);
    assert.deepEqual(found.left, ["pad.dpad_up"]);
    assert.deepEqual([3, 0.25, 1e-7, 1e21, -2, 1.5e-9].map((one) => tomlNumber(one)), ["3.0", "0.25", "1.0e-7", "1.0e+21", "-2.0", "1.5e-9"]);
    assert.equal(tomlNumber(4, true), "4");
});

test("a slider reaches what is worth trying, within what is allowed", () => {
    const field = { unit: "m/s", low: 0, high: 1000, default: 3.2, whole: false };
    const [low, high, step] = rangeOf(field, 3.2);
    assert.deepEqual([low, step], [0, 0.01]);
    assert.ok(high > 6 && high < 20);
    assert.deepEqual(rangeOf({ unit: "tilt", low: 0, high: 1, default: 0.14, whole: false }, 0.14).slice(0, 2), [0, 1]);
    assert.equal(rangeOf({ unit: "s", low: 0, high: 10, default: 0, whole: false }, 0)[1], 0.5);
    assert.ok(rangeOf({ unit: "deg", low: null, high: null, default: null, whole: false }, -75)[0] <= -75);
    assert.equal(rangeOf({ unit: "facings", low: null, high: null, default: null, whole: true }, 8)[2], 1);
});
