import type { RawShaderMaterial, WebGLRenderTarget } from 'three';
import type { Gpu } from '../gpu/gpu';
import type { ScenePlayer } from '../playback/scene-player';

/** Milliseconds between two looks, where the GPU has time and where it has none; and the places looked at. */
const easyTurn = 600;
const busyTurn = 2000;
const grid = { width: 32, height: 18 };

/** Share of the limit, in red; a number that is none, in green. */
const lookText = `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D picture;
uniform float limit;
out vec4 result;
void main() {
  vec4 v = abs(texture(picture, place));
  float most = max(max(v.r, v.g), max(v.b, v.a));
  bool fine = most >= 0.0 && most < 3e38;
  result = vec4(fine ? min(1.0, most / limit) : 1.0, fine ? 0.0 : 1.0, 0.0, 1.0);
}`;

/** Looks now and then whether feedback is held only by its guard, which is a picture about to blow out. */
export class FeedbackWatch {
  private lastTurn = 0;
  private next = 0;
  private reading = false;
  private target: WebGLRenderTarget | null = null;
  private material: RawShaderMaterial | null = null;
  private readonly uniforms = { picture: { value: null as unknown }, limit: { value: 1 } };
  private readonly found = new Map<string, string>();

  constructor(private readonly gpu: Gpu) {}

  /** What is worth saying of the return wires of a scene, by wire. */
  notes(player: ScenePlayer): Record<string, string> {
    const notes: Record<string, string> = {};
    for (const wire of player.run.plan.returns) {
      const note = this.found.get(wire.id);
      if (note) notes[wire.id] = note;
    }
    return notes;
  }

  turn(now: number, player: ScenePlayer, easy: boolean): void {
    const wires = player.run.plan.returns.filter(
      (wire) => player.run.plan.nodes.get(wire.from.node)?.kind.output === 'image',
    );
    if (wires.length === 0 || this.reading || now - this.lastTurn < (easy ? easyTurn : busyTurn)) return;
    this.lastTurn = now;
    const wire = wires[this.next++ % wires.length];
    this.target ??= this.gpu.acquire(grid.width, grid.height, '8');
    this.uniforms.picture.value = player.renderer.textureOf(wire.from.node);
    this.uniforms.limit.value = wire.back?.limit ?? 1;
    this.material ??= this.gpu.material(lookText, this.uniforms);
    this.gpu.pass(this.material, this.target);
    void this.read(wire.id, this.target);
  }

  private async read(wire: string, target: WebGLRenderTarget): Promise<void> {
    this.reading = true;
    const pixels = new Uint8Array(4 * grid.width * grid.height);
    try {
      await this.gpu.renderer.readRenderTargetPixelsAsync(target, 0, 0, grid.width, grid.height, pixels);
      let held = 0;
      let broken = 0;
      for (let k = 0; k < pixels.length; k += 4) {
        if (pixels[k + 1] > 127) broken++;
        else if (pixels[k] > 0.6 * 255) held++;
      }
      const places = grid.width * grid.height;
      if (broken)
        this.found.set(wire, 'Holds values that are no numbers. Clear it, and switch its guard on.');
      else if (held > places / 100)
        this.found.set(wire, 'Blows out: more comes in than is lost. Lower Keep, or what is added.');
      else this.found.delete(wire);
    } catch {
      // The GPU was lost meanwhile.
    } finally {
      this.reading = false;
    }
  }
}
