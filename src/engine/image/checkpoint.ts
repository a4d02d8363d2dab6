import type { Gpu } from '../gpu/gpu';
import { readStored, writeStored, type StoredPixels } from '../gpu/stored-pixels';
import type { ImageRenderer } from './image-renderer';
import type { Past } from './sheets';

/** What the pictures of a scene remember at a step, off the GPU. Its numbers are worked out anew: that costs little. */
export interface Checkpoint {
  /** The step after which it was taken. */
  step: number;
  pictures: (StoredPixels & { name: string })[];
  pasts: (StoredPixels & Pick<Past, 'newest' | 'filled'> & { name: string })[];
}

/** Takes a checkpoint. `nodes`: those whose pictures count for later frames. */
export async function takeCheckpoint(
  gpu: Gpu,
  renderer: ImageRenderer,
  nodes: ReadonlySet<string>,
  step: number,
): Promise<Checkpoint> {
  const { pictures, pasts } = renderer.remembered(nodes);
  const checkpoint: Checkpoint = { step, pictures: [], pasts: [] };
  for (const [name, target] of pictures)
    checkpoint.pictures.push({ name, ...(await readStored(gpu, target)) });
  for (const [name, { target, newest, filled }] of pasts)
    checkpoint.pasts.push({ name, newest, filled, ...(await readStored(gpu, target)) });
  return checkpoint;
}

/** Puts a checkpoint into the pictures of a renderer that has drawn the step at which it was taken, from whatever was there. */
export function beginFrom(
  gpu: Gpu,
  renderer: ImageRenderer,
  nodes: ReadonlySet<string>,
  checkpoint: Checkpoint,
): void {
  const { pictures, pasts } = renderer.remembered(nodes);
  for (const picture of checkpoint.pictures) {
    const target = pictures.get(picture.name);
    if (target) writeStored(gpu, picture, target);
  }
  for (const past of checkpoint.pasts) {
    const into = pasts.get(past.name);
    if (!into) continue;
    writeStored(gpu, past, into.target);
    renderer.goOnFromPast(past.name, past.newest, past.filled);
  }
}
