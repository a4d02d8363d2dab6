import type { Scene, Show } from '../../core/show/types';
import { quietInputs } from '../../core/run/inputs';
import { momentAt } from '../../core/time/clock';
import { LoopClock } from '../../core/time/loop-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu';
import { ScenePlayer } from '../scene-player';
import type { Work } from './measure';
import { noFiles } from './rig';

/** Size that scenes are measured at. */
const canvas = { width: 480, height: 270 };

/**
 * A scene of a show as the engine plays it, frame by frame. Only what every version of the engine has is used here, since
 * this file is put into older ones to be compared with (`npm run bench -- --against`).
 */
export function sceneWork(gpu: Gpu, show: Show, scene: Scene): Work & { dispose(): void } {
  const player = new ScenePlayer(gpu, catalogue, noFiles(), scene, { waits: true });
  const loop = new LoopClock();
  const live = quietInputs();
  const pixel = new Uint8Array(4);
  return {
    frame(k) {
      const dt = k ? 1 / 60 : 0;
      const moment = momentAt(k / 60, dt, 60, show.tempo);
      player.play(scene, { moment, live, canvas, loop: loop.next(dt) }, [], show.canvas.height);
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
