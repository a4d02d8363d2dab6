import type { PixelString } from '../../core/document/types';
import { PixelPackets, writeDatagrams } from '../../core/wall/pixels/datagrams';
import { packPixels } from '../../core/wall/pixels/pixels';
import { addPixelString } from '../../core/show/edit-wall';
import { makeShow } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import { lightOfEach, PixelStrings } from '../output/pixel-strings';
import { pictureData, size } from './output';
import { median, type Work } from './measure';
import type { Raw } from './raw';

const count = { strings: 10, pixels: 10000 };
const columns = 256;
/** Pixels of the canvas between its edges and the strings. */
const inset = 8;
const gamma = 2.2;

/** Ten strings of 10,000 pixels across the canvas, in GRB. */
function strings(): PixelString[] {
  const show = makeShow(catalogue, 'Strings');
  for (let k = 0; k < count.strings; k++) addPixelString(show);
  return (show.wall.outputs as PixelString[]).map((string, k) => ({
    ...string,
    points: [
      [inset, (k + 0.5) * (size.height / count.strings)],
      [size.width - inset, (k + 0.5) * (size.height / count.strings)],
    ],
    pixels: count.pixels,
    area: 4,
    gamma,
    send: { ...string.send, protocol: 'artnet', address: '127.0.0.1', universe: 1 + 60 * k },
  }));
}

/** What is measured: all pixels sampled, read and packed. `bytes`: those of the last frame. */
export interface StringsWork extends Work {
  bytes: Uint8Array;
  /** Milliseconds of the worker for a frame, without waiting for the GPU: calls, bytes, packets, the message. */
  workerMs(): number;
}

export function stringsEngine(gpu: Gpu): StringsWork {
  const sampler = new PixelStrings(gpu);
  const all = strings();
  const texture = gpu.dataTexture(pictureData(), size.width, size.height, true);
  const presented = { first: plainLook(texture), second: plainLook(gpu.empty), fade: 0, level: 1 };
  const bytes = new Uint8Array(3 * count.strings * count.pixels);
  const packets = new PixelPackets({ cid: new Uint8Array(16), name: 'bench' });
  const parts = all.map((_, k) => bytes.subarray(3 * count.pixels * k, 3 * count.pixels * (k + 1)));
  const target = sampler.sample(all, presented, size);
  gpu.release(target);
  const rgba = new Float32Array(4 * target.width * target.height);
  const pack = (): void =>
    lightOfEach(all, rgba).forEach((light, k) => void packPixels(all[k], light, parts[k]));
  return {
    bytes,
    frame() {
      const sampled = sampler.sample(all, presented, size);
      gpu.renderer.readRenderTargetPixels(sampled, 0, 0, sampled.width, sampled.height, rgba);
      gpu.release(sampled);
      pack();
    },
    finish: () => undefined,
    workerMs() {
      const times = Array.from({ length: 15 }, () => {
        const start = performance.now();
        gpu.release(sampler.sample(all, presented, size));
        pack();
        writeDatagrams(packets.of(all.map((string, k) => [string, parts[k]] as const)));
        return performance.now() - start;
      });
      return median(times);
    },
  };
}

