/** One round: a question that went off and was answered, in milliseconds of the two clocks. */
export interface ClockRound {
  /** By the own clock. */
  sent: number;
  received: number;
  /** By the clock of the server, when it answered. */
  server: number;
}

/** How far the clock of this machine is from that of the server. */
export interface ClockState {
  /** Milliseconds that have to be added to the own clock. */
  offset: number;
  /** Median distance of single rounds from it, in milliseconds: how sure it is. */
  jitter: number;
  /** Milliseconds by which the clocks part in a second. */
  drift: number;
  /** Shortest way there and back, in milliseconds. */
  roundTrip: number;
  rounds: number;
}

/** Rounds that are looked at: a minute or so of them. */
const mostRounds = 60;
/** Milliseconds by which a round may differ before the clock is taken to have been set. */
const jumpMs = 250;
/** Rounds in a row that have to say so. */
const jumpRounds = 3;
/** Milliseconds of rounds below which a drift is not told from their jitter. */
const driftSpanMs = 20000;

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
};

interface Sample {
  at: number;
  offset: number;
  roundTrip: number;
}

/**
 * Measures the offset of two clocks from rounds over a network: an answer is taken to have been given half way, so what the
 * two ways differ by is not seen (half of the shortest round is the most by which it can be wrong). Of the rounds kept, the quicker half counts, since
 * what waited somewhere waited on one of the ways. A drift is the slope by the medians of all pairs (Theil–Sen), once rounds reach far enough.
 * A clock that was set is followed after a few rounds; one round alone changes nothing.
 */
export class ClockMeter {
  private samples: Sample[] = [];
  private strangers: Sample[] = [];
  private fitted: { state: ClockState; at: number } | null = null;
  private isOther = false;

  /** The rounds that follow are of another clock. What is known holds until the first of them is back. */
  startOver(): void {
    this.isOther = true;
  }

  add({ sent, received, server }: ClockRound): void {
    const roundTrip = received - sent;
    if (!(roundTrip >= 0) || !Number.isFinite(server)) return;
    if (this.isOther) {
      this.isOther = false;
      this.samples = [];
      this.strangers = [];
      this.fitted = null;
    }
    const at = (sent + received) / 2;
    const sample = { at, offset: server - at, roundTrip };
    if (this.fitted && Math.abs(sample.offset - this.offsetAt(at)) > jumpMs + roundTrip / 2) {
      this.strangers.push(sample);
      if (this.strangers.length < jumpRounds) return;
      this.samples = this.strangers;
      this.strangers = [];
    } else {
      this.strangers = [];
      this.samples.push(sample);
      if (this.samples.length > mostRounds) this.samples.shift();
    }
    this.fitted = this.fit();
  }

  private fit(): { state: ClockState; at: number } {
    const quick = median(this.samples.map((sample) => sample.roundTrip));
    const used = this.samples.filter((sample) => sample.roundTrip <= quick);
    const at = used[used.length - 1].at;
    let drift = 0;
    if (at - used[0].at >= driftSpanMs) {
      const slopes: number[] = [];
      for (const [k, a] of used.entries())
        for (const b of used.slice(k + 1))
          if (b.at > a.at) slopes.push((b.offset - a.offset) / (b.at - a.at));
      drift = median(slopes);
    }
    const straight = used.map((sample) => sample.offset + drift * (at - sample.at));
    const offset = median(straight);
    const jitter = median(straight.map((one) => Math.abs(one - offset)));
    const roundTrip = Math.min(...used.map((sample) => sample.roundTrip));
    return { state: { offset, jitter, drift: drift * 1000, roundTrip, rounds: this.samples.length }, at };
  }

  private offsetAt(now: number): number {
    if (!this.fitted) return 0;
    const { state, at } = this.fitted;
    return state.offset + (state.drift / 1000) * (now - at);
  }

  /** What is known; null: no round has come back yet. */
  get state(): ClockState | null {
    return this.fitted?.state ?? null;
  }

  /** Milliseconds of the server's clock at a moment of the own; the own clock while nothing is known. */
  toServer(now: number): number {
    return now + this.offsetAt(now);
  }

  /** Milliseconds of the own clock at a moment of the server's. */
  toOwn(server: number): number {
    // The offset hardly changes over its own length: one step is exact to far below a microsecond.
    return server - this.offsetAt(server - this.offsetAt(server));
  }
}
