import type { ExportFormat } from '../../core/export/spec';
import type { Show } from '../../core/document/types';
import { Gpu } from '../gpu/gpu';
import { chainByHand, chainEngine, stepsEngine } from './chain';
import { copiesByHand, copiesEngine, cpuTimes, lanesEngine, type CopiesEngine } from './copies';
import { exportHeap, exportRatio } from './exporting';
import { feedbackByHand, feedbackEngine } from './feedback';
import { alike, compare, median, plainOf, ratioOf, type Ratio, type Shown } from './measure';
import { numberCases } from './numbers';
import { outputByHand, outputEngine } from './output';
import { playingCases, takeRatio } from './playing';
import { Raw } from './raw';
import { flashRatios, preflightRates } from './flashes';
import { nestedAndFlat } from './modules';
import { previewsRatio } from './previews';
import { scenesPage, type GpuState, type SceneOptions } from './scenes';
import { fieldsByHand, fieldsEngine, sheetByHand, sheetEngine } from './space';
import { stillEngine } from './still';
import { sameBytes, stringsByHand, stringsEngine } from './strings';
import { blurEngine, glowEngine } from './wide';

/** What `npm run bench` calls in this page. */
export interface BenchPage {
  pyrvelBench: {
    names: string[];
    run(name: string): Promise<Ratio & { pictures: string[] }>;
    /** Opens a scene of the show by its name, for `--against`. */
    open(name: string, show: Show, options?: SceneOptions): void;
    /** Milliseconds a frame of the open workload, over so many frames from the next on. */
    time(frames: number): number;
    state(): GpuState;
    /** See `takeRatio`. */
    take(show: Show): Ratio & { compiled: number };
    /** See `exportRatio` and `exportHeap`. */
    exporting(show: Show, scene: string, format: ExportFormat): Promise<Ratio>;
    flashes(show: Show): ReturnType<typeof flashRatios>;
    preflight(show: Show): ReturnType<typeof preflightRates>;
    exportHeap(
      show: Show,
      scene: string,
      format: ExportFormat,
      frames: readonly [number, number],
    ): Promise<Ratio>;
  };
}

const gpu = new Gpu();
// One surface with a depth buffer and one without, as a program for one picture would have it.
const raws = { flat: new Raw(), deep: new Raw(true) };
const rounds = 11;
let pictures: string[] = [];

/** Two pictures, once it is seen that they are the same. */
const same = (a: Shown, b: Shown): [Shown, Shown] => alike(a, b, (sentence) => void pictures.push(sentence));

const seen = (work: Shown): Shown => {
  work.frame(0);
  work.frame(1);
  if (work.pixels().every((v, k) => v < 3 || k % 4 === 3))
    throw new Error('The picture to be measured is black.');
  return work;
};

/** Engine sides by what they draw. */
const engines = {
  chain8: () => chainEngine(gpu),
  feedback: () => feedbackEngine(gpu),
  blur64: () => blurEngine(gpu, 64),
  glow: () => glowEngine(gpu),
  copies10k: () => copiesEngine(gpu, 10000).rig,
  copies100k: () => copiesEngine(gpu, 100000).rig,
  cubes10k: () => copiesEngine(gpu, 10000, 'cube').rig,
  lanes100k: () => lanesEngine(gpu, 100000).rig,
  sheet1024: () => sheetEngine(gpu),
  fields4: () => fieldsEngine(gpu),
} as const;

const steps = (bits: '8' | '16' | '32', over: 'gradient' | 'noise'): Ratio =>
  compare(...same(stepsEngine(gpu, bits, true, over), stepsEngine(gpu, bits, false, over)), rounds, 4);

const copies = (of: CopiesEngine, way: 'plain' | 'merged', times: number, frames: number): Ratio =>
  compare(...same(of.rig, copiesByHand(raws.flat, of, way)), times, frames);

/** As a Shot is at home, smooth and soft, over the same plain program by hand: another picture at its edges. */
const copiesAtHome = (count: number, mesh: 'quad' | 'cube', frames: number): Ratio => {
  const home = copiesEngine(gpu, count, mesh, {});
  return compare(
    seen(home.rig),
    copiesByHand(raws.flat, copiesEngine(gpu, count, mesh), 'plain'),
    rounds,
    frames,
  );
};

