import type { Scene, Show } from '../../core/document/types';
import { idleInputs } from '../../core/inputs/inputs';
import { momentAt } from '../../core/time/clock';
import { FeedbackClock } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import { MediaLibrary } from '../media/library';
import { ScenePlayer } from '../playback/scene-player';
import { timed, type Work } from './measure';

/** Patches that are measured read no files but those that ship. */
export const noFiles = (): MediaLibrary =>
  new MediaLibrary(
    () => Promise.reject(new Error('No page is there.')),
    () => undefined,
  );

/** Size that scenes are measured at. */
const canvas = { width: 480, height: 270 };

/** A scene of a show as the engine plays it, frame by frame. */
function sceneWork(gpu: Gpu, show: Show, scene: Scene): Work & { dispose(): void } {
  const player = new ScenePlayer(gpu, catalogue, noFiles(), scene, { waits: true });
  const steps = new FeedbackClock();
  const live = idleInputs();
  const pixel = new Uint8Array(4);
  return {
    frame(k) {
      const dt = k ? 1 / 60 : 0;
      const moment = momentAt(k / 60, dt, 60, show.tempo);
      player.play(scene, { moment, live, canvas, feedback: steps.next(dt) }, [], show.canvas.height);
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
  open(name: string, show: Show): void;
  time(frames: number): number;
  state(): GpuState;
} {
  let open: { work: ReturnType<typeof sceneWork>; next: number } | null = null;
  return {
    open(name, show) {
      open?.work.dispose();
      open = {
        work: sceneWork(
          gpu,
          show,
          show.scenes.find((scene) => scene.name === name)!,
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
        textures: gpu.renderer.info.memory.textures,
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
