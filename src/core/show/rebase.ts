import type { Show } from '../document/types';
import { isDict, isThings, type Dict, type Thing } from './things';

/** Puts things into the order of `after`; those it does not have stay behind what they stood behind. */
function ordered(things: readonly Thing[], after: readonly Thing[]): Thing[] {
  const places = new Map(after.map(({ id }, k) => [id, k]));
  let last = -1;
  const placed = things.map((thing, k) => {
    last = places.get(thing.id) ?? last;
    return { thing, place: last, k };
  });
  return placed.sort((a, b) => a.place - b.place || a.k - b.k).map(({ thing }) => thing);
}

function mergeThings(base: readonly Thing[], before: readonly Thing[], after: readonly Thing[]): Thing[] {
  const was = new Map(before.map((thing) => [thing.id, thing]));
  const now = new Map(after.map((thing) => [thing.id, thing]));
  const here = new Set(base.map(({ id }) => id));
  const list = base
    .filter(({ id }) => !was.has(id) || now.has(id))
    .map((thing) => {
      const [old, next] = [was.get(thing.id), now.get(thing.id)];
      return old && next ? (merge(thing, old, next) as Thing) : thing;
    });
  for (const [k, thing] of after.entries()) {
    if (was.has(thing.id) || here.has(thing.id)) continue;
    const behind = k === 0 ? -1 : list.findIndex(({ id }) => id === after[k - 1].id);
    list.splice(behind + 1, 0, thing);
  }
  const common = after.filter(({ id }) => was.has(id));
  const old = before.filter(({ id }) => now.has(id));
  const isMoved = common.some(({ id }, k) => id !== old[k].id);
  return isMoved ? ordered(list, after) : list;
}

function mergeDict(base: Dict, before: Dict, after: Dict): Dict {
  const next = { ...base };
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const [old, value] = [before[key], after[key]];
    if (old === value) continue;
    if (value === undefined) delete next[key];
    // What was changed is not here: there is nothing to change.
    else if (old !== undefined && next[key] === undefined) continue;
    else next[key] = merge(next[key], old, value) as Dict[string];
  }
  return next;
}

function merge(base: unknown, before: unknown, after: unknown): unknown {
  if (before === after) return base;
  if (base === before) return after;
  const isList = isThings(base) && isThings(after) && (before === undefined || isThings(before));
  if (isList) return mergeThings(base, before ?? [], after);
  if (isDict(base) && isDict(after) && (before === undefined || isDict(before)))
    return mergeDict(base, before ?? {}, after);
  return after;
}

/** A show without the wires whose ends are gone: one may have been drawn to what the other took away. */
function withoutLooseWires(show: Show, before: Show): Show {
  const old = new Set(before.scenes);
  const scenes = show.scenes.map((scene) => {
    if (old.has(scene)) return scene;
    const loose = Object.entries(scene.wires).filter(
      ([, { from, to }]) => !scene.nodes[from.node] || !scene.nodes[to.node],
    );
    if (loose.length === 0) return scene;
    const wires = { ...scene.wires };
    for (const [id] of loose) delete wires[id];
    return { ...scene, wires };
  });
  return scenes.every((scene, k) => scene === show.scenes[k]) ? show : { ...show, scenes };
}

/**
 * A state of a show, with what somebody else did between two other states done to it too: undo goes back to it and leaves
 * theirs. Parts that are alike by identity cost nothing. What was changed of a thing that is not in `base` is left out.
 */
export function rebased(base: Show, before: Show, after: Show): Show {
  return withoutLooseWires(merge(base, before, after) as Show, base);
}
