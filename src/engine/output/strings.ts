import type { PixelString, Show, Wall } from '../../core/document/types';
import type { Gpu } from '../gpu/gpu';
import type { PixelReport } from '../protocol/protocol';
import type { Feeding, PixelFeed, PixelTraffic } from './pixel-feed';
import type { Presented } from './presenter';

/** The strings of a wall. What feeds them is loaded when there is something to feed: most shows have none. */
export class Strings {
  private list: { wall: Wall; inRoom: boolean; strings: readonly PixelString[] } | null = null;
  private coming: Promise<PixelTraffic> | null = null;
  /** How a context gets its feed, once that is loaded. */
  private makeFeed: ((gpu: Gpu) => PixelFeed) | null = null;
  private feeder: { gpu: Gpu; feed: PixelFeed } | null = null;

  /** `address`: where the server takes pixels. */
  constructor(private readonly address: string) {}

  /** Strings that are fed: the same list as long as the wall is the same. Simulated ones are fed only while somebody looks at the room. */
  private fed({ wall }: Show, inRoom: boolean): readonly PixelString[] {
    if (this.list?.wall !== wall || this.list.inRoom !== inRoom) {
      const strings = wall.outputs.filter(
        (output): output is PixelString =>
          output.type === 'string' && output.send.protocol !== 'none' && (inRoom || !output.send.simulated),
      );
      this.list = { wall, inRoom, strings };
    }
    return this.list.strings;
  }

  /** Whether any string of a show is fed. */
  isFed = (show: Show, inRoom: boolean): boolean => this.fed(show, inRoom).length > 0;

  private async load(): Promise<PixelTraffic> {
    const { PixelFeed, PixelTraffic } = await import('./pixel-feed');
    const traffic = new PixelTraffic(this.address);
    this.makeFeed = (gpu) => new PixelFeed(gpu, traffic);
    return traffic;
  }

  /** What was sent and came back: the same through all graphics contexts. */
  traffic(): Promise<PixelTraffic> {
    return (this.coming ??= this.load());
  }

  /** Feeds what is due of what is on air; that is asked for only where anything is. */
  feed(now: number, show: Show, gpu: Gpu, presented: () => Presented, how: Feeding): void {
    const strings = this.fed(show, how.inRoom);
    if (!this.makeFeed) {
      if (strings.length > 0) void this.traffic();
      return;
    }
    if (this.feeder?.gpu !== gpu) this.feeder = { gpu, feed: this.makeFeed(gpu) };
    this.feeder.feed.feed(now, strings, show.canvas, presented, how);
  }

  /** Cuts the connection to the server, as when that is gone. */
  async cut(): Promise<void> {
    (await this.coming)?.link.close();
  }

  /** null: none was fed yet. */
  report(now: number): PixelReport | null {
    return this.feeder?.feed.report(now) ?? null;
  }
}
