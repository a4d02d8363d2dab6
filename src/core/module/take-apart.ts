import { renameTriggers } from '../document/motions';
import { renameAsides } from '../document/return-settings';
import type {
  ControlValue,
  Fit,
  Module,
  ModuleControl,
  ModuleTarget,
  Motion,
  Patch,
  PatchNode,
  Scene,
  Show,
  Wire,
} from '../document/types';
import { formulaName } from '../formula/names';
import { renamedFormulas } from '../kind/node-formulas';
import { partName, partsOf, type ControlSpec } from '../kind/controls';
import { carriedBy, kindOf, type Catalogue } from '../kind/kind';
import type { FlatScene, Forward } from '../patch/flat-scene';
import { bypassPort, endsOf, moduleIdOf, resultPort, takenApartId } from './module-kind';
import { inside } from './place';
import type { ShowCatalogue } from './show-catalogue';

type Modules = Readonly<Record<string, Module>>;

/** Modules lie in modules as deep as this; deeper ones, as a damaged file may have them, stay whole and give nothing. */
const deepestModule = 12;

/** The line that leads from a module's control to what it sets. */
function lineTo(control: ModuleControl, target: ModuleTarget): { factor: number; offset: number } {
  if (!target.to) return { factor: 1, offset: 0 };
  const [low, high] = control.range;
  const factor = high === low ? 0 : (target.to[1] - target.to[0]) / (high - low);
  return { factor, offset: target.to[0] - factor * low };
}

/** A fit whose values go along a line. */
function fitAlong(fit: Fit | undefined, control: ModuleControl, target: ModuleTarget): Fit | undefined {
  if (!target.to) return fit;
  const { factor, offset } = lineTo(control, target);
  const from: Fit = fit ?? { from: control.range, to: control.range, bend: 1, edges: 'pass' };
  return { ...from, to: [from.to[0] * factor + offset, from.to[1] * factor + offset] };
}

/** Motions whose way goes along a line. */
const motionsAlong = (motions: readonly Motion[], factor: number): Motion[] =>
  motions.map((motion) =>
    motion.type === 'follow' || motion.type === 'colours' || factor === 1
      ? motion
      : { ...motion, amount: motion.amount * factor },
  );

