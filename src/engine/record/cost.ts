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

/** Seconds after which cues that wait for a hand begin: what is timed are scenes and the ways between them, not the waiting. */
const quickHandSeconds = 0.1;
/** Size, as a share of the full one, of a run that goes ahead of a performance to have its shaders compiled. */
const aheadShare = 0.1;
/** Milliseconds after which a performance is timed no further: on the way to each frame all that has a memory is drawn. */
const longestPlayedMs = 15000;

/** Lets live frames and words of the engine through: one that says nothing for long is taken for one that hangs. */
const rest = (): Promise<void> => new Promise((done) => setTimeout(done));

/**
 * Times frames of a subject at a size: over all of it at even distances, transitions included where it is a performance; frame after frame
 * where it is a scene with a memory.
 */
async function timed(
  means: ExportMeans,
  show: Show,
  { subject, frames }: Request,
  size: { width: number; height: number },
): Promise<{ times: number[]; bytes: number; nodes: CostMeasure['nodes'] }> {
  const { gpu } = means;
  const isPlayed = subject.source.type !== 'scene';
  const source =
    subject.source.type === 'cues' ? { ...subject.source, handSeconds: quickHandSeconds } : subject.source;
  const spec = specOf(show, { ...subject, source }, size);
  const plan = planOf(means.catalogue, means.inputs, show, spec);
  const run = new ExportRun(means, show, spec);
  const target = gpu.acquire(size.width, size.height, '8');
  const before = gpu.bytes;
  const drawn = async (frame: number): Promise<number> => {
    await rest();
    const start = performance.now();
    await run.frame(frame, () => run.draw(target));
    gpu.wait();
    return performance.now() - start;
  };
  const step = plan.first > 0 && !isPlayed ? 1 : Math.max(1, Math.floor(plan.count / frames));
  const small = { width: Math.ceil(size.width * aheadShare), height: Math.ceil(size.height * aheadShare) };
  const ahead = isPlayed ? new ExportRun(means, show, specOf(show, { ...subject, source }, small)) : null;
  const start = performance.now();
  const times: number[] = [];
  try {
    for (let k = 0; k < warmFrames; k++) await drawn(k);
    for (let k = 0; k < frames; k++) {
      const frame = warmFrames + k * step;
      if (ahead) {
        await ahead.frame(frame, () => ahead.draw(target), rest);
        // Only the frame itself counts, and not those on the way to it.
        if (step > 1 && k > 0) await drawn(frame - 1);
      }
      times.push(await drawn(frame));
      if (isPlayed && performance.now() - start > longestPlayedMs) break;
    }
    const last = warmFrames + times.length * step;
    const nodes = (await run.nodeTimes(drawn, last)).slice(0, mostNodes);
    return { times, bytes: gpu.bytes - before, nodes };
  } finally {
    gpu.release(target);
    ahead?.dispose();
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
