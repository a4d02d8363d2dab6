import { mostFree } from '../desk/grid';
import { numbersOfType, storedValue, targetSpec, targetValue } from '../desk/value';
import type { DeskValues } from '../desk/desk-run';
import type {
  Binding,
  BindSource,
  BindTarget,
  Cue,
  DeskControl,
  DeskPage,
  DeskTarget,
  Scene,
  Show,
  Snapshot,
} from '../document/types';
import { kindOf, type Catalogue } from '../kind/kind';
import { limit, partLabel, partName, partsOf, rangeOf, type ControlSpec } from '../kind/controls';
import { EditError } from './edit';
import { freeId, freeName } from './create';

/**
 * The edits of all that is played by hand. Like those of a patch, each changes the show it is given in place, and throws EditError before
 * anything changed if it makes no sense.
 */

const idsOf = (items: readonly { id: string }[]): string[] => items.map(({ id }) => id);

const allControls = (show: Show): DeskControl[] => show.desk.flatMap(({ controls }) => controls);

export function pageOf(show: Show, id: string): DeskPage {
  const page = show.desk.find((one) => one.id === id);
  if (!page) throw new EditError('This page of the desk is gone.');
  return page;
}

export function controlOf(show: Show, id: string): DeskControl {
  const control = allControls(show).find((one) => one.id === id);
  if (!control) throw new EditError('This desk control is gone.');
  return control;
}

/** Adds a page; of one scene, or of the whole show (null). Gives its id. */
export function addPage(show: Show, scene: string | null, name?: string): string {
  const id = freeId('p', idsOf(show.desk));
  const wanted = name ?? show.scenes.find((one) => one.id === scene)?.name ?? 'Show';
  show.desk.push({
    id,
    name: freeName(
      wanted,
      show.desk.map((page) => page.name),
    ),
    scene,
    controls: [],
    corners: [null, null, null, null],
  });
  return id;
}

/** The first page of a scene, made where there is none. */
function pageFor(show: Show, scene: string | null): DeskPage {
  const found = show.desk.find((page) => page.scene === scene);
  return found ?? pageOf(show, addPage(show, scene));
}

/** What a control of a node becomes on the desk. */
function typeFor(spec: ControlSpec, numbers: number): DeskControl['type'] | null {
  switch (spec.type) {
    case 'toggle':
      return 'switch';
    case 'button':
      return 'pad';
    case 'colour':
      return numbers === 4 ? 'chip' : 'fader';
    case 'angle':
      return 'dial';
    case 'point':
      return numbers === 2 ? 'xy' : 'fader';
    case 'number':
    case 'whole':
    case 'vector':
      return 'fader';
    case 'choice':
      return 'choice';
    case 'text':
      return 'title';
    case 'gradient':
    case 'curves':
    case 'formula':
    case 'numbers':
    case 'file':
    case 'code':
    case 'device':
    case 'key':
      return null;
  }
}

/** Cells that each type takes, columns and rows. */
const cellsOf: Readonly<Record<DeskControl['type'], [number, number]>> = {
  fader: [1, 3],
  dial: [1, 2],
  pad: [1, 1],
  switch: [1, 1],
  chip: [1, 2],
  xy: [3, 3],
  choice: [2, 1],
  title: [3, 2],
};

/** Numbers of a control that a part of it stands for: one, or all of a colour or point (the control as a whole). */
const partsFor = (control: string, part: string, spec: ControlSpec): string[] =>
  part === control ? partsOf(spec).map((name) => partName(control, name)) : [part];

/** Whether a control can lie on the desk at all. */
export const canLieOnDesk = (spec: ControlSpec): boolean => typeFor(spec, partsOf(spec).length) !== null;

/**
 * Puts a control of a node on the desk: `part` is a control (`colour`, all of it) or a part of one (`place.x`). It begins with the useful
 * range of the control and stands where that stands. Gives the id of the desk control.
 */
