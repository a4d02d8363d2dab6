import type { Gpu } from '../gpu/gpu';
import { LiveLayer } from '../layer/live-layer';
import type { LayerLayout } from '../protocol/protocol';
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

/** All 24 cards of a patch, six in a row, at their own size. */
function layoutOf(cards: readonly string[]): LayerLayout {
  const grey = [0.5, 0.5, 0.5] as const;
  return {
    scene: 's',
    width: 6 * 160,
    height: 4 * 120,
    ratio: 1,
    view: { x: 0, y: 0, zoom: 1 },
    faces: cards.map((node, k) => ({
      node,
      shows: 'picture',
      x: (k % 6) * 160,
      y: Math.floor(k / 6) * 120,
      width: 152,
      height: 86,
    })),
    wires: [],
    colours: { signal: grey, shape: grey, prop: grey, image: grey, ground: grey, ink: grey },
  };
}

/** A frame of a patch of 24 pictures with the live layer of all of its cards, painted with each frame, over the same without. */
export async function previewsRatio(gpu: Gpu, rounds: number): Promise<Ratio> {
  const { rig, cards } = patchOfMany(gpu);
  const layer = new LiveLayer(gpu);
  const layout = layoutOf(cards);
  let k = 0;
  const perFrame = async (on: boolean, ms: number): Promise<number> => {
    const start = performance.now();
    let frames = 0;
    while (performance.now() - start < ms) {
      rig.frame(k++);
      if (on) {
        gpu.resize(layout.width, layout.height);
        layer.note(rig.player);
        // A GPU that draws in software never has time to spare.
        layer.paint(layout, rig.player, performance.now(), true);
      }
      rig.finish();
      await turn();
      frames++;
    }
    return (performance.now() - start) / frames;
  };
  await perFrame(true, 1500);
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds; round++)
    for (const on of round % 2 ? [true, false] : [false, true])
      times[on ? 0 : 1].push(await perFrame(on, 1500));
  if (layer.facesDrawn < cards.length) throw new Error('Not every card was drawn.');
  return ratioOf(times[0], times[1]);
}
