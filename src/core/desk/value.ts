import type { ControlValue, DeskControl, DeskPage, DeskTarget, DeskValue, Show } from '../document/types';
import { kindOf, type Catalogue } from '../kind/kind';
import { partName, partsOf, type ControlSpec } from '../kind/controls';
import { numbersOf, plainValue } from '../run/node-run';

/** How many numbers each type of desk control has; 0: it holds words. */
export const numbersOfType: Readonly<Record<DeskControl['type'], number>> = {
  fader: 1,
  dial: 1,
  pad: 1,
  switch: 1,
  xy: 2,
  chip: 4,
  choice: 0,
  title: 0,
};

/** A value that is only looked at. */
type SeenValue = string | readonly number[];

export const isWords = (value: SeenValue): value is string => typeof value === 'string';

export const sameValue = (a: SeenValue, b: SeenValue): boolean =>
  isWords(a) || isWords(b) ? a === b : a.length === b.length && a.every((v, k) => v === b[k]);

/** Holds a number between the ends of a desk control and on its steps. */
export function heldNumber(
  { range: [a, b], step }: Pick<DeskControl, 'range' | 'step'>,
  value: number,
): number {
  const [low, high] = a < b ? [a, b] : [b, a];
  let held = Number.isFinite(value) ? value : low;
  // The end itself can always be reached, also where the steps do not come out even.
  if (step > 0 && held < high) held = a + Math.round((held - a) / step) * step;
  return Math.min(high, Math.max(low, held));
}

/** A value as a control can stand at it; its home where the value is of another form. */
export function heldValue(control: DeskControl, value: DeskValue): DeskValue {
  const count = numbersOfType[control.type];
  if (count === 0) return isWords(value) ? value : control.home;
  if (isWords(value) || value.length !== count) return control.home;
  // Most values are as they can be: these are not copied.
  for (const v of value)
    if (heldNumber(control, v) !== v) return value.map((one) => heldNumber(control, one));
  return value;
}

/** Share of a range, 0..1, that a number stands at; 0 where the range has no length. */
export const shareIn = ([low, high]: readonly [number, number], value: number): number =>
  high === low ? 0 : Math.min(1, Math.max(0, (value - low) / (high - low)));

/** What a value of a desk control gives to a target: words as they are, a number's share of the range bent between the ends of the target. */
export function targetValue(
  { range }: DeskControl,
  { from, to, bend }: DeskTarget,
  value: DeskValue,
): number | string {
  if (isWords(value)) return value;
  const share = shareIn(range, value[from] ?? value[0]);
  const bent = bend === 1 ? share : Math.pow(share, bend);
  return to[0] + bent * (to[1] - to[0]);
}

/** Where a desk control stands for a number of its target; the way back. */
function deskNumber({ range: [low, high] }: DeskControl, { to, bend }: DeskTarget, value: number): number {
  const bent = shareIn(to, value);
  return low + (bend === 1 ? bent : Math.pow(bent, 1 / bend)) * (high - low);
}

/** What a target stands for in its scene; null if it is gone. */
export function targetSpec(
  show: Pick<Show, 'scenes'>,
  { scene, node, part }: DeskTarget,
  catalogue: Catalogue,
): { spec: ControlSpec; control: string; part: number; stored: ControlValue | undefined } | null {
  const found = show.scenes.find(({ id }) => id === scene)?.nodes[node];
  const kind = found && kindOf(catalogue, found);
  if (!kind) return null;
  const [control] = part.split('.');
  if (!Object.hasOwn(kind.controls, control)) return null;
  const spec = kind.controls[control];
  const names = partsOf(spec);
  const at = names.findIndex((name) => partName(control, name) === part);
  if (names.length > 0 && at < 0) return null;
  return { spec, control, part: Math.max(0, at), stored: found.controls[control] };
}

/** Where a desk control stands by what the patches hold: its home if all of its targets are gone. */
export function storedValue(
  show: Pick<Show, 'scenes'>,
  control: DeskControl,
  catalogue: Catalogue,
): DeskValue {
  const count = numbersOfType[control.type];
  if (count === 0) {
    for (const target of control.targets) {
      const found = targetSpec(show, target, catalogue);
      if (found) return String(plainValue(found.spec, found.stored));
    }
    return control.home;
  }
  const home = isWords(control.home) ? [] : control.home;
  return Array.from({ length: count }, (_, k) => {
    for (const target of control.targets) {
      if (target.from !== k) continue;
      const found = targetSpec(show, target, catalogue);
      if (found) return deskNumber(control, target, numbersOf(found.spec, found.stored)[found.part]);
    }
    return home[k] ?? control.range[0];
  });
}

/** All desk controls of a show with the page they lie on. */
export const deskControls = (pages: readonly DeskPage[]): { page: DeskPage; control: DeskControl }[] =>
  pages.flatMap((page) => page.controls.map((control) => ({ page, control })));

/** What lies on the desk, by scene, node and control: looked up for each row of an inspector with each edit. */
const lying = new WeakMap<readonly DeskPage[], Map<string, DeskControl>>();
const placeOn = (scene: string, node: string, control: string): string => `${scene} ${node} ${control}`;

/** The control of the desk that any part of a control is on; null: it is on none. */
export function onDesk(
  show: Pick<Show, 'desk'>,
  scene: string,
  node: string,
  control: string,
): DeskControl | null {
  let found = lying.get(show.desk);
  if (!found) {
    found = new Map();
    for (const { control: one } of deskControls(show.desk))
      for (const target of one.targets) {
        const at = placeOn(target.scene, target.node, target.part.split('.')[0]);
        if (!found.has(at)) found.set(at, one);
      }
    lying.set(show.desk, found);
  }
  return found.get(placeOn(scene, node, control)) ?? null;
}
