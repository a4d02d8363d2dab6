import { defaultReturn, renameAsides } from '../document/return-settings';
import { kindOf } from '../kind/kind';
import { formulaName, renameInFormula } from '../formula/names';
import { renamedFormulas } from '../kind/node-formulas';
import { partName, partsOf, rangeOf } from '../kind/controls';
import { carriedBy, passThroughOf, takes, type Carries, type Catalogue, type Kind } from '../kind/kind';
import { portOf, portTakes, reaches } from '../patch/wiring';
import { renameTriggers } from '../document/motions';
import { naturalRangeOf } from '../run/natural-range';
import { freeId, freeName, makeNode, structuredCloneOf } from './create';
import type { ControlValue, Fit, Motion, PatchNode, Patch, Wire } from '../document/types';

/**
 * The edits of a patch. Each changes the scene it is given in place (the app hands in a draft that records changes, so
 * that undo is exact) and throws EditError, before anything changed, if it makes no sense.
 */
export class EditError extends Error {
  override name = 'EditError';
}

function nodeOf(scene: Patch, id: string): PatchNode {
  const node = scene.nodes[id];
  if (!node) throw new EditError(`There is no node ${id} in ${scene.name}.`);
  return node;
}

const namesOf = (scene: Patch): string[] => Object.values(scene.nodes).map((node) => node.name);

export function addNode(
  scene: Patch,
  catalogue: Catalogue,
  kindId: string,
  place: readonly [number, number],
): string {
  const kind = catalogue.get(kindId);
  if (!kind) throw new EditError(`There is no node kind ${kindId}.`);
  const id = freeId('n', Object.keys(scene.nodes));
  scene.nodes[id] = makeNode(kind, id, freeName(kind.label, namesOf(scene)), place);
  return id;
}

/** The fit a signal gets where it is first wired to a control: its natural range on the control's useful one. */
function firstFit(source: PatchNode, target: PatchNode, port: string, catalogue: Catalogue): Fit | null {
  const kind = kindOf(catalogue, target);
  const found = kind && portOf(kind, port);
  if (!kind || found?.type !== 'control') return null;
  const [low, high] = rangeOf(kind.controls[found.control]);
  return { from: naturalRangeOf(source, catalogue), to: [low, high], bend: 1, edges: 'pass' };
}

/**
 * Draws a wire. What the port held before is replaced unless it takes many; a wire that closes a cycle becomes a
 * return wire. Gives its id.
 */
export function connect(
  scene: Patch,
  catalogue: Catalogue,
  from: string,
  to: string,
  port: string,
  output?: string,
): string {
  const source = nodeOf(scene, from);
  const target = nodeOf(scene, to);
  const sourceKind = kindOf(catalogue, source);
  let targetKind = kindOf(catalogue, target);
  if (!sourceKind || !targetKind) throw new EditError('A placeholder cannot be wired.');
  if (sourceKind.output === 'image' && sourceKind.isSceneOut)
    throw new EditError('Nothing leaves Scene Out.');
  let carried = carriedBy(sourceKind, output);
  if (!carried) throw new EditError(`${source.name} has no output ${output!}.`);
  let accepted = portTakes(targetKind, port);
  if (accepted && !accepted.includes(carried)) {
    const adapted = adapt(scene, catalogue, target, carried);
    if (adapted) {
      targetKind = adapted;
      accepted = portTakes(adapted, port);
    } else carried = adapt(scene, catalogue, source, accepted[0])?.output ?? carried;
  }
  if (!accepted) throw new EditError(`${target.name} has no port ${port}.`);
  if (!accepted.includes(carried)) {
    throw new EditError(
      `${target.name} takes ${accepted.join(' or ')} there, and ${source.name} gives ${carried}.`,
    );
  }
  const found = portOf(targetKind, port)!;
  const many = found.type === 'input' && targetKind.inputs[found.name].many;
  for (const wire of Object.values(scene.wires)) {
    if (wire.to.node !== to) continue;
    if (
      many
        ? wire.to.port === port && wire.from.node === from && wire.from.output === output
        : replaces(port, wire.to.port)
    )
      delete scene.wires[wire.id];
  }
  const closes = reaches(scene, to, from);
  const id = freeId('w', Object.keys(scene.wires));
  const wire: Wire = { id, from: { node: from }, to: { node: to, port } };
  if (output !== undefined) wire.from.output = output;
  const fit = firstFit(source, target, port, catalogue);
  if (fit) wire.fit = fit;
  if (closes) wire.back = defaultReturn();
  scene.wires[id] = wire;
  return id;
}

/** The kind of a node as it would be if that were wired to it: one that can carry several things follows its first wire. */
export function kindCarrying(
  scene: Patch,
  catalogue: Catalogue,
  node: PatchNode,
  carried: Carries,
): Kind | undefined {
  const kind = kindOf(catalogue, node);
  if (
    !kind?.adapts ||
    Object.values(scene.wires).some(({ from, to }) => from.node === node.id || to.node === node.id)
  )
    return kind;
  return kindOf(catalogue, { ...node, controls: { ...node.controls, ...kind.adapts(carried) } });
}

