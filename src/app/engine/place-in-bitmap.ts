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
