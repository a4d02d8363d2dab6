import type { Show } from '../../core/document/types';
import { Timing } from '../../core/export/schedule';
import { givenTo, type DeskValues } from '../../core/desk/desk-run';
import { momentAt } from '../../core/time/clock';
import { FeedbackClock } from '../../core/time/feedback-steps';
import { ExactScene, sceneOf } from '../exact/exact-scene';
import { planOf } from '../exact/plan';
import { makeOpaque } from '../gpu/page-pixels';
import { plainLook } from '../image/look';
import { missingFonts } from '../media/fonts';
import type { EngineAnswer, EngineRequest, FrameRequest } from '../protocol/protocol';
import { ScenePlayer } from '../playback/scene-player';
import type { ExportMeans } from '../record/export-run';
import type { Measuring } from '../record/measuring';
import { encodersAt } from '../record/encoders';
import { Grabber } from '../record/grabber';

/** Steps from the start of a scene to its picture in lists, and seconds each. */
const pictureSteps = 16;
const pictureStepSeconds = 0.1;
/** Frames of a scene that plays before one of them is taken as its picture. */
const firstFrames = 60;

const opaquePng = { type: 'images', image: 'png', alpha: false, linear: false, depth: false } as const;

/** Requests that need frames which nobody sees. */
export type ExactRequest = Extract<
  EngineRequest,
  { type: 'frame' | 'field' | 'picture' | 'data' | 'export-plan' | 'encoders' | 'measure' | 'cost' | 'fonts' }
>;

/** Answers requests for exact frames, small pictures and what exports need. Lives as long as its GPU context. */
export class ExactQuestions {
  private exact: { key: string; run: ExactScene } | null = null;
  private measuring: Measuring | null = null;

  constructor(
    private readonly live: ExportMeans,
    /** Scenes that are playing, by id. */
    private readonly players: ReadonlyMap<string, ScenePlayer>,
  ) {}

  /** The same without hands and devices. */
  private get means(): ExportMeans {
    return { ...this.live, inputs: this.live.inputs.exact() };
  }

  async answer(request: ExactRequest, show: Show): Promise<EngineAnswer> {
    switch (request.type) {
      case 'frame':
        return { type: 'frame', png: await this.exactFrame(show, request.request) };
      case 'field': {
        const player = await this.exactRun(show, request.request);
        return { type: 'field', values: await player.fieldAt(request.request.node!, request.places) };
      }
      case 'picture': {
        const { scene, width, height, desk } = request;
        const player = this.players.get(scene);
        // The first frames of a scene say little: shaders are still on their way, and feedback has hardly begun.
        const png =
          player && player.frames > firstFrames && !desk && !player.taken
            ? this.png(player, null, width, height)
            : this.pictureOf(show, scene, width, height, desk);
        return { type: 'picture', png: await png };
      }
      case 'data': {
        const { dataFile } = await import('../record/data-files');
        return { type: 'data', bytes: await dataFile(this.means, show, request.request) };
      }
      case 'export-plan': {
        const { catalogue, inputs } = this.means;
        return { type: 'export-plan', plan: planOf(catalogue, inputs, show, request.spec) };
      }
      case 'measure':
        return { type: 'measure', ...(await this.measure(show, request)) };
      case 'cost': {
        const { costOf } = await import('../record/cost');
        return { type: 'cost', cost: await costOf(this.means, show, request) };
      }
      case 'encoders':
        return { type: 'encoders', encoders: await encodersAt(request.width, request.height) };
      case 'fonts':
        return { type: 'fonts', missing: await missingFonts() };
    }
  }

  /** Goes on with what is measured for a while. One thing is measured at a time: another begins afresh. */
  private async measure(
    show: Show,
    { subject, longest, isNew }: Extract<ExactRequest, { type: 'measure' }>,
  ): Promise<Omit<Extract<EngineAnswer, { type: 'measure' }>, 'type'>> {
    const { Measuring } = await import('../record/measuring');
    if (isNew) {
      this.measuring?.dispose();
      this.measuring = new Measuring(this.means, show, subject, longest);
    }
    const { measuring } = this;
    if (!measuring) throw new Error('Nothing is being measured. Begin again.');
    try {
      const measure = await measuring.goOn();
      if (measure) this.endMeasuring();
      return { done: measuring.done, measure };
    } catch (error) {
      this.endMeasuring();
      throw error;
    }
  }

