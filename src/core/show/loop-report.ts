import { kindOf, type Catalogue } from '../kind/kind';
import { partName, partsOf, type ControlSpec } from '../kind/controls';
import { wiresInto } from '../patch/wiring';
import { numbersOf, plainValue } from '../run/node-run';
import {
  cyclesPerLoop,
  jointPeriod,
  loopSecondsOf,
  wholeCycles,
  type RateUnit,
  type Tempo,
} from '../time/clock';
import type { PatchNode, Scene } from '../document/types';

/** Something that turns by itself: a rate of a node, or that of a motion on one of its controls. */
export interface Pace {
  node: string;
  /** Control, or part of a control that has the motion. */
  part: string;
  /** Which of the motions of the part; null: the control itself. */
  motion: number | null;
  value: number;
  unit: RateUnit | 'period' | 'seconds';
  /** Cycles in one round of the loop. */
  cycles: number;
  /** Cycles a second. */
  hertz: number;
  /** The value nearest to it that makes whole cycles; null where it does so already. */
  nearest: number | null;
}

export interface LoopReport {
  seconds: number;
  paces: Pace[];
  /** Seconds after which all are together where they began; null if nothing turns. */
  joint: number | null;
}

/** How near to a whole number of cycles counts as whole. */
const tolerance = 1e-4;

/** The value that makes so many cycles in a round. */
function valueFor(cycles: number, unit: Pace['unit'], seconds: number, bpm: number): number {
  switch (unit) {
    case 'hertz':
      return cycles / seconds;
    case 'beats':
      return (seconds * bpm) / 60 / cycles;
    case 'loop':
      return cycles;
    case 'period':
    case 'seconds':
      return seconds / cycles;
  }
}

function paceOf(
  at: Pick<Pace, 'node' | 'part' | 'motion'>,
  value: number,
  unit: Pace['unit'],
  seconds: number,
  bpm: number,
): Pace | null {
  const isTime = unit === 'period' || unit === 'seconds';
  const cycles = isTime ? (value > 0 ? seconds / value : 0) : cyclesPerLoop(value, unit, seconds, bpm);
  if (cycles === 0 || !Number.isFinite(cycles)) return null;
  const whole = wholeCycles(cycles);
  const nearest =
    Math.abs(cycles - whole) < tolerance ? null : Number(valueFor(whole, unit, seconds, bpm).toPrecision(9));
  return { ...at, value, unit, cycles, hertz: cycles / seconds, nearest };
}

function pacesOfNode(
  node: PatchNode,
  controls: Readonly<Record<string, ControlSpec>>,
  driven: ReadonlySet<string>,
) {
  const found: { part: string; motion: number | null; value: number; unit: Pace['unit'] }[] = [];
  const plain = Object.fromEntries(
    Object.entries(controls).map(([name, spec]) => [name, plainValue(spec, node.controls[name])]),
  );
  for (const [name, spec] of Object.entries(controls)) {
    if ('pace' in spec && spec.pace && !driven.has(name) && (spec.shownIf?.(plain) ?? true)) {
      const unit = spec.pace === 'period' ? 'period' : (plain[spec.pace.unit] as RateUnit);
      found.push({ part: name, motion: null, value: numbersOf(spec, node.controls[name])[0], unit });
    }
    for (const part of partsOf(spec).map((p) => partName(name, p))) {
      (node.motions[part] ?? []).forEach((motion, k) => {
        if (!motion.on) return;
        if (motion.type === 'swing') found.push({ part, motion: k, value: motion.rate, unit: motion.unit });
        if (motion.type === 'ramp' && motion.way !== 'once') {
          // To and fro is a cycle of two ways.
          const ways = motion.way === 'toAndFro' ? 2 : 1;
          const unit = motion.unit === 'beats' ? 'beats' : motion.unit === 'loop' ? 'loop' : 'seconds';
          const value = unit === 'loop' ? 1 / (motion.length * ways) : motion.length * ways;
          found.push({ part, motion: k, value, unit });
        }
      });
    }
  }
  return found;
}

/** What turns in a scene, and how it fits its loop. What a wire or a formula drives is left out: only playing tells. */
export function loopReport(scene: Scene, catalogue: Catalogue, tempo: Tempo, fps: number): LoopReport {
  const seconds = loopSecondsOf(scene.loop, tempo.bpm, fps);
  const paces: Pace[] = [];
  const into = wiresInto(scene);
  for (const node of Object.values(scene.nodes)) {
    const kind = kindOf(catalogue, node);
    if (!kind || !node.on) continue;
    const driven = new Set([
      ...Object.keys(node.formulas),
      ...(into.get(node.id) ?? []).map((wire) => wire.to.port),
    ]);
    for (const { part, motion, value, unit } of pacesOfNode(node, kind.controls, driven)) {
      const pace = paceOf({ node: node.id, part, motion }, value, unit, seconds, tempo.bpm);
      if (pace) paces.push(pace);
    }
  }
  const turning = paces.map(({ hertz, cycles }) => (scene.loop.lock ? wholeCycles(cycles) / seconds : hertz));
  return { seconds, paces, joint: jointPeriod(turning) };
}

/** Sets a rate to the nearest that fits. */
export function fitPace(scene: Scene, pace: Pace): void {
  const node = scene.nodes[pace.node];
  if (!node || pace.nearest === null) return;
  if (pace.motion === null) {
    node.controls[pace.part] = pace.nearest;
    return;
  }
  const motion = node.motions[pace.part]?.[pace.motion];
  if (motion?.type === 'swing') motion.rate = pace.nearest;
  if (motion?.type === 'ramp') {
    const ways = motion.way === 'toAndFro' ? 2 : 1;
    motion.length = (pace.unit === 'loop' ? 1 / pace.nearest : pace.nearest) / ways;
  }
}
