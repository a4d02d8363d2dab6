/** Makes the model that ships with the app: a skep, a beehive of coiled straw. npx tsx scripts/make-model.ts */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import { Document, WebIO } from '@gltf-transform/core';
import { randomAt } from '../src/core/random';
import { joinShapes, placeShape, type Shape } from '../src/core/shape/shape';
import { torusShape } from '../src/core/shape/solids';
import { tubeShape } from '../src/core/shape/make';

const coils = 13;
const coilRadius = 0.042;

/** Radius of the skep at a height from 0 to 1: a bell. */
const bell = (t: number): number => 0.42 * Math.sqrt(Math.max(0, 1 - (t * 0.96) ** 2.6));

function skep(): Shape {
  const parts: Shape[] = [];
  for (let k = 0; k < coils; k++) {
    const t = (k + 0.5) / coils;
    const ring = torusShape(Math.max(0.02, bell(t)), coilRadius, 36, 8);
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

const shape = skep();
const document = new Document();
const buffer = document.createBuffer();
const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array) =>
  document
    .createAccessor()
    .setType(type)
    .setArray(array as Float32Array<ArrayBuffer>)
    .setBuffer(buffer);
const uvs = shape.uvs.map((v, k) => (k % 2 ? 1 - v : v));
const material = document
  .createMaterial('Straw')
  .setBaseColorTexture(document.createTexture('Straw').setImage(straw(384, 32)).setMimeType('image/png'));
const primitive = document
  .createPrimitive()
  .setAttribute('POSITION', accessor('VEC3', shape.positions))
  .setAttribute('NORMAL', accessor('VEC3', shape.normals))
  .setAttribute('TEXCOORD_0', accessor('VEC2', uvs))
  .setIndices(accessor('SCALAR', shape.triangles))
  .setMaterial(material);
document
  .createScene('Skep')
  .addChild(document.createNode('Skep').setMesh(document.createMesh('Skep').addPrimitive(primitive)));
const bytes = await new WebIO().writeBinary(document);
const target = path.resolve(import.meta.dirname, '../public/media/skep.glb');
writeFileSync(target, bytes);
console.log(`wrote ${target}, ${bytes.length} bytes`);
