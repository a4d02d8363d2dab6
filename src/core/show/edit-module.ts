import type { ControlValue, Module, ModuleControl, Patch, PatchNode, Show } from '../document/types';
import { partsOf, rangeOf, type ControlSpec } from '../kind/controls';
import { kindOf, type Catalogue } from '../kind/kind';
import { moduleIdOf, moduleKindId } from '../module/module-kind';
import { plainValue } from '../run/node-run';
import { modulesInside } from './check-module';
import { freeName, structuredCloneOf } from './create';
import { EditError } from './edit';

/** An id for a module of that name which no module of the show has. */
export function freeModuleId(name: string, modules: Show['modules']): string {
  const stem =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^[^a-z]+|-+$/g, '')
      .slice(0, 26) || 'module';
  if (!Object.hasOwn(modules, stem)) return stem;
  for (let k = 2; ; k++) if (!Object.hasOwn(modules, `${stem}-${k}`)) return `${stem}-${k}`;
}

/** The module of a node; throws EditError if it is none of the show. */
export function moduleOf(show: Show, node: PatchNode): Module {
  const id = moduleIdOf(node.kind);
  const module = id !== null && Object.hasOwn(show.modules, id) ? show.modules[id] : null;
  if (!module) throw new EditError(`${node.name} is no module of this show.`);
  return module;
}

/** All patches of a show: its scenes, and what lies in its modules. */
const patchesOf = (show: Show): Patch[] => [...show.scenes, ...Object.values(show.modules)];

/** A control id made of a name that none of the others has. */
function freeControlId(name: string, { controls, nodes }: Module): string {
  const taken = new Set([...controls.map(({ id }) => id), ...Object.keys(nodes)]);
  const word = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^[^a-z]+|_+$/g, '')
    .slice(0, 30);
  const stem = word || 'control';
  if (!taken.has(stem)) return stem;
  for (let k = 2; ; k++) if (!taken.has(`${stem}_${k}`)) return `${stem}_${k}`;
}

/** Brings a control of a node inside out: it becomes one of the module, with the value it has as its home. */
export function bringOut(module: Module, catalogue: Catalogue, id: string, control: string): ModuleControl {
  const node = module.nodes[id] as PatchNode | undefined;
  const kind = kindOf(catalogue, node);
  const spec = kind && Object.hasOwn(kind.controls, control) ? kind.controls[control] : null;
  if (!node || !spec) throw new EditError('There is no such control.');
  const names = module.controls.map(({ name }) => name);
  const name = names.includes(spec.label) ? freeName(`${node.name} ${spec.label}`, names) : spec.label;
  const brought: ModuleControl = {
    id: freeControlId(name, module),
    name,
    help: '',
    group: '',
    range: [...rangeOf(spec)] as [number, number],
    home: structuredCloneOf(homeOf(spec, node.controls[control])),
    targets: [{ node: id, control, to: null }],
  };
  module.controls.push(brought);
  return module.controls[module.controls.length - 1];
}

/** Takes a control back in: every node of the module loses it, and so do desk controls that move it. */
export function takeIn(show: Show, catalogue: Catalogue, module: Module, control: string): void {
  module.controls = module.controls.filter(({ id }) => id !== control);
  tidyModule(show, catalogue, module);
}

/** The home of a control is what the first that it sets holds inside: turning that is setting the home. */
function bringHomes(module: Module, catalogue: Catalogue): void {
  for (const control of module.controls) {
    const [{ node, control: name, to }] = control.targets;
    const inner = module.nodes[node];
    const kind = kindOf(catalogue, inner);
    const spec = kind && Object.hasOwn(kind.controls, name) ? kind.controls[name] : null;
    if (!spec) continue;
    const value = homeOf(spec, inner.controls[name]);
    const [low, high] = control.range;
    const isLed = to !== null && typeof value === 'number' && to[1] !== to[0];
    const home = isLed ? low + ((value - to[0]) / (to[1] - to[0])) * (high - low) : value;
    if (JSON.stringify(home) !== JSON.stringify(control.home)) control.home = structuredCloneOf(home);
  }
}

/** A stored value as a home: one number where the control is one. */
function homeOf(spec: ControlSpec, stored: ControlValue | undefined): ControlValue {
  const value = plainValue(spec, stored);
  if (Array.isArray(value) && partsOf(spec).length === 1)
    return spec.type === 'toggle' ? Boolean(value[0]) : (value[0] as number);
  return value;
}

/**
 * Takes away what a change inside of a module left behind: targets that are gone, controls without any, and of its nodes everywhere
 * wires, values, formulas and motions of ports that are gone.
 */
export function tidyModule(show: Show, shipped: Catalogue, module: Module): void {
  for (const control of module.controls)
    control.targets = control.targets.filter(({ node }) => Object.hasOwn(module.nodes, node));
  if (module.controls.some(({ targets }) => targets.length === 0))
    module.controls = module.controls.filter(({ targets }) => targets.length > 0);
  bringHomes(module, shipped);
  const kind = moduleKindId(module.id);
  const controls = new Set(module.controls.map(({ id }) => id));
  const isPort = (port: string): boolean =>
    controls.has(port.split('.')[0]) || Object.hasOwn(module.nodes, port);
  for (const patch of patchesOf(show)) {
    const own = Object.values(patch.nodes).filter((node) => node.kind === kind);
    if (!own.length) continue;
    const ids = new Set(own.map(({ id }) => id));
    for (const wire of Object.values(patch.wires)) {
      const output = ids.has(wire.from.node) ? wire.from.output : undefined;
      const isGone = output !== undefined && !Object.hasOwn(module.nodes, output);
      if (isGone || (ids.has(wire.to.node) && !isPort(wire.to.port))) delete patch.wires[wire.id];
    }
    for (const node of own)
      for (const record of [node.controls, node.formulas, node.motions])
        for (const part of Object.keys(record)) if (!controls.has(part.split('.')[0])) delete record[part];
    for (const page of show.desk)
      for (const control of page.controls)
        if (
          control.targets.some(
            ({ scene, node, part }) =>
              scene === patch.id && ids.has(node) && !controls.has(part.split('.')[0]),
          )
        )
          control.targets = control.targets.filter(
            ({ scene, node, part }) =>
              scene !== patch.id || !ids.has(node) || controls.has(part.split('.')[0]),
          );
  }
}

/** Gives a node a module of its own: a copy, which changes alone from now on. Gives the copy's id. */
export function makeOwn(show: Show, patch: Patch, id: string): string {
  const node = patch.nodes[id];
  const module = moduleOf(show, node);
  const names = Object.values(show.modules).map(({ name }) => name);
  const name = freeName(module.name, names);
  const fresh = freeModuleId(name, show.modules);
  show.modules[fresh] = { ...structuredCloneOf(module), id: fresh, name, version: 1 };
  node.kind = moduleKindId(fresh);
  return fresh;
}

/** Where a module is used: how many nodes of it there are in a show. */
export const usesOf = (show: Show, module: string): number =>
  patchesOf(show).reduce(
    (sum, { nodes }) => sum + Object.values(nodes).filter(({ kind }) => kind === moduleKindId(module)).length,
    0,
  );

/** Refuses a module in a place that lies in it: it would hold itself. `within`: the module that is edited; null: a scene. */
export function refuseInItself(show: Show, module: string, within: string | null): void {
  if (within === null) return;
  if (module === within || modulesInside(show.modules, module).has(within))
    throw new EditError(`${show.modules[module].name} would lie in itself.`);
}
