import { asideOf, renameAsides } from '../document/return-settings';
import { renameTriggers } from '../document/motions';
import type { Module, Patch, PatchNode, Show, Wire } from '../document/types';
import { formulaName, formulaWords } from '../formula/names';
import { formulasOf, renamedFormulas } from '../kind/node-formulas';
import { carriedBy, kindOf, type Carries, type Catalogue } from '../kind/kind';
import { moduleKindId } from '../module/module-kind';
import { catalogueWith } from '../module/show-catalogue';
import { idsByName, usedWithoutWire } from '../patch/links';
import { portLabel } from '../patch/wiring';
import { freeId, freeName, makeNode, structuredCloneOf } from './create';
import { EditError } from './edit';
import { bringOut, freeModuleId } from './edit-module';

/** Patch pixels from the nodes of a new module to those by which it takes and gives, and from one of these to the next. */
const endDistance = 230;
const endPitch = 180;

/** Nodes that can be reached from some along wires of this frame, or against them. */
function reachable(patch: Patch, from: Iterable<string>, forwards: boolean): Set<string> {
  const next = new Map<string, string[]>();
  for (const { from: source, to, back } of Object.values(patch.wires)) {
    if (back) continue;
    const [a, b] = forwards ? [source.node, to.node] : [to.node, source.node];
    next.set(a, [...(next.get(a) ?? []), b]);
  }
  const seen = new Set<string>();
  const open = [...from];
  while (open.length)
    for (const node of next.get(open.pop()!) ?? [])
      if (!seen.has(node)) {
        seen.add(node);
        open.push(node);
      }
  return seen;
}

/**
 * Nodes that have to go into a module together with those chosen: what lies between two of them, since the module would otherwise
 * wait for itself, and what a frozen node stands for. Scene Out and the ends of a module stay where they are.
 */
export function goesAlong(patch: Patch, catalogue: Catalogue, chosen: readonly string[]): string[] {
  const stays = (id: string): boolean => {
    const kind = kindOf(catalogue, patch.nodes[id]);
    return (
      !patch.nodes[id] || kind?.end !== undefined || (kind?.output === 'image' && kind.isSceneOut === true)
    );
  };
  const taken = new Set(chosen.filter((id) => !stays(id)));
  const below = reachable(patch, taken, true);
  const above = reachable(patch, taken, false);
  for (const id of below) if (above.has(id) && !stays(id)) taken.add(id);
  for (const id of [...taken]) {
    const { frozen } = patch.nodes[id];
    if (frozen !== undefined && patch.nodes[frozen]) taken.add(frozen);
  }
  for (const node of Object.values(patch.nodes))
    if (node.frozen !== undefined && taken.has(node.frozen)) taken.add(node.id);
  return [...taken];
}

/** An end of a module on its way: what it carries, its name, and the place it stands at. */
interface End {
  id: string;
  node: PatchNode;
}

class ModuleMaker {
  readonly nodes: Record<string, PatchNode> = {};
  readonly wires: Record<string, Wire> = {};
  private readonly entries = new Map<string, End & { wire: Pick<Wire, 'from' | 'back'> }>();
  private readonly exits = new Map<string, End>();
  private readonly left: number;
  private readonly right: number;
  private readonly top: number;

  constructor(
    private readonly patch: Patch,
    private readonly catalogue: Catalogue,
    readonly taken: ReadonlySet<string>,
  ) {
    const places = [...taken].map((id) => patch.nodes[id].place);
    this.left = Math.min(...places.map(([x]) => x));
    this.right = Math.max(...places.map(([x]) => x));
    this.top = Math.min(...places.map(([, y]) => y));
    for (const id of taken) {
      const copy = structuredCloneOf(patch.nodes[id]);
      copy.place = [copy.place[0] - this.left, copy.place[1] - this.top];
      this.nodes[id] = copy;
    }
  }

  private endKind(end: 'in' | 'out'): { id: string } {
    for (const kind of this.catalogue.values()) if (kind.end === end) return kind;
    throw new Error(`There is no kind that ends a module (${end}).`);
  }

  private add(end: 'in' | 'out', name: string, carries: Carries, at: [number, number]): PatchNode {
    const kind = this.catalogue.get(this.endKind(end).id)!;
    const id = freeId('n', [...Object.keys(this.patch.nodes), ...Object.keys(this.nodes)]);
    const names = Object.values(this.nodes).map((node) => node.name);
    const node = makeNode(kind, id, freeName(name, names), at);
    Object.assign(node.controls, kind.adapts?.(carries));
    this.nodes[id] = node;
    return node;
  }

