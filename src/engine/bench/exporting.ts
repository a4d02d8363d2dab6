import type { ExportFormat, ExportSpec } from '../../core/export/spec';
import { homeSpec } from '../../core/export/spec';
import type { ExportPlan } from '../../core/export/schedule';
import { piecesOf } from '../../core/export/schedule';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import { Presenter } from '../output/presenter';
import { ProgramMix } from '../output/program-mix';
import { Strings } from '../output/strings';
import { WallPainter } from '../output/wall-painter';
import { LiveInputs } from '../playback/live-inputs';
import { Exporter } from '../record/exporter';
import { ExportRun, type ExportMeans } from '../record/export-run';
import { median, ratioOf, type Ratio } from './measure';
import { noFiles } from './scenes';

const size = { width: 640, height: 360 };
const rounds = 7;
const framesOfRound = 24;
const job = 'bench';

export function meansOf(gpu: Gpu, show: Show): ExportMeans {
  const media = noFiles();
  const inputs = new LiveInputs();
  inputs.setShow(show.inputs);
  return {
    gpu,
    catalogue,
    media,
    inputs: inputs.exact(),
    presenter: new Presenter(gpu),
    mix: new ProgramMix(gpu),
    wall: new WallPainter(gpu, media, new Strings('')),
  };
}

/** Draws frames as an export does, and nothing else: each is waited for. */
async function drawAlone(means: ExportMeans, show: Show, spec: ExportSpec, count: number): Promise<void> {
  const run = new ExportRun(means, show, spec);
  const target = means.gpu.acquire(spec.width, spec.height, '8');
  for (let frame = 0; frame < count; frame++) {
    await run.frame(frame, () => run.draw(target));
    await means.gpu.finish();
  }
  means.gpu.release(target);
  run.dispose();
}

/** Exports frames into a folder of this browser. */
async function exportAll(
  exporter: { run: Exporter; ended: () => Promise<void> },
  means: ExportMeans,
  show: Show,
  spec: ExportSpec,
  plan: ExportPlan,
  folder: FileSystemDirectoryHandle,
): Promise<void> {
  const pieces = piecesOf(spec, plan);
  const ended = exporter.ended();
  const sink = { type: 'folder', folder } as const;
  exporter.run.take({ do: 'pieces', job, spec, plan, pieces, sink, checkpoints: null }, show, means);
  await ended;
}

function makeExporter(means: ExportMeans): { run: Exporter; ended: () => Promise<void> } {
  let end: { resolve(): void; reject(error: Error): void } | null = null;
  const run = new Exporter((_, event) => {
    if (event.what === 'done') end?.resolve();
    else if (event.what === 'failed') end?.reject(new Error(event.message));
  }, means.media);
  return { run, ended: () => new Promise((resolve, reject) => (end = { resolve, reject })) };
}

const specOf = (show: Show, scene: string, format: ExportFormat): ExportSpec => ({
  ...homeSpec(
    show,
    show.scenes.find(({ name }) => name === scene)!,
  ),
  ...size,
  format,
});

/** Time of exporting frames of a scene / of drawing the same frames alone, in rounds that take turns. */
export async function exportRatio(gpu: Gpu, show: Show, scene: string, format: ExportFormat): Promise<Ratio> {
  const means = meansOf(gpu, show);
  const spec = specOf(show, scene, format);
  const plan: ExportPlan = { first: 0, count: framesOfRound, meets: null, remarks: [] };
  const root = await navigator.storage.getDirectory();
  const folder = await root.getDirectoryHandle('bench', { create: true });
  const exporter = makeExporter(means);
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds + 1; round++)
    for (const [side, work] of [
      () => exportAll(exporter, means, show, spec, plan, folder),
      () => drawAlone(means, show, spec, framesOfRound),
    ].entries()) {
      const start = performance.now();
      await work();
      // The first round compiles shaders and starts encoders.
      if (round > 0) times[side].push((performance.now() - start) / framesOfRound);
    }
  exporter.run.dispose();
  await root.removeEntry('bench', { recursive: true });
  return ratioOf(times[0], times[1]);
}

/** Bytes of the heap after so many frames of a video: medians of the frames around the two places / each other. */
export async function exportHeap(
  gpu: Gpu,
  show: Show,
  scene: string,
  format: ExportFormat,
  frames: readonly [number, number],
): Promise<Ratio> {
  const means = meansOf(gpu, show);
  const spec = { ...specOf(show, scene, format), width: 160, height: 90 };
  const root = await navigator.storage.getDirectory();
  const folder = await root.getDirectoryHandle('bench', { create: true });
  const exporter = makeExporter(means);
  const { gc } = globalThis as { gc?: () => void };
  const heaps: number[] = [];
  let before = 0;
  for (const until of frames) {
    const plan: ExportPlan = { first: before, count: until - before, meets: null, remarks: [] };
    await exportAll(exporter, means, show, spec, plan, folder);
    before = until;
    gc?.();
    await new Promise((resolve) => setTimeout(resolve, 200));
    gc?.();
    heaps.push((performance as { memory?: { usedJSHeapSize: number } }).memory?.usedJSHeapSize ?? Number.NaN);
  }
  exporter.run.dispose();
  await root.removeEntry('bench', { recursive: true });
  const ratio = heaps[1] / heaps[0];
  return { median: ratio, low: ratio, high: ratio, ms: [median([heaps[1]]) / 1e6, heaps[0] / 1e6] };
}
