/** Over the shoulder and through the eyes: the same scene in WebGL, at a resolution that keeps up. */

import { Box, Camera, Cylinder, Geometry, Mat4, Mesh, Plane, Program, Renderer, Sphere, Transform } from "ogl";

const FAR_M = 90;
const EYES_M = 1.6;
const BEHIND_M = 3.4;
/** Frames longer than this (ms) are drawn with fewer pixels. */
const SLOW_MS = 34;
const FAST_MS = 20;
const LEAST_SCALE = 0.3;

const VERTEX = `
attribute vec3 position; attribute vec3 normal;
uniform mat4 modelMatrix, viewMatrix, projectionMatrix; uniform mat3 normalMatrix;
varying vec3 vPlace; varying vec3 vNormal; varying float vAway;
void main() {
  vec4 place = modelMatrix * vec4(position, 1.0);
  vec4 seen = viewMatrix * place;
  vPlace = place.xyz;
  vNormal = normalize((modelMatrix * vec4(normal, 0.0)).xyz);
  vAway = -seen.z;
  gl_Position = projectionMatrix * seen;
}`;

const FRAGMENT = `
precision highp float;
uniform vec3 colour, sky, line; uniform float grid;
varying vec3 vPlace; varying vec3 vNormal; varying float vAway;
float ruled(vec2 place, float step, float width) {
  vec2 near = abs(fract(place / step + 0.5) - 0.5) * step;
  return 1.0 - smoothstep(width * 0.5, width, min(near.x, near.y));
}
void main() {
  float light = 0.72 + 0.28 * dot(normalize(vNormal), normalize(vec3(0.35, 0.85, 0.4)));
  vec3 found = colour * light;
  if (grid > 0.0 && vNormal.y > 0.3) {
    float width = 0.02 + 0.0025 * vAway;
    float strength = max(0.5 * ruled(vPlace.xz, 1.0, width), ruled(vPlace.xz, 5.0, width * 1.6));
    found = mix(found, line, strength * 0.55 / (1.0 + 0.03 * vAway));
  }
  gl_FragColor = vec4(mix(found, sky, smoothstep(${(FAR_M * 0.35).toFixed(1)}, ${(FAR_M * 0.95).toFixed(1)}, vAway)), 1.0);
}`;

export class Solid {
    constructor(canvas) {
        this.canvas = canvas;
        this.renderer = new Renderer({ canvas, dpr: 1, alpha: false, antialias: false, powerPreference: "high-performance" });
        this.gl = this.renderer.gl;
        this.camera = new Camera(this.gl, { fov: 62, near: 0.05, far: FAR_M });
        this.scale = 1;
        this.course = null;
        this.colours = "";
        this.scene = new Transform();
    }

