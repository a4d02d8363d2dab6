import type { StandIn } from '../../engine/protocol/protocol';

/**
 * The element that an output is shown in. It clips canvases that lie one behind the other: a new one comes behind those that are
 * there, and they go when it has a picture.
 */
type Box = HTMLElement;

/** Share of a bitmap, from its lower left, that belongs to an output. */
type Share = readonly [number, number];

const whole: Share = [1, 1];
/** Milliseconds after which a stand-in is painted once more. */
const repaintMs = 100;
/** Pixels of a canvas that has had no picture: it takes the size of the first that arrives. */
const noPicture = { width: 1, height: 1 };
/** Milliseconds between two looks whether a picture has arrived, and most of them that it is waited for. */
const arrival = { lookMs: 20, longestMs: 2000 };
const shares = new WeakMap<HTMLCanvasElement, Share>();

/**
 * Shows the part of a bitmap that belongs to an output. All outputs share one canvas of the engine, and each fills the
 * lower left of it: `share` of its width and height.
 */
export function placeInBitmap(canvas: HTMLCanvasElement, share: Share): void {
  const [width, height] = share;
  shares.set(canvas, share);
  Object.assign(canvas.style, {
    position: 'absolute',
    left: '0',
    bottom: '0',
    width: `${100 / width}%`,
    height: `${100 / height}%`,
    maxWidth: 'none',
  });
}

/** The window that a box is in: timers of one that is hidden are late, and a stage may be seen while the desk is not. */
const windowOf = (box: Box): Pick<Window, 'setTimeout' | 'setInterval' | 'clearInterval'> =>
  box.ownerDocument.defaultView ?? window;

function makeCanvas(
  box: Box,
  name: string,
  { width, height }: { width: number; height: number },
): HTMLCanvasElement {
  const canvas = box.ownerDocument.createElement('canvas');
  Object.assign(canvas, { width, height });
  canvas.dataset.output = name;
  placeInBitmap(canvas, whole);
  return canvas;
}

/** Puts a canvas without a picture behind those of a box. The box may be in another window. */
export function stackCanvas(box: Box, name: string): HTMLCanvasElement {
  const canvas = makeCanvas(box, name, noPicture);
  box.prepend(canvas);
  return canvas;
}

/**
 * The newest canvas of a box was given a picture, in that share of its bitmap: older ones go once the page has it. The word of it is quicker than
 * the picture, by most of a second where the process that draws was started again.
 */
export function settleCanvas(box: Box, share: Share): void {
  const [current] = box.querySelectorAll('canvas');
  if (!current) return;
  placeInBitmap(current, share);
  const { lookMs, longestMs } = arrival;
  const latest = performance.now() + longestMs;
  const settle = (): void => {
    const all = [...box.querySelectorAll('canvas')];
    const old = all.slice(all.indexOf(current) + 1);
    if (!current.isConnected || old.length === 0) return;
    const hasPicture = current.width !== noPicture.width || current.height !== noPicture.height;
    if (hasPicture || performance.now() >= latest) for (const canvas of old) canvas.remove();
    else windowOf(box).setTimeout(settle, lookMs);
  };
  settle();
}

const imageOf = ({ width, height, rgba }: StandIn): ImageData =>
  new ImageData(new Uint8ClampedArray(rgba), width, height);

/** What the canvases of a box showed is gone with the graphics card: shows a picture from the memory of the processor before them, until the newest has another. */
export function standIn(box: Box, picture: StandIn, name: string): HTMLCanvasElement {
  const canvas = makeCanvas(box, name, picture);
  box.append(canvas);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  const image = imageOf(picture);
  const paint = (): void => context.putImageData(image, 0, 0);
  paint();
  // The browser itself may lose what it shows a moment later, by the same fault.
  const own = windowOf(box);
  const timer = own.setInterval(() => (canvas.isConnected ? paint() : own.clearInterval(timer)), repaintMs);
  return canvas;
}

/** Addresses of the pictures that lie behind boxes. */
const behind = new WeakMap<Box, string>();

/** Puts a picture, by its address, behind all canvases of a box; null: nothing. */
function setBehind(box: Box, address: string | null): void {
  const old = behind.get(box);
  Object.assign(box.style, {
    backgroundImage: address ? `url(${address})` : '',
    backgroundSize: '100% 100%',
  });
  if (address) behind.set(box, address);
  else behind.delete(box);
  if (old) URL.revokeObjectURL(old);
}

/** Nothing lies behind the canvases of a box any more. */
export const clearBehind = (box: Box): void => setBehind(box, null);

/**
 * Puts a picture behind all canvases of a box, as a part of its style: when the process that draws was started again, the browser itself paints that,
 * while canvases are empty and the page has yet to hear of it. `isWanted`: whether it still is once it is ready.
 */
export async function putBehind(box: Box, picture: StandIn, isWanted: () => boolean): Promise<void> {
  const canvas = new OffscreenCanvas(picture.width, picture.height);
  canvas.getContext('2d', { willReadFrequently: true })!.putImageData(imageOf(picture), 0, 0);
  const jpeg = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 });
  if (isWanted()) setBehind(box, URL.createObjectURL(jpeg));
}

/** Removes all canvases of a box. */
export function clearBox(box: Box): void {
  for (const canvas of box.querySelectorAll('canvas')) canvas.remove();
}

interface Shown {
  canvas: HTMLCanvasElement;
  /** Share of its bitmap that the output fills, from the lower left. */
  share: Share;
}

/** The part of a canvas that is seen: its left, upper edge, width and height in pixels. */
export function seenPart({ canvas, share }: Shown): [number, number, number, number] {
  const [width, height] = [canvas.width * share[0], canvas.height * share[1]];
  return [0, canvas.height - height, width, height];
}

/** Pixels of this window, for an output that fills it. */
export const windowSize = (): { width: number; height: number } => ({
  width: Math.max(1, Math.round(innerWidth * devicePixelRatio)),
  height: Math.max(1, Math.round(innerHeight * devicePixelRatio)),
});

/** The canvas that is seen in a box; null: there is none. */
export function shownIn(box: Box): Shown | null {
  const canvas = [...box.querySelectorAll('canvas')].at(-1);
  return canvas ? { canvas, share: shares.get(canvas) ?? whole } : null;
}
