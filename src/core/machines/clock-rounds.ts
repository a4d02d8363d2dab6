import { ClockMeter } from './clock';

/** Rounds of the clock that are asked for quickly at first, then now and then; milliseconds between them. */
const quickRounds = 8;
const everyMs = { quick: 60, calm: 1000 };
/** Milliseconds after which a round counts as lost. */
const lostMs = 2000;
/** Rounds that the losses are counted over. */
const countedRounds = 60;

/** What tells and keeps the time of a machine. */
export interface Timekeeper {
  /** Milliseconds of its clock, which is not set back while it runs. */
  now(): number;
  /** Calls something after some milliseconds; gives what calls it off. */
  later(run: () => void, ms: number): () => void;
}

/** Asks the other end of a link for the time, over and over. */
export class ClockRounds {
  readonly clock = new ClockMeter();
  /** Whether each of the last rounds came back. */
  private readonly rounds: boolean[] = [];
  private count = 0;
  private callOff: () => void = () => undefined;

  constructor(
    /** Asks for the milliseconds of the other clock; the answer may never come. */
    private readonly ask: (answer: (server: number) => void) => void,
    private readonly time: Timekeeper,
  ) {}

  /** Begins once there is a link, quickly at first. */
  begin(): void {
    this.callOff();
    this.count = 0;
    this.round();
  }

  /** Asks no more. */
  end(): void {
    this.callOff();
  }

  /** Rounds that were asked for, and those that were not answered in time, of the last minute. */
  get counts(): { asked: number; lost: number } {
    return { asked: this.rounds.length, lost: this.rounds.filter((came) => !came).length };
  }

  private note(came: boolean): void {
    this.rounds.push(came);
    if (this.rounds.length > countedRounds) this.rounds.shift();
  }

  private round(): void {
    const { time } = this;
    const sent = time.now();
    let isOpen = true;
    const answered = time.later(() => {
      isOpen = false;
      this.note(false);
    }, lostMs);
    this.ask((server) => {
      if (!isOpen) return;
      isOpen = false;
      answered();
      this.note(true);
      this.clock.add({ sent, received: time.now(), server });
    });
    this.callOff = time.later(() => this.round(), ++this.count < quickRounds ? everyMs.quick : everyMs.calm);
  }
}
