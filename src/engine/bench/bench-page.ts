import { Gpu } from '../gpu';
import { chainByHand, chainEngine, stepsEngine } from './chain';
import { copiesByHand, copiesEngine, cpuMs, lanesByHand, lanesEngine } from './copies';
import { feedbackByHand, feedbackEngine } from './feedback';
import { alike, compare, median, type Ratio, type Work } from './measure';
import { numberCases } from './numbers';
import { Raw } from './raw';
import { previewsEngine } from './previews';
import { fieldsByHand, fieldsEngine, sheetByHand, sheetEngine } from './space';
import { stillEngine } from './still';
import { blurEngine, glowEngine } from './wide';

/** What `npm run bench` calls in this page. */
export interface BenchPage {
  pyrvelBench: { names: string[]; run(name: string): Ratio };
}

const gpu = new Gpu();
const raw = new Raw();
const rounds = 11;

/** A figure that is no ratio of two works on the card. */
const plain = (measure: () => number, times = rounds): Ratio => {
  const values = Array.from({ length: times }, measure).sort((a, b) => a - b);
  const at = (share: number): number => values[Math.round((times - 1) * share)];
  return { median: median(values), low: at(0.25), high: at(0.75), ms: [at(0.5), 1] };
};

const steps = (bits: '8' | '16' | '32'): Ratio =>
  compare(seen(stepsEngine(gpu, bits, true)), seen(stepsEngine(gpu, bits, false)), rounds, 4);
const seen = (work: Work & { look(): number[] }): Work => {
  work.frame(0);
  work.frame(1);
  if (work.look().every((v, k) => v === 0 || k === 3))
    throw new Error('The picture to be measured is black.');
  return work;
};

const merged = (count: number, frames: number, times = rounds): Ratio =>
  compare(...alike(copiesEngine(gpu, count), copiesByHand(raw, count, 'quad', 'merged')), times, frames);

const cases: Record<string, () => Ratio> = {
  chain8: () => compare(seen(chainEngine(gpu)), chainByHand(raw), rounds, 4),
  chain8Speedup: () => steps('16'),
  chain8Speedup8: () => steps('8'),
  chain8Speedup32: () => steps('32'),
  feedback: () => compare(seen(feedbackEngine(gpu)), feedbackByHand(raw), rounds, 6),
  blur64: () => compare(seen(blurEngine(gpu, 64)), seen(blurEngine(gpu, 8)), rounds, 4),
  glow: () => compare(seen(glowEngine(gpu)), seen(blurEngine(gpu, 8)), rounds, 4),
  previews: () => compare(previewsEngine(gpu, true), previewsEngine(gpu, false), rounds, 8),
  copies10k: () =>
    compare(...alike(copiesEngine(gpu, 10000), copiesByHand(raw, 10000, 'quad', 'plain')), rounds, 4),
  copies100k: () =>
    compare(...alike(copiesEngine(gpu, 100000), copiesByHand(raw, 100000, 'quad', 'plain')), rounds, 2),
  cubes10k: () =>
    compare(...alike(copiesEngine(gpu, 10000, 'cube'), copiesByHand(raw, 10000, 'cube', 'plain')), rounds, 4),
  copiesMerged10k: () => merged(10000, 6),
  copiesMerged100k: () => merged(100000, 3),
  copiesMerged1m: () => merged(1000000, 1, 7),
  lanes100k: () => compare(...alike(lanesEngine(gpu, 100000), lanesByHand(raw, 100000)), rounds, 3),
  // Two million lines take seconds in software: few rounds have to do.
  sheet1024: () => compare(...alike(sheetEngine(gpu), sheetByHand(raw)), 5, 1),
  fields4: () => compare(...alike(fieldsEngine(gpu), fieldsByHand(raw)), rounds, 6),
  cpuCopies: () => {
    const many = copiesEngine(gpu, 1000000);
    const few = copiesEngine(gpu, 10000);
    cpuMs(many, 2);
    cpuMs(few, 20);
    return plain(() => cpuMs(many, 12) / cpuMs(few, 30), 5);
  },
  static200Ms: () => {
    const rig = stillEngine(gpu);
    rig.frame(0);
    rig.finish();
    return plain(() => {
      const start = performance.now();
      for (let k = 0; k < 50; k++) rig.frame(k + 1);
      return (performance.now() - start) / 50;
    });
  },
  ...numberCases,
};

(window as unknown as BenchPage).pyrvelBench = {
  names: Object.keys(cases),
  run: (name) => cases[name](),
};
