import { strFromU8, unzipSync } from 'fflate';
import { allNamed, childOf, readXml, type XmlNode } from './xml';
import { anglesOf, type Vec3 } from './room';

/**
 * Reads where screens and pixel fixtures hang from an MVR file (DIN SPEC 15801), with the numbers of pixels from the GDTF files in it (DIN
 * SPEC 15800). A plain reading: models are not looked at.
 */

/** A file that is no MVR, or a damaged one: the message says why. */
export class MvrError extends Error {
  override name = 'MvrError';
}

interface Hanging {
  name: string;
  /** Metres in the room, and degrees. */
  at: Vec3;
  turn: [number, number, number];
}

interface MvrScreen extends Hanging {
  /** Metres. */
  width: number;
}

interface MvrString extends Hanging {
  /** Metres from the first pixel to the last. */
  width: number;
  pixels: number;
  /** Order of its channels, like RGB. */
  order: string;
  /** 1.., and the channel in it, 1..512. */
  universe: number;
  channel: number;
}

export interface MvrContent {
  screens: MvrScreen[];
  strings: MvrString[];
  /** What was left out, a sentence each. */
  notes: string[];
}

const sceneName = 'GeneralSceneDescription.xml';
const mostXmlBytes = 64 * 1024 * 1024;
const mostGdtfBytes = 256 * 1024 * 1024;
const mostHangings = 1000;
/** Metres that a screen or bar is given where the file says nothing. */
const unknownWidth = 1;

/** Where x, y and z of an object go, and its origin: rows of numbers. */
type Placement = readonly [Vec3, Vec3, Vec3, Vec3];
const home: Placement = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
  [0, 0, 0],
];

/** The rows of numbers in `{…}{…}`. */
const rowsOf = (text: string): number[][] =>
  [...text.matchAll(/\{([^}]*)\}/g)].map(([, row]) => row.split(',').map(Number));

/** Reads `{u}{v}{w}{o}`, the origin in millimetres. */
function readPlacement(node: XmlNode): Placement {
  const rows = rowsOf(childOf(node, 'Matrix')?.text ?? '');
  if (rows.length !== 4 || rows.some((row) => row.length < 3 || row.some((v) => !Number.isFinite(v))))
    return home;
  const [u, v, w, o] = rows as unknown as [Vec3, Vec3, Vec3, Vec3];
  return [u, v, w, o.map((mm) => mm / 1000) as unknown as Vec3];
}

/** A placement inside of another. */
function within([U, V, W, O]: Placement, [u, v, w, o]: Placement): Placement {
  const turn = (a: Vec3): Vec3 =>
    [0, 1, 2].map((k) => a[0] * U[k] + a[1] * V[k] + a[2] * W[k]) as unknown as Vec3;
  const at = turn(o);
  return [turn(u), turn(v), turn(w), [at[0] + O[0], at[1] + O[1], at[2] + O[2]]];
}

/** From z up and y away from the audience to y up and z towards it. */
const inRoom = ([x, y, z]: Vec3): Vec3 => [x, z, -y];
const lengthOf = (a: Vec3): number => Math.hypot(...a);
const unit = (a: Vec3): Vec3 => a.map((v) => v / (lengthOf(a) || 1)) as unknown as Vec3;

function hangingOf(name: string, [u, v, w, o]: Placement): Hanging {
  // The face of an object looks along its -y, its upper side along z.
  const axes = [unit(inRoom(u)), unit(inRoom(w)), unit(inRoom([-v[0], -v[1], -v[2]]))] as const;
  const fine = (value: number): number => Math.round(value * 1e6) / 1e6 + 0;
  return {
    name,
    at: inRoom(o).map(fine) as unknown as Vec3,
    turn: anglesOf(axes).map(fine) as Hanging['turn'],
  };
}

interface PixelMode {
  pixels: number;
  order: string;
  width: number;
}

const colourLetters: Readonly<Record<string, string>> = {
  ColorAdd_R: 'R',
  ColorAdd_G: 'G',
  ColorAdd_B: 'B',
  ColorAdd_W: 'W',
};