/** A text of a formula along a line; `value` stands for what the hand set on the module. */
function formulaAlong(text: string, value: ControlValue, line: { factor: number; offset: number }): string {
  if (line.factor === 1 && line.offset === 0) return text;
  const set = typeof value === 'number' ? value : Number(value) || 0;
  const own = text.replace(/(?<![A-Za-z0-9_.])value(?![A-Za-z0-9_(.])/g, `(${set})`);
  return `(${own}) * (${line.factor}) + (${line.offset})`;
}

/** A scene on its way to one without modules: its nodes and wires, found by what they touch. */
class Flat {
  readonly nodes = new Map<string, PatchNode>();
  readonly wires = new Map<string, Wire>();
  readonly forwards: Record<string, Forward[]> = {};
  private readonly into = new Map<string, Set<string>>();
  private readonly outOf = new Map<string, Set<string>>();
  private readonly names = new Set<string>();

  add(node: PatchNode): void {
    this.nodes.set(node.id, node);
    this.names.add(formulaName(node.name));
  }

  put(wire: Wire): void {
    this.wires.set(wire.id, wire);
    for (const [map, node] of [
      [this.into, wire.to.node],
      [this.outOf, wire.from.node],
    ] as const) {
      const set = map.get(node);
      if (set) set.add(wire.id);
      else map.set(node, new Set([wire.id]));
    }
  }

  /** Lets a wire begin elsewhere; it keeps its place among those that enter the same node. */
  beginAt(wire: Wire, node: string): void {
    this.outOf.get(wire.from.node)?.delete(wire.id);
    this.put({ ...wire, from: { node } });
  }

  drop(id: string): void {
    const wire = this.wires.get(id);
    if (!wire) return;
    this.wires.delete(id);
    this.into.get(wire.to.node)?.delete(id);
    this.outOf.get(wire.from.node)?.delete(id);
  }

  wiresInto = (node: string): Wire[] => [...(this.into.get(node) ?? [])].map((id) => this.wires.get(id)!);
  wiresFrom = (node: string): Wire[] => [...(this.outOf.get(node) ?? [])].map((id) => this.wires.get(id)!);

  /** A name that no other node has in formulas. */
  freeName(wanted: string): string {
    if (!this.names.has(formulaName(wanted))) return wanted;
    for (let k = 2; ; k++) if (!this.names.has(formulaName(`${wanted} ${k}`))) return `${wanted} ${k}`;
  }
}

/** Puts the inside of a module node into the scene, and leads all that reached the node to where it belongs there. */
function takeApart(flat: Flat, node: PatchNode, module: Module, catalogue: Catalogue): PatchNode[] {
  const ends = endsOf(module, catalogue);
  const own = (id: string): string => inside(node.id, id);
  const names = new Map<string, string>();
  const fresh: PatchNode[] = [];
  for (const inner of Object.values(module.nodes)) {
    const name = flat.freeName(`${node.name} › ${inner.name}`);
    names.set(formulaName(inner.name), formulaName(name));
    const delay = (node.delay ?? 0) + (inner.delay ?? 0);
    const copy: PatchNode = { ...inner, id: own(inner.id), name };
    if (delay !== 0) copy.delay = delay;
    flat.add(copy);
    fresh.push(copy);
  }
  for (const copy of fresh) {
    Object.assign(copy, renamedFormulas(copy, names, catalogue));
    copy.motions = renamedTriggers(copy, own);
  }
  for (const wire of Object.values(module.wires)) {
    const copy: Wire = {
      ...wire,
      id: own(wire.id),
      from: { ...wire.from, node: own(wire.from.node) },
      to: { ...wire.to, node: own(wire.to.node) },
    };
    if (wire.back) {
      copy.back = { ...wire.back };
      renameAsides(copy.back, own);
    }
    flat.put(copy);
  }
  giveSize(flat, node, fresh, catalogue);
  leadEnds(flat, node, ends, catalogue);
  const { controls } = kindOf(catalogue, node)!;
  for (const control of module.controls)
    if (Object.hasOwn(controls, control.id)) leadControl(flat, node, control, controls[control.id]);
  flat.nodes.set(node.id, { ...node, kind: takenApartId(node.kind) });
  return fresh.filter(({ kind }) => moduleIdOf(kind) !== null);
}

const mapValues = <T>(record: Record<string, T>, map: (value: T) => T): Record<string, T> => {
  const entries = Object.entries(record);
  return entries.length ? Object.fromEntries(entries.map(([key, value]) => [key, map(value)])) : record;
};

function renamedTriggers(node: PatchNode, own: (id: string) => string): PatchNode['motions'] {
  if (
    !Object.values(node.motions)
      .flat()
      .some((motion) => motion.type === 'hit')
  )
    return node.motions;
  const copy = { ...node, motions: mapValues(node.motions, (list) => list.map((motion) => ({ ...motion }))) };
  renameTriggers(copy, own);
  return copy.motions;
}

/** A module with a size of its own is a picture in the picture: what begins inside is as large as it. */
function giveSize(flat: Flat, node: PatchNode, fresh: readonly PatchNode[], catalogue: Catalogue): void {
  if (!node.size) return;
  for (const copy of fresh) {
    const kind = kindOf(catalogue, copy);
    if (!kind || kind.output !== 'image' || copy.size || kind.sizeFrom) continue;
    const reads = flat
      .wiresInto(copy.id)
      .some(({ to }) => Object.hasOwn(kind.inputs, to.port) && kind.inputs[to.port].carries === 'image');
    if (!reads) copy.size = node.size;
  }
}

/** Leads wires of the module's inputs and outputs to the nodes inside by which it takes and gives. */
function leadEnds(flat: Flat, node: PatchNode, ends: ReturnType<typeof endsOf>, catalogue: Catalogue): void {
  const shown = kindOf(catalogue, node)!;
  const inputs = new Set(ends.in.map(({ id }) => id));
  let passesBy = false;
  for (const end of ends.in) {
    for (const wire of flat.wiresInto(node.id)) {
      if (wire.to.port !== end.id) continue;
      const entry = inside(node.id, end.id);
      // What is wired in takes the place of what stands in for it.
      for (const standIn of flat.wiresInto(entry)) flat.drop(standIn.id);
      flat.put({ ...wire, id: `${wire.id}>in`, to: { node: entry, port: 'source' } });
      if (!passesBy && shown.inputs[end.id]?.carries === shown.output) {
        flat.put({ ...wire, id: `${wire.id}>by`, to: { node: node.id, port: bypassPort } });
        passesBy = true;
      }
    }
  }
  for (const wire of flat.wiresInto(node.id)) if (inputs.has(wire.to.port)) flat.drop(wire.id);
  const [first] = ends.out;
  if (first)
    flat.put({
      id: inside(node.id, '>out'),
      from: { node: inside(node.id, first.id) },
      to: { node: node.id, port: resultPort },
    });
  for (const wire of flat.wiresFrom(node.id)) {
    const { output } = wire.from;
    if (output === undefined) continue;
    if (carriedBy(shown, output) === null) flat.drop(wire.id);
    else flat.beginAt(wire, inside(node.id, output));
  }
}

/** Sets what a control of a module stands for: by its value, and by what drives it. */
function leadControl(flat: Flat, node: PatchNode, control: ModuleControl, spec: ControlSpec): void {
  const value = node.controls[control.id] ?? control.home;
  const parts = partsOf(spec);
  for (const target of control.targets) {
    const id = inside(node.id, target.node);
    const inner = flat.nodes.get(id);
    if (!inner) continue;
    const line = parts.length === 1 ? lineTo(control, target) : { factor: 1, offset: 0 };
    const isPlain = line.factor === 1 && line.offset === 0;
    const given = isPlain || typeof value !== 'number' ? value : value * line.factor + line.offset;
    inner.controls = { ...inner.controls, [target.control]: given };
    const work = node.draft?.[control.id];
    if (work !== undefined) {
      const own = isPlain || typeof work !== 'number' ? work : work * line.factor + line.offset;
      inner.draft = { ...inner.draft, [target.control]: own };
    }
    for (const part of parts.length ? parts : ['']) {
      const [from, to] = [partName(control.id, part), partName(target.control, part)];
      const key = `${node.id} ${from}`;
      (flat.forwards[key] ??= []).push({ node: id, part: to, ...line });
      const formula = node.formulas[from];
      if (formula !== undefined)
        inner.formulas = { ...inner.formulas, [to]: formulaAlong(formula, value, line) };
    }
    for (const part of new Set([control.id, ...parts.map((name) => partName(control.id, name))])) {
      const motions = node.motions[part];
      if (!motions?.length) continue;
      const to = `${target.control}${part.slice(control.id.length)}`;
      inner.motions = {
        ...inner.motions,
        [to]: [...(inner.motions[to] ?? []), ...motionsAlong(motions, line.factor)],
      };
    }
    leadWires(flat, node, control, target, inner);
  }
}

/** Wires that drive a control of a module drive what it sets, in place of what drives that inside. */
function leadWires(
  flat: Flat,
  node: PatchNode,
  control: ModuleControl,
  target: ModuleTarget,
  inner: PatchNode,
): void {
  for (const wire of flat.wiresInto(node.id)) {
    const { port } = wire.to;
    if (port !== control.id && !port.startsWith(`${control.id}.`)) continue;
    const to = `${target.control}${port.slice(control.id.length)}`;
    for (const old of flat.wiresInto(inner.id))
      if (old.to.port === to || old.to.port.startsWith(`${to}.`)) flat.drop(old.id);
    const copy: Wire = { ...wire, id: `${wire.id}>${inner.id}.${to}`, to: { node: inner.id, port: to } };
    const fit = fitAlong(wire.fit, control, target);
    if (fit) copy.fit = fit;
    flat.put(copy);
  }
}

/** A patch with one of its module nodes taken apart, and nothing else. */
export function takeNodeApart(
  patch: Patch,
  node: PatchNode,
  module: Module,
  catalogue: Catalogue,
): { nodes: ReadonlyMap<string, PatchNode>; wires: ReadonlyMap<string, Wire> } {
  const flat = flatOf(patch);
  takeApart(flat, node, module, catalogue);
  return flat;
}

function flatOf(patch: Patch): Flat {
  const flat = new Flat();
  for (const node of Object.values(patch.nodes)) flat.add(node);
  for (const wire of Object.values(patch.wires)) flat.put(wire);
  return flat;
}

/** Whether plain data is the same; what is one object is not looked into. */
function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const keys = Object.keys(a);
  if (keys.length !== Object.keys(b).length) return false;
  return keys.every(
    (key) => Object.hasOwn(b, key) && isSame(a[key as keyof typeof a], b[key as keyof typeof b]),
  );
}

