import { MeshList } from './mesh-list';
import { ModelError, type Model } from './model';

interface Property {
  name: string;
  type: string;
  /** Type of the count in front of a list; absent: a single value. */
  countType?: string;
}

interface Element {
  name: string;
  count: number;
  properties: Property[];
}

/** Bytes of each type, under both of its names. */
const sizes: Record<string, number> = {
  char: 1,
  int8: 1,
  uchar: 1,
  uint8: 1,
  short: 2,
  int16: 2,
  ushort: 2,
  uint16: 2,
  int: 4,
  int32: 4,
  uint: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
};

/** Reads values one after the other. */
type Reader = (type: string) => number;

function binaryReader(bytes: Uint8Array, start: number, little: boolean): Reader {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = start;
  return (type) => {
    const from = at;
    at += sizes[type];
    if (at > bytes.length) throw new ModelError('The PLY file breaks off before its end.');
    switch (type) {
      case 'char':
      case 'int8':
        return view.getInt8(from);
      case 'uchar':
      case 'uint8':
        return view.getUint8(from);
      case 'short':
      case 'int16':
        return view.getInt16(from, little);
      case 'ushort':
      case 'uint16':
        return view.getUint16(from, little);
      case 'int':
      case 'int32':
        return view.getInt32(from, little);
      case 'uint':
      case 'uint32':
        return view.getUint32(from, little);
      case 'float':
      case 'float32':
        return view.getFloat32(from, little);
      default:
        return view.getFloat64(from, little);
    }
  };
}

function textReader(text: string): Reader {
  const words = text.split(/\s+/).filter(Boolean);
  let at = 0;
  return () => {
    if (at >= words.length) throw new ModelError('The PLY file breaks off before its end.');
    return Number(words[at++]);
  };
}

function headerOf(lines: readonly string[]): { format: string; elements: Element[] } {
  const elements: Element[] = [];
  let format = '';
  lines.forEach((line, k) => {
    const words = line.trim().split(/\s+/);
    if (words[0] === 'format') format = words[1] ?? '';
    else if (words[0] === 'element')
      elements.push({ name: words[1], count: Number(words[2]), properties: [] });
    else if (words[0] === 'property') {
      const isList = words[1] === 'list';
      const [type, name] = isList ? [words[3], words[4]] : [words[1], words[2]];
      const element = elements[elements.length - 1];
      if (!element || !(type in sizes) || (isList && !(words[2] in sizes)))
        throw new ModelError(`Line ${k + 1} of the PLY file cannot be read: “${line.trim().slice(0, 60)}”.`);
      element.properties.push(isList ? { name, type, countType: words[2] } : { name, type });
    }
  });
  return { format, elements };
}

const names = {
  positions: ['x', 'y', 'z'],
  normals: ['nx', 'ny', 'nz'],
} as const;

/** Reads a PLY file (Turk, "The PLY polygon file format"): text, or binary of either byte order; points with colours. */
export function readPly(bytes: Uint8Array): Model {
  const start = new TextDecoder('latin1').decode(bytes.subarray(0, 65536));
  const end = /end_header\r?\n/.exec(start);
  if (!start.startsWith('ply') || !end)
    throw new ModelError('This is no PLY file, or its header is damaged.');
  const { format, elements } = headerOf(start.slice(0, end.index).split(/\r?\n/));
  const from = end.index + end[0].length;
  const read = format.startsWith('binary')
    ? binaryReader(bytes, from, format === 'binary_little_endian')
    : textReader(new TextDecoder().decode(bytes.subarray(from)));
  const list = new MeshList();
  // Everything takes a byte at least: what counts more is damaged, and would be waited for without an end.
  const counted = (many: number, what: string): number => {
    if (Number.isInteger(many) && many >= 0 && many <= bytes.length) return many;
    throw new ModelError(`The PLY file is damaged: it counts ${many} ${what}. Export it again.`);
  };
  for (const { name, count: said, properties } of elements) {
    const count = counted(said, `of ${name}`);
    const types = new Map(properties.map((p) => [p.name, p.type]));
    const scale = (channel: string): number => (/float|double/.test(types.get(channel) ?? '') ? 1 : 255);
    for (let i = 0; i < count; i++) {
      const values: Record<string, number> = {};
      let points: number[] = [];
      for (const property of properties) {
        if (property.countType === undefined) values[property.name] = read(property.type);
        else {
          const length = counted(read(property.countType), `of ${property.name}`);
          const many = Array.from({ length }, () => read(property.type));
          if (property.name.startsWith('vert')) points = many;
        }
      }
      if (name === 'vertex') addPoint(list, values, scale);
      else if (name === 'face') list.face(points);
    }
  }
  if (list.count === 0) throw new ModelError('There are no points in this PLY file.');
  const notes: string[] = [];
  return { parts: [{ name: 'Part 1', shape: list.shape(notes), picture: null }], pictures: [], notes };
}

function addPoint(list: MeshList, values: Record<string, number>, scale: (channel: string) => number): void {
  list.positions.push(...names.positions.map((axis) => values[axis]));
  if ('nx' in values) list.normals.push(...names.normals.map((axis) => values[axis]));
  const u = values.s ?? values.u ?? values.texture_u;
  const v = values.t ?? values.v ?? values.texture_v;
  if (u !== undefined && v !== undefined) list.uvs.push(u, v);
  if ('red' in values)
    list.colours.push(
      ...['red', 'green', 'blue'].map((channel) => values[channel] / scale(channel)),
      'alpha' in values ? values.alpha / scale('alpha') : 1,
    );
}
