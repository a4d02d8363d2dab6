import type { Texture } from 'three';
import { CanvasTexture, ClampToEdgeWrapping, LinearFilter } from 'three';
import { randomAt } from '../../core/random';
import { bitmapTexture } from './pictures';

const standInSize = [480, 270] as const;

/**
 * Draws what the simulated camera sees at a time: a keeper before glasshouse panes who sways and lifts an arm, with bees
 * about. The same second always looks the same.
 */
function drawStandIn(context: OffscreenCanvasRenderingContext2D, time: number): void {
  const [w, h] = standInSize;
  const sky = context.createLinearGradient(0, 0, 0, h);
  sky.addColorStop(0, '#5d5240');
  sky.addColorStop(1, '#241a14');
  context.fillStyle = sky;
  context.fillRect(0, 0, w, h);
  context.strokeStyle = 'rgba(240, 222, 180, 0.22)';
  context.lineWidth = 3;
  for (let k = 0; k <= 8; k++) {
    context.beginPath();
    context.moveTo(w / 2 + (k - 4) * 34, 0);
    context.lineTo(w / 2 + (k - 4) * 74, h);
    context.stroke();
  }
  const sway = Math.sin(time * 1.3) * 14;
  const lift = Math.sin(time * 0.9 + 1) * 0.5 + 0.5;
  const x = w * 0.46 + sway;
  context.fillStyle = '#0d0907';
  context.strokeStyle = '#0d0907';
  context.lineCap = 'round';
  context.beginPath();
  context.ellipse(x, h * 0.36, 30, 36, sway * 0.01, 0, 7);
  context.fill();
  context.beginPath();
  context.ellipse(x, h * 0.28, 58, 10, sway * 0.01, 0, 7);
  context.fill();
  context.beginPath();
  context.ellipse(x - sway * 0.4, h * 0.98, 78, 120, 0, 0, 7);
  context.fill();
  context.lineWidth = 24;
  for (const side of [-1, 1]) {
    const raised = side > 0 ? lift : 1 - lift;
    context.beginPath();
    context.moveTo(x + side * 50, h * 0.68);
    context.quadraticCurveTo(
      x + side * 110,
      h * 0.8,
      x + side * (120 + 10 * raised),
      h * (0.82 - 0.5 * raised),
    );
    context.stroke();
  }
  context.fillStyle = '#ffc861';
  for (let k = 0; k < 26; k++) {
    const turn = time * (0.25 + 0.5 * randomAt(k, 1)) + randomAt(k, 2) * 6.28;
    const bx = w * (0.5 + (0.2 + 0.3 * randomAt(k, 3)) * Math.cos(turn));
    const by = h * (0.45 + (0.15 + 0.28 * randomAt(k, 4)) * Math.sin(turn * 1.7 + k));
    context.beginPath();
    context.ellipse(bx, by, 3.4, 2.2, turn, 0, 7);
    context.fill();
  }
}

/** The stand-in of a camera: the same for everybody who asks for the same time. */
export class StandInCamera {
  readonly texture: Texture;
  private readonly context: OffscreenCanvasRenderingContext2D;
  private drawnAt = Number.NaN;

  constructor() {
    const canvas = new OffscreenCanvas(standInSize[0], standInSize[1]);
    this.context = canvas.getContext('2d')!;
    this.texture = new CanvasTexture(canvas as unknown as HTMLCanvasElement);
    this.texture.generateMipmaps = false;
    this.texture.minFilter = this.texture.magFilter = LinearFilter;
    this.texture.wrapS = this.texture.wrapT = ClampToEdgeWrapping;
    this.texture.colorSpace = '';
  }

  at(time: number): Texture {
    // Cameras give 30 frames a second.
    const tick = Math.floor(time * 30 + 1e-6) / 30;
    if (tick !== this.drawnAt) {
      this.drawnAt = tick;
      drawStandIn(this.context, tick);
      this.texture.needsUpdate = true;
    }
    return this.texture;
  }
}

/** Frames of a real camera, as the page sends them: the newest stays until the next, or forever if the camera goes. */
export class DeviceCamera {
  texture: Texture | null = null;
  error: string | null = null;

  take(bitmap: ImageBitmap): void {
    this.error = null;
    const old = this.texture;
    if (old && sameSize(old.image as ImageBitmap, bitmap)) {
      (old.image as ImageBitmap).close();
      old.image = bitmap;
      old.needsUpdate = true;
      return;
    }
    this.dispose();
    this.texture = bitmapTexture(bitmap);
    this.texture.generateMipmaps = false;
    this.texture.minFilter = LinearFilter;
  }

  dispose(): void {
    if (!this.texture) return;
    (this.texture.image as ImageBitmap).close();
    this.texture.dispose();
    this.texture = null;
  }
}

const sameSize = (a: ImageBitmap, b: ImageBitmap): boolean => a.width === b.width && a.height === b.height;
