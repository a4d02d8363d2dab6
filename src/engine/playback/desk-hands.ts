import type { DeskRun } from '../../core/desk/desk-run';
import { cornerShares } from '../../core/desk/mix';
import { Takeover } from '../../core/desk/takeover';
import { isWords } from '../../core/desk/value';
import type { Show } from '../../core/document/types';
import { assertNever } from '../../core/assert-never';
import type { PerformanceCommand } from '../../core/desk/command';

type HandCommand = Extract<PerformanceCommand, { type: 'turn' | 'turn-by' | 'flip' | 'press' }>;

/** What dials, pads and keys do to the desk: they know of shares and presses, the desk of values. */
export class DeskHands {
  private readonly takeover = new Takeover();

  constructor(private readonly desk: DeskRun) {}

  /** Faders have to find their controls again. */
  forget(): void {
    this.takeover.forget();
  }

  /** Gives whether it moved the control. */
  play(command: HandCommand, time: number): boolean {
    const { control } = command;
    if (command.type === 'press') return this.press(control, command.down, time);
    const from = command.type === 'flip' ? 0 : command.from;
    const share = this.shareOf(control, from);
    if (share === null) return false;
    switch (command.type) {
      case 'turn':
        // Words have no place on the way of a fader: they are chosen by where it is.
        if (command.pickup && share >= 0 && !this.takeover.takes(command.source, command.share, share))
          return false;
        this.turn(control, from, command.share, time);
        return true;
      case 'turn-by':
        this.turn(control, from, Math.min(1, Math.max(0, Math.max(0, share) + command.by)), time);
        return true;
      case 'flip':
        if (share >= 0) this.turn(control, 0, share > 0.5 ? 0 : 1, time);
        return share >= 0;
      default:
        return assertNever(command);
    }
  }

  /** Share of its range that a number of a control stands at; -1 for words; null if there is no such control. */
  private shareOf(control: string, from: number): number | null {
    const value = this.desk.valueOf(control);
    const found = this.desk.controlOf(control);
    if (value === null || !found) return null;
    if (isWords(value)) return -1;
    const [low, high] = found.range;
    return high === low ? 0 : ((value[from] ?? low) - low) / (high - low);
  }

  private turn(control: string, from: number, share: number, time: number): void {
    const {
      range: [low, high],
      type,
    } = this.desk.controlOf(control)!;
    // A fader on a switch has two halves.
    const to = type === 'switch' || type === 'pad' ? (share > 0.5 ? high : low) : low + share * (high - low);
    this.desk.setNumber(control, from, to, time);
  }

  /** A pad is at its high end while it is held; one that fires a button of a node counts its presses. */
  private press(control: string, down: boolean, time: number): boolean {
    const found = this.desk.controlOf(control);
    const value = this.desk.valueOf(control);
    if (!found || value === null || isWords(value)) return false;
    const {
      range: [low, high],
      step,
    } = found;
    const counts = step === 1 && high - low > 1;
    if (counts && !down) return false;
    const to = counts ? (value[0] + 1 > high ? low + 1 : value[0] + 1) : down ? high : low;
    this.desk.set(control, [to], time);
    return true;
  }

  /** Puts the controls of a page between the snapshots at its corners; gives those that it moved. */
  morph(show: Show, pageId: string, at: readonly [number, number], time: number): string[] {
    const page = show.desk.find(({ id }) => id === pageId);
    if (!page) return [];
    const states = page.corners.map((id) => show.snapshots.find((one) => one.id === id)?.values ?? null);
    const shares = cornerShares([Math.min(1, Math.max(0, at[0])), Math.min(1, Math.max(0, at[1]))]);
    // Corners without a snapshot leave their share to the others.
    const kept = shares.map((share, k) => (states[k] ? share : 0));
    const sum = kept.reduce((a, b) => a + b, 0);
    const there = states.flatMap((state, k) =>
      state && kept[k] > 0 ? [{ state, share: kept[k] / sum }] : [],
    );
    this.desk.mix(
      there.map(({ state }) => state),
      there.map(({ share }) => share),
      time,
    );
    return Object.keys(there[0]?.state ?? {});
  }
}
