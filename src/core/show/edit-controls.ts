import type { ControlValue, Patch, PatchNode } from '../document/types';
import { partName, partsOf, type ControlSpec } from '../kind/controls';
import { kindOf, type Catalogue } from '../kind/kind';
import { plainValue } from '../run/node-run';
import { structuredCloneOf } from './create';

/** What the controls of a node hold: values, and what moves them but for wires. */
export type ControlState = Pick<PatchNode, 'kind' | 'controls' | 'formulas' | 'motions'>;

export const copyControls = ({ kind, controls, formulas, motions }: PatchNode): ControlState =>
  structuredCloneOf({ kind, controls, formulas, motions });

/** Whether a stored value is another than that with which its control begins. */
export function isChanged(spec: ControlSpec, stored: ControlValue | undefined): boolean {
  const value = plainValue(spec, stored);
  const home = plainValue(spec, spec.default as ControlValue);
  return JSON.stringify(value) !== JSON.stringify(home);
}

const typeOf = (catalogue: Catalogue, node: Pick<PatchNode, 'kind' | 'controls'>, control: string) => {
  const controls = kindOf(catalogue, node)?.controls;
  return controls && Object.hasOwn(controls, control) ? controls[control].type : undefined;
};

/**
 * Gives nodes the controls of another: all of them to those of its kind, to others those that are called alike and are of the same type.
 * A wire into a control stays, since it would win anyway. Gives how many controls were set.
 */
export function pasteControls(
  patch: Patch,
  catalogue: Catalogue,
  ids: readonly string[],
  state: ControlState,
): number {
  let count = 0;
  for (const id of ids) {
    const node = patch.nodes[id] as PatchNode | undefined;
    if (!node) continue;
    for (const [control, value] of Object.entries(state.controls)) {
      const type = typeOf(catalogue, node, control);
      if (type === undefined || type !== typeOf(catalogue, state, control)) continue;
      const { [control]: spec } = kindOf(catalogue, node)!.controls;
      // Choices of that name may be others.
      if (spec.type === 'choice' && !Object.hasOwn(spec.options, String(value))) continue;
      node.controls[control] = structuredCloneOf(value);
      count++;
      for (const part of new Set([control, ...partsOf(spec).map((name) => partName(control, name))])) {
        if (state.formulas[part] === undefined) delete node.formulas[part];
        else node.formulas[part] = state.formulas[part];
        const motions = state.motions[part] as PatchNode['motions'][string] | undefined;
        if (motions?.length) node.motions[part] = structuredCloneOf(motions);
        else delete node.motions[part];
      }
    }
  }
  return count;
}

/** The chosen nodes that an edit of one of them changes as well: those of its kind. */
export const alikeAmong = (patch: Patch, id: string, chosen: readonly string[]): string[] =>
  chosen.includes(id) ? chosen.filter((other) => patch.nodes[other]?.kind === patch.nodes[id]?.kind) : [id];
