import { mostFlashes } from '../../core/preflight/flash-meter';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import { FlashLimiter } from '../output/flash/flash-limiter';
import { FlashWatch } from '../output/flash/flash-watch';
import type { Presented } from '../output/presenter';

type Rgb = readonly [number, number, number];

/** A made clip: a ground, and a box on it that changes between two colours. */
export interface FlashProbeRequest {
  ground: Rgb;
  /** x, y, width and height, as shares of the picture from its lower left. */
  box: readonly [number, number, number, number];
  colours: readonly [Rgb, Rgb];
  /** Seconds that each colour stays. */
  stays: readonly [number, number];
  /** Second from which on the first colour stays; absent: it never does. */
  burst?: number;
  seconds: number;
  fps: number;
  limits: boolean;
}

export interface FlashProbeAnswer {
  /** Most changes of either sort in any second. */
  general: number;
  red: number;
  /** Whether any second had more than three flashes. */
  fails: boolean;
  /** Most that was held back in any frame, and what still is after the last, 0..1. */
  held: number;
  heldAtEnd: number;
  /** Red, green and blue at the middle of the box and in the corner of the picture, in the last frame, 0..255. */
  middle: number[];
  corner: number[];
}

const clipText = `#version 300 es
precision highp float;
in vec2 place;
uniform vec3 ground;
uniform vec4 box;
uniform vec3 colour;
out vec4 result;
void main() {
  vec2 within = step(box.xy, place) * step(place, box.xy + box.zw);
  result = vec4(mix(ground, colour, within.x * within.y), 1.0);
}`;

const size = { width: 320, height: 180 };

/** Plays a made clip past the limiter and the meter. */
export async function flashProbe(gpu: Gpu, request: FlashProbeRequest): Promise<FlashProbeAnswer> {
  const { ground, box, colours, stays, burst = Infinity, seconds, fps, limits } = request;
  const { width, height } = size;
  const clip = gpu.acquire(width, height, gpu.usualBits);
  const out = gpu.acquire(width, height, '8');
  const uniforms = { ground: { value: ground }, box: { value: box }, colour: { value: colours[0] } };
  const material = gpu.material(clipText, uniforms);
  const limiter = new FlashLimiter(gpu);
  const watch = new FlashWatch(gpu);
  const most = { general: 0, red: 0, held: 0 };
  const nothing = plainLook(gpu.empty);
  let shown: Presented = { first: plainLook(clip.texture), second: nothing, fade: 0, level: 1 };
  for (let frame = 0; frame < seconds * fps; frame++) {
    const now = frame / fps;
    // A hair later than the frame, so that no change falls between two roundings.
    const isFirst = now >= burst || (now + 1e-4) % (stays[0] + stays[1]) < stays[0];
    uniforms.colour.value = colours[isFirst ? 0 : 1];
    gpu.pass(material, clip);
    shown = { first: plainLook(clip.texture), second: nothing, fade: 0, level: 1 };
    if (limits) {
      if (watch.count.fails) limiter.tighten(now);
      shown = limiter.limit(shown, frame, now);
    }
    watch.turn(shown, now, limits ? limiter.heldBack : null);
    // Frames are read while the next ones are drawn, as on stage.
    if (frame % 3 === 2) await watch.done();
    most.general = Math.max(most.general, watch.count.general);
    most.red = Math.max(most.red, watch.count.red);
    most.held = Math.max(most.held, watch.held);
  }
  await watch.done();
  gpu.copy(shown.first.texture, out);
  const pixels = new Uint8Array(4 * width * height);
  await gpu.renderer.readRenderTargetPixelsAsync(out, 0, 0, width, height, pixels);
  const at = (x: number, y: number): number[] => {
    const from = 4 * (Math.floor(y * height) * width + Math.floor(x * width));
    return [...pixels.subarray(from, from + 3)];
  };
  return {
    ...most,
    fails: Math.max(most.general, most.red) > 2 * mostFlashes,
    heldAtEnd: watch.held,
    middle: at(box[0] + box[2] / 2, box[1] + box[3] / 2),
    corner: at(0.01, 0.01),
  };
}
