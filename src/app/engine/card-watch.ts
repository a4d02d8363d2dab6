/**
 * Calls `lost` as soon as this page hears that the graphics card is gone: by a drawing context of its own, in which nothing is drawn. An engine
 * that is busy hears of it later, after what it does just then.
 */
export function watchCard(lost: () => void): void {
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width: 1, height: 1 });
  canvas.addEventListener('webglcontextlost', (event) => {
    // So that it is restored, and hears of the next loss too.
    event.preventDefault();
    lost();
  });
  // The context lives as long as its canvas, and that as long as the page.
  kept.push(canvas, canvas.getContext('webgl2'));
}

const kept: unknown[] = [];
