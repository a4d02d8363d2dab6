import { fromOklab, toOklab } from '../colour';
import type { ControlValue, Patch } from '../document/types';
import { isAngle, limit, partName, partsOf, type ControlSpec } from '../kind/controls';
import { kindOf, type Catalogue } from '../kind/kind';
import { numbersOf, plainValue } from '../run/node-run';
import { randomAt } from '../random';
import { structuredCloneOf } from './create';

/** A control of a node that can be varied. */
export interface Variable {
  /** Node and control with a blank between. */
  key: string;
  node: string;
  control: string;
  spec: ControlSpec;
}

/** Values of controls, by the key of a variable. */
export type VariedValues = Readonly<Record<string, ControlValue>>;

/** Furthest a colour goes, in OKLab: lightness, and both axes of colour. */
const colourReach = [0.3, 0.14, 0.14] as const;
/** Share of choices that change at full strength. */
const choiceShare = 0.4;

/** Types of controls whose values lie on a way between others. */
const varied: ReadonlySet<ControlSpec['type']> = new Set([
  'number',
  'whole',
  'angle',
  'point',
  'vector',
  'colour',
  'choice',
]);

const key = (node: string, control: string): string => `${node} ${control}`;

/** What of a patch can be varied: numbers, places, colours and choices that nothing drives, in the order of its nodes. */
export function variablesOf(patch: Patch, catalogue: Catalogue): Variable[] {
  const driven = new Set(Object.values(patch.wires).map(({ to }) => key(to.node, to.port.split('.')[0])));
  return Object.values(patch.nodes).flatMap((node) => {
    const kind = kindOf(catalogue, node);
    if (!kind || !node.on || kind.end) return [];
    const plain = Object.fromEntries(
      Object.entries(kind.controls).map(([name, spec]) => [name, plainValue(spec, node.controls[name])]),
    );
    return Object.entries(kind.controls).flatMap(([control, spec]): Variable[] => {
      if (!varied.has(spec.type) || driven.has(key(node.id, control))) return [];
      if (spec.shownIf && !spec.shownIf(plain)) return [];
      if (partsOf(spec).some((part) => node.formulas[partName(control, part)] !== undefined)) return [];
      return [{ key: key(node.id, control), node: node.id, control, spec }];
    });
  });
}

/** The values that a patch has of these. */
export const valuesOf = (patch: Patch, variables: readonly Variable[]): VariedValues =>
  Object.fromEntries(
    variables.map(({ key: id, node, control, spec }) => {
      const value = plainValue(spec, patch.nodes[node].controls[control]);
      const single = Array.isArray(value) && partsOf(spec).length === 1;
      return [id, structuredCloneOf(single ? (value[0] as number) : value)];
    }),
  );

/** A number moved towards one at random in its useful range; one outside of that stays near where it is. */
function moveNumber(spec: ControlSpec, value: number, strength: number, at: number): number {
  const [low, high] = 'range' in spec ? spec.range : [0, 1];
  const wanted = low + (high - low) * at;
  const beyond = value < Math.min(low, high) || value > Math.max(low, high);
  const goal = beyond ? value * (0.5 + at) : wanted;
  const moved = value + (goal - value) * strength;
  const digits = isAngle(spec) ? 10 : 1000;
  return limit(spec, spec.type === 'whole' ? Math.round(moved) : Math.round(moved * digits) / digits);
}

function moveColour(value: readonly number[], strength: number, random: (k: number) => number): number[] {
  const lab = toOklab([value[0], value[1], value[2]]);
  const moved = lab.map((v, k) => v + (2 * random(k) - 1) * colourReach[k] * strength);
  const [r, g, b] = fromOklab([Math.min(1, Math.max(0, moved[0])), moved[1], moved[2]]);
  const hold = (v: number): number => Math.round(Math.min(1, Math.max(0, v)) * 1000) / 1000;
  return [hold(r), hold(g), hold(b), value[3]];
}

/**
 * Values moved at random from where they are, each within its useful range. `strength` 0 leaves all, 1 gives any value of the
 * range. The same seed gives the same values.
 */
export function vary(
  base: VariedValues,
  variables: readonly Variable[],
  strength: number,
  seed: number,
): VariedValues {
  const result: Record<string, ControlValue> = {};
  variables.forEach(({ key: id, spec }, k) => {
    const random = (j: number): number => randomAt(8 * k + j, seed);
    const value = base[id];
    if (spec.type === 'choice') {
      const options = Object.keys(spec.options);
      const changes = random(0) < strength * choiceShare;
      result[id] = changes ? options[Math.floor(random(1) * options.length)] : value;
      return;
    }
    const numbers = numbersOf(spec, value);
    if (spec.type === 'colour') result[id] = moveColour(numbers, strength, random);
    else {
      const moved = numbers.map((v, j) => moveNumber(spec, v, strength, random(j)));
      result[id] = moved.length === 1 ? moved[0] : moved;
    }
  });
  return result;
}

/** A child of two: each value is that of the one or the other. */
export function cross(a: VariedValues, b: VariedValues, seed: number): VariedValues {
  const keys = Object.keys(a);
  return Object.fromEntries(
    keys.map((id, k) => [id, randomAt(k, seed) < 0.5 || !Object.hasOwn(b, id) ? a[id] : b[id]]),
  );
}

/** Sets the values in a patch, changing it in place; those of nodes that are gone are left out. */
export function setValues(patch: Patch, values: VariedValues): void {
  for (const [id, value] of Object.entries(values)) {
    const [node, control] = id.split(' ');
    if (Object.hasOwn(patch.nodes, node)) patch.nodes[node].controls[control] = structuredCloneOf(value);
  }
}
