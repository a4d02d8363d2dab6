import type { PixelString, Show, Wall } from '../../core/document/types';
import { PixelPackets, writeDatagrams } from '../../core/wall/pixels/datagrams';
import type { Gpu } from '../gpu/gpu';
import type { PixelReport } from '../protocol/protocol';
import type { PixelLink } from './pixel-link';
import { PixelStrings, type PackedString } from './pixel-strings';
import type { Presented } from './presenter';

/** Milliseconds by which a frame may come early and still count as due: display frames are not exact. */
const earlyMs = 3;

/** Feeds the strings of a wall: reads their pixels, packs them and hands them to the server, each string at the rate it can stand. */
export class PixelFeed {
  private readonly strings: PixelStrings;
  private readonly packets = new PixelPackets({
    cid: crypto.getRandomValues(new Uint8Array(16)),
    name: 'Pyrvel',
  });
  private readonly fedAt = new Map<string, number>();
  private packed = new Map<string, PackedString>();
  private sent = 0;
  private fedOf: { wall: Wall; strings: readonly PixelString[] } | null = null;

  constructor(
    gpu: Gpu,
    private readonly link: PixelLink,
  ) {
    this.strings = new PixelStrings(gpu);
  }

  /** Strings of a wall that are sent: the same list as long as the wall is the same. */
  private fed({ wall }: Show): readonly PixelString[] {
    if (this.fedOf?.wall !== wall) {
      const strings = wall.outputs.filter(
        (output): output is PixelString => output.type === 'string' && output.send.protocol !== 'none',
      );
      this.fedOf = { wall, strings };
    }
    return this.fedOf.strings;
  }

  /** Whether any string of a show is sent. */
  isFed = (show: Show): boolean => this.fed(show).length > 0;

  /** Sends what is due of what is on air. `isFrozen`: the last pixels are sent again, as nodes take silence for a fault. */
  feed(now: number, show: Show, presented: Presented, isFrozen: boolean): void {
    const strings = this.fed(show);
    const due = strings.filter(
      ({ id, send }) => now - (this.fedAt.get(id) ?? -Infinity) >= 1000 / send.rate - earlyMs,
    );
    if (due.length === 0) {
      if (strings.length === 0) this.link.close();
      return;
    }
    for (const { id } of due) this.fedAt.set(id, now);
    const ids = new Set(due.map(({ id }) => id));
    if (isFrozen && due.every(({ id }) => this.packed.has(id))) {
      this.send(
        [...this.packed.values()].filter(({ string }) => ids.has(string.id)),
        now,
      );
      return;
    }
    void this.strings.read(strings, presented, show.canvas).then(
      (packed) => {
        if (!packed) return;
        this.packed = new Map(packed.map((one) => [one.string.id, one]));
        this.send(
          packed.filter(({ string }) => ids.has(string.id)),
          performance.now(),
        );
      },
      // The context was lost: the next one reads again.
      () => undefined,
    );
  }

  private send(packed: readonly PackedString[], now: number): void {
    const datagrams = this.packets.of(packed.map(({ string, data }) => [string, data] as const));
    if (this.link.send(writeDatagrams(datagrams), now)) this.sent += datagrams.length;
  }

  get report(): PixelReport {
    return {
      isConnected: this.link.isOpen,
      packets: this.sent,
      refused: this.link.refused,
      amperes: Object.fromEntries([...this.packed].map(([id, { amperes }]) => [id, amperes])),
    };
  }
}