  private carriedFrom({ node, output }: Wire['from']): Carries | null {
    const kind = kindOf(this.catalogue, this.patch.nodes[node]);
    return kind ? carriedBy(kind, output) : null;
  }

  /** The input by which a node outside comes in, with the name it is to have. */
  entry(from: Wire['from'], back: Wire['back'], name: string): PatchNode {
    const key = `${from.node} ${from.output ?? ''} ${back ? JSON.stringify(back) : ''}`;
    const known = this.entries.get(key);
    if (known) return known.node;
    const carries = this.carriedFrom(from);
    if (!carries)
      throw new EditError(`${this.patch.nodes[from.node].name} gives nothing that a module could take.`);
    const node = this.add('in', name, carries, [-endDistance, this.entries.size * endPitch]);
    this.entries.set(key, { id: node.id, node, wire: back ? { from, back } : { from } });
    return node;
  }

  exit(from: Wire['from']): PatchNode {
    const key = `${from.node} ${from.output ?? ''}`;
    const known = this.exits.get(key);
    if (known) return known.node;
    const source = this.patch.nodes[from.node];
    const at: [number, number] = [this.right - this.left + endDistance, this.exits.size * endPitch];
    const node = this.add('out', `${source.name} out`, this.carriedFrom(from) ?? 'image', at);
    this.exits.set(key, { id: node.id, node });
    this.put({ from, to: { node: node.id, port: 'source' } });
    return node;
  }

  put(wire: Omit<Wire, 'id'>): void {
    const id = freeId('w', Object.keys(this.wires));
    this.wires[id] = { ...wire, id };
  }

  /** The inputs, and what has to be wired into each. */
  get inputs(): { input: string; wire: Pick<Wire, 'from' | 'back'> }[] {
    return [...this.entries.values()].map(({ id, wire }) => ({ input: id, wire }));
  }

  get outputs(): string[] {
    return [...this.exits.values()].map(({ id }) => id);
  }
}

/** Refuses to take away what nodes outside read without a wire. */
function refuseReadOutside(patch: Patch, catalogue: Catalogue, taken: ReadonlySet<string>): void {
  const byName = idsByName(patch);
  for (const node of Object.values(patch.nodes)) {
    if (taken.has(node.id)) continue;
    for (const { id } of usedWithoutWire(node, byName, catalogue))
      if (taken.has(id))
        throw new EditError(
          `${node.name} reads ${patch.nodes[id].name} by its name. Choose both, or read it by a wire.`,
        );
  }
  for (const wire of Object.values(patch.wires)) {
    if (taken.has(wire.from.node) && taken.has(wire.to.node)) continue;
    for (const aside of asideOf(wire.back))
      if (taken.has(aside))
        throw new EditError(
          `Feedback into ${patch.nodes[wire.to.node].name} needs ${patch.nodes[aside].name}. Choose all of it, or leave that out.`,
        );
  }
}

/**
 * Makes one node of several: they become a module of the show, and a node of it stands in their place, wired as they were. What desk
 * controls moved of them becomes controls of the module. Gives the id of the node. `place`: how desk controls name the patch.
 */
