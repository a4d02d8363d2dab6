import type { Scene, ScreenOutput, Show } from '../../core/document/types';
import { makeShow } from '../../core/show/create';
import { addScreen } from '../../core/show/edit-wall';
import { idleInputs } from '../../core/inputs/inputs';
import { momentAt } from '../../core/time/clock';
import { FeedbackClock, mostStepsAt } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import { MediaLibrary } from '../media/library';
import { ScreenPainter } from '../output/screen-painter';
import { ScenePlayer } from '../playback/scene-player';
import { timed, type Work } from './measure';

/** Patches that are measured read no files but those that ship. */
export const noFiles = (): MediaLibrary =>
  new MediaLibrary(
    () => Promise.reject(new Error('No page is there.')),
    () => undefined,
  );

/** Size that scenes are measured at, unless another is asked for. */
const usualSize = { width: 480, height: 270 };

/** A scene of a show as the engine plays it, frame by frame, and on so many screens of 1280x720 that show all of it. */
export function sceneWork(
  gpu: Gpu,
  show: Show,
  scene: Scene,
  { canvas = usualSize, screens = 0, rate = 60 }: SceneOptions = {},
): Work & { dispose(): void } {
  const player = new ScenePlayer(gpu, catalogue, noFiles(), scene, { waits: true });
  const steps = new FeedbackClock();
  const live = idleInputs();
  const pixel = new Uint8Array(4);
  const painter = screens > 0 ? new ScreenPainter(gpu) : null;
  const wall = Array.from({ length: screens }, () => {
    const made = makeShow(catalogue, 'Screens');
    addScreen(made);
    return made.wall.outputs[0] as ScreenOutput;
  });
  const paint = (): void => {
    if (!painter) return;
    const shown = { first: player.look, second: plainLook(gpu.empty), fade: 0, level: 1 };
    gpu.resize(screenSize.width, screenSize.height);
    gpu.renderer.setViewport(0, 0, screenSize.width, screenSize.height);
    for (const screen of wall) painter.draw(screen, 'window', shown, screenSize, show.canvas);
  };
  return {
    frame(k) {
      const dt = k ? 1 / rate : 0;
      const moment = momentAt(k / rate, dt, rate, show.tempo);
      const feedback = steps.next(dt, rate < 60 ? mostStepsAt(1000 / rate) : undefined);
      player.play(scene, { moment, live, canvas, feedback }, [], show.canvas.height);
      paint();
    },
    finish() {
      const target = gpu.acquire(1, 1, '8');
      gpu.copy(player.picture, target);
      gpu.renderer.readRenderTargetPixels(target, 0, 0, 1, 1, pixel);
      gpu.release(target);
    },
    dispose: () => player.dispose(),
  };
}

/** How a scene is measured. */
export interface SceneOptions {
  canvas?: { width: number; height: number };
  screens?: number;
  /** Frames a second that it is played at: what remembers takes more steps in each where these are few. Default: 60, a step a frame. */
  rate?: number;
}

const screenSize = { width: 1280, height: 720 };

/** What a soak looks at: it must not grow. */
export interface GpuState {
  targets: number;
  textures: number;
  shaders: number;
  /** Bytes. */
  heap: number;
}

/** What `npm run bench -- --against` calls in the page of either revision; a later one has to keep it as it is. */
export function scenesPage(gpu: Gpu): {
  open(name: string, show: Show, options?: SceneOptions): void;
  time(frames: number): number;
  state(): GpuState;
} {
  let open: { work: ReturnType<typeof sceneWork>; next: number } | null = null;
  return {
    open(name, show, options) {
      open?.work.dispose();
      open = {
        work: sceneWork(
          gpu,
          show,
          show.scenes.find((scene) => scene.name === name)!,
          options,
        ),
        next: 3,
      };
      // Shaders are compiled and textures sent at first use.
      timed(open.work, 0, 3);
    },
    state() {
      const page = globalThis as unknown as {
        gc?(): void;
        performance: { memory?: { usedJSHeapSize: number } };
      };
      page.gc?.();
      return {
        targets: gpu.targetCount,
        textures: gpu.textureCount,
        shaders: gpu.shaderCount,
        heap: page.performance.memory?.usedJSHeapSize ?? 0,
      };
    },
    time(frames) {
      if (!open) throw new Error('Nothing is open.');
      const ms = timed(open.work, open.next, frames) / frames;
      open.next += frames;
      return ms;
    },
  };
}
