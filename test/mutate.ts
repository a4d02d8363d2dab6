/** Numbers 0..1 from a seed (mulberry32): the same run finds the same faults. */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

type Holder = Record<string, unknown> | unknown[];
interface Place {
  holder: Holder;
  key: string;
}

const isHolder = (value: unknown): value is Holder => typeof value === 'object' && value !== null;

function placesIn(value: unknown, found: Place[] = []): Place[] {
  if (!isHolder(value)) return found;
  for (const [key, inner] of Object.entries(value)) {
    found.push({ holder: value, key });
    placesIn(inner, found);
  }
  return found;
}

/** What hands, other programs and broken disks put into files. */
const oddValues: readonly unknown[] = [
  null, true, false, 0, -1, 1, 0.5, 2, 64, 1e-308, 1e39, -1e39, 1e308, 8193, '', 'constructor', '__proto__', 'toString', 'n1', 'n2', 'w1',
  'noise', 'instances', 'image', 'place.x', 'sin(time', 'drift * 2', ')', '((((', 'time; x = 2', 'auto', '32', [], {}, [0], [[]], [1, 2, 3],
  { id: 'n1' }, { at: 0, colour: [1, 1, 1, 1] }, 'x'.repeat(300),
]; // prettier-ignore

/** A copy of a document with one or two things changed: removed, replaced, exchanged, renamed or doubled. */
export function mutated(document: unknown, random: () => number): unknown {
  const copy: unknown = structuredClone(document);
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  for (let k = 1 + Math.floor(random() * 2); k > 0; k--) {
    const places = placesIn(copy);
    const { holder, key } = one(places);
    const other = one(places);
    const at = holder as Record<string, unknown>;
    const from = other.holder as Record<string, unknown>;
    switch (Math.floor(random() * 6)) {
      case 0:
        if (Array.isArray(holder)) holder.splice(Number(key), 1);
        else delete at[key];
        break;
      case 1:
      case 2:
        at[key] = structuredClone(one(oddValues));
        break;
      case 3:
        at[key] = structuredClone(from[other.key]);
        break;
      case 4:
        if (!Array.isArray(holder)) {
          const value = at[key];
          delete at[key];
          at[String(one(['constructor', 'n1', 'w1', 'hasOwnProperty', `${key}2`, '']))] = value;
        }
        break;
      default:
        if (Array.isArray(holder)) holder.push(structuredClone(holder[Number(key)]));
        else at[`${key}9`] = structuredClone(at[key]);
    }
  }
  return copy;
}

/** Bytes and words that readers take for lengths, counts, ends and signs. */
const oddBytes: readonly (readonly number[])[] = [
  [0], [255], [127], [128], [0, 0, 0, 0], [255, 255, 255, 255], [127, 255, 255, 255], [255, 255, 255, 127], [0, 0, 0, 1], [10], [34], [60], [123], [125],
  [...'-1'].map((c) => c.charCodeAt(0)), [...'1e999'].map((c) => c.charCodeAt(0)), [...'NaN'].map((c) => c.charCodeAt(0)),
]; // prettier-ignore

/** A copy of bytes with one to four things changed: a bit turned, bytes replaced, cut out, doubled or broken off. */
export function mutatedBytes(bytes: Uint8Array, random: () => number): Uint8Array {
  let copy = Uint8Array.from(bytes);
  for (let k = 1 + Math.floor(random() * 4); k > 0; k--) {
    const at = Math.floor(random() * copy.length);
    const length = 1 + Math.floor(random() * 16);
    const odd = oddBytes[Math.floor(random() * oddBytes.length)];
    switch (Math.floor(random() * 6)) {
      case 0:
        if (copy.length) copy[at] ^= 1 << Math.floor(random() * 8);
        break;
      case 1:
        copy.set(odd.slice(0, copy.length - at), at);
        break;
      case 2:
        copy = Uint8Array.from([...copy.subarray(0, at), ...odd, ...copy.subarray(at)]);
        break;
      case 3:
        copy = Uint8Array.from([...copy.subarray(0, at), ...copy.subarray(at + length)]);
        break;
      case 4:
        copy = Uint8Array.from([...copy.subarray(0, at + length), ...copy.subarray(at)]);
        break;
      default:
        if (random() < 0.3) copy = copy.slice(0, at);
    }
  }
  return copy;
}
