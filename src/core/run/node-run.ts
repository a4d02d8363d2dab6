import { parseLanes, type LaneFormula } from '../formula/lanes';
import { momentNames } from '../formula/names';
import { FormulaRunner, type FormulaValues } from '../formula/run';
import { FormulaError } from '../formula/parse';
import {
  isAngle,
  isFormulaVariable,
  limit,
  linkName,
  partName,
  partsOf,
  type ControlSpec,
  type ControlSpecs,
  type ResolvedControl,
} from '../kind/controls';
import type { ImageRef } from '../kind/image-ref';
import type { InputSpecs, LaneRunner, Work } from '../kind/kind';
import type { PlanNode } from '../patch/plan';
import { motionsOf } from '../document/motions';
import type { Prop } from '../kind/prop';
import type { Shape } from '../shape/shape';
import { SignalBuffer, type Signal } from '../signal/signal';
import type { ControlValue, CurveLane, PatchNode } from '../document/types';
import { momentLater, type Moment } from '../time/clock';
import { PartRun } from './part-run';
import { markWritten } from './revision';
import type { FormulaScope } from './formula-scope';

const degrees = Math.PI / 180;

/** The plain numbers of a control: as stored if they have the right form, else as its kind gives them. */
export function numbersOf(spec: ControlSpec, value: ControlValue | undefined): number[] {
  const parts = partsOf(spec);
  const fallback = (): number[] =>
    Array.isArray(spec.default) ? [...(spec.default as readonly number[])] : [Number(spec.default)];
  if (parts.length === 1) {
    if (typeof value === 'number' && Number.isFinite(value)) return [value];
    return typeof value === 'boolean' ? [Number(value)] : fallback();
  }
  const fits =
    Array.isArray(value) && value.length === parts.length && value.every((v) => typeof v === 'number');
  return fits ? [...(value as number[])] : fallback();
}

/** The plain value of a control that no number drives: a choice, text, gradient, list. */
export function plainValue(spec: ControlSpec, value: ControlValue | undefined): ControlValue {
  switch (spec.type) {
    case 'choice':
      return typeof value === 'string' && Object.hasOwn(spec.options, value) ? value : spec.default;
    case 'gradient':
      return Array.isArray(value) &&
        value.every((v) => typeof v === 'object' && 'colour' in v) &&
        value.length
        ? value
        : [...spec.default];
    case 'curves':
      return Array.isArray(value) && value.every((v) => typeof v === 'object' && 'keys' in v) && value.length
        ? value
        : [...(spec.default as CurveLane[])];
    case 'numbers':
      return Array.isArray(value) && value.every((v) => typeof v === 'number') ? value : [...spec.default];
    case 'text':
    case 'formula':
    case 'key':
    case 'file':
    case 'code':
    case 'device':
      return typeof value === 'string' ? value : spec.default;
    case 'number':
    case 'whole':
    case 'angle':
    case 'toggle':
    case 'button':
    case 'colour':
    case 'point':
    case 'vector':
      return numbersOf(spec, value);
  }
}

interface ReadFormula {
  text: string;
  lanes: LaneFormula[];
  runners: Map<string, { key: string; runner: FormulaRunner }>;
}

/** What the hooks of a kind are given, as it is written every frame. */
export type NodeWork = {
  -readonly [K in keyof Work<ControlSpecs, InputSpecs>]: Work<ControlSpecs, InputSpecs>[K];
} & {
  memory: unknown;
  out: SignalBuffer;
};

/** Values that stand in for the stored ones, by part of a control, or by control where no numbers drive it. */
export type StandIns = ReadonlyMap<string, number | string>;

