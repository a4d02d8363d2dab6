import type { Show } from '../../core/document/types';
import { windowOutputOf } from '../../core/wall/outputs';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import type { Performance } from '../playback/performance';
import type { ScenePlayers } from '../playback/scene-players';
import type { OutputSource, OutputSpec, TestPicture } from '../protocol/protocol';
import { numberOf } from './number-of';
import type { Outputs } from './outputs';
import { presented } from './presented';
import type { Presented, Presenter } from './presenter';
import type { WallPainter } from './wall-painter';

/** What outputs are painted with. */
interface Means {
  gpu: Gpu;
  presenter: Presenter;
  wall: WallPainter;
}

/** Says what each output shows of a performance, and paints it. */
export class OutputPainter {
  /** Outputs of the wall that show a test picture. */
  tests: Readonly<Record<string, TestPicture>> = {};
  /** Those that they showed when they were last painted. */
  private paintedTests: Readonly<Record<string, TestPicture>> = {};

  constructor(
    private readonly outputs: Outputs,
    private readonly players: ScenePlayers,
    private readonly performance: Performance,
  ) {}

  /** What is on stage stays as it is. A blackout is seen through a freeze. */
  private get isFrozen(): boolean {
    return this.performance.freeze && !this.performance.blackout;
  }

  /** Paints all outputs of that use. `frame`: number of the frame that was drawn. */
  paint(use: OutputSpec['use'], show: Show, means: Means, frame: number): void {
    const { tests, paintedTests } = this;
    // A test picture comes and goes whatever is frozen.
    const keepsPicture = ({ source }: Readonly<OutputSpec>): boolean =>
      use === 'stage' &&
      this.isFrozen &&
      (source.type !== 'screen' || tests[source.id] === paintedTests[source.id]);
    this.outputs.paint(
      means.gpu,
      use,
      keepsPicture,
      (output) => this.draw(output, show, means),
      (output) => this.stateOf(output, show, means, frame),
    );
    if (use === 'stage') this.paintedTests = tests;
  }

  /** Feeds the strings of the wall with what is on air. */
  feedPixels(now: number, show: Show, { gpu, wall }: Means): void {
    const program = { type: 'program' } as const;
    const { isFrozen, tests } = this;
    const how = { isFrozen, inRoom: this.outputs.showsRoom, tests };
    wall.pixels.feed(now, show, this.seenBy(program, 'stage', show, gpu), how);
  }

  private isBlack(source: OutputSource, use: OutputSpec['use']): boolean {
    const isOnAir = source.type === 'program' || source.type === 'screen' || source.type === 'room';
    return this.performance.blackout && (use === 'stage' || isOnAir);
  }

  private seenBy(
    source: Exclude<OutputSource, { type: 'node' }>,
    use: OutputSpec['use'],
    { transition, canvas }: Show,
    gpu: Gpu,
  ): Presented {
    const { players } = this;
    const now = presented(source, this.performance.program.state, {
      ofScene: (id) => players.playing.get(id)?.look,
      of: (one) => players.of(one)?.look,
      nothing: plainLook(gpu.empty),
    });
    return {
      ...now,
      level: this.isBlack(source, use) ? 0 : 1,
      transition: { of: transition, aspect: canvas.width / canvas.height },
    };
  }

  /** What an output shows, as a text that changes whenever that looks otherwise. */
  private stateOf(
    { source, use, mapping, width, height }: Readonly<OutputSpec>,
    show: Show,
    { gpu, wall }: Means,
    frame: number,
  ): string {
    const where = `${width}x${height} ${JSON.stringify(mapping)}`;
    if (source.type === 'node') {
      const run = this.players.of(source)?.run.runs.get(source.node);
      return `${where} ${source.scene} ${source.node} ${run?.changed === false ? 'still' : `frame ${frame}`}`;
    }
    const { first, second, fade, level, transition } = this.seenBy(source, use, show, gpu);
    const looks = [first, second].map(({ texture, background, brightness }) => [
      texture.uuid,
      background,
      brightness,
    ]);
    const mixed = fade > 0 && transition ? numberOf(transition.of) : '';
    return `${where} ${this.placeState(source, show, wall)} ${JSON.stringify(looks)} ${fade} ${mixed} ${level} ${gpu.pictures}`;
  }

  /** The same of where it is seen: the part and surface of a screen, the room and who looks at it. */
  private placeState(source: OutputSource, show: Show, wall: WallPainter): string {
    if (source.type === 'room')
      return `${numberOf(source.view)} ${numberOf(show.wall)} ${numberOf(this.tests)} ${wall.roomVersion}`;
    const output = source.type === 'screen' && windowOutputOf(show, source.id);
    return output ? `${numberOf(output)} ${this.tests[output.id]}` : '';
  }

  private draw(output: Readonly<OutputSpec>, show: Show, { presenter, wall, gpu }: Means): boolean {
    const { source, use, mapping } = output;
    const { canvas } = show;
    if (source.type === 'node') return this.players.of(source)?.peek(source.node, null) ?? false;
    const seen = this.seenBy(source, use, show, gpu);
    if (source.type === 'room') {
      wall.drawRoom(show, source.view, output, seen, this.tests, this.isFrozen);
      return true;
    }
    const screen = source.type === 'screen' && windowOutputOf(show, source.id);
    if (screen) {
      const place = use === 'desk' ? 'desk' : 'window';
      wall.draw(screen, seen, { place, into: output, canvas }, this.tests[screen.id]);
    } else presenter.draw(seen, output, { aspect: canvas.width / canvas.height, mapping });
    return true;
  }
}