export function makeModule(
  show: Show,
  shipped: Catalogue,
  patch: Patch,
  chosen: readonly string[],
  wanted: string,
): string {
  const catalogue = catalogueWith(shipped, show.modules);
  const taken = new Set(goesAlong(patch, catalogue, chosen));
  if (taken.size === 0) throw new EditError('Choose the nodes that are to become a module.');
  refuseReadOutside(patch, catalogue, taken);
  const maker = new ModuleMaker(patch, catalogue, taken);
  const outWires: { wire: Wire; output: string }[] = [];
  for (const wire of Object.values(patch.wires)) {
    const [from, to] = [taken.has(wire.from.node), taken.has(wire.to.node)];
    const { id, ...rest } = structuredCloneOf(wire);
    void id;
    if (from && to) maker.put(rest);
    else if (to) {
      const kind = kindOf(catalogue, patch.nodes[wire.to.node]);
      const entry = maker.entry(rest.from, rest.back, kind ? portLabel(kind, wire.to.port) : wire.to.port);
      const { back, ...plain } = rest;
      void back;
      maker.put({ ...plain, from: { node: entry.id } });
    } else if (from) outWires.push({ wire, output: maker.exit(rest.from).id });
  }
  if (!outWires.length) {
    const sources = new Set(Object.values(maker.wires).map((wire) => wire.from.node));
    const last = [...taken].filter((id) => !sources.has(id)).at(-1) ?? [...taken].at(-1)!;
    maker.exit({ node: last });
  }
  bringReadsIn(patch, catalogue, maker);
  const name = freeName(
    wanted.trim() || 'Module',
    Object.values(show.modules).map((module) => module.name),
  );
  const id = freeModuleId(name, show.modules);
  const module: Module = {
    id,
    name,
    help: '',
    words: [],
    version: 1,
    nodes: maker.nodes,
    wires: maker.wires,
    controls: [],
  };
  show.modules[id] = module;
  const places = [...taken].map((node) => patch.nodes[node].place);
  const middle = (k: 0 | 1): number => Math.round(places.reduce((sum, at) => sum + at[k], 0) / places.length);
  const node = freeId('n', Object.keys(patch.nodes));
  const others = Object.values(patch.nodes).filter((other) => !taken.has(other.id));
  const placed: PatchNode = {
    id: node,
    kind: moduleKindId(id),
    name: freeName(
      name,
      others.map((other) => other.name),
    ),
    place: [middle(0), middle(1)],
    on: true,
    controls: {},
    formulas: {},
    motions: {},
    precision: 'auto',
  };
  for (const wire of Object.values(patch.wires)) if (taken.has(wire.to.node)) delete patch.wires[wire.id];
  for (const gone of taken) delete patch.nodes[gone];
  patch.nodes[node] = placed;
  const put = (wire: Omit<Wire, 'id'>): void => {
    const fresh = freeId('w', Object.keys(patch.wires));
    patch.wires[fresh] = { ...wire, id: fresh };
  };
  for (const { input, wire } of maker.inputs) put({ ...structuredCloneOf(wire), to: { node, port: input } });
  const [main] = maker.outputs;
  // Wires that leave keep their places: nodes that take many go by their order.
  for (const { wire, output } of outWires) wire.from = output === main ? { node } : { node, output };
  followOnDesk(show, catalogue, patch, module, node, taken);
  return node;
}

/** Brings in what nodes of a new module read of nodes outside by names, triggers and the asides of feedback. */
function bringReadsIn(patch: Patch, catalogue: Catalogue, maker: ModuleMaker): void {
  const byName = new Map(Object.values(patch.nodes).map((node) => [formulaName(node.name), node]));
  const entryOf = (id: string): string => {
    const outer = patch.nodes[id];
    return maker.entry({ node: id }, undefined, outer.name).id;
  };
  const other = (id: string): string => (maker.taken.has(id) || !patch.nodes[id] ? id : entryOf(id));
  for (const id of maker.taken) {
    const node = maker.nodes[id];
    renameTriggers(node, other);
    const names = new Map<string, string>();
    for (const text of formulasOf(node, catalogue))
      for (const word of formulaWords(text)) {
        const outer = byName.get(word);
        if (!outer || maker.taken.has(outer.id)) continue;
        names.set(word, formulaName(maker.nodes[entryOf(outer.id)].name));
      }
    if (!names.size) continue;
    Object.assign(node, renamedFormulas(node, names, catalogue));
  }
  for (const wire of Object.values(maker.wires)) if (wire.back) renameAsides(wire.back, other);
}

/** Desk controls go on moving what went into a module, by a control of it. */
function followOnDesk(
  show: Show,
  shipped: Catalogue,
  patch: Patch,
  module: Module,
  node: string,
  taken: ReadonlySet<string>,
): void {
  const catalogue = catalogueWith(shipped, show.modules);
  for (const page of show.desk)
    for (const control of page.controls)
      for (const target of control.targets) {
        if (target.scene !== patch.id || !taken.has(target.node)) continue;
        const [name] = target.part.split('.');
        const known = module.controls.find(
          ({ targets: [first] }) => first.node === target.node && first.control === name,
        );
        const brought = known ?? bringOut(module, catalogue, target.node, name);
        target.part = `${brought.id}${target.part.slice(name.length)}`;
        target.node = node;
        patch.nodes[node].controls[brought.id] = structuredCloneOf(brought.home);
      }
}