/** One node while it runs. */
export class NodeRun {
  /** Resolved controls, as the hooks of the kind get them. */
  readonly controls: Record<string, ResolvedControl> = {};
  readonly parts = new Map<string, PartRun>();
  /** Whether what it gives differs from the frame before. */
  changed = true;
  error: string | null = null;
  /** That a count was stretched. */
  countNote: string | null = null;
  /** What its own code says of it. */
  remark: string | null = null;
  memory: unknown = undefined;
  readonly signal = new SignalBuffer();
  /** What its hooks are given: made once and written again every frame. */
  work: NodeWork | null = null;
  /** What enters it, by input; written again every frame. */
  inputs: Record<string, unknown> = {};
  /** What was last read for it, if its kind reads pixels. */
  pixels: Float32Array | null = null;
  shape: Shape | null = null;
  prop: Prop | null = null;
  image: ImageRef | null = null;
  count = 1;
  /** Nothing that counts in this frame reads it: it was not worked out. */
  rests = false;
  /** The input that counts in this frame, of a kind that picks. */
  pick: string | null = null;
  /** It was worked out at least once. */
  hasRun = false;
  private stale = true;
  /** The last moment of the scene, and what it is to this node. */
  private moments: { scene: Moment; own: Moment } | null = null;
  /** Samples of controls that take many, by part. */
  private readonly sampleBuffers = new Map<string, Float32Array>();
  private readonly formulas = new Map<string, ReadFormula>();

  constructor(
    public plan: PlanNode,
    public node: PatchNode,
    /** What the desk has in hand of it. */
    private standIns: StandIns | null = null,
    /** Whether values for work count. */
    private readonly drafts: { on: boolean } = { on: false },
  ) {
    this.adopt(plan, node);
    this.restart();
  }

  /** Value of a control before anything drives it: as the desk has it, else as it is stored. */
  private valueAt(name: string, spec: ControlSpec): ControlValue | undefined {
    const { draft } = this.node;
    const isDraft = this.drafts.on && draft !== undefined && Object.hasOwn(draft, name);
    const stored = isDraft ? draft[name] : this.node.controls[name];
    if (!this.standIns) return stored;
    const parts = partsOf(spec);
    if (parts.length === 0) return this.standIns.get(name) ?? stored;
    let numbers: number[] | null = null;
    for (let k = 0; k < parts.length; k++) {
      const given = this.standIns.get(partName(name, parts[k]));
      if (typeof given === 'number') (numbers ??= numbersOf(spec, stored))[k] = given;
    }
    if (!numbers) return stored;
    return parts.length === 1 ? numbers[0] : numbers;
  }

  /** The desk moves a part of a control, or a control that no numbers drive. */
  standIn(standIns: StandIns, part: string): void {
    this.standIns = standIns;
    const [name] = part.split('.');
    if (!Object.hasOwn(this.plan.kind.controls, name)) return;
    const spec = this.plan.kind.controls[name];
    const driven = this.parts.get(part);
    if (driven) driven.base = numbersOf(spec, this.valueAt(name, spec))[driven.plan.part];
    this.resolve(name, spec);
    this.stale = true;
  }

  /** The moment that this node is at while its scene is at another: it may lie in a module whose time is behind. */
  momentIn(scene: Moment): Moment {
    const { delay } = this.node;
    if (!delay) return scene;
    if (this.moments?.scene !== scene) this.moments = { scene, own: momentLater(scene, -delay) };
    return this.moments.own;
  }

  restart(): void {
    const { kind } = this.plan;
    if (kind.output === 'signal') this.memory = kind.memory?.();
    for (const part of this.parts.values()) part.restart();
    this.stale = true;
  }

  /** Takes over a newer plan or changed controls, keeping memory and what was worked out. */
  adopt(plan: PlanNode, node: PatchNode): void {
    if (plan.kind !== this.plan.kind) this.inputs = {};
    this.plan = plan;
    this.node = node;
    this.moments = null;
    this.stale = true;
    const live = new Set<string>();
    for (const part of plan.parts) {
      live.add(part.name);
      const base = numbersOf(part.spec, this.valueAt(part.control, part.spec))[part.part];
      const motions = motionsOf(node, part.control, part.name);
      const run = this.parts.get(part.name);
      if (run) run.adopt(part, base, motions);
      else this.parts.set(part.name, new PartRun(part, base, motions));
    }
    for (const name of this.parts.keys()) if (!live.has(name)) this.parts.delete(name);
    for (const [name, spec] of Object.entries(plan.kind.controls)) this.resolve(name, spec);
  }

  /** Whether an edit asks for another run though nothing it reads changed. */
  takeStale(): boolean {
    const was = this.stale;
    this.stale = false;
    return was;
  }

