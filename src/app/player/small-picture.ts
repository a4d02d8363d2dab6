import { shownIn } from '../engine/output-box';

const width = 160;
const quality = 0.7;

/** A small JPEG of what is seen in the box of an output; null: nothing is. */
export async function smallPicture(box: HTMLElement): Promise<Uint8Array | null> {
  const shown = shownIn(box);
  if (!shown) return null;
  const { canvas, share } = shown;
  const [w, h] = [canvas.width * share[0], canvas.height * share[1]];
  if (!w || !h) return null;
  const small = new OffscreenCanvas(width, Math.max(1, Math.round((width * h) / w)));
  small.getContext('2d')!.drawImage(canvas, 0, canvas.height - h, w, h, 0, 0, small.width, small.height);
  const blob = await small.convertToBlob({ type: 'image/jpeg', quality });
  return new Uint8Array(await blob.arrayBuffer());
}
