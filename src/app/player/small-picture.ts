import { seenPart, shownIn } from '../engine/output-box';

const width = 160;
const quality = 0.7;

/** A small JPEG of what is seen in the box of an output; null: nothing is. */
export async function smallPicture(box: HTMLElement): Promise<Uint8Array | null> {
  const shown = shownIn(box);
  if (!shown) return null;
  const part = seenPart(shown);
  const [, , w, h] = part;
  if (!w || !h) return null;
  const small = new OffscreenCanvas(width, Math.max(1, Math.round((width * h) / w)));
  small.getContext('2d')!.drawImage(shown.canvas, ...part, 0, 0, small.width, small.height);
  const blob = await small.convertToBlob({ type: 'image/jpeg', quality });
  return new Uint8Array(await blob.arrayBuffer());
}
