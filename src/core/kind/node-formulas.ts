import type { PatchNode } from '../document/types';
import { renameInFormula } from '../formula/names';
import { kindOf, type Catalogue } from './kind';

/** Controls of a node that are formulas over other nodes, with their texts: those of images speak of places alone. */
function formulaControls(node: PatchNode, catalogue: Catalogue): [string, string][] {
  const kind = kindOf(catalogue, node);
  if (kind?.output === 'image') return [];
  return Object.entries(kind?.controls ?? {}).flatMap(([control, spec]): [string, string][] => {
    const text = node.controls[control];
    return spec.type === 'formula' && typeof text === 'string' ? [[control, text]] : [];
  });
}

/** Formulas of a node: on its controls, and those that are controls. */
export const formulasOf = (node: PatchNode, catalogue: Catalogue): string[] => [
  ...Object.values(node.formulas),
  ...formulaControls(node, catalogue).map(([, text]) => text),
];

/** The formulas and controls of a node with other names for nodes that it speaks of; what does not change keeps its identity. */
export function renamedFormulas(
  node: PatchNode,
  names: ReadonlyMap<string, string>,
  catalogue: Catalogue,
): Pick<PatchNode, 'formulas' | 'controls'> {
  const formulas = Object.entries(node.formulas).map(([part, text]) => [part, renameInFormula(text, names)]);
  const controls = formulaControls(node, catalogue).map(([control, text]) => [
    control,
    renameInFormula(text, names),
  ]);
  const taken = <T>(before: Readonly<Record<string, T>>, after: string[][]): Record<string, T> =>
    after.some(([key, text]) => text !== before[key])
      ? { ...before, ...(Object.fromEntries(after) as Record<string, T>) }
      : before;
  return { formulas: taken(node.formulas, formulas), controls: taken(node.controls, controls) };
}
