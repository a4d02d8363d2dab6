import type { ControlSpec } from '../kind/controls';
import { kindOf, type Catalogue } from '../kind/kind';
import { moduleIdOf } from '../module/module-kind';
import { sceneAt } from '../module/open-place';
import { inside } from '../module/place';
import type { ControlValue, PatchNode, Scene, Show } from '../document/types';

/** A node in which something was found. */
export interface FoundNode {
  scene: string;
  node: string;
  /** Where it was found, as it is shown: “Size = sin(time)”; null: in its name or in that of its kind. */
  detail: string | null;
}

/** How much better a node of the scene that is open fits than the same one of another. */
const hereBonus = 0.05;
const mostFound = 80;

/** Two numbers that look the same where they are shown. */
const isAlike = (a: number, b: number): boolean => Math.abs(a - b) <= 1e-4 * Math.max(1, Math.abs(b));

/** What a value of a control is called, where it has words; null: it has none. */
function wordsOf(spec: ControlSpec, value: ControlValue, show: Show): string | null {
  if (typeof value !== 'string') return null;
  if (spec.type === 'choice') return spec.options[value] ?? value;
  if (spec.type === 'file') return show.files[value]?.name ?? value;
  return value;
}

function found(
  show: Show,
  catalogue: Catalogue,
  node: PatchNode,
  search: string,
): { fit: number; detail: string | null } | null {
  const kind = kindOf(catalogue, node);
  const name = node.name.toLowerCase();
  if (name.startsWith(search)) return { fit: 1, detail: null };
  if (name.includes(search)) return { fit: 0.9, detail: null };
  const label = kind?.label.toLowerCase() ?? node.kind;
  if (label.includes(search)) return { fit: label.startsWith(search) ? 0.8 : 0.7, detail: null };
  const labelOf = (part: string): string => {
    const [control, rest] = part.split('.');
    return [kind?.controls[control]?.label ?? control, rest].filter(Boolean).join(' ');
  };
  for (const [part, formula] of Object.entries(node.formulas))
    if (formula.toLowerCase().includes(search)) return { fit: 0.6, detail: `${labelOf(part)} = ${formula}` };
  const number = Number(search);
  for (const [control, value] of Object.entries(node.controls)) {
    const spec = kind?.controls[control];
    if (!spec) continue;
    const words = wordsOf(spec, value, show);
    if (words?.toLowerCase().includes(search)) return { fit: 0.5, detail: `${spec.label}: ${words}` };
    const numbers = (Array.isArray(value) ? value : [value]).filter((one) => typeof one === 'number');
    if (!Number.isNaN(number) && numbers.some((one) => isAlike(one, number)))
      return { fit: 0.4, detail: `${spec.label}: ${numbers.join(', ')}` };
  }
  return null;
}

/** What lies in modules, each at the first place that leads there: nodes are found once, however often a module is used. */
function placesOfModules(show: Show): Scene[] {
  const found = new Map<string, Scene>();
  const look = (patch: Scene): void => {
    for (const node of Object.values(patch.nodes)) {
      const module = moduleIdOf(node.kind);
      if (module === null || found.has(module)) continue;
      const place = sceneAt(show, inside(patch.id, node.id));
      if (!place) continue;
      found.set(module, place);
      look(place);
    }
  };
  show.scenes.forEach(look);
  return [...found.values()];
}

/**
 * The nodes of a show in which a text is found, best first: by name, kind, formula, then by words and numbers of their controls. Those of the
 * scene that is open come before others that fit as well.
 */
export function findNodes(show: Show, catalogue: Catalogue, text: string, here: string): FoundNode[] {
  const search = text.trim().toLowerCase();
  if (!search) return [];
  const all: (FoundNode & { fit: number })[] = [];
  for (const scene of [...show.scenes, ...placesOfModules(show)])
    for (const node of Object.values(scene.nodes)) {
      const match = found(show, catalogue, node, search);
      if (match)
        all.push({
          scene: scene.id,
          node: node.id,
          detail: match.detail,
          fit: match.fit + (scene.id === here ? hereBonus : 0),
        });
    }
  return all
    .sort((a, b) => b.fit - a.fit)
    .slice(0, mostFound)
    .map(({ scene, node, detail }) => ({ scene, node, detail }));
}
