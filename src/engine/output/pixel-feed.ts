import type { PixelString, Show } from '../../core/document/types';
import { nodeOf, PixelPackets, writeDatagrams, type Datagram } from '../../core/wall/pixels/datagrams';
import { bytesOfPixel, lightOf, packPixels, pixelCount } from '../../core/wall/pixels/pixels';
import { testPixels } from '../../core/wall/pixels/test-pixels';
import { PixelReceiver } from '../../core/wall/pixels/receive';
import type { Gpu } from '../gpu/gpu';
import type { PixelReport, TestPicture } from '../protocol/protocol';
import { PixelLink } from './pixel-link';
import { PixelStrings } from './pixel-strings';
import type { Presented } from './presenter';

/** Milliseconds by which a frame may come early and still count as due: display frames are not exact. */
const earlyMs = 3;
/** Milliseconds between two times at which the server is told what to leave nodes with. */
const leaveMs = 1000;

const thisMachine = '127.0.0.1';

/** How strings are fed. */
export interface Feeding {
  /** The last pixels are sent again, as nodes take silence for a fault. */
  isFrozen: boolean;
  /** Somebody looks at the room. */
  inRoom: boolean;
  /** Test pictures by output. */
  tests: Readonly<Record<string, TestPicture>>;
}

/** What outlives a graphics context: numbers of packets, the connection, and what came back. */
export class PixelTraffic {
  readonly packets = new PixelPackets({
    cid: crypto.getRandomValues(new Uint8Array(16)),
    name: 'Pyrvel',
  });
  readonly receiver = new PixelReceiver();
  readonly link: PixelLink;
  sent = 0;

  /** `address`: where the server takes pixels. */
  constructor(address: string) {
    this.link = new PixelLink(address, (node, bytes) => this.receiver.take(node, bytes, performance.now()));
  }
}

/**
 * Feeds the strings of a wall: reads their pixels, packs them and hands them to the server, each string at the rate it can stand. While
 * somebody looks at the room, a copy of all goes to the receiver that is built in; simulated strings are fed only then.
 */
export class PixelFeed {
  private readonly strings: PixelStrings;
  private readonly fedAt = new Map<string, number>();
  /** What was last read of each string, and the amperes it is estimated to draw. */
  private light = new Map<string, Float32Array>();
  private readonly amperes = new Map<string, number>();
  private fed: readonly PixelString[] = [];
  /** Whose packets the receiver takes: while somebody looks at the room, those of all nodes. */
  private heard: readonly string[] = [];
  private leftAt = -Infinity;

  constructor(
    gpu: Gpu,
    private readonly traffic: PixelTraffic,
  ) {
    this.strings = new PixelStrings(gpu);
  }

  /** Feeds those of the strings that are due. `strings`: the same list as long as they are the same. `presented` is asked only where one is due. */
  feed(
    now: number,
    strings: readonly PixelString[],
    canvas: Show['canvas'],
    presented: () => Presented,
    how: Feeding,
  ): void {
    if (this.fed !== strings) {
      this.fed = strings;
      this.heard = how.inRoom ? [...new Set(strings.map(nodeOf))] : [];
    }
    this.traffic.link.listen(this.heard);
    const due = strings.filter(
      ({ id, send }) => now - (this.fedAt.get(id) ?? -Infinity) >= 1000 / send.rate - earlyMs,
    );
    if (due.length === 0) {
      if (strings.length === 0) this.traffic.link.close();
      return;
    }
    for (const { id } of due) this.fedAt.set(id, now);
    if (how.isFrozen && due.every(({ id }) => this.light.has(id))) {
      this.send(due, how.tests, now);
      return;
    }
    void this.strings.read(strings, presented(), canvas).then(
      (light) => {
        if (!light) return;
        this.light = new Map(strings.map(({ id }, k) => [id, light[k]]));
        this.send(due, how.tests, performance.now());
      },
      // The context was lost: the next one reads again.
      () => undefined,
    );
  }

  private pack(string: PixelString, test: TestPicture | undefined): [PixelString, Uint8Array] {
    const data = new Uint8Array(pixelCount(string) * bytesOfPixel(string));
    const light = test ? lightOf(string, testPixels(test, pixelCount(string))) : this.light.get(string.id)!;
    this.amperes.set(string.id, packPixels(string, light, data));
    return [string, data];
  }

  private send(due: readonly PixelString[], tests: Feeding['tests'], now: number): void {
    const { traffic } = this;
    const { link, packets } = traffic;
    const datagrams: Datagram[] = [];
    for (const { node, isSimulated, ...datagram } of packets.of(
      due.map((string) => this.pack(string, tests[string.id])),
    )) {
      if (!isSimulated) datagrams.push(datagram);
      const port = link.ports[node];
      if (port) datagrams.push({ address: thisMachine, port, bytes: datagram.bytes });
    }
    if (link.send(writeDatagrams(datagrams), now)) traffic.sent += datagrams.length;
    if (now - this.leftAt < leaveMs) return;
    this.leftAt = now;
    const dark = this.fed.filter(({ send }) => send.onStop === 'black' && !send.simulated);
    link.leave(writeDatagrams(packets.black(dark)));
  }

  report(now: number): PixelReport {
    const { link, sent, receiver } = this.traffic;
    return {
      isConnected: !link.isAway,
      packets: sent,
      refused: link.refused,
      amperes: Object.fromEntries(this.amperes),
      received:
        this.heard.length > 0
          ? Object.fromEntries(
              this.fed.map((string) => [string.id, receiver.countOf(nodeOf(string), string, now)]),
            )
          : {},
      dropped: link.dropped,
    };
  }
}
