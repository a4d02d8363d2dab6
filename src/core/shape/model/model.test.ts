import { describe, expect, test } from '@jest/globals';
import { Document, WebIO } from '@gltf-transform/core';
import { ballShape, boxShape } from '../make';
import type { Shape } from '../shape';
import { ModelError } from './model';
import { readModel } from './read';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const triple = (list: Float32Array, i: number): string => [...list.subarray(3 * i, 3 * i + 3)].join(' ');
const places = (shape: Shape): number[] =>
  Array.from(shape.triangles).flatMap((i) => [...shape.positions.subarray(3 * i, 3 * i + 3)]);
const cube = boxShape([1, 2, 3], 1);

function objOf(shape: Shape): string {
  const lines = ['o Cube'];
  for (let i = 0; i < shape.count; i++) {
    lines.push(`v ${triple(shape.positions, i)}`, `vn ${triple(shape.normals, i)}`);
    lines.push(`vt ${shape.uvs[2 * i]} ${shape.uvs[2 * i + 1]}`);
  }
  for (let t = 0; t < shape.triangles.length; t += 3)
    lines.push(
      `f ${[0, 1, 2]
        .map((k) =>
          Array(3)
            .fill(shape.triangles[t + k] + 1)
            .join('/'),
        )
        .join(' ')}`,
    );
  return lines.join('\n');
}

function plyOf(shape: Shape, form: 'ascii' | 'binary_little_endian' | 'binary_big_endian'): Uint8Array {
  const header = [
    'ply',
    `format ${form} 1.0`,
    'comment made by a test',
    `element vertex ${shape.count}`,
    ...['x', 'y', 'z', 'nx', 'ny', 'nz'].map((name) => `property float ${name}`),
    ...['red', 'green', 'blue'].map((name) => `property uchar ${name}`),
    `element face ${shape.triangles.length / 3}`,
    'property list uchar int vertex_indices',
    'end_header\n',
  ].join('\n');
  const body: number[] = [];
  const little = form === 'binary_little_endian';
  const put = (size: number, write: (view: DataView) => void): void => {
    const view = new DataView(new ArrayBuffer(size));
    write(view);
    body.push(...new Uint8Array(view.buffer));
  };
  const text: string[] = [];
  for (let i = 0; i < shape.count; i++) {
    const row = [...shape.positions.subarray(3 * i, 3 * i + 3), ...shape.normals.subarray(3 * i, 3 * i + 3)];
    text.push(`${row.join(' ')} 255 128 0`);
    for (const v of row) put(4, (view) => view.setFloat32(0, v, little));
    body.push(255, 128, 0);
  }
  for (let t = 0; t < shape.triangles.length; t += 3) {
    text.push(`3 ${shape.triangles.subarray(t, t + 3).join(' ')}`);
    body.push(3);
    for (const v of shape.triangles.subarray(t, t + 3)) put(4, (view) => view.setInt32(0, v, little));
  }
  return form === 'ascii'
    ? bytes(`${header}${text.join('\n')}\n`)
    : Uint8Array.from([...bytes(header), ...body]);
}

async function glbOf(
  shape: Shape,
  more: { picture?: Uint8Array; normals?: boolean } = {},
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array) =>
    document
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setBuffer(buffer);
  const material = document.createMaterial().setBaseColorFactor([1, 0.5, 0.25, 1]);
  if (more.picture)
    material.setBaseColorTexture(
      document
        .createTexture('t')
        .setImage(more.picture as Uint8Array<ArrayBuffer>)
        .setMimeType('image/png'),
    );
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', shape.positions))
    .setAttribute('TEXCOORD_0', accessor('VEC2', shape.uvs))
    .setIndices(accessor('SCALAR', shape.triangles))
    .setMaterial(material);
  if (more.normals !== false) primitive.setAttribute('NORMAL', accessor('VEC3', shape.normals));
  const node = document.createNode('Cube').setMesh(document.createMesh().addPrimitive(primitive));
  node.setTranslation([0, 1, 0]);
  document.createScene().addChild(node);
  return new WebIO().writeBinary(document);
}

