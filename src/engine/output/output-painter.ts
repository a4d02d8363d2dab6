import type { WebGLRenderTarget } from 'three';
import type { Show } from '../../core/document/types';
import { windowOutputOf } from '../../core/wall/outputs';
import type { Gpu } from '../gpu/gpu';
import type { Performance } from '../playback/performance';
import type { ScenePlayers } from '../playback/scene-players';
import type { OutputSource, OutputSpec, TestPicture } from '../protocol/protocol';
import type { FlashGuard } from './flash-guard';
import { numberOf } from './number-of';
import type { Outputs } from './outputs';
import type { Presenter } from './presenter';
import type { ProgramMix } from './program-mix';
import { isOnAir, Seen, type PictureFile } from './seen';
import type { Strings } from './strings';
import type { WallPainter } from './wall-painter';

/** What outputs are painted with. */
interface Means {
  gpu: Gpu;
  presenter: Presenter;
  wall: WallPainter;
  mix: ProgramMix;
  flashes: FlashGuard;
}

/** Says what each output shows of a performance, and paints it. */
export class OutputPainter {
  /** Outputs of the wall that show a test picture. */
  tests: Readonly<Record<string, TestPicture>> = {};
  /** Those that they showed when they were last painted. */
  private paintedTests: Readonly<Record<string, TestPicture>> = {};

  private frame = 0;
  private readonly seen: Seen;

  constructor(
    private readonly outputs: Outputs,
    private readonly players: ScenePlayers,
    private readonly performance: Performance,
    pictureOf: PictureFile,
  ) {
    this.seen = new Seen(players, performance, pictureOf);
  }

  /** Begins a frame, of that number and at that time in seconds: what hits do holds for all of its outputs. */
  begin(frame: number, seconds: number): void {
    this.frame = frame;
    this.seen.begin(frame, seconds);
  }

  /** What is on stage stays as it is. A blackout is seen through a freeze. */
  private get isFrozen(): boolean {
    return this.performance.freeze && !this.performance.blackout;
  }

  looksAround = (show: Show): boolean => this.seen.looksAround(show);

  /** Paints all outputs of that use. */
  paint(use: OutputSpec['use'], show: Show, means: Means): void {
    const { tests } = this;
    this.outputs.paint(
      means.gpu,
      use,
      this.keepsPicture,
      (output) => this.draw(output, show, means),
      (output) => this.stateOf(output, show, means),
      ({ source }) => {
        const { next } = this.performance.program.state;
        if (source.type === 'next') return next === null || this.players.isComplete(next);
        return source.type !== 'scene' || this.players.of(source)?.renderer.isComplete !== false;
      },
    );
    // Until test pictures can be drawn, none was painted.
    if (use === 'stage' && (means.wall.hasTests || Object.keys(tests).length === 0))
      this.paintedTests = tests;
  }

  /** Whether an output stands as it is. A test picture comes and goes whatever is frozen. */
  private readonly keepsPicture = ({ use, source }: Readonly<OutputSpec>): boolean =>
    use === 'stage' &&
    this.isFrozen &&
    (source.type !== 'screen' || this.tests[source.id] === this.paintedTests[source.id]);

  /** Keeps what stands in for outputs when the graphics card is lost; called once they are painted. */
  keepStandIn(now: number, show: Show, means: Means): void {
    this.outputs.keepStandIn(now, means.gpu, this.keepsPicture, (output) => this.draw(output, show, means));
  }

  /** The graphics card is gone, and with it the canvas of each output. What is blacked out stays dark until it is back. */
  lose(): { id: string; dark: boolean }[] {
    return this.outputs.lose((use) => use === 'stage' && this.performance.blackout);
  }

  /** Draws what is on air as it is recorded; false: it stands as it is. */
  drawProgram(show: Show, means: Means, target: WebGLRenderTarget): boolean {
    if (this.isFrozen) return false;
    means.presenter.drawNumbers(this.seen.by({ type: 'program' }, 'stage', show, means), 'numbers', target);
    return true;
  }

  /** Counts the flashes of what is on air. */
  countFlashes(now: number, show: Show, means: Means): void {
    if (this.isFrozen) return;
    const leaves = this.seen.by({ type: 'program' }, 'stage', show, means);
    means.flashes.count(leaves, now / 1000, show.wall.limiter);
  }

  /** Feeds the strings of the wall with what is on air. */
  feedStrings(now: number, show: Show, strings: Strings, means: Means): void {
    const program = { type: 'program' } as const;
    const { isFrozen, tests } = this;
    const how = { isFrozen, inRoom: this.outputs.showsRoom, tests };
    strings.feed(now, show, means.gpu, () => this.seen.by(program, 'stage', show, means), how);
  }

  /** What an output shows, as a text that changes whenever that looks otherwise. */
  private stateOf(
    { source, use, mapping, width, height }: Readonly<OutputSpec>,
    show: Show,
    means: Means,
  ): string {
    const { gpu, wall } = means;
    const where = `${width}x${height} ${JSON.stringify(mapping)}`;
    if (source.type === 'node') {
      const run = this.players.of(source)?.run.runs.get(source.node);
      return `${where} ${source.scene} ${source.node} ${run?.changed === false ? 'still' : `frame ${this.frame}`}`;
    }
    const { first, second, fade, level, transition } = this.seen.by(source, use, show, means);
    const looks = [first, second].map(({ texture, background, brightness }) => [
      texture.uuid,
      background,
      brightness,
    ]);
    // A tile or an example is a player of its own, which has its turn now and then; another example is another player.
    if (source.type === 'tile' || source.type === 'example') {
      const player = this.players.of(source);
      return `${where} ${JSON.stringify(looks)} ${player ? `${numberOf(player)} ${player.frames}` : ''}`;
    }
    const laid = isOnAir(source) ? this.seen.laidState(show) : '';
    const mixed = fade > 0 && transition ? numberOf(transition.of) : '';
    return `${where} ${this.placeState(source, show, wall)} ${JSON.stringify(looks)} ${fade} ${mixed} ${laid} ${level} ${gpu.pictures}`;
  }

  /** The same of where it is seen: the part and surface of a screen, the room and who looks at it. */
  private placeState(source: OutputSource, show: Show, wall: WallPainter): string {
    if (source.type === 'room')
      return `${numberOf(source.view)} ${numberOf(show.wall)} ${numberOf(this.tests)} ${wall.roomVersion}`;
    const output = source.type === 'screen' && windowOutputOf(show, source.id);
    return output ? `${numberOf(output)} ${this.tests[output.id]} ${wall.hasTests}` : '';
  }

  private draw(output: Readonly<OutputSpec>, show: Show, means: Means): boolean {
    const { presenter, wall } = means;
    const { source, use, mapping } = output;
    const { canvas } = show;
    if (source.type === 'node') return this.players.of(source)?.peek(source.node, null) ?? false;
    // Until one of those has had its turn, what lies under it is seen.
    if ((source.type === 'tile' || source.type === 'example') && this.players.of(source)?.isDrawn !== true)
      return false;
    const seen = this.seen.by(source, use, show, means);
    if (source.type === 'room')
      return wall.drawRoom(show, source.view, output, seen, this.tests, this.isFrozen);
    const screen = source.type === 'screen' && windowOutputOf(show, source.id);
    if (screen) {
      const place = use === 'desk' ? 'desk' : 'window';
      wall.draw(screen, seen, { place, into: output, canvas }, this.tests[screen.id]);
    } else presenter.draw(seen, output, { aspect: canvas.width / canvas.height, mapping });
    return true;
  }
}
