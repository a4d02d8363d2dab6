import type { Show } from '../../core/document/types';
import { windowOutputOf } from '../../core/wall/outputs';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import type { Texture } from 'three';
import type { TransitionMask } from '../../core/document/types';
import type { HitLook } from '../playback/hits';
import type { Performance } from '../playback/performance';
import type { ScenePlayers } from '../playback/scene-players';
import type { OutputSource, OutputSpec, TestPicture } from '../protocol/protocol';
import { numberOf } from './number-of';
import type { Outputs } from './outputs';
import { presented } from './presented';
import { isDrawnByOutputs, type Presented, type Presenter } from './presenter';
import type { Additions, ProgramMix } from './program-mix';
import type { WallPainter } from './wall-painter';

/** What outputs are painted with. */
interface Means {
  gpu: Gpu;
  presenter: Presenter;
  wall: WallPainter;
  mix: ProgramMix;
}

/** Says what each output shows of a performance, and paints it. */
export class OutputPainter {
  /** Outputs of the wall that show a test picture. */
  tests: Readonly<Record<string, TestPicture>> = {};
  /** Those that they showed when they were last painted. */
  private paintedTests: Readonly<Record<string, TestPicture>> = {};

  /** How hits change the picture in this frame, and its number. */
  private hits: HitLook = { level: 1, invert: false, flash: 0 };
  private frame = 0;

  constructor(
    private readonly outputs: Outputs,
    private readonly players: ScenePlayers,
    private readonly performance: Performance,
    /** The pixels of a picture file, as soon as they are there. */
    private readonly pictureOf: (file: string, height: number) => Texture | null,
  ) {}

  /** Begins a frame, of that number and at that time in seconds: what hits do holds for all of its outputs. */
  begin(frame: number, seconds: number): void {
    this.frame = frame;
    this.hits = this.performance.hits.at(seconds);
  }

  /** What is on stage stays as it is. A blackout is seen through a freeze. */
  private get isFrozen(): boolean {
    return this.performance.freeze && !this.performance.blackout;
  }

  /** Paints all outputs of that use. */
  paint(use: OutputSpec['use'], show: Show, means: Means): void {
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
      (output) => this.stateOf(output, show, means),
    );
    if (use === 'stage') this.paintedTests = tests;
  }

  /** Feeds the strings of the wall with what is on air. */
  feedPixels(now: number, show: Show, means: Means): void {
    const { wall } = means;
    const program = { type: 'program' } as const;
    const { isFrozen, tests } = this;
    const how = { isFrozen, inRoom: this.outputs.showsRoom, tests };
    wall.pixels.feed(now, show, this.seenBy(program, 'stage', show, means), how);
  }

  /** Whether a source is what is on air. */
  private isOnAir = ({ type }: OutputSource): boolean =>
    type === 'program' || type === 'screen' || type === 'room';

  private levelOf(source: OutputSource, use: OutputSpec['use']): number {
    const isOnAir = this.isOnAir(source);
    // The performer goes on seeing what would be on air; the room and the screens in it are dark as the stage is.
    const isDark = use === 'stage' || source.type === 'screen' || source.type === 'room';
    if (this.performance.blackout && isDark) return 0;
    return isOnAir ? this.hits.level : 1;
  }

  /** Whether the program is put together from more than the pixel that is drawn: a layer, a hit, a blur. */
  looksAround({ transition }: Show): boolean {
    const { overlay, program, hits } = this.performance;
    const look = (program.state.look ?? transition).look;
    const isPlain = isDrawnByOutputs(look);
    return overlay !== null || hits.active.length > 0 || (program.state.incoming !== null && !isPlain);
  }

  private maskOf(mask: TransitionMask | null, height: number): Additions['mask'] {
    if (!mask) return null;
    if (mask.from === 'scene') return this.players.playing.get(mask.id)?.look ?? null;
    const texture = this.pictureOf(mask.id, height);
    return texture && plainLook(texture);
  }

  private additions(show: Show): Additions {
    const { program, overlay } = this.performance;
    const { mask } = program.state.look ?? show.transition;
    const look = overlay && this.players.playing.get(overlay.scene)?.look;
    return {
      mask: program.state.incoming ? this.maskOf(mask, show.canvas.height) : null,
      layer: look ? { look, blend: overlay.blend, opacity: overlay.opacity } : null,
      invert: this.hits.invert,
      flash: this.hits.flash,
    };
  }

  private seenBy(
    source: Exclude<OutputSource, { type: 'node' }>,
    use: OutputSpec['use'],
    show: Show,
    { gpu, mix }: Means,
  ): Presented {
    const { players, performance } = this;
    const { state } = performance.program;
    const { canvas } = show;
    const now: Presented = {
      ...presented(source, state, {
        ofScene: (id) => players.playing.get(id)?.look,
        of: (one) => players.of(one)?.look,
        nothing: plainLook(gpu.empty),
      }),
      level: this.levelOf(source, use),
      transition: { of: state.look ?? show.transition, aspect: canvas.width / canvas.height },
    };
    if (!this.isOnAir(source)) return now;
    const additions = this.additions(show);
    if (!mix.isNeeded(now, additions)) return now;
    return { ...now, first: mix.draw(now, additions, this.frame), second: plainLook(gpu.empty), fade: 0 };
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
    const { first, second, fade, level, transition } = this.seenBy(source, use, show, means);
    const looks = [first, second].map(({ texture, background, brightness }) => [
      texture.uuid,
      background,
      brightness,
    ]);
    // A tile is a player of its own, which has its turn now and then.
    if (source.type === 'tile') return `${where} ${JSON.stringify(looks)} ${this.players.of(source)?.frames}`;
    const laid = this.isOnAir(source) ? this.laidState(show) : '';
    const mixed = fade > 0 && transition ? numberOf(transition.of) : '';
    return `${where} ${this.placeState(source, show, wall)} ${JSON.stringify(looks)} ${fade} ${mixed} ${laid} ${level} ${gpu.pictures}`;
  }

  /** The same of what lies on the program. */
  private laidState(show: Show): string {
    const { program, overlay } = this.performance;
    const { invert, flash } = this.hits;
    const isOpen = program.state.incoming !== null;
    if (!overlay && !invert && flash === 0 && !isOpen) return '';
    return `${numberOf(program.state.look ?? show.transition)} ${overlay ? JSON.stringify(overlay) : ''} ${program.state.fade} ${invert} ${flash}`;
  }

  /** The same of where it is seen: the part and surface of a screen, the room and who looks at it. */
  private placeState(source: OutputSource, show: Show, wall: WallPainter): string {
    if (source.type === 'room')
      return `${numberOf(source.view)} ${numberOf(show.wall)} ${numberOf(this.tests)} ${wall.roomVersion}`;
    const output = source.type === 'screen' && windowOutputOf(show, source.id);
    return output ? `${numberOf(output)} ${this.tests[output.id]}` : '';
  }

  private draw(output: Readonly<OutputSpec>, show: Show, means: Means): boolean {
    const { presenter, wall } = means;
    const { source, use, mapping } = output;
    const { canvas } = show;
    if (source.type === 'node') return this.players.of(source)?.peek(source.node, null) ?? false;
    // Until a tile has had its turn, what lies under it is seen.
    if (source.type === 'tile' && this.players.of(source)?.isDrawn !== true) return false;
    const seen = this.seenBy(source, use, show, means);
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