    #program(colour, grid = 0) {
        return new Program(this.gl, {
            vertex: VERTEX,
            fragment: FRAGMENT,
            cullFace: false,
            uniforms: {
                colour: { value: colour }, sky: { value: this.sky }, line: { value: this.line }, grid: { value: grid },
            },
        });
    }

    /** Rebuilds the scene, for another course or other colours. */
    #build(ground, colours) {
        const key = JSON.stringify([colours.paper, ground.pieces, ground.walls, ground.blocked]);
        if (key === this.key) return;
        this.key = key;
        const { gl } = this;
        this.scene = new Transform();
        this.sky = rgb(colours.paper);
        this.line = rgb(colours.edge);
        const mesh = (geometry, program, parent = this.scene) => {
            const made = new Mesh(gl, { geometry, program });
            made.setParent(parent);
            return made;
        };
        this.floor = mesh(new Plane(gl, { width: 2 * FAR_M, height: 2 * FAR_M }), this.#program(rgb(colours.wash), 1));
        this.floor.rotation.x = -Math.PI / 2;
        const moss = this.#program(mixed(rgb(colours.moss), rgb(colours.paper), 0.55), 1);
        for (const piece of ground.pieces) mesh(pieceGeometry(gl, piece), moss);
        const stone = this.#program(rgb(colours.fog));
        for (const [left, back, right, forward, height] of ground.walls) {
            const wall = mesh(new Box(gl, { width: right - left, height, depth: forward - back }), stone);
            wall.position.set((left + right) / 2, height / 2, -(back + forward) / 2);
        }
        const crate = this.#program(mixed(rgb(colours.honey), rgb(colours.ink), 0.8));
        this.blocked = ground.blocked.map(([x, y]) => {
            const made = mesh(new Box(gl, { width: 0.9, height: 0.9, depth: 0.9 }), crate);
            made.square = [x, y];
            return made;
        });
        this.#figure(colours, mesh);
        const goal = this.#program(rgb(colours.brick));
        this.goal = mesh(new Cylinder(gl, { radiusTop: 0.05, radiusBottom: 0.22, height: 0.9, radialSegments: 12 }), goal);
        const path = this.#program(rgb(colours.moss));
        const mark = new Sphere(gl, { radius: 0.05, widthSegments: 6, heightSegments: 4 });
        this.marks = Array.from({ length: 24 }, () => mesh(mark, path));
    }

    #figure(colours, mesh) {
        const { gl } = this;
        this.body = new Transform();
        this.body.setParent(this.scene);
        const skin = this.#program(rgb(colours.honey));
        const coat = this.#program(rgb(colours.slate));
        const dark = this.#program(rgb(colours.ink));
        const part = (geometry, program, x, y, z) => {
            const made = mesh(geometry, program, this.body);
            made.position.set(x, y, z);
            return made;
        };
        this.walker = [
            part(new Box(gl, { width: 0.44, height: 0.62, depth: 0.24 }), coat, 0, 1.13, 0),
            part(new Sphere(gl, { radius: 0.15, widthSegments: 12, heightSegments: 10 }), skin, 0, 1.62, 0),
            part(new Box(gl, { width: 0.06, height: 0.06, depth: 0.12 }), dark, 0, 1.63, -0.17),
        ];
        this.legs = [-0.11, 0.11].map((x) => {
            const hip = new Transform();
            hip.setParent(this.body);
            hip.position.set(x, 0.82, 0);
            const leg = mesh(new Box(gl, { width: 0.15, height: 0.8, depth: 0.17 }), dark, hip);
            leg.position.set(0, -0.4, 0);
            const shoe = mesh(new Box(gl, { width: 0.15, height: 0.1, depth: 0.3 }), dark, hip);
            shoe.position.set(0, -0.77, -0.06);
            return hip;
        });
        this.cart = [
            part(new Box(gl, { width: 0.8, height: 0.5, depth: 1.5 }), skin, 0, 0.62, 0),
            part(new Box(gl, { width: 0.3, height: 0.3, depth: 0.3 }), dark, 0, 1, -0.55),
        ];
        this.wheels = [[-0.48, -0.45], [0.48, -0.45], [-0.48, 0.45], [0.48, 0.45]].map(([x, z]) => {
            const wheel = part(new Cylinder(gl, { radiusTop: 0.3, radiusBottom: 0.3, height: 0.1, radialSegments: 10 }), dark, x, 0.3, z);
            wheel.rotation.z = Math.PI / 2;
            return wheel;
        });
        this.bee = [
            part(new Sphere(gl, { radius: 0.22, widthSegments: 12, heightSegments: 8 }), skin, 0, 0.3, 0),
            part(new Box(gl, { width: 0.9, height: 0.03, depth: 0.25 }), coat, 0, 0.48, 0),
            part(new Sphere(gl, { radius: 0.1, widthSegments: 8, heightSegments: 6 }), dark, 0, 0.32, -0.24),
        ];
        this.hands = [0, 1].map(() => mesh(new Box(gl, { width: 0.07, height: 0.07, depth: 0.16 }), dark));
        this.shadow = mesh(new Cylinder(gl, { radiusTop: 0.3, radiusBottom: 0.3, height: 0.02, radialSegments: 14 }), this.#program(mixed(rgb(colours.ink), rgb(colours.paper), 0.35)));
    }

    /** @param {boolean} eyes through the eyes, else over the shoulder
     *  @param {number} frameMs how long frames take */
    draw(scene, colours, eyes, frameMs) {
        this.#set(scene, colours, eyes);
        this.#size();
        const { x, y, z } = scene;
        const pitch = scene.looks ? scene.viewPitch : -0.35;
        const yaw = scene.viewYaw;
        const ahead = [Math.sin(yaw) * Math.cos(pitch), Math.sin(pitch), -Math.cos(yaw) * Math.cos(pitch)];
        const eye = eyes ? [x, z + EYES_M, -y] : [
            x - ahead[0] * BEHIND_M + 0.35 * Math.cos(yaw),
            Math.max(z + 1.75 - ahead[1] * BEHIND_M, scene.ground.height(x - ahead[0] * BEHIND_M, y + ahead[2] * BEHIND_M) + 0.3),
            -y - ahead[2] * BEHIND_M + 0.35 * Math.sin(yaw),
        ];
        this.camera.matrixAutoUpdate = true;
        this.camera.position.set(...eye);
        this.camera.lookAt([eye[0] + ahead[0], eye[1] + ahead[1], eye[2] + ahead[2]]);
        this.gl.clearColor(...this.sky, 1);
        this.renderer.render({ scene: this.scene, camera: this.camera });
        this.#adapt(frameMs);
    }

    /** Draws both eyes of a headset. The play space lies so that the head is over the body, and turns with the view.
     *  @param {number[]} head where the head is in the play space */
    drawEyes(scene, colours, layer, views, head) {
        const { gl, camera, renderer } = this;
        this.#set(scene, colours, true);
        const space = new Mat4().translate([scene.x, scene.z, -scene.y]).rotate(-scene.viewYaw, [0, 1, 0]).translate([-head[0], 0, -head[2]]);
        gl.clearColor(...this.sky, 1);
        renderer.bindFramebuffer({ buffer: layer.framebuffer });
        gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
        camera.matrixAutoUpdate = false;
        for (const view of views) {
            const { x, y, width, height } = layer.getViewport(view);
            camera.matrix.multiply(space, new Mat4().fromArray(view.transform.matrix));
            camera.worldMatrixNeedsUpdate = true;
            camera.projectionMatrix.fromArray(view.projectionMatrix);
            // The renderer sets a viewport at the corner, unless it already has that size.
            Object.assign(renderer.state.viewport, { width, height });
            gl.viewport(x, y, width, height);
            renderer.render({ scene: this.scene, camera, target: { target: gl.FRAMEBUFFER, buffer: layer.framebuffer, width, height, depth: true }, clear: false });
        }
        this.sized = "";
        camera.worldMatrixNeedsUpdate = true;
    }

    /** Puts everything where it is now. */
    #set(scene, colours, eyes) {
        this.#build(scene.ground, colours);
        const { x, y } = scene;
        this.floor.position.set(Math.round(x / 5) * 5, -0.005, -Math.round(y / 5) * 5);
        if (scene.squares)
            for (const crate of this.blocked)
                crate.position.set(scene.squares.middleX + crate.square[0] * scene.squares.size, 0.45, -(scene.squares.middleY + crate.square[1] * scene.squares.size));
        this.#pose(scene, eyes);
        this.goal.visible = Boolean(scene.goal);
        if (scene.goal) this.goal.position.set(scene.goal[0], 0.45 + scene.ground.height(...scene.goal), -scene.goal[1]);
        this.#path(scene);
    }

    #pose(scene, eyes) {
        const { x, y, z, face, frame, figure, height } = scene;
        this.body.position.set(x, z, -y);
        this.body.rotation.y = -face;
        const [sine, cosine] = [Math.sin(face), Math.cos(face)];
        const forward = figure.leanX * sine + figure.leanY * cosine;
        const across = figure.leanX * cosine - figure.leanY * sine;
        this.body.rotation.x = -forward * 1.3;
        this.body.rotation.z = -across * 1.3;
        const kind = frame === "drive" ? "cart" : frame === "fly" ? "bee" : "walker";
        const show = (parts, shown) => parts.forEach((part) => (part.visible = shown));
        show(this.walker, kind === "walker" && !eyes);
        show(this.legs, kind === "walker" && !eyes);
        show([...this.cart, ...this.wheels], kind === "cart" && !eyes);
        show(this.bee, kind === "bee" && !eyes);
        this.legs.forEach((hip, side) => (hip.rotation.x = -figure.foot(side) * 2.2));
        this.hands.forEach((hand, side) => {
            // One that is lost is not shown.
            const place = scene.hands?.[side ? "right" : "left"];
            hand.visible = Boolean(place);
            if (!place) return;
            const [across, rise, back] = place;
            const [turn, ahead] = [scene.viewYaw, -back];
            hand.position.set(x + across * Math.cos(turn) + ahead * Math.sin(turn), z + rise, -(y - across * Math.sin(turn) + ahead * Math.cos(turn)));
            hand.rotation.y = -turn;
        });
        const up = z - height;
        this.shadow.visible = up > 0.03 || eyes;
        this.shadow.position.set(x, height + 0.01, -y);
    }

    #path({ path, t }) {
        const [times, xs, ys, zs] = path.since("t", t - 6, ["t", "x", "y", "z"]);
        let used = 0;
        let next = Math.ceil((t - 6) * 4) / 4;
        for (let index = 0; index < times.length && used < this.marks.length; index++) {
            if (times[index] < next) continue;
            next += 0.25;
            this.marks[used].visible = true;
            this.marks[used++].position.set(xs[index], zs[index] + 0.03, -ys[index]);
        }
        for (; used < this.marks.length; used++) this.marks[used].visible = false;
    }

    #size() {
        const { clientWidth: width, clientHeight: height } = this.canvas;
        const wanted = `${width}x${height}x${this.scale}`;
        if (wanted === this.sized) return;
        this.sized = wanted;
        this.renderer.dpr = this.scale * Math.min(window.devicePixelRatio || 1, 2);
        this.renderer.setSize(width, height);
        this.canvas.style.width = this.canvas.style.height = "";
        this.camera.perspective({ aspect: width / Math.max(height, 1) });
    }

    /** Fewer pixels where a frame takes too long, more again where there is time to spare. */
    #adapt(frameMs) {
        this.waits = (this.waits ?? 20) - 1;
        if (this.waits > 0) return;
        if (frameMs > SLOW_MS && this.scale > LEAST_SCALE) this.scale = Math.max(this.scale * 0.8, LEAST_SCALE);
        else if (frameMs < FAST_MS && this.scale < 1) this.scale = Math.min(this.scale * 1.15, 1);
        else return;
        this.waits = 20;
    }
}