/** Has a node that can carry several things carry this one, if nothing is wired to it yet; gives its kind then, or null. */
function adapt(scene: Patch, catalogue: Catalogue, node: PatchNode, carried: Carries): Kind | null {
  const kind = kindCarrying(scene, catalogue, node, carried);
  if (!kind || kind === kindOf(catalogue, node)) return null;
  Object.assign(node.controls, kind.adapts?.(carried));
  return kind;
}

/** Whether a wire to `port` takes the place of one to `old`: the same port, or a control and its part. */
const replaces = (port: string, old: string): boolean =>
  old === port || old.startsWith(`${port}.`) || port.startsWith(`${old}.`);

export function disconnect(scene: Patch, wire: string): void {
  delete scene.wires[wire];
}

/** Removes nodes and their wires; where a wire ran through a removed node, its ends are joined if they fit. */
export function removeNodes(scene: Patch, catalogue: Catalogue, ids: readonly string[]): void {
  for (const id of ids) {
    const node = scene.nodes[id];
    const kind = node && kindOf(catalogue, node);
    if (kind?.output === 'image' && kind.isSceneOut) continue;
    const through = kind ? passThroughOf(kind) : null;
    const into = Object.values(scene.wires).find(
      (w) => w.to.node === id && w.to.port === through && w.from.node !== id,
    );
    const out = Object.values(scene.wires).filter((w) => w.from.node === id && w.to.node !== id);
    for (const wire of Object.values(scene.wires)) {
      if (wire.from.node === id || wire.to.node === id) delete scene.wires[wire.id];
      else if (wire.back) {
        renameAsides(wire.back, (aside) => (aside === id ? null : aside));
      }
    }
    delete scene.nodes[id];
    for (const node of Object.values(scene.nodes))
      renameTriggers(node, (trigger) => (trigger === id ? null : trigger));
    if (!into) continue;
    for (const wire of out) {
      const back = wire.back ?? into.back;
      const joined: Wire = { ...wire, from: { ...into.from } };
      if (back) joined.back = back;
      if (into.from.node === wire.to.node && !back) continue;
      scene.wires[wire.id] = joined;
    }
  }
}

/** Puts a node between the ends of a wire: its first fitting input and its output. */
export function insertOnWire(scene: Patch, catalogue: Catalogue, wireId: string, nodeId: string): boolean {
  const wire = scene.wires[wireId];
  const node = scene.nodes[nodeId];
  if (!wire || !node || wire.from.node === nodeId || wire.to.node === nodeId) return false;
  let kind = kindOf(catalogue, node);
  const sourceKind = kindOf(catalogue, scene.nodes[wire.from.node]);
  const carried = sourceKind && carriedBy(sourceKind, wire.from.output);
  if (!carried) return false;
  if (kind && kind.output !== carried) kind = adapt(scene, catalogue, node, carried) ?? kind;
  if (kind?.output !== carried) return false;
  const input = Object.entries(kind.inputs).find(([, spec]) => takes(spec, carried) && spec.reads !== 'data');
  if (!input) return false;
  const [port] = input;
  const { node: from, output } = wire.from;
  // A node that stands elsewhere in the patch leaves its old place first, so that no second cycle arises.
  if (reaches(scene, nodeId, from) || reaches(scene, wire.to.node, nodeId)) return false;
  wire.from = { node: nodeId };
  connect(scene, catalogue, from, nodeId, port, output);
  return true;
}

/** Renames a node; formulas that speak of it follow. */
export function renameNode(scene: Patch, id: string, wanted: string): void {
  const node = nodeOf(scene, id);
  const name = wanted.trim().slice(0, 60);
  if (!name) throw new EditError('A node needs a name.');
  const others = Object.values(scene.nodes).filter((other) => other.id !== id);
  const before = formulaName(node.name);
  node.name = freeName(
    name,
    others.map((other) => other.name),
  );
  const names = new Map([[before, formulaName(node.name)]]);
  for (const other of Object.values(scene.nodes)) {
    for (const part of Object.keys(other.formulas))
      other.formulas[part] = renameInFormula(other.formulas[part], names);
    for (const [control, value] of Object.entries(other.controls)) {
      if (control === 'formula' && typeof value === 'string')
        other.controls[control] = renameInFormula(value, names);
    }
  }
}

export function moveNode(scene: Patch, id: string, place: readonly [number, number]): void {
  nodeOf(scene, id).place = [Math.round(place[0]), Math.round(place[1])];
}

export function switchNode(scene: Patch, id: string, on: boolean): void {
  nodeOf(scene, id).on = on;
}

export function setControl(scene: Patch, id: string, control: string, value: ControlValue): void {
  nodeOf(scene, id).controls[control] = value;
}

