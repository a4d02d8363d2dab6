import { FormulaError, parseFormula, type Expression } from '../formula/parse';
import { momentNames } from '../formula/names';
import { FormulaRunner } from '../formula/run';
import type { PlanPart } from '../patch/plan';
import { fitInPlace } from '../signal/fit';
import { laneOf, type Signal } from '../signal/signal';
import { spreadInto } from '../signal/spread';
import { partsOf } from '../kind/controls';
import type { Motion } from '../document/types';
import type { Moment } from '../time/clock';
import { hash } from '../random';
import type { FormulaScope } from './formula-scope';
import { MotionRun } from './motion-run';

/** A control part's samples may not grow beyond this, whatever a formula asks for. */
const mostSamples = 1 << 20;

/** One driven part of a control while it runs: holds its samples before limits and units. */
export class PartRun {
  samples: Float32Array = new Float32Array(1);
  error: string | null = null;
  private raw: Float32Array = new Float32Array(1);
  private runner: FormulaRunner | null = null;
  private expression: Expression | null = null;
  private varies = '';
  private moving: MotionRun[] = [];

  constructor(
    public plan: PlanPart,
    public base: number,
    public motions: readonly Motion[],
  ) {}

  /** Takes over a newer plan; a formula is read again only if its text changed. */
  adopt(plan: PlanPart, base: number, motions: readonly Motion[]): void {
    if (plan.formula !== this.plan.formula) {
      this.expression = null;
      this.varies = '';
    }
    this.plan = plan;
    this.base = base;
    this.motions = motions;
  }

  /** Forgets where its motions were. */
  restart(): void {
    this.moving = [];
  }

  private get takesMany(): boolean {
    return 'many' in this.plan.spec && this.plan.spec.many === true;
  }

  private size(length: number): Float32Array {
    if (this.raw.length !== length) this.raw = new Float32Array(length);
    return this.raw;
  }

  /** Samples that its own source brings: those of the wired signal, or of the longest lane its formula names. */
  ownLength(signal: Signal | null, scope: FormulaScope): number {
    if (!this.takesMany) return 1;
    if (this.plan.source) return signal?.length ?? 0;
    if (this.plan.formula === null) return 1;
    try {
      return scope.longest(this.expressionOf(this.plan.formula, scope));
    } catch {
      return 1; // said by update(), which runs the same formula
    }
  }

  /** Works out the samples for `count` copies; true if any differs from the frame before. */
  update(signal: Signal | null, count: number, moment: Moment, scope: FormulaScope): boolean {
    let next: Float32Array | null;
    if (this.plan.source && signal && signal.length > 0) next = this.fromWire(signal, count);
    else if (this.plan.formula !== null) next = this.fromFormula(this.plan.formula, count, moment, scope);
    else {
      next = this.size(1);
      next[0] = this.base;
    }
    // The last good samples stay, so a slip of the finger on stage does not move the picture.
    if (!next) return false;
    this.motions.forEach((motion, k) => {
      if (this.moving[k]?.type !== motion.type)
        this.moving[k] = new MotionRun(motion.type, hash(this.plan.part + 7 * k) % 997, this.plan.part);
      const trigger = motion.type === 'hit' ? scope.signalOf(motion.trigger) : null;
      this.moving[k].apply(motion, next, moment, trigger);
    });
    const before = this.samples;
    let changed = before.length !== next.length;
    for (let i = 0; !changed && i < next.length; i++) changed = before[i] !== next[i];
    if (changed) {
      this.samples = next;
      this.raw = before;
    }
    return changed;
  }

  private fromWire(signal: Signal, count: number): Float32Array {
    const { source, spec, part, control } = this.plan;
    const { wire } = source!;
    const wholeControl = wire.to.port === control;
    const lane = laneOf(
      signal,
      wire.lane ?? (wholeControl ? partsOf(spec)[part] : undefined),
      wholeControl ? part : 0,
    )!;
    const from = lane.samples;
    const length = this.takesMany ? (from.length === 1 ? 1 : Math.max(1, count)) : 1;
    const into = this.size(length);
    if (this.takesMany) spreadInto(into, from, wire.spread ?? 'stretch');
    else into[0] = from[0];
    if (wire.fit) fitInPlace(into, wire.fit);
    return into;
  }

  /** The formula as it was read, at its first use. */
  private expressionOf(text: string, scope: FormulaScope): Expression {
    this.expression ??= parseFormula(text, (name) => name === 'value' || scope.has(name), [
      'value',
      ...momentNames,
      ...scope.known(),
    ]);
    return this.expression;
  }

  private fromFormula(text: string, count: number, moment: Moment, scope: FormulaScope): Float32Array | null {
    try {
      const expression = this.expressionOf(text, scope);
      const varying = this.takesMany ? scope.varying(expression) : [];
      const key = varying.join(' ');
      if (!this.runner || this.varies !== `:${key}`) {
        this.runner = new FormulaRunner(expression, (name) => varying.includes(name));
        this.varies = `:${key}`;
      }
      const n = this.takesMany && this.runner.isVarying ? Math.min(mostSamples, Math.max(1, count)) : 1;
      const into = this.size(n);
      this.runner.run(
        into,
        scope.values(this.runner.names, this.takesMany ? Math.max(1, count) : 1, moment, {
          value: this.base,
        }),
      );
      this.error = null;
      return into;
    } catch (error) {
      this.error =
        error instanceof FormulaError ? `${error.message} (at ${error.position + 1})` : String(error);
      return null;
    }
  }
}