describe('models', () => {
  test('an OBJ comes back as it was written', async () => {
    const { parts, notes } = await readModel(bytes(objOf(cube)));
    expect(parts.map(({ name }) => name)).toEqual(['Cube']);
    expect(places(parts[0].shape)).toEqual(places(cube));
    expect([...parts[0].shape.uvs.subarray(0, 4)]).toEqual([...cube.uvs.subarray(0, 4)]);
    expect(notes).toEqual([]);
  });

  test('an OBJ may count from its end, have faces of many corners, groups, colours and lines', async () => {
    const text =
      'g left\nv 0 0 0 1 0 0\nv 1 0 0 1 0 0\nv 1 1 0 1 0 0\nv 0 1 0 1 0 0\nf -4 -3 -2 -1\ng right\nl 1 2 3\n';
    const { parts, notes } = await readModel(bytes(text));
    expect(parts.map(({ name }) => name)).toEqual(['left', 'right']);
    expect(parts[0].shape.triangles).toHaveLength(6);
    expect([...parts[0].shape.faceOf]).toEqual([0, 0]);
    expect([...parts[0].shape.colours!.subarray(0, 4)]).toEqual([1, 0, 0, 1]);
    expect([...parts[0].shape.normals.subarray(0, 3)]).toEqual([0, 0, 1]);
    expect([...parts[1].shape.rows]).toEqual([0, 1, 1, 2]);
    expect(notes.join()).toMatch(/no normals/);
  });

  test.each(['ascii', 'binary_little_endian', 'binary_big_endian'] as const)(
    'a PLY in %s comes back',
    async (form) => {
      const { parts } = await readModel(plyOf(cube, form));
      expect(places(parts[0].shape)).toEqual(places(cube));
      expect(parts[0].shape.colours![1]).toBeCloseTo(128 / 255, 5);
      expect([...parts[0].shape.normals]).toEqual([...cube.normals]);
    },
  );

  test('a GLB comes back in its place, with its colour and its picture', async () => {
    const picture = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 1, 2, 3]);
    const { parts, pictures } = await readModel(await glbOf(cube, { picture }));
    expect(parts[0].name).toBe('Cube');
    expect(parts[0].picture).toBe(0);
    expect([...pictures[0].bytes]).toEqual([...picture]);
    const raised = places(cube).map((v, k) => (k % 3 === 1 ? v + 1 : v));
    places(parts[0].shape).forEach((v, k) => expect(v).toBeCloseTo(raised[k], 5));
    [1, 0.73536, 0.5371, 1].forEach((v, k) => expect(parts[0].shape.colours![k]).toBeCloseTo(v, 4));
    expect(parts[0].shape.uvs[1]).toBeCloseTo(1 - cube.uvs[1], 5);
  });

  test('a GLB whose picture is of an unknown kind shows its colour, and says which and what to do', async () => {
    const { parts, notes } = await readModel(await glbOf(cube, { picture: bytes('KTX 20') }));
    expect(parts[0].picture).toBeNull();
    expect(notes.join()).toMatch(/image\/png.*save the model with PNG or JPEG/);
  });

  test('a GLB without normals gets them, and says so', async () => {
    const ball = ballShape(1, 8, 12);
    const { parts, notes } = await readModel(await glbOf(ball, { normals: false }));
    expect(notes.join()).toMatch(/no normals/);
    for (let i = 13; i < 26; i++)
      for (let k = 0; k < 3; k++)
        expect(Math.abs(parts[0].shape.normals[3 * i + k] - ball.normals[3 * i + k])).toBeLessThan(0.3);
  });

  test('a GLB whose picture is empty shows its colour, and says so', async () => {
    const { parts, notes } = await readModel(await glbOf(cube, { picture: new Uint8Array(0) }));
    expect(parts[0].picture).toBeNull();
    expect(notes.join()).toMatch(/missing/);
  });

  test('STL, binary and text', async () => {
    const triangles = cube.triangles.length / 3;
    const binary = new DataView(new ArrayBuffer(84 + 50 * triangles));
    binary.setUint32(80, triangles, true);
    places(cube).forEach((v, k) =>
      binary.setFloat32(84 + 50 * Math.floor(k / 9) + 12 + 4 * (k % 9), v, true),
    );
    const { parts } = await readModel(new Uint8Array(binary.buffer));
    expect(places(parts[0].shape)).toEqual(places(cube));
    expect(Math.hypot(...parts[0].shape.normals.subarray(0, 3))).toBeCloseTo(1, 5);
    const text =
      'solid t\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid';
    expect((await readModel(bytes(text))).parts[0].shape.count).toBe(3);
  });

  test.each([
    ['nothing known', bytes('hello'), /no model/],
    ['a PLY that breaks off', plyOf(cube, 'binary_little_endian').subarray(0, 600), /breaks off/],
    ['an OBJ that names a point it has not', bytes('v 0 0 0\nf 1 2 3\n'), /Line 2 names 2/],
    [
      'a PLY with a face beyond its points',
      bytes(
        'ply\nformat ascii 1.0\nelement vertex 1\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n3 0 1 2\n',
      ),
      /damaged/,
    ],
    [
      'a glTF with its buffer elsewhere',
      bytes('{"asset":{"version":"2.0"},"buffers":[{"uri":"scene.bin","byteLength":4}]}'),
      /scene\.bin/,
    ],
    ['a damaged GLB', bytes('glTF nonsense that goes on for a while'), /damaged/],
    ['an STL that says it has too many', new Uint8Array(0), /no model/],
  ])('%s is refused with a reason', async (_name, content, reason) => {
    await expect(readModel(content)).rejects.toThrow(reason);
    await expect(readModel(content)).rejects.toThrow(ModelError);
  });

  test('places that are no numbers stand at 0, and it says so', async () => {
    const { parts, notes } = await readModel(bytes('v nan 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n'));
    expect(parts[0].shape.positions.every(Number.isFinite)).toBe(true);
    expect(notes.join()).toMatch(/no numbers/);
  });
});

