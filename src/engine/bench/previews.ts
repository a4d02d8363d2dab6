import { quietInputs } from '../../core/run/inputs';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/loop-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu';
import { MediaLibrary } from '../media/library';
import { Previews } from '../previews';
import { ScenePlayer } from '../scene-player';
import type { Work } from './measure';
import { Patch, size } from './rig';

/** A patch of 24 pictures, as the engine plays it with all its cards in sight, or with none. */
export function previewsEngine(gpu: Gpu, on: boolean): Work {
  const p = new Patch();
  let last = p.add('noise', { octaves: 2 });
  const cards = [last];
  while (cards.length < 24) {
    const next = p.add(
      cards.length % 3 ? 'hue-saturation' : 'blur',
      cards.length % 3 ? { hue: 20 } : { radius: 0.02 },
    );
    p.wire(last, next, 'picture');
    last = next;
    cards.push(last);
  }
  p.wire(last, p.out, 'picture');
  const media = new MediaLibrary(
    () => Promise.reject(new Error('No page is there.')),
    () => undefined,
  );
  const player = new ScenePlayer(gpu, catalogue, media, p.scene, { waits: true });
  const previews = new Previews(gpu, () => undefined);
  return {
    frame(k) {
      const moment = momentAt(k / 60, k ? 1 / 60 : 0, 60, { bpm: 120, beatsPerBar: 4 });
      player.play(p.scene, { moment, live: quietInputs(), canvas: size, loop: oneStep }, [], size.height);
      // A card that draws in software never has time to spare.
      if (on) previews.turn(performance.now(), player, cards, false);
    },
    finish() {
      const target = gpu.acquire(1, 1, '8');
      gpu.copy(player.picture, target);
      gpu.renderer.readRenderTargetPixels(target, 0, 0, 1, 1, new Uint8Array(4));
      gpu.release(target);
    },
  };
}
