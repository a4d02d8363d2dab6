import type { Texture } from 'three';
import type { ScreenOutput } from '../../core/document/types';
import { makeShow } from '../../core/show/create';
import { addScreen } from '../../core/show/edit-wall';
import { warpMesh } from '../../core/wall/warp';
import { whiteGains } from '../../core/wall/white-point';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import { ScreenPainter } from '../output/screen-painter';
import type { Shown } from './measure';
import type { Raw } from './raw';

export const size = { width: 1280, height: 720 };

/** A screen that is bent by its corners, masked, blended on two sides and coloured. */
function projector(): ScreenOutput {
  const show = makeShow(catalogue, 'Bench');
  show.canvas = { ...size, fps: 60 };
  addScreen(show);
  const screen = show.wall.outputs[0] as ScreenOutput;
  Object.assign(screen, {
    warp: {
      columns: 2,
      rows: 2,
      smooth: false,
      points: [
        [0.03, 0.05],
        [0.98, 0.01],
        [0.06, 0.96],
        [0.93, 0.99],
      ],
    },
    masks: [
      {
        points: [
          [0.05, 0.06],
          [0.96, 0.04],
          [0.94, 0.95],
          [0.08, 0.94],
        ],
        soft: 0.02,
        hides: 'outside',
      },
    ],
    blend: { left: 0, right: 0.2, top: 0, bottom: 0.15, power: 2, gamma: 2.2, lift: 0.02 },
    colour: {
      gain: [0.9, 1, 0.95],
      gamma: [1.1, 1, 0.9],
      black: [0.02, 0.01, 0.03],
      kelvin: 5600,
      brightness: 0.9,
    },
  } satisfies Partial<ScreenOutput>);
  return screen;
}

/** A picture with slow and quick changes in every channel, 32 bits. */
export function pictureData(): Float32Array {
  const rgba = new Float32Array(4 * size.width * size.height);
  for (let y = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++)
      rgba.set(
        [0.5 + 0.5 * Math.sin(x / 23), y / size.height, 0.5 + 0.5 * Math.sin((x + 2 * y) / 61), 1],
        4 * (y * size.width + x),
      );
  return rgba;
}

/** The engine's side: one picture on one screen. */
export function outputEngine(gpu: Gpu): Shown {
  const painter = new ScreenPainter(gpu);
  const texture: Texture = gpu.dataTexture(pictureData(), size.width, size.height, true);
  const screen = projector();
  const shown = { first: plainLook(texture), second: plainLook(gpu.empty), fade: 0, level: 1 };
  const pixel = new Uint8Array(4);
  const { gl } = gpu;
  const read = (width: number, height: number, into: Uint8Array): Uint8Array => {
    gpu.renderer.setRenderTarget(null);
    gl.readPixels(0, 0, width, height, gl.RGBA, gl.UNSIGNED_BYTE, into);
    return into;
  };
  return {
    size,
    frame() {
      gpu.resize(size.width, size.height);
      gpu.renderer.setViewport(0, 0, size.width, size.height);
      painter.draw(screen, 'window', shown, size, size);
    },
    finish: () => void read(1, 1, pixel),
    pixels: () => read(size.width, size.height, new Uint8Array(4 * size.width * size.height)),
  };
}

const num = (v: number): string => (Number.isInteger(v) ? `${v}.0` : String(v));
const vec = (values: readonly number[]): string => `vec${values.length}(${values.map(num).join(', ')})`;

/** The same as one pass by hand: every number a literal, the mask worked out from its four sides. */
export function outputByHand(raw: Raw): Shown {
  const { gl } = raw;
  const { blend, colour, masks, warp } = projector();
  const aspect = size.width / size.height;
  const [mask] = masks;
  const white = whiteGains(colour.kelvin);
  const gain = colour.gain.map((g, k) => g * (white[k] * colour.brightness) ** (1 / 2.2));
  const sides = mask.points.map(([x, y], k) => {
    const [nx, ny] = mask.points[(k + 1) % mask.points.length];
    const [dx, dy] = [(nx - x) * aspect, ny - y];
    const length = Math.hypot(dx, dy);
    // Clockwise, y down: what is inside lies to the right.
    return `dot(q, ${vec([-dy / length, dx / length])}) - ${num((-dy * x * aspect + dx * y) / length)}`;
  });
  const program = raw.program(
    `#version 300 es
in vec3 spot;
in vec2 at;
out vec2 p;
void main() { p = at; gl_Position = vec4(2.0 * spot.x - spot.z, spot.z - 2.0 * spot.y, 0.0, spot.z); }`,
    `#version 300 es
precision highp float;
precision highp sampler2D;
in vec2 p;
uniform sampler2D picture;
out vec4 result;
float ramp(float t) {
  t = clamp(t, 0.0, 1.0);
  float s = t < 0.5 ? t : 1.0 - t;
  float low = 2.0 * s * s;
  return t < 0.5 ? low : 1.0 - low;
}
void main() {
  vec3 c = clamp(texture(picture, vec2(p.x, 1.0 - p.y)).rgb, 0.0, 1.0) * ${vec(gain)};
  c = ${vec(colour.black)} + ${vec(colour.black.map((b) => 1 - b))} * pow(c, ${vec(colour.gamma.map((g) => 1 / g))});
  float kept = ramp((1.0 - p.x) * ${num(1 / blend.right)}) * ramp((1.0 - p.y) * ${num(1 / blend.bottom)});
  vec3 light = pow(c, vec3(${num(blend.gamma)}));
  light += ${num(blend.lift)} * step(0.9999, kept) * (1.0 - light);
  c = pow(light * kept, vec3(${num(1 / blend.gamma)}));
  vec2 edge = min(p, 1.0 - p) / fwidth(p);
  vec2 q = vec2(gl_FragCoord.x, ${num(size.height)} - gl_FragCoord.y) * ${num(1 / size.height)};
  float inside = min(min(${sides[0]}, ${sides[1]}), min(${sides[2]}, ${sides[3]}));
  c *= clamp(min(edge.x, edge.y) + 0.5, 0.0, 1.0) * clamp(0.5 + inside * ${num(1 / mask.soft)}, 0.0, 1.0);
  c += fract(52.9829189 * fract(dot(gl_FragCoord.xy, vec2(0.06711056, 0.00583715)))) / 255.0 - 0.5 / 255.0;
  result = vec4(c, 1.0);
}`,
  );
  const { places, pictures, indices } = warpMesh(warp);
  const mesh = raw.vertices(program, { spot: [places, 3], at: [pictures, 2] }, new Uint32Array(indices));
  const texture = raw.picture(size.width, size.height, pictureData());
  return raw.shown(() => {
    gl.bindFramebuffer(gl.FRAMEBUFFER, null);
    gl.viewport(0, 0, size.width, size.height);
    gl.clearColor(0, 0, 0, 1);
    gl.clear(gl.COLOR_BUFFER_BIT);
    gl.useProgram(program);
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.bindVertexArray(mesh);
    gl.drawElements(gl.TRIANGLES, 6, gl.UNSIGNED_INT, 0);
    gl.bindVertexArray(null);
  }, size);
}
