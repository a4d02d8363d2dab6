import * as Y from 'yjs';
import type { Show } from '../document/types';
import { isDict, isThings, type Dict, type Json, type Thing } from '../show/things';

/**
 * The document of a show as several machines share it: the one place where a show and a Yjs document are told apart. An object is a
 * map. A list of things with ids (scenes, nodes, cues …) is a map by id, marked by `listMark`, in which each has its place in the list under `placeKey`, so
 * that edits of one thing stay with it wherever it is moved to. Everything else, lists of numbers among it, is one value, which the last writer has.
 */

const root = 'show';
const listMark = '';
const placeKey = '#';

const isSame = (a: unknown, b: unknown): boolean => {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((one, k) => isSame(one, b[k]));
  if (!isDict(a) || !isDict(b)) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => isSame(a[key], b[key]));
};

/** Makes what stands for a value; a map is filled before it is put anywhere. */
function made(value: Json): unknown {
  if (isThings(value)) {
    const map = new Y.Map<unknown>([[listMark, true]]);
    for (const [k, thing] of value.entries()) map.set(thing.id, madeThing(thing, k));
    return map;
  }
  if (!isDict(value)) return value;
  const map = new Y.Map<unknown>();
  for (const [key, one] of Object.entries(value)) if (one !== undefined) map.set(key, made(one));
  return map;
}

function madeThing(thing: Thing, place: number): Y.Map<unknown> {
  const map = made(thing) as Y.Map<unknown>;
  map.set(placeKey, place);
  return map;
}

const placeOf = (map: unknown): number => {
  const place = map instanceof Y.Map ? (map.get(placeKey) as unknown) : null;
  return typeof place === 'number' ? place : 0;
};

/** Gives things the places of a list, and changes as few as it can: those whose place is between their neighbours' already keep it. */
function writePlaces(map: Y.Map<unknown>, things: readonly Thing[]): void {
  let last = -Infinity;
  for (const [k, { id }] of things.entries()) {
    const own = map.get(id) as Y.Map<unknown>;
    const place = placeOf(own);
    const after = things.slice(k + 1).map((one) => placeOf(map.get(one.id)));
    const next = after.find((one) => one > last) ?? Infinity;
    if (place > last && place <= next) {
      last = place;
      continue;
    }
    const between = Number.isFinite(last) ? (Number.isFinite(next) ? (last + next) / 2 : last + 1) : next - 1;
    own.set(placeKey, between);
    last = between;
  }
}

function writeThings(map: Y.Map<unknown>, before: readonly Thing[], after: readonly Thing[]): void {
  const known = new Map(before.map((thing) => [thing.id, thing]));
  const kept = new Set(after.map(({ id }) => id));
  for (const { id } of before) if (!kept.has(id)) map.delete(id);
  for (const [k, thing] of after.entries()) {
    const own = map.get(thing.id);
    const was = known.get(thing.id);
    if (own instanceof Y.Map && was) writeDict(own as Y.Map<unknown>, was, thing);
    else map.set(thing.id, madeThing(thing, k === 0 ? 0 : placeOf(map.get(after[k - 1].id)) + 1));
  }
  const isInOrder = before.length === after.length && before.every(({ id }, k) => id === after[k].id);
  if (!isInOrder) writePlaces(map, after);
}

function writeDict(map: Y.Map<unknown>, before: Dict, after: Dict): void {
  if (before === after) return;
  for (const key of Object.keys(before)) if (after[key] === undefined) map.delete(key);
  for (const [key, value] of Object.entries(after)) {
    const was = before[key];
    if (value === undefined || value === was) continue;
    const own = map.get(key);
    if (own instanceof Y.Map && isThings(was) && isThings(value))
      writeThings(own as Y.Map<unknown>, was, value);
    else if (own instanceof Y.Map && isDict(was) && isDict(value))
      writeDict(own as Y.Map<unknown>, was, value);
    else if (own === undefined || !isSame(was, value)) map.set(key, made(value));
  }
}

/** Writes what differs between two states of a show, as one transaction. `origin` is given to those who watch the document. */
export function writeShared(document: Y.Doc, before: Show | null, after: Show, origin: unknown = null): void {
  const map = document.getMap<unknown>(root);
  document.transact(
    () => writeDict(map, (before ?? {}) as unknown as Dict, after as unknown as Dict),
    origin,
  );
}

/** What stands in a document now; of `before`, all that is as it was is taken over, so that what compares by identity sees what changed. */
function read(value: unknown, before: unknown): unknown {
  if (!(value instanceof Y.Map)) return isSame(value, before) ? before : value;
  const map = value as Y.Map<unknown>;
  if (map.get(listMark) === true) {
    const old = new Map(isThings(before) ? before.map((thing) => [thing.id, thing]) : []);
    const places: { id: string; place: number }[] = [];
    for (const [id, own] of map.entries()) if (own instanceof Y.Map) places.push({ id, place: placeOf(own) });
    // Two who added at the same place at the same time: every machine puts theirs in the same order.
    places.sort((a, b) => a.place - b.place || (a.id < b.id ? -1 : 1));
    const list = places.map(({ id }) => read(map.get(id), old.get(id)));
    return Array.isArray(before) && before.length === list.length && list.every((one, k) => one === before[k])
      ? before
      : list;
  }
  const old = isDict(before) ? before : {};
  const dict: Record<string, unknown> = {};
  let isOld = isDict(before);
  for (const [key, own] of map.entries()) {
    if (key === placeKey) continue;
    dict[key] = read(own, old[key]);
    isOld &&= dict[key] === old[key];
  }
  return isOld && Object.keys(old).length === Object.keys(dict).length ? before : dict;
}

/** The show that a document holds, unchecked; null: none was written to it yet. */
export function readShared(document: Y.Doc, before: Show | null = null): unknown {
  const map = document.getMap<unknown>(root);
  return map.size === 0 ? null : read(map, before);
}
