import { asideOf } from '../document/return-settings';
import { triggersOf } from '../document/motions';
import { nodesNamedIn, type Plan, type PlanNode, type PlanSource } from '../patch/plan';
import type { NodeRun } from './node-run';

/** What every node of a plan reads, by where it enters: an input, or what drives a control. */
export class Resting {
  /** Nodes that pick one of their inputs. */
  readonly pickers: readonly PlanNode[];
  /** Nodes that what is picked depends on: they never rest. */
  readonly drivers: ReadonlySet<string>;
  /** Nodes that count, for what was picked last. */
  awake: ReadonlySet<string>;
  private picked = '';

  constructor(
    private readonly plan: Plan,
    private readonly runs: ReadonlyMap<string, NodeRun>,
    private readonly roots: readonly string[],
  ) {
    this.pickers = plan.order.filter(({ kind }) => kind.picks !== undefined);
    const above = new Set<string>();
    for (const picker of this.pickers) this.walk(this.drives(picker), above, null);
    this.drivers = above;
    this.awake = new Set(plan.nodes.keys());
  }

  /** Takes over what pickers picked: from here on only those nodes count that lead to what somebody looks at. */
  pick(picks: ReadonlyMap<string, string | null>): void {
    const picked = [...picks].join(' ');
    if (picked === this.picked) return;
    this.picked = picked;
    const awake = new Set<string>(this.drivers);
    this.walk(this.roots, awake, picks);
    this.awake = awake;
  }

  /** What drives the controls of a node: by wires, formulas, motions that wait. */
  private *drives(planned: PlanNode): Iterable<string> {
    for (const part of planned.parts) {
      if (part.source) yield* this.behind(part.source);
      if (part.formula !== null) yield* nodesNamedIn(part.formula, this.plan.byName);
    }
    const node = this.runs.get(planned.id)?.node;
    if (node) yield* triggersOf(Object.values(node.motions).flat());
  }

  private *behind(source: PlanSource): Iterable<string> {
    yield source.node;
    yield* asideOf(source.back?.back);
  }

  /** Everything that a node reads in this frame. */
  private *readBy(planned: PlanNode, picks: ReadonlyMap<string, string | null> | null): Iterable<string> {
    yield* this.drives(planned);
    yield* planned.named;
    const only = picks?.get(planned.id);
    for (const { name, sources } of planned.ports)
      if (only === undefined || only === name) for (const source of sources) yield* this.behind(source);
  }

  private walk(
    from: Iterable<string>,
    into: Set<string>,
    picks: ReadonlyMap<string, string | null> | null,
  ): void {
    const open = [...from];
    while (open.length) {
      const id = open.pop()!;
      const planned = this.plan.nodes.get(id);
      if (!planned || into.has(id)) continue;
      into.add(id);
      open.push(...this.readBy(planned, picks));
    }
  }
}
