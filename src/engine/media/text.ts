import { CanvasTexture, type Texture } from 'three';
import { fonts, type TextLayout } from '../../core/text/layout';

/** Draws letters into the middle of a canvas: red where they are filled, green where their outline is. */
export function drawText(canvas: OffscreenCanvas, layout: TextLayout): void {
  const context = canvas.getContext('2d', { willReadFrequently: false })!;
  const { width, height } = canvas;
  context.globalCompositeOperation = 'source-over';
  context.fillStyle = '#000';
  context.fillRect(0, 0, width, height);
  context.globalCompositeOperation = 'lighter';
  const size = layout.size * height;
  context.font = `${layout.weight} ${size}px "${fonts[layout.font]}"`;
  context.letterSpacing = `${layout.spacing * size}px`;
  context.textBaseline = 'alphabetic';
  context.textAlign = layout.align === 'middle' ? 'center' : layout.align;
  const lines = layout.text.split('\n');
  const step = layout.leading * size;
  const metrics = context.measureText('H');
  const capital = metrics.actualBoundingBoxAscent;
  const widest = Math.max(...lines.map((line) => context.measureText(line).width));
  const block = capital + step * (lines.length - 1);
  const middleX = width / 2 + layout.place[0] * height;
  const middleY = height / 2 - layout.place[1] * height;
  const x =
    layout.align === 'left'
      ? middleX - widest / 2
      : layout.align === 'right'
        ? middleX + widest / 2
        : // The space after the last letter is no part of the line: without this it would hang to the left.
          middleX + (layout.spacing * size) / 2;
  lines.forEach((line, k) => {
    const y = middleY - block / 2 + capital + k * step;
    context.fillStyle = '#f00';
    context.fillText(line, x, y);
    if (layout.outline > 0) {
      context.strokeStyle = '#0f0';
      context.lineJoin = 'round';
      context.lineWidth = layout.outline * height;
      context.strokeText(line, x, y);
    }
  });
}

export function textTexture(canvas: OffscreenCanvas): Texture {
  const texture = new CanvasTexture(canvas as unknown as HTMLCanvasElement);
  texture.generateMipmaps = false;
  texture.colorSpace = '';
  return texture;
}