  markStale(): void {
    this.stale = true;
  }

  /** Brings one control into the form its kind's code gets, from plain values and driven parts. */
  resolve(name: string, spec: ControlSpec): void {
    const value = this.valueAt(name, spec);
    const partNames = partsOf(spec);
    if (partNames.length === 0) {
      this.controls[name] = plainValue(spec, value) as ResolvedControl;
      return;
    }
    const base = numbersOf(spec, value);
    const factor = isAngle(spec) ? degrees : 1;
    const many = 'many' in spec && spec.many === true;
    const resolved = partNames.map((part, k) => {
      const full = partName(name, part);
      const samples = this.parts.get(full)?.samples;
      if (!many) return limit(spec, samples ? samples[0] : base[k]) * factor;
      const source = samples ?? [base[k]];
      let out = this.sampleBuffers.get(full);
      if (out?.length !== source.length)
        this.sampleBuffers.set(full, (out = new Float32Array(source.length)));
      for (let i = 0; i < out.length; i++) out[i] = limit(spec, source[i]) * factor;
      markWritten(out);
      return out;
    });
    if (spec.type === 'toggle') this.controls[name] = (resolved[0] as number) > 0.5;
    else this.controls[name] = (partNames.length === 1 ? resolved[0] : resolved) as ResolvedControl;
  }

  /** Reads a formula control and makes its lanes ready; throws FormulaError. */
  formulaLanes(control: string, scope: FormulaScope, moment: Moment): readonly LaneRunner[] {
    const spec = this.plan.kind.controls[control];
    if (spec.type !== 'formula') throw new TypeError(`${control} is no formula.`);
    const text = String(this.controls[control]);
    let read = this.formulas.get(control);
    if (!read || read.text !== text) {
      const isName = (name: string): boolean => isFormulaVariable(spec, name) || scope.has(name);
      const lanes = parseLanes(text, isName, [...spec.variables, ...momentNames, ...scope.known()]);
      read = { text, lanes, runners: new Map() };
      this.formulas.set(control, read);
    }
    const { lanes, runners } = read;
    return lanes.map(({ name, expression }) => ({
      name,
      longest: scope.longest(expression),
      run: (out: Float32Array, extra: FormulaValues): void => {
        const varying = [
          ...scope.varying(expression),
          ...Object.keys(extra).filter((k) => typeof extra[k] === 'object'),
        ];
        const key = varying.join(' ');
        let ready = runners.get(name);
        if (!ready || ready.key !== key) {
          ready = { key, runner: new FormulaRunner(expression, (n) => varying.includes(n)) };
          runners.set(name, ready);
        }
        ready.runner.run(out, scope.values(ready.runner.names, out.length, moment, extra));
      },
    }));
  }

  /**
   * Values of a control or of one of its parts (`place_x`), moved or not, in the unit of the interface; null if there is no
   * such control.
   */
  valuesOf(name: string): Float32Array | null {
    for (const [control, spec] of Object.entries(this.plan.kind.controls)) {
      const names = partsOf(spec);
      const k = names.findIndex((part) => name === linkName(control, part));
      const at = k < 0 && name === control && names.length ? 0 : k;
      if (at < 0) continue;
      const moved = this.parts.get(partName(control, names[at]))?.samples;
      return moved ?? Float32Array.of(numbersOf(spec, this.valueAt(control, spec))[at]);
    }
    return null;
  }

  /** Keeps what a failed hook said; the last good result stays. */
  fail(error: unknown): void {
    this.error =
      error instanceof FormulaError
        ? `${error.message} (at ${error.position + 1})`
        : error instanceof Error
          ? error.message
          : String(error);
  }

  /** What this node gives as a signal, if it is one. */
  get given(): Signal | null {
    return this.plan.kind.output === 'signal' ? this.signal : null;
  }

  /** A remark that is no fault. */
  get note(): string | null {
    return this.remark ?? this.countNote;
  }

  /** The first fault: of its code, of one of its formulas, of a wire that does not fit. */
  get fault(): string | null {
    if (this.error) return this.error;
    for (const part of this.parts.values()) if (part.error) return `${part.plan.name}: ${part.error}`;
    return this.plan.refused[0] ?? null;
  }
}
