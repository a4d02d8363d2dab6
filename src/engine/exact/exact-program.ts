import type { ExportSource } from '../../core/export/spec';
import type { Timing } from '../../core/export/schedule';
import { cueAfter } from '../../core/desk/cue-run';
import type { Cue, Show } from '../../core/document/types';
import type { Catalogue } from '../../core/kind/kind';
import { idleControllers } from '../../core/inputs/inputs';
import { longestStepSeconds, momentLater, type Moment } from '../../core/time/clock';
import { FeedbackClock } from '../../core/time/feedback-steps';
import type { Presented } from '../output/presenter';
import type { ProgramMix } from '../output/program-mix';
import { Seen } from '../output/seen';
import type { LiveInputs } from '../playback/live-inputs';
import { Performance } from '../playback/performance';
import { ScenePlayer } from '../playback/scene-player';
import type { ExactRun, Rest } from './exact-run';
import { sceneOf, throwFaults, type ExactMeans } from './exact-scene';

/** Seconds that a scene has run when it comes on air: memories are warm, as those of a scene that stood ready. */
const prerollSeconds = 2;
/** Seconds that are shown after the last recorded move. */
const afterMovesSeconds = 2;
/** Hours above which a running order counts as endless. */
const longestHours = 6;

type Played = Exclude<ExportSource, { type: 'scene' }>;

/** Cues that nothing in a show brings by itself. */
const waitsForHand = ({ go }: Cue, inputs: LiveInputs): boolean =>
  go.type === 'hand' ||
  go.type === 'note' ||
  go.type === 'code' ||
  (go.type === 'sound' && inputs.soundPlace(0) === null);

/** A performance that plays by itself: its running order, or what hands did. */
class ExactPerformance {
  readonly performance: Performance;

  constructor(
    catalogue: Catalogue,
    private readonly inputs: LiveInputs,
    private readonly show: Show,
    private readonly source: Played,
  ) {
    this.performance = new Performance(catalogue, () => this.performance.transport.time);
    const scenes = show.scenes.map(({ id }) => id);
    const first = source.type === 'cues' ? show.cues.find(({ scene }) => scene)?.scene : null;
    this.performance.open(show, first ?? scenes[0], null);
    this.performance.apply(
      source.type === 'cues' ? { type: 'cue', do: 'go' } : { type: 'replay', on: true },
      show,
    );
  }

  /** Goes on by so many seconds. Gives the moment of the picture. */
  advance(dt: number): Moment {
    const { performance: played, show } = this;
    const parts = Math.max(1, Math.ceil(dt / longestStepSeconds));
    for (let k = 0; k < parts; k++) {
      played.transport.advance(dt / parts, show.canvas.fps);
      const { time } = played.transport;
      played.advance(dt / parts, {
        controllers: idleControllers(),
        sound: this.inputs.soundPlace(time),
        code: null,
      });
      if (this.isDue(time)) played.apply({ type: 'cue', do: 'go' }, show);
    }
    return played.moment(dt);
  }

  private isDue(time: number): boolean {
    const { source, show, performance: played } = this;
    if (source.type !== 'cues') return false;
    const next = cueAfter(show.cues, played.cues.state);
    if (!next || !waitsForHand(next, this.inputs)) return false;
    return time - played.cues.state.started >= source.handSeconds - 1e-6;
  }

  /** Whether all has been played. */
  get isOver(): boolean {
    const { source, show, performance: played } = this;
    const { time } = played.transport;
    if (source.type === 'moves') return time >= (show.moves.at(-1)?.at ?? 0) + afterMovesSeconds - 1e-6;
    const { cues } = played;
    return cueAfter(show.cues, cues.state) === null && time - cues.state.started >= source.handSeconds - 1e-6;
  }
}

/** Seconds that a running order or recorded moves take; null: they never end. */
export function secondsOf(
  catalogue: Catalogue,
  inputs: LiveInputs,
  show: Show,
  source: Played,
): number | null {
  const run = new ExactPerformance(catalogue, inputs, show, source);
  const { fps } = show.canvas;
  for (let frame = 1; frame < longestHours * 3600 * fps; frame++) {
    run.advance(1 / fps);
    if (run.isOver) return frame / fps;
  }
  return null;
}

interface Entered {
  player: ScenePlayer;
  steps: FeedbackClock;
}

/** Runs the whole program: scenes, transitions, desk and layers, as the running order or recorded moves play them. */
export class ExactProgram implements ExactRun {
  private readonly players = new Map<string, Entered>();
  private readonly playing = new Map<string, ScenePlayer>();
  private run: ExactPerformance;
  private view: Seen;
  private at = -1;
  private moment: Moment | null = null;

