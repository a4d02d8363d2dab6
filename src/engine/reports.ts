import type { Gpu } from './gpu/gpu';
import type { GpuClock } from './gpu/gpu-clock';
import { benchData, glanceNodes, glanceParts } from './output/glance';
import type { FeedbackWatch } from './output/feedback-watch';
import type { ScenePlayer } from './playback/scene-player';
import type {
  FlashReport,
  FromEngine,
  PerformanceReport,
  PixelReport,
  Stats,
  Watch,
} from './protocol/protocol';

/** Milliseconds between two reports of a kind. */
const every = {
  performance: 40,
  glance: 50,
  cards: 500,
  heard: 50,
  faults: 100,
  stats: 250,
  pixels: 500,
  flashes: 100,
} as const;

/** Milliseconds between two reports of what was done: many hands may play at once, and a display shows no more of it. */
const newsMs = 15;

type Tell = (message: FromEngine) => void;

/** Tells the interface what the engine does, each thing no more often than it can be read. */
export class Reports {
  private readonly last = {
    performance: 0,
    glance: 0,
    cards: 0,
    heard: 0,
    faults: 0,
    stats: 0,
    pixels: 0,
    flashes: 0,
  };
  /** Whether something was done that has not been told. */
  hasNews = false;
  private toldPixels = false;
  private toldFlashes = '';
  private readonly toldFaults = new Map<string, string>();

  constructor(private readonly tell: Tell) {}

  private isDue(what: keyof typeof every, now: number, least = 0): boolean {
    if (now - this.last[what] <= Math.max(least, every[what])) return false;
    this.last[what] = now;
    return true;
  }

  /** Another show: all of its faults are news. */
  forget(): void {
    this.toldFaults.clear();
  }

  /**
   * `isNews`: told as soon as a display could show it, since somebody waits for it; where that is not yet, with the next call.
   * `leastMs`: milliseconds between two at least.
   */
  performance(now: number, report: () => PerformanceReport, isNews = false, leastMs = 0): void {
    this.hasNews ||= isNews;
    if (this.hasNews) {
      if (now - this.last.performance < newsMs) return;
      this.last.performance = now;
      this.hasNews = false;
    } else if (!this.isDue('performance', now, leastMs)) return;
    this.tell({ type: 'performance', ...report() });
  }

  /** Each report makes the page paint: `frameMs` of a busy GPU makes them rarer. */
  glance(now: number, player: ScenePlayer, { cards, inspected, bench }: Watch, frameMs: number): void {
    if (!this.isDue('glance', now, frameMs / 2)) return;
    const nodes = this.isDue('cards', now) ? glanceNodes(player.run, cards) : null;
    const parts = inspected ? glanceParts(player.run, inspected) : [];
    this.tell({ type: 'glance', nodes, parts, bench: bench ? benchData(player.run, bench) : null });
  }

  heard(now: number, meter: () => Omit<Extract<FromEngine, { type: 'heard' }>, 'type'>): void {
    if (this.isDue('heard', now)) this.tell({ type: 'heard', ...meter() });
  }

  /** `pixels` gives null when no string is fed, which is told once. */
  pixels(now: number, pixels: () => PixelReport | null): void {
    if (!this.isDue('pixels', now)) return;
    const report = pixels();
    if (report || this.toldPixels) this.tell({ type: 'pixels', pixels: report });
    this.toldPixels = report !== null;
  }

  /** What the flash meter counts, whenever that changes. */
  flashes(now: number, flashes: () => FlashReport | null): void {
    if (!this.isDue('flashes', now)) return;
    const report = flashes();
    const told = JSON.stringify(report);
    if (told === this.toldFlashes) return;
    this.toldFlashes = told;
    this.tell({ type: 'flashes', flashes: report });
  }

  faults(
    now: number,
    players: ReadonlyMap<string, ScenePlayer>,
    watched: string | null,
    watch: FeedbackWatch,
  ): void {
    if (!this.isDue('faults', now)) return;
    for (const [scene, player] of players) {
      const faults = player.faults();
      const notes = player.notes();
      const feedback = scene === watched ? watch.notes(player) : {};
      const key = JSON.stringify([faults, notes, feedback]);
      if (this.toldFaults.get(scene) === key) continue;
      this.toldFaults.set(scene, key);
      this.tell({ type: 'faults', scene, faults, notes, feedback });
    }
  }

  stats(
    now: number,
    gpu: Gpu,
    clock: GpuClock,
    rest: Pick<Stats, 'stageFrames' | 'frames' | 'cpuMs' | 'width' | 'height'>,
  ): void {
    if (!this.isDue('stats', now)) return;
    this.tell({
      type: 'stats',
      stats: {
        ...rest,
        framesPerSecond: clock.perSecond,
        frameMs: clock.frameMs,
        passes: gpu.passes,
        targets: gpu.targetCount,
        textures: gpu.textureCount,
        shaders: gpu.shaderCount,
        nodeMs: { ...clock.nodeMs },
      },
    });
  }
}
