import type { Show } from '../../core/document/types';
import type { ExportMeans } from '../record/export-run';
import type { EngineAnswer, EngineRequest } from '../protocol/protocol';
import type { ScenePlayer } from '../playback/scene-player';
import type { ExactQuestions } from './exact-questions';

/** Answers requests of the interface about what is playing. Lives as long as its GPU context. */
export class Questions {
  private exact: Promise<ExactQuestions> | null = null;

  constructor(
    private readonly means: ExportMeans,
    /** Scenes that are playing, by id. */
    private readonly players: ReadonlyMap<string, ScenePlayer>,
  ) {}

  /** What answers all else is loaded when it is first asked. */
  private async load(): Promise<ExactQuestions> {
    const { ExactQuestions } = await import('./exact-questions');
    return new ExactQuestions(this.means, this.players);
  }

  async answer(request: EngineRequest, show: Show): Promise<EngineAnswer> {
    switch (request.type) {
      case 'pixel':
        return this.readPixel(request.scene, request.node, request.x, request.y);
      case 'shader':
        return {
          type: 'shader',
          text: this.players.get(request.scene)?.renderer.shaderText(request.node) ?? '',
        };
      case 'why':
        return { type: 'why', reasons: (await this.players.get(request.scene)?.why()) ?? [] };
      default:
        return (await (this.exact ??= this.load())).answer(request, show);
    }
  }

  private async readPixel(scene: string, node: string, x: number, y: number): Promise<EngineAnswer> {
    const { gpu } = this.means;
    const player = this.players.get(scene);
    const image = player?.run.runs.get(node)?.image;
    if (!player || !image) throw new Error('There is no picture at this node.');
    const px = Math.min(image.width - 1, Math.max(0, Math.floor(x * image.width)));
    const py = Math.min(image.height - 1, Math.max(0, Math.floor(y * image.height)));
    const target = gpu.acquire(1, 1, '32');
    const region = [px / image.width, py / image.height, 1 / image.width, 1 / image.height];
    let rgba: Float32Array;
    try {
      if (!player.peek(node, target, region, true)) throw new Error('There is no picture at this node.');
      rgba = await gpu.readNumbers(target);
    } finally {
      gpu.release(target);
    }
    return {
      type: 'pixel',
      rgba: [rgba[0], rgba[1], rgba[2], rgba[3]],
      width: image.width,
      height: image.height,
    };
  }
}
