import type { Gpu } from '../gpu/gpu';
import type { OutputSource, StandIn } from '../protocol/protocol';

/** Pixels of a stand-in, whatever the output is like: it is shown as large as that. */
const size = { width: 640, height: 360 };
/** Milliseconds between two of one output. */
const leastMs = 1000;

/** What goes dark for an audience or on the monitors; small pictures of nodes come again by themselves. */
const hasStandIn: readonly OutputSource['type'][] = ['program', 'screen', 'room', 'scene', 'next'];

/** An output as it was last painted. */
interface Painted {
  id: string;
  source: OutputSource;
  width: number;
  height: number;
  painted: boolean;
  state: string;
}

/**
 * Small pictures of what outputs show, in the memory of the processor. With a graphics card that is lost goes all that it has
 * drawn, also what lies on a canvas already: a copy is all that can be shown until it is back. The page has them, which may
 * hear of the loss long before an engine that is busy.
 */
export class StandIns {
  private readonly taken = new Map<string, { state: string; at: number; isThere: boolean }>();
  /** From whom a picture is on its way: one that is lost never gives it. */
  private busy: Gpu | null = null;

  constructor(private readonly give: (id: string, picture: StandIn) => void) {}

  /**
   * Takes the next one: of an output that looks otherwise than its last shows, and that has waited longest. `draw`: draws an
   * output into the lower left of the canvas; false: nothing is drawn. No frame waits for it.
   */
  turn<O extends Painted>(now: number, gpu: Gpu, outputs: Iterable<O>, draw: (output: O) => boolean): void {
    if (this.busy === gpu) return;
    let next: O | null = null;
    let since = Infinity;
    for (const output of outputs) {
      const last = this.taken.get(output.id);
      if (!output.painted || !hasStandIn.includes(output.source.type) || last?.state === output.state)
        continue;
      const at = last?.at ?? -leastMs;
      if (at > now - leastMs || at >= since) continue;
      since = at;
      next = output;
    }
    if (!next || !draw(next)) return;
    const { id, state } = next;
    const { width, height } = size;
    this.taken.set(id, { state, at: now, isThere: this.has(id) });
    this.busy = gpu;
    const target = gpu.acquire(width, height, '8');
    gpu.moveCanvas(next.width, next.height, target);
    gpu
      .takeBytes(target)
      .then(
        (rgba) => {
          const entry = this.taken.get(id);
          // A card that is lost while it is read gives nothing but zeros, and does not say so yet. What outputs show is opaque.
          if (!entry || rgba[3] === 0) return;
          entry.isThere = true;
          this.give(id, { width, height, rgba });
        },
        () => undefined, // The GPU was lost meanwhile: the one before stands in.
      )
      .finally(() => {
        if (this.busy === gpu) this.busy = null;
      });
  }

  /** Whether there is one of an output. */
  has(id: string): boolean {
    return this.taken.get(id)?.isThere === true;
  }

  forget(id: string): void {
    this.taken.delete(id);
  }
}
