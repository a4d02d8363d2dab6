import type { WebGLRenderTarget } from 'three';
import type { Gpu } from '../gpu/gpu';
import type { ScenePlayer } from '../playback/scene-player';
import { plainLook } from '../image/look';
import type { Presenter } from './presenter';

/** Mean brightness below which a picture counts as dark, 0 to 1. */
const darkBelow = 0.012;
/** Milliseconds between two looks, while the GPU has time and while it has none. */
const easyTurnMs = 700;
const busyTurnMs = 2000;
const grid = { width: 16, height: 9 };

/** Notices that the picture of a scene has gone dark, so that the editor can offer to explain it. */
export class DarkWatch {
  private lastTurn = 0;
  private reading = false;
  private target: WebGLRenderTarget | null = null;
  private scene = '';
  private times = 0;
  private toldDark = false;

  constructor(
    private readonly gpu: Gpu,
    private readonly presenter: Presenter,
    private readonly tell: (scene: string, dark: boolean) => void,
  ) {}

  turn(now: number, scene: string, player: ScenePlayer, easy: boolean): void {
    if (scene !== this.scene) {
      this.scene = scene;
      this.times = 0;
      this.report(false, true);
    }
    if (this.reading || !player.isDrawn || now - this.lastTurn < (easy ? easyTurnMs : busyTurnMs)) return;
    this.lastTurn = now;
    this.target ??= this.gpu.acquire(grid.width, grid.height, '8');
    const nothing = plainLook(this.gpu.empty);
    this.presenter.draw(
      { first: player.look, second: nothing, fade: 0, level: 1 },
      grid,
      undefined,
      this.target,
    );
    void this.read(scene, this.target);
  }

  private async read(scene: string, target: WebGLRenderTarget): Promise<void> {
    this.reading = true;
    const pixels = new Uint8Array(4 * grid.width * grid.height);
    try {
      await this.gpu.renderer.readRenderTargetPixelsAsync(target, 0, 0, grid.width, grid.height, pixels);
      if (scene !== this.scene) return;
      let sum = 0;
      for (let k = 0; k < pixels.length; k += 4) sum += pixels[k] + pixels[k + 1] + pixels[k + 2];
      // A blink is not darkness: only what is dark twice in a row counts.
      this.times = sum / ((pixels.length / 4) * 3 * 255) < darkBelow ? this.times + 1 : 0;
      this.report(this.times >= 2, false);
    } catch {
      // The context was lost meanwhile.
    } finally {
      this.reading = false;
    }
  }

  private report(dark: boolean, always: boolean): void {
    if (!always && dark === this.toldDark) return;
    this.toldDark = dark;
    this.tell(this.scene, dark);
  }
}
