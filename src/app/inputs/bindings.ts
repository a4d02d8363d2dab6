import { BindingReader, sourceKey, type Turned } from '../../core/desk/bindings';
import type { Binding } from '../../core/document/types';
import { transitionSeconds } from '../../core/show/transition';
import { playSession } from '../data/play-session';
import { showStore } from '../data/show-store';
import { perform } from '../engine/perform';
import { liveStore } from '../engine/live';
import { onHeard } from './controllers';
import { learnStore } from './learn-store';

const reader = new BindingReader();

/** Sources that stand at their high end now, so that a press is told from what holds it. */
const pressed = new Set<string>();

/** Whether a source has just been pressed; let go is told by `false`, and null is neither. */
function pressOf(binding: Binding, { down }: Turned): boolean | null {
  if (down === undefined) return null;
  if (down === pressed.has(binding.id)) return null;
  if (down) pressed.add(binding.id);
  else pressed.delete(binding.id);
  return down;
}

/** Hands what a source did to what it is bound to. `run`: runs a command by its id. */
function play(binding: Binding, turned: Turned, run: (id: string) => void): void {
  const { show } = showStore.getState();
  const { target, source, pickup } = binding;
  const press = pressOf(binding, turned);
  switch (target.type) {
    case 'desk': {
      const { control, from } = target;
      const found = show.desk.flatMap(({ controls }) => controls).find(({ id }) => id === control);
      const isPad = found?.type === 'pad';
      const isFlipped = found?.type === 'switch' && ['note', 'key', 'button'].includes(source.type);
      if (isPad) {
        if (press !== null) perform({ type: 'press', control, down: press });
      } else if (isFlipped) {
        // A key flips a switch; a fader has it in two halves.
        if (press) perform({ type: 'flip', control });
      } else if (turned.by !== undefined) perform({ type: 'turn-by', control, from, by: turned.by });
      else if (turned.share !== undefined)
        perform({
          type: 'turn',
          control,
          from,
          share: turned.share,
          source: sourceKey(source),
          // What springs back by itself can't pick anything up.
          pickup: pickup && !['note', 'key', 'button'].includes(source.type),
        });
      break;
    }
    case 'command':
      if (press) run(target.command);
      break;
    case 'scene':
      if (press) perform({ type: 'take', scene: target.scene, seconds: transitionSeconds(show) });
      break;
    case 'snapshot':
      if (press)
        perform({
          type: 'recall',
          snapshot: target.snapshot,
          seconds: playSession.getState().recallSeconds,
          start: playSession.getState().recallStart,
        });
      break;
    case 'hit':
      if (press !== null) perform({ type: 'hit', hit: target.hit, on: press });
      break;
    case 'master':
      playMaster(target.master, turned);
      break;
  }
}

function playMaster(master: 'speed' | 'motion' | 'crossfader' | 'layer', { share, by }: Turned): void {
  const { masters, layer, program } = liveStore.getState();
  const to = (now: number): number => Math.min(1, Math.max(0, share ?? now + (by ?? 0)));
  switch (master) {
    case 'speed':
    case 'motion':
      // The middle of a fader is as it was made.
      perform({ type: 'master', master, value: 2 * to(masters[master] / 2) });
      break;
    case 'crossfader':
      perform({ type: 'crossfade', to: to(program.incoming === null ? 0 : program.fade) });
      break;
    case 'layer':
      if (layer) perform({ type: 'layer', layer: { ...layer, opacity: to(layer.opacity) } });
      break;
  }
}

/** Lets what hands and devices do move what it is bound to; called once. */
export function keepBindings(run: (id: string) => void): void {
  onHeard((event) => {
    if (learnStore.getState().waiting) return;
    for (const binding of showStore.getState().show.bindings) {
      const turned = reader.read(binding, event);
      if (turned) play(binding, turned, run);
    }
  });
}