  constructor(
    private readonly means: ExactMeans & { mix: ProgramMix },
    /** The show, on a canvas of the size that is drawn. */
    private readonly show: Show,
    private readonly source: Played,
    private readonly timing: Timing,
    /** Height of the canvas of the show, by which pixels are counted. */
    private readonly fullHeight: number,
  ) {
    this.run = this.begin();
    this.view = this.look();
  }

  private begin(): ExactPerformance {
    const { catalogue, inputs } = this.means;
    return new ExactPerformance(catalogue, inputs, this.show, this.source);
  }

  private look(): Seen {
    const { media } = this.means;
    const players = { playing: this.playing, of: () => undefined };
    return new Seen(players, this.run.performance, (file, height) => media.picture(file, height).texture);
  }

  /** Since which step each scene has been on air that is on air at a step. */
  private sinceWhen(step: number): Map<string, number> {
    const run = this.begin();
    let since = new Map<string, number>();
    for (let k = 0; k <= step; k++) {
      run.advance(this.timing.dtOf(k));
      since = new Map(run.performance.onAir.map((scene) => [scene, since.get(scene) ?? k]));
    }
    return since;
  }

  async reach(step: number, rest?: Rest): Promise<void> {
    if (step <= this.at) throw new Error('An exact run goes on only.');
    if (step === this.at + 1) {
      await this.play(step, this.run.advance(this.timing.dtOf(step)), null, rest);
      this.at = step;
      return;
    }
    // Only what is on air at the goal counts on the way, from when it came.
    for (const scene of [...this.players.keys()]) this.drop(scene);
    const since = this.sinceWhen(step);
    this.run = this.begin();
    this.view = this.look();
    for (let k = 0; k <= step; k++) {
      const moment = this.run.advance(this.timing.dtOf(k));
      // What hits may still do depends on what they did.
      this.view.begin(k, this.run.performance.transport.time);
      const here = [...since].filter(([, from]) => from <= k).map(([scene]) => scene);
      if (here.length) await this.play(k, moment, k < step ? here : null, rest);
    }
    this.at = step;
  }

  /** Plays a moment of what is on air. `onTheWay`: only what a later moment needs of these scenes. */
  private async play(
    step: number,
    moment: Moment,
    onTheWay: readonly string[] | null,
    rest?: Rest,
  ): Promise<void> {
    const { performance: played } = this.run;
    const scenes = onTheWay ?? played.onAir;
    this.moment = moment;
    for (const scene of [...this.players.keys()]) if (!scenes.includes(scene)) this.drop(scene);
    for (const id of scenes) {
      const entered = this.players.get(id) ?? (await this.enter(id, moment, rest));
      entered.player.give(played.desk.given(id));
      await this.playScene(id, entered, moment, onTheWay !== null);
    }
    if (step % 4 === 3) await this.means.gpu.finish();
    await rest?.();
  }

  private async playScene(
    id: string,
    { player, steps }: Entered,
    moment: Moment,
    isOnTheWay: boolean,
  ): Promise<void> {
    const { show, means } = this;
    const scene = sceneOf(show, id);
    const feedback = steps.next(moment.dt);
    const history = isOnTheWay ? player.historyOf(scene, []) : null;
    if (history && !history.numbers) return;
    const live = means.inputs.at(this.run.performance.transport.time, player.run.hears);
    const frame = { moment, live, canvas: show.canvas, feedback };
    await player.playExactly(scene, frame, [], this.fullHeight, history ? history.pictures : null);
    if (!isOnTheWay) throwFaults(scene, player);
  }

  private async enter(id: string, moment: Moment, rest?: Rest): Promise<Entered> {
    const { gpu, catalogue, media } = this.means;
    const scene = sceneOf(this.show, id);
    const player = new ScenePlayer(gpu, catalogue, media, scene, { waits: true });
    const entered = { player, steps: new FeedbackClock() };
    this.players.set(id, entered);
    this.playing.set(id, player);
    player.give(this.run.performance.desk.given(id));
    if (!player.historyOf(scene, []).numbers) return entered;
    const { fps } = this.show.canvas;
    const count = Math.min(Math.round(prerollSeconds * fps), Math.floor(moment.time * fps));
    for (let k = count; k > 0; k--) {
      await this.playScene(
        id,
        entered,
        { ...momentLater(moment, -k / fps), dt: k === count ? 0 : 1 / fps },
        true,
      );
      if (k % 4 === 0) await gpu.finish();
      await rest?.();
    }
    return entered;
  }

  private drop(scene: string): void {
    this.players.get(scene)?.player.dispose();
    this.players.delete(scene);
    this.playing.delete(scene);
  }

  seen(): Presented {
    if (!this.moment) throw new Error('Nothing was reached yet.');
    this.view.begin(this.at, this.run.performance.transport.time);
    return this.view.by({ type: 'program' }, 'stage', this.show, this.means);
  }

  dispose(): void {
    for (const scene of [...this.players.keys()]) this.drop(scene);
  }
}