/** A GLB of primitives of one triangle's worth of attributes, each on a node of its own under a parent that is turned. */
async function strangeGlb(
  primitives: { mode?: number; indices?: number[]; picture?: number; colours?: number[] }[],
  points: number[],
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const pictures = [0, 1].map((k) =>
    document
      .createTexture(`Picture ${k}`)
      .setImage(new Uint8Array([0x89, 0x50, 0x4e, 0x47, k]))
      .setMimeType('image/png'),
  );
  // A quarter about z: x becomes y.
  const parent = document.createNode('Parent').setRotation([0, 0, Math.SQRT1_2, Math.SQRT1_2]);
  document.createScene().addChild(parent);
  primitives.forEach(({ mode = 4, indices, picture, colours }, k) => {
    const material = document.createMaterial();
    if (picture !== undefined) material.setBaseColorTexture(pictures[picture]);
    const accessor = (type: 'VEC3' | 'SCALAR', array: Float32Array | Uint16Array) =>
      document
        .createAccessor()
        .setType(type)
        .setArray(array as Float32Array<ArrayBuffer>)
        .setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setMode(mode as 4)
      .setMaterial(material)
      .setAttribute('POSITION', accessor('VEC3', Float32Array.from(points)));
    if (indices) primitive.setIndices(accessor('SCALAR', Uint16Array.from(indices)));
    if (colours) primitive.setAttribute('COLOR_0', accessor('VEC3', Float32Array.from(colours)));
    const node = document.createNode(`Part ${k}`).setTranslation([k, 0, 0]);
    parent.addChild(node.setMesh(document.createMesh().addPrimitive(primitive)));
  });
  return new WebIO().writeBinary(document);
}

describe('what else a GLB may hold', () => {
  const corners = [0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0];

  test('strips and fans of triangles all face the same way, lines are lines', async () => {
    const kinds = [{ mode: 5 }, { mode: 6, indices: [0, 1, 3, 2] }, { mode: 3 }, { mode: 1 }];
    const { parts } = await readModel(await strangeGlb(kinds, corners));
    const [strip, fan, path, pairs] = parts.map(({ shape }) => shape);
    for (const shape of [strip, fan]) {
      expect(shape.triangles).toHaveLength(6);
      for (let t = 0; t < 6; t += 3) {
        const [a, b, c] = [...shape.triangles.subarray(t, t + 3)].map((i) => [
          ...shape.positions.subarray(3 * i, 3 * i + 3),
        ]);
        const z = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
        expect(z).toBeCloseTo(1, 5);
      }
      // Normals that are missing are worked out: all of them look at the viewer.
      for (let i = 0; i < 4; i++) expect(shape.normals[3 * i + 2]).toBeCloseTo(1, 5);
    }
    expect([...path.rows]).toEqual([0, 1, 1, 2, 2, 3]);
    expect([...pairs.rows]).toEqual([0, 1, 2, 3]);
    expect(pairs.triangles).toHaveLength(0);
  });

  test('parts stand where their node and all above it put them', async () => {
    const { parts } = await readModel(await strangeGlb([{}, {}, {}], corners.slice(0, 9)));
    expect(parts.map(({ name }) => name)).toEqual(['Part 0', 'Part 1', 'Part 2']);
    parts.forEach(({ shape }, k) => {
      // Moved along x by k, then turned by a quarter: that is up.
      expect(shape.positions[0]).toBeCloseTo(0, 5);
      expect(shape.positions[1]).toBeCloseTo(k, 5);
      expect(shape.positions[4]).toBeCloseTo(k + 1, 5);
    });
  });

  test('each part knows its picture, and colours of points are as bright as they were made', async () => {
    const grey = Array<number>(9).fill(0.2140411);
    const made = [{ picture: 1 }, { picture: 0 }, { colours: grey }, { picture: 1 }];
    const { parts, pictures } = await readModel(await strangeGlb(made, corners.slice(0, 9)));
    expect(parts.map(({ picture }) => picture)).toEqual([1, 0, null, 1]);
    expect(pictures.map(({ bytes: all }) => all[4])).toEqual([0, 1]);
    expect(parts[2].shape.colours![0]).toBeCloseTo(0.5, 4);
    expect(parts[2].shape.colours![3]).toBe(1);
  });

  test('a GLB without anything to see says so', async () => {
    const document = new Document();
    document.createBuffer();
    document.createScene().addChild(document.createNode('Nothing'));
    await expect(readModel(await new WebIO().writeBinary(document))).rejects.toThrow(/no faces or points/);
  });
});
