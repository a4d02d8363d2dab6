import type { Module, ModuleControl, PatchNode } from '../document/types';
import type { ControlSpec } from '../kind/controls';
import { kindOf, type Carries, type Catalogue, type InputSpec, type Kind } from '../kind/kind';
import { relayKind, type RelaySpec } from '../kind/relay';
import { naturalRangeOf } from '../run/natural-range';

/** The node kind of a module, as its id. */
export const moduleKindId = (module: string): string => `module-${module}`;

/** The module that a node kind stands for; null if it stands for none. */
export const moduleIdOf = (kind: string): string | null =>
  kind.startsWith('module-') ? kind.slice('module-'.length) : null;

/** What the node of a module becomes once it is taken apart: it hands on what comes out inside. */
export const takenApartId = (kind: string): string => `${kind}:apart`;

/** Inputs of a module that was taken apart: what comes out inside, and what passes by while it is off. */
export const resultPort = 'result';
export const bypassPort = 'bypass';

type Ends = Record<'in' | 'out', PatchNode[]>;

const byHeight = (a: PatchNode, b: PatchNode): number =>
  a.place[1] - b.place[1] || a.place[0] - b.place[0] || (a.id < b.id ? -1 : 1);

/** The nodes by which a patch takes and gives, from top to bottom. */
export function endsOf({ nodes }: Pick<Module, 'nodes'>, catalogue: Catalogue): Ends {
  const ends: Ends = { in: [], out: [] };
  for (const node of Object.values(nodes)) {
    const end = kindOf(catalogue, node)?.end;
    if (end) ends[end].push(node);
  }
  ends.in.sort(byHeight);
  ends.out.sort(byHeight);
  return ends;
}

/** The spec of a control inside without what it says of its neighbours there, which do not come along. */
function aloneSpec(spec: ControlSpec): ControlSpec {
  const { shownIf, ...rest } = spec;
  void shownIf;
  const alone = rest as unknown as Record<string, unknown>;
  delete alone.pace;
  delete alone.drag;
  delete alone.playhead;
  const handle = alone.handle as { of?: string } | undefined;
  if (handle?.of !== undefined) delete alone.handle;
  if (typeof alone.span === 'object') alone.span = 8;
  return alone as unknown as ControlSpec;
}

/** What a control of a module is like: as the first that it sets, by its own name, range and home. */
export function moduleControlSpec(
  { nodes }: Pick<Module, 'nodes'>,
  control: ModuleControl,
  catalogue: Catalogue,
): ControlSpec | null {
  const [target] = control.targets;
  const kind = kindOf(catalogue, nodes[target.node]);
  const spec = kind && Object.hasOwn(kind.controls, target.control) ? kind.controls[target.control] : null;
  if (!spec) return null;
  const own = {
    ...aloneSpec(spec),
    label: control.name,
    help: control.help || spec.help,
    group: control.group,
    default: control.home,
  };
  // Limits are those of what is set; where that is reached over a range of its own, they are not in its unit.
  if (!('range' in own)) return own as ControlSpec;
  const isFitted = target.to !== null;
  return {
    ...own,
    range: control.range,
    ...(isFitted ? { min: undefined, max: undefined, unit: undefined } : {}),
  } as ControlSpec;
}

/** The kind of a module's nodes: as they are wired, and as they run. */
export interface ModuleKinds {
  shown: Kind;
  apart: Kind;
  /** All that these kinds follow from, one by one: as long as they are the same, so are the kinds. */
  made: readonly unknown[];
}

/**
 * The kinds of a module, or those of before if nothing that they follow from has changed, so that a value that is turned inside is
 * no other kind. A module without an output gives a picture, which is empty.
 */
export function moduleKinds(module: Module, catalogue: Catalogue, before?: ModuleKinds): ModuleKinds {
  const ends = endsOf(module, catalogue);
  const made: unknown[] = [module.name, module.help, module.words.join(' ')];
  const inputs: Record<string, InputSpec> = {};
  const outputs: [string, { label: string; carries: Carries }][] = [];
  const carriesOf = (node: PatchNode): Carries => kindOf(catalogue, node)!.output;
  for (const node of ends.in) {
    const carries = carriesOf(node);
    inputs[node.id] = {
      label: node.name,
      help: 'An input of the module; what comes in is seen inside.',
      carries,
      optional: true,
    };
    made.push('in', node.id, node.name, carries);
  }
  let range: readonly [number, number] = [-1, 1];
  for (const node of ends.out) {
    const carries = carriesOf(node);
    if (outputs.length === 0 && carries === 'signal') range = rangeInto(module, node, catalogue);
    outputs.push([node.id, { label: node.name, carries }]);
    made.push('out', node.id, node.name, carries, ...range);
  }
  const controls: Record<string, ControlSpec> = {};
  for (const control of module.controls) {
    const spec = moduleControlSpec(module, control, catalogue);
    if (!spec) continue;
    controls[control.id] = spec;
    const [target] = control.targets;
    made.push('control', control, kindOf(catalogue, module.nodes[target.node])!.controls[target.control]);
  }
  if (before?.made.length === made.length && before.made.every((one, k) => one === made[k])) return before;
  const [first, ...side] = outputs;
  const kind = moduleKindId(module.id);
  const carries = first?.[1].carries ?? 'image';
  const common = {
    label: module.name,
    summary: module.help || 'A module of this show.',
    words: module.words,
    controls,
    naturalRange: range,
  };
  const shownSpec: RelaySpec = {
    ...common,
    id: kind,
    handsOn: '',
    inputs,
    sideOutputs: Object.fromEntries(side),
  };
  const { handsOn, ...shown } = relayKind(shownSpec, carries);
  void handsOn;
  const port = (label: string): InputSpec => ({ label, help: label, carries, optional: true });
  const apart = relayKind(
    {
      ...common,
      id: takenApartId(kind),
      handsOn: resultPort,
      handsOnWhileOff: bypassPort,
      inputs: { [resultPort]: port('What comes out'), [bypassPort]: port('What passes by') },
    },
    carries,
  );
  return { shown: shown as Kind, apart, made };
}

/** The natural range of what enters an output of a module. */
function rangeInto(module: Module, out: PatchNode, catalogue: Catalogue): [number, number] {
  const before = (node: PatchNode, into: string): PatchNode | undefined => {
    const wire = Object.values(module.wires).find(({ to }) => to.node === node.id && to.port === into);
    return wire && module.nodes[wire.from.node];
  };
  const seen = new Set<PatchNode>();
  for (let node: PatchNode | undefined = out; node && !seen.has(node);) {
    seen.add(node);
    const into = kindOf(catalogue, node)?.handsOn;
    if (into === undefined) return naturalRangeOf(node, catalogue);
    node = before(node, into);
  }
  return [-1, 1];
}
