import { FlashMeter, flashGrid } from '../../core/preflight/flash-meter';
import { measuredSize } from '../../core/preflight/round-meter';
import type { Show } from '../../core/document/types';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import { FlashLimiter } from '../output/flash/flash-limiter';
import { FlashWatch } from '../output/flash/flash-watch';
import { planOf } from '../exact/plan';
import { ExportRun } from '../record/export-run';
import { Measuring, specOf } from '../record/measuring';
import { meansOf } from './exporting';
import { compare, median, ratioOf, type Ratio, type Work } from './measure';
import { sceneWork } from './scenes';

const small = { width: 640, height: 360 };
const large = { width: 1920, height: 1080 };
const rounds = 11;
const framesOfRound = 4;
/** Looks of a meter that are timed together: one is too short. */
const looks = 20;

/** A picture of that size with detail, on the GPU. */
function picture(gpu: Gpu, { width, height }: { width: number; height: number }) {
  const rgba = new Float32Array(4 * width * height);
  for (let k = 0; k < rgba.length; k++) rgba[k] = k % 4 === 3 ? 1 : (k * 0.618) % 1;
  const first = plainLook(gpu.dataTexture(rgba, width, height, true));
  return { first, second: plainLook(gpu.empty), fade: 0, level: 1 };
}

/** The meter as it runs live, but that each look is waited for: its pass, its pixels off the GPU, its count. */
function meterWork(gpu: Gpu, size: { width: number; height: number }): Work {
  const shown = picture(gpu, size);
  const watch = new FlashWatch(gpu);
  const meter = new FlashMeter();
  const { width, height } = flashGrid;
  const pixels = new Uint8Array(4 * width * height);
  return {
    frame(k) {
      for (let look = 0; look < looks; look++) {
        const target = watch.draw(shown, null);
        gpu.renderer.readRenderTargetPixels(target!, 0, 0, width, height, pixels);
        watch.giveBack(target!);
        meter.add(pixels, (k * looks + look) / 60);
      }
    },
    finish: () => gpu.wait(),
  };
}

function limiterWork(gpu: Gpu): Work {
  const shown = picture(gpu, small);
  const limiter = new FlashLimiter(gpu);
  return {
    frame(k) {
      for (let look = 0; look < looks; look++)
        limiter.limit(shown, k * looks + look, (k * looks + look) / 60);
    },
    finish: () => gpu.wait(),
  };
}

const perLook = ({ median: m, low, high, ms }: Ratio): Ratio => ({
  median: m / looks,
  low: low / looks,
  high: high / looks,
  ms: [ms[0] / looks, ms[1]],
});

/** What the live meter and the limiter cost, as shares of a frame of Pollen Drift; and the meter at a large canvas over that at a small one. */
export function flashRatios(
  gpu: Gpu,
  show: Show,
): Record<'flashMeter' | 'flashMeterSize' | 'flashLimiter', Ratio> {
  const scene = show.scenes.find(({ name }) => name === 'Pollen Drift')!;
  const drawn = sceneWork(gpu, show, scene, { canvas: small });
  const ratios = {
    flashMeter: perLook(compare(meterWork(gpu, small), drawn, rounds, framesOfRound)),
    flashLimiter: perLook(compare(limiterWork(gpu), drawn, rounds, framesOfRound)),
    flashMeterSize: compare(meterWork(gpu, large), meterWork(gpu, small), rounds, framesOfRound),
  };
  drawn.dispose();
  return ratios;
}

/** Frames that the loop of each scene is cut to: all of a round, and of the one before it where a scene remembers, is drawn by both sides. */
const framesOfLoop = 40;

/** Preflight of all scenes of a show / drawing those frames alone, waited for once at the end of each scene. The spread is that of scenes. */
export async function preflightRates(
  gpu: Gpu,
  show: Show,
): Promise<Record<'preflightRate' | 'preflightRateWarm', Ratio>> {
  const { fps } = show.canvas;
  const cut: Show = {
    ...show,
    scenes: show.scenes.map((scene) => ({
      ...scene,
      loop: { length: framesOfLoop / fps, unit: 'seconds', lock: false },
    })),
  };
  const means = meansOf(gpu, cut);
  const cold: [number[], number[]] = [[], []];
  const warm: [number[], number[]] = [[], []];
  for (const { id } of show.scenes) {
    const subject = { source: { type: 'scene', scene: id, node: null }, output: null } as const;
    const measured = async (): Promise<number> => {
      const measuring = new Measuring(means, cut, subject, framesOfLoop / fps);
      const start = performance.now();
      while ((await measuring.goOn()) === null);
      const ms = performance.now() - start;
      measuring.dispose();
      return ms;
    };
    const alone = async (): Promise<number> => {
      const spec = specOf(cut, subject, measuredSize);
      const { first, count, meets } = planOf(means.catalogue, means.inputs, cut, spec);
      const frames = Array.from({ length: count }, (_, k) => first + k);
      if (meets !== null && meets >= first + count) frames.push(meets);
      const run = new ExportRun(means, cut, spec);
      const target = gpu.acquire(measuredSize.width, measuredSize.height, '8');
      const start = performance.now();
      for (const frame of frames) await run.frame(frame, () => run.draw(target));
      gpu.wait();
      const ms = performance.now() - start;
      gpu.release(target);
      run.dispose();
      return ms;
    };
    // Whoever is first has shaders compiled and files decoded.
    cold[0].push(await measured());
    cold[1].push(await alone());
    warm[1].push(await alone());
    warm[0].push(await measured());
  }
  const total = (of: readonly number[]): number => of.reduce((a, b) => a + b, 0);
  const rate = (times: [number[], number[]]): Ratio => ({
    ...ratioOf(times[0], times[1]),
    median: total(times[0]) / total(times[1]),
    ms: [median(times[0]), median(times[1])],
  });
  return { preflightRate: rate(cold), preflightRateWarm: rate(warm) };
}
