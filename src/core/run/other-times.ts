import { asksForSample, asksForTime } from '../formula/names';
import type { Plan, PlanNode } from '../patch/plan';
import { motionsOf } from '../document/motions';
import type { Scene } from '../document/types';
import { SignalBuffer, type Signal } from '../signal/signal';
import { momentLater } from '../time/clock';
import type { NodeRun } from './node-run';
import type { Frame } from './frame';

/**
 * How what stands above a node can be asked for other moments. many: all at once, since every sample goes its own way
 * from the start. single: moment by moment. none: it has a memory, or plays by hand.
 */
type Way = 'many' | 'single' | 'none';

/** What is known of a node while the ways of others are found. */
interface Known {
  way: Way;
  moves: boolean;
}

const worse = (a: Way, b: Way): Way =>
  a === 'none' || b === 'none' ? 'none' : a === 'single' || b === 'single' ? 'single' : 'many';

/** Finds how the node can be asked, and all above it. */
export function wayOf(
  id: string,
  scene: Scene,
  plan: Plan,
  runs: ReadonlyMap<string, NodeRun>,
  known = new Map<string, Known>(),
): Known {
  const found = known.get(id);
  if (found) return found;
  const planned = plan.nodes.get(id);
  const run = runs.get(id);
  const result: Known = { way: 'none', moves: true };
  known.set(id, result);
  if (!planned || !run || planned.kind.output !== 'signal') return result;
  Object.assign(
    result,
    judge(planned, run, scene, (other) => wayOf(other, scene, plan, runs, known), plan),
  );
  return result;
}

function judge(planned: PlanNode, run: NodeRun, scene: Scene, ask: (id: string) => Known, plan: Plan): Known {
  const { kind } = planned;
  if (kind.output !== 'signal') return { way: 'none', moves: true };
  const { controls } = run;
  const each = kind.each?.(controls) ?? (kind.memory ? false : []);
  if (each === false) return { way: 'none', moves: true };
  let moves = kind.moves(controls);
  let way: Way = moves && each !== true ? 'single' : 'many';
  const readsEach = (input: string): boolean =>
    each === true || (Array.isArray(each) && each.includes(input));
  for (const [input, sources] of Object.entries(planned.inputs)) {
    for (const source of sources) {
      const above: Known = source.back ? { way: 'none', moves: true } : ask(source.node);
      if (!above.moves) continue;
      moves = true;
      way = worse(way, readsEach(input) ? above.way : worse('single', above.way));
    }
  }
  for (const named of planned.named) {
    const above = ask(named);
    if (above.moves) [moves, way] = [true, worse(way, above.way)];
  }
  for (const part of planned.parts) {
    const isMany = 'many' in part.spec && part.spec.many === true;
    let partMoves = false;
    let partWay: Way = isMany ? 'many' : 'single';
    if (part.source) {
      const above: Known = part.source.back ? { way: 'none', moves: true } : ask(part.source.node);
      partMoves = above.moves;
      partWay = worse(partWay, above.way);
    } else if (part.formula !== null) {
      if (asksForSample(part.formula)) partWay = 'single';
      partMoves = asksForTime(part.formula);
      for (const [name, id] of plan.byName) {
        if (!new RegExp(`(?<![\\w.])${name}(?![\\w(])`).test(part.formula)) continue;
        const above = ask(id);
        if (above.moves) [partMoves, partWay] = [true, worse(partWay, above.way)];
      }
    }
    const node = scene.nodes[planned.id];
    for (const motion of node ? motionsOf(node, part.control, part.name) : []) {
      partMoves = true;
      partWay = motion.type === 'hit' || motion.type === 'follow' ? 'none' : worse(partWay, 'single');
    }
    // A list of its own beside many moments: which of the two a sample stands for would be open.
    if (!partMoves && (run.parts.get(part.name)?.samples.length ?? 1) > 1)
      [partMoves, partWay] = [true, 'single'];
    if (partMoves) [moves, way] = [true, worse(way, partWay)];
  }
  return { way: moves ? way : 'many', moves };
}

/** A run of a scene, as far as it is needed here. */
interface Run {
  readonly runs: ReadonlyMap<string, NodeRun>;
  update(scene: Scene, roots: readonly string[]): void;
  run(frame: Frame): void;
  standIn(given: Iterable<{ node: string; part: string; value: number | string }>): void;
}

/** Asks one node for other moments than this one, in a run of its own that has no memory of the show. */
export class OtherTimes {
  private readonly out = new SignalBuffer();
  private order: number[] = [];
  private scene: Scene | null = null;
  private way: Way = 'none';

  constructor(
    private readonly run: Run,
    private readonly node: string,
  ) {}

  /** See `Work.overTime`. `of` is the run of the show that asks. */
  at(
    frame: Frame,
    offsets: Float64Array,
    of: { scene: Scene; plan: Plan; runs: ReadonlyMap<string, NodeRun> },
  ): Signal | null {
    if (of.scene !== this.scene) {
      this.scene = of.scene;
      this.way = wayOf(this.node, of.scene, of.plan, of.runs).way;
    }
    if (this.way === 'none') return null;
    this.run.update(of.scene, [this.node]);
    return this.way === 'many' ? this.allAtOnce(frame, offsets) : this.oneByOne(frame, offsets);
  }

  /** What the desk has in hand of the scene. */
  standIn(given: Iterable<{ node: string; part: string; value: number | string }>): void {
    this.run.standIn(given);
    // What moves and what does not may hang on a choice.
    this.scene = null;
  }

  private get given(): Signal | null {
    return this.run.runs.get(this.node)?.given ?? null;
  }

  private allAtOnce(frame: Frame, offsets: Float64Array): Signal | null {
    this.run.run({ ...frame, moment: { ...frame.moment, spread: offsets } });
    return this.given;
  }

  private oneByOne(frame: Frame, offsets: Float64Array): Signal | null {
    const n = offsets.length;
    if (this.order.length !== n) this.order = Array.from(offsets, (_, i) => i);
    // From the earliest on, since a walk that is asked for an earlier moment starts again.
    this.order.sort((a, b) => offsets[a] - offsets[b]);
    for (const i of this.order) {
      this.run.run({ ...frame, moment: momentLater(frame.moment, offsets[i]) });
      const { given } = this;
      if (!given?.lanes.length) return null;
      const into = this.out.layout(
        given.lanes.map((lane) => lane.name),
        n,
      );
      given.lanes.forEach(({ samples }, k) => (into[k][i] = samples[i % samples.length]));
    }
    return this.out;
  }
}