export function putOnDesk(
  show: Show,
  catalogue: Catalogue,
  { scene: sceneId, node: nodeId, part }: { scene: string; node: string; part: string },
  pageId: string | null = null,
): string {
  const scene = show.scenes.find(({ id }) => id === sceneId);
  const node = scene?.nodes[nodeId];
  const kind = node && kindOf(catalogue, node);
  if (!scene || !kind) throw new EditError('This node is gone.');
  const [control] = part.split('.');
  if (!Object.hasOwn(kind.controls, control)) throw new EditError(`${node.name} has no control ${control}.`);
  const spec = kind.controls[control];
  const parts = partsFor(control, part, spec);
  const type = typeFor(spec, parts.length);
  if (!type) throw new EditError(`${spec.label} is nothing that a hand can move on the desk.`);
  if (spec.type === 'vector' && parts.length > 1)
    throw new EditError(`Choose x, y or z of ${spec.label}: each is a fader of its own.`);
  for (const one of parts) refuseDriven(scene, nodeId, control, one, node.name);
  const page = pageId === null ? pageFor(show, sceneId) : pageOf(show, pageId);
  const range: [number, number] =
    spec.type === 'button' ? [0, 1e6] : spec.type === 'toggle' ? [0, 1] : [...rangeOf(spec)];
  const targets: DeskTarget[] = (parts.length ? parts : [control]).map((one, from) => ({
    scene: sceneId,
    node: nodeId,
    part: one,
    from,
    to: [...range],
    bend: 1,
  }));
  const label =
    parts.length === 1 ? partLabel(spec, partsOf(spec).indexOf(part.split('.')[1] ?? '')) : spec.label;
  const size = cellsOf[type];
  const made: DeskControl = {
    id: freeId('c', idsOf(allControls(show))),
    name: freeName(
      label,
      page.controls.map(({ name }) => name),
    ),
    type,
    place: mostFree(page.controls, size),
    size: [...size],
    range,
    step: spec.type === 'whole' || spec.type === 'button' ? 1 : 0,
    home: numbersOfType[type] ? [range[0]] : '',
    unit: 'unit' in spec ? (spec.unit ?? '') : '',
    stored: true,
    targets,
    motions: [],
  };
  // A value that the patch has beyond the useful range is in reach as well.
  if (numbersOfType[type] && spec.type !== 'button' && spec.type !== 'toggle') widen(show, catalogue, made);
  made.home = storedValue(show, made, catalogue);
  page.controls.push(made);
  return made.id;
}

function widen(show: Show, catalogue: Catalogue, control: DeskControl): void {
  let [low, high] = control.range;
  for (const target of control.targets) {
    const found = targetSpec(show, target, catalogue);
    const { stored } = found ?? {};
    const value = Array.isArray(stored) ? stored[found!.part] : stored;
    if (typeof value !== 'number') continue;
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  control.range = [low, high];
  for (const target of control.targets) target.to = [low, high];
}

/** A wire always wins: what lies on the desk would do nothing. */
function refuseDriven(scene: Scene, node: string, control: string, part: string, name: string): void {
  const wire = Object.values(scene.wires).find(
    ({ to }) => to.node === node && (to.port === part || to.port === control),
  );
  if (wire)
    throw new EditError(
      `${name} is driven there by a wire from ${scene.nodes[wire.from.node]?.name ?? 'a node'}. Put a control of that node on the desk, or take the wire off.`,
    );
}

/** Lets a desk control move a further control, at the range that this has. */
export function addTarget(
  show: Show,
  catalogue: Catalogue,
  id: string,
  { scene, node, part }: { scene: string; node: string; part: string },
): void {
  const control = controlOf(show, id);
  const from = 0;
  const target: DeskTarget = { scene, node, part, from, to: [0, 1], bend: 1 };
  const found = targetSpec(show, target, catalogue);
  if (!found) throw new EditError('There is no such control.');
  const count = numbersOfType[control.type];
  const isWord = partsOf(found.spec).length === 0;
  if (isWord !== (count === 0))
    throw new EditError(`${control.name} and ${found.spec.label} do not fit together.`);
  if (control.targets.some((one) => one.scene === scene && one.node === node && one.part === part))
    throw new EditError(`${control.name} moves it already.`);
  const owner = show.scenes.find((one) => one.id === scene)!;
  refuseDriven(owner, node, found.control, part, owner.nodes[node].name);
  target.to = [...rangeOf(found.spec)];
  control.targets.push(target);
}

export function removeDeskControl(show: Show, id: string): void {
  for (const page of show.desk) page.controls = page.controls.filter((one) => one.id !== id);
  show.bindings = show.bindings.filter(({ target }) => target.type !== 'desk' || target.control !== id);
  for (const snapshot of show.snapshots) delete snapshot.values[id];
  for (const cue of show.cues) cue.moves = cue.moves.filter(({ control }) => control !== id);
  show.moves = show.moves.filter((move) => move.type !== 'desk' || move.control !== id);
}

export function removePage(show: Show, id: string): void {
  for (const control of pageOf(show, id).controls) removeDeskControl(show, control.id);
  show.desk = show.desk.filter((page) => page.id !== id);
}

/** Takes what the desk stands at into the patches: what was found by hand becomes what the show begins with. */
export function writeDesk(show: Show, catalogue: Catalogue, values: DeskValues): void {
  for (const control of allControls(show)) {
    if (!(control.id in values)) continue;
    const value = values[control.id];
    for (const target of control.targets) {
      const found = targetSpec(show, target, catalogue);
      const node = show.scenes.find(({ id }) => id === target.scene)?.nodes[target.node];
      if (!found || !node) continue;
      const given = targetValue(control, target, value);
      if (typeof given === 'string') {
        node.controls[found.control] = given;
        continue;
      }
      const number = limit(found.spec, given);
      const stored = found.stored ?? found.spec.default;
      node.controls[found.control] = Array.isArray(stored)
        ? (stored as number[]).map((old, k) => (k === found.part ? number : old))
        : found.spec.type === 'toggle'
          ? number > 0.5
          : number;
    }
  }
}

/** Stores values of desk controls as a new snapshot, or in one that is there. Gives its id. */
export function storeSnapshot(
  show: Show,
  values: DeskValues,
  scene: string | null,
  into: string | null = null,
): string {
  const copy = Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, typeof value === 'string' ? value : [...value]]),
  );
  const there = show.snapshots.find(({ id }) => id === into);
  if (there) {
    there.values = copy;
    return there.id;
  }
  const made: Snapshot = {
    id: freeId('k', idsOf(show.snapshots)),
    name: freeName(
      `${show.scenes.find(({ id }) => id === scene)?.name ?? 'Desk'} 1`,
      show.snapshots.map(({ name }) => name),
    ),
    scene,
    values: copy,
  };
  show.snapshots.push(made);
  return made.id;
}