  private endMeasuring(): void {
    this.measuring?.dispose();
    this.measuring = null;
  }

  private async exactFrame(show: Show, request: FrameRequest): Promise<ArrayBuffer> {
    const player = await this.exactRun(show, request);
    return this.png(player, request.node, request.width, request.height);
  }

  /** Runs a scene to a frame: on from the one that was asked for before, where that is on the way. */
  private async exactRun(show: Show, request: FrameRequest): Promise<ScenePlayer> {
    const { width, height, node, frame } = request;
    const scene = sceneOf(show, request.scene);
    const { fps } = show.canvas;
    const key = `${scene.id} ${width}x${height} ${node} ${fps}`;
    const { exact } = this;
    // What was run so far counts only for the very scene that is asked for, as it stands.
    const goesOn = exact?.key === key && exact.run.scene === scene && exact.run.at < frame;
    if (!goesOn) {
      exact?.run.dispose();
      this.exact = null;
      const run = new ExactScene(this.means, show, scene, { width, height }, new Timing(fps), node);
      this.exact = { key, run };
    }
    const { run } = this.exact!;
    await run.reach(frame);
    return run.player;
  }

  /** A scene as it looks a while after its start, in few and long steps: for lists, where nearly right is enough. */
  private async pictureOf(
    show: Show,
    id: string,
    width: number,
    height: number,
    desk?: DeskValues,
  ): Promise<ArrayBuffer> {
    const { canvas, tempo } = show;
    const { gpu, catalogue, media, inputs } = this.means;
    const scene = sceneOf(show, id);
    const player = new ScenePlayer(gpu, catalogue, media, scene, { waits: true });
    if (desk) player.give({ version: 1, values: givenTo(show, desk, id) });
    const steps = new FeedbackClock();
    try {
      const history = player.historyOf(scene, []);
      for (let k = 0; k < pictureSteps; k++) {
        const isLast = k === pictureSteps - 1;
        if (!isLast && !history.numbers) continue;
        const moment = momentAt(k * pictureStepSeconds, k ? pictureStepSeconds : 0, canvas.fps, tempo);
        await player.playExactly(
          scene,
          // Two steps stand for six: nearly right is enough, and six would cost three times as much.
          {
            moment,
            live: inputs.at(moment.time, player.run.hears),
            canvas: { width, height },
            feedback: steps.next(moment.dt, 2),
          },
          [],
          canvas.height,
          isLast ? null : history.pictures,
        );
        // The stage and the desk come first: each step waits until the GPU is done with the one before.
        await gpu.finish();
      }
      return await this.png(player, null, width, height);
    } finally {
      player.dispose();
    }
  }

  private async png(
    player: ScenePlayer,
    node: string | null,
    width: number,
    height: number,
  ): Promise<ArrayBuffer> {
    const { gpu, presenter } = this.live;
    // Taken off the GPU as exports are, so that a frame is the same in both.
    const grabber = new Grabber(gpu, { width, height, supersample: 1, subframes: 1, format: opaquePng });
    let pixels: Uint8ClampedArray<ArrayBuffer>;
    try {
      const target = grabber.target();
      const isDrawn = !node || player.peek(node, target, undefined, true);
      if (!node) {
        const second = plainLook(gpu.empty);
        presenter.drawNumbers({ first: player.look, second, fade: 0, level: 1 }, 'numbers', target);
      }
      grabber.add(target);
      if (!isDrawn) throw new Error('There is no picture at this node.');
      pixels = new Uint8ClampedArray((await grabber.take()).buffer);
    } finally {
      grabber.dispose();
    }
    makeOpaque(pixels);
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')!.putImageData(new ImageData(pixels, width), 0, 0);
    return (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer();
  }
}
