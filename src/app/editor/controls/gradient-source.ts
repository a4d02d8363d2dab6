import { gradientFrom } from '../../../core/image/colours-of';
import type { Stop } from '../../../core/document/types';
import { engine } from '../../engine/client';

/** Stops of a gradient that is made from a picture. */
const stopsMade = 5;
/** Pixels of the longer side that its colours are taken from. */
const lookedAt = 96;

/** A gradient through the colours of a picture file. Throws an Error with what is wrong with it. */
export async function gradientOfFile(picture: Blob): Promise<Stop[]> {
  const bitmap = await createImageBitmap(picture).catch(() => {
    throw new Error('it is no picture that this browser can read. Use PNG, JPEG, WebP or AVIF.');
  });
  const scale = Math.min(1, lookedAt / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [bitmap.width, bitmap.height].map((v) => Math.max(1, Math.round(v * scale)));
  const context = new OffscreenCanvas(width, height).getContext('2d')!;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const stops = gradientFrom(context.getImageData(0, 0, width, height).data, stopsMade);
  if (!stops) throw new Error('it is transparent all over and has no colours.');
  return stops;
}

/** A gradient through the colours that a scene has now. */
export async function gradientOfScene(scene: string): Promise<Stop[]> {
  const { png } = await engine().request({ type: 'picture', scene, width: lookedAt, height: 54 }, 60000);
  return gradientOfFile(new Blob([png], { type: 'image/png' }));
}