/** How many pixels a mode of a GDTF fixture has, and how their channels lie; null: it has none in a row. */
function readMode(description: XmlNode[], name: string): PixelMode | null {
  const modes = [...allNamed(description, 'DMXMode')];
  const mode = modes.find(({ attributes }) => attributes.Name === name) ?? modes[0];
  if (!mode) return null;
  const letters = new Map<string, { at: number; letter: string }[]>();
  for (const channel of allNamed([mode], 'DMXChannel')) {
    const geometry = channel.attributes.Geometry ?? '';
    const attribute = [...allNamed([channel], 'LogicalChannel')][0]?.attributes.Attribute ?? '';
    const letter = colourLetters[attribute];
    const at = Number((channel.attributes.Offset ?? '').split(',')[0]);
    if (letter && Number.isFinite(at))
      letters.set(geometry, [...(letters.get(geometry) ?? []), { at, letter }]);
  }
  const references = [...allNamed(description, 'GeometryReference')].filter(({ attributes }) =>
    letters.has(attributes.Geometry ?? ''),
  );
  const geometry = references[0]?.attributes.Geometry ?? [...letters.keys()][0];
  const own = letters.get(geometry ?? '');
  if (!own) return null;
  const order = own
    .sort((a, b) => a.at - b.at)
    .map(({ letter }) => letter)
    .join('');
  const places = references.map(({ attributes }) => {
    const rows = rowsOf(attributes.Position ?? '');
    return [0, 1, 2].map((k) => rows[k]?.[3] ?? 0);
  });
  const reach = (axis: number): number =>
    places.length
      ? Math.max(...places.map((place) => place[axis])) - Math.min(...places.map((place) => place[axis]))
      : 0;
  const width = Math.max(reach(0), reach(1), reach(2));
  return { pixels: Math.max(1, references.length), order, width: width > 0 ? width : unknownWidth };
}

/** The first channel of a fixture: an absolute number, or universe and channel. */
function addressOf(node: XmlNode): [number, number] {
  const text = [...allNamed([node], 'Address')][0]?.text.trim() ?? '';
  const [a, b] = text.split('.').map(Number);
  if (Number.isInteger(b) && Number.isInteger(a)) return [Math.max(1, a), Math.min(512, Math.max(1, b))];
  const absolute = Number.isInteger(a) && a > 0 ? a - 1 : 0;
  return [Math.floor(absolute / 512) + 1, (absolute % 512) + 1];
}

type Entries = Record<string, Uint8Array>;

function unpack(bytes: Uint8Array, isWanted: (name: string) => boolean, most: number, what: string): Entries {
  try {
    return unzipSync(bytes, { filter: ({ name, originalSize }) => isWanted(name) && originalSize <= most });
  } catch {
    throw new MvrError(`${what} is damaged: it can't be unpacked.`);
  }
}

/** Throws MvrError. */
export function readMvr(bytes: Uint8Array): MvrContent {
  const entries = unpack(
    bytes,
    (name) => name === sceneName || name.endsWith('.gdtf'),
    mostGdtfBytes,
    'This MVR file',
  );
  if (!Object.hasOwn(entries, sceneName)) throw new MvrError(`It is no MVR file: it holds no ${sceneName}.`);
  const notes: string[] = [];
  const xml = (data: Uint8Array, what: string): XmlNode[] => {
    if (data.length > mostXmlBytes) throw new MvrError(`${what} is too large.`);
    try {
      return readXml(strFromU8(data));
    } catch (cause) {
      throw new MvrError(`${what} is damaged: its tags cannot be read. Export it again.`, { cause });
    }
  };
  const fixtures = new Map<string, XmlNode[] | null>();
  const fixtureOf = (spec: string): XmlNode[] | null => {
    const file = spec.endsWith('.gdtf') ? spec : `${spec}.gdtf`;
    let known = fixtures.get(file);
    if (known === undefined) {
      known = null;
      if (Object.hasOwn(entries, file))
        try {
          const inside = unpack(entries[file], (name) => name === 'description.xml', mostXmlBytes, file);
          known = inside['description.xml'] ? xml(inside['description.xml'], file) : null;
        } catch (error) {
          notes.push((error as Error).message);
        }
      fixtures.set(file, known);
    }
    return known;
  };
  const content: MvrContent = { screens: [], strings: [], notes };
  let others = 0;
  const walk = (node: XmlNode, outer: Placement): void => {
    if (content.screens.length + content.strings.length >= mostHangings) return;
    const { name, attributes } = node;
    const isObject = name === 'GroupObject' || name === 'VideoScreen' || name === 'Fixture';
    const placement = isObject || name === 'Layer' ? within(outer, readPlacement(node)) : outer;
    const label = attributes.name?.trim() || (name === 'VideoScreen' ? 'Screen' : 'Fixture');
    if (name === 'VideoScreen')
      content.screens.push({ ...hangingOf(label, placement), width: lengthOf(placement[0]) * unknownWidth });
    else if (name === 'Fixture') {
      const description = fixtureOf(childOf(node, 'GDTFSpec')?.text.trim() ?? '');
      const mode = description && readMode(description, childOf(node, 'GDTFMode')?.text.trim() ?? '');
      if (!mode) others++;
      else {
        const [universe, channel] = addressOf(node);
        content.strings.push({ ...hangingOf(label, placement), ...mode, universe, channel });
      }
    }
    for (const child of node.children) walk(child, placement);
  };
  for (const layers of allNamed(xml(entries[sceneName], sceneName), 'Layers'))
    for (const layer of layers.children) walk(layer, home);
  if (content.screens.length) notes.push('Models of screens are not read: set their widths.');
  if (others) notes.push(`${others} fixtures without pixels of known colours were left out.`);
  return content;
}
