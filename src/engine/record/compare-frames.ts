import type { ExportSpec } from '../../core/export/spec';
import type { Show } from '../../core/document/types';
import type { Rest } from '../exact/exact-run';
import { ExportRun, type ExportMeans } from './export-run';
import { Grabber } from './grabber';

/** Longest side of the pictures that are compared: small, since what does not fit is seen so as well. */
const longestSide = 320;

/** How far two frames of an export are apart: mean and worst of red, green and blue, in steps of 255. */
export async function compareFrames(
  means: ExportMeans,
  show: Show,
  spec: ExportSpec,
  pair: readonly [number, number],
  rest: Rest,
): Promise<{ mean: number; worst: number }> {
  const scale = Math.min(1, longestSide / Math.max(spec.width, spec.height));
  const small: ExportSpec = {
    ...spec,
    output: null,
    width: Math.max(2, 2 * Math.round((spec.width * scale) / 2)),
    height: Math.max(2, 2 * Math.round((spec.height * scale) / 2)),
    supersample: 1,
    format: { type: 'images', image: 'png', alpha: false, linear: false, depth: false },
  };
  const run = new ExportRun(means, show, small);
  const grabber = new Grabber(means.gpu, small);
  try {
    const frames: Uint8Array[] = [];
    for (const frame of pair) {
      const draw = (): void => {
        const target = grabber.target();
        run.draw(target);
        grabber.add(target);
      };
      await run.frame(frame, draw, rest);
      frames.push((await grabber.take()) as Uint8Array);
    }
    let [sum, worst] = [0, 0];
    frames[0].forEach((value, k) => {
      const off = Math.abs(value - frames[1][k]);
      sum += off;
      worst = Math.max(worst, off);
    });
    // Alpha is 255 in both.
    return { mean: sum / (frames[0].length * 0.75), worst };
  } finally {
    run.dispose();
    grabber.dispose();
  }
}