/** Gives a control a second value for work, or takes it away (null). */
export function setDraft(scene: Patch, id: string, control: string, value: ControlValue | null): void {
  const node = nodeOf(scene, id);
  if (value !== null) {
    node.draft = { ...node.draft, [control]: value };
    return;
  }
  if (!node.draft) return;
  delete node.draft[control];
  if (Object.keys(node.draft).length === 0) delete node.draft;
}

/** Lays a formula on a part of a control, or takes it away (null). A wire there is removed, since it would win. */
export function setFormula(scene: Patch, id: string, part: string, text: string | null): void {
  const node = nodeOf(scene, id);
  if (text === null) {
    delete node.formulas[part];
    return;
  }
  node.formulas[part] = text;
  const control = part.split('.')[0];
  for (const wire of Object.values(scene.wires)) {
    if (wire.to.node === id && (wire.to.port === part || wire.to.port === control))
      delete scene.wires[wire.id];
  }
}

export function setMotions(scene: Patch, id: string, part: string, motions: Motion[]): void {
  const node = nodeOf(scene, id);
  if (motions.length) node.motions[part] = motions;
  else delete node.motions[part];
}

/** Everything a control goes back to when it is sent home: its value, and nothing that drives it. */
export function sendHome(scene: Patch, catalogue: Catalogue, id: string, control: string): void {
  const node = nodeOf(scene, id);
  const kind = kindOf(catalogue, node);
  if (!kind || !Object.hasOwn(kind.controls, control)) return;
  const spec = kind.controls[control];
  node.controls[control] = structuredCloneOf(spec.default) as ControlValue;
  for (const part of partsOf(spec).map((name) => partName(control, name))) {
    delete node.formulas[part];
    delete node.motions[part];
  }
  for (const wire of Object.values(scene.wires)) {
    if (wire.to.node === id && (wire.to.port === control || wire.to.port.startsWith(`${control}.`)))
      delete scene.wires[wire.id];
  }
}

/** Part of a patch on its way through the clipboard. */
export interface Clipping {
  format: 'pyrvel.clipping';
  nodes: PatchNode[];
  wires: Wire[];
  /** Name and kind of the nodes outside from which wires come in: only the same ones are wired again. */
  outside: Record<string, string>;
}

const mark = (node: PatchNode): string => `${node.kind} ${node.name}`;

/** Copies nodes with all wires that enter them, those from outside too. */
export function copyNodes(scene: Patch, ids: readonly string[]): Clipping {
  const chosen = new Set(ids);
  const wires = Object.values(scene.wires).filter((wire) => chosen.has(wire.to.node));
  const outside = wires.map((wire) => wire.from.node).filter((id) => !chosen.has(id) && scene.nodes[id]);
  return structuredCloneOf({
    format: 'pyrvel.clipping' as const,
    nodes: Object.values(scene.nodes).filter((node) => chosen.has(node.id)),
    wires,
    outside: Object.fromEntries(outside.map((id) => [id, mark(scene.nodes[id])])),
  });
}

/**
 * Puts copied nodes into a scene, moved by `offset`. Wires among them are kept, as are wires from nodes that stay
 * where they are if this scene has those; formulas follow the new names. Gives the new ids.
 */
export function pasteNodes(
  scene: Patch,
  catalogue: Catalogue,
  clipping: Clipping,
  offset: readonly [number, number],
): string[] {
  const fresh = new Map<string, string>();
  const renamed = new Map<string, string>();
  for (const copied of clipping.nodes) {
    const kind = kindOf(catalogue, copied);
    if (kind?.output === 'image' && kind.isSceneOut) continue;
    const id = freeId('n', Object.keys(scene.nodes));
    const name = freeName(copied.name, namesOf(scene));
    if (name !== copied.name) renamed.set(formulaName(copied.name), formulaName(name));
    fresh.set(copied.id, id);
    scene.nodes[id] = {
      ...structuredCloneOf(copied),
      id,
      name,
      place: [copied.place[0] + offset[0], copied.place[1] + offset[1]],
    };
  }
  for (const id of fresh.values()) {
    const node = scene.nodes[id];
    renameTriggers(node, (trigger) => fresh.get(trigger) ?? (scene.nodes[trigger] ? trigger : null));
    Object.assign(node, renamedFormulas(node, renamed, catalogue));
  }
  for (const wire of clipping.wires) {
    const to = fresh.get(wire.to.node);
    const there = scene.nodes[wire.from.node];
    const known = there && clipping.outside[there.id] === mark(there) ? there.id : null;
    const from = fresh.get(wire.from.node) ?? known;
    if (!to || !from) continue;
    const id = freeId('w', Object.keys(scene.wires));
    const copy = {
      ...structuredCloneOf(wire),
      id,
      from: { ...wire.from, node: from },
      to: { ...wire.to, node: to },
    };
    if (copy.back) {
      renameAsides(copy.back, (aside) => fresh.get(aside) ?? (scene.nodes[aside] ? aside : null));
      // Only part of the cycle was copied: what is left is a plain wire.
      if (!reaches(scene, to, from)) delete copy.back;
    }
    scene.wires[id] = copy;
  }
  return [...fresh.values()];
}
