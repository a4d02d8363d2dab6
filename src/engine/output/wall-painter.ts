import type { Wall } from '../../core/document/types';
import type { WindowOutput } from '../../core/wall/outputs';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import type { OutputSpec, TestPicture } from '../protocol/protocol';
import { PixelFeed } from './pixel-feed';
import type { PixelLink } from './pixel-link';
import type { Presented } from './presenter';
import { ScreenPainter } from './screen-painter';
import { TestPictures } from './test-pictures';

/** All that the outputs of a wall are painted with. */
export class WallPainter {
  private readonly screens: ScreenPainter;
  private readonly testPictures = new TestPictures();
  readonly pixels: PixelFeed;

  constructor(
    private readonly gpu: Gpu,
    link: PixelLink,
  ) {
    this.screens = new ScreenPainter(gpu);
    this.pixels = new PixelFeed(gpu, link);
  }

  /** Forgets outputs that are no more. */
  keepTo({ outputs }: Wall): void {
    const ids = new Set(outputs.map(({ id }) => id));
    this.screens.keepTo(ids);
    this.testPictures.keepTo(ids);
  }

  /** Draws what the window of an output, or its preview on the desk, shows. Test pictures are seen whatever the performance does: somebody stands on a ladder. */
  draw(
    output: WindowOutput,
    now: Presented,
    { use, width, height }: Readonly<OutputSpec>,
    canvas: { width: number; height: number },
    test: TestPicture | undefined,
  ): void {
    const isPreview = use === 'desk';
    const into = { width, height };
    if (!test) {
      this.screens.draw(output, isPreview, now, into, canvas);
      return;
    }
    const first = plainLook(this.testPictures.of(output, test));
    const shown = { first, second: plainLook(this.gpu.empty), fade: 0, level: 1 };
    this.screens.draw(output, isPreview, shown, into, null);
  }
}
