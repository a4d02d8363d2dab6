import type { Gpu } from '../gpu/gpu';
import { Previews } from '../output/previews';
import { ratioOf, type Ratio } from './measure';
import { Patch, Rig } from './rig';

/** A patch of 24 pictures, and their cards. */
function patchOfMany(gpu: Gpu): { rig: Rig; cards: string[] } {
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
  return { rig: new Rig(gpu, p, last), cards };
}

/** Gives the browser a turn, in which what was read is handed over. */
function turn(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => resolve();
    port2.postMessage(null);
  });
}

/**
 * A frame of a patch of 24 pictures with all of its cards in sight, over the same without. Frames go on for as long as
 * two turns of previews take, so that these are in what is measured; that they came is seen by counting them.
 */
export async function previewsRatio(gpu: Gpu, rounds: number): Promise<Ratio> {
  const { rig, cards } = patchOfMany(gpu);
  let delivered = 0;
  const previews = new Previews(gpu, (_pixels, _width, cells) => void (delivered += cells.length));
  let k = 0;
  const perFrame = async (on: boolean, ms: number): Promise<number> => {
    const start = performance.now();
    let frames = 0;
    while (performance.now() - start < ms) {
      rig.frame(k++);
      // A GPU that draws in software never has time to spare.
      if (on) previews.turn(performance.now(), rig.player, cards, false);
      rig.finish();
      await turn();
      frames++;
    }
    return (performance.now() - start) / frames;
  };
  await perFrame(true, 1500);
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds; round++) {
    const before = delivered;
    for (const on of round % 2 ? [true, false] : [false, true])
      times[on ? 0 : 1].push(await perFrame(on, 1500));
    if (delivered === before) throw new Error(`No preview came in round ${round}.`);
  }
  return ratioOf(times[0], times[1]);
}
