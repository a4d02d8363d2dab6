/** Makes the models that ship with the app: a skep, which is a beehive of coiled straw, and a glasshouse. npx tsx scripts/make-model.ts */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import { Document, WebIO } from '@gltf-transform/core';
import { randomAt } from '../src/core/random';
import { joinShapes, placeShape, type Shape } from '../src/core/shape/shape';
import { torusShape } from '../src/core/shape/solids';
import { boxShape, tubeShape } from '../src/core/shape/make';

const coilRadius = 0.042;

/** Radius of the skep at a height from 0 to 1: a bell. */
const bell = (t: number): number => 0.42 * Math.sqrt(Math.max(0, 1 - (t * 0.96) ** 2.6));

/** A skep, made of `coils` rings of `around` by `across` faces. */
function skep(coils: number, around: number, across: number): Shape {
  const parts: Shape[] = [];
  for (let k = 0; k < coils; k++) {
    const t = (k + 0.5) / coils;
    const ring = torusShape(Math.max(0.02, bell(t)), (coilRadius * 13) / coils, around, across);
    parts.push(placeShape(ring, [0, t * 0.78 - 0.42, 0], [0, 0, 0], [1, 1, 1]));
  }
  parts.push(placeShape(tubeShape([0.02, 0.045], 0.09, 12, true, false), [0, 0.43, 0], [0, 0, 0], [1, 1, 1]));
  return joinShapes(parts);
}

/** Straw: slanting fibres in warm yellows. */
function straw(width: number, height: number): Uint8Array<ArrayBuffer> {
  const rows: number[] = [];
  for (let y = 0; y < height; y++) {
    rows.push(0);
    for (let x = 0; x < width; x++) {
      const fibre = randomAt((x + Math.floor(y / 2)) % width, 7);
      const grain = 0.75 + 0.25 * fibre + 0.08 * (randomAt(y * width + x, 3) - 0.5);
      const binding = (x + y / 2) % (width / 12) < 3 ? 0.5 : 1;
      rows.push(...[232, 178, 96].map((v) => Math.max(0, Math.min(255, Math.round(v * grain * binding)))));
    }
  }
  const chunk = (type: string, data: Uint8Array): Buffer => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const out = Buffer.alloc(8 + body.length);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc32(body) >>> 0, 4 + body.length);
    return out;
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.set([8, 2, 0, 0, 0], 8);
  return Uint8Array.from(
    Buffer.concat([
      Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
      chunk('IHDR', header),
      chunk('IDAT', deflateSync(Uint8Array.from(rows))),
      chunk('IEND', new Uint8Array(0)),
    ]),
  );
}

/** A box from one corner to the opposite one. */
function boxFrom(from: readonly number[], to: readonly number[]): Shape {
  const size = [0, 1, 2].map((k) => to[k] - from[k]);
  const middle = [0, 1, 2].map((k) => (to[k] + from[k]) / 2);
  return placeShape(boxShape([1, 1, 1], 1), middle, [0, 0, 0], size);
}

/** A bar between two places, in a plane across the house. */
function bar(a: readonly [number, number], b: readonly [number, number], z: number, width: number): Shape {
  const angle = Math.atan2(b[1] - a[1], b[0] - a[0]);
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return placeShape(
    boxShape([1, 1, 1], 1),
    [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, z],
    [0, 0, angle],
    [length + width, width, width],
  );
}

/** A glasshouse of eleven by seven metres without its glass: bars, a plinth, a stage, two benches with hives. Metres; the back wall at z = 0. */
function glasshouse(): Shape {
  const [half, length, eaves, ridge] = [3.5, 11, 2.5, 4.1];
  const parts: Shape[] = [];
  for (let k = 0; k <= 10; k++) {
    const z = (k / 10) * length;
    for (const side of [-1, 1]) {
      parts.push(bar([side * half, 0], [side * half, eaves], z, 0.06));
      parts.push(bar([side * half, eaves], [0, ridge], z, 0.05));
    }
  }
  for (const x of [-2.625, -1.75, -0.875, 0, 0.875, 1.75, 2.625])
    parts.push(bar([x, 0], [x, eaves + (ridge - eaves) * (1 - Math.abs(x) / half)], 0, 0.04));
  for (const side of [-1, 1]) {
    parts.push(boxFrom([side * half - 0.08, 0, 0], [side * half + 0.08, 0.5, length]));
    for (const y of [1.15, 1.8, eaves])
      parts.push(boxFrom([side * half - 0.025, y - 0.025, 0], [side * half + 0.025, y + 0.025, length]));
    for (const t of [1 / 3, 2 / 3]) {
      const [x, y] = [side * half * (1 - t), eaves + (ridge - eaves) * t];
      parts.push(boxFrom([x - 0.02, y - 0.02, 0], [x + 0.02, y + 0.02, length]));
    }
    // A bench with hives along each side.
    parts.push(boxFrom([side * 2.55 - 0.33, 0.74, 2.3], [side * 2.55 + 0.33, 0.8, 8.5]));
    for (const z of [2.5, 4.4, 6.4, 8.3])
      parts.push(boxFrom([side * 2.55 - 0.28, 0, z - 0.04], [side * 2.55 + 0.28, 0.74, z + 0.04]));
    for (const z of [3.1, 4.9, 6.9, 8])
      parts.push(placeShape(skep(7, 14, 5), [side * 2.65, 1.02, z], [0, 0, 0], [0.5, 0.5, 0.5]));
  }
  parts.push(boxFrom([-half, 0, -0.08], [half, 0.5, 0]));
  parts.push(boxFrom([-0.03, ridge - 0.04, 0], [0.03, ridge + 0.04, length]));
  parts.push(boxFrom([-2.6, 0, 0.6], [2.6, 0.28, 2]));
  return joinShapes(parts);
}

async function write(
  name: string,
  shape: Shape,
  picture: { image: Uint8Array<ArrayBuffer>; type: string } | null,
): Promise<void> {
  const document = new Document();
  const buffer = document.createBuffer();
  const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array) =>
    document
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', shape.positions))
    .setAttribute('NORMAL', accessor('VEC3', shape.normals))
    .setIndices(accessor('SCALAR', shape.triangles));
  if (picture) {
    const uvs = shape.uvs.map((v, k) => (k % 2 ? 1 - v : v));
    const texture = document.createTexture(name).setImage(picture.image).setMimeType(picture.type);
    primitive
      .setAttribute('TEXCOORD_0', accessor('VEC2', uvs))
      .setMaterial(document.createMaterial(name).setBaseColorTexture(texture));
  }
  const node = document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive));
  document.createScene(name).addChild(node);
  const bytes = await new WebIO().writeBinary(document);
  const target = path.resolve(import.meta.dirname, `../public/media/${name.toLowerCase()}.glb`);
  writeFileSync(target, bytes);
  console.log(`wrote ${target}, ${bytes.length} bytes`);
}

await write('Skep', skep(13, 36, 8), { image: straw(384, 32), type: 'image/png' });
await write('Glasshouse', glasshouse(), null);
