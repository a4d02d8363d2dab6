import type { Gpu } from '../gpu';
import { median, type Work } from './measure';
import type { Raw } from './raw';
import { Patch, Rig, size } from './rig';

const quad = 0.006;

const side = (count: number): number => Math.ceil(Math.sqrt(count));

/** Quads placed by the pixels of an image that stands still. */
export function copiesEngine(gpu: Gpu, count: number): Rig {
  const p = new Patch();
  const edge = side(count);
  const places = p.add('noise', { form: 'random', channels: 'three', amplitude: 0.5, rate: 0 }, [edge, edge]);
  const sheet = p.add('sheet', { columns: 2, rows: 2, size: [1, 1] });
  const body = p.add('body', { shading: 'flat', blending: 'add' });
  const copies = p.add('instances', { count, size: quad });
  const camera = p.add('camera');
  p.scene.nodes[camera].motions.orbit = [
    { type: 'swing', on: true, amount: 5, shape: 'sine', rate: 0.5, unit: 'hertz', phase: 0 },
  ];
  const shot = p.add('shot', { edges: 'plain', tone: 'none' });
  p.wire(sheet, body, 'shape');
  p.wire(body, copies, 'body');
  p.wire(places, copies, 'pixels');
  p.wire(copies, shot, 'props');
  p.wire(camera, shot, 'props');
  return new Rig(gpu, p, shot);
}

const vertex = `#version 300 es
precision highp float;
precision highp sampler2D;
uniform sampler2D places;
uniform float time;
void main() {
  vec2 corner = vec2(gl_VertexID == 1 || gl_VertexID == 2 || gl_VertexID == 4, gl_VertexID >= 2 && gl_VertexID != 3) - 0.5;
  int w = textureSize(places, 0).x;
  vec3 place = (texelFetch(places, ivec2(gl_InstanceID % w, gl_InstanceID / w), 0).xyz * 2.0 - 1.0) * vec3(0.8, 0.45, 0.45);
  vec3 p = place + vec3(corner * ${quad.toFixed(4)}, 0.0);
  float a = sin(time * 3.1416) * 0.09;
  p.xz = mat2(cos(a), -sin(a), sin(a), cos(a)) * p.xz;
  p.z -= 1.8;
  gl_Position = vec4(p.x * 2.1 * 360.0 / 640.0, p.y * 2.1, -p.z - 0.2, -p.z);
}`;

const fragment = `#version 300 es
precision highp float;
out vec4 result;
void main() { result = vec4(1.0); }`;

/** Plain instancing of a quad whose place is fetched from a texture in the vertex shader. */
export function copiesByHand(raw: Raw, count: number): Work {
  const { gl } = raw;
  const { width, height } = size;
  const edge = side(count);
  const rgba = Float32Array.from(
    { length: edge * edge * 4 },
    (_, k) => ((k * 2654435761) % 4294967296) / 4294967296,
  );
  const program = raw.program(vertex, fragment);
  const time = gl.getUniformLocation(program, 'time');
  const places = raw.numbers(edge, edge, rgba);
  const target = raw.target(width, height, gl.RGBA16F);
  return raw.work(target.framebuffer, (k) => {
    gl.useProgram(program);
    gl.uniform1f(time, k / 60);
    gl.bindTexture(gl.TEXTURE_2D, places);
    gl.bindFramebuffer(gl.FRAMEBUFFER, target.framebuffer);
    gl.viewport(0, 0, width, height);
    gl.clearColor(0, 0, 0, 0);
    gl.clear(gl.COLOR_BUFFER_BIT);
    gl.enable(gl.BLEND);
    gl.blendFunc(gl.ONE, gl.ONE);
    gl.drawArraysInstanced(gl.TRIANGLES, 0, 6, count);
    gl.disable(gl.BLEND);
  });
}

/** Milliseconds that the processor is busy with a frame, while the card is given time to finish in between. */
export function cpuMs(rig: Rig, frames: number): number {
  const times: number[] = [];
  for (let k = 0; k < frames; k++) {
    const start = performance.now();
    // A single frame is shorter than the clock can tell.
    for (let j = 0; j < 4; j++) rig.frame(4 * k + j);
    times.push((performance.now() - start) / 4);
    rig.finish();
  }
  return median(times);
}
