import type { Carries } from '../src/core/kind/kind';

import { addNode, connect, renameNode, setFormula, setMotions } from '../src/core/show/edit';
import { bringOut, tidyModule } from '../src/core/show/edit-module';
import { makeShow } from '../src/core/show/create';
import type { ControlValue, Fit, Module, Motion, ReturnSettings } from '../src/core/document/types';
import type { ModulePack } from '../src/core/show/module-pack';
import { catalogue } from '../src/nodes/catalogue';

/** Patch pixels from one column, and one row, to the next. */
const pitch = [200, 170] as const;

/** Writes a module with the same edits that a hand makes inside of it. Places are columns and rows. */
export class ModuleSketch {
  readonly module: Module;

  constructor(id: string, name: string, help: string, words: string) {
    this.module = {
      id,
      name,
      help,
      words: words.split(', '),
      version: 1,
      nodes: {},
      wires: {},
      controls: [],
    };
  }

  private get patch() {
    const { id, name, nodes, wires } = this.module;
    return { id, name, nodes, wires };
  }

  add(kind: string, name: string, at: [number, number], controls: Record<string, ControlValue> = {}): string {
    const id = addNode(this.patch, catalogue, kind, [at[0] * pitch[0], at[1] * pitch[1]]);
    renameNode(this.patch, id, name);
    const known = catalogue.get(kind)!.controls;
    for (const control of Object.keys(controls))
      if (!Object.hasOwn(known, control)) throw new Error(`${name} has no control ${control}.`);
    Object.assign(this.module.nodes[id].controls, controls);
    return id;
  }

  wire(from: string, to: string, port: string, fit?: [number, number]): string {
    const id = connect(this.patch, catalogue, from, to, port);
    const wire = this.module.wires[id];
    if (fit) wire.fit = { ...(wire.fit as Fit), to: fit };
    return id;
  }

  back(wire: string, settings: Partial<ReturnSettings>): void {
    Object.assign(this.module.wires[wire].back!, settings);
  }

  formula(node: string, part: string, text: string): void {
    setFormula(this.patch, node, part, text);
  }

  motion(node: string, part: string, motion: Motion): void {
    setMotions(this.patch, node, part, [motion]);
  }

  /** An input, and what stands in for it while nothing is wired there. */
  input(name: string, carries: Carries, at: [number, number], standIn?: string): string {
    const kind = [...catalogue.values()].find(({ end }) => end === 'in')!;
    const id = addNode(this.patch, catalogue, kind.id, [at[0] * pitch[0], at[1] * pitch[1]]);
    renameNode(this.patch, id, name);
    Object.assign(this.module.nodes[id].controls, kind.adapts?.(carries));
    if (standIn) this.wire(standIn, id, 'source');
    return id;
  }

  output(from: string, at: [number, number], name = 'Result'): void {
    const kind = [...catalogue.values()].find(({ end }) => end === 'out')!;
    const id = this.add(kind.id, name, at);
    this.wire(from, id, 'source');
  }

  /** Brings a control out. `more`: further ones that it sets. */
  control(
    name: string,
    [node, control]: [string, string],
    {
      group = '',
      help = '',
      range,
      to = null,
      more = [],
    }: {
      group?: string;
      help?: string;
      range?: [number, number];
      to?: [number, number] | null;
      more?: [string, string, [number, number] | null][];
    } = {},
  ): void {
    const brought = bringOut(this.module, catalogue, node, control);
    brought.name = name;
    brought.id = name.toLowerCase().replace(/[^a-z0-9]+/g, '_');
    brought.group = group;
    brought.help = help;
    if (range) brought.range = range;
    brought.targets = [{ node, control, to }, ...more.map(([n, c, t]) => ({ node: n, control: c, to: t }))];
    tidyModule(makeShow(catalogue, ''), catalogue, this.module);
  }

  get pack(): ModulePack {
    return { main: this.module.id, modules: { [this.module.id]: this.module }, files: {} };
  }
}