/** The same entries with every one that did not change as it was before; all of it as before where none did. */
function kept<T extends object>(
  before: Record<string, T> | undefined,
  after: Map<string, T>,
): Record<string, T> {
  if (!before) return Object.fromEntries(after);
  let changed = Object.keys(before).length !== after.size;
  const result: Record<string, T> = {};
  for (const [id, now] of after) {
    const was = before[id] as T | undefined;
    // Within a node, what did not change stays as well: motions and formulas that are other objects count as driven otherwise.
    if (was && isSame(was, now)) result[id] = was;
    else {
      changed = true;
      result[id] = was ? keptFields(was, now) : now;
    }
  }
  return changed ? result : before;
}

function keptFields<T extends object>(before: T, after: T): T {
  const result = { ...after };
  for (const key of Object.keys(after) as (keyof T)[])
    if (before[key] !== after[key] && isSame(before[key], after[key])) result[key] = before[key];
  return result;
}

const hasModules = (scene: Scene, modules: Modules): boolean =>
  Object.values(scene.nodes).some(({ kind }) => {
    const id = moduleIdOf(kind);
    return id !== null && Object.hasOwn(modules, id);
  });

/**
 * A scene without modules: in place of each module node stand the nodes inside of it, wired to the rest as the node was, and the node itself,
 * which hands on what comes out. A scene that has none is given back as it is. `before`: what this gave for an earlier state of the
 * scene, whose unchanged parts are kept.
 */