/** The same by hand: one pass into as small a target, one read, one loop. */
export function stringsByHand(raw: Raw): Work & { bytes: Uint8Array } {
  const { gl } = raw;
  const all = count.strings * count.pixels;
  const rows = Math.ceil(all / columns);
  const program = raw.program(
    `#version 300 es
in vec2 position;
void main() { gl_Position = vec4(position, 0.0, 1.0); }`,
    `#version 300 es
precision highp float;
precision highp sampler2D;
uniform sampler2D picture;
uniform sampler2D places;
out vec4 result;
void main() {
  vec2 p = texelFetch(places, ivec2(gl_FragCoord.xy), 0).xy;
  vec3 c = vec3(0.0);
  const vec2 step = vec2(${4 / 3 / size.width}, ${4 / 3 / size.height});
  c += texture(picture, p + vec2(-1.0, -1.0) * step).rgb + texture(picture, p + vec2(0.0, -1.0) * step).rgb + texture(picture, p + vec2(1.0, -1.0) * step).rgb;
  c += texture(picture, p + vec2(-1.0, 0.0) * step).rgb + texture(picture, p).rgb + texture(picture, p + vec2(1.0, 0.0) * step).rgb;
  c += texture(picture, p + vec2(-1.0, 1.0) * step).rgb + texture(picture, p + vec2(0.0, 1.0) * step).rgb + texture(picture, p + vec2(1.0, 1.0) * step).rgb;
  result = vec4(pow(clamp(c / 9.0, 0.0, 1.0), vec3(${gamma})), 1.0);
}`,
  );
  const texture = (data: Float32Array, width: number, height: number, filter: number): WebGLTexture => {
    const made = gl.createTexture();
    gl.bindTexture(gl.TEXTURE_2D, made);
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA32F, width, height, 0, gl.RGBA, gl.FLOAT, data);
    for (const which of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER])
      gl.texParameteri(gl.TEXTURE_2D, which, filter);
    for (const which of [gl.TEXTURE_WRAP_S, gl.TEXTURE_WRAP_T])
      gl.texParameteri(gl.TEXTURE_2D, which, gl.CLAMP_TO_EDGE);
    return made;
  };
  const numbers = new Float32Array(4 * columns * rows);
  for (let k = 0; k < all; k++) {
    const string = Math.floor(k / count.pixels);
    const along = ((k % count.pixels) + 0.5) / count.pixels;
    numbers[4 * k] = (inset + along * (size.width - 2 * inset)) / size.width;
    numbers[4 * k + 1] = 1 - (string + 0.5) / count.strings;
  }
  const picture = texture(pictureData(), size.width, size.height, gl.LINEAR);
  const places = texture(numbers, columns, rows, gl.NEAREST);
  const { framebuffer } = raw.target(columns, rows, gl.RGBA32F);
  const corners = gl.createVertexArray();
  gl.bindVertexArray(corners);
  gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
  gl.bufferData(gl.ARRAY_BUFFER, new Float32Array([-1, -1, 3, -1, -1, 3]), gl.STATIC_DRAW);
  const at = gl.getAttribLocation(program, 'position');
  gl.enableVertexAttribArray(at);
  gl.vertexAttribPointer(at, 2, gl.FLOAT, false, 0, 0);
  const [pictureAt, placesAt] = ['picture', 'places'].map((name) => gl.getUniformLocation(program, name));
  const rgba = new Float32Array(numbers.length);
  const bytes = new Uint8Array(3 * all);
  return {
    bytes,
    frame() {
      gl.bindFramebuffer(gl.FRAMEBUFFER, framebuffer);
      gl.viewport(0, 0, columns, rows);
      gl.useProgram(program);
      gl.bindVertexArray(corners);
      gl.activeTexture(gl.TEXTURE0);
      gl.bindTexture(gl.TEXTURE_2D, picture);
      gl.uniform1i(pictureAt, 0);
      gl.activeTexture(gl.TEXTURE1);
      gl.bindTexture(gl.TEXTURE_2D, places);
      gl.uniform1i(placesAt, 1);
      gl.drawArrays(gl.TRIANGLES, 0, 3);
      gl.readPixels(0, 0, columns, rows, gl.RGBA, gl.FLOAT, rgba);
      for (let k = 0, to = 0; k < 4 * all; k += 4, to += 3) {
        bytes[to] = rgba[k + 1] * 255 + 0.5;
        bytes[to + 1] = rgba[k] * 255 + 0.5;
        bytes[to + 2] = rgba[k + 2] * 255 + 0.5;
      }
    },
    finish: () => undefined,
  };
}

/** Throws unless both sides pack the same, but for the last step of rounding. */
export function sameBytes(a: Work & { bytes: Uint8Array }, b: Work & { bytes: Uint8Array }): void {
  a.frame(0);
  b.frame(0);
  const apart = a.bytes.reduce((most, v, k) => Math.max(most, Math.abs(v - b.bytes[k])), 0);
  if (apart > 1) throw new Error(`Not the same bytes: up to ${apart} apart.`);
  if (a.bytes.every((v) => v < 3)) throw new Error('All pixels are black.');
}