const cases: Record<string, () => Ratio | Promise<Ratio>> = {
  chain8: () => compare(...same(engines.chain8(), chainByHand(raws.flat)), rounds, 4),
  chain8Speedup: () => steps('16', 'gradient'),
  chain8SpeedupNoise: () => steps('16', 'noise'),
  chain8Speedup8: () => steps('8', 'gradient'),
  chain8Speedup32: () => steps('32', 'gradient'),
  feedback: () => compare(...same(engines.feedback(), feedbackByHand(raws.flat)), rounds, 6),
  blur64: () => compare(seen(engines.blur64()), seen(blurEngine(gpu, 8)), rounds, 4),
  glow: () => compare(seen(engines.glow()), seen(blurEngine(gpu, 8)), rounds, 4),
  previews: () => previewsRatio(gpu, 9),
  moduleCost: () => compare(...same(...nestedAndFlat(gpu)), 25, 4),
  copies10k: () => copies(copiesEngine(gpu, 10000), 'plain', rounds, 4),
  copies100k: () => copies(copiesEngine(gpu, 100000), 'plain', rounds, 2),
  cubes10k: () => copies(copiesEngine(gpu, 10000, 'cube'), 'plain', rounds, 4),
  copies10kHome: () => copiesAtHome(10000, 'quad', 4),
  copies100kHome: () => copiesAtHome(100000, 'quad', 2),
  cubes10kHome: () => copiesAtHome(10000, 'cube', 4),
  copiesMerged10k: () => copies(copiesEngine(gpu, 10000), 'merged', rounds, 6),
  copiesMerged100k: () => copies(copiesEngine(gpu, 100000), 'merged', rounds, 3),
  copiesMerged1m: () => copies(copiesEngine(gpu, 1000000), 'merged', 9, 1),
  lanes100k: () => copies(lanesEngine(gpu, 100000), 'merged', rounds, 3),
  // Two million lines take a second in software.
  sheet1024: () => compare(...same(engines.sheet1024(), sheetByHand(raws.deep)), 9, 1),
  fields4: () => compare(...same(engines.fields4(), fieldsByHand(raws.flat)), rounds, 6),
  outputPass: () => compare(...same(outputEngine(gpu), outputByHand(raws.flat)), rounds, 4),
  strings100k: () => {
    const [ours, byHand] = [stringsEngine(gpu), stringsByHand(raws.flat)];
    sameBytes(ours, byHand);
    return compare(ours, byHand, rounds, 4);
  },
  strings100kMs: () => plainOf([stringsEngine(gpu).workerMs()]),
  cpuCopies: () => {
    const [many, few] = [copiesEngine(gpu, 1000000), copiesEngine(gpu, 10000)];
    cpuTimes(many, 0, 2);
    cpuTimes(few, 0, 20);
    const times: [number[], number[]] = [[], []];
    for (let round = 0; round < 9; round++) {
      times[0].push(median(cpuTimes(many, 2 + 8 * round, 8)));
      times[1].push(median(cpuTimes(few, 20 + 24 * round, 24)));
    }
    return ratioOf(times[0], times[1]);
  },
  static200Ms: () => {
    const rig = stillEngine(gpu);
    rig.frame(0);
    rig.finish();
    return plainOf(
      Array.from({ length: rounds }, () => {
        const start = performance.now();
        for (let k = 0; k < 50; k++) rig.player.play(rig.player.scene, rig.frameOf(k), [], rig.size.height);
        return (performance.now() - start) / 50;
      }),
    );
  },
  ...numberCases,
  ...playingCases,
};

(window as unknown as BenchPage).pyrvelBench = {
  names: Object.keys(cases),
  async run(name) {
    pictures = [];
    return { ...(await cases[name]()), pictures };
  },
  ...scenesPage(gpu),
  flashes: (show) => flashRatios(gpu, show),
  preflight: (show) => preflightRates(gpu, show),
  take: (show) => takeRatio(gpu, show),
  exporting: (show, scene, format) => exportRatio(gpu, show, scene, format),
  exportHeap: (show, scene, format, frames) => exportHeap(gpu, show, scene, format, frames),
};