export function takeSceneApart(
  scene: Scene,
  modules: Modules,
  catalogue: Catalogue,
  before: FlatScene | null = null,
): FlatScene {
  if (!hasModules(scene, modules)) return scene;
  const flat = flatOf(scene);
  let open = Object.values(scene.nodes).filter(({ kind }) => moduleIdOf(kind) !== null);
  for (let depth = 0; open.length && depth < deepestModule; depth++) {
    const next: PatchNode[] = [];
    for (const { id } of open) {
      const node = flat.nodes.get(id)!;
      const module = modules[moduleIdOf(node.kind)!] as Module | undefined;
      if (module) next.push(...takeApart(flat, node, module, catalogue));
    }
    open = next;
  }
  return {
    ...scene,
    nodes: kept(before?.nodes, flat.nodes),
    wires: kept(before?.wires, flat.wires),
    forwards: before?.forwards && isSame(before.forwards, flat.forwards) ? before.forwards : flat.forwards,
  };
}

/** A scene that was taken apart for who does not know its modules: their nodes become relays. */
export function relaysFor(flat: FlatScene, catalogue: Catalogue): Scene {
  const relay = [...catalogue.values()].find(
    ({ handsOn, end }) => handsOn !== undefined && end === undefined,
  )!;
  const apart = new Map<string, PatchNode>();
  for (const node of Object.values(flat.nodes)) {
    const kind = kindOf(catalogue, node);
    if (kind?.handsOnWhileOff === undefined) continue;
    const controls = relay.adapts?.(kind.output) ?? {};
    apart.set(node.id, { ...node, kind: relay.id, controls, formulas: {}, motions: {} });
  }
  const wires = Object.values(flat.wires).flatMap((wire): Wire[] => {
    if (!apart.has(wire.to.node)) return [wire];
    return wire.to.port === resultPort ? [{ ...wire, to: { node: wire.to.node, port: relay.handsOn! } }] : [];
  });
  const { id, name, loop } = flat;
  return {
    id,
    name,
    loop,
    nodes: { ...flat.nodes, ...Object.fromEntries(apart) },
    wires: Object.fromEntries(wires.map((wire) => [wire.id, wire])),
  };
}

/** Shows without modules, one state after the other: a scene is taken apart again only where it or a module has changed. */
export class ShowApart {
  private last: { show: Show; apart: Show } | null = null;

  constructor(private readonly catalogue: ShowCatalogue) {}

  of(show: Show): Show {
    const { last, catalogue } = this;
    if (last?.show === show) return last.apart;
    catalogue.take(show.modules);
    const sameModules = last?.show.modules === show.modules;
    const scenes = show.scenes.map((scene) => {
      const at = last?.show.scenes.findIndex(({ id }) => id === scene.id) ?? -1;
      const before = last && at >= 0 ? { scene: last.show.scenes[at], apart: last.apart.scenes[at] } : null;
      if (
        before?.scene === scene &&
        (sameModules || (before.apart === scene && !hasModules(scene, show.modules)))
      )
        return before.apart;
      return takeSceneApart(scene, show.modules, catalogue, before?.apart ?? null);
    });
    const apart = { ...show, scenes };
    this.last = { show, apart };
    return apart;
  }
}