/** A plane over a rectangle with its sides, or a mound. */
function pieceGeometry(gl, [form, a, b, c, d, e, f, g]) {
    const positions = [];
    const normals = [];
    const quad = (corners, normal) => {
        for (const index of [0, 1, 2, 0, 2, 3]) {
            positions.push(...corners[index]);
            normals.push(...normal);
        }
    };
    if (form === 0) {
        const top = (x, y) => [x, e + f * (x - a) + g * (y - b), -y];
        const foot = (x, y) => [x, 0, -y];
        const length = Math.hypot(f, 1, g);
        quad([top(a, b), top(c, b), top(c, d), top(a, d)], [-f / length, 1 / length, g / length]);
        quad([foot(a, b), foot(c, b), top(c, b), top(a, b)], [0, 0, 1]);
        quad([foot(c, d), foot(a, d), top(a, d), top(c, d)], [0, 0, -1]);
        quad([foot(a, d), foot(a, b), top(a, b), top(a, d)], [-1, 0, 0]);
        quad([foot(c, b), foot(c, d), top(c, d), top(c, b)], [1, 0, 0]);
    } else {
        const [rings, turns] = [12, 28];
        const point = (ring, turn) => {
            const [away, angle] = [ring / rings, (2 * Math.PI * turn) / turns];
            return [a + c * away * Math.sin(angle), 0.5 * d * (1 + Math.cos(Math.PI * away)), -(b + c * away * Math.cos(angle))];
        };
        for (let ring = 0; ring < rings; ring++) {
            for (let turn = 0; turn < turns; turn++) {
                const steep = ((0.5 * d * Math.PI) / c) * Math.sin((Math.PI * (ring + 0.5)) / rings);
                const angle = (2 * Math.PI * (turn + 0.5)) / turns;
                const length = Math.hypot(steep, 1);
                quad([point(ring, turn), point(ring, turn + 1), point(ring + 1, turn + 1), point(ring + 1, turn)], [
                    (steep * Math.sin(angle)) / length, 1 / length, (-steep * Math.cos(angle)) / length,
                ]);
            }
        }
    }
    return new Geometry(gl, { position: { size: 3, data: new Float32Array(positions) }, normal: { size: 3, data: new Float32Array(normals) } });
}

function rgb(hex) {
    return [1, 3, 5].map((index) => parseInt(hex.slice(index, index + 2), 16) / 255);
}

function mixed(one, other, share) {
    return one.map((part, index) => part * share + other[index] * (1 - share));
}
