import type { Timing } from '../../core/export/schedule';
import type { Catalogue } from '../../core/kind/kind';
import type { Scene, Show } from '../../core/document/types';
import { momentAt } from '../../core/time/clock';
import { FeedbackClock } from '../../core/time/feedback-steps';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import { beginFrom, takeCheckpoint, type Checkpoint } from '../image/checkpoint';
import type { MediaLibrary } from '../media/library';
import type { Presented } from '../output/presenter';
import type { LiveInputs } from '../playback/live-inputs';
import { ScenePlayer } from '../playback/scene-player';
import type { ExactRun, Rest } from './exact-run';

/** Milliseconds that numbers of frames on the way are worked out at a stretch. */
const longestTurnMs = 12;

const noPictures: ReadonlySet<string> = new Set();

/** What exact runs are made with. */
export interface ExactMeans {
  gpu: Gpu;
  catalogue: Catalogue;
  media: MediaLibrary;
  /** Inputs without hands and devices. */
  inputs: LiveInputs;
}

/** Throws the first fault of a scene, by the name of its node. */
export function throwFaults(scene: Scene, player: ScenePlayer): void {
  const [fault] = Object.entries(player.faults());
  if (fault) throw new Error(`${scene.nodes[fault[0]]?.name ?? fault[0]}: ${fault[1]}`);
}

export function sceneOf(show: Show, id: string): Scene {
  const scene = show.scenes.find((s) => s.id === id);
  if (!scene) throw new Error(`There is no scene ${id}.`);
  return scene;
}

/** Runs a scene by itself from its start, so that a frame is the same whenever it is asked for. */
export class ExactScene implements ExactRun {
  readonly player: ScenePlayer;
  private readonly steps = new FeedbackClock();
  private start: Checkpoint | null = null;
  /** The step that was reached last. */
  at = -1;

  constructor(
    private readonly means: ExactMeans,
    private readonly show: Show,
    readonly scene: Scene,
    private readonly canvas: { width: number; height: number },
    private readonly timing: Timing,
    /** The only node that is wanted; null: the picture of the scene. */
    private readonly node: string | null = null,
  ) {
    if (node && !scene.nodes[node]) throw new Error(`There is no node ${node} in ${scene.name}.`);
    const { gpu, catalogue, media } = means;
    this.player = new ScenePlayer(gpu, catalogue, media, scene, { waits: true });
    this.player.wantsPicture = node === null;
  }

  /** A checkpoint of the step that was reached. */
  checkpoint(): Promise<Checkpoint> {
    const { means, player, at } = this;
    return takeCheckpoint(means.gpu, player.renderer, player.remembering, at);
  }

  /** Begins from a checkpoint instead of nothing: until then only numbers are worked out. Has to be called before the first step. */
  beginFrom(checkpoint: Checkpoint): void {
    if (this.at >= 0) throw new Error('A run that has begun goes on from where it is.');
    this.start = checkpoint;
  }

  async reach(step: number, rest?: Rest): Promise<void> {
    const { player, scene, timing, show, means } = this;
    if (step <= this.at) throw new Error('An exact run goes on only.');
    const { fps } = show.canvas;
    const watched = this.node ? [this.node] : [];
    const history = player.historyOf(scene, watched);
    let rested = performance.now();
    for (let k = this.at + 1; k <= step; k++) {
      const time = timing.timeOf(k);
      const moment = momentAt(time, timing.dtOf(k), fps, show.tempo);
      const feedback = this.steps.next(moment.dt);
      const isOnTheWay = k < step;
      this.at = k;
      if (isOnTheWay && !history.numbers) continue;
      const frame = {
        moment,
        live: means.inputs.at(time, player.run.hears),
        canvas: this.canvas,
        feedback,
      };
      const isBefore = this.start !== null && k < this.start.step;
      const only = isBefore ? noPictures : isOnTheWay ? history.pictures : null;
      await player.playExactly(scene, frame, watched, show.canvas.height, only);
      if (this.start?.step === k) {
        // What this step drew from nothing has made room for what it drew from all the steps before.
        beginFrom(means.gpu, player.renderer, player.remembering, this.start);
        this.start = null;
      }
      // Work must not pile up on the GPU, and live frames and messages go on in between.
      if (history.pictures.size > 0 && !isBefore ? k % 4 === 3 : performance.now() - rested > longestTurnMs) {
        await means.gpu.finish();
        await rest?.();
        rested = performance.now();
      }
    }
    throwFaults(scene, player);
  }

  seen(): Presented {
    return { first: this.player.look, second: plainLook(this.means.gpu.empty), fade: 0, level: 1 };
  }

  dispose(): void {
    this.player.dispose();
  }
}
