import { showStore } from '../data/show-store';
import { engine } from '../engine/client';
import { onHeard } from './controllers';
import { BindingReader } from '../../core/desk/bindings';
import { FeedbackLines } from './feedback';
import { sendMidi } from './midi';
import { sendOscTo } from './osc';

/** Sends back where bound controls stand, to lights, motors and OSC, whenever that changes; called once. */
export function keepFeedback(): void {
  const lines = new FeedbackLines();
  const reader = new BindingReader();
  onHeard((event) => {
    for (const binding of showStore.getState().show.bindings) {
      const turned = reader.read(binding, event);
      if (turned?.share !== undefined) lines.heard(binding, turned.share);
    }
  });
  engine().on('performance', ({ state }) => {
    const { show } = showStore.getState();
    if (show.bindings.length === 0) return;
    for (const line of lines.next(show, state)) {
      if ('midi' in line) sendMidi(line.midi);
      else if (show.inputs.osc.to) sendOscTo(show.inputs.osc.to, line.osc);
    }
  });
}
