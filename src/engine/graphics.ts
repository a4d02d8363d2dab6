import type { Catalogue } from '../core/kind/kind';
import { Gpu } from './gpu/gpu';
import { GpuClock } from './gpu/gpu-clock';
import { LiveLayer } from './layer/live-layer';
import type { MediaLibrary } from './media/library';
import { DarkWatch } from './output/dark-watch';
import { FeedbackWatch } from './output/feedback-watch';
import { FlashGuard } from './output/flash-guard';
import { Presenter } from './output/presenter';
import { ProgramMix } from './output/program-mix';
import type { Strings } from './output/strings';
import { WallPainter } from './output/wall-painter';
import type { LiveInputs } from './playback/live-inputs';
import type { ScenePlayers } from './playback/scene-players';
import type { FromEngine } from './protocol/protocol';
import { Questions } from './questions/questions';

/** Milliseconds after a lost context until another is asked for. */
const retryMs = 250;
/** Most milliseconds that outputs keep their last picture after the graphics are back, while shaders are compiled again. */
const longestReturnMs = 30000;

/** All that lives on one graphics context. */
export interface Graphics {
  gpu: Gpu;
  clock: GpuClock;
  presenter: Presenter;
  mix: ProgramMix;
  flashes: FlashGuard;
  wall: WallPainter;
  questions: Questions;
  layer: LiveLayer;
  feedbackWatch: FeedbackWatch;
  darkWatch: DarkWatch;
}

/** What it is made with. */
interface Parts {
  catalogue: Catalogue;
  media: MediaLibrary;
  inputs: LiveInputs;
  players: ScenePlayers;
  strings: Strings;
  /** Shaders came into use. */
  onFresh(): void;
  tell(message: FromEngine): void;
}

function makeGraphics({ catalogue, media, inputs, players, strings, onFresh, tell }: Parts): Graphics {
  const gpu = new Gpu();
  gpu.onFresh = onFresh;
  const presenter = new Presenter(gpu);
  const mix = new ProgramMix(gpu);
  const wall = new WallPainter(gpu, media, strings);
  return {
    gpu,
    presenter,
    mix,
    flashes: new FlashGuard(gpu),
    wall,
    clock: new GpuClock(gpu.gl),
    questions: new Questions({ gpu, catalogue, media, presenter, mix, wall, inputs }, players.playing),
    layer: new LiveLayer(gpu),
    feedbackWatch: new FeedbackWatch(gpu),
    darkWatch: new DarkWatch(gpu, presenter, (scene, dark) => tell({ type: 'dark', scene, dark })),
  };
}

/** The graphics of the engine: there, lost, and there again. */
export class GraphicsKeeper {
  /** null: there are none, or they were lost. */
  now: Graphics | null = null;
  private downSince: number | null = null;
  private lastAttempt = 0;
  /** Until when outputs keep the picture they had before, at most; 0: they have a new one. */
  private returnsUntil = 0;

  /** `make`: makes graphics, or throws where there are none. */
  constructor(
    private readonly parts: Parts,
    private readonly make: (parts: Parts) => Graphics = makeGraphics,
  ) {
    this.start();
  }

  /** What can be drawn with now, if there is anything. */
  get usable(): Graphics | null {
    return this.now && !this.now.gpu.isLost ? this.now : null;
  }

  private start(): void {
    const { players, tell } = this.parts;
    try {
      this.now = this.make(this.parts);
      players.moveTo(this.now.gpu);
      if (this.downSince !== null) {
        this.beginReturn(performance.now());
        tell({ type: 'graphics', state: 'back', message: 'The graphics card is back.' });
      }
      this.downSince = null;
    } catch (error) {
      this.now = null;
      if (this.downSince === null) {
        this.downSince = performance.now();
        const message = error instanceof Error ? error.message : String(error);
        tell({ type: 'graphics', state: 'none', message });
      }
    }
  }

  /** Looks whether they were lost, for which `onLoss` is called, and asks for others now and then. */
  retry(now: number, onLoss: () => void): void {
    if (this.now) {
      if (this.downSince === null) {
        this.downSince = now;
        const message = 'The graphics card was lost. The last picture stays until it is back.';
        this.parts.tell({ type: 'graphics', state: 'lost', message });
      }
      this.now = null;
      onLoss();
    }
    if (now - this.lastAttempt <= retryMs) return;
    this.lastAttempt = now;
    this.start();
  }

  /** Outputs keep what they show until there are whole pictures again. */
  beginReturn(now: number): void {
    this.returnsUntil = now + longestReturnMs;
  }

  /** Whether outputs still keep what they showed. `isWhole`: whether all that they show can be drawn by now. */
  isReturning(now: number, isWhole: () => boolean): boolean {
    if (now < this.returnsUntil && !isWhole()) return true;
    this.returnsUntil = 0;
    return false;
  }
}
