import net from 'node:net';
import { randomAt } from '../../core/random';

/** How bad a cable is. */
export interface Badness {
  /** Milliseconds that everything takes, each way. */
  delayMs?: number;
  /** Share of pieces that are lost, so that they and all behind them come only when they are sent once more. */
  lost?: number;
  /** Milliseconds until that. */
  againMs?: number;
}

export interface Cable {
  port: number;
  /** Ends all connections. */
  pull(): void;
  /** Nothing comes through while it is held, and nobody is told so; what was sent meanwhile comes after. */
  hold(isHeld: boolean): void;
  close(): void;
}

/** A cable to a port of this machine, for tests of bad networks. Which pieces are lost goes by a seed. */
export async function cable(
  port: number,
  { delayMs = 0, lost = 0, againMs = 300 }: Badness = {},
): Promise<Cable> {
  const ends = new Set<net.Socket>();
  const waiting: (() => void)[] = [];
  let isHeld = false;
  let pieces = 0;
  const proxy = net.createServer((near) => {
    const far = net.connect(port, '127.0.0.1');
    for (const [from, to] of [
      [near, far],
      [far, near],
    ]) {
      ends.add(from);
      let due = 0;
      const later = (run: () => void): void => {
        const late = randomAt(++pieces, 11) < lost ? againMs : 0;
        // Nothing overtakes what is before it, the end of the connection neither.
        due = Math.max(due, performance.now() + delayMs + late);
        const pass = (): void => {
          if (isHeld) waiting.push(pass);
          else run();
        };
        setTimeout(pass, due - performance.now());
      };
      from.on('data', (data) => later(() => to.writable && to.write(data)));
      from.on('close', () => later(() => to.destroy()));
      from.on('error', () => undefined);
    }
  });
  await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
  const pull = (): void => ends.forEach((end) => end.destroy());
  return {
    port: (proxy.address() as net.AddressInfo).port,
    pull,
    hold(held) {
      isHeld = held;
      if (!held) for (const pass of waiting.splice(0)) pass();
    },
    close() {
      pull();
      proxy.close();
    },
  };
}
