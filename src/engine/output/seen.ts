import type { Show, TransitionMask } from '../../core/document/types';
import type { Texture } from 'three';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import type { HitLook } from '../playback/hits';
import type { Performance } from '../playback/performance';
import type { ScenePlayers } from '../playback/scene-players';
import type { OutputSource, OutputSpec } from '../protocol/protocol';
import { numberOf } from './number-of';
import { presented } from './presented';
import { isDrawnByOutputs, type Presented } from './presenter';
import type { FlashGuard } from './flash-guard';
import type { Additions, ProgramMix } from './program-mix';

/** The pixels of a picture file, as soon as they are there. */
export type PictureFile = (file: string, height: number) => Texture | null;

/** Whether a source is what is on air. */
export const isOnAir = ({ type }: OutputSource): boolean =>
  type === 'program' || type === 'screen' || type === 'room';

/** Says what is seen of a performance in a frame: which scenes, how they are mixed, and what lies on them. */
export class Seen {
  /** How hits change the picture in this frame, and its number. */
  private hits: HitLook = { level: 1, invert: false, flash: 0 };
  private frame = 0;
  private seconds = 0;

  constructor(
    private readonly players: Pick<ScenePlayers, 'playing' | 'of'>,
    private readonly performance: Performance,
    private readonly pictureOf: PictureFile,
  ) {}

  /** Begins a frame, of that number and at that time in seconds: what hits do holds for all that is seen of it. */
  begin(frame: number, seconds: number): void {
    this.frame = frame;
    this.seconds = seconds;
    this.hits = this.performance.hits.at(seconds);
  }

  /** The performer goes on seeing what would be on air; the room and the screens in it are dark as the stage is. */
  private isBlack({ type }: OutputSource, use: OutputSpec['use']): boolean {
    return this.performance.blackout && (use === 'stage' || type === 'screen' || type === 'room');
  }

  /** Whether the program is put together from more than the pixel that is drawn: a layer, a hit, a blur, the limiter. */
  looksAround({ transition, wall }: Show): boolean {
    const { overlay, program, hits } = this.performance;
    const look = (program.state.look ?? transition).look;
    const isPlain = isDrawnByOutputs(look);
    return (
      wall.limiter ||
      overlay !== null ||
      hits.active.length > 0 ||
      (program.state.incoming !== null && !isPlain)
    );
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

  /** What a source shows. Without `flashes`, no flash of it is held back. */
  by(
    source: Exclude<OutputSource, { type: 'node' }>,
    use: OutputSpec['use'],
    show: Show,
    { gpu, mix, flashes }: { gpu: Gpu; mix: ProgramMix; flashes?: FlashGuard },
  ): Presented {
    const { players, performance } = this;
    const { state } = performance.program;
    const { canvas } = show;
    const isAired = isOnAir(source);
    const isBlack = this.isBlack(source, use);
    const now: Presented = {
      ...presented(source, state, {
        ofScene: (id) => players.playing.get(id)?.look,
        of: (one) => players.of(one)?.look,
        nothing: plainLook(gpu.empty),
      }),
      level: isBlack ? 0 : isAired ? this.hits.level : 1,
      transition: { of: state.look ?? show.transition, aspect: canvas.width / canvas.height },
    };
    if (!isAired) return now;
    const additions = this.additions(show);
    const mixed = mix.isNeeded(now, additions)
      ? { ...now, first: mix.draw(now, additions, this.frame), second: plainLook(gpu.empty), fade: 0 }
      : now;
    if (!flashes || !show.wall.limiter) return mixed;
    // A blackout is black at once; what hits do to the light is held back like all else.
    const limited = flashes.limit({ ...mixed, level: this.hits.level }, this.frame, this.seconds);
    return isBlack ? { ...limited, level: 0 } : limited;
  }

  /** What lies on the program, as a text that changes whenever that looks otherwise. */
  laidState(show: Show): string {
    const { program, overlay } = this.performance;
    const { invert, flash } = this.hits;
    if (show.wall.limiter) return `limited ${this.frame}`;
    const isOpen = program.state.incoming !== null;
    if (!overlay && !invert && flash === 0 && !isOpen) return '';
    return `${numberOf(program.state.look ?? show.transition)} ${overlay ? JSON.stringify(overlay) : ''} ${program.state.fade} ${invert} ${flash}`;
  }
}
