import { ballShape } from '../src/core/shape/make';
import { shapeObj, shapePly } from '../src/core/export/data/shapes';
import { parseCube } from '../src/core/image/cube';
import { exrHead } from '../src/core/image/exr-header';
import { sniff } from '../src/core/image/sniff';
import { readMidiFile } from '../src/core/midi/file';
import { readPacket, writePacket } from '../src/core/osc/packet';
import { readOwnShader } from '../src/core/shader/own-shader';
import { readModel } from '../src/core/shape/model/read';
import { packShow, unpackShow } from '../src/core/show/archive';
import { makeShow } from '../src/core/show/create';
import { readModule, writeModule } from '../src/core/show/module-file';
import { readShow } from '../src/core/show/validate';
import { readTable } from '../src/core/table';
import { readTitles } from '../src/core/text/titles';
import { readOutlines } from '../src/core/wall/outlines';
import { artDmx } from '../src/core/wall/pixels/art-net';
import { readPixelPacket } from '../src/core/wall/pixels/receive';
import { sacnData } from '../src/core/wall/pixels/sacn';
import { catalogue } from '../src/nodes/catalogue';
import { shippedModules } from '../src/nodes/modules/shipped';
import { pngOf } from './files';
import { mutatedBytes } from './mutate';

/** Something that reads bytes from outside: files, packets, texts. */
export interface Reader {
  name: string;
  /** Good ones, which are damaged. */
  seeds: readonly Uint8Array[];
  read(bytes: Uint8Array): unknown;
}

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const textOf = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
const ball = ballShape(1, 6, 4);

function midi(): Uint8Array {
  const track = [
    0, 0xff, 0x51, 3, 7, 0xa1, 0x20, 0, 0x90, 60, 100, 0x83, 0x60, 0x80, 60, 0, 0, 0xff, 0x2f, 0,
  ];
  const head = [0, 0, 0, 6, 0, 0, 0, 1, 0, 96];
  return Uint8Array.from([...bytesOf('MThd'), ...head, ...bytesOf('MTrk'), 0, 0, 0, track.length, ...track]);
}

const gltf = JSON.stringify({
  asset: { version: '2.0' },
  scenes: [{ nodes: [0] }],
  nodes: [{ mesh: 0 }],
  meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
  accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 0] }],
  bufferViews: [{ buffer: 0, byteLength: 36 }],
  buffers: [
    {
      byteLength: 36,
      uri: `data:application/octet-stream;base64,${Buffer.from(new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]).buffer).toString('base64')}`,
    },
  ],
});

const stl = `solid one\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid one\n`;
const [somePack] = shippedModules;

export const readers: readonly Reader[] = [
  {
    name: 'show archives',
    seeds: [packShow(makeShow(catalogue, 'Night'), new Map())],
    read: (bytes) => readShow(unpackShow(bytes).text, catalogue),
  },
  {
    name: 'module files',
    seeds: [bytesOf(writeModule(somePack))],
    read: (bytes) => readModule(textOf(bytes), catalogue),
  },
  {
    name: 'heads of media',
    seeds: [pngOf([[255, 0, 0]]), bytesOf('v/1\x01\x02\0\0\0channels\0chlist\0\x01\0\0\0\0')],
    read: (bytes) => [sniff(bytes), exrHead(bytes)],
  },
  {
    name: 'OSC packets',
    seeds: [writePacket({ address: '/fader/1', args: [0.5, 3, 'warm', true] })],
    read: readPacket,
  },
  {
    name: 'pixel packets',
    seeds: [
      artDmx(
        3,
        1,
        Uint8Array.from({ length: 60 }, (_, k) => k),
      ),
      sacnData(
        { cid: new Uint8Array(16), name: 'Pyrvel' },
        { universe: 3, sequence: 1, priority: 100, sync: 0 },
        new Uint8Array(60),
      ),
    ],
    read: readPixelPacket,
  },
  {
    name: 'shaders of one’s own',
    seeds: [
      bytesOf(
        '/*\n{ "pictures": { "below": {} }, "controls": { "red": { "type": "number", "default": 0.8 } } }\n*/\nvec4 paint(vec2 place) { return vec4(red, 0.0, 0.0, 1.0); }',
      ),
    ],
    read: (bytes) => readOwnShader(textOf(bytes)),
  },
  {
    name: 'tables',
    seeds: [bytesOf('x;y\n1;2,5\n3;-4e2\n'), bytesOf('[{"a": 1, "b": 2}, {"a": 3, "b": 4}]')],
    read: (bytes) => readTable(textOf(bytes)),
  },
  { name: 'MIDI files', seeds: [midi()], read: readMidiFile },
  {
    name: 'models',
    seeds: [bytesOf(shapeObj(ball)), bytesOf(shapePly(ball)), bytesOf(stl), bytesOf(gltf)],
    read: readModel,
  },
  {
    name: 'colour tables',
    seeds: [bytesOf('TITLE "warm"\nLUT_1D_SIZE 3\n0 0 0\n.5 .4 .3\n1 1 1\n')],
    read: (bytes) => parseCube(textOf(bytes)),
  },
  {
    name: 'timed titles',
    seeds: [bytesOf('1\n00:00:01,000 --> 00:00:02,500\nDoors\n\n2\n00:00:03,000 --> 00:00:04,000\nNow\n')],
    read: (bytes) => readTitles(textOf(bytes)),
  },
  {
    name: 'outlines',
    seeds: [
      bytesOf(
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path id="a" d="M0 0 L9 0 C9 3 6 9 0 9 Z"/></svg>',
      ),
    ],
    read: (bytes) => readOutlines(textOf(bytes)),
  },
];

/** What a machine says of itself, and nobody can do anything about. */
const noSentence =
  /undefined|is not a function|is not iterable|Cannot (read|set|convert)|Invalid (array|typed|string)|call stack|outside the bounds|out of range|\[object/;

/** Reads damaged bytes. Gives whether they were taken; throws if they were neither taken nor refused in a sentence. */
export async function trialOf(reader: Reader, random: () => number): Promise<boolean> {
  const seed = reader.seeds[Math.floor(random() * reader.seeds.length)];
  const damaged = mutatedBytes(seed, random);
  try {
    await reader.read(damaged);
    return true;
  } catch (error) {
    const { message } = error as Error;
    if (!(error instanceof Error) || noSentence.test(message) || !/[.!?)”]$/.test(message.trim()))
      throw new Error(
        `${reader.name}: no sentence: ${String(error)} on ${JSON.stringify(textOf(damaged)).slice(0, 400)}`,
        {
          cause: error,
        },
      );
    return false;
  }
}
