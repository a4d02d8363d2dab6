/**
 * Shows the part of a bitmap that belongs to an output. All outputs share one canvas of the engine, and each fills the
 * lower left of it: `share` of its width and height. What is around the canvas has to clip it.
 */
export function placeInBitmap(canvas: HTMLCanvasElement, [width, height]: readonly [number, number]): void {
  Object.assign(canvas.style, {
    position: 'absolute',
    left: '0',
    bottom: '0',
    width: `${100 / width}%`,
    height: `${100 / height}%`,
    maxWidth: 'none',
  });
}

/** Puts a canvas that is given a size into a box, behind the one that still shows the last picture of an engine that is gone. */
export function stackCanvas(box: HTMLElement, size: { width: number; height: number }): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  Object.assign(canvas, size);
  placeInBitmap(canvas, [1, 1]);
  box.prepend(canvas);
  return canvas;
}

/** The newest canvas of a box has a picture, in that share of its bitmap: older ones go. */
export function settleCanvas(box: HTMLElement, share: readonly [number, number]): void {
  const [current, ...old] = box.querySelectorAll('canvas');
  if (current) placeInBitmap(current, share);
  for (const canvas of old) canvas.remove();
}
