import type { PerformanceState } from '../../core/desk/performance-state';
import type { Binding, BindSource, DeskControl, Show } from '../../core/document/types';
import type { MidiEvent } from '../../core/midi/message';
import type { OscMessage } from '../../core/osc/packet';
import { deskControls, shareIn, storedValue } from '../../core/desk/value';
import { catalogue } from '../../nodes/catalogue';
import { commandStands } from './command-stands';

/** What is sent back to a source: MIDI, or a number to an OSC address. */
export type Feedback = { midi: MidiEvent } | { osc: OscMessage };

/** What a source has to be told so that its light or motor stands at a share; null: nothing can be sent there. */
function feedbackTo(source: BindSource, share: number): Feedback[] {
  const seven = Math.round(share * 127);
  switch (source.type) {
    case 'control': {
      const { channel, control, fine } = source;
      if (!fine) return [{ midi: { type: 'control', channel, control, value: seven } }];
      const whole = Math.round(share * 16383);
      return [
        { midi: { type: 'control', channel, control, value: whole >> 7 } },
        { midi: { type: 'control', channel, control: control + 32, value: whole & 127 } },
      ];
    }
    case 'note':
      return [
        {
          midi: { type: 'note', channel: source.channel, note: source.note, velocity: seven, on: seven > 0 },
        },
      ];
    case 'bend':
      return [{ midi: { type: 'bend', channel: source.channel, value: 2 * share - 1 } }];
    case 'osc':
      return source.arg === 0 ? [{ osc: { address: source.address, args: [share] } }] : [];
    case 'button':
    case 'stick':
    case 'key':
      return [];
  }
}

/** Where what a binding moves stands, 0..1; null: it has no place. */
function shareOf(
  { target }: Binding,
  show: Show,
  controls: ReadonlyMap<string, DeskControl>,
  state: PerformanceState,
): number | null {
  switch (target.type) {
    case 'desk': {
      const control = controls.get(target.control);
      if (!control) return null;
      const value = state.desk.values[control.id] ?? storedValue(show, control, catalogue);
      const number = typeof value === 'string' ? null : (value[target.from] ?? null);
      const [low, high] = control.range;
      return number === null || high === low ? null : shareIn(control.range, number);
    }
    case 'scene': {
      const { program, incoming } = state.program;
      return (incoming ?? program) === target.scene ? 1 : 0;
    }
    case 'master':
      switch (target.master) {
        case 'speed':
        case 'motion':
          return Math.min(1, state.masters[target.master] / 2);
        case 'crossfader':
          return state.program.incoming === null ? 0 : state.program.fade;
        case 'layer':
          return state.layer?.opacity ?? 0;
      }
      return null;
    case 'command':
      return commandStands(target.command, state);
    case 'snapshot':
    case 'hit':
      return null;
  }
}

/** Says what has to be sent back: once for each change, and nothing to a source that has just said it itself. */
export class FeedbackLines {
  private readonly sent = new Map<string, number>();

  /** A source has just been moved there by a hand: it stands there already. */
  heard(binding: Binding, share: number): void {
    this.sent.set(binding.id, Math.round(share * 16383));
  }

  next(show: Show, state: PerformanceState): Feedback[] {
    const lines: Feedback[] = [];
    // Reports come many times a second: the controls are gone through once for all bindings.
    const controls = new Map(deskControls(show.desk).map(({ control }) => [control.id, control]));
    for (const binding of show.bindings) {
      if (!binding.feedback || binding.way === 'relative') continue;
      const share = shareOf(binding, show, controls, state);
      if (share === null) continue;
      const step = Math.round(share * 16383);
      if (this.sent.get(binding.id) === step) continue;
      this.sent.set(binding.id, step);
      lines.push(...feedbackTo(binding.source, share));
    }
    return lines;
  }
}
