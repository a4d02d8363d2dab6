import type { MidiFile } from './file';
import { afterEvent, quietMidi, type MidiState } from './state';

/** A MIDI file at the time of the show, once or round and round. */
export class MidiPlayer {
  private state: MidiState = quietMidi;
  private next = 0;
  private round = 0;
  private last = -1;

  constructor(
    private readonly file: MidiFile,
    /** Seconds of a round; 0 plays once. */
    private readonly roundSeconds: number,
  ) {}

  /** What it stands at; a jump back plays the round from its start. Counts of hits go on from round to round. */
  at(time: number): MidiState {
    const { events } = this.file;
    const isRound = this.roundSeconds > 0;
    const round = isRound ? Math.floor(time / this.roundSeconds + 1e-9) : 0;
    const place = isRound ? time - round * this.roundSeconds : time;
    if (time < this.last || round > this.round + 1) {
      this.state = quietMidi;
      this.next = 0;
    } else if (round > this.round) {
      this.playTo(Infinity);
      this.next = 0;
    }
    this.round = round;
    this.last = time;
    this.playTo(place);
    return events.length ? this.state : quietMidi;
  }

  private playTo(seconds: number): void {
    const { events } = this.file;
    while (this.next < events.length && events[this.next].seconds <= seconds + 1e-9)
      this.state = afterEvent(this.state, events[this.next++].event);
  }
}
