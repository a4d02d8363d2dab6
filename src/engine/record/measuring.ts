import type { ExportSpec } from '../../core/export/spec';
import type { Show } from '../../core/document/types';
import { loudestSecond, nextLoudest } from '../../core/audio/loudest';
import { measuredSize, RoundMeter } from '../../core/preflight/round-meter';
import type { RoundMeasure } from '../../core/preflight/round-check';
import { planOf } from '../exact/plan';
import type { LiveInputs } from '../playback/live-inputs';
import type { MeasureSubject } from '../protocol/protocol';
import { ExportRun, type ExportMeans } from './export-run';
import { Grabber } from './grabber';

/** Milliseconds that are worked at a stretch, before somebody is told how far it is. */
const turnMs = 400;
/** Seconds of a loop up to which the frame after its last is drawn though the loop is longer than what is looked at. */
const longestSeam = 300;

/** What is drawn of a subject: all of it, as opaque bytes at some size. */
export const specOf = (
  { canvas: { fps } }: Show,
  { source, output }: MeasureSubject,
  { width, height }: { width: number; height: number },
): ExportSpec => ({
  name: 'Preflight',
  source,
  output,
  range: { type: 'whole' },
  fps,
  width,
  height,
  supersample: 1,
  subframes: 1,
  shutter: 360,
  format: { type: 'images', image: 'png', alpha: false, linear: false, depth: false },
});

/** Looks at what a subject shows, frame by frame as the stage shows it, a while at a time. */
export class Measuring {
  private readonly run: ExportRun;
  private readonly grabber: Grabber;
  private readonly meter = new RoundMeter();
  private readonly first: number;
  private readonly count: number;
  /** Frame that should look like the first; null: there is none, or it is too far away. */
  private readonly meets: number | null;
  /** The sound of the show; null: it comes from a device, or is not there. */
  private readonly sound: LiveInputs['whole'];
  private frames = 0;

  constructor(
    means: ExportMeans,
    private readonly show: Show,
    subject: MeasureSubject,
    /** Seconds that are looked at, at most. */
    longest: number,
  ) {
    const spec = specOf(show, subject, measuredSize);
    const plan = planOf(means.catalogue, means.inputs, show, spec);
    const { fps } = show.canvas;
    this.first = plan.first;
    this.count = Math.min(plan.count, Math.max(1, Math.round(longest * fps)));
    const isFar = plan.meets !== null && plan.meets > longestSeam * fps;
    this.meets = isFar ? null : plan.meets;
    this.sound = means.inputs.whole;
    this.run = new ExportRun(means, show, spec);
    this.grabber = new Grabber(means.gpu, spec);
  }

  /** Share that is done, 0..1. */
  get done(): number {
    return this.frames / (this.count + 1);
  }

  /** Goes on for a while; gives what was measured when it is done. */
  async goOn(): Promise<RoundMeasure | null> {
    const { first, count, meets, meter, show } = this;
    const { fps } = show.canvas;
    const start = performance.now();
    // A frame is read while the next is drawn: waiting for each would take as long again.
    let reading: Promise<void> | null = null;
    while (this.frames < count) {
      const { pixels } = await this.draw(first + this.frames);
      const seconds = this.frames / fps;
      await reading;
      reading = pixels.then((rgba) => meter.add(rgba, seconds));
      this.frames++;
      if (performance.now() - start <= turnMs) continue;
      await reading;
      return null;
    }
    await reading;
    if (meets !== null) meter.meet(await (await this.draw(meets)).pixels);
    await this.hearLoudest(Math.max(first + count, (meets ?? 0) + 1));
    this.frames++;
    return meter.result(count / fps);
  }

  /** Looks at a scene that listens while the loudest second of its sound is heard, unless that was within what was looked at. `next`: the first frame that can still be drawn. */
  private async hearLoudest(next: number): Promise<void> {
    const { sound, run, first, count, meter, show } = this;
    if (!sound || !run.hears) return;
    const { fps } = show.canvas;
    const { samples, rate } = sound;
    const looked = { from: first / fps, to: (first + count) / fps };
    const start = nextLoudest(loudestSecond(samples, rate), samples.length / rate, looked, next / fps);
    if (start === null || start > longestSeam) return;
    const from = Math.ceil(start * fps - 1e-6);
    // A flash counts in the second that ends with it.
    for (let frame = from; frame < from + 2 * fps; frame++)
      meter.add(await (await this.draw(frame)).pixels, frame / fps, true);
  }

  /** Draws a frame; its pixels come later. */
  private async draw(frame: number): Promise<{ pixels: Promise<Uint8ClampedArray> }> {
    const { grabber, run } = this;
    await run.frame(frame, () => {
      const target = grabber.target();
      run.draw(target);
      grabber.add(target);
    });
    return { pixels: grabber.take().then(({ buffer }) => new Uint8ClampedArray(buffer)) };
  }

  dispose(): void {
    this.run.dispose();
    this.grabber.dispose();
  }
}
