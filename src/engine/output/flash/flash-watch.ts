import type { Texture, WebGLRenderTarget } from 'three';
import { FlashMeter, flashGrid, type FlashCount } from '../../../core/preflight/flash-meter';
import type { Gpu } from '../../gpu/gpu';
import { fillPresented, presentedUniforms, type Presented } from '../presenter';
import { cellText, ShownShader } from './cells';

/** Frames that may be on their way from the GPU at once. */
const mostOnTheirWay = 4;

const sampleText = (shown: string): string => `#version 300 es
precision highp float;
in vec2 place;
${shown}
uniform sampler2D held;
out vec4 result;
${cellText}
void main() { result = vec4(cell(place), texture(held, place).r); }`;

/** Counts the flashes of what is on air, frame by frame, without any frame waiting for the count. */
export class FlashWatch {
  private meter = new FlashMeter();
  private readonly uniforms = { ...presentedUniforms(), held: { value: null as Texture | null } };
  private readonly shader: ShownShader;
  private readonly free: WebGLRenderTarget[] = [];
  private made = 0;
  /** Readings come in the order in which they were asked for. */
  private last: Promise<void> = Promise.resolve();
  count: FlashCount = { general: 0, red: 0, fails: false };
  /** Most that the limiter held back anywhere in the last frame, 0..1. */
  held = 0;

  constructor(private readonly gpu: Gpu) {
    this.shader = new ShownShader(gpu, sampleText, this.uniforms);
  }

  /** Takes what is on air at a time in seconds. `held`: how much the limiter holds back where; null: nothing. */
  turn(shown: Presented, seconds: number, held: Texture | null): void {
    const target = this.draw(shown, held);
    // The GPU is frames behind: this one is not counted.
    if (!target) return;
    const { width, height } = flashGrid;
    const pixels = new Uint8Array(4 * width * height);
    const reading = this.gpu.renderer.readRenderTargetPixelsAsync(target, 0, 0, width, height, pixels);
    this.last = this.last
      .then(() => reading)
      .then(
        () => this.take(pixels, seconds),
        () => undefined, // The GPU was lost meanwhile.
      )
      .finally(() => this.giveBack(target));
  }

  /** Draws what is looked at into a small picture, to be given back; null: all of them are on their way. */
  draw(shown: Presented, held: Texture | null): WebGLRenderTarget | null {
    const target = this.free.pop() ?? this.makeTarget();
    if (!target) return null;
    fillPresented(this.uniforms, shown);
    this.uniforms.held.value = held ?? this.gpu.empty;
    this.gpu.pass(this.shader.of(shown), target);
    return target;
  }

  giveBack(target: WebGLRenderTarget): void {
    this.free.push(target);
  }

  /** Resolves when all frames so far are counted. */
  done(): Promise<void> {
    return this.last;
  }

  private makeTarget(): WebGLRenderTarget | null {
    if (this.made === mostOnTheirWay) return null;
    this.made++;
    return this.gpu.acquire(flashGrid.width, flashGrid.height, '8');
  }

  private take(pixels: Uint8Array, seconds: number): void {
    let held = 0;
    for (let k = 3; k < pixels.length; k += 4) held = Math.max(held, pixels[k]);
    this.held = held / 255;
    this.count = this.meter.add(pixels, seconds);
  }
}
