// A walk by the exported beekeeper: forward, then to the right up to a fence, then no keys; on
// the way a puff of smoke.
//
//   wendonic export demo-out/beekeeper.toml --as javascript --out beekeeper_js
//   cp walk.js beekeeper_js && node beekeeper_js/walk.js
import { Foot, discardCounts, newInput, pressSmoke } from "./beekeeper.js";

const FENCE_X = 2;

const body = new Foot();
const input = newInput();
for (let tick = 1; tick <= 120; tick++) {
    // W is held for a second, D from half a second on; after a second and a half nothing is.
    input.keyW = tick <= 60 ? 1 : 0;
    input.keyD = tick > 30 && tick <= 90 ? 1 : 0;
    // The game says in each tick whether it is held, or only when that changes.
    pressSmoke(input, tick > 45 && tick <= 55 ? 1 : 0);
    const result = body.tick(input, 1 / 60);
    discardCounts(input);
    if (result.smokeBegan > 0)
        console.log(`${(tick / 60).toFixed(2)} s: smoke`);
    const x = Math.min(result.gamePositionX, FENCE_X);
    if (result.gamePositionX > FENCE_X) {
        // The game has a fence: it says where the body is, and that its speed to the right is gone.
        body.place(x, result.gamePositionY, result.gamePositionZ);
        body.setVelocity(0, result.gameVelocityY, result.gameVelocityZ);
    }
    if (tick % 15 === 0) {
        const at = [x, result.gamePositionY, result.gamePositionZ].map((place) => place.toFixed(3));
        const speed = Math.hypot(result.gameVelocityX, result.gameVelocityZ).toFixed(3);
        console.log(`${(tick / 60).toFixed(2)} s: at ${at.join(" ")}, ${speed} m/s, facing ${result.faceDeg.toFixed(1)} deg`);
    }
}
