import type { Show } from '../../core/document/types';
import { timesOf, triedShares, type CostMeasure } from '../../core/preflight/cost-check';
import { windowOutputOf, windowSizeOf } from '../../core/wall/outputs';
import { planOf } from '../exact/plan';
import type { MeasureSubject } from '../protocol/protocol';
import { ExportRun, type ExportMeans } from './export-run';
import { specOf } from './measuring';

/** Frames that are drawn before any is timed: shaders are made and pictures allocated in them. */
const warmFrames = 2;
/** Nodes that are named as the dearest. */
const mostNodes = 5;

interface Request {
  subject: MeasureSubject;
  frames: number;
}

/** Times frames of a subject at a size. What has a memory is timed frame after frame, anything else at even distances over all of it. */
async function timed(
  means: ExportMeans,
  show: Show,
  { subject, frames }: Request,
  size: { width: number; height: number },
): Promise<{ times: number[]; bytes: number; nodes: CostMeasure['nodes'] }> {
  const { gpu } = means;
  const spec = specOf(show, subject, size);
  const plan = planOf(means.catalogue, means.inputs, show, spec);
  const run = new ExportRun(means, show, spec);
  const target = gpu.acquire(size.width, size.height, '8');
  const before = gpu.bytes;
  const drawn = async (frame: number): Promise<number> => {
    const start = performance.now();
    await run.frame(frame, () => run.draw(target));
    gpu.wait();
    return performance.now() - start;
  };
  const step =
    plan.first > 0 || subject.source.type !== 'scene' ? 1 : Math.max(1, Math.floor(plan.count / frames));
  const times: number[] = [];
  try {
    for (let k = 0; k < warmFrames; k++) await drawn(k);
    for (let k = 0; k < frames; k++) times.push(await drawn(warmFrames + k * step));
    const last = warmFrames + frames * step;
    const nodes = (await run.nodeTimes(drawn, last)).slice(0, mostNodes);
    return { times, bytes: gpu.bytes - before, nodes };
  } finally {
    gpu.release(target);
    run.dispose();
  }
}

/** What drawing a subject costs at full size, and at which size it keeps up with the rate of the show. */
export async function costOf(means: ExportMeans, show: Show, request: Request): Promise<CostMeasure> {
  const { canvas } = show;
  const output = request.subject.output === null ? undefined : windowOutputOf(show, request.subject.output);
  const [width, height] = output ? windowSizeOf(output) : [canvas.width, canvas.height];
  let full: Omit<CostMeasure, 'holds'> | null = null;
  for (const share of triedShares) {
    const size = { width: Math.round(width * share), height: Math.round(height * share) };
    const { times, ...rest } = await timed(means, show, request, size);
    full ??= { size: [size.width, size.height], ...timesOf(times), ...rest };
    if (timesOf(times).p95 <= 1000 / canvas.fps) return { ...full, holds: share };
  }
  return { ...full!, holds: null };
}