export function removeSnapshot(show: Show, id: string): void {
  show.snapshots = show.snapshots.filter((one) => one.id !== id);
  for (const { corners } of show.desk) corners.forEach((corner, k) => corner === id && (corners[k] = null));
  for (const cue of show.cues) if (cue.snapshot === id) cue.snapshot = null;
  if (show.home.snapshot === id) show.home.snapshot = null;
  show.bindings = show.bindings.filter(({ target }) => target.type !== 'snapshot' || target.snapshot !== id);
  show.moves = show.moves.filter((move) => move.type !== 'recall' || move.snapshot !== id);
}

/** A cue as it begins: it changes nothing yet. */
export function addCue(show: Show, after: string | null, scene: string | null): string {
  const id = freeId('q', idsOf(show.cues));
  const made: Cue = {
    id,
    name: show.scenes.find((one) => one.id === scene)?.name ?? `Cue ${show.cues.length + 1}`,
    note: '',
    scene,
    snapshot: null,
    seconds: 2,
    moves: [],
    transition: null,
    bpm: null,
    go: { type: 'hand' },
    back: null,
  };
  const at = show.cues.findIndex((one) => one.id === after);
  show.cues.splice(at < 0 ? show.cues.length : at + 1, 0, made);
  return id;
}

export function cueOf(show: Show, id: string): Cue {
  const cue = show.cues.find((one) => one.id === id);
  if (!cue) throw new EditError('This cue is gone.');
  return cue;
}

export function removeCue(show: Show, id: string): void {
  show.cues = show.cues.filter((one) => one.id !== id);
  for (const cue of show.cues) if (cue.back?.cue === id) cue.back = null;
  show.moves = show.moves.filter((move) => move.type !== 'cue' || move.cue !== id);
}

/** Moves an item of a list by so many places, as far as there are any. */
export function moveInList<T extends { id: string }>(list: T[], id: string, by: number): void {
  const from = list.findIndex((one) => one.id === id);
  if (from < 0) return;
  const to = Math.min(list.length - 1, Math.max(0, from + by));
  list.splice(to, 0, ...list.splice(from, 1));
}

/** Binds a source; the same source on the same target is bound once. Gives the id of the binding. */
export function bind(show: Show, source: BindSource, target: BindTarget): string {
  const key = JSON.stringify([source, target]);
  const there = show.bindings.find((one) => JSON.stringify([one.source, one.target]) === key);
  if (there) return there.id;
  const made: Binding = {
    id: freeId('b', idsOf(show.bindings)),
    source,
    target,
    way: 'absolute',
    pickup: target.type === 'desk' || target.type === 'master',
    feedback: true,
  };
  show.bindings.push(made);
  return made.id;
}

/** Takes all out of what is played by hand that speaks of a scene that is gone. */
export function forgetScene(show: Show, scene: string): void {
  for (const page of show.desk.filter((one) => one.scene === scene)) removePage(show, page.id);
  for (const control of allControls(show))
    control.targets = control.targets.filter((target) => target.scene !== scene);
  for (const snapshot of show.snapshots.filter((one) => one.scene === scene))
    removeSnapshot(show, snapshot.id);
  for (const cue of show.cues) if (cue.scene === scene) cue.scene = null;
  show.bindings = show.bindings.filter(({ target }) => target.type !== 'scene' || target.scene !== scene);
  if (show.home.scene === scene) show.home.scene = null;
  const { mask } = show.transition;
  if (mask?.from === 'scene' && mask.id === scene) show.transition.mask = null;
}
